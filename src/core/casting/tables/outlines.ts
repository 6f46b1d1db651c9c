import type { Box } from '../../geometry/curve';

/** Tables of outlines, with what the others need to know of them. */
export type Outlines = {
  tables: [string, Uint8Array][];
  boxes: readonly Box[];
  indexToLocFormat: 0 | 1;
  /** Largest error of the conversion to quadratics, in units. */
  error: number;
  /** Names of glyphs whose overlaps could not be removed. */
  overlapsKept: string[];
};
