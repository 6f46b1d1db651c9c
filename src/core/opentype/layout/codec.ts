import { refuse } from '../../base/result';
import { Reader } from '../binary';

/** One description of a piece of a table, from which it is both read and written. */
export type Codec<T> = {
  read(from: Reader): T;
  write(value: T): Uint8Array;
};

/** A reader of what lies at an offset of another. */
export function at(from: Reader, offset: number): Reader {
  if (offset > from.bytes.length)
    refuse(`The ${from.name} table places a part at byte ${offset} of ${from.bytes.length}.`, { table: from.name });
  return new Reader(from.bytes.subarray(offset), from.name);
}

/** A part of a subtable at an offset written in it; nothing where the offset is 0. */
export const part = (from: Reader, offset: number): Reader | undefined => (offset === 0 ? undefined : at(from, offset));

/** Numbers that rise one by one and share a value, as one range. */
export function rangesOf(
  sorted: readonly (readonly [glyph: number, value: number])[],
): { start: number; end: number; value: number }[] {
  const ranges: { start: number; end: number; value: number }[] = [];
  for (const [glyph, value] of sorted) {
    const last = ranges[ranges.length - 1];
    if (last && last.end === glyph - 1 && last.value === value) last.end = glyph;
    else ranges.push({ start: glyph, end: glyph, value });
  }
  return ranges;
}
