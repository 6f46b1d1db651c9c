import { asNumbers, type Curve } from './curve';

/** A run of quadratics with implied on-curve points between its off-curve points, and its measured error in units. */
export type QuadraticRun = { offs: number[]; error: number };

const MOST_PIECES = 64;
/** Largest distance at equal t between a cubic and its quadratic, per length of the third difference. */
const ERROR_SHARE = Math.sqrt(3) / 36;

/**
 * The fewest quadratics on even steps of t that stay within `tolerance` units of a cubic. Each piece p0 p1 p2 p3 becomes
 * the quadratic with control point (3·(p1 + p2) − p0 − p3) / 4. Two facts, both by Taylor expansion at the joint, make
 * this exact: the difference to the cubic is √3/36 · |p3 − 3p2 + 3p1 − p0| at most and falls with the cube of the number
 * of pieces; and the point halfway between neighbouring controls is the cubic's own point, so implied points lie on it.
 * With `atLeast` there are as many pieces as that, or more: what curves that must agree (one in each master) all need.
 */
export function cubicToQuadratics(cubic: Curve, tolerance: number, atLeast = 1): QuadraticRun {
  const [x0, y0, x1, y1, x2, y2, x3, y3] = asNumbers(cubic);
  const ax = x3 - 3 * x2 + 3 * x1 - x0;
  const ay = y3 - 3 * y2 + 3 * y1 - y0;
  const whole = ERROR_SHARE * Math.hypot(ax, ay);
  const n = Math.max(atLeast, piecesFor(whole, tolerance));
  const bx = 3 * (x2 - 2 * x1 + x0);
  const by = 3 * (y2 - 2 * y1 + y0);
  const cx = 3 * (x1 - x0);
  const cy = 3 * (y1 - y0);
  const h = 1 / n;
  const offs: number[] = [];
  for (let i = 0; i < n; i++) {
    // Control point of the piece from t: b + v·h/2 − u·h³/24 with value b, first derivative v and third derivative u.
    const t = i * h;
    const half = h / 2;
    const third = (h * h * h) / 4;
    offs.push(
      x0 + t * (cx + t * (bx + t * ax)) + half * (cx + t * (2 * bx + 3 * t * ax)) - third * ax,
      y0 + t * (cy + t * (by + t * ay)) + half * (cy + t * (2 * by + 3 * t * ay)) - third * ay,
    );
  }
  return { offs, error: whole * h * h * h };
}

const piecesFor = (whole: number, tolerance: number): number =>
  Math.min(MOST_PIECES, Math.max(1, Math.ceil(Math.cbrt(whole / tolerance) - 1e-9)));

/** How many quadratics a cubic needs to stay within `tolerance` units. */
export function quadraticsNeeded(c: Curve, tolerance: number): number {
  const third = (axis: 0 | 1) => c[6 + axis]! - 3 * c[4 + axis]! + 3 * c[2 + axis]! - c[axis]!;
  return piecesFor(ERROR_SHARE * Math.hypot(third(0), third(1)), tolerance);
}
