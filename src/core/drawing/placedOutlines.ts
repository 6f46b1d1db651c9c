import type { Affine } from '../geometry/affine';
import {
  type Contour,
  isOnCurve,
  neighbour,
  type Point,
  reverseContour,
  signedArea,
  transformContour,
} from '../geometry/contour';
import { tidy } from '../geometry/tidy';

/**
 * Traced outlines (pixels, y up from the lower edge) carried to font units by the transform of their picture (pixels, y down
 * from the upper edge). On-curve points land on the grid and take their handles along; level and upright handles end on it.
 */
export function placedOutlines(
  contours: readonly Contour[],
  pictureHeight: number,
  transform: Affine,
  grid: number,
): Contour[] {
  const [xx, xy, yx, yy, dx, dy] = transform;
  const up: Affine = [xx, xy, -yx, -yy, dx + yx * pictureHeight, dy + yy * pictureHeight];
  return contours.map((c) => {
    const moved = transformContour(c, up);
    return onGridWithHandles(
      Math.sign(signedArea(moved)) === Math.sign(signedArea(c)) ? moved : reverseContour(moved),
      grid,
    );
  });
}

function onGridWithHandles(contour: Contour, grid: number): Contour {
  if (grid <= 0) return contour;
  const round = (v: number) => tidy(Math.round(v / grid) * grid);
  const { points } = contour;
  return {
    ...contour,
    points: points.map((p, i): Point => {
      if (isOnCurve(p)) return { ...p, x: round(p.x), y: round(p.y) };
      const owner = [neighbour(contour, i, -1), neighbour(contour, i, 1)]
        .map((k) => (k === undefined ? undefined : points[k]!))
        .find((q) => q && isOnCurve(q));
      if (!owner) return { ...p, x: tidy(p.x), y: tidy(p.y) };
      const [dx, dy] = [round(owner.x) - owner.x, round(owner.y) - owner.y];
      if (Math.abs(p.y - owner.y) < 1e-6) return { ...p, x: round(p.x), y: round(owner.y) };
      if (Math.abs(p.x - owner.x) < 1e-6) return { ...p, x: round(owner.x), y: round(p.y) };
      // A slanting handle keeps its direction.
      return { ...p, x: tidy(p.x + dx), y: tidy(p.y + dy) };
    }),
  };
}
