import type { Vec } from '../geometry/curve';
import type { Ring } from './edges';

const { abs, atan2, ceil, floor, hypot, max, min } = Math;

/** Turns looked at, over pairs of reaches in steps: a corner turns as much within the short reach as within the long one. */
const PAIRS = [
  { short: 2, long: 4, turn: 42, share: 0.78 },
  { short: 4, long: 9, turn: 24, share: 0.7 },
] as const;
/** Steps beside a corner that blur has rounded off. */
export const BLURRED = 1.5;
/** Farthest a corner may lie from the traced line, in steps, and farthest at a sharp tip, of which blur takes much away. */
const FARTHEST = { blunt: 3, sharp: 14 };

const wrap = (i: number, n: number): number => ((i % n) + n) % n;
export const placeOn = ({ xs, ys }: Ring, i: number): Vec => {
  const k = wrap(i, xs.length);
  return [xs[k]!, ys[k]!];
};

/** How much the line turns at a place, in degrees, from the steps before to the steps after it, the nearest ones left out. */
function turnAt(ring: Ring, i: number, reach: number): number {
  const [ax, ay] = placeOn(ring, i - 1 - reach);
  const [bx, by] = placeOn(ring, i - 1);
  const [cx, cy] = placeOn(ring, i + 1);
  const [dx, dy] = placeOn(ring, i + 1 + reach);
  const [ux, uy, vx, vy] = [bx - ax, by - ay, dx - cx, dy - cy];
  return (abs(atan2(ux * vy - uy * vx, ux * vx + uy * vy)) * 180) / Math.PI;
}

/** Places in a ring of even steps where the ink has a corner, in order. */
export function cornersOf(ring: Ring): number[] {
  const n = ring.xs.length;
  if (n < 12) return [];
  const strength = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    for (const { short, long, turn, share } of PAIRS) {
      if (2 * long + 2 >= n) continue;
      const near = turnAt(ring, i, short);
      const far = turnAt(ring, i, long);
      if (near >= share * far && max(near, far) >= turn && near >= turn * 0.8) strength[i] = max(strength[i]!, near);
    }
  }
  const out: number[] = [];
  for (let i = 0; i < n; i++) {
    if (strength[i] === 0) continue;
    let greatest = true;
    for (let k = -3; k <= 3 && greatest; k++)
      if (k !== 0 && (strength[wrap(i + k, n)]! > strength[i]! || (strength[wrap(i + k, n)] === strength[i] && k < 0)))
        greatest = false;
    if (greatest) out.push(i);
  }
  return out;
}

/** The line beside a corner as a parabola by the way from it, fitted to the steps that blur did not touch. */
type Side = { at: (s: number) => Vec; direction: (s: number) => Vec };

function sideOf(ring: Ring, corner: number, sign: 1 | -1, room: number, blurred: number): Side {
  const last = max(3, min(3 * blurred + 8, floor(room)));
  const first = last > blurred + 2 ? blurred : 1;
  // A short side is straight as far as one can tell.
  const degree = last - first >= 5 ? 2 : 1;
  const fit = (values: number[], ways: number[]) => leastSquares(ways, values, degree);
  const ways: number[] = [];
  const [px, py]: [number[], number[]] = [[], []];
  for (let s = first; s <= last; s++) {
    const [x, y] = placeOn(ring, corner + sign * s);
    ways.push(s);
    px.push(x);
    py.push(y);
  }
  const [a, b] = [fit(px, ways), fit(py, ways)];
  return {
    at: (s) => [a[0] + s * (a[1] + s * a[2]), b[0] + s * (b[1] + s * b[2])],
    direction: (s) => [a[1] + 2 * a[2] * s, b[1] + 2 * b[2] * s],
  };
}

