import { type Affine, compose, determinant, IDENTITY } from '../geometry/affine';
import { type Contour, contourBounds, reverseContour, transformContour } from '../geometry/contour';
import { type Box, emptyBox, isEmptyBox, stretchBox } from '../geometry/curve';
import type { Drawing, GlyphId, MasterId, Project } from './model';
import { drawingOf } from './queries';

/** Gives a glyph's drawing by id; what the outline functions need of a project. */
export type DrawingSource = (id: GlyphId) => Drawing | undefined;

export const drawingsOf =
  (project: Project, master: MasterId): DrawingSource =>
  (id) => {
    const glyph = project.glyphs[id];
    return glyph ? drawingOf(glyph, master) : undefined;
  };

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
