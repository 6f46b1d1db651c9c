import { addTo } from '../../base/grouping';
import { Writer } from '../binary';
import { classDef } from './classDef';
import { coverage } from './coverage';
import { Packed } from './packed';
import { type Device, device, VALUE_FIELDS, type ValueField, valueBit } from './values';

/** Subtables of GPOS but those with contexts (OpenType, “GPOS — Glyph Positioning Table”). Glyphs are indices. */

export const GPOS_TYPE = {
  single: 1,
  pair: 2,
  cursive: 3,
  markToBase: 4,
  markToLigature: 5,
  markToMark: 6,
  context: 7,
  chain: 8,
} as const;

/** What a glyph moves by, in font units, by field; with device tables for pixel sizes. */
export type Value = Partial<Record<ValueField, number>> & { devices?: Partial<Record<ValueField, Device>> };
export type AnchorAt = { x: number; y: number; contourPoint?: number; xDevice?: Device; yDevice?: Device };

const formatOf = (values: readonly Value[]): number =>
  values.reduce(
    (format, v) =>
      VALUE_FIELDS.reduce((f, k) => f | (v[k] ? valueBit(k) : 0) | (v.devices?.[k] ? valueBit(k) << 4 : 0), format),
    0,
  );

/** A value record of a format: its numbers, and its device tables as parts of the table around it. */
function valued(table: Packed, value: Value, format: number): Packed {
  for (const k of VALUE_FIELDS) if (format & valueBit(k)) table.number(value[k] ?? 0);
  for (const k of VALUE_FIELDS)
    if (format & (valueBit(k) << 4)) table.part(value.devices?.[k] ? device.write(value.devices[k]) : undefined);
  return table;
}

const same = (a: Value, b: Value): boolean => JSON.stringify(a) === JSON.stringify(b);

/** Glyphs that move: with one value where it is the same for all, else each with its own. */
export function singlePosSubtables(by: ReadonlyMap<number, Value>): Uint8Array[] {
  const groups = new Map<string, [number, Value][]>();
  for (const [glyph, value] of [...by].sort(([a], [b]) => a - b)) {
    const key = String(formatOf([value]));
    addTo(groups, key, [glyph, value]);
  }
  return [...groups.values()].map((entries) => {
    const format = formatOf(entries.map(([, v]) => v)) || valueBit('xAdvance');
    const covered = coverage.write(entries.map(([g]) => g));
    const [, first] = entries[0]!;
    if (entries.every(([, v]) => same(v, first)))
      return valued(new Packed().number(1).part(covered).number(format), first, format).toBytes();
    const table = new Packed().number(2).part(covered).number(format, entries.length);
    for (const [, v] of entries) valued(table, v, format);
    return table.toBytes();
  });
}

export type PairValue = { first: Value; second: Value };

/** Pairs of two glyphs. */
export function glyphPairSubtables(pairs: ReadonlyMap<number, ReadonlyMap<number, PairValue>>): Uint8Array[] {
  const all = [...pairs.values()].flatMap((row) => [...row.values()]);
  if (all.length === 0) return [];
  const first =
    formatOf(all.map((p) => p.first)) || (formatOf(all.map((p) => p.second)) === 0 ? valueBit('xAdvance') : 0);
  const second = formatOf(all.map((p) => p.second));
  const out: Uint8Array[] = [];
  let [entries, size]: [[number, Uint8Array][], number] = [[], 0];
  const flush = () => {
    if (entries.length > 0)
      out.push(
        new Packed()
          .number(1)
          .part(coverage.write(entries.map(([g]) => g)))
          .number(first, second, entries.length)
          .part(...entries.map(([, set]) => set))
          .toBytes(),
      );
    [entries, size] = [[], 0];
  };
  for (const [glyph, row] of [...pairs].sort(([a], [b]) => a - b)) {
    const set = new Packed().number(row.size);
    for (const [other, value] of [...row].sort(([a], [b]) => a - b)) {
      set.number(other);
      valued(set, value.first, first);
      valued(set, value.second, second);
    }
    const bytes = set.toBytes();
    if (size + bytes.length + 8 > 60_000) flush();
    entries.push([glyph, bytes]);
    size += bytes.length + 8;
  }
  flush();
  return out;
}

/** Values of pairs of classes; classes of one side share no glyph. */
export type ClassPairs = {
  first: readonly (readonly number[])[];
  second: readonly (readonly number[])[];
  /** By the numbers of the classes: `first second`. */
  values: ReadonlyMap<string, PairValue>;
};

/** One matrix of classes: the largest first class is 0, as it is covered and in no other; class 0 of the second side is all else. */
export const classPairSubtable = (pairs: ClassPairs): Uint8Array => classPairs(pairs).toBytes();

