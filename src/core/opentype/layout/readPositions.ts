import { addTo } from '../../base/grouping';
import { refuse } from '../../base/result';
import type { Reader } from '../binary';
import { classDef } from './classDef';
import { part } from './codec';
import type { Context } from './contexts';
import { coverage } from './coverage';
import { GPOS_TYPE, type PairValue, type Value } from './positions';
import { readContexts } from './readRules';
import { type ValueRecord, valueRecords } from './values';

/** A place of an anchor; what varies by pixel size is left out. */
export type AnchorPlace = { x: number; y: number };

/** Marks of one subtable: their class and anchor; and what they sit on, with an anchor for each class. */
export type Attached = {
  marks: Map<number, { markClass: number; anchor: AnchorPlace }>;
  classes: number;
};

/** Subtables of GPOS as rules. Numbers of device tables are left out. */
export type ReadPositions =
  | { kind: 'move'; by: Map<number, Value> }
  | { kind: 'glyphPairs'; pairs: { first: number; second: number; value: PairValue }[] }
  | { kind: 'classPairs'; pairs: { first: readonly number[]; second: readonly number[]; value: PairValue }[] }
  | { kind: 'cursive'; by: Map<number, { entry?: AnchorPlace; exit?: AnchorPlace }> }
  | (Attached & { kind: 'attach'; onto: 'base' | 'mark'; seats: Map<number, (AnchorPlace | undefined)[]> })
  | (Attached & { kind: 'attachParts'; parts: Map<number, (AnchorPlace | undefined)[][]> })
  | { kind: 'context'; contexts: Context[] };

const covered = (from: Reader, offset: number): number[] => {
  const at = part(from, offset);
  return at ? [...coverage.read(at)] : [];
};
const plain = ({ devices: _, ...value }: ValueRecord): Value =>
  Object.fromEntries(Object.entries(value).filter(([, v]) => v !== 0));
export const isNothing = (v: PairValue): boolean => Object.keys(v.first).length + Object.keys(v.second).length === 0;

/** Reads one subtable of a lookup of some type, in a font of so many glyphs; refuses (throws) a type that there is not. */
export function readPosition(type: number, from: Reader, glyphs: number): ReadPositions {
  const format = from.uint16();
  switch (type) {
    case GPOS_TYPE.single: {
      const all = covered(from, from.uint16());
      const values = valueRecords(from.uint16());
      if (format === 1) {
        const value = plain(values.read(from));
        return { kind: 'move', by: new Map(all.map((g) => [g, value])) };
      }
      const count = from.uint16();
      return { kind: 'move', by: new Map(all.slice(0, count).map((g) => [g, plain(values.read(from))])) };
    }
    case GPOS_TYPE.pair:
      return format === 1 ? readGlyphPairs(from) : readClassPairs(from, glyphs);
    case GPOS_TYPE.cursive: {
      const all = covered(from, from.uint16());
      const count = from.uint16();
      const offsets = Array.from({ length: count }, () => [from.uint16(), from.uint16()] as const);
      const by = new Map(
        all.slice(0, count).map((g, i) => {
          const [entry, exit] = offsets[i]!.map((o) => anchor(part(from, o)));
          return [g, { ...(entry && { entry }), ...(exit && { exit }) }] as const;
        }),
      );
      return { kind: 'cursive', by };
    }
    case GPOS_TYPE.context:
    case GPOS_TYPE.chain:
      return { kind: 'context', contexts: readContexts(from, format, type === GPOS_TYPE.chain, glyphs) };
    case GPOS_TYPE.markToBase:
    case GPOS_TYPE.markToLigature:
    case GPOS_TYPE.markToMark:
      return readAttached(type, from);
    default:
      return refuse(`The ${from.name} table has a lookup of the unknown type ${type}.`);
  }
}

function anchor(from: Reader | undefined): AnchorPlace | undefined {
  if (!from) return undefined;
  from.uint16();
  return { x: from.int16(), y: from.int16() };
}

