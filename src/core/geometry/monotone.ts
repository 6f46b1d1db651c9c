import { type Curve, coordinateAt, nearestOn } from './curve';
import { type Crossing, distinctCrossings, lineCrossing, newton, sameCourse, surelyApart, TOUCH } from './intersect';

/**
 * Where curves that only rise or fall, in x and in y, meet. Each lies in the box of its ends, and every part of it in that of
 * its own ends, so boxes are known without cutting anything: quick, for all pairs of pieces of an outline.
 */

/** Pairs of stretches looked at, at most. */
const MOST_TRIES = 4000;
/** A stretch that bends by less than this, in font units, counts as straight. */
const STRAIGHT = 0.02;
/** Farther apart than this, in font units, two stretches that count as straight do not touch. */
const APART = 2 * STRAIGHT + TOUCH * 2;

type Hunt = {
  readonly a: Curve;
  readonly b: Curve;
  /** How far a stretch of length 1 in the parameter may lie from its chord; it falls with the square of the length. */
  readonly bendA: number;
  readonly bendB: number;
  readonly found: Crossing[];
  left: number;
};

/**
 * All places where two such curves meet, touching ends and tangent contacts included; as {@link crossings} of any curves, whose
 * method this is, with boxes of ends in place of those of control points.
 */
export function monotoneCrossings(a: Curve, b: Curve): Crossing[] {
  if (!boxesMeet(a, b)) return [];
  const shared = sameCourse(a, b);
  if (shared) return shared;
  if (a.length === 4 && b.length === 4) return withEnds(a, b, lineCrossing(a, b));
  if (!haveCommonEnd(a, b) && surelyApart(a, b)) return [];
  const hunt: Hunt = { a, b, bendA: bendOf(a), bendB: bendOf(b), found: [], left: MOST_TRIES };
  const [n, m] = [a.length, b.length];
  search(hunt, [0, a[0]!, a[1]!, 1, a[n - 2]!, a[n - 1]!], [0, b[0]!, b[1]!, 1, b[m - 2]!, b[m - 1]!]);
  return withEnds(a, b, hunt.found);
}

/** Do two curves end at one place, whichever ends these are? */
export function haveCommonEnd(a: Curve, b: Curve): boolean {
  const [n, m] = [a.length - 2, b.length - 2];
  return (
    (a[0] === b[0] && a[1] === b[1]) ||
    (a[0] === b[m] && a[1] === b[m + 1]) ||
    (a[n] === b[0] && a[n + 1] === b[1]) ||
    (a[n] === b[m] && a[n + 1] === b[m + 1])
  );
}

function boxesMeet(a: Curve, b: Curve): boolean {
  const [n, m] = [a.length - 2, b.length - 2];
  return meet(a[0]!, a[n]!, b[0]!, b[m]!) && meet(a[1]!, a[n + 1]!, b[1]!, b[m + 1]!);
}

/** Do two stretches of a line meet, each given by its ends in any order? */
const meet = (a0: number, a1: number, b0: number, b1: number): boolean =>
  Math.min(a0, a1) <= Math.max(b0, b1) + TOUCH && Math.min(b0, b1) <= Math.max(a0, a1) + TOUCH;

/** The most that a curve lies off its chord: an eighth of its greatest second derivative. */
function bendOf(c: Curve): number {
  let most = 0;
  for (let i = 0; i + 4 < c.length; i += 2) {
    const x = c[i]! - 2 * c[i + 2]! + c[i + 4]!;
    const y = c[i + 1]! - 2 * c[i + 3]! + c[i + 5]!;
    most = Math.max(most, x * x + y * y);
  }
  return Math.sqrt(most) * (c.length === 8 ? 0.75 : 0.25);
}

/** From a parameter, and the place there, to another. */
type Stretch = readonly [t0: number, x0: number, y0: number, t1: number, x1: number, y1: number];

function search(hunt: Hunt, p: Stretch, q: Stretch): void {
  if (!meet(p[1], p[4], q[1], q[4]) || !meet(p[2], p[5], q[2], q[5]) || hunt.left-- <= 0) return;
  const [longA, longB] = [p[3] - p[0], q[3] - q[0]];
  const [offA, offB] = [hunt.bendA * longA * longA, hunt.bendB * longB * longB];
  if (offA <= STRAIGHT && offB <= STRAIGHT) {
    const start = lineCrossing([p[1], p[2], p[4], p[5]], [q[1], q[2], q[4], q[5]])[0];
    if (!start && (beside(p, q) || beside(q, p))) return;
    const { t, u } = start ?? { t: 0.5, u: 0.5 };
    const refined = newton(hunt.a, hunt.b, p[0] + t * longA, q[0] + u * longB);
    if (refined) hunt.found.push(refined);
    return;
  }
  if (offA >= offB) {
    const t = (p[0] + p[3]) / 2;
    const [x, y] = [coordinateAt(hunt.a, 0, t), coordinateAt(hunt.a, 1, t)];
    search(hunt, [p[0], p[1], p[2], t, x, y], q);
    search(hunt, [t, x, y, p[3], p[4], p[5]], q);
  } else {
    const u = (q[0] + q[3]) / 2;
    const [x, y] = [coordinateAt(hunt.b, 0, u), coordinateAt(hunt.b, 1, u)];
    search(hunt, p, [q[0], q[1], q[2], u, x, y]);
    search(hunt, p, [u, x, y, q[3], q[4], q[5]]);
  }
}

/** Does a straight stretch lie clearly on one side of the line through another? */
function beside(p: Stretch, q: Stretch): boolean {
  const [dx, dy] = [p[4] - p[1], p[5] - p[2]];
  const far = APART * Math.sqrt(dx * dx + dy * dy);
  const from = (q[1] - p[1]) * dy - (q[2] - p[2]) * dx;
  const to = (q[4] - p[1]) * dy - (q[5] - p[2]) * dx;
  return (from > far && to > far) || (from < -far && to < -far);
}

/** Ends that lie on the other curve count too; they close shared stretches and T-joints. */
function withEnds(a: Curve, b: Curve, found: readonly Crossing[]): Crossing[] {
  const all = [...found];
  for (const t of [0, 1]) {
    const [i, j] = [t * (a.length - 2), t * (b.length - 2)];
    const u = placeOn(b, a[i]!, a[i + 1]!);
    if (u !== undefined) all.push({ t, u });
    const s = placeOn(a, b[j]!, b[j + 1]!);
    if (s !== undefined) all.push({ t: s, u: t });
  }
  return distinctCrossings(a, all);
}

/** Where a curve passes a place, if it does. */
function placeOn(c: Curve, x: number, y: number): number | undefined {
  const n = c.length - 2;
  if (c[0] === x && c[1] === y) return 0;
  if (c[n] === x && c[n + 1] === y) return 1;
  if (!meet(c[0]!, c[n]!, x, x) || !meet(c[1]!, c[n + 1]!, y, y)) return undefined;
  const near = nearestOn(c, x, y);
  return near.distance <= TOUCH * 2 ? near.t : undefined;
}
