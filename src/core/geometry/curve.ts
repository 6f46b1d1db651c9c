/**
 * Bézier pieces of degree 1, 2 or 3 as flat coordinate lists:
 * [x0, y0, x1, y1] a line, 6 numbers a quadratic, 8 a cubic. Units are font units, t runs from 0 to 1.
 */
export type Curve = readonly number[];
/** The coordinates of a cubic. */
export type Cubic = readonly [
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  x3: number,
  y3: number,
];
/** A curve of eight numbers as what it is. */
export const asNumbers = (cubic: Curve): Cubic => cubic as unknown as Cubic;

export type Box = { xMin: number; yMin: number; xMax: number; yMax: number };
export type Vec = readonly [x: number, y: number];

export const startOf = (c: Curve): Vec => [c[0]!, c[1]!];
export const endOf = (c: Curve): Vec => [c[c.length - 2]!, c[c.length - 1]!];

/** The point at `t` (de Casteljau, written out per degree). */
export function pointAt(c: Curve, t: number): Vec {
  const s = 1 - t;
  if (c.length === 4) return [s * c[0]! + t * c[2]!, s * c[1]! + t * c[3]!];
  if (c.length === 6) {
    const a = s * s;
    const b = 2 * s * t;
    const d = t * t;
    return [a * c[0]! + b * c[2]! + d * c[4]!, a * c[1]! + b * c[3]! + d * c[5]!];
  }
  const a = s * s * s;
  const b = 3 * s * s * t;
  const d = 3 * s * t * t;
  const e = t * t * t;
  return [a * c[0]! + b * c[2]! + d * c[4]! + e * c[6]!, a * c[1]! + b * c[3]! + d * c[5]! + e * c[7]!];
}

/** One coordinate (`axis` 0 is x, 1 is y) at `t`, without making a point. */
export function coordinateAt(c: Curve, axis: 0 | 1, t: number): number {
  const s = 1 - t;
  if (c.length === 4) return s * c[axis]! + t * c[2 + axis]!;
  if (c.length === 6) return s * s * c[axis]! + 2 * s * t * c[2 + axis]! + t * t * c[4 + axis]!;
  return s * s * s * c[axis]! + 3 * s * t * (s * c[2 + axis]! + t * c[4 + axis]!) + t * t * t * c[6 + axis]!;
}

/**
 * The t in [t0, t1] where a coordinate that only rises or only falls there reaches `goal`, clamped to the ends: false
 * position with halving, which cannot leave the bracket (Illinois method).
 */
export function solveRising(c: Curve, axis: 0 | 1, goal: number, t0 = 0, t1 = 1): number {
  let a = t0;
  let b = t1;
  let fa = coordinateAt(c, axis, a) - goal;
  let fb = coordinateAt(c, axis, b) - goal;
  if (fa === 0 || fa > 0 === fb > 0) return Math.abs(fa) <= Math.abs(fb) ? a : b;
  let side = 0;
  for (let i = 0; i < 60 && b - a > 1e-14; i++) {
    const t = (fa * b - fb * a) / (fa - fb);
    const f = coordinateAt(c, axis, t) - goal;
    if (Math.abs(f) < 1e-10) return t;
    if (f > 0 === fb > 0) {
      b = t;
      fb = f;
      if (side === -1) fa /= 2;
      side = -1;
    } else {
      a = t;
      fa = f;
      if (side === 1) fb /= 2;
      side = 1;
    }
  }
  return (a + b) / 2;
}

/** The first derivative at `t`, in units per t. */
export function derivativeAt(c: Curve, t: number): Vec {
  const s = 1 - t;
  if (c.length === 4) return [c[2]! - c[0]!, c[3]! - c[1]!];
  if (c.length === 6) {
    return [2 * (s * (c[2]! - c[0]!) + t * (c[4]! - c[2]!)), 2 * (s * (c[3]! - c[1]!) + t * (c[5]! - c[3]!))];
  }
  const a = s * s;
  const b = 2 * s * t;
  const d = t * t;
  return [
    3 * (a * (c[2]! - c[0]!) + b * (c[4]! - c[2]!) + d * (c[6]! - c[4]!)),
    3 * (a * (c[3]! - c[1]!) + b * (c[5]! - c[3]!) + d * (c[7]! - c[5]!)),
  ];
}

