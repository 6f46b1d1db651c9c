import { type Contour, contourBounds, curvesOf, reverseContour, signedArea } from './contour';
import { type Box, type Curve, coordinateAt, extremes, pointAt, solveRising } from './curve';

/**
 * Winding number of a closed set of curves around a point, counter-clockwise positive, by counting crossings of the
 * ray towards negative x. Each curve is cut at its y extremes so every part crosses the ray at most once.
 */
export function windingAt(curves: readonly Curve[], x: number, y: number): number {
  let winding = 0;
  for (const c of curves) {
    if (c.length === 4) {
      winding += crossing(c, 0, 1, x, y);
      continue;
    }
    let low = Infinity;
    let high = -Infinity;
    for (let i = 1; i < c.length; i += 2) {
      low = Math.min(low, c[i]!);
      high = Math.max(high, c[i]!);
    }
    if (y < low || y > high) continue;
    let t0 = 0;
    for (const t of [...extremes(c, 1), 1]) {
      winding += crossing(c, t0, t, x, y);
      t0 = t;
    }
  }
  return winding;
}

/** Crossing of the ray by the part of a curve between two t values where y only rises or only falls. */
function crossing(c: Curve, t0: number, t1: number, x: number, y: number): number {
  const y0 = coordinateAt(c, 1, t0);
  const y1 = coordinateAt(c, 1, t1);
  const up = y0 <= y && y1 > y;
  if (!up && !(y1 <= y && y0 > y)) return 0;
  if (coordinateAt(c, 0, solveRising(c, 1, y, t0, t1)) >= x) return 0;
  return up ? -1 : 1;
}

const holds = (outer: Box, inner: Box): boolean =>
  outer.xMin <= inner.xMin && outer.yMin <= inner.yMin && outer.xMax >= inner.xMax && outer.yMax >= inner.yMax;

/**
 * How many of the other contours lie around each contour: 0 for an outer shape, 1 for a counter, 2 for an island in it. A
 * contour lies within another when the middles of all its segments do; a stroke that only crosses another, or a counter, is no counter.
 */
export function nestingDepths(contours: readonly Contour[]): number[] {
  return contours.map((inner, i) => {
    const box = contourBounds(inner);
    const middles = curvesOf(inner).map((c) => pointAt(c, 0.5));
    if (middles.length === 0) return 0;
    const within = (outer: Contour) => middles.every(([x, y]) => windingAt(curvesOf(outer), x, y) !== 0);
    const depth = contours.filter(
      (outer, j) => i !== j && outer.closed && holds(contourBounds(outer), box) && within(outer),
    ).length;
    if (depth % 2 === 0) return depth;
    // The bar of a theta lies in its ring, and over the white in it: it is ink drawn across a counter, not a counter.
    const others = contours.flatMap((c, j) => (i !== j && c.closed ? curvesOf(c) : []));
    const inWhite = middles.filter(([x, y]) => windingAt(others, x, y) === 0).length;
    return inWhite > 0 && inWhite < middles.length ? depth - 1 : depth;
  });
}

/**
 * Contours with every direction set by nesting: outer shapes counter-clockwise, counters clockwise, islands
 * counter-clockwise again. Contours that are right already keep their identity; open ones are left alone.
 */
export function directedByNesting(contours: readonly Contour[]): readonly Contour[] {
  const depths = nestingDepths(contours);
  let changed = false;
  const next = contours.map((contour, i) => {
    const area = signedArea(contour);
    if (!contour.closed || area === 0 || area > 0 === (depths[i]! % 2 === 0)) return contour;
    changed = true;
    return reverseContour(contour);
  });
  return changed ? next : contours;
}

/**
 * Contours that go the wrong way for where they lie, so that a non-zero fill closes a counter or leaves an island out. What the
 * largest outer contour does is right: a drawing that is turned round as a whole fills just as well.
 */
export function wrongWay(contours: readonly Contour[]): readonly number[] {
  const known = wrongCache.get(contours);
  if (known) return known;
  const depths = nestingDepths(contours);
  const turns = contours.map((c, i) => (c.closed ? Math.sign(signedArea(c)) * (depths[i]! % 2 === 0 ? 1 : -1) : 0));
  const size = contours.map((c) => Math.abs(signedArea(c)));
  const largest = turns.reduce(
    (best, turn, i) => (turn !== 0 && depths[i] === 0 && (best < 0 || size[i]! > size[best]!) ? i : best),
    -1,
  );
  const wrong = largest < 0 ? [] : turns.flatMap((turn, i) => (turn !== 0 && turn !== turns[largest] ? [i] : []));
  wrongCache.set(contours, wrong);
  return wrong;
}

/** By identity: the canvas, the details and the overlay all ask. */
const wrongCache = new WeakMap<readonly Contour[], readonly number[]>();

/** Do some contours go the wrong way for where they lie? */
export const hasMixedDirections = (contours: readonly Contour[]): boolean => wrongWay(contours).length > 0;
