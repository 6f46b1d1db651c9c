import type { Contour, Point } from './contour';

/** Marks points smooth whose neighbours lie in line with them, one of them at least a handle; `limit` is the greatest turn, in radians. */
export function withSmoothPoints(contour: Contour, limit = 0.03): Contour {
  const { points, closed } = contour;
  const n = points.length;
  const mark = (p: Point, i: number): Point => {
    if (p.type === 'off' || (!closed && (i === 0 || i === n - 1))) return p;
    const a = points[(i - 1 + n) % n]!;
    const b = points[(i + 1) % n]!;
    if (a.type !== 'off' && b.type !== 'off') return p;
    const [ax, ay, bx, by] = [p.x - a.x, p.y - a.y, b.x - p.x, b.y - p.y];
    const straight =
      (ax !== 0 || ay !== 0) &&
      (bx !== 0 || by !== 0) &&
      Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by)) < limit;
    return straight ? { ...p, smooth: true } : p;
  };
  return { ...contour, points: points.map(mark) };
}
