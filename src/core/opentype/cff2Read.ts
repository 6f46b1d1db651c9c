import { refuse } from '../base/result';
import { Reader } from './binary';
import { OP } from './cff';
import { readDict, readFdSelect, readIndex } from './cffRead';
import type { CffContour } from './charstring';
import { readCharstring } from './charstringRead';
import { type ItemStore, itemScalars, readItemStore } from './variations';

/** A CFF2 table: outlines at any place on the axes, and the variation store that moves them. */
export type Cff2Font = {
  count: number;
  store: ItemStore;
  outline(glyph: number, place: readonly number[]): readonly CffContour[];
};

const VSINDEX = 22;

/** Opens a CFF2 table (OpenType, "CFF2"); charstrings are run when an outline is asked for. */
export function readCff2(bytes: Uint8Array): Cff2Font {
  const from = new Reader(bytes, 'CFF2');
  from.seek(2);
  const headerSize = from.uint8();
  const topSize = from.uint16();
  const top = readDict(from.seek(headerSize).raw(topSize));
  const global = readIndex(from.seek(headerSize + topSize), true);
  const offsetOf = (op: number) => top.get(op)?.[0] ?? refuse(`The CFF2 top dictionary lacks operator ${op}.`);
  const charstrings = readIndex(from.seek(offsetOf(OP.CharStrings)), true);
  const storeAt = top.get(OP.vstore)?.[0];
  const store = storeAt === undefined ? { regions: [], data: [] } : readItemStore(bytes.subarray(storeAt + 2), 'CFF2');
  const fonts = readIndex(from.seek(offsetOf(OP.FDArray)), true).map((d) => {
    const [size = 0, at = 0] = readDict(d).get(OP.Private) ?? [];
    const priv = privateDict(from.seek(at).raw(size));
    return {
      local: priv.subrs === undefined ? [] : readIndex(from.seek(at + priv.subrs), true),
      vsindex: priv.vsindex,
    };
  });
  const selectAt = top.get(OP.FDSelect)?.[0];
  const select = selectAt === undefined ? [] : readFdSelect(from.seek(selectAt), charstrings.length);
  return {
    count: charstrings.length,
    store,
    outline(glyph, place) {
      const font =
        fonts[select[glyph] ?? 0] ??
        refuse(`The CFF2 table gives glyph ${glyph} to a font dictionary that is not there.`);
      const blend = { vsindex: font.vsindex, scalars: (outer: number) => itemScalars(store, outer, place) };
      return readCharstring(charstrings[glyph]!, { local: font.local, global }, `glyph ${glyph}`, blend).contours;
    },
  };
}

/** Of a private dictionary only what outlines need; blended hint values are passed over. */
function privateDict(bytes: Uint8Array): { subrs: number | undefined; vsindex: number } {
  const dict = readDict(bytes);
  return { subrs: dict.get(OP.Subrs)?.at(-1), vsindex: dict.get(VSINDEX)?.[0] ?? 0 };
}
