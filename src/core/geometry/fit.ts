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
  for (let round = 0; round < 60; round++) {
    ts = ts.map((t, i) => closerParameter(curve, samples[i]!, t));
    curve = handlesFor(samples, ts, d0, d1, chord);
  }
  return curve;
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
  let c00 = 0;
  let c01 = 0;
  let c11 = 0;
  let r0 = 0;
  let r1 = 0;
  ts.forEach((t, i) => {
    const s = 1 - t;
    const b1 = 3 * s * s * t;
    const b2 = 3 * s * t * t;
    const start = s * s * s + b1;
    const end = t * t * t + b2;
    const rx = samples[i]![0] - (start * x0 + end * x3);
    const ry = samples[i]![1] - (start * y0 + end * y3);
    c00 += b1 * b1;
    c01 += b1 * b2 * (d0[0] * d1[0] + d0[1] * d1[1]);
    c11 += b2 * b2;
    r0 += b1 * (d0[0] * rx + d0[1] * ry);
    r1 += b2 * (d1[0] * rx + d1[1] * ry);
  });
  const det = c00 * c11 - c01 * c01;
  let a = det > 1e-9 ? (r0 * c11 - r1 * c01) / det : chord / 3;
  let b = det > 1e-9 ? (c00 * r1 - c01 * r0) / det : chord / 3;
  if (!(a > chord * 1e-3)) a = chord / 3;
  if (!(b > chord * 1e-3)) b = chord / 3;
  return [x0, y0, x0 + a * d0[0], y0 + a * d0[1], x3 + b * d1[0], y3 + b * d1[1], x3, y3];
}

/** One Newton step towards the parameter of the nearest point. */
function closerParameter(curve: Curve, sample: Vec, t: number): number {
  const p = pointAt(curve, t);
  const d = derivativeAt(curve, t);
  const speed = d[0] * d[0] + d[1] * d[1];
  if (speed < 1e-12) return t;
  const next = t - ((p[0] - sample[0]) * d[0] + (p[1] - sample[1]) * d[1]) / speed;
  return Math.min(1, Math.max(0, next));
}
