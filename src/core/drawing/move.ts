import type { Contour, Point } from '../geometry/contour';
import { neighbour } from '../geometry/contour';
import { align } from '../geometry/pointKinds';
import { gridded, tidy } from '../geometry/tidy';

/**
 * Moves points of a contour by a distance in font units. Handles travel with their on-curve point; at a smooth point the
 * opposite handle turns to stay in line, and where a smooth point joins a line to a curve the handle keeps to the line;
 * what turns along lands on a grid of so many units.
 */
export function movePointsOf(
  contour: Contour,
  selected: ReadonlySet<number>,
  [dx, dy]: readonly [number, number],
  grid = 0,
): Contour {
  const { points } = contour;
  const moving = withHandles(contour, selected);
  const next: Point[] = points.map((p, i) => (moving.has(i) ? { ...p, x: tidy(p.x + dx), y: tidy(p.y + dy) } : p));
  const placed = [...next];
  for (const i of smoothNear(contour, moving)) keepSmooth({ ...contour, points: next }, next, i, selected);
  next.forEach((p, i) => {
    if (p !== placed[i]) next[i] = { ...p, x: gridded(p.x, grid), y: gridded(p.y, grid) };
  });
  return { ...contour, points: next };
}

/** Chosen points and the handles that hang on them. */
export function withHandles(contour: Contour, selected: ReadonlySet<number>): Set<number> {
  const { points } = contour;
  const all = new Set(selected);
  for (const i of selected) {
    if (points[i]!.type === 'off') continue;
    for (const step of [-1, 1]) {
      const n = neighbour(contour, i, step);
      if (n !== undefined && points[n]!.type === 'off') all.add(n);
    }
  }
  return all;
}

/** Smooth points that are moved, or next to something moved. */
function smoothNear(contour: Contour, moving: ReadonlySet<number>): Set<number> {
  const out = new Set<number>();
  for (const i of moving) {
    for (const n of [i, neighbour(contour, i, -1), neighbour(contour, i, 1)]) {
      if (n !== undefined && contour.points[n]!.smooth && contour.points[n]!.type !== 'off') out.add(n);
    }
  }
  return out;
}

/** Brings the handles of a smooth point back into line after a change; `held` points were placed by hand. */
function keepSmooth(contour: Contour, points: Point[], index: number, held: ReadonlySet<number>): void {
  const before = neighbour(contour, index, -1);
  const after = neighbour(contour, index, 1);
  if (before === undefined || after === undefined) return;
  const isOff = (i: number) => points[i]!.type === 'off';
  if (isOff(before) && isOff(after)) {
    if (held.has(before) && !held.has(after)) align(points, index, before, after);
    else if (held.has(after) && !held.has(before)) align(points, index, after, before);
    else if (held.has(before) && held.has(after) && !held.has(index)) align(points, index, before, after);
  } else if (isOff(before) !== isOff(after)) {
    align(points, index, isOff(before) ? after : before, isOff(before) ? before : after);
  }
}
