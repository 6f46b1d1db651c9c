import { refuse } from '../base/result';
import { Reader, Writer } from './binary';

/** A named value along one axis (STAT, axis value formats 1, 2 and 3); user units. */
export type AxisValue = {
  tag: string;
  nameID: number;
  value: number;
  minimum?: number;
  maximum?: number;
  linked?: number;
  elidable: boolean;
  older: boolean;
};

const OLDER_SIBLING = 1;
const ELIDABLE = 2;

/** The style attributes table: named values of axes. Values of several axes at once (format 4) are not told. */
export function readStat(bytes: Uint8Array): AxisValue[] {
  const from = new Reader(bytes, 'STAT');
  const [axisSize, axisCount, axesAt] = [from.seek(4).uint16(), from.uint16(), from.uint32()];
  const [valueCount, valuesAt] = [from.uint16(), from.uint32()];
  if (axisCount > 0 && axisSize < 8) refuse(`The STAT table has axis records of ${axisSize} bytes.`);
  const tags = Array.from({ length: axisCount }, (_, i) => from.seek(axesAt + i * axisSize).tag());
  return Array.from({ length: valueCount }, (_, i) => from.seek(valuesAt + i * 2).uint16()).flatMap((offset) => {
    const format = from.seek(valuesAt + offset).uint16();
    if (format < 1 || format > 3) return [];
    const tag = tags[from.uint16()];
    const flags = from.uint16();
    const nameID = from.uint16();
    const value = from.fixed();
    if (tag === undefined) return [];
    const range = format === 2 ? { minimum: from.fixed(), maximum: from.fixed() } : {};
    const link = format === 3 ? { linked: from.fixed() } : {};
    return [
      {
        tag,
        nameID,
        value,
        ...range,
        ...link,
        elidable: (flags & ELIDABLE) !== 0,
        older: (flags & OLDER_SIBLING) !== 0,
      },
    ];
  });
}

/** Names of places on several axes at once (format 4), by their ids. */
export function jointNames(bytes: Uint8Array): number[] {
  const from = new Reader(bytes, 'STAT');
  const [valueCount, valuesAt] = [from.seek(12).uint16(), from.uint32()];
  return Array.from({ length: valueCount }, (_, i) => from.seek(valuesAt + i * 2).uint16()).flatMap((offset) => {
    if (from.seek(valuesAt + offset).uint16() !== 4) return [];
    from.uint16();
    from.uint16();
    return [from.uint16()];
  });
}

/** Axes of a design and names of places on them, as a `STAT` table has them; user units. */
export type Style = {
  axes: readonly { tag: string; nameID: number; ordering: number }[];
  /** One place on an axis, with a range or another style that it is linked to; or places on several axes at once. */
  values: readonly {
    nameID: number;
    flags: number;
    places: readonly { axis: number; numbers: readonly number[] }[];
  }[];
  elidedFallbackNameID: number;
};

/** Flags of named places by their names in the specification. */
export const STYLE_FLAGS = { OlderSiblingFontAttribute: OLDER_SIBLING, ElidableAxisValueName: ELIDABLE } as const;

const HEAD = 20;
const AXIS_RECORD = 8;

/** A style attributes table, version 1.1 (1.2 where places lie on several axes, format 4). */
export function writeStat({ axes, values, elidedFallbackNameID }: Style): Uint8Array {
  const tables = values.map(({ nameID, flags, places }) => {
    const out = new Writer();
    const [first] = places;
    if (places.length === 1 && first) {
      const format = first.numbers.length === 3 ? 2 : first.numbers.length === 2 ? 3 : 1;
      out.uint16(format).uint16(first.axis).uint16(flags).uint16(nameID);
      for (const n of first.numbers) out.fixed(n);
    } else {
      out.uint16(4).uint16(places.length).uint16(flags).uint16(nameID);
      for (const p of places) out.uint16(p.axis).fixed(p.numbers[0] ?? 0);
    }
    return out.toBytes();
  });
  const valuesAt = HEAD + axes.length * AXIS_RECORD;
  const out = new Writer()
    .uint16(1)
    .uint16(values.some((v) => v.places.length > 1) ? 2 : 1)
    .uint16(AXIS_RECORD)
    .uint16(axes.length)
    .uint32(HEAD)
    .uint16(values.length)
    .uint32(values.length > 0 ? valuesAt : 0)
    .uint16(elidedFallbackNameID);
  for (const a of axes) out.tag(a.tag).uint16(a.nameID).uint16(a.ordering);
  let at = values.length * 2;
  for (const t of tables) {
    out.uint16(at);
    at += t.length;
  }
  for (const t of tables) out.raw(t);
  return out.toBytes();
}
