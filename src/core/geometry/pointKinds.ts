import { type Contour, isOnCurve, neighbour, type Point, type Segment, withSegmentPoints } from './contour';
import { tidy } from './tidy';

/**
 * Makes on-curve points smooth or corners. A point made smooth gets its handles in line: along the straight side where it
 * has one, else along the mean of both handles' directions. Points without any handle stay corners.
 */
export function setSmooth(contour: Contour, selected: ReadonlySet<number>, smooth: boolean): Contour {
  const points: Point[] = [...contour.points];
  for (const i of selected) {
    const p = points[i]!;
    if (!isOnCurve(p)) continue;
    const before = neighbour(contour, i, -1);
    const after = neighbour(contour, i, 1);
    if (!smooth) {
      const { smooth: _, ...corner } = p;
      points[i] = corner;
      continue;
    }
    if (before === undefined || after === undefined) continue;
    const offBefore = points[before]!.type === 'off';
    const offAfter = points[after]!.type === 'off';
    if (!offBefore && !offAfter) continue;
    points[i] = { ...p, smooth: true };
    if (offBefore && offAfter) alignBoth(points, i, before, after);
    else align(points, i, offBefore ? after : before, offBefore ? before : after);
  }
  return { ...contour, points };
}

/** Turns both handles to the mean direction, lengths kept; near-level and near-upright means snap true. */
function alignBoth(points: Point[], pivot: number, before: number, after: number): void {
  const p = points[pivot]!;
  const toward = (i: number) => {
    const dx = points[i]!.x - p.x;
    const dy = points[i]!.y - p.y;
    const length = Math.hypot(dx, dy);
    return { x: length ? dx / length : 0, y: length ? dy / length : 0, length };
  };
  const a = toward(before);
  const b = toward(after);
  let x = b.x - a.x;
  let y = b.y - a.y;
  const length = Math.hypot(x, y);
  if (length < 1e-6) return;
  x /= length;
  y /= length;
  if (Math.abs(x) < 0.035) [x, y] = [0, Math.sign(y)];
  else if (Math.abs(y) < 0.035) [x, y] = [Math.sign(x), 0];
  points[before] = { ...points[before]!, x: tidy(p.x - x * a.length), y: tidy(p.y - y * a.length) };
  points[after] = { ...points[after]!, x: tidy(p.x + x * b.length), y: tidy(p.y + y * b.length) };
}

/** Turns a line into a curve (handles at its thirds) or a curve into a line. */
export function toggleSegment(contour: Contour, segment: Segment): Contour {
  if (segment.from < 0) return contour;
  const { points } = contour;
  const from = points[segment.from]!;
  const to = points[segment.to]!;
  const makeCurve = segment.offs.length === 0;
  const round = Math.round;
  const middle: Point[] = makeCurve
    ? [
        { x: round(from.x + (to.x - from.x) / 3), y: round(from.y + (to.y - from.y) / 3), type: 'off' },
        { x: round(from.x + ((to.x - from.x) * 2) / 3), y: round(from.y + ((to.y - from.y) * 2) / 3), type: 'off' },
      ]
    : [];
  const next = withSegmentPoints(contour, segment, middle);
  const at = next.points.indexOf(to);
  const typed = next.points.map((p, i): Point => (i === at ? { ...p, type: makeCurve ? 'curve' : 'line' } : p));
  return withoutFalseSmooth({ ...next, points: typed });
}

/** A point between two straight sides is a corner, whatever it was before. */
function withoutFalseSmooth(contour: Contour): Contour {
  const points = contour.points.map((p, i): Point => {
    if (!p.smooth || p.type === 'off') return p;
    const before = neighbour(contour, i, -1);
    const after = neighbour(contour, i, 1);
    const hasHandle = [before, after].some((n) => n !== undefined && contour.points[n]!.type === 'off');
    if (hasHandle) return p;
    const { smooth: _, ...corner } = p;
    return corner;
  });
  return { ...contour, points };
}

/** Turns the handle `follower` about `pivot` to lie straight opposite `leader`, its length kept. */
export function align(points: Point[], pivot: number, leader: number, follower: number): void {
  const p = points[pivot]!;
  const l = points[leader]!;
  const f = points[follower]!;
  const dx = p.x - l.x;
  const dy = p.y - l.y;
  const reach = Math.hypot(dx, dy);
  if (reach < 1e-6) return;
  const length = Math.hypot(f.x - p.x, f.y - p.y);
  points[follower] = { ...f, x: tidy(p.x + (dx / reach) * length), y: tidy(p.y + (dy / reach) * length) };
}