/** A non-zero direction at an end even when handles are retracted; [0, 0] only for a curve that is a single point. */
export function directionAt(c: Curve, t: number): Vec {
  const d = derivativeAt(c, t);
  if (Math.hypot(d[0], d[1]) > 1e-9) return d;
  const step = t < 0.5 ? 1e-3 : -1e-3;
  const here = pointAt(c, t);
  const there = pointAt(c, t + step);
  const sign = Math.sign(step);
  return [(there[0] - here[0]) * sign, (there[1] - here[1]) * sign];
}

/** Splits at `t` into two curves of the same degree that trace the same shape. */
export function splitAt(c: Curve, t: number): [Curve, Curve] {
  const n = c.length / 2;
  const work = c.slice() as number[];
  const left: number[] = [];
  const right = new Array<number>(c.length);
  for (let level = 0; level < n; level++) {
    left.push(work[0]!, work[1]!);
    const last = n - 1 - level;
    right[2 * last] = work[2 * last]!;
    right[2 * last + 1] = work[2 * last + 1]!;
    for (let i = 0; i < 2 * last; i++) work[i] = work[i]! + (work[i + 2]! - work[i]!) * t;
  }
  return [left, right];
}

/** The part of the curve from `t0` to `t1`. */
export function partOf(c: Curve, t0: number, t1: number): Curve {
  if (t0 <= 0 && t1 >= 1) return c;
  const tail = t0 > 0 ? splitAt(c, t0)[1] : c;
  return t1 < 1 ? splitAt(tail, (t1 - t0) / (1 - t0))[0] : tail;
}

/** The same shape travelled the other way. */
export function reversed(c: Curve): Curve {
  const out: number[] = [];
  for (let i = c.length - 2; i >= 0; i -= 2) out.push(c[i]!, c[i + 1]!);
  return out;
}

/** The same shape as a cubic (degree elevation; a line's handles lie at its thirds). */
export function asCubic(c: Curve): Curve {
  if (c.length === 8) return c;
  const [x0, y0] = startOf(c);
  const [x3, y3] = endOf(c);
  if (c.length === 4) {
    return [x0, y0, x0 + (x3 - x0) / 3, y0 + (y3 - y0) / 3, x3 + (x0 - x3) / 3, y3 + (y0 - y3) / 3, x3, y3];
  }
  const qx = c[2]!;
  const qy = c[3]!;
  return [
    x0,
    y0,
    x0 + (2 / 3) * (qx - x0),
    y0 + (2 / 3) * (qy - y0),
    x3 + (2 / 3) * (qx - x3),
    y3 + (2 / 3) * (qy - y3),
    x3,
    y3,
  ];
}

/** The t values strictly inside (0, 1) where the curve turns back in x (`axis` 0) or y (`axis` 1). */
export function extremes(c: Curve, axis: 0 | 1): number[] {
  if (c.length === 4) return [];
  const p0 = c[axis]!;
  const p1 = c[2 + axis]!;
  const p2 = c[4 + axis]!;
  const inside = (t: number) => t > 1e-9 && t < 1 - 1e-9;
  if (c.length === 6) {
    const bottom = p0 - 2 * p1 + p2;
    const t = bottom === 0 ? -1 : (p0 - p1) / bottom;
    return inside(t) ? [t] : [];
  }
  const p3 = c[6 + axis]!;
  return quadraticRoots(p3 - 3 * p2 + 3 * p1 - p0, 2 * (p2 - 2 * p1 + p0), p1 - p0).filter(inside);
}

