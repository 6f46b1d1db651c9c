import { type Contour, isOnCurve, neighbour, segmentsOf } from '../geometry/contour';
import { type Curve, endOf, startOf } from '../geometry/curve';
import { deletePoints } from '../geometry/deletePoints';
import { tidy } from '../geometry/tidy';
import { distanceTo } from './deviation';
import { onCurve, type Siblings } from './siblings';

/**
 * Takes points away as long as the shape stays within `distance` units of what it was, the least missed first. Corners,
 * points at extremes and the ends of open contours stay. In siblings a point goes from all or from none.
 */
export function withFewerPoints(contours: Siblings, distance: number): Contour[] {
  const original = contours.map((c) => segmentsOf(c).flatMap((s) => [...s.curves]));
  let now = [...contours];
  for (;;) {
    let best: { contours: Contour[]; off: number } | undefined;
    for (const i of onCurve(now[0]!)) {
      if (!now.every((c) => spare(c, i, distance))) continue;
      const without = now.map((c) => deletePoints(c, new Set([i])));
      if (!without.every((c) => c !== undefined && c.points.length > 2)) continue;
      const off = Math.max(...without.map((c, k) => apart(now[k]!, i, c!, original[k]!)));
      if (off <= distance && (!best || off < best.off)) best = { contours: without.map((c) => onGrid(c!)), off };
    }
    if (!best) return now;
    now = best.contours;
  }
}

/** May a point go at all? Smooth points between curves, not at an extreme; points in line between two straight sides. */
function spare(contour: Contour, index: number, distance: number): boolean {
  const p = contour.points[index]!;
  const [before, after] = [neighbour(contour, index, -1), neighbour(contour, index, 1)];
  if (before === undefined || after === undefined) return false;
  const [a, b] = [contour.points[before]!, contour.points[after]!];
  if (isOnCurve(a) && isOnCurve(b)) {
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    const along = (p.x - a.x) * (b.x - a.x) + (p.y - a.y) * (b.y - a.y);
    const off =
      length === 0
        ? Math.hypot(p.x - a.x, p.y - a.y)
        : Math.abs((p.x - a.x) * (b.y - a.y) - (p.y - a.y) * (b.x - a.x)) / length;
    return off <= distance && along >= 0 && along <= length * length;
  }
  if (isOnCurve(a) || isOnCurve(b) || p.type === 'qcurve') return false;
  const [ax, ay, bx, by] = [p.x - a.x, p.y - a.y, b.x - p.x, b.y - p.y];
  const turn = Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by));
  // Where the outline runs level or upright through a point that its neighbours do not pass, it has an extreme.
  const extreme = (Math.abs(ay) < 0.01 && Math.abs(by) < 0.01) || (Math.abs(ax) < 0.01 && Math.abs(bx) < 0.01);
  return turn < 0.1 && !(extreme && isTurning(contour, index));
}

/** Does the outline turn back at a point in x or in y? */
function isTurning(contour: Contour, index: number): boolean {
  const p = contour.points[index]!;
  const near = [-1, 1].map((step) => {
    for (let k = step; Math.abs(k) <= 4; k += step) {
      const i = neighbour(contour, index, k);
      if (i === undefined) return p;
      const q = contour.points[i]!;
      if (Math.abs(q.x - p.x) > 0.01 && Math.abs(q.y - p.y) > 0.01) return q;
    }
    return p;
  }) as [typeof p, typeof p];
  return (near[0].x - p.x) * (near[1].x - p.x) > 0 || (near[0].y - p.y) * (near[1].y - p.y) > 0;
}

/** How far the outline without a point lies from what it first was, about that point. */
function apart(before: Contour, index: number, after: Contour, original: readonly Curve[]): number {
  const gone = segmentsOf(before).filter((s) => s.from === index || s.to === index);
  const [from, to] = [
    startOf(gone[0]!.curves[0]!),
    endOf(gone[gone.length - 1]!.curves[gone[gone.length - 1]!.curves.length - 1]!),
  ];
  const made = segmentsOf(after).filter((s) => {
    const [a, b] = [startOf(s.curves[0]!), endOf(s.curves[s.curves.length - 1]!)];
    return (a[0] === from[0] && a[1] === from[1]) || (b[0] === to[0] && b[1] === to[1]);
  });
  const curves = made.flatMap((s) => [...s.curves]);
  return Math.max(
    distanceTo(
      gone.flatMap((s) => [...s.curves]),
      curves,
    ),
    distanceTo(curves, original),
  );
}

const onGrid = (c: Contour): Contour => ({
  ...c,
  points: c.points.map((p) => (isOnCurve(p) ? p : { ...p, x: tidy(p.x), y: tidy(p.y) })),
});
