import { type Contour, contourFromCurves, curvesOf, reverseContour, signedArea } from './contour';
import { asCubic, type Curve, endOf, reversed, startOf, type Vec } from './curve';
import { arc, cutAtTurns, leftNormal, parallel } from './offset';
import { positiveOutline, removeOverlaps } from './overlaps';
import { withSmoothPoints } from './smooth';

export const JOINS = ['round', 'sharp', 'bevel'] as const;
export const CAPS = ['flat', 'round', 'square'] as const;
export type Join = (typeof JOINS)[number];
export type Cap = (typeof CAPS)[number];
export type StrokeOptions = { width: number; join: Join; cap: Cap };

/** A sharp join reaches at most this many half widths from its corner; beyond, it is a bevel. */
const SHARPEST = 4;
/** Directions that differ by less than this, in radians, join smoothly. */
const SMOOTH = 0.02;

/**
 * The outline of strokes of a width along contours: every place square to a curve within half the width, with joins at corners
 * and caps at open ends, united into simple outlines. `failed` when no sound union was found.
 */
export function strokeOutline(
  contours: readonly Contour[],
  options: StrokeOptions,
): { contours: readonly Contour[]; failed: boolean } {
  const { contours: united, failed } = positiveOutline(piecesOf(contours, options));
  return { contours: failed ? [] : united.map((c) => withSmoothPoints(c)), failed };
}

/** Outlines that wind around what the strokes cover. */
export function piecesOf(contours: readonly Contour[], { width, join, cap }: StrokeOptions): Contour[] {
  const half = width / 2;
  const pieces: Contour[] = [];
  for (const contour of contours) {
    const curves = drawnCurves(contour, half);
    if (curves.length === 0) {
      const only = contour.points[0];
      if (only && cap === 'round') pieces.push(disc(only.x, only.y, half));
      continue;
    }
    const back = curves.map(reversed).reverse();
    const ways = contour.closed ? [curves, back] : [[...curves, ...back]];
    const ends = contour.closed ? [] : [curves.length - 1, 2 * curves.length - 1];
    for (const way of ways)
      pieces.push(...beside(way, half, { join, capAt: (k) => (ends.includes(k) ? cap : undefined) }));
  }
  return pieces;
}

/**
 * Closed contours, the ink to their left, with every edge moved outwards by a distance, or inwards by a negative one; corners
 * that open get a join. `failed` when nothing sound was found; no contours where nothing is left.
 */
export function movedOutline(
  contours: readonly Contour[],
  distance: number,
  join: Join,
): { contours: readonly Contour[]; failed: boolean } {
  const pieces = contours.flatMap((c) => {
    const curves = drawnCurves(c, distance);
    return curves.length === 0 ? [] : beside(curves, distance, { join, capAt: () => undefined });
  });
  const { contours: outline, failed } = positiveOutline(pieces);
  return { contours: failed ? [] : outline.map((c) => withSmoothPoints(c)), failed };
}

/** The curves of a contour, cut so that each has a parallel at the distance that runs one way. */
const drawnCurves = (contour: Contour, distance: number): Curve[] =>
  curvesOf(contour)
    .filter((c) => !isPoint(c))
    .flatMap((c) => cutAtTurns(c.length === 6 ? asCubic(c) : c, distance));

/** What happens where two curves follow each other: a cap where the way turns back, else a join. */
type Joints = { join: Join; capAt: (after: number) => Cap | undefined };

/**
 * The ring to the right of a closed way at a distance (to its left for a negative one), which may cross itself: it winds once
 * more around what is swept to the right by normals of the way, once less around what is swept to the left. Where the way
 * turns left of a corner the ring goes around it, where it turns right it goes through it. Curves that bend tighter than the
 * distance stay where they are in the ring; what they sweep, which is swept backwards, is told by itself.
 */
