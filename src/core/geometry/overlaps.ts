import { arrangement, type Meetings, meetingsOf, TooTangled, withCommonPoints } from './arrangement';
import { type Filled, joinRings, keepBoundary } from './boundary';
import { type Contour, contourBounds, curvesOf, signedArea } from './contour';
import { coversTheSame, NON_ZERO } from './coverage';
import { type Box, pointAt } from './curve';
import { contourOfRing, isSliver } from './rings';
import { windingAt } from './winding';

/** `changed` is false when the very same contours come back; `failed` when no sound result was found. */
export type ShapeResult = { contours: readonly Contour[]; changed: boolean; failed: boolean };

export type ShapeOperation = 'unite' | 'subtract' | 'intersect' | 'exclude';

export const FILLED: Readonly<Record<ShapeOperation, Filled>> = {
  unite: (first, second) => first !== 0 || second !== 0,
  subtract: (first, second) => first !== 0 && second === 0,
  intersect: (first, second) => first !== 0 && second !== 0,
  exclude: (first, second) => (first !== 0) !== (second !== 0),
};

/**
 * One simple outline of what a non-zero fill covers. Method: cut every curve at its extremes and at all crossings; an
 * edge between two cuts stays when just one of its sides is filled; the remaining edges are joined end to end, and
 * pieces of one original curve that nothing crossed are put back together, so untouched points stay exactly. Contours
 * whose boxes lie apart have nothing to do with one another, and are looked at by themselves. Open contours are left alone.
 */
export function removeOverlaps(contours: readonly Contour[]): ShapeResult {
  const same = { contours, changed: false, failed: false };
  const closed = contours.filter(encloses);
  if (closed.length === 0) return same;
  const clusters = apart(closed);
  const parts = sound(() => clusters.map(united));
  if (!parts || parts.includes(undefined)) return { ...same, failed: true };
  if (parts.every((p) => p === 'same')) return same;
  const result = parts.flatMap((part, i) => (part === 'same' ? clusters[i]! : part!));
  return { contours: [...result, ...contours.filter((c) => !encloses(c))], changed: true, failed: false };
}

/** One outline of contours; “same” where they neither meet nor swallow one another, undefined where none is sound. */
function united(closed: readonly Contour[]): readonly Contour[] | 'same' | undefined {
  const meetings = meetingsOf(closed, closed.length, FINENESS[0]!.cuts);
  return meetings.total > 0 || swallowed(closed) ? resolved(closed, closed.length, NON_ZERO, meetings) : 'same';
}

/** Contours in sets whose boxes lie apart, each in the order of the list, the sets in that of their first. */
function apart(contours: readonly Contour[]): (readonly Contour[])[] {
  const sets: { box: Box; members: number[] }[] = [];
  contours.forEach((contour, i) => {
    let own = { box: contourBounds(contour), members: [i] };
    for (let k = sets.length - 1; k >= 0; k--) {
      const other = sets[k]!;
      if (liesApart(own.box, other.box)) continue;
      own = { box: around(own.box, other.box), members: [...other.members, ...own.members] };
      sets.splice(k, 1);
      // A set that has grown may meet what it did not before.
      k = sets.length;
    }
    sets.push(own);
  });
  return sets
    .map(({ members }) => members.sort((a, b) => a - b))
    .sort((a, b) => a[0]! - b[0]!)
    .map((members) => members.map((i) => contours[i]!));
}

/** Boxes nearer than this, in font units, may have to do with one another. */
const NEAR = 1;

/** Do shapes in two boxes surely have nothing to do with one another? */
export const liesApart = (a: Box, b: Box): boolean =>
  a.xMin > b.xMax + NEAR || b.xMin > a.xMax + NEAR || a.yMin > b.yMax + NEAR || b.yMin > a.yMax + NEAR;
