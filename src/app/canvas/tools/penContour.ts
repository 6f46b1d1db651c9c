import type { Contour, Point } from '../../../core/geometry/contour';

/** How a contour grows by a point at a time, with or without handles. */

const on = (x: number, y: number, type: Point['type'], smooth: boolean): Point =>
  smooth ? { x, y, type, smooth } : { x, y, type };
const off = (x: number, y: number): Point => ({ x, y, type: 'off' });

export type Place = { x: number; y: number };

/**
 * The two handles of a curve of which one was pulled. The other lies a third of the way towards it: the curve leaves the
 * corner in the same direction as with no handle at all, and no handle has zero length.
 */
function bothHandles(from: Place, out: Place | undefined, into: Place | undefined, to: Place): [Place, Place] {
  const third = (p: Place, q: Place): Place => ({
    x: Math.round(p.x + (q.x - p.x) / 3),
    y: Math.round(p.y + (q.y - p.y) / 3),
  });
  const a = out ?? third(from, into ?? to);
  return [a, into ?? third(to, a)];
}

/** A contour with one more point at its end: a line, or a curve when either side has a handle. */
export function grown(
  base: Contour | undefined,
  out: Place | undefined,
  { x, y, smooth: wanted = true }: Place & { smooth?: boolean },
  into: Place | undefined,
): Contour {
  const smooth = into !== undefined && wanted;
  if (!base || base.points.length === 0) return { closed: false, points: [on(x, y, 'line', smooth)] };
  const last = base.points[base.points.length - 1]!;
  if (!out && !into) return { ...base, points: [...base.points, on(x, y, 'line', false)] };
  const [a, b] = bothHandles(last, out, into, { x, y });
  return { ...base, points: [...base.points, off(a.x, a.y), off(b.x, b.y), on(x, y, 'curve', smooth)] };
}

/**
 * A growing contour without its last point, and the handle that leaves the one that is last then; no contour where that was
 * the only point.
 */
export function shortened(base: Contour): { contour: Contour | undefined; out: Place | undefined } {
  const last = base.points.findLastIndex((p, i) => p.type !== 'off' && i < base.points.length - 1);
  if (last < 0) return { contour: undefined, out: undefined };
  const next = base.points[last + 1];
  const out = next?.type === 'off' ? { x: next.x, y: next.y } : undefined;
  return { contour: { ...base, points: base.points.slice(0, last + 1) }, out };
}

/** The contour closed onto its start, by a line or a curve. */
export function closed(base: Contour, out: Place | undefined, into: Place | undefined): Contour {
  const [start, ...rest] = base.points as [Point, ...Point[]];
  const last = base.points[base.points.length - 1]!;
  if (!out && !into) return { ...base, closed: true, points: [{ ...start, type: 'line' }, ...rest] };
  const [a, b] = bothHandles(last, out, into, start);
  const leaving = rest[0];
  const straightOn = into !== undefined && leaving !== undefined && inLine(into, start, leaving);
  return {
    ...base,
    closed: true,
    points: [on(start.x, start.y, 'curve', straightOn), ...rest, off(a.x, a.y), off(b.x, b.y)],
  };
}

function inLine(a: Place, p: Place, b: Place): boolean {
  const cross = (p.x - a.x) * (b.y - p.y) - (p.y - a.y) * (b.x - p.x);
  const dot = (p.x - a.x) * (b.x - p.x) + (p.y - a.y) * (b.y - p.y);
  return dot > 0 && Math.abs(cross) < 0.02 * dot;
}
