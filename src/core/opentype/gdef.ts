import { Writer } from './binary';
import { classDef } from './layout/classDef';

/** What kinds of glyphs `GDEF` tells apart. */
export const GLYPH_CLASS = { base: 1, ligature: 2, mark: 3, component: 4 } as const;

/** A `GDEF` table (version 1.0) that tells the class of each glyph. */
export function writeGdef(classes: ReadonlyMap<number, number>): Uint8Array {
  const header = 12;
  return new Writer()
    .uint16(1)
    .uint16(0)
    .uint16(header)
    .uint16(0)
    .uint16(0)
    .uint16(0)
    .raw(classDef.write(classes))
    .toBytes();
}