/** Real roots of a·t² + b·t + c in rising order, by the form that does not cancel (Press et al., Numerical Recipes 5.6). */
export function quadraticRoots(a: number, b: number, c: number): number[] {
  if (Math.abs(a) < 1e-12 * (Math.abs(b) + Math.abs(c))) return b === 0 ? [] : [-c / b];
  const disc = b * b - 4 * a * c;
  if (disc < 0) return [];
  const q = -0.5 * (b + (b < 0 ? -1 : 1) * Math.sqrt(disc));
  if (q === 0) return [0];
  const roots = [q / a, c / q];
  return roots[0]! <= roots[1]! ? roots : [roots[1]!, roots[0]!];
}

export const emptyBox = (): Box => ({ xMin: Infinity, yMin: Infinity, xMax: -Infinity, yMax: -Infinity });
export const isEmptyBox = (b: Box): boolean => b.xMin > b.xMax;

/** Grows `box` in place to hold the point. */
export function stretchBox(box: Box, x: number, y: number): void {
  if (x < box.xMin) box.xMin = x;
  if (x > box.xMax) box.xMax = x;
  if (y < box.yMin) box.yMin = y;
  if (y > box.yMax) box.yMax = y;
}

/** Grows `box` in place to hold the curve exactly, extremes included. */
export function stretchBoxToCurve(box: Box, c: Curve): void {
  stretchBox(box, c[0]!, c[1]!);
  stretchBox(box, c[c.length - 2]!, c[c.length - 1]!);
  if (c.length === 4) return;
  for (let i = 2; i < c.length - 2; i += 2) {
    const x = c[i]!;
    const y = c[i + 1]!;
    if (x < box.xMin || x > box.xMax) for (const t of extremes(c, 0)) stretchBox(box, ...pointAt(c, t));
    if (y < box.yMin || y > box.yMax) for (const t of extremes(c, 1)) stretchBox(box, ...pointAt(c, t));
  }
}

/** The exact bounding box of some curves; empty (xMin above xMax) for none. */
export function boundsOf(curves: readonly Curve[]): Box {
  const box = emptyBox();
  for (const c of curves) stretchBoxToCurve(box, c);
  return box;
}

/** The curve's share of the signed area enclosed by its contour (Green's theorem), counter-clockwise positive. */
export function areaUnder(c: Curve): number {
  const x = (i: number) => c[2 * i]!;
  const y = (i: number) => c[2 * i + 1]!;
  const cross = (i: number, j: number) => x(i) * y(j) - x(j) * y(i);
  if (c.length === 4) return cross(0, 1) / 2;
  if (c.length === 6) return (2 * cross(0, 1) + 2 * cross(1, 2) + cross(0, 2)) / 6;
  return (6 * cross(0, 1) + 3 * cross(0, 2) + cross(0, 3) + 3 * cross(1, 2) + 3 * cross(1, 3) + 6 * cross(2, 3)) / 20;
}

/**
 * The place on the curve nearest to a point: sampled, then every local minimum refined by halving steps; on both sides of the place
 * too where the curve is slowest, as a fold there may be tighter than the samples.
 */
export function nearestOn(c: Curve, x: number, y: number): { t: number; distance: number } {
  const [ax, bx, cx, dx] = powers(c, 0, x);
  const [ay, by, cy, dy] = powers(c, 1, y);
  const squared = (t: number) => {
    const ex = ((ax * t + bx) * t + cx) * t + dx;
    const ey = ((ay * t + by) * t + cy) * t + dy;
    return ex * ex + ey * ey;
  };
  if (c.length === 4) {
    const along = cx * cx + cy * cy;
    const t = along === 0 ? 0 : Math.min(1, Math.max(0, -(dx * cx + dy * cy) / along));
    return { t, distance: Math.sqrt(squared(t)) };
  }
  const steps = 32;
  let t = 0;
  let nearest = Infinity;
  const refineAt = (from: number, first: number) => {
    const found = refine(squared, from, first);
    const value = squared(found);
    if (value < nearest) {
      nearest = value;
      t = found;
    }
  };
  let before = Infinity;
  let here = squared(0);
  for (let i = 0; i <= steps; i++) {
    const after = i < steps ? squared((i + 1) / steps) : Infinity;
    // Each place nearer than its neighbours may hide the nearest of all.
    if (here <= before && here <= after) refineAt(i / steps, 0.5 / steps);
    before = here;
    here = after;
  }
  const fold = slowest(c);
  if (fold !== undefined) {
    if (fold >= 0.5 / steps) refineAt(fold - 0.5 / steps, 0.25 / steps);
    if (fold <= 1 - 0.5 / steps) refineAt(fold + 0.5 / steps, 0.25 / steps);
  }
  return { t, distance: Math.sqrt(nearest) };
}

