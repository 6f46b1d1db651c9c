import { GPOS_EXTENSION } from '../gpos';
import { GSUB_EXTENSION } from '../gsub';

/** A table, and how many parts of it may still be looked at: parts of a damaged one may lead to each other without end. */
class Parts {
  private readonly view: DataView;
  left: number;

  constructor(bytes: Uint8Array) {
    this.view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    this.left = 1000 + 4 * bytes.length;
  }
  uint16 = (at: number): number => this.view.getUint16(at);
  uint32 = (at: number): number => this.view.getUint32(at);
}

/** How many glyphs the subtable at an offset looks at, from the one that it begins with on. */
type Length = (of: Parts, at: number) => number;

const ONE: Length = () => 1;
const PAIR: Length = () => 2;

/** The greatest of the parts whose count and offsets, from `from` on, are written at `list`; an offset of 0 is none. */
function mostOf(of: Parts, list: number, from: number, length: Length): number {
  let most = 0;
  for (let i = of.uint16(list); i > 0; i--) {
    const offset = of.uint16(list + 2 * i);
    if (offset === 0) continue;
    if (of.left-- === 0) throw new RangeError('Its parts lead to each other.');
    most = Math.max(most, length(of, from + offset));
  }
  return most;
}
const mostOfSets = (of: Parts, list: number, sub: number, rule: Length): number =>
  mostOf(of, list, sub, (_, set) => mostOf(of, set, set, rule));

const ligature: Length = (of, sub) => mostOfSets(of, sub + 4, sub, (_, one) => of.uint16(one + 2));

const context: Length = (of, sub) => {
  const format = of.uint16(sub);
  if (format === 3) return of.uint16(sub + 2);
  return mostOfSets(of, sub + (format === 2 ? 6 : 4), sub, (_, rule) => of.uint16(rule));
};

/** Lists of what is behind, at and ahead; of the second so many less are written as it has. */
function chainedRule(of: Parts, rule: number, less: number): number {
  const input = rule + 2 + 2 * of.uint16(rule);
  const count = of.uint16(input);
  return count + of.uint16(input + 2 + 2 * Math.max(0, count - less));
}
const chained: Length = (of, sub) => {
  const format = of.uint16(sub);
  if (format === 3) return chainedRule(of, sub + 2, 0);
  return mostOfSets(of, sub + (format === 2 ? 10 : 4), sub, (_, rule) => chainedRule(of, rule, 1));
};
const reversed: Length = (of, sub) => 1 + of.uint16(sub + 6 + 2 * of.uint16(sub + 4));

/** By lookup type; what only places marks or joins looks at nothing further on. */
const LENGTHS: Readonly<Record<'GSUB' | 'GPOS', Readonly<Record<number, Length>>>> = {
  GSUB: { 1: ONE, 2: ONE, 3: ONE, 4: ligature, 5: context, 6: chained, 8: reversed },
  GPOS: { 1: ONE, 2: PAIR, 7: context, 8: chained },
};

function mostIn(bytes: Uint8Array, tag: 'GSUB' | 'GPOS'): number {
  const of = new Parts(bytes);
  const extension = tag === 'GSUB' ? GSUB_EXTENSION : GPOS_EXTENSION;
  const lookups = of.uint16(8);
  if (lookups === 0) return 0;
  return mostOf(of, lookups, lookups, (_, lookup) => {
    const type = of.uint16(lookup);
    return mostOf(of, lookup + 4, lookup, (_, sub) => {
      const isFar = type === extension;
      const length = LENGTHS[tag][isFar ? of.uint16(sub + 2) : type];
      return length?.(of, isFar ? sub + of.uint32(sub + 4) : sub) ?? 0;
    });
  });
}

/**
 * The most glyphs that a rule of a font looks at, `usMaxContext` of `OS/2`: from the glyph that it begins with to the last one
 * ahead, so that a pair is two (OpenType, “OS/2”). A damaged table counts for nothing.
 */
export function maxContext(tables: { get(tag: string): Uint8Array | undefined }): number {
  return (['GSUB', 'GPOS'] as const).reduce((most, tag) => {
    const bytes = tables.get(tag);
    if (!bytes) return most;
    try {
      return Math.max(most, mostIn(bytes, tag));
    } catch (error) {
      if (error instanceof RangeError) return most;
      throw error;
    }
  }, 0);
}
