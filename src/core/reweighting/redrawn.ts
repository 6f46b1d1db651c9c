import { addTo } from '../base/grouping';
import { type Contour, neighbour, type Point } from '../geometry/contour';
import type { Curve, Vec } from '../geometry/curve';
import type { Frame, Side } from './frame';

/** The contours of a frame with its knots elsewhere: handles keep their shares, smooth points stay smooth, extremes extremes. */
export function redrawn(frame: Frame, place: (knot: number) => Vec): Contour[] {
  const bySegment = new Map<string, Side[]>();
  for (const side of frame.sides) {
    const key = `${side.contour} ${side.segment}`;
    addTo(bySegment, key, side);
  }
  return frame.contours.map((contour, c) => {
    const points: Point[] = [...contour.points];
    const put = (index: number, [x, y]: Vec) => {
      points[index] = { ...points[index]!, x, y };
    };
    frame.segments[c]!.forEach((segment, k) => {
      const sides = bySegment.get(`${c} ${k}`) ?? [];
      if (segment.from >= 0 && sides[0]) put(segment.from, place(sides[0].from));
      const last = sides[sides.length - 1];
      if (segment.to >= 0 && last) put(segment.to, place(last.to));
      let next = 0;
      for (const side of sides) {
        const [from, to] = [place(side.from), place(side.to)];
        for (let h = 2; h < side.curve.length - 2; h += 2)
          put(segment.offs[next++]!, handleAt(side, [side.curve[h]!, side.curve[h + 1]!], from, to));
      }
    });
    return aligned(contour, points);
  });
}

/** Where a handle goes when the knots of its side go elsewhere: it keeps its share of the way along each axis. */
function handleAt({ curve }: Side, handle: Vec, from: Vec, to: Vec): Vec {
  const n = curve.length;
  const first = Math.hypot(handle[0] - curve[0]!, handle[1] - curve[1]!);
  const second = Math.hypot(handle[0] - curve[n - 2]!, handle[1] - curve[n - 1]!);
  const near = first + second > 0 ? first / (first + second) : 0.5;
  const axis = (k: 0 | 1): number => {
    const [a, b] = [curve[k]!, curve[n - 2 + k]!];
    const share = (handle[k] - a) / (b - a);
    if (Math.abs(b - a) >= 2 && share > -0.6 && share < 1.6) return from[k] + share * (to[k] - from[k]);
    return handle[k] + (from[k] - a) * (1 - near) + (to[k] - b) * near;
  };
  return [axis(0), axis(1)];
}

/** Lays the handles of smooth points in line again: level and upright ones exactly, along a straight side, else both at their mean. */
function aligned(before: Contour, points: Point[]): Contour {
  const now = { ...before, points };
  points.forEach((p, i) => {
    if (p.type === 'off') return;
    const [a, b] = [neighbour(now, i, -1), neighbour(now, i, 1)];
    if (a === undefined || b === undefined) return;
    const [oldA, oldP, oldB] = [before.points[a]!, before.points[i]!, before.points[b]!];
    const was = turn(oldA, oldP, oldB);
    // Where it bends no more than it did, nothing is to be mended.
    if (was > (p.smooth ? 0.09 : 0.07) || turn(points[a]!, p, points[b]!) <= was + 1e-3) return;
    const [offA, offB] = [oldA.type === 'off', oldB.type === 'off'];
    if (!offA && !offB) return;
    const way =
      offA && offB ? meanWay(points[a]!, p, points[b]!, oldA, oldP, oldB) : wayOf(points, offA ? b : a, p, offA);
    if (!way) return;
    const lay = (index: number, sign: number) => {
      const h = points[index]!;
      const length = Math.hypot(h.x - p.x, h.y - p.y);
      const reach = Math.abs((h.x - p.x) * way[0] + (h.y - p.y) * way[1]) || length;
      points[index] = { ...h, x: p.x + sign * way[0] * reach, y: p.y + sign * way[1] * reach };
    };
    if (offA) lay(a, -1);
    if (offB) lay(b, 1);
  });
  return now;
}

/** Angle of the turn from one point over another to a third, in radians. */
function turn(a: Point, p: Point, b: Point): number {
  const [ax, ay, bx, by] = [p.x - a.x, p.y - a.y, b.x - p.x, b.y - p.y];
  return Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by));
}

/** The direction of travel through a smooth point between two handles. */
function meanWay(a: Point, p: Point, b: Point, oldA: Point, oldP: Point, oldB: Point): Vec | undefined {
  if (Math.abs(oldA.y - oldP.y) < 0.01 && Math.abs(oldB.y - oldP.y) < 0.01) return [Math.sign(oldB.x - oldA.x), 0];
  if (Math.abs(oldA.x - oldP.x) < 0.01 && Math.abs(oldB.x - oldP.x) < 0.01) return [0, Math.sign(oldB.y - oldA.y)];
  const [l1, l2] = [Math.hypot(p.x - a.x, p.y - a.y), Math.hypot(b.x - p.x, b.y - p.y)];
  if (l1 < 1e-6 || l2 < 1e-6) return undefined;
  const [x, y] = [(p.x - a.x) / l1 + (b.x - p.x) / l2, (p.y - a.y) / l1 + (b.y - p.y) / l2];
  const length = Math.hypot(x, y);
  return length > 1e-6 ? [x / length, y / length] : undefined;
}

/** The direction of travel of the straight side that ends, or begins, at a smooth point. */
function wayOf(points: readonly Point[], other: number, p: Point, leaves: boolean): Vec | undefined {
  const o = points[other]!;
  const [x, y] = leaves ? [o.x - p.x, o.y - p.y] : [p.x - o.x, p.y - o.y];
  const length = Math.hypot(x, y);
  return length > 1e-6 ? [x / length, y / length] : undefined;
}

/** The curves of all sides with their knots elsewhere, handles by their shares. */
export const movedCurves = (frame: Frame, place: (knot: number) => Vec): Curve[] =>
  frame.sides.map((side) => {
    const [from, to] = [place(side.from), place(side.to)];
    const out: number[] = [...from];
    for (let h = 2; h < side.curve.length - 2; h += 2)
      out.push(...handleAt(side, [side.curve[h]!, side.curve[h + 1]!], from, to));
    out.push(...to);
    return out;
  });
