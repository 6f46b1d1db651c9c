import { type Contour, isOnCurve, sameBuild } from '../geometry/contour';

/**
 * The same contour in every master that is tidied together, the default's first. They have the same points of the same
 * types, so that whatever is done to one keeps the masters agreeing; a contour alone is a list of one.
 */
export type Siblings = readonly Contour[];

/** Can all these contours be blended with the first? */
export const agreeing = (contours: readonly Contour[]): boolean => contours.every((c) => sameBuild(c, contours[0]!));

/** On-curve points of a contour by index. */
export const onCurve = (contour: Contour): number[] => contour.points.flatMap((p, i) => (isOnCurve(p) ? [i] : []));
