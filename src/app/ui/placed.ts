import { kerningOf } from '../../core/project/kerningLookup';
import type { GlyphId, Master, Project } from '../../core/project/model';
import { drawingIn } from '../../core/project/outline';

/** A glyph of a line: where it begins, in font units from the line's start, and its advance. */
export type Placed = { id: GlyphId; x: number; advance: number };

/** Glyphs one after the other by their advances, with their kerning unless they stand plain. */
export function placed(
  project: Project,
  master: Master,
  ids: readonly GlyphId[],
  plain: boolean,
): { glyphs: Placed[]; width: number } {
  let x = 0;
  const glyphs = ids.map((id, i) => {
    const before = ids[i - 1];
    if (before && !plain) x += kerningOf(project, master, before, id)?.value ?? 0;
    const { advance } = drawingIn(project, project.glyphs[id]!, master.id);
    const at = { id, x, advance };
    x += advance;
    return at;
  });
  return { glyphs, width: x };
}
