import { addTo } from '../base/grouping';
import { curvesOf } from '../geometry/contour';
import {
  type Box,
  boundsOf,
  type Curve,
  directionAt,
  emptyBox,
  isEmptyBox,
  pointAt,
  splitAt,
  stretchBox,
} from '../geometry/curve';
import { APART, crossings, surelyApart } from '../geometry/intersect';
import type { Drawing, Glyph, Project } from '../project/model';
import type { Place } from '../project/places';
import { sameStructure } from '../project/structure';
import { drawingsOf, type Looks, looksOf } from './kinks';

/** Outlines that cross between masters and in none of them: which contours, where, how large the tangled part is, where it is worst. */
export type Tangle = {
  /** The two contours, from 0 on; one number twice where a contour crosses itself. */
  contours: readonly [number, number];
  /** Where they cross, in units at the place. */
  at: { x: number; y: number };
  /** The longer side of what is tangled, in units. */
  units: number;
  place: Place;
};

/** Boxes that share less than this, in units, touch only. */
const SHARED = 0.5;
/** Crossings so near an end of a curve are joints, as a share of it. */
const END = 0.02;
/** Curves that meet at less than this angle, as its sine, touch. */
const LEAST_ANGLE = 0.05;
/** Tangles smaller than this are not seen, in thousandths of the em. */
const LEAST = 0.002;

/** A piece of outline in the box of its control points. */
type Part = { contour: number; curve: Curve; box: Box };
/** Where two parts cross, and how far the loop reaches that one contour makes there. */
type Spot = { x: number; y: number; loop: number };

type Half = { contour: number; curve: Curve };

/** Curves in halves: a curve with a loop crosses itself as one half crosses the other. */
const halvesOf = ({ contours }: Drawing): Half[] =>
  contours.flatMap((c, contour) =>
    curvesOf(c).flatMap((curve) =>
      (curve.length > 4 ? splitAt(curve, 0.5) : [curve]).map((half) => ({ contour, curve: half })),
    ),
  );

/** The halves of drawings with one structure as they lie between: curves are blended as their points are. */
function partsAt(halves: readonly (readonly Half[])[], weights: readonly number[]): Part[] {
  const said = weights.flatMap((w, k) => (w === 0 ? [] : [k]));
  return halves[0]!.map(({ contour, curve: first }, i) => {
    const curve = new Array<number>(first.length).fill(0);
    const box = emptyBox();
    for (const k of said) {
      const own = halves[k]![i]!.curve;
      for (let v = 0; v < curve.length; v++) curve[v]! += weights[k]! * own[v]!;
    }
    for (let v = 0; v < curve.length; v += 2) stretchBox(box, curve[v]!, curve[v + 1]!);
    return { contour, curve, box };
  });
}

const meet = (a: Box, b: Box): boolean =>
  Math.min(a.xMax, b.xMax) - Math.max(a.xMin, b.xMin) > -SHARED &&
  Math.min(a.yMax, b.yMax) - Math.max(a.yMin, b.yMin) > -SHARED;
const overlap = (a: Box, b: Box): boolean =>
  Math.min(a.xMax, b.xMax) - Math.max(a.xMin, b.xMin) > SHARED &&
  Math.min(a.yMax, b.yMax) - Math.max(a.yMin, b.yMin) > SHARED;
/** A level or upright line's box has no breadth, but can be crossed all the same. */
const flat = (b: Box): boolean => b.xMax - b.xMin < SHARED || b.yMax - b.yMin < SHARED;

/** Whether a meeting at t of one curve and u of another counts: surely a crossing, or with `touching` anything but a joint of neighbours. */
function counts(a: Part, b: Part, t: number, u: number, touching: boolean): boolean {
  const [first, second] = [Math.min(t, 1 - t) < END, Math.min(u, 1 - u) < END];
  if (touching) return !(first && second && a.contour === b.contour);
  if (first || second) return false;
  const [p, q] = [directionAt(a.curve, t), directionAt(b.curve, u)];
  return Math.abs(p[0] * q[1] - p[1] * q[0]) >= LEAST_ANGLE;
}

const longerSide = (b: Box): number => (isEmptyBox(b) ? 0 : Math.max(b.xMax - b.xMin, b.yMax - b.yMin));

/** How far the smaller of the two loops reaches that a contour makes where two of its parts cross. */
function loopOf(parts: readonly Part[], i: number, j: number, t: number, u: number): number {
  const [a, b] = [parts[i]!, parts[j]!];
  const within = boundsOf([
    splitAt(a.curve, t)[1],
    ...parts.slice(i + 1, j).map((p) => p.curve),
    splitAt(b.curve, u)[0],
  ]);
  const around = boundsOf([
    splitAt(a.curve, t)[0],
    ...parts.filter((p, k) => p.contour === a.contour && (k < i || k > j)).map((p) => p.curve),
    splitAt(b.curve, u)[1],
  ]);
  return Math.min(longerSide(within), longerSide(around));
}

/** Of more halves than this it is not worked out which may meet. */
const MOST_HALVES = 400;

/**
 * Pairs of halves that may meet somewhere between: those that no straight line of one direction parts in every drawing. Where one does,
 * it parts them in every blend by weights that are not negative, since these are means of the drawings.
 */
