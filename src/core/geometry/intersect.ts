import { type Curve, derivativeAt, nearestOn, pointAt, splitAt } from './curve';

/** A place where curve a (at t) meets curve b (at u). */
export type Crossing = { t: number; u: number };

/** Nearer than this, in font units, is the same. */
export const TOUCH = 0.005;
const DEEPEST = 40;
/** A curve whose control points lie no farther from its chord, in font units, is taken for straight at first. */
const FLAT = 0.02;
/** Pairs of stretches looked at, at most. */
const MOST_TRIES = 4000;

/** A part of a curve, with the parameters of the whole at its ends; is it as good as straight? */
type Stretch = { readonly curve: Curve; readonly from: number; readonly to: number; readonly flat: boolean };
/** Two whole curves, what was found of their meetings, and how many more pairs of stretches may be looked at. */
type Hunt = { readonly a: Curve; readonly b: Curve; readonly found: Crossing[]; left: number };

/**
 * All places where two curves meet, touching ends and tangent contacts included. Where the curves run along each other
 * the ends of the shared stretch are given. Method: both are halved while their control boxes meet, until flat enough for
 * a straight solution, then Newton's iteration on the true curves.
 */
export function crossings(a: Curve, b: Curve): Crossing[] {
  const shared = sameCourse(a, b);
  if (shared) return shared;
  if (a.length === 4 && b.length === 4) return withEnds(a, b, lineCrossing(a, b));
  const hunt: Hunt = { a, b, found: [], left: MOST_TRIES };
  search(hunt, { curve: a, from: 0, to: 1, flat: isFlat(a) }, { curve: b, from: 0, to: 1, flat: isFlat(b) }, 0);
  return withEnds(a, b, hunt.found);
}

/** The ends, when both are one curve, the same way or the other way round. */
export function sameCourse(a: Curve, b: Curve): Crossing[] | undefined {
  const n = a.length;
  if (n !== b.length) return undefined;
  let [same, opposite] = [true, true];
  for (let i = 0; i < n && (same || opposite); i++) {
    same &&= a[i] === b[i];
    opposite &&= a[i] === b[n - 2 - i + 2 * (i % 2)];
  }
  if (!same && !opposite) return undefined;
  return [0, 1].map((t) => ({ t, u: same ? t : 1 - t }));
}

/** Ends that lie on the other curve count too; they close shared stretches and T-joints. */
function withEnds(a: Curve, b: Curve, found: readonly Crossing[]): Crossing[] {
  const all = [...found];
  for (const t of [0, 1]) {
    const p = pointAt(a, t);
    const n = nearestIfClose(b, p[0], p[1]);
    if (n !== undefined) all.push({ t, u: n });
    const q = pointAt(b, t);
    const m = nearestIfClose(a, q[0], q[1]);
    if (m !== undefined) all.push({ t: m, u: t });
  }
  return distinctCrossings(a, all);
}

/** Meetings that lie apart on the first curve. */
export function distinctCrossings(a: Curve, all: readonly Crossing[]): Crossing[] {
  if (all.length < 2) return [...all];
  const distinct: Crossing[] = [];
  for (const hit of all) {
    const p = pointAt(a, hit.t);
    const known = distinct.some((d) => {
      const q = pointAt(a, d.t);
      return Math.hypot(p[0] - q[0], p[1] - q[1]) < TOUCH * 2;
    });
    if (!known) distinct.push(hit);
  }
  return distinct;
}

function nearestIfClose(c: Curve, x: number, y: number): number | undefined {
  if (c[0] === x && c[1] === y) return 0;
  if (c[c.length - 2] === x && c[c.length - 1] === y) return 1;
  let xMin = Infinity;
  let xMax = -Infinity;
  let yMin = Infinity;
  let yMax = -Infinity;
  for (let i = 0; i < c.length; i += 2) {
    xMin = Math.min(xMin, c[i]!);
    xMax = Math.max(xMax, c[i]!);
    yMin = Math.min(yMin, c[i + 1]!);
    yMax = Math.max(yMax, c[i + 1]!);
  }
  if (x < xMin - TOUCH || x > xMax + TOUCH || y < yMin - TOUCH || y > yMax + TOUCH) return undefined;
  const near = nearestOn(c, x, y);
  return near.distance <= TOUCH * 2 ? near.t : undefined;
}

export function lineCrossing(a: Curve, b: Curve): Crossing[] {
  const ax = a[2]! - a[0]!;
  const ay = a[3]! - a[1]!;
  const bx = b[2]! - b[0]!;
  const by = b[3]! - b[1]!;
  const det = ax * by - ay * bx;
  if (Math.abs(det) < 1e-9 * (Math.hypot(ax, ay) * Math.hypot(bx, by) + 1e-9)) return [];
  const ox = b[0]! - a[0]!;
  const oy = b[1]! - a[1]!;
  const t = (ox * by - oy * bx) / det;
  const u = (ox * ay - oy * ax) / det;
  return t >= 0 && t <= 1 && u >= 0 && u <= 1 ? [{ t, u }] : [];
}

