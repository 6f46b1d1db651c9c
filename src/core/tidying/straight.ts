import { addTo } from '../base/grouping';
import { type Contour, neighbour, type Point, segmentsOf } from '../geometry/contour';
import { setSmooth } from '../geometry/pointKinds';
import { tidy } from '../geometry/tidy';
import { onCurve } from './siblings';

/** Every coordinate on a grid of `step` units. */
export function rounded(contour: Contour, step: number): Contour {
  const to = (v: number) => tidy(Math.round(v / step) * step);
  return contour.points.every((p) => p.x === to(p.x) && p.y === to(p.y))
    ? contour
    : { ...contour, points: contour.points.map((p) => ({ ...p, x: to(p.x), y: to(p.y) })) };
}

/**
 * Makes sides that miss level or upright by no more than `distance` units exactly so (they must be ten times as long), and
 * curves whose handles lie within that of their chord into lines. A whole staircase of such sides gets one coordinate.
 */
export function straightened(contour: Contour, distance: number): Contour {
  const lined = withoutFlatCurves(contour, distance);
  const points = [...lined.points];
  for (const axis of ['x', 'y'] as const) {
    const across = axis === 'x' ? 'y' : 'x';
    const groups = new Map<number, number>();
    const root = (i: number): number => (groups.get(i) === undefined || groups.get(i) === i ? i : root(groups.get(i)!));
    for (const s of segmentsOf(lined)) {
      if (s.offs.length > 0 || s.from < 0) continue;
      const [a, b] = [points[s.from]!, points[s.to]!];
      const off = Math.abs(a[axis] - b[axis]);
      if (off > 0 && off <= distance && Math.abs(a[across] - b[across]) >= off * 10)
        groups.set(root(s.to), root(s.from));
    }
    const members = new Map<number, number[]>();
    for (const i of onCurve(lined)) {
      const r = root(i);
      addTo(members, r, i);
    }
    for (const list of members.values()) {
      if (list.length < 2) continue;
      // The value most points have already, else the middle of all.
      const counts = new Map<number, number>();
      for (const i of list) counts.set(points[i]![axis], (counts.get(points[i]![axis]) ?? 0) + 1);
      const [value, most] = [...counts].sort((a, b) => b[1] - a[1])[0]!;
      const goal =
        most > 1 ? value : tidy(Math.round(list.reduce((sum, i) => sum + points[i]![axis], 0) / list.length));
      for (const i of list) shiftWithHandles(lined, points, i, axis, goal - points[i]![axis]);
    }
  }
  return points.every((p, i) => p === lined.points[i]) ? lined : { ...lined, points };
}

/** Moves an on-curve point along an axis, its handles with it. */
export function shiftWithHandles(contour: Contour, points: Point[], index: number, axis: 'x' | 'y', by: number): void {
  if (by === 0) return;
  for (const step of [-1, 0, 1]) {
    const i = neighbour(contour, index, step);
    if (i === undefined || (step !== 0 && points[i]!.type !== 'off')) continue;
    points[i] = { ...points[i]!, [axis]: tidy(points[i]![axis] + by) };
  }
}

function withoutFlatCurves(contour: Contour, distance: number): Contour {
  const doomed = new Set<number>();
  const ends = new Set<number>();
  for (const s of segmentsOf(contour)) {
    if (s.offs.length === 0 || s.from < 0) continue;
    const [a, b] = [contour.points[s.from]!, contour.points[s.to]!];
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    const flat = s.offs.every((i) => {
      const p = contour.points[i]!;
      const along = (p.x - a.x) * (b.x - a.x) + (p.y - a.y) * (b.y - a.y);
      const off = Math.abs((p.x - a.x) * (b.y - a.y) - (p.y - a.y) * (b.x - a.x)) / (length || 1);
      return length > 0 && off <= distance && along >= 0 && along <= length * length;
    });
    // A short flat piece of a bend is no straight side.
    if (!flat || length < distance * 20) continue;
    for (const i of s.offs) doomed.add(i);
    ends.add(s.to);
  }
  if (doomed.size === 0) return contour;
  return {
    ...contour,
    points: contour.points.flatMap((p, i): Point[] =>
      doomed.has(i) ? [] : [ends.has(i) ? { ...p, type: 'line' } : p],
    ),
  };
}

/**
 * Handles that miss level or upright by no more than `degrees` are made so, and points that miss smooth by no more are
 * made smooth, their handles in line; lengths along the direction stay.
 */
export function withAlignedHandles(contour: Contour, degrees: number): Contour {
  const limit = (degrees * Math.PI) / 180;
  const points = [...contour.points];
  const meant = new Set<number>();
  for (const i of onCurve(contour)) {
    const p = points[i]!;
    const sides = [-1, 1].map((step) => neighbour(contour, i, step));
    const handles = sides.filter((k): k is number => k !== undefined && points[k]!.type === 'off');
    for (const k of handles) {
      const h = points[k]!;
      const [dx, dy] = [Math.abs(h.x - p.x), Math.abs(h.y - p.y)];
      if (dx > 0 && dy > 0 && Math.atan2(Math.min(dx, dy), Math.max(dx, dy)) <= limit)
        points[k] = dx > dy ? { ...h, y: p.y } : { ...h, x: p.x };
    }
    const [before, after] = sides;
    if (before === undefined || after === undefined || handles.length === 0) continue;
    const [a, b] = [points[before]!, points[after]!];
    const [ax, ay, bx, by] = [p.x - a.x, p.y - a.y, b.x - p.x, b.y - p.y];
    if ((ax === 0 && ay === 0) || (bx === 0 && by === 0)) continue;
    const turn = Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by));
    if (turn <= limit && (turn > 1e-4 || !p.smooth)) meant.add(i);
  }
  const levelled = points.every((p, i) => p === contour.points[i]) ? contour : { ...contour, points };
  return meant.size === 0 ? levelled : setSmooth(levelled, meant, true);
}
