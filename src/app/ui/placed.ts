import { kerningOf } from '../../core/project/kerningLookup';
import type { GlyphId, Master, Project } from '../../core/project/model';
import { drawingOf } from '../../core/project/queries';

export type Placed = { id: GlyphId; x: number };

/** Glyphs one after the other with their kerning. */
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
    const at = { id, x };
    x += drawingOf(project.glyphs[id]!, master.id).advance;
    return at;
  });
  return { glyphs, width: x };
}