function beside(way: readonly Curve[], distance: number, { join, capAt }: Joints): Contour[] {
  const out: Contour[] = [];
  const edge: Curve[] = [];
  const sides = way.map((c) => parallel(c, -distance));
  const lengths = way.map((c) => Math.hypot(endOf(c)[0] - c[0]!, endOf(c)[1] - c[1]!));
  let at: Vec = [0, 0];
  let first: Vec | undefined;
  const go = (x: number, y: number) => {
    if (first && Math.hypot(x - at[0], y - at[1]) > 1e-9) edge.push([at[0], at[1], x, y]);
    first ??= [x, y];
    at = [x, y];
  };
  const draw = (curves: readonly Curve[]) => {
    for (const c of curves) {
      // Curves meet to the last digit.
      edge.push([at[0], at[1], ...c.slice(2)]);
      at = endOf(c);
    }
  };
  way.forEach((c, i) => {
    const side = sides[i]!;
    const next = way[(i + 1) % way.length]!;
    const [x, y] = endOf(c);
    if (side.turnsBack) {
      go(c[0]!, c[1]!);
      draw([c]);
      out.push(...sweptBy(c, side.curves, distance));
    } else {
      go(...startOf(side.curves[0]!));
      draw(side.curves);
    }
    const [na, nb] = [leftNormal(c, 1), leftNormal(next, 0)];
    const from: Vec = [x - na[0] * distance, y - na[1] * distance];
    const to: Vec = [x - nb[0] * distance, y - nb[1] * distance];
    const turn = Math.atan2(na[0] * nb[1] - na[1] * nb[0], na[0] * nb[0] + na[1] * nb[1]);
    const cap = capAt(i);
    const tight = side.turnsBack || sides[(i + 1) % way.length]!.turnsBack;
    if (cap) {
      go(...from);
      draw(capBetween([x, y], [from, to], cap));
    } else if (turn * distance > 0 && (Math.abs(turn) > SMOOTH || tight)) {
      go(...from);
      draw(joinBetween([x, y], [from, to], { turn, join, normals: [na, nb], distance }));
    } else if (!tight && isCovered(distance * turn, [lengths[i]!, lengths[(i + 1) % way.length]!])) go(...to);
    else go(x, y);
  });
  go(...first!);
  const ring = contourFromCurves(edge, true);
  return [ring, ...out];
}

/**
 * Does what both curves of an inner corner sweep overlap so far that the ring may go straight from one parallel to the next? It
 * takes the triangle between them out once, which both cover.
 */
const isCovered = (span: number, lengths: readonly number[]): boolean => lengths.every((l) => l >= Math.abs(span));

/** What a curve whose parallel turns back sweeps on one side, as simple outlines that wind as {@link beside} counts. */
function sweptBy(c: Curve, side: readonly Curve[], distance: number): Contour[] {
  if (side.length === 0) return [];
  const [start, end] = [startOf(side[0]!), endOf(side[side.length - 1]!)];
  const outline = contourFromCurves([...side, [...end, ...endOf(c)], reversed(c), [...startOf(c), ...start]], true);
  const { contours } = removeOverlaps([signedArea(outline) < 0 ? reverseContour(outline) : outline]);
  return distance > 0 ? [...contours] : contours.map(reverseContour);
}

const isPoint = (c: Curve): boolean => c.every((v, i) => Math.abs(v - c[i % 2]!) < 1e-6);

/** The way round the outside of a corner from one parallel to the next. */
function joinBetween(
  [x, y]: Vec,
  [from, to]: readonly [Vec, Vec],
  {
    turn,
    join,
    normals: [na, nb],
    distance,
  }: { turn: number; join: Join; normals: readonly [Vec, Vec]; distance: number },
): Curve[] {
  if (join === 'round') return arc([x, y], from, turn);
  // The two edges meet at distance / cos(turn / 2) from the corner.
  const reach = 1 / Math.max(1e-6, Math.cos(turn / 2));
  if (join === 'bevel' || reach > SHARPEST) return [[...from, ...to]];
  const [mx, my] = [na[0] + nb[0], na[1] + nb[1]];
  const length = Math.hypot(mx, my) || 1;
  const tip: Vec = [x - (mx / length) * distance * reach, y - (my / length) * distance * reach];
  return [
    [...from, ...tip],
    [...tip, ...to],
  ];
}

/** The way round the end of a stroke from its right edge to its left. */
function capBetween([x, y]: Vec, [right, left]: readonly [Vec, Vec], cap: Cap): Curve[] {
  if (cap === 'flat') return [[...right, ...left]];
  if (cap === 'round') return arc([x, y], right, Math.PI);
  // As far onwards as the edge lies aside.
  const [ax, ay] = [y - right[1], right[0] - x];
  return [
    [...right, right[0] + ax, right[1] + ay],
    [right[0] + ax, right[1] + ay, left[0] + ax, left[1] + ay],
    [left[0] + ax, left[1] + ay, ...left],
  ];
}

/** A full circle, counter-clockwise from its right. */
const disc = (x: number, y: number, r: number): Contour =>
  contourFromCurves(arc([x, y], [x + r, y], 2 * Math.PI), true);
