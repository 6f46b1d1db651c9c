import { type Contour, isOnCurve, neighbour, type Point } from '../geometry/contour';
import { tidy } from '../geometry/tidy';
import { onCurve } from './siblings';

/** Rounds over the contour: each point's handles are the neighbours of the next one's. */
const ROUNDS = 400;
/** A change below this, in font units, is none. */
const STILL = 1e-4;

type Joint = { index: number; before: number; after: number; outerBefore: number; outerAfter: number };

/**
 * Makes the curvature run on through smooth points between two cubics: handles keep their direction and the sum of their
 * lengths, only their share changes. With P the point, the curvature at it is 2/3 · d / h² on each side, h the handle's
 * length and d the distance of the curve's other handle from the tangent (Farin, "Curves and Surfaces for CAGD", 11.2);
 * both sides are equal when the lengths are as the roots of the distances. Points where the outline bends the other way
 * stay. `chosen` limits it to some points.
 */
export function evenedOut(contour: Contour, chosen?: ReadonlySet<number>): Contour {
  const joints = onCurve(contour).flatMap((i) => (chosen && !chosen.has(i) ? [] : (jointAt(contour, i) ?? [])));
  if (joints.length === 0) return contour;
  const points = contour.points.map((p) => ({ ...p }));
  for (let round = 0; round < ROUNDS; round++) {
    const moved = Math.max(...joints.map((j) => balance(points, j)));
    if (moved < STILL) break;
  }
  const tidied = points.map((p, i) => {
    const q = contour.points[i]!;
    return Math.hypot(p.x - q.x, p.y - q.y) < 0.01 ? q : { ...p, x: tidy(p.x), y: tidy(p.y) };
  });
  return tidied.every((p, i) => p === contour.points[i]) ? contour : { ...contour, points: tidied };
}

/** A smooth point between two cubics, with its own handles and the handles beyond them. */
function jointAt(contour: Contour, index: number): Joint | undefined {
  const p = contour.points[index]!;
  const [outerBefore, before, after, outerAfter] = [-2, -1, 1, 2].map((step) => neighbour(contour, index, step));
  if (!p.smooth || outerBefore === undefined || before === undefined || after === undefined || outerAfter === undefined)
    return undefined;
  const offs = [outerBefore, before, after, outerAfter].map((i) => contour.points[i]!);
  if (offs.some(isOnCurve) || p.type !== 'curve') return undefined;
  const end = neighbour(contour, index, 3);
  return end !== undefined && contour.points[end]!.type === 'curve'
    ? { index, before, after, outerBefore, outerAfter }
    : undefined;
}

/** Shares the handles' lengths anew; tells how far they moved. */
function balance(
  points: (Point & { x: number; y: number })[],
  { index, before, after, outerBefore, outerAfter }: Joint,
): number {
  const p = points[index]!;
  const [a, b] = [points[before]!, points[after]!];
  const [tx, ty] = [b.x - a.x, b.y - a.y];
  const whole = Math.hypot(tx, ty);
  const lengths = [Math.hypot(p.x - a.x, p.y - a.y), Math.hypot(b.x - p.x, b.y - p.y)] as const;
  const sum = lengths[0] + lengths[1];
  if (whole < 1 || sum < 1) return 0;
  const away = (q: Point) => ((q.x - p.x) * ty - (q.y - p.y) * tx) / whole;
  const [d1, d2] = [away(points[outerBefore]!), away(points[outerAfter]!)];
  if (d1 * d2 <= 0 || Math.min(Math.abs(d1), Math.abs(d2)) < 0.05) return 0;
  const [r1, r2] = [Math.sqrt(Math.abs(d1)), Math.sqrt(Math.abs(d2))];
  const first = (sum * r1) / (r1 + r2);
  const [ux, uy] = [tx / whole, ty / whole];
  Object.assign(a, { x: p.x - ux * first, y: p.y - uy * first });
  Object.assign(b, { x: p.x + ux * (sum - first), y: p.y + uy * (sum - first) });
  return Math.abs(first - lengths[0]);
}