/** A coordinate (`axis` 0 is x, 1 is y), less a number, as a polynomial in t: the factors of t³, t², t and 1. */
function powers(c: Curve, axis: 0 | 1, less: number): Cubes {
  const p0 = c[axis]!;
  const p1 = c[2 + axis]!;
  if (c.length === 4) return [0, 0, p1 - p0, p0 - less];
  const p2 = c[4 + axis]!;
  if (c.length === 6) return [0, p0 - 2 * p1 + p2, 2 * (p1 - p0), p0 - less];
  const p3 = c[6 + axis]!;
  return [p3 - p0 + 3 * (p1 - p2), 3 * (p0 - 2 * p1 + p2), 3 * (p1 - p0), p0 - less];
}

type Cubes = readonly [number, number, number, number];

/** Where a curve that nearly turns back on itself is slowest; undefined for one whose handles all go on forwards. */
function slowest(c: Curve): number | undefined {
  // Handles that point the way of the whole cannot fold it.
  if (goesOn(c)) return undefined;
  const [ax, bx, cx] = powers(c, 0, 0);
  const [ay, by, cy] = powers(c, 1, 0);
  const speed = (t: number) => {
    const vx = (3 * ax * t + 2 * bx) * t + cx;
    const vy = (3 * ay * t + 2 * by) * t + cy;
    return vx * vx + vy * vy;
  };
  let best = 0;
  for (let i = 1; i <= 64; i++) if (speed(i / 64) < speed(best)) best = i / 64;
  return refine(speed, best, 1 / 128);
}

/** Does each leg of a curve's frame go on in the way of the one before, at a right angle at most? */
function goesOn(c: Curve): boolean {
  for (let i = 4; i < c.length; i += 2) {
    const along = (c[i]! - c[i - 2]!) * (c[i - 2]! - c[i - 4]!) + (c[i + 1]! - c[i - 1]!) * (c[i - 1]! - c[i - 3]!);
    if (along < 0) return false;
  }
  return true;
}

/** The t near `from` at which a value is least, by halving steps. */
function refine(value: (t: number) => number, from: number, first: number): number {
  let t = from;
  let least = value(t);
  for (let step = first; step > 1e-7; step /= 2) {
    const down = Math.max(0, t - step);
    const below = value(down);
    if (below < least) {
      least = below;
      t = down;
      continue;
    }
    const up = Math.min(1, t + step);
    const above = value(up);
    if (above < least) {
      least = above;
      t = up;
    }
  }
  return t;
}

/** Length by Gauss–Legendre quadrature on 16 nodes; better than 0.01 % for the curves of letters. */
export function lengthOf(c: Curve): number {
  if (c.length === 4) return Math.hypot(c[2]! - c[0]!, c[3]! - c[1]!);
  let sum = 0;
  for (let i = 0; i < GAUSS_NODES.length; i++) {
    for (const side of [-1, 1]) {
      const d = derivativeAt(c, 0.5 + (side * GAUSS_NODES[i]!) / 2);
      sum += GAUSS_WEIGHTS[i]! * Math.hypot(d[0], d[1]);
    }
  }
  return sum / 2;
}

const GAUSS_NODES = [
  0.0950125098376374, 0.2816035507792589, 0.4580167776572274, 0.6178762444026438, 0.755404408355003, 0.8656312023878318,
  0.9445750230732326, 0.9894009349916499,
];
const GAUSS_WEIGHTS = [
  0.1894506104550685, 0.1826034150449236, 0.1691565193950025, 0.1495959888165767, 0.1246289712555339,
  0.0951585116824928, 0.0622535239386479, 0.0271524594117541,
];