function pairsThatMayMeet(halves: readonly (readonly Half[])[]): (readonly [number, number])[] | undefined {
  const count = halves[0]!.length;
  if (count > MOST_HALVES) return undefined;
  const drawings = halves.length;
  const least = APART.map(() => new Float64Array(count * drawings));
  const most = APART.map(() => new Float64Array(count * drawings));
  APART.forEach(([dx, dy], d) => {
    halves.forEach((own, k) => {
      own.forEach(({ curve }, i) => {
        let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
        for (let v = 0; v < curve.length; v += 2) {
          const at = curve[v]! * dx + curve[v + 1]! * dy;
          if (at < low) low = at;
          if (at > high) high = at;
        }
        least[d]![i * drawings + k] = low;
        most[d]![i * drawings + k] = high;
      });
    });
  });
  const before = (d: number, i: number, j: number): boolean => {
    for (let k = 0; k < drawings; k++) if (most[d]![i * drawings + k]! > least[d]![j * drawings + k]!) return false;
    return true;
  };
  const out: (readonly [number, number])[] = [];
  for (let i = 0; i < count; i++)
    for (let j = i + 1; j < count; j++) if (!APART.some((_, d) => before(d, i, j) || before(d, j, i))) out.push([i, j]);
  return out;
}

/** Where two parts cross, put to the spots of their contours. */
function cross(
  parts: readonly Part[],
  [i, j]: readonly [number, number],
  { touching, out }: { touching: boolean; out: Map<string, Spot[]> },
): void {
  const [a, b] = [parts[i]!, parts[j]!];
  if (!(overlap(a.box, b.box) || ((flat(a.box) || flat(b.box)) && meet(a.box, b.box)))) return;
  if (surelyApart(a.curve, b.curve)) return;
  for (const { t, u } of crossings(a.curve, b.curve)) {
    if (!counts(a, b, t, u, touching)) continue;
    const [x, y] = pointAt(a.curve, t);
    const key = `${a.contour} ${b.contour}`;
    const loop = a.contour === b.contour && !touching ? loopOf(parts, i, j, t, u) : 0;
    addTo(out, key, { x, y, loop });
  }
}

/** Where each two contours cross: what surely crosses, or with `touching` what may; of some pairs of parts only, where they are given. */
function crossed(
  parts: readonly Part[],
  touching: boolean,
  pairs?: readonly (readonly [number, number])[],
): Map<string, Spot[]> {
  const out = new Map<string, Spot[]>();
  if (pairs) {
    for (const pair of pairs) cross(parts, pair, { touching, out });
    return out;
  }
  // From left to right: what begins behind the end of a part doesn't meet it.
  const swept = parts.map((_, i) => i).sort((i, j) => parts[i]!.box.xMin - parts[j]!.box.xMin);
  for (let m = 0; m < swept.length; m++) {
    const end = parts[swept[m]!]!.box.xMax + SHARED;
    for (let n = m + 1; n < swept.length && parts[swept[n]!]!.box.xMin <= end; n++) {
      cross(parts, [Math.min(swept[m]!, swept[n]!), Math.max(swept[m]!, swept[n]!)], { touching, out });
    }
  }
  return out;
}

/** How far a tangled part reaches: between the crossings of two contours, or round the loop of one. */
function reach(spots: readonly Spot[]): number {
  let most = 0;
  for (const p of spots) {
    most = Math.max(most, p.loop);
    for (const q of spots) most = Math.max(most, Math.abs(p.x - q.x), Math.abs(p.y - q.y));
  }
  return most;
}

/**
 * Outlines of a glyph that cross between its masters though they do in none of them, the worst first; none where masters do not agree.
 * Of every two contours (and of each with itself) crossings are counted in the masters, touches with them, and at each place.
 */
export function tanglesOf(project: Project, glyph: Glyph, looks: Looks): Tangle[] {
  const drawings = drawingsOf(project, glyph);
  if (drawings.length < 2 || drawings[0]!.contours.length === 0 || !sameStructure(drawings)) return [];
  const own = looksOf(project, glyph, looks);
  const halves = drawings.map(halvesOf);
  const pairs = pairsThatMayMeet(halves);
  // What no pair of parts can do between the masters none does in them: with weights that are not negative the same pairs are looked at.
  const held = new Map<boolean, Map<string, number>>();
  const heldIn = (plain: boolean): Map<string, number> => {
    const known =
      held.get(plain) ?? mostOf(halves.map((own) => crossed(partsAt([own], [1]), true, plain ? pairs : undefined)));
    held.set(plain, known);
    return known;
  };
  const worst = new Map<string, Tangle>();
  for (const { place, weights } of own) {
    const plain = weights.every((w) => w >= 0);
    if (plain && pairs?.length === 0) continue;
    const there = crossed(partsAt(halves, weights), false, plain ? pairs : undefined);
    if (there.size === 0) continue;
    const most = heldIn(plain);
    for (const [key, spots] of there) {
      if (spots.length <= (most.get(key) ?? 0)) continue;
      const units = reach(spots);
      if (units < LEAST * project.unitsPerEm || units <= (worst.get(key)?.units ?? 0)) continue;
      const [a, b] = key.split(' ').map(Number);
      worst.set(key, { contours: [a!, b!], at: { x: spots[0]!.x, y: spots[0]!.y }, units, place });
    }
  }
  return [...worst.values()].sort((x, y) => y.units - x.units);
}

function mostOf(all: readonly Map<string, Spot[]>[]): Map<string, number> {
  const out = new Map<string, number>();
  for (const one of all) for (const [key, spots] of one) out.set(key, Math.max(out.get(key) ?? 0, spots.length));
  return out;
}
