import { type Curve, derivativeAt, pointAt, type Vec } from './curve';

/**
 * One cubic through samples of a shape with given end directions, by least squares on the two handle lengths and
 * repeated reparametrisation (Schneider, "An Algorithm for Automatically Fitting Digitized Curves", Graphics Gems, 1990).
 * `samples` holds at least two points; the directions point into the curve from each end and need not be unit length.
 */
export function fitCubic(samples: readonly Vec[], startDirection: Vec, endDirection: Vec): Curve {
  const first = samples[0]!;
  const last = samples[samples.length - 1]!;
  const d0 = unit(startDirection);
  const d1 = unit(endDirection);
  const chord = Math.hypot(last[0] - first[0], last[1] - first[1]);
  let ts = chordParameters(samples);
  let curve = handlesFor(samples, ts, d0, d1, chord);
  for (let round = 0; round < 8; round++) {
    ts = ts.map((t, i) => closerParameter(curve, samples[i]!, t));
    curve = handlesFor(samples, ts, d0, d1, chord);
  }
  for (let round = 0; round < 12; round++) {
    const here = follow(curve, samples, ts);
    if (here.error < samples.length * GOOD) break;
    const better = shortenedStep(curve, normalStep(curve, samples, here.ts, d0, d1, chord), samples, here);
    if (!better) break;
    curve = better.curve;
    ts = better.ts;
  }
  return curve;
}

/** A mean squared distance that needs no better fit, in square units. */
const GOOD = 1e-6;

/** Straight pieces that a curve is taken for when many places are held against it. */
const PIECES = 48;

/** The greatest distance of some places from a curve, the curve taken as short straight pieces: quick, and exact to a hundredth for the curves of letters. */
export function farthestFrom(curve: Curve, places: readonly Vec[]): number {
  const line = Array.from({ length: PIECES + 1 }, (_, k) => pointAt(curve, k / PIECES));
  let worst = 0;
  for (const [x, y] of places) {
    let nearest = Infinity;
    for (let k = 0; k < PIECES; k++) {
      const [x0, y0] = line[k]!;
      const [dx, dy] = [line[k + 1]![0] - x0, line[k + 1]![1] - y0];
      const long = dx * dx + dy * dy;
      const t = long > 0 ? Math.min(1, Math.max(0, ((x - x0) * dx + (y - y0) * dy) / long)) : 0;
      const d = (x0 + dx * t - x) ** 2 + (y0 + dy * t - y) ** 2;
      if (d < nearest) nearest = d;
    }
    if (nearest > worst) worst = nearest;
  }
  return Math.sqrt(worst);
}

/** As much of a step as makes the fit better: the whole, a half, a quarter …; undefined when none does. */
function shortenedStep(
  from: Curve,
  to: Curve,
  samples: readonly Vec[],
  here: { ts: number[]; error: number },
): { curve: Curve; ts: number[] } | undefined {
  for (let share = 1; share > 0.02; share /= 2) {
    const curve = from.map((v, i) => v + (to[i]! - v) * share);
    const there = follow(curve, samples, here.ts);
    if (there.error < here.error) return { curve, ts: there.ts };
  }
  return undefined;
}

/** Parameters brought to the nearest places, and the sum of the squared distances left. */
function follow(curve: Curve, samples: readonly Vec[], ts: readonly number[]): { ts: number[]; error: number } {
  let error = 0;
  const nearer = ts.map((from, i) => {
    let t = from;
    for (let step = 0; step < 4; step++) t = closerParameter(curve, samples[i]!, t);
    const [x, y] = pointAt(curve, t);
    error += (x - samples[i]![0]) ** 2 + (y - samples[i]![1]) ** 2;
    return t;
  });
  return { ts: nearer, error };
}

/**
 * One Gauss–Newton step on the two handle lengths, measuring each sample's distance along the curve's normal: there a
 * shift of the parameter no longer counts, so a few steps suffice where plain reparametrisation creeps.
 */
function normalStep(
  curve: Curve,
  samples: readonly Vec[],
  ts: readonly number[],
  d0: Vec,
  d1: Vec,
  chord: number,
): Curve {
  const sums = new TwoUnknowns();
  ts.forEach((t, i) => {
    const [px, py] = pointAt(curve, t);
    const [dx, dy] = derivativeAt(curve, t);
    const speed = Math.hypot(dx, dy);
    if (speed < 1e-9) return;
    const nx = -dy / speed;
    const ny = dx / speed;
    const off = (samples[i]![0] - px) * nx + (samples[i]![1] - py) * ny;
    const byA = 3 * (1 - t) * (1 - t) * t * (d0[0] * nx + d0[1] * ny);
    const byB = 3 * (1 - t) * t * t * (d1[0] * nx + d1[1] * ny);
    sums.add(byA * byA, byA * byB, byB * byB, byA * off, byB * off);
  });
  const step = sums.solve();
  if (!step) return curve;
  const [x0, y0] = [curve[0]!, curve[1]!];
  const [x3, y3] = [curve[6]!, curve[7]!];
  const least = chord * 1e-3;
  const a = Math.max(least, Math.hypot(curve[2]! - x0, curve[3]! - y0) + step[0]);
  const b = Math.max(least, Math.hypot(curve[4]! - x3, curve[5]! - y3) + step[1]);
  return [x0, y0, x0 + a * d0[0], y0 + a * d0[1], x3 + b * d1[0], y3 + b * d1[1], x3, y3];
}

