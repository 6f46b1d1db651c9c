import type { Project } from '../project/model';
import { drawingOf, isBlank, isEmptyDrawing } from '../project/queries';

/** Code points whose glyphs are drawn in every master; blanks count as drawn. */
export function drawnCodes(project: Project): ReadonlySet<number> {
  const out = new Set<number>();
  for (const id of project.glyphOrder) {
    const glyph = project.glyphs[id]!;
    if (glyph.unicodes.length === 0) continue;
    if (isBlank(glyph) || project.masters.every((m) => !isEmptyDrawing(drawingOf(glyph, m.id))))
      for (const code of glyph.unicodes) out.add(code);
  }
  return out;
}
