import type { Contour } from '../src/core/geometry/contour';

/** One letter of a master: its advance and outlines in font units. */
export type Letter = { advance: number; contours: readonly Contour[] };
