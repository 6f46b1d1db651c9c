import { isOnCurve, type Point } from '../geometry/contour';
import type { Drawing } from '../project/model';

/** A point of a drawing by place: `contour:point`, counted from 0. */
export type PointKey = `${number}:${number}`;

export const pointKey = (contour: number, point: number): PointKey => `${contour}:${point}`;

export function keyParts(key: PointKey): [contour: number, point: number] {
  const [contour, point] = key.split(':');
  return [Number(contour), Number(point)];
}

export const pointOf = (drawing: Drawing, key: PointKey): Point | undefined => {
  const [c, p] = keyParts(key);
  return drawing.contours[c]?.points[p];
};

/** Selected point indices per contour index; keys that name nothing are left out. */
export function byContour(drawing: Drawing, keys: Iterable<PointKey>): Map<number, Set<number>> {
  const out = new Map<number, Set<number>>();
  for (const key of keys) {
    if (!pointOf(drawing, key)) continue;
    const [c, p] = keyParts(key);
    const set = out.get(c);
    if (set) set.add(p);
    else out.set(c, new Set([p]));
  }
  return out;
}

/** Keys of all points on the outline, handles left out. */
export const outlinePoints = (drawing: Drawing): PointKey[] =>
  drawing.contours.flatMap((c, i) => c.points.flatMap((p, j) => (isOnCurve(p) ? [pointKey(i, j)] : [])));
