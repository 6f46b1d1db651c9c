import type { Contour } from '../geometry/contour';
import { drawingsAt, isStuck } from '../project/drawingsAt';
import type { GlyphId, Project } from '../project/model';
import { flattened } from '../project/outline';
import type { Place } from '../project/places';
import { standsFor } from './handovers';

/** A glyph as it looks at a place: outlines with its parts drawn out, its advance; `stuck` where its masters do not agree. */
export type GlyphAt = { contours: readonly Contour[]; advance: number; stuck: boolean };

/** One glyph as text has it at a place: where it gives way, the one that stands in. */
export const glyphAt = (project: Project, id: GlyphId, place: Place): GlyphAt | undefined =>
  drawnAt(project, standsFor(project, id, place), place);

/** One glyph as it is drawn at a place, whatever it gives way to there. */
export function drawnAt(project: Project, id: GlyphId, place: Place): GlyphAt | undefined {
  const source = drawingsAt(project, place);
  const drawing = source(id);
  if (!drawing) return undefined;
  const glyph = project.glyphs[id]!;
  return {
    contours: flattened(drawing, source),
    advance: drawing.advance,
    stuck: isStuck(glyph),
  };
}
