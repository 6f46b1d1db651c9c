import { refuse } from '../../base/result';
import { Writer } from '../binary';
import { type Codec, rangesOf } from './codec';

/**
 * Classes of glyphs (OpenType, "Class Definition Table"): the class of every glyph that is in one; all others are in class 0.
 * Written in the shorter of its two formats.
 */
export const classDef: Codec<ReadonlyMap<number, number>> = {
  read(from) {
    const format = from.uint16();
    const out = new Map<number, number>();
    if (format === 1) {
      const first = from.uint16();
      const count = from.uint16();
      for (let i = 0; i < count; i++) out.set(first + i, from.uint16());
    } else if (format === 2) {
      const count = from.uint16();
      for (let i = 0; i < count; i++) {
        const [start, end, value] = [from.uint16(), from.uint16(), from.uint16()];
        if (end < start) refuse(`The ${from.name} table has a damaged class range (${start} to ${end}).`);
        for (let glyph = start; glyph <= end; glyph++) out.set(glyph, value);
      }
    } else refuse(`The ${from.name} table has classes of the unknown format ${format}.`);
    return out;
  },

  write(classes) {
    const sorted = [...classes].filter(([, c]) => c !== 0).sort((a, b) => a[0] - b[0]);
    const ranges = rangesOf(sorted);
    const [first, last] = [sorted[0]?.[0] ?? 0, sorted[sorted.length - 1]?.[0] ?? -1];
    const span = last - first + 1;
    const out = new Writer();
    if (6 + span * 2 < 4 + ranges.length * 6) {
      out.uint16(1).uint16(first).uint16(span);
      for (let glyph = first; glyph <= last; glyph++) out.uint16(classes.get(glyph) ?? 0);
      return out.toBytes();
    }
    out.uint16(2).uint16(ranges.length);
    for (const r of ranges) out.uint16(r.start).uint16(r.end).uint16(r.value);
    return out.toBytes();
  },
};
