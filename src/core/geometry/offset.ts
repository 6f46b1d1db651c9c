import {
  type Curve,
  derivativeAt,
  directionAt,
  endOf,
  partOf,
  pointAt,
  reversed,
  splitAt,
  startOf,
  type Vec,
} from './curve';
import { farthestFrom, fitCubic } from './fit';

/** Greatest distance between the true parallel and what is given for it, in font units. */
export const OFFSET_TOLERANCE = 0.2;
const SAMPLES = 20;
const DEEPEST = 6;

/** The unit normal to the left of travel. */
export function leftNormal(c: Curve, t: number): Vec {
  const [dx, dy] = directionAt(c, t);
  const length = Math.hypot(dx, dy) || 1;
  return [-dy / length, dx / length];
}

/** Curvature at a place, positive where the curve bends to the left; 0 where the curve stands still. */
export function curvatureAt(c: Curve, t: number): number {
  if (c.length === 4) return 0;
  const [dx, dy] = derivativeAt(c, t);
  const speed = Math.hypot(dx, dy);
  if (speed < 1e-9) return 0;
  const [ex, ey] = secondDerivativeAt(c, t);
  return (dx * ey - dy * ex) / speed ** 3;
}

function secondDerivativeAt(c: Curve, t: number): Vec {
  const second = (axis: 0 | 1) => {
    const p = (i: number) => c[2 * i + axis]!;
    if (c.length === 6) return 2 * (p(0) - 2 * p(1) + p(2));
    return 6 * ((1 - t) * (p(0) - 2 * p(1) + p(2)) + t * (p(1) - 2 * p(2) + p(3)));
  };
  return [second(0), second(1)];
}

/**
 * The parallel of a curve at a distance to its left (negative: to its right), as cubics within {@link OFFSET_TOLERANCE}. Where
 * the curve bends tighter than the distance the parallel turns back; it is cut there, and the parts that run back do so too.
 * Method: true offset places fitted by least squares with the curve's own directions at the ends, halved until near enough
 * (Tiller and Hanson, "Offsets of two-dimensional profiles", 1984).
 */
export function parallel(c: Curve, distance: number): { curves: Curve[]; turnsBack: boolean } {
  if (c.length === 4) {
    const [nx, ny] = leftNormal(c, 0);
    return {
      curves: [[c[0]! + nx * distance, c[1]! + ny * distance, c[2]! + nx * distance, c[3]! + ny * distance]],
      turnsBack: false,
    };
  }
  const cuts = [0, ...cusps(c, distance), 1];
  let turnsBack = cuts.length > 2;
  const curves = cuts.slice(1).flatMap((to, i) => {
    const part = partOf(c, cuts[i]!, to);
    const sign = 1 - distance * curvatureAt(part, 0.5) < 0 ? -1 : 1;
    if (sign < 0) turnsBack = true;
    return fitted(part, distance, sign, 0);
  });
  return { curves, turnsBack };
}

/** Where the radius of curvature passes through the distance, rising. */
function cusps(c: Curve, distance: number): number[] {
  const value = (t: number) => 1 - distance * curvatureAt(c, t);
  const out: number[] = [];
  const steps = 48;
  let before = value(0);
  for (let k = 1; k <= steps; k++) {
    const here = value(k / steps);
    if (before < 0 !== here < 0) {
      let [a, b] = [(k - 1) / steps, k / steps];
      for (let i = 0; i < 40; i++) {
        const m = (a + b) / 2;
        if (value(m) < 0 === before < 0) a = m;
        else b = m;
      }
      const t = (a + b) / 2;
      if (t > 1e-4 && t < 1 - 1e-4) out.push(t);
    }
    before = here;
  }
  return out;
}

function fitted(c: Curve, distance: number, sign: 1 | -1, depth: number): Curve[] {
  const samples: Vec[] = Array.from({ length: SAMPLES + 1 }, (_, k) => offsetPoint(c, k / SAMPLES, distance));
  const [a, b] = [directionAt(c, 0), directionAt(c, 1)];
  const [first, last] = [samples[0]!, samples[SAMPLES]!];
  if (Math.hypot(last[0] - first[0], last[1] - first[1]) < 1e-6 && depth > 2) return [];
  const curve = fitCubic(samples, [a[0] * sign, a[1] * sign], [-b[0] * sign, -b[1] * sign]);
  if (depth >= DEEPEST || isNear(curve, c, distance)) return [curve];
  const [left, right] = splitAt(c, 0.5);
  return [...fitted(left, distance, sign, depth + 1), ...fitted(right, distance, sign, depth + 1)];
}

const offsetPoint = (c: Curve, t: number, distance: number): Vec => {
  const [x, y] = pointAt(c, t);
  const [nx, ny] = leftNormal(c, t);
  return [x + nx * distance, y + ny * distance];
};

/** Does a curve keep to the true parallel, measured at places between the fitted ones? */
const isNear = (curve: Curve, c: Curve, distance: number): boolean =>
  farthestFrom(
    curve,
    Array.from({ length: SAMPLES }, (_, k) => offsetPoint(c, (k + 0.5) / SAMPLES, distance)),
  ) <= OFFSET_TOLERANCE;

/** The outline of everything square to a curve within a distance on both sides, counter-clockwise; end edges pass the curve's ends. */
export function band(c: Curve, distance: number): { curves: Curve[]; turnsBack: boolean } {
  const right = parallel(c, -distance);
  const left = parallel(c, distance);
  const [x0, y0] = startOf(c);
  const [x1, y1] = endOf(c);
  const [l0, l1] = [offsetPoint(c, 0, distance), offsetPoint(c, 1, distance)];
  const [r0, r1] = [offsetPoint(c, 0, -distance), offsetPoint(c, 1, -distance)];
  const back = left.curves.map(reversed).reverse();
  return {
    curves: [
      ...pinned(right.curves, r0, r1),
      [...r1, x1, y1],
      [x1, y1, ...l1],
      ...pinned(back, l1, l0),
      [...l0, x0, y0],
      [x0, y0, ...r0],
    ],
    turnsBack: right.turnsBack || left.turnsBack,
  };
}

/** Curves end to end from one place to another, gaps of rounding closed. */
function pinned(curves: readonly Curve[], from: Vec, to: Vec): Curve[] {
  let at = from;
  return curves.map((c, i) => {
    const end = i === curves.length - 1 ? to : endOf(c);
    const next = [...at, ...c.slice(2, -2), ...end];
    at = end;
    return next;
  });
}