const halves = ({ curve, from, to }: Stretch): [Stretch, Stretch] => {
  const [left, right] = splitAt(curve, 0.5);
  const middle = (from + to) / 2;
  return [
    { curve: left, from, to: middle, flat: isFlat(left) },
    { curve: right, from: middle, to, flat: isFlat(right) },
  ];
};

function search(hunt: Hunt, a: Stretch, b: Stretch, depth: number): void {
  if (!boxesMeet(a.curve, b.curve) || hunt.left-- <= 0) return;
  if ((a.flat && b.flat) || depth > DEEPEST) {
    const chords = [chordOf(a.curve), chordOf(b.curve)] as const;
    const crossed = lineCrossing(...chords)[0];
    if (!crossed && a.flat && b.flat && chordsApart(...chords) > leeway(a.curve) + leeway(b.curve)) return;
    const start = crossed ?? { t: 0.5, u: 0.5 };
    const t = a.from + start.t * (a.to - a.from);
    const refined = newton(hunt.a, hunt.b, t, b.from + start.u * (b.to - b.from));
    if (refined) hunt.found.push(refined);
    return;
  }
  if (b.flat || (!a.flat && a.to - a.from >= b.to - b.from)) {
    for (const half of halves(a)) search(hunt, half, b, depth + 1);
  } else for (const half of halves(b)) search(hunt, a, half, depth + 1);
}

const chordOf = (c: Curve): Curve => [c[0]!, c[1]!, c[c.length - 2]!, c[c.length - 1]!];

function isFlat(c: Curve): boolean {
  if (c.length === 4) return true;
  const n = c.length;
  const x0 = c[0]!;
  const y0 = c[1]!;
  const dx = c[n - 2]! - x0;
  const dy = c[n - 1]! - y0;
  const length = Math.hypot(dx, dy);
  for (let i = 2; i < n - 2; i += 2) {
    const off =
      length < 1e-9
        ? Math.hypot(c[i]! - x0, c[i + 1]! - y0)
        : Math.abs((c[i]! - x0) * dy - (c[i + 1]! - y0) * dx) / length;
    if (off > FLAT) return false;
  }
  return true;
}

/** How far a flat curve may lie from its chord, in font units: beside it, and beyond its ends. */
function leeway(c: Curve): number {
  const n = c.length;
  if (n === 4) return TOUCH * 2;
  const [x0, y0, x1, y1] = [c[0]!, c[1]!, c[n - 2]!, c[n - 1]!];
  const length = Math.hypot(x1 - x0, y1 - y0);
  let beyond = 0;
  for (let i = 2; i < n - 2; i += 2) {
    const along = length < 1e-9 ? 0 : ((c[i]! - x0) * (x1 - x0) + (c[i + 1]! - y0) * (y1 - y0)) / length;
    beyond = Math.max(beyond, -along, along - length);
  }
  return FLAT + TOUCH * 2 + beyond;
}

/** How far two straight lines that do not cross lie apart. */
const chordsApart = (a: Curve, b: Curve): number =>
  Math.min(
    fromChord(a, b[0]!, b[1]!),
    fromChord(a, b[2]!, b[3]!),
    fromChord(b, a[0]!, a[1]!),
    fromChord(b, a[2]!, a[3]!),
  );

function fromChord(c: Curve, x: number, y: number): number {
  const [dx, dy] = [c[2]! - c[0]!, c[3]! - c[1]!];
  const square = dx * dx + dy * dy;
  const t = square < 1e-18 ? 0 : Math.min(1, Math.max(0, ((x - c[0]!) * dx + (y - c[1]!) * dy) / square));
  return Math.hypot(c[0]! + t * dx - x, c[1]! + t * dy - y);
}

function boxesMeet(a: Curve, b: Curve): boolean {
  for (let axis = 0; axis < 2; axis++) {
    let aLow = Infinity;
    let aHigh = -Infinity;
    let bLow = Infinity;
    let bHigh = -Infinity;
    for (let i = axis; i < a.length; i += 2) {
      const v = a[i]!;
      if (v < aLow) aLow = v;
      if (v > aHigh) aHigh = v;
    }
    for (let i = axis; i < b.length; i += 2) {
      const v = b[i]!;
      if (v < bLow) bLow = v;
      if (v > bHigh) bHigh = v;
    }
    if (aLow > bHigh + TOUCH || bLow > aHigh + TOUCH) return false;
  }
  return true;
}

