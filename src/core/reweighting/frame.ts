import { type Contour, type Segment, segmentsOf } from '../geometry/contour';
import { type Curve, pointAt, type Vec } from '../geometry/curve';
import { directedByNesting } from '../geometry/winding';

/** A place of an outline that moves on its own: an on-curve point, or one that is implied between two off-curve points. */
export type Knot = { readonly x: number; readonly y: number; readonly contour: number };

/** A stretch between two knots. Its handles follow both: `share` tells by how much the far one, for each of the two, in x and in y. */
export type Side = {
  readonly from: number;
  readonly to: number;
  readonly curve: Curve;
  readonly shares: readonly Vec[];
  readonly contour: number;
  /** Which segment of the contour, and which curve of it. */
  readonly segment: number;
  readonly part: number;
  /** Length of the straight line between its knots. */
  readonly length: number;
};

/** An outline as knots and the sides between them. */
export type Frame = {
  readonly contours: readonly Contour[];
  readonly segments: readonly (readonly Segment[])[];
  readonly knots: readonly Knot[];
  readonly sides: readonly Side[];
  /** For each contour: 1 where ink lies to the left of travel, -1 where it lies to the right. */
  readonly inkSide: readonly (1 | -1)[];
  /** For each contour the solid it belongs to: an outer shape and the counters in it. */
  readonly solid: readonly number[];
  /** For each knot the sides that come in and go out, -1 at the ends of an open contour. */
  readonly into: readonly number[];
  readonly out: readonly number[];
};

/** How far along an axis a handle lies from one knot to the other, kept within both. */
function shareOf(from: number, to: number, handle: number, fallback: number): number {
  const span = to - from;
  if (Math.abs(span) < 2) return fallback;
  return Math.min(1, Math.max(0, (handle - from) / span));
}

/** The frame of an outline; contours without segments have no knots. */
export function frameOf(contours: readonly Contour[]): Frame {
  const knots: Knot[] = [];
  const sides: Side[] = [];
  const into: number[] = [];
  const out: number[] = [];
  const segments = contours.map(segmentsOf);
  segments.forEach((list, contour) => {
    const first = knots.length;
    const firstSide = sides.length;
    for (const [k, segment] of list.entries())
      for (const [part, curve] of segment.curves.entries()) {
        knots.push({ x: curve[0]!, y: curve[1]!, contour });
        const n = curve.length;
        const [ex, ey] = [curve[n - 2]!, curve[n - 1]!];
        const shares: Vec[] = [];
        for (let i = 2; i < n - 2; i += 2) {
          const usual = n === 6 ? 0.5 : i === 2 ? 1 / 3 : 2 / 3;
          shares.push([shareOf(curve[0]!, ex, curve[i]!, usual), shareOf(curve[1]!, ey, curve[i + 1]!, usual)]);
        }
        const from = knots.length - 1;
        const length = Math.hypot(ex - curve[0]!, ey - curve[1]!);
        sides.push({ from, to: from + 1, curve, shares, contour, segment: k, part, length });
      }
    if (knots.length === first) return;
    const lastSide = sides.length - 1;
    const closed = contours[contour]!.closed;
    if (closed) sides[lastSide] = { ...sides[lastSide]!, to: first };
    else {
      const c = sides[lastSide]!.curve;
      knots.push({ x: c[c.length - 2]!, y: c[c.length - 1]!, contour });
    }
    for (let k = first; k < knots.length; k++) {
      const own = firstSide + k - first;
      out.push(own <= lastSide ? own : -1);
      into.push(k > first ? own - 1 : closed ? lastSide : -1);
    }
  });
  const directed = directedByNesting(contours);
  const inkSide = contours.map((c, i): 1 | -1 => (directed[i] === c ? 1 : -1));
  return { contours, segments, knots, sides, inkSide, solid: solidsOf(directed), into, out };
}

/** Which contours make one solid: each counter goes with the smallest outer shape round it. */
function solidsOf(directed: readonly Contour[]): number[] {
  const boxes = directed.map((c) => {
    const xs = c.points.map((p) => p.x);
    const ys = c.points.map((p) => p.y);
    return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)] as const;
  });
  const turns = directed.map(turnOf);
  const size = (i: number) => (boxes[i]![2] - boxes[i]![0]) * (boxes[i]![3] - boxes[i]![1]);
  return directed.map((_, i) => {
    if (turns[i]! >= 0) return i;
    const [l, b, r, t] = boxes[i]!;
    let best = i;
    boxes.forEach((o, j) => {
      if (j === i || turns[j]! < 0 || o[0] > l + 1 || o[1] > b + 1 || o[2] < r - 1 || o[3] < t - 1) return;
      if (best === i || size(j) < size(best)) best = j;
    });
    return best;
  });
}

/** Sign of the area between a contour's points. */
function turnOf(c: Contour): number {
  let area = 0;
  c.points.forEach((p, i) => {
    const q = c.points[(i + 1) % c.points.length]!;
    area += p.x * q.y - q.x * p.y;
  });
  return Math.sign(area);
}

/** How much of the far knot's move a place on a side takes part in, for x and for y: the rest is the near knot's. */
export function farShare(side: Side, t: number): Vec {
  const s = 1 - t;
  if (side.shares.length === 0) return [t, t];
  if (side.shares.length === 1) {
    const m = 2 * s * t;
    const [q] = side.shares as [Vec];
    return [m * q[0] + t * t, m * q[1] + t * t];
  }
  const [m1, m2, m3] = [3 * s * s * t, 3 * s * t * t, t * t * t];
  const [p, q] = side.shares as [Vec, Vec];
  return [m1 * p[0] + m2 * q[0] + m3, m1 * p[1] + m2 * q[1] + m3];
}

/** The place and the unit normal into the ink of a side at `t`. */
export function inwardAt(frame: Frame, side: Side, t: number): { at: Vec; inward: Vec } {
  const c = side.curve;
  const at = pointAt(c, t);
  const step = 1e-3;
  const [a, b] = t < 0.5 ? [at, pointAt(c, t + step)] : [pointAt(c, t - step), at];
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const length = Math.hypot(dx, dy) || 1;
  const way = frame.inkSide[side.contour]! / length;
  return { at, inward: [-dy * way, dx * way] };
}

/** Cosine of the turn from the end of one side to the beginning of the next. */
export function turnBetween(before: readonly number[], after: readonly number[]): number {
  const n = before.length;
  const [ax, ay] = [before[n - 2]! - before[n - 4]!, before[n - 1]! - before[n - 3]!];
  const [bx, by] = [after[2]! - after[0]!, after[3]! - after[1]!];
  return (ax * bx + ay * by) / (Math.hypot(ax, ay) * Math.hypot(bx, by) || 1);
}
