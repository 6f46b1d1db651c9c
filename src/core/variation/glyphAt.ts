import type { Contour } from '../geometry/contour';
import type { Drawing, GlyphId, Project } from '../project/model';
import { flattened } from '../project/outline';
import { defaultMaster, drawingOf } from '../project/queries';
import { sameStructure } from '../project/structure';
import { blendedDrawing } from './instance';
import { type Place, weightsAt } from './places';

/** A glyph as it looks at a place: outlines with its parts drawn out, its advance; `stuck` where its masters do not agree. */
export type GlyphAt = { contours: readonly Contour[]; advance: number; stuck: boolean };

const agreeing = new WeakMap<object, { masters: Project['masters']; agrees: boolean }>();

/** Draws glyphs of a project at a place between its masters, or beyond them; those that do not agree as the default has them. */
export function drawingsAt(project: Project, place: Place): (id: GlyphId) => Drawing | undefined {
  const { masters, axes } = project;
  const weights = weightsAt(
    axes,
    masters.map((m) => m.place),
    place,
  );
  const main = defaultMaster(project).id;
  const known = new Map<GlyphId, Drawing | undefined>();
  return (id) => {
    if (known.has(id)) return known.get(id);
    const glyph = project.glyphs[id];
    let drawing: Drawing | undefined;
    if (glyph) {
      const all = [...masters.map((m) => drawingOf(glyph, m.id)), ...glyph.waypoints.map((w) => w.drawing)];
      const held = agreeing.get(glyph);
      const agrees = held?.masters === masters ? held.agrees : sameStructure(all);
      agreeing.set(glyph, { masters, agrees });
      const own =
        glyph.waypoints.length === 0
          ? weights
          : weightsAt(axes, [...masters.map((m) => m.place), ...glyph.waypoints.map((w) => w.place)], place);
      drawing = agrees ? blendedDrawing(all, own) : drawingOf(glyph, main);
    }
    known.set(id, drawing);
    return drawing;
  };
}

/** One glyph at a place. */
export function glyphAt(project: Project, id: GlyphId, place: Place): GlyphAt | undefined {
  const source = drawingsAt(project, place);
  const drawing = source(id);
  if (!drawing) return undefined;
  const glyph = project.glyphs[id]!;
  return {
    contours: flattened(drawing, source),
    advance: drawing.advance,
    stuck: agreeing.get(glyph)?.agrees === false,
  };
}
