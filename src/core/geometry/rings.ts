import type { Edge } from './arrangement';
import { type Contour, curvesOf, type Point, type PointType, segmentsOf, signedArea } from './contour';
import { type Curve, endOf, lengthOf, partOf, reversed } from './curve';

/** A stretch of one original curve, from `t0` to `t1` of it; against it when `t0` is the greater. */
type Run = { contour: number; source: number; t0: number; t1: number };

const continues = (a: Run, b: Run): boolean => a.contour === b.contour && a.source === b.source && a.t1 === b.t0;

/**
 * A closed contour from edges that follow one another. Pieces of one original curve become one again; where the ring
 * passes an original point without turning off, that point is kept as it was, and an implied one stays implied. It
 * starts at an original start point if it has one; a contour that comes out whole is the original itself.
 */
export function contourOfRing(ring: readonly Edge[], originals: readonly Contour[]): Contour {
  let begin = ring.findIndex((e) => e.source === 0 && e.t0 === 0);
  if (begin < 0) begin = ring.findIndex((e, i) => !continues(ring[(i + ring.length - 1) % ring.length]!, e));
  begin = Math.max(0, begin);
  const runs: Run[] = [];
  for (const e of [...ring.slice(begin), ...ring.slice(0, begin)]) {
    const last = runs[runs.length - 1];
    if (last && continues(last, e)) last.t1 = e.t1;
    else runs.push({ contour: e.contour, source: e.source, t0: e.t0, t1: e.t1 });
  }
  const only = originals[runs[0]!.contour]!;
  if (isWhole(runs, curvesOf(only).length)) return only;
  return contourOfRuns(runs, originals);
}

/** Is this every curve of one contour, in order and forwards? */
const isWhole = (runs: readonly Run[], count: number): boolean =>
  runs.length === count &&
  runs.every((r, i) => r.contour === runs[0]!.contour && r.source === i && r.t0 === 0 && r.t1 === 1);

function contourOfRuns(runs: readonly Run[], originals: readonly Contour[]): Contour {
  const drawn = runs.map((run) => ({ run, curve: curveOf(run, originals) }));
  // Meeting may shorten a curve to a crumb in its turn.
  const curves = meetExactly(withoutCrumbs(meetExactly(withoutCrumbs(drawn))));
  if (curves.length === 0) return { closed: true, points: [] };
  const joints = curves.map((drawn, i) => jointBetween(drawn, curves[(i + 1) % curves.length]!, originals));
  const allImplied = joints.every((joint) => joint === 'implied');
  const points: Point[] = [];
  curves.forEach(({ curve }, i) => {
    for (let k = 2; k < curve.length - 2; k += 2) points.push({ x: curve[k]!, y: curve[k + 1]!, type: 'off' });
    const joint = joints[i]!;
    if (joint === 'implied' && !(allImplied && i === curves.length - 1)) return;
    const [x, y] = endOf(curve);
    const type: PointType = curve.length === 4 ? 'line' : curve.length === 6 ? 'qcurve' : 'curve';
    points.push(joint && joint !== 'implied' ? { ...joint, x, y, type } : { x, y, type });
  });
  // The start point leads the list.
  const last = points[points.length - 1]!;
  return { closed: true, points: last.type === 'off' ? points : [last, ...points.slice(0, -1)] };
}

function curveOf(run: Run, originals: readonly Contour[]): Curve {
  const whole = curvesOf(originals[run.contour]!)[run.source]!;
  return run.t0 < run.t1 ? partOf(whole, run.t0, run.t1) : reversed(partOf(whole, run.t1, run.t0));
}

type Drawn = { run: Run; curve: Curve };

/** Curves shorter than this, in font units, only mark where places were taken as one. */
const CRUMB = 0.02;

/** A chord is never longer than its curve. */
const isCrumb = (c: Curve): boolean =>
  Math.hypot(c[c.length - 2]! - c[0]!, c[c.length - 1]! - c[1]!) <= CRUMB && lengthOf(c) <= CRUMB;

const withoutCrumbs = (drawn: readonly Drawn[]): Drawn[] => drawn.filter(({ curve }) => !isCrumb(curve));

/** Makes each curve start exactly where the one before it ends, moving a handle along with its point. */
function meetExactly(drawn: readonly Drawn[]): Drawn[] {
  return drawn.map((one, i) => {
    const c = one.curve;
    const [x, y] = endOf(drawn[(i + drawn.length - 1) % drawn.length]!.curve);
    if (c[0] === x && c[1] === y) return one;
    const moved = c.slice() as number[];
    if (c.length > 6) {
      moved[2] = c[2]! + x - c[0]!;
      moved[3] = c[3]! + y - c[1]!;
    }
    moved[0] = x;
    moved[1] = y;
    return { run: one.run, curve: moved };
  });
}

/**
 * What was at the joint of two curves that follow one another on a contour: its point, or `implied` where there was none
 * and none is needed; undefined where the ring turns off.
 */
function jointBetween(
  a: Drawn,
  b: Drawn,
  originals: readonly Contour[],
): Pick<Point, 'smooth' | 'name' | 'identifier'> | 'implied' | undefined {
  if (a.run.contour !== b.run.contour) return undefined;
  const contour = originals[a.run.contour]!;
  const count = curvesOf(contour).length;
  const onward = a.run.t1 === 1 && b.run.t0 === 0 && b.run.source === (a.run.source + 1) % count;
  const backward = a.run.t1 === 0 && b.run.t0 === 1 && a.run.source === (b.run.source + 1) % count;
  if (!onward && !backward) return undefined;
  const point = endPoints(contour)[(onward ? a : b).run.source]!;
  if (point !== 'implied') return point;
  return isHalfway(a.curve, b.curve) ? 'implied' : { smooth: true };
}

/** Does the joint of two quadratics lie halfway between their handles? A cut moves the handle of a curve. */
function isHalfway(a: Curve, b: Curve): boolean {
  const [x, y] = endOf(a);
  return a.length === 6 && b.length === 6 && Math.hypot((a[2]! + b[2]!) / 2 - x, (a[3]! + b[3]!) / 2 - y) < 1e-6;
}

const endsCache = new WeakMap<Contour, readonly (Point | 'implied')[]>();

/** For each curve of a contour the on-curve point it ends at. */
function endPoints(contour: Contour): readonly (Point | 'implied')[] {
  let ends = endsCache.get(contour);
  if (!ends) {
    ends = segmentsOf(contour).flatMap(({ curves, to }) =>
      curves.map((_, i) => (i < curves.length - 1 || to < 0 ? 'implied' : contour.points[to]!)),
    );
    endsCache.set(contour, ends);
  }
  return ends;
}

/** Contours thinner than this, in font units, are what is left between edges taken as one. */
const SLIVER = 0.006;

/** Is a contour thinner than any place can be told from another? */
export function isSliver(contour: Contour): boolean {
  const curves = curvesOf(contour);
  if (curves.length === 0) return true;
  const area = Math.abs(signedArea(contour));
  // Control points never go a shorter way round than their curve.
  if (area >= (sumOf(curves, polygonLength) / 2) * SLIVER) return false;
  return area < (sumOf(curves, lengthOf) / 2) * SLIVER;
}

const sumOf = (curves: readonly Curve[], of: (c: Curve) => number): number => curves.reduce((sum, c) => sum + of(c), 0);

function polygonLength(c: Curve): number {
  let length = 0;
  for (let i = 2; i < c.length; i += 2) length += Math.hypot(c[i]! - c[i - 2]!, c[i + 1]! - c[i - 1]!);
  return length;
}
