import { type Affine, compose, determinant, IDENTITY } from '../geometry/affine';
import { type Contour, contourBounds, reverseContour, transformContour } from '../geometry/contour';
import { type Box, emptyBox, isEmptyBox, stretchBox } from '../geometry/curve';
import { drawingsAt } from './drawingsAt';
import type { Drawing, Glyph, GlyphId, MasterId, Project } from './model';
import { drawingOf } from './queries';
import { isWaypointId, waypointOf, waypointPlace } from './waypoints';

/** Gives a glyph's drawing by id; what the outline functions need of a project. */
export type DrawingSource = (id: GlyphId) => Drawing | undefined;

export const drawingsOf = (project: Project, master: MasterId): DrawingSource => {
  const place = waypointPlace(master);
  // Other glyphs have nothing of their own at a glyph’s waypoint: they stand as they lie between the masters.
  const between = place && drawingsAt(project, place);
  return (id) => {
    const glyph = project.glyphs[id];
    if (!glyph) return undefined;
    return between && !waypointOf(glyph, master) ? between(id) : drawingOf(glyph, master);
  };
};

/** A glyph’s drawing in a master; at a waypoint that is not its own, as it lies between the masters. */
export const drawingIn = (project: Project, glyph: Glyph, master: MasterId): Drawing =>
  isWaypointId(master) ? (drawingsOf(project, master)(glyph.id) ?? drawingOf(glyph, master)) : drawingOf(glyph, master);

/** More contours than this are not drawn out: a few glyphs that use each other twice and twice again come to millions. */
export const MOST_DRAWN_OUT = 20_000;

/** How many contours a drawing comes to with its components drawn out; counted, not drawn. A cycle counts once. */
export function contoursDrawnOut(drawing: Drawing, source: DrawingSource): number {
  const known = new Map<GlyphId, number>();
  const count = (d: Drawing): number =>
    d.components.reduce((sum, { glyph }) => {
      let n = known.get(glyph);
      if (n === undefined) {
        known.set(glyph, 0);
        const base = source(glyph);
        n = base ? count(base) : 0;
        known.set(glyph, n);
      }
      return sum + n;
    }, d.contours.length);
  return count(drawing);
}

/** Is a drawing built of more parts than can be drawn out? Its own contours are all that is shown of it then. */
export const isOverbuilt = (drawing: Drawing, source: DrawingSource): boolean =>
  drawing.components.length > 0 && contoursDrawnOut(drawing, source) > MOST_DRAWN_OUT;

/**
 * All contours of a drawing, its components drawn out through their transforms (mirrored ones keep their direction).
 * Missing bases draw nothing; a cycle is cut where it would start again; what is overbuilt is not drawn out.
 */
export function flattened(drawing: Drawing, source: DrawingSource): readonly Contour[] {
  if (drawing.components.length === 0 || isOverbuilt(drawing, source)) return drawing.contours;
  const out: Contour[] = [...drawing.contours];
  const visit = (d: Drawing, t: Affine, chain: readonly GlyphId[]) => {
    for (const component of d.components) {
      const base = chain.includes(component.glyph) ? undefined : source(component.glyph);
      if (!base) continue;
      const whole = compose(t, component.transform);
      for (const contour of base.contours) {
        const moved = transformContour(contour, whole);
        out.push(determinant(whole) < 0 ? reverseContour(moved) : moved);
      }
      visit(base, whole, [...chain, component.glyph]);
    }
  };
  visit(drawing, IDENTITY, []);
  return out;
}

/** The exact box of a drawing, components included; empty (xMin above xMax) when nothing is drawn. */
export function drawingBounds(drawing: Drawing, source: DrawingSource): Box {
  const box = emptyBox();
  for (const contour of flattened(drawing, source)) {
    const b = contourBounds(contour);
    if (isEmptyBox(b)) continue;
    stretchBox(box, b.xMin, b.yMin);
    stretchBox(box, b.xMax, b.yMax);
  }
  return box;
}

const ownHeights = new WeakMap<readonly Contour[], readonly [number, number] | undefined>();

/** Lowest and highest place of contours; undefined when there are none. Known again for the same list. */
function heightsOfContours(contours: readonly Contour[]): readonly [number, number] | undefined {
  if (ownHeights.has(contours)) return ownHeights.get(contours);
  const boxes = contours.map(contourBounds).filter((b) => !isEmptyBox(b));
  const heights =
    boxes.length === 0
      ? undefined
      : ([Math.min(...boxes.map((b) => b.yMin)), Math.max(...boxes.map((b) => b.yMax))] as const);
  ownHeights.set(contours, heights);
  return heights;
}

/**
 * Lowest and highest place of a drawing, its parts included: quick, for many drawings again and again. A part that is turned or
 * slanted counts with its whole box, so that nothing lies beyond. Undefined when nothing is drawn.
 */
export function heightsOf(drawing: Drawing, source: DrawingSource, depth = 0): readonly [number, number] | undefined {
  let heights = heightsOfContours(drawing.contours);
  for (const { glyph, transform } of depth < 16 ? drawing.components : []) {
    const part = source(glyph);
    const own = part && heightsOf(part, source, depth + 1);
    if (!own) continue;
    const [, xy, , yy, , dy] = transform;
    const turned = xy === 0 ? 0 : Math.abs(xy) * part.advance;
    const ends = own.map((v) => v * yy + dy);
    const low = Math.min(...ends) - turned;
    const high = Math.max(...ends) + turned;
    heights = heights ? [Math.min(heights[0], low), Math.max(heights[1], high)] : [low, high];
  }
  return heights;
}

/** The chain of glyph ids by which a component of `id` would lead back to `id`, or undefined. */
export function cycleFrom(id: GlyphId, source: DrawingSource): GlyphId[] | undefined {
  const seen = new Set<GlyphId>();
  const visit = (current: GlyphId, chain: GlyphId[]): GlyphId[] | undefined => {
    for (const component of source(current)?.components ?? []) {
      if (component.glyph === id) return [...chain, id];
      if (seen.has(component.glyph)) continue;
      seen.add(component.glyph);
      const found = visit(component.glyph, [...chain, component.glyph]);
      if (found) return found;
    }
    return undefined;
  };
  return visit(id, [id]);
}
