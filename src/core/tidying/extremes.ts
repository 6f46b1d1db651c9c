import { type Contour, type Point, type Segment, segmentsOf } from '../geometry/contour';
import { type Curve, coordinateAt, endOf, extremes, partOf } from '../geometry/curve';
import { tidy } from '../geometry/tidy';
import type { Siblings } from './siblings';

/** A curve that passes its ends by less than this, in font units, needs no point there. */
const SLIGHT = 0.25;
/** Two extremes nearer than this along a curve are served by one point. */
const NEAR = 0.02;

/**
 * Puts an on-curve point wherever a curve turns in x or y between its ends; the shape stays. In siblings the same curves
 * get the same number of points: each its own places where all turn equally often, else the first one's.
 */
export function withExtremes(contours: Siblings): Contour[] {
  let now = [...contours];
  // A cut brings the ends nearer to a turn that was too near one before; a few rounds settle it.
  for (let round = 0; round < 6; round++) {
    const next = cutOnce(now);
    if (next[0]!.points.length === now[0]!.points.length) break;
    now = next;
  }
  return now;
}

/** The same for one segment only, by its number from 0 on. */
export const withExtremesAt = (contours: Siblings, segment: number): Contour[] => cutOnce(contours, segment);

function cutOnce(contours: Siblings, only?: number): Contour[] {
  const segments = contours.map((c) => segmentsOf(c));
  const cuts = segments[0]!.map((_, s) => {
    const own = segments.map((list) =>
      list[s]!.curves.map((c) => (only === undefined || only === s ? turnsOf(c) : [])),
    );
    const alike = own.every((places) => places.every((ts, k) => ts.length === own[0]![k]!.length));
    return own.map((places) => (alike ? places : own[0]!));
  });
  if (cuts.every((perSibling) => perSibling.every((places) => places.every((ts) => ts.length === 0))))
    return [...contours];
  return contours.map((c, i) =>
    rebuilt(
      c,
      segments[i]!,
      cuts.map((perSibling) => perSibling[i]!),
    ),
  );
}

/** Where along a curve an extreme lies that is worth a point, rising: it passes the ends by more than `slight` units, in x or y. */
export function turnsOf(c: Curve, slight = SLIGHT, axes: readonly (0 | 1)[] = [0, 1]): number[] {
  const out: number[] = [];
  for (const axis of axes) {
    for (const t of extremes(c, axis)) {
      const v = coordinateAt(c, axis, t);
      const [from, to] = [c[axis]!, c[c.length - 2 + axis]!];
      const beyond = Math.max(v - Math.max(from, to), Math.min(from, to) - v);
      // A turn within the span of the ends is an extreme too when the curve comes back by as much.
      const back = Math.min(Math.abs(v - from), Math.abs(v - to));
      if (t > NEAR && t < 1 - NEAR && (beyond > slight || (beyond <= 0 && back > slight))) out.push(t);
    }
  }
  return out.sort((a, b) => a - b).filter((t, i, all) => i === 0 || t - all[i - 1]! > NEAR);
}

function rebuilt(
  contour: Contour,
  segments: readonly Segment[],
  cuts: readonly (readonly (readonly number[])[])[],
): Contour {
  const { points } = contour;
  const out: Point[] = [];
  if (!contour.closed) out.push(points[segments[0]!.from]!);
  segments.forEach((segment, s) => {
    const end = segment.to >= 0 ? points[segment.to]! : undefined;
    if (cuts[s]!.every((ts) => ts.length === 0) && end) {
      out.push(...segment.offs.map((i) => points[i]!), end);
      return;
    }
    segment.curves.forEach((curve, k) => {
      const ts = [0, ...cuts[s]![k]!, 1];
      for (let i = 1; i < ts.length; i++) {
        const part = partOf(curve, ts[i - 1]!, ts[i]!);
        for (let v = 2; v < part.length - 2; v += 2)
          out.push({ x: tidy(part[v]!), y: tidy(part[v + 1]!), type: 'off' });
        const last = i === ts.length - 1 && k === segment.curves.length - 1;
        const [x, y] = endOf(part);
        out.push(
          last && end ? end : { x: tidy(x), y: tidy(y), type: curve.length === 6 ? 'qcurve' : 'curve', smooth: true },
        );
      }
    });
  });
  if (!contour.closed) return { ...contour, points: levelled(out) };
  const end = out.pop()!;
  return { ...contour, points: levelled([end, ...out]) };
}

/** Handles at an extreme lie exactly level or upright, rounding aside. */
function levelled(points: readonly Point[]): Point[] {
  const n = points.length;
  return points.map((p, i) => {
    if (p.type !== 'off') return p;
    for (const step of [-1, 1]) {
      const on = points[(i + step + n) % n]!;
      if (on.type === 'off') continue;
      if (p.x !== on.x && Math.abs(p.x - on.x) < 0.002) return { ...p, x: on.x };
      if (p.y !== on.y && Math.abs(p.y - on.y) < 0.002) return { ...p, y: on.y };
    }
    return p;
  });
}
