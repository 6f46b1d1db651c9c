import { type Box, emptyBox, isEmptyBox, stretchBox } from '../../geometry/curve';

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

/** The box that holds all others. */
export function boxOfAll(boxes: readonly Box[]): Box {
  const all = emptyBox();
  for (const box of boxes) {
    if (isEmptyBox(box)) continue;
    stretchBox(all, box.xMin, box.yMin);
    stretchBox(all, box.xMax, box.yMax);
  }
  return all;
}