/** The normal equations of a least-squares fit with two unknowns, summed sample by sample. */
class TwoUnknowns {
  private c00 = 0;
  private c01 = 0;
  private c11 = 0;
  private r0 = 0;
  private r1 = 0;

  add(c00: number, c01: number, c11: number, r0: number, r1: number): void {
    this.c00 += c00;
    this.c01 += c01;
    this.c11 += c11;
    this.r0 += r0;
    this.r1 += r1;
  }
  /** Nothing when the samples do not tell the two apart. */
  solve(): [number, number] | undefined {
    const det = this.c00 * this.c11 - this.c01 * this.c01;
    return det < 1e-9
      ? undefined
      : [(this.r0 * this.c11 - this.r1 * this.c01) / det, (this.c00 * this.r1 - this.c01 * this.r0) / det];
  }
}

const unit = (v: Vec): Vec => {
  const length = Math.hypot(v[0], v[1]) || 1;
  return [v[0] / length, v[1] / length];
};

function chordParameters(samples: readonly Vec[]): number[] {
  const along = [0];
  for (let i = 1; i < samples.length; i++) {
    const [x0, y0] = samples[i - 1]!;
    const [x1, y1] = samples[i]!;
    along.push(along[i - 1]! + Math.hypot(x1 - x0, y1 - y0));
  }
  const total = along[along.length - 1]! || 1;
  return along.map((d) => d / total);
}

function handlesFor(samples: readonly Vec[], ts: readonly number[], d0: Vec, d1: Vec, chord: number): Curve {
  const [x0, y0] = samples[0]!;
  const [x3, y3] = samples[samples.length - 1]!;
  const sums = new TwoUnknowns();
  ts.forEach((t, i) => {
    const s = 1 - t;
    const b1 = 3 * s * s * t;
    const b2 = 3 * s * t * t;
    const start = s * s * s + b1;
    const end = t * t * t + b2;
    const rx = samples[i]![0] - (start * x0 + end * x3);
    const ry = samples[i]![1] - (start * y0 + end * y3);
    sums.add(
      b1 * b1,
      b1 * b2 * (d0[0] * d1[0] + d0[1] * d1[1]),
      b2 * b2,
      b1 * (d0[0] * rx + d0[1] * ry),
      b2 * (d1[0] * rx + d1[1] * ry),
    );
  });
  let [a, b] = sums.solve() ?? [chord / 3, chord / 3];
  if (!(a > chord * 1e-3)) a = chord / 3;
  if (!(b > chord * 1e-3)) b = chord / 3;
  return [x0, y0, x0 + a * d0[0], y0 + a * d0[1], x3 + b * d1[0], y3 + b * d1[1], x3, y3];
}

/** One Newton step of a cubic towards the parameter of the nearest point; a step that leads away is not taken. */
function closerParameter(c: Curve, sample: Vec, t: number): number {
  const x0 = c[0]!;
  const y0 = c[1]!;
  const x1 = c[2]!;
  const y1 = c[3]!;
  const x2 = c[4]!;
  const y2 = c[5]!;
  const x3 = c[6]!;
  const y3 = c[7]!;
  const sx = sample[0];
  const sy = sample[1];
  const s = 1 - t;
  const a = s * s;
  const b = 2 * s * t;
  const d = t * t;
  const dx = 3 * (a * (x1 - x0) + b * (x2 - x1) + d * (x3 - x2));
  const dy = 3 * (a * (y1 - y0) + b * (y2 - y1) + d * (y3 - y2));
  const speed = dx * dx + dy * dy;
  if (speed < 1e-12) return t;
  const ex = s * a * x0 + 3 * t * (a * x1 + s * t * x2) + t * d * x3 - sx;
  const ey = s * a * y0 + 3 * t * (a * y1 + s * t * y2) + t * d * y3 - sy;
  const next = Math.min(1, Math.max(0, t - (ex * dx + ey * dy) / speed));
  const n = 1 - next;
  const m = next;
  const f = n * n * n;
  const g = 3 * n * n * m;
  const h = 3 * n * m * m;
  const k = m * m * m;
  const qx = f * x0 + g * x1 + h * x2 + k * x3 - sx;
  const qy = f * y0 + g * y1 + h * y2 + k * y3 - sy;
  return qx * qx + qy * qy <= ex * ex + ey * ey ? next : t;
}
