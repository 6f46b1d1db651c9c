import { type Contour, contourFromCurves, curvesOf } from './contour';
import { asCubic, type Curve, endOf, reversed, startOf, type Vec } from './curve';
import { band, leftNormal } from './offset';
import { removeOverlaps } from './overlaps';
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
 * and caps at open ends, united into simple outlines. Each piece is made by itself and turned counter-clockwise, so that the
 * union leaves no loop or spike where a curve bends tighter than half the width. `failed` when no sound union was found.
 */
export function strokeOutline(
  contours: readonly Contour[],
  { width, join, cap }: StrokeOptions,
): { contours: readonly Contour[]; failed: boolean } {
  const half = width / 2;
  const pieces: Contour[] = [];
  for (const contour of contours) {
    const curves = curvesOf(contour)
      .filter((c) => !isPoint(c))
      .map((c) => (c.length === 6 ? asCubic(c) : c));
    if (curves.length === 0) {
      const only = contour.points[0];
      if (only && cap === 'round') pieces.push(disc(only.x, only.y, half));
      continue;
    }
    for (const c of curves) {
      const { curves: edge, turnsBack } = band(c, half);
      const outline = contourFromCurves(edge, true);
      pieces.push(...(turnsBack ? removeOverlaps([outline]).contours : [outline]));
    }
    const joints = contour.closed ? curves.length : curves.length - 1;
    for (let i = 0; i < joints; i++) pieces.push(...joinAt(curves[i]!, curves[(i + 1) % curves.length]!, half, join));
    if (!contour.closed && cap !== 'flat')
      pieces.push(capAt(reversed(curves[0]!), half, cap), capAt(curves[curves.length - 1]!, half, cap));
  }
  const { contours: united, failed } = removeOverlaps(pieces);
  return { contours: failed ? [] : united.map((c) => withSmoothPoints(c)), failed };
}

const isPoint = (c: Curve): boolean => c.every((v, i) => Math.abs(v - c[i % 2]!) < 1e-6);

/** The wedge on the outside of a corner between two curves; nothing where they go on smoothly. */
function joinAt(a: Curve, b: Curve, half: number, join: Join): Contour[] {
  const [x, y] = startOf(b);
  const [na, nb] = [leftNormal(a, 1), leftNormal(b, 0)];
  const turn = Math.atan2(na[0] * nb[1] - na[1] * nb[0], na[0] * nb[0] + na[1] * nb[1]);
  if (Math.abs(turn) < SMOOTH)
    return Math.abs(turn) < 1e-6 ? [] : [wedge([x, y], [na, nb], { half, turn, join: 'bevel' })];
  return [wedge([x, y], [na, nb], { half, turn, join })];
}

/** The outside is to the right of a left turn. */
function wedge(
  [x, y]: Vec,
  [na, nb]: readonly [Vec, Vec],
  { half, turn, join }: { half: number; turn: number; join: Join },
): Contour {
  const left = Math.sign(turn);
  const side = -left * half;
  const from: Vec = [x + na[0] * side, y + na[1] * side];
  const to: Vec = [x + nb[0] * side, y + nb[1] * side];
  const edge: Curve[] = [];
  if (join === 'round') edge.push(...arc([x, y], from, turn));
  else {
    // The two edges meet at half / cos(turn / 2) from the corner.
    const reach = 1 / Math.max(1e-6, Math.cos(turn / 2));
    if (join === 'sharp' && reach <= SHARPEST) {
      const [mx, my] = [na[0] + nb[0], na[1] + nb[1]];
      const length = Math.hypot(mx, my) || 1;
      const tip: Vec = [x + (mx / length) * side * reach, y + (my / length) * side * reach];
      edge.push([...from, ...tip], [...tip, ...to]);
    } else edge.push([...from, ...to]);
  }
  const curves: Curve[] = [[x, y, ...from], ...edge, [...to, x, y]];
  return contourFromCurves(left > 0 ? curves : curves.map(reversed).reverse(), true);
}

/** Arcs about a centre from a place through an angle, each of a right angle at most. */
function arc([cx, cy]: Vec, [x0, y0]: Vec, angle: number): Curve[] {
  const parts = Math.max(1, Math.ceil(Math.abs(angle) / (Math.PI / 2) - 1e-9));
  const step = angle / parts;
  const reach = (4 / 3) * Math.tan(step / 4);
  const [c, s] = [Math.cos(step), Math.sin(step)];
  const out: Curve[] = [];
  let [dx, dy] = [x0 - cx, y0 - cy];
  for (let k = 0; k < parts; k++) {
    const [ex, ey] = [dx * c - dy * s, dx * s + dy * c];
    out.push([
      cx + dx,
      cy + dy,
      cx + dx - dy * reach,
      cy + dy + dx * reach,
      cx + ex + ey * reach,
      cy + ey - ex * reach,
      cx + ex,
      cy + ey,
    ]);
    [dx, dy] = [ex, ey];
  }
  return out;
}

/** What a cap adds beyond the end of a curve. */
function capAt(c: Curve, half: number, cap: Exclude<Cap, 'flat'>): Contour {
  const [x, y] = endOf(c);
  const [nx, ny] = leftNormal(c, 1);
  const right: Vec = [x - nx * half, y - ny * half];
  const left: Vec = [x + nx * half, y + ny * half];
  if (cap === 'round')
    return contourFromCurves([[x, y, ...right], ...arc([x, y], right, Math.PI), [...left, x, y]], true);
  const [ax, ay] = [ny * half, -nx * half];
  return contourFromCurves(
    [
      [x, y, ...right],
      [...right, right[0] + ax, right[1] + ay],
      [right[0] + ax, right[1] + ay, left[0] + ax, left[1] + ay],
      [left[0] + ax, left[1] + ay, ...left],
      [...left, x, y],
    ],
    true,
  );
}

/** A full circle, counter-clockwise from its right. */
const disc = (x: number, y: number, r: number): Contour =>
  contourFromCurves(arc([x, y], [x + r, y], 2 * Math.PI), true);
