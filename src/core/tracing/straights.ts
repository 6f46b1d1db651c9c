import type { Vec } from '../geometry/curve';
import { leastSquares } from './corners';

const { abs, atan2, floor, max, min, round, sign, sqrt } = Math;

/** A stretch of a section that is straight: its first and last sample, a place on it and its unit direction. */
export type Straight = { from: number; to: number; x: number; y: number; direction: Vec };

/** Fewest steps of a straight stretch. */
const LEAST = 9;
/** Least share of a section of a straight stretch with curves at both ends. */
const LEAST_BETWEEN = 0.07;
/** A line nearer than this to level or upright, in radians, is meant so. */
const NEARLY = 0.011;

type Line = { x: number; y: number; direction: Vec };

/** Samples with running sums, so that the line through any stretch of them is at hand at once. */
class Samples {
  readonly length: number;
  private readonly sums: Float64Array;

  constructor(readonly at: readonly Vec[]) {
    this.length = at.length;
    this.sums = new Float64Array(5 * (at.length + 1));
    const [x0, y0] = at[0]!;
    at.forEach(([px, py], i) => {
      const [x, y] = [px - x0, py - y0];
      [x, y, x * x, x * y, y * y].forEach((v, k) => {
        this.sums[5 * (i + 1) + k] = this.sums[5 * i + k]! + v;
      });
    });
  }

  /** The line through the samples of a stretch by total least squares. */
  line(from: number, to: number): Line {
    const n = to - from + 1;
    const sum = (k: number) => this.sums[5 * (to + 1) + k]! - this.sums[5 * from + k]!;
    const [x, y] = [sum(0) / n, sum(1) / n];
    const [xx, xy, yy] = [sum(2) - n * x * x, sum(3) - n * x * y, sum(4) - n * y * y];
    const angle = atan2(2 * xy, xx - yy) / 2;
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    const [a, b] = [this.at[from]!, this.at[to]!];
    const ahead = c * (b[0] - a[0]) + s * (b[1] - a[1]) >= 0 ? 1 : -1;
    return { x: x + this.at[0]![0], y: y + this.at[0]![1], direction: [ahead * c, ahead * s] };
  }

  /** Do all samples of a stretch keep within a distance from its line? The ends and the middle stray first. */
  isWithin(from: number, to: number, tolerance: number): boolean {
    const line = this.line(from, to);
    const strays = (i: number) => abs(offLine(line, this.at[i]!)) > tolerance;
    if (strays(to) || strays(from) || strays((from + to) >> 1)) return false;
    for (let i = from; i <= to; i++) if (strays(i)) return false;
    return true;
  }
}

const offLine = (l: Line, p: Vec): number => (p[0] - l.x) * -l.direction[1] + (p[1] - l.y) * l.direction[0];

/** How far a stretch bows from its chord, its ends left out: what a curve does even where it strays little. */
function bow(samples: Samples, from: number, to: number): number {
  const trim = floor((to - from) * 0.15);
  const [a, b] = [from + trim, to - trim];
  const line = samples.line(a, b);
  const along: number[] = [];
  const off: number[] = [];
  for (let i = a; i <= b; i++) {
    along.push((samples.at[i]![0] - line.x) * line.direction[0] + (samples.at[i]![1] - line.y) * line.direction[1]);
    off.push(offLine(line, samples.at[i]!));
  }
  const half = (along[along.length - 1]! - along[0]!) / 2;
  return abs(leastSquares(along, off, 2)[2]) * half * half;
}

/** Turns a line nearly level or upright true. */
function trued({ x, y, direction }: Line): Line {
  const [dx, dy] = direction;
  if (abs(dy) < NEARLY) return { x, y, direction: [sign(dx), 0] };
  if (abs(dx) < NEARLY) return { x, y, direction: [0, sign(dy)] };
  return { x, y, direction };
}

/**
 * The straight stretches of a section, in order. A stretch is straight when its samples keep within the tolerance and it does not
 * bow; one that reaches from end to end may bow within the tolerance. `tolerance` is in steps.
 */
