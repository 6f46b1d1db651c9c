import { type Contour, isOnCurve } from '../geometry/contour';

/**
 * The same contour in every master that is tidied together, the default's first. They have the same points of the same
 * types, so that whatever is done to one keeps the masters agreeing; a contour alone is a list of one.
 */
export type Siblings = readonly Contour[];

/** Do contours have the same points of the same types? */
export const agreeing = (contours: readonly Contour[]): boolean =>
  contours.every((c) => c.closed === contours[0]!.closed && c.points.length === contours[0]!.points.length && c.points.every((p, i) => p.type === contours[0]!.points[i]!.type));

/** The neighbour `step` points on within a contour; undefined beyond the end of an open one. */
export function around(contour: Contour, index: number, step: number): number | undefined {
  const n = contour.points.length;
  const next = index + step;
  if (contour.closed) return ((next % n) + n) % n;
  return next >= 0 && next < n ? next : undefined;
}

/** On-curve points of a contour by index. */
export const onCurve = (contour: Contour): number[] => contour.points.flatMap((p, i) => (isOnCurve(p) ? [i] : []));

/** Coordinates on a grid of thousandths. */
export const tidy = (v: number): number => Math.round(v * 1000) / 1000 || 0;