/** Coefficients of a polynomial of degree 1 or 2 by least squares, the lowest first. */
export function leastSquares(xs: readonly number[], ys: readonly number[], degree: 1 | 2): [number, number, number] {
  const n = xs.length;
  const mean = xs.reduce((a, b) => a + b, 0) / n;
  const m = [0, 0, 0, 0, 0];
  const r = [0, 0, 0];
  xs.forEach((x, i) => {
    const u = x - mean;
    let power = 1;
    for (let k = 0; k < 5; k++) {
      m[k]! += power;
      if (k < 3) r[k]! += power * ys[i]!;
      power *= u;
    }
  });
  const [s0, , s2, s3, s4] = m as [number, number, number, number, number];
  const [r0, r1, r2] = r as [number, number, number];
  let [a, b, c] = [r0 / n, s2 > 0 ? r1 / s2 : 0, 0];
  const det = s0 * (s2 * s4 - s3 * s3) - s2 * s2 * s2;
  if (degree === 2 && n > 3 && abs(det) > 1e-9) {
    // Sums of odd powers about the mean: only the third is left.
    a = (r0 * (s2 * s4 - s3 * s3) + r1 * s2 * s3 - r2 * s2 * s2) / det;
    b = (s0 * (r1 * s4 - r2 * s3) + r0 * s2 * s3 - r1 * s2 * s2) / det;
    c = (s0 * (s2 * r2 - s3 * r1) - s2 * s2 * r0) / det;
  }
  return [a - b * mean + c * mean * mean, b - 2 * c * mean, c];
}

/** A corner: where the sides beside it meet when they are followed on, and the directions into them. */
export type Corner = { index: number; x: number; y: number; before: Vec; after: Vec };

/** The true place of each corner. `corners` are places in the ring, in order. */
export function sharpened(ring: Ring, corners: readonly number[]): Corner[] {
  const n = ring.xs.length;
  return corners.map((index, k) => {
    const roomBefore =
      corners.length === 1 ? n / 2 : wrap(index - corners[(k - 1 + corners.length) % corners.length]!, n);
    const roomAfter = corners.length === 1 ? n / 2 : wrap(corners[(k + 1) % corners.length]! - index, n);
    const sides = (blurred: number) => {
      const before = sideOf(ring, index, -1, (roomBefore || n) / 2, blurred);
      const after = sideOf(ring, index, 1, (roomAfter || n) / 2, blurred);
      return { before, after, met: meeting(before, after) };
    };
    const near = sides(ceil(BLURRED));
    // Where the sides run close together blur reaches farther along them.
    const tip = sine(near.before.direction(0), near.after.direction(0));
    const { before, after, met } = tip < 0.5 ? sides(min(9, ceil(1.1 / tip))) : near;
    const [rx, ry] = placeOn(ring, index);
    const [x, y] =
      met && hypot(met.x - rx, met.y - ry) <= farthest(before.direction(met.s), after.direction(met.u))
        ? [met.x, met.y]
        : [rx, ry];
    return { index, x, y, before: before.direction(met?.s ?? 0), after: after.direction(met?.u ?? 0) };
  });
}

/** A pixel's width fits between two sides only so far from where they meet. */
const farthest = (a: Vec, b: Vec): number => min(FARTHEST.sharp, max(FARTHEST.blunt, 1.6 / sine(a, b)));

const sine = (a: Vec, b: Vec): number => max(0.01, abs(a[0] * b[1] - a[1] * b[0]) / (hypot(...a) * hypot(...b) || 1));

/** Where two sides meet, by Newton's method from the corner. */
function meeting(a: Side, b: Side): { x: number; y: number; s: number; u: number } | undefined {
  let [s, u] = [0, 0];
  for (let round = 0; round < 12; round++) {
    const [p, q, d, e] = [a.at(s), b.at(u), a.direction(s), b.direction(u)];
    const det = e[0] * d[1] - e[1] * d[0];
    if (abs(det) < 1e-6) return undefined;
    const [x, y] = [q[0] - p[0], q[1] - p[1]];
    const [ds, du] = [(e[0] * y - e[1] * x) / det, (d[0] * y - d[1] * x) / det];
    s += max(-2, min(2, ds));
    u += max(-2, min(2, du));
    if (abs(s) > FARTHEST.sharp || abs(u) > FARTHEST.sharp) return undefined;
    if (hypot(ds, du) < 1e-6) break;
  }
  const [x, y] = a.at(s);
  return { x, y, s, u };
}
