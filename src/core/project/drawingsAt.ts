import { blendedDrawing } from './blending';
import type { Drawing, GlyphId, Project } from './model';
import { type Place, weightsAt } from './places';
import { defaultMaster, drawingOf } from './queries';
import { sameStructure } from './structure';

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

/** Do the masters of a glyph that was drawn at a place fail to agree, so that it stands as the default has it? */
export const isStuck = (glyph: object): boolean => agreeing.get(glyph)?.agrees === false;