export function straightsOf(places: readonly Vec[], tolerance: number): Straight[] {
  const out: Straight[] = [];
  const last = places.length - 1;
  if (last < 1) return out;
  const samples = new Samples(places);
  if (last < 4 || samples.isWithin(0, last, tolerance)) return [{ from: 0, to: last, ...trued(samples.line(0, last)) }];
  search(samples, 0, last, [0, last], tolerance, out);
  return out.sort((a, b) => a.from - b.from);
}

/**
 * Looks for straight stretches between two samples. A stretch found there is first drawn out as far as it goes between `limits`,
 * the nearest straight stretches: only then does a piece of a curve show its bow.
 */
function search(
  samples: Samples,
  from: number,
  to: number,
  limits: readonly [number, number],
  tolerance: number,
  out: Straight[],
): void {
  if (to - from < LEAST) return;
  let [bestFrom, bestTo] = [from, from];
  let j = from + LEAST - 1;
  for (let i = from; i + LEAST - 1 <= to; i++) {
    j = max(j, i + LEAST - 1);
    if (!samples.isWithin(i, j, tolerance)) continue;
    while (j < to && samples.isWithin(i, j + 1, tolerance)) j++;
    if (j - i > bestTo - bestFrom) [bestFrom, bestTo] = [i, j];
    if (j === to) break;
  }
  if (bestTo - bestFrom + 1 < LEAST) return;
  let [a, b] = [bestFrom, bestTo];
  while (a > limits[0] && samples.isWithin(a - 1, b, tolerance)) a--;
  while (b < limits[1] && samples.isWithin(a, b + 1, tolerance)) b++;
  // The flat top of a round is no straight stroke: between curves a stretch must count for something.
  const counts = a === 0 || b === samples.length - 1 || b - a >= LEAST_BETWEEN * samples.length;
  if (counts && bow(samples, a, b) < 0.45 * tolerance) {
    const straight = tightened(samples, a, b, limits[0], limits[1], tolerance);
    // What is left of it when the curves at its ends have taken their part.
    const inside = straight.from > 0 && straight.to < samples.length - 1;
    if (!inside || straight.to - straight.from >= max(LEAST, LEAST_BETWEEN * samples.length * 0.6)) out.push(straight);
    search(samples, from, min(straight.from, to), [limits[0], straight.from], tolerance, out);
    search(samples, max(straight.to, from), to, [straight.to, limits[1]], tolerance, out);
  } else {
    search(samples, from, bestFrom, limits, tolerance, out);
    search(samples, bestTo, to, limits, tolerance, out);
  }
}

/** The straight core of a stretch, grown again as long as the samples keep close to it. */
function tightened(
  samples: Samples,
  from: number,
  to: number,
  least: number,
  most: number,
  tolerance: number,
): Straight {
  const trim = floor((to - from) * 0.15);
  let [a, b] = [from + trim, to - trim];
  const line = samples.line(a, b);
  while (a > least && abs(offLine(line, samples.at[a - 1]!)) <= tolerance * 0.6) a--;
  while (b < most && abs(offLine(line, samples.at[b + 1]!)) <= tolerance * 0.6) b++;
  const half = floor((b - a) * 0.4);
  const back = (end: number, sign: 1 | -1) => min(half, retreat(line, samples, end, sign));
  return { from: a === least ? a : a + back(a, -1), to: b === most ? b : b - back(b, 1), ...trued(line) };
}

/** How far ahead a curve is looked at to tell where it began. */
const AHEAD = 22;

/**
 * Steps from where samples leave a line noticeably back to where the curve begins: it leaves the line as the square of the way,
 * so two distances from the line tell the beginning.
 */
function retreat(line: Line, samples: Samples, end: number, sign: 1 | -1): number {
  const ahead = max(0, min(samples.length - 1, end + sign * AHEAD));
  const steps = abs(ahead - end);
  const [near, far] = [abs(offLine(line, samples.at[end]!)), abs(offLine(line, samples.at[ahead]!))];
  const gain = sqrt(far) - sqrt(near);
  return steps < 8 || gain < 0.3 ? 0 : round((sqrt(near) * steps) / gain);
}