/** Newton's iteration on a(t) = b(u); undefined when the curves do not really meet there. */
export function newton(a: Curve, b: Curve, t: number, u: number): Crossing | undefined {
  for (let i = 0; i < 12; i++) {
    const p = pointAt(a, t);
    const q = pointAt(b, u);
    const ex = q[0] - p[0];
    const ey = q[1] - p[1];
    const da = derivativeAt(a, t);
    const db = derivativeAt(b, u);
    const det = db[0] * da[1] - da[0] * db[1];
    if (Math.abs(det) < 1e-9) break;
    const dt = (db[0] * ey - db[1] * ex) / det;
    const du = (da[0] * ey - da[1] * ex) / det;
    t = Math.min(1, Math.max(0, t + Math.max(-0.1, Math.min(0.1, dt))));
    u = Math.min(1, Math.max(0, u + Math.max(-0.1, Math.min(0.1, du))));
    if (Math.abs(dt) + Math.abs(du) < 1e-12) break;
  }
  const p = pointAt(a, t);
  const q = pointAt(b, u);
  return Math.hypot(p[0] - q[0], p[1] - q[1]) <= TOUCH * 2 ? { t, u } : undefined;
}

/** Directions in which curves may lie apart: level, upright and slanting. */
export const APART = [
  [1, 0],
  [0, 1],
  [1, 1],
  [1, -1],
  [2, 1],
  [1, 2],
  [2, -1],
  [1, -2],
] as const;
/** What lies nearer than this, in font units, may touch. */
const CLEAR = 0.02;

/** How far the control points of a curve reach in a direction, from a place: least and most. */
let low = 0;
let high = 0;
function reach(c: Curve, x: number, y: number, dx: number, dy: number): void {
  low = Number.POSITIVE_INFINITY;
  high = Number.NEGATIVE_INFINITY;
  for (let i = 0; i < c.length; i += 2) {
    const v = (c[i]! - x) * dx + (c[i + 1]! - y) * dy;
    if (v < low) low = v;
    if (v > high) high = v;
  }
}

/**
 * Do two curves surely not meet, but for an end that both have? True where a straight line parts their control points, through that end where
 * there is one; false says nothing. Quick: for very many pairs before {@link crossings}.
 */
export function surelyApart(a: Curve, b: Curve): boolean {
  const [n, m] = [a.length, b.length];
  for (const [i, j] of [
    [n - 2, 0],
    [0, m - 2],
    [0, 0],
    [n - 2, m - 2],
  ] as const) {
    if (a[i] === b[j] && a[i + 1] === b[j + 1]) return partedAt(a, b, i, j);
  }
  const parted = (dx: number, dy: number): boolean => {
    reach(a, 0, 0, dx, dy);
    const [from, to] = [low, high];
    reach(b, 0, 0, dx, dy);
    const gap = CLEAR * (Math.abs(dx) + Math.abs(dy));
    return to + gap < low || high + gap < from;
  };
  return (
    parted(a[1]! - a[n - 1]!, a[n - 2]! - a[0]!) ||
    parted(b[1]! - b[m - 1]!, b[m - 2]! - b[0]!) ||
    APART.some(([dx, dy]) => parted(dx, dy))
  );
}

/** Does a line through an end that both curves have keep one on each side, touched by neither elsewhere? */
function partedAt(a: Curve, b: Curve, i: number, j: number): boolean {
  const [x, y] = [a[i]!, a[i + 1]!];
  const parted = (dx: number, dy: number): boolean => {
    reach(a, x, y, dx, dy);
    const [from, to] = [low, high];
    reach(b, x, y, dx, dy);
    if (!((to <= 1e-9 && low >= -1e-9) || (high <= 1e-9 && from >= -1e-9))) return false;
    // On the line itself both may lie, one on the other.
    return !(touches(a, dx, dy) && touches(b, dx, dy));
  };
  const touches = (c: Curve, dx: number, dy: number): boolean => {
    for (let k = 0; k < c.length; k += 2) {
      const [u, v] = [c[k]! - x, c[k + 1]! - y];
      if (Math.abs(u * dx + v * dy) <= 1e-9 && (u !== 0 || v !== 0)) return true;
    }
    return false;
  };
  // Where both leave the end: the middle between their ways parts them mostly.
  const away = (c: Curve, at: number): readonly [number, number] => {
    const k = at === 0 ? 2 : at - 2;
    const l = Math.hypot(c[k]! - x, c[k + 1]! - y) || 1;
    return [(c[k]! - x) / l, (c[k + 1]! - y) / l];
  };
  const [p, q] = [away(a, i), away(b, j)];
  const [dx, dy] = [p[0] - q[0], p[1] - q[1]];
  // Curves that leave the same way may run into each other at once.
  if (Math.hypot(dx, dy) < 0.05) return false;
  return parted(dx, dy) || APART.some(([u, v]) => u * dx + v * dy !== 0 && parted(u, v));
}
