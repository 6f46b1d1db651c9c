import { type Contour, isOnCurve, type Point, segmentsOf, signedArea } from '../geometry/contour';
import { onCurve, type Siblings } from './siblings';

/** Points nearer than this to the one before, in font units, are the same point twice. */
const SAME = 0.01;

/** Do all siblings have nothing to show for a contour: a lone point, or a closed one without area? */
export const isStray = (contours: Siblings): boolean =>
  contours.every(
    (c) =>
      onCurve(c).length < 2 ||
      (c.closed &&
        Math.abs(signedArea(c)) < 0.5 &&
        segmentsOf(c).every((s) => s.curves.every((k) => k.every((v, i) => Math.abs(v - k[i % 2]!) < 1)))),
  );

/** Takes away on-curve points that stand where the one before them stands, in all siblings; what leads there goes too. */
export function withoutDoubledPoints(contours: Siblings): Contour[] {
  const doubled = segmentsOf(contours[0]!).flatMap((s, i) => {
    const all = contours.map((c) => segmentsOf(c)[i]!);
    const none = all.every((one, k) => {
      const { points } = contours[k]!;
      const first = points[one.from];
      return (
        first !== undefined &&
        one.to !== one.from &&
        [...one.offs, one.to].every((p) => Math.hypot(points[p]!.x - first.x, points[p]!.y - first.y) < SAME)
      );
    });
    return none ? [s] : [];
  });
  if (doubled.length === 0) return [...contours];
  const doomed = new Set(doubled.flatMap((s) => [...s.offs, s.to]));
  return contours.map((c) => {
    const points = c.points.filter((_, i) => !doomed.has(i));
    return points.some(isOnCurve) ? { ...c, points } : c;
  });
}

/**
 * Makes the lowest on-curve point the start, the leftmost of those; siblings start at the same point as the first. An
 * open contour keeps its start.
 */
export function withSteadyStart(contours: Siblings): Contour[] {
  const main = contours[0]!;
  if (!main.closed) return [...contours];
  const candidates = onCurve(main);
  if (candidates.length === 0) return [...contours];
  const lower = (a: Point, b: Point) => a.y - b.y || a.x - b.x;
  const start = candidates.reduce((best, i) => (lower(main.points[i]!, main.points[best]!) < 0 ? i : best));
  return start === candidates[0]
    ? [...contours]
    : contours.map((c) => ({ ...c, points: [...c.points.slice(start), ...c.points.slice(0, start)] }));
}
