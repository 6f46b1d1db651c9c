import { blendedDrawing } from './blending';
import type { Drawing, Glyph, GlyphId, Project } from './model';
import { type Place, sheetOf, weightsAt } from './places';
import { drawingOf } from './queries';
import { mainOn, sameStructure } from './structure';

const agreeing = new WeakMap<
  object,
  { masters: Project['masters']; axes: Project['axes']; sheets: Map<string, boolean> }
>();

/** Do the drawings of a glyph that share the values of axes of single values agree? Known again while they and the masters are the same. */
function agreesOn(
  { masters, axes }: Project,
  glyph: Glyph,
  sheet: string,
  drawings: () => readonly Drawing[],
): boolean {
  let held = agreeing.get(glyph);
  if (held?.masters !== masters || held.axes !== axes) {
    held = { masters, axes, sheets: new Map() };
    agreeing.set(glyph, held);
  }
  const known = held.sheets.get(sheet) ?? sameStructure(drawings());
  held.sheets.set(sheet, known);
  return known;
}

/**
 * Blends glyphs at a place between their masters and waypoints, or beyond them; those whose drawings do not agree stand as the default has
 * them. Masters with other values on axes of single values have no part in it.
 */
export function blendsAt(project: Project, place: Place): (glyph: Glyph) => { drawing: Drawing; agrees: boolean } {
  const { axes } = project;
  const sheet = sheetOf(axes, place);
  const there = <T extends { place: Place }>(list: readonly T[]) =>
    list.filter((x) => sheetOf(axes, x.place) === sheet);
  const own = there(project.masters);
  const masters = own.length > 0 ? own : project.masters;
  const main = mainOn(project, masters).id;
  const placesOf = (list: readonly { place: Place }[]) => list.map((x) => x.place);
  const weights = weightsAt(axes, placesOf(masters), place);
  return (glyph) => {
    const waypoints = glyph.waypoints.length === 0 ? [] : there(glyph.waypoints);
    const drawings = () => [...masters.map((m) => drawingOf(glyph, m.id)), ...waypoints.map((w) => w.drawing)];
    if (!agreesOn(project, glyph, sheet, drawings)) return { drawing: drawingOf(glyph, main), agrees: false };
    const counts =
      waypoints.length === 0 ? weights : weightsAt(axes, [...placesOf(masters), ...placesOf(waypoints)], place);
    return { drawing: blendedDrawing(drawings(), counts), agrees: true };
  };
}

/** Draws glyphs of a project at a place between its masters, or beyond them; those that do not agree as the default has them. */
export function drawingsAt(project: Project, place: Place): (id: GlyphId) => Drawing | undefined {
  const blend = blendsAt(project, place);
  const known = new Map<GlyphId, Drawing | undefined>();
  return (id) => {
    if (known.has(id)) return known.get(id);
    const glyph = project.glyphs[id];
    const drawing = glyph && blend(glyph).drawing;
    known.set(id, drawing);
    return drawing;
  };
}

/** Do the masters of a glyph that was drawn at a place fail to agree, so that it stands as the default has it? */
export const isStuck = (glyph: object): boolean => [...(agreeing.get(glyph)?.sheets.values() ?? [])].includes(false);
