import type { Curve, Vec } from '../geometry/curve';
import { farthestFrom, fitCubic } from '../geometry/fit';
import { leastSquares } from './corners';

const { abs, hypot, max, min, round, sign } = Math;

/** A curved stretch of an edge: its samples, and the directions it must have at its ends where those are known. */
export type Stretch = { samples: readonly Vec[]; startDirection: Vec | undefined; endDirection: Vec | undefined };

/** A place between two curves: which sample it is near, where it lies exactly, and the direction there. */
type Joint = { index: number; x: number; y: number; direction: Vec };

/** Most samples that a fit looks at. */
const ENOUGH = 70;

/** Curves along a stretch within a tolerance, in pixels: joints at extremes, and where one curve is not enough. */
export function curvesAlong(stretch: Stretch, tolerance: number): Curve[] {
  const { samples } = stretch;
  const last = samples.length - 1;
  if (last < 1) return [];
  const start: Joint = {
    index: 0,
    x: samples[0]![0],
    y: samples[0]![1],
    direction: stretch.startDirection ?? directionNear(samples, 0),
  };
  const end: Joint = {
    index: last,
    x: samples[last]![0],
    y: samples[last]![1],
    direction: stretch.endDirection ?? directionNear(samples, last),
  };
  const joints = [start, ...extremesOf(samples, start.direction, end.direction), end];
  return joints.slice(1).flatMap((to, i) => fitted(samples, joints[i]!, to, tolerance, 0));
}

/** The direction of travel at a sample, from a parabola through those around it. */
function directionNear(samples: readonly Vec[], index: number, reach = 7): Vec {
  const from = max(0, index - reach);
  const to = min(samples.length - 1, index + reach);
  const ways = Array.from({ length: to - from + 1 }, (_, i) => from + i - index);
  const degree = ways.length >= 6 ? 2 : 1;
  const [x, y] = ([0, 1] as const).map((axis) =>
    leastSquares(
      ways,
      ways.map((w) => samples[index + w]![axis]),
      degree,
    ),
  ) as [[number, number, number], [number, number, number]];
  return [x[1], y[1]];
}

/** Extremes in x and y inside a stretch, in order; what rises above its surroundings by hardly a pixel is none. */
function extremesOf(samples: readonly Vec[], startDirection: Vec, endDirection: Vec): Joint[] {
  const found = ([0, 1] as const).flatMap((axis) => turnsAlong(samples, axis));
  found.sort((a, b) => a.index - b.index);
  // At an end that runs along an axis already, an extreme close by is that end.
  const axial = (d: Vec) => min(abs(d[0]), abs(d[1])) < 0.06 * hypot(d[0], d[1]);
  const last = samples.length - 1;
  const roomStart = axial(startDirection) ? max(6, last * 0.08) : 4;
  const roomEnd = axial(endDirection) ? max(6, last * 0.08) : 4;
  const kept: Joint[] = [];
  for (const joint of found) {
    const before = kept[kept.length - 1];
    if (joint.index < roomStart || joint.index > last - roomEnd) continue;
    if (before && joint.index - before.index < 5) continue;
    kept.push(joint);
  }
  return kept;
}

/** Places where one coordinate turns back, by at least `LEAST_TURN` pixels on both sides. */
const LEAST_TURN = 0.7;

function turnsAlong(samples: readonly Vec[], axis: 0 | 1): Joint[] {
  const out: Joint[] = [];
  // The usual way to find turns with a least rise: follow the running extreme until it is left by that much.
  let [high, low] = [0, 0];
  let seeking: 1 | -1 | 0 = 0;
  for (let i = 1; i < samples.length; i++) {
    const v = samples[i]![axis];
    if (v > samples[high]![axis]) high = i;
    if (v < samples[low]![axis]) low = i;
    if (seeking >= 0 && v < samples[high]![axis] - LEAST_TURN) {
      if (seeking === 1 || samples[high]![axis] - samples[0]![axis] > LEAST_TURN)
        out.push(jointAt(samples, high, axis));
      [seeking, low] = [-1, i];
    } else if (seeking <= 0 && v > samples[low]![axis] + LEAST_TURN) {
      if (seeking === -1 || samples[0]![axis] - samples[low]![axis] > LEAST_TURN) out.push(jointAt(samples, low, axis));
      [seeking, high] = [1, i];
    }
  }
  return out;
}

/** The top of the parabola around an extreme sample; the curve runs level or upright there. */
function jointAt(samples: readonly Vec[], index: number, axis: 0 | 1): Joint {
  const other = axis === 0 ? 1 : 0;
  const top = samples[index]![axis];
  let [from, to] = [index, index];
  while (from > 0 && abs(samples[from - 1]![axis] - top) < 1.2 && index - from < 60) from--;
  while (to < samples.length - 1 && abs(samples[to + 1]![axis] - top) < 1.2 && to - index < 60) to++;
  const run = samples.slice(from, to + 1);
  const [a, b, c] = leastSquares(
    run.map((p) => p[other]),
    run.map((p) => p[axis]),
    2,
  );
  const ends = [run[0]![other], run[run.length - 1]![other]];
  const at = abs(c) > 1e-9 ? -b / (2 * c) : Number.NaN;
  const inside = at > min(...ends) && at < max(...ends) && run.length > 4;
  const along = inside ? at : samples[index]![other];
  const value = inside ? a + at * (b + c * at) : top;
  const ahead = sign(run[run.length - 1]![other] - run[0]![other]) || 1;
  const near = inside
    ? from + run.reduce((best, p, i) => (abs(p[other] - along) < abs(run[best]![other] - along) ? i : best), 0)
    : index;
  return axis === 0
    ? { index: near, x: value, y: along, direction: [0, ahead] }
    : { index: near, x: along, y: value, direction: [ahead, 0] };
}

/** One curve from joint to joint, or two where it strays too far, split where the two fit best. */
function fitted(samples: readonly Vec[], from: Joint, to: Joint, tolerance: number, depth: number): Curve[] {
  const { curve, error } = oneCurve(samples, from, to);
  if (error <= tolerance || depth > 6 || to.index - from.index < 10) return [curve];
  let best: { middle: Joint; error: number } | undefined;
  const span = to.index - from.index;
  for (let k = 2; k <= 10; k++) {
    const index = from.index + round((span * k) / 12);
    const middle = { index, x: samples[index]![0], y: samples[index]![1], direction: directionNear(samples, index) };
    const both = max(oneCurve(samples, from, middle).error, oneCurve(samples, middle, to).error);
    if (!best || both < best.error) best = { middle, error: both };
  }
  return [
    ...fitted(samples, from, best!.middle, tolerance, depth + 1),
    ...fitted(samples, best!.middle, to, tolerance, depth + 1),
  ];
}

function oneCurve(samples: readonly Vec[], from: Joint, to: Joint): { curve: Curve; error: number } {
  const run: Vec[] = [[from.x, from.y]];
  const count = to.index - from.index;
  const step = max(1, count / ENOUGH);
  for (let k = 1; k < count / step; k++) {
    const i = round(from.index + k * step);
    if (i > from.index && i < to.index) run.push(samples[i]!);
  }
  run.push([to.x, to.y]);
  const curve = fitCubic(run, from.direction, [-to.direction[0], -to.direction[1]]);
  return { curve, error: farthestFrom(curve, run) };
}