/** The same; undefined where a part would lie farther than an offset reaches. */
export const fittedClassPairs = (pairs: ClassPairs): Uint8Array | undefined => classPairs(pairs).fitted();

function classPairs({ first, second, values }: ClassPairs): Packed {
  const all = [...values.values()];
  const format1 =
    formatOf(all.map((p) => p.first)) || (formatOf(all.map((p) => p.second)) === 0 ? valueBit('xAdvance') : 0);
  const format2 = formatOf(all.map((p) => p.second));
  const order = first.map((_, i) => i).sort((a, b) => first[b]!.length - first[a]!.length);
  const table = new Packed()
    .number(2)
    .part(coverage.write(first.flat()))
    .number(format1, format2)
    .part(
      classDef.write(new Map(order.flatMap((i, n) => (n === 0 ? [] : first[i]!.map((g) => [g, n] as const))))),
      classDef.write(new Map(second.flatMap((set, n) => set.map((g) => [g, n + 1] as const)))),
    )
    .number(first.length, second.length + 1);
  for (const i of order)
    for (let k = -1; k < second.length; k++) {
      const value = values.get(`${i} ${k}`);
      valued(table, value?.first ?? {}, format1);
      valued(table, value?.second ?? {}, format2);
    }
  return table;
}

/** An anchor in the format that it needs. */
export function writeAnchor({ x, y, contourPoint, xDevice, yDevice }: AnchorAt): Uint8Array {
  if (xDevice || yDevice)
    return new Packed()
      .number(3, x, y)
      .part(xDevice && device.write(xDevice), yDevice && device.write(yDevice))
      .toBytes();
  return contourPoint === undefined
    ? new Packed().number(1, x, y).toBytes()
    : new Packed().number(2, x, y, contourPoint).toBytes();
}

const anchored = (a: AnchorAt | undefined): Uint8Array | undefined => a && writeAnchor(a);

/** Glyphs that join: where each is entered and left. */
export function cursiveSubtable(by: ReadonlyMap<number, { entry?: AnchorAt; exit?: AnchorAt }>): Uint8Array {
  const sorted = [...by].sort(([a], [b]) => a - b);
  return new Packed()
    .number(1)
    .part(coverage.write(sorted.map(([g]) => g)))
    .number(sorted.length)
    .part(...sorted.flatMap(([, { entry, exit }]) => [anchored(entry), anchored(exit)]))
    .toBytes();
}

export type Marks = ReadonlyMap<number, { markClass: number; anchor: AnchorAt }>;
/** Anchors of a glyph by the class of marks that sits there. */
export type Seats = readonly (AnchorAt | undefined)[];

/** Marks on bases or on marks, of several classes. */
export const attachSubtable = (marks: Marks, classes: number, onto: ReadonlyMap<number, Seats>): Uint8Array =>
  attached(marks, classes, [...onto.keys()], (sorted) =>
    new Packed()
      .number(sorted.length)
      .part(...sorted.flatMap((g) => Array.from({ length: classes }, (_, c) => anchored(onto.get(g)![c]))))
      .toBytes(),
  );

/** Marks on the parts of ligatures. */
export const attachPartsSubtable = (
  marks: Marks,
  classes: number,
  onto: ReadonlyMap<number, readonly Seats[]>,
): Uint8Array =>
  attached(marks, classes, [...onto.keys()], (sorted) =>
    new Packed()
      .number(sorted.length)
      .part(
        ...sorted.map((g) => {
          const parts = onto.get(g)!;
          return new Packed()
            .number(parts.length)
            .part(...parts.flatMap((seats) => Array.from({ length: classes }, (_, c) => anchored(seats[c]))))
            .toBytes();
        }),
      )
      .toBytes(),
  );

function attached(
  marks: Marks,
  classes: number,
  onto: readonly number[],
  array: (sorted: readonly number[]) => Uint8Array,
): Uint8Array {
  const sortedMarks = [...marks].sort(([a], [b]) => a - b);
  const sorted = [...onto].sort((a, b) => a - b);
  const markArray = new Packed().number(sortedMarks.length);
  for (const [, { markClass, anchor }] of sortedMarks) markArray.number(markClass).part(writeAnchor(anchor));
  return new Packed()
    .number(1)
    .part(coverage.write(sortedMarks.map(([g]) => g)), coverage.write(sorted))
    .number(classes)
    .part(markArray.toBytes(), array(sorted))
    .toBytes();
}

/** A row of 16-bit numbers. */
export const words = (values: readonly number[]): Uint8Array => {
  const out = new Writer();
  for (const v of values) out.uint16(v & 0xffff);
  return out.toBytes();
};
