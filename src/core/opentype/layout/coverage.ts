import { refuse } from '../../base/result';
import { Writer } from '../binary';
import { type Codec, rangesOf } from './codec';

/** Coverage (OpenType, "Coverage Table"): glyphs in coverage order, rising. Written in the shorter of its two formats. */
export const coverage: Codec<readonly number[]> = {
  read(from) {
    const format = from.uint16();
    const count = from.uint16();
    if (format === 1) return Array.from({ length: count }, () => from.uint16());
    if (format !== 2) return refuse(`The ${from.name} table has a coverage of the unknown format ${format}.`);
    const out: number[] = [];
    for (let i = 0; i < count; i++) {
      const [start, end] = [from.uint16(), from.uint16()];
      from.uint16();
      if (end < start || out.length > 65535)
        refuse(`The ${from.name} table has a damaged coverage range (${start} to ${end}).`);
      for (let glyph = start; glyph <= end; glyph++) out.push(glyph);
    }
    return out;
  },

  write(glyphs) {
    const sorted = [...glyphs].sort((a, b) => a - b);
    const ranges = rangesOf(sorted.map((g) => [g, 0]));
    const out = new Writer(4 + Math.min(sorted.length * 2, ranges.length * 6));
    if (ranges.length * 6 >= sorted.length * 2) {
      out.uint16(1).uint16(sorted.length);
      for (const g of sorted) out.uint16(g);
      return out.toBytes();
    }
    out.uint16(2).uint16(ranges.length);
    let index = 0;
    for (const r of ranges) {
      out.uint16(r.start).uint16(r.end).uint16(index);
      index += r.end - r.start + 1;
    }
    return out.toBytes();
  },
};
