import { Writer } from './binary';
import { coverage } from './layout/coverage';

/** The lookup type of GSUB that only points further. */
export const GSUB_EXTENSION = 7;
export const SINGLE_SUBSTITUTION = 1;
export const CHAINED_CONTEXT = 6;

/** A subtable that gives each glyph another (OpenType, “Single Substitution”, format 2). */
export function singleSubstitution(by: ReadonlyMap<number, number>): Uint8Array {
  const sorted = [...by].sort(([a], [b]) => a - b);
  const header = 6 + sorted.length * 2;
  const out = new Writer().uint16(2).uint16(header).uint16(sorted.length);
  for (const [, to] of sorted) out.uint16(to);
  return out.raw(coverage.write(sorted.map(([from]) => from))).toBytes();
}

/**
 * A subtable that applies a lookup to the first of the glyphs of `input` where those of `lookahead` follow, each a list of the
 * glyphs that may stand there (OpenType, “Chained Sequence Context”, format 3).
 */
export function chainedContext(
  input: readonly (readonly number[])[],
  lookahead: readonly (readonly number[])[],
  lookup: number,
): Uint8Array {
  const covers = [...input, ...lookahead].map((glyphs) => coverage.write(glyphs));
  const header = 2 + 2 + 2 + input.length * 2 + 2 + lookahead.length * 2 + 2 + 4;
  let offset = header;
  const offsets = covers.map((c) => {
    const at = offset;
    offset += c.length;
    return at;
  });
  const out = new Writer().uint16(3).uint16(0).uint16(input.length);
  for (const o of offsets.slice(0, input.length)) out.uint16(o);
  out.uint16(lookahead.length);
  for (const o of offsets.slice(input.length)) out.uint16(o);
  out.uint16(1).uint16(0).uint16(lookup);
  for (const c of covers) out.raw(c);
  return out.toBytes();
}
