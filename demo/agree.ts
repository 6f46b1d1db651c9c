import { type Contour, type Point, reverseContour } from '../src/core/geometry/contour';
import { directedByNesting } from '../src/core/geometry/winding';
import type { Letter } from './letter';

/**
 * One letter of all masters, brought to agree: directions by nesting, starts at the lowest left point and smoothness are
 * found on the first (the default's) and done alike in the others, so that no master can choose differently.
 */
export function agreeing(letters: readonly Letter[]): Letter[] {
  const drawn = letters[0]!.contours;
  const directions = directedByNesting(drawn);
  return letters.map((letter) => ({
    ...letter,
    contours: letter.contours.map((c, i) => {
      if (drawn[i]!.points.length !== c.points.length)
        throw new Error(`contour ${i} has ${c.points.length} points, not ${drawn[i]!.points.length}`);
      const smoothed: Contour = { ...c, points: c.points.map((p, k) => like(p, drawn[i]!.points[k]!)) };
      const { points } = directions[i] === drawn[i] ? smoothed : reverseContour(smoothed);
      const start = lowest(directions[i]!);
      return { closed: true, points: [...points.slice(start), ...points.slice(0, start)] };
    }),
  }));
}

const like = ({ smooth: _, ...p }: Point, drawn: Point): Point => (drawn.smooth ? { ...p, smooth: true } : p);

/** Which on-curve point is lowest, and of those leftmost. */
function lowest(contour: Contour): number {
  let best = -1;
  contour.points.forEach((p, i) => {
    if (p.type === 'off') return;
    const b = contour.points[best];
    if (!b || p.y < b.y || (p.y === b.y && p.x < b.x)) best = i;
  });
  return best;
}