/** Marks and what they sit on (OpenType, “Mark-to-Base Attachment Positioning” and those like it). */
function readAttached(type: number, from: Reader): ReadPositions {
  const marked = covered(from, from.uint16());
  const onto = covered(from, from.uint16());
  const classes = from.uint16();
  const [markArray, ontoArray] = [part(from, from.uint16()), part(from, from.uint16())];
  const marks: Attached['marks'] = new Map();
  const count = markArray?.uint16() ?? 0;
  for (const g of marked.slice(0, count)) {
    const [markClass, offset] = [markArray!.uint16(), markArray!.uint16()];
    const place = anchor(part(markArray!, offset));
    if (place && markClass < classes) marks.set(g, { markClass, anchor: place });
  }
  const rows = onto.slice(0, ontoArray?.uint16() ?? 0);
  if (type !== GPOS_TYPE.markToLigature) {
    const seats = new Map<number, (AnchorPlace | undefined)[]>();
    const offsets = rows.map(() => Array.from({ length: classes }, () => ontoArray!.uint16()));
    rows.forEach((g, i) => {
      seats.set(
        g,
        offsets[i]!.map((o) => anchor(part(ontoArray!, o))),
      );
    });
    return { kind: 'attach', onto: type === GPOS_TYPE.markToMark ? 'mark' : 'base', marks, classes, seats };
  }
  const offsets = rows.map(() => ontoArray!.uint16());
  const parts = new Map<number, (AnchorPlace | undefined)[][]>();
  rows.forEach((g, i) => {
    const ligature = part(ontoArray!, offsets[i]!);
    if (!ligature) return;
    const letters = ligature.uint16();
    const anchors = Array.from({ length: letters }, () => Array.from({ length: classes }, () => ligature.uint16()));
    parts.set(
      g,
      anchors.map((list) => list.map((o) => anchor(part(ligature, o)))),
    );
  });
  return { kind: 'attachParts', marks, classes, parts };
}

function readGlyphPairs(from: Reader): ReadPositions {
  const firsts = covered(from, from.uint16());
  const [a, b] = [valueRecords(from.uint16()), valueRecords(from.uint16())];
  const offsets = Array.from({ length: from.uint16() }, () => from.uint16());
  const pairs = offsets.flatMap((offset, i) => {
    const set = part(from, offset);
    const first = firsts[i];
    if (!set || first === undefined) return [];
    return Array.from({ length: set.uint16() }, () => {
      const second = set.uint16();
      return { first, second, value: { first: plain(a.read(set)), second: plain(b.read(set)) } };
    });
  });
  return { kind: 'glyphPairs', pairs };
}

/** Pairs of classes; of those that move nothing one for each first class, which says that it is spoken of. */
function readClassPairs(from: Reader, glyphs: number): ReadPositions {
  const firsts = covered(from, from.uint16());
  const [a, b] = [valueRecords(from.uint16()), valueRecords(from.uint16())];
  const [one, two] = [from.uint16(), from.uint16()].map((o) => {
    const at = part(from, o);
    return at ? classDef.read(at) : new Map<number, number>();
  }) as [ReadonlyMap<number, number>, ReadonlyMap<number, number>];
  const [rows, columns] = [from.uint16(), from.uint16()];
  const seconds = new Map<number, number[]>();
  for (let g = 0; g < glyphs; g++) {
    const c = two.get(g) ?? 0;
    addTo(seconds, c, g);
  }
  const pairs: Extract<ReadPositions, { kind: 'classPairs' }>['pairs'] = [];
  for (let r = 0; r < rows; r++) {
    const first = firsts.filter((g) => (one.get(g) ?? 0) === r);
    const row = Array.from({ length: columns }, (_, c) => ({
      first,
      second: seconds.get(c) ?? [],
      value: { first: plain(a.read(from)), second: plain(b.read(from)) },
    })).filter((p) => p.second.length > 0);
    if (first.length === 0) continue;
    const moving = row.filter((p) => !isNothing(p.value));
    pairs.push(...(moving.length > 0 ? moving : row.slice(0, 1)));
  }
  return { kind: 'classPairs', pairs };
}