const around = (a: Box, b: Box): Box => ({
  xMin: Math.min(a.xMin, b.xMin),
  yMin: Math.min(a.yMin, b.yMin),
  xMax: Math.max(a.xMax, b.xMax),
  yMax: Math.max(a.yMax, b.yMax),
});

/**
 * What two shapes make together, each filled by the non-zero rule: all of both, the first without the second, what both
 * cover, or what just one of them covers. The method is that of {@link removeOverlaps}; open contours of the first
 * operand are kept.
 */
export function combineShapes(
  first: readonly Contour[],
  second: readonly Contour[],
  operation: ShapeOperation,
): ShapeResult {
  const a = first.filter(encloses);
  const closed = [...a, ...second.filter(encloses)];
  const result = sound(() => resolved(closed, a.length, FILLED[operation]));
  if (!result) return { contours: first, changed: false, failed: true };
  return { contours: [...result, ...first.filter((c) => !encloses(c))], changed: true, failed: false };
}

/** One simple outline of where contours wind more often to the left than to the right. The method is that of {@link removeOverlaps}. */
export function positiveOutline(contours: readonly Contour[]): { contours: readonly Contour[]; failed: boolean } {
  const closed = contours.filter(encloses);
  const result = sound(() => resolved(closed, closed.length, POSITIVE));
  return { contours: result ?? [], failed: result === undefined };
}

const POSITIVE: Filled = (first) => first > 0;

/** What `work` gives; undefined where the shapes are too tangled to be put together. */
function sound<T>(work: () => T): T | undefined {
  try {
    return work();
  } catch (error) {
    if (error instanceof TooTangled) return undefined;
    throw error;
  }
}

const encloses = (c: Contour): boolean => c.closed && curvesOf(c).length > 0;

/**
 * How finely places are told apart, in font units, from one try to the next. `points`: points nearer than this are one
 * before anything is cut, so that curves that hardly differ become the same; `cuts`: the same for the places of cuts.
 */
const FINENESS = [
  { points: 0.012, cuts: 0.014 },
  { points: 0.012, cuts: 0.1 },
  { points: 0.012, cuts: 0.004 },
  { points: 0.05, cuts: 0.02 },
];

/**
 * The outline of a fill, its windings counted for the first `split` contours and for the others; undefined when no try is sound.
 * `known` are meetings at the first fineness.
 */
function resolved(closed: readonly Contour[], split: number, filled: Filled, known?: Meetings): Contour[] | undefined {
  const all = closed.map((c) => curvesOf(c));
  const first = all.slice(0, split).flat();
  const second = all.slice(split).flat();
  for (const { points, cuts } of FINENESS) {
    const joined = withCommonPoints(closed, points);
    const isKnown = known !== undefined && cuts === FINENESS[0]!.cuts && joined.every((c, i) => c === closed[i]);
    const meetings = isKnown ? known : meetingsOf(joined, split, cuts);
    const rings = joinRings(keepBoundary(arrangement(meetings, cuts), filled, cuts));
    if (!rings) continue;
    const result = rings.map((ring) => contourOfRing(ring, joined)).filter((c) => !isSliver(c));
    if (coversTheSame(first, second, filled, result.flatMap(curvesOf))) return result;
  }
  return undefined;
}

/** Does a contour lie wholly within the fill of others, or wind the wrong way so that the fill counts double? */
function swallowed(closed: readonly Contour[]): boolean {
  if (closed.length === 1) return false;
  return closed.some((c, i) => {
    const box = contourBounds(c);
    const outer = closed.filter((o, j) => {
      const b = contourBounds(o);
      return i !== j && b.xMin <= box.xMin && b.xMax >= box.xMax && b.yMin <= box.yMin && b.yMax >= box.yMax;
    });
    if (outer.length === 0) return false;
    const [x, y] = pointAt(curvesOf(c)[0]!, 0.5);
    const outside = outer.reduce((sum, o) => sum + windingAt(curvesOf(o), x, y), 0);
    return outside !== 0 && outside + Math.sign(signedArea(c)) !== 0;
  });
}
