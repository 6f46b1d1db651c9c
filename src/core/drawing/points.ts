import type { Contour, Point } from '../geometry/contour';
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

/** Index of the neighbour `step` places on (±1); undefined past the end of an open contour. */
export function neighbour(contour: Contour, index: number, step: number): number | undefined {
  const n = contour.points.length;
  const next = index + step;
  if (contour.closed) return n > 1 ? (next + n) % n : undefined;
  return next >= 0 && next < n ? next : undefined;
}

/** Coordinates are kept on a grid of thousandths so that sums of steps come out even. */
export const tidy = (v: number): number => Math.round(v * 1000) / 1000;
