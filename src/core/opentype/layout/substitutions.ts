import { addTo } from '../../base/grouping';
import { coverage } from './coverage';
import { Packed } from './packed';

/** Subtables of GSUB but those with contexts (OpenType, “GSUB — Glyph Substitution Table”). Glyphs are indices. */

export const GSUB_TYPE = {
  single: 1,
  multiple: 2,
  alternate: 3,
  ligature: 4,
  context: 5,
  chain: 6,
  reverse: 8,
} as const;

/** Entries of one subtable, so that its offsets reach. */
const MOST_ENTRIES = 8000;

const byGlyph = <T>(map: ReadonlyMap<number, T>): (readonly [number, T])[] => [...map].sort(([a], [b]) => a - b);

/** Parts of a map in glyph order, each short enough for a subtable. */
function split<T>(map: ReadonlyMap<number, T>, cost: (value: T) => number): (readonly [number, T])[][] {
  const out: (readonly [number, T])[][] = [];
  let size = Number.POSITIVE_INFINITY;
  for (const entry of byGlyph(map)) {
    const own = cost(entry[1]) + 8;
    if (size + own > 60_000 || out[out.length - 1]!.length >= MOST_ENTRIES) {
      out.push([]);
      size = 0;
    }
    out[out.length - 1]!.push(entry);
    size += own;
  }
  return out;
}

/** Each glyph by another: by the difference where it is the same for all, else one by one. */
export function singleSubtables(by: ReadonlyMap<number, number>): Uint8Array[] {
  const sorted = byGlyph(by);
  if (sorted.length === 0) return [];
  const covered = coverage.write(sorted.map(([g]) => g));
  const delta = (sorted[0]![1] - sorted[0]![0]) & 0xffff;
  if (sorted.every(([from, to]) => ((to - from) & 0xffff) === delta))
    return [new Packed().number(1).part(covered).number(delta).toBytes()];
  return [
    new Packed()
      .number(2)
      .part(covered)
      .number(sorted.length, ...sorted.map(([, to]) => to))
      .toBytes(),
  ];
}

/** Each glyph by a row of glyphs, which may be empty. */
export const multipleSubtables = (by: ReadonlyMap<number, readonly number[]>): Uint8Array[] =>
  listed(by, (row) => new Packed().number(row.length, ...row).toBytes());

/** Each glyph by one of several. */
export const alternateSubtables = multipleSubtables;

function listed<T extends readonly unknown[]>(
  by: ReadonlyMap<number, T>,
  write: (value: T) => Uint8Array,
): Uint8Array[] {
  return split(by, (value) => 2 + value.length * 2).map((entries) =>
    new Packed()
      .number(1)
      .part(coverage.write(entries.map(([g]) => g)))
      .number(entries.length)
      .part(...entries.map(([, value]) => write(value)))
      .toBytes(),
  );
}

export type Ligature = { parts: readonly number[]; to: number };

/** Rows of glyphs by one: of those that begin alike longer ones first, as the first that fits is taken. */
export function ligatureSubtables(ligatures: readonly Ligature[]): Uint8Array[] {
  const by = new Map<number, Ligature[]>();
  for (const l of ligatures) addTo(by, l.parts[0]!, l);
  for (const [first, list] of by)
    by.set(
      first,
      [...list].sort((a, b) => b.parts.length - a.parts.length),
    );
  return split(by, (list) => list.reduce((sum, l) => sum + 6 + l.parts.length * 2, 4)).map((entries) =>
    new Packed()
      .number(1)
      .part(coverage.write(entries.map(([g]) => g)))
      .number(entries.length)
      .part(
        ...entries.map(([, list]) =>
          new Packed()
            .number(list.length)
            .part(...list.map((l) => new Packed().number(l.to, l.parts.length, ...l.parts.slice(1)).toBytes()))
            .toBytes(),
        ),
      )
      .toBytes(),
  );
}

export type Reverse = {
  back: readonly (readonly number[])[];
  by: ReadonlyMap<number, number>;
  ahead: readonly (readonly number[])[];
};

/** Glyphs by others in a context, from the end of the text to its beginning. */
export function reverseSubtable({ back, by, ahead }: Reverse): Uint8Array {
  const sorted = byGlyph(by);
  return new Packed()
    .number(1)
    .part(coverage.write(sorted.map(([g]) => g)))
    .number(back.length)
    .part(...[...back].reverse().map((set) => coverage.write(set)))
    .number(ahead.length)
    .part(...ahead.map((set) => coverage.write(set)))
    .number(sorted.length, ...sorted.map(([, to]) => to))
    .toBytes();
}
