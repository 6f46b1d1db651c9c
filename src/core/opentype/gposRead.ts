import type { Reader } from './binary';
import type { KernInput } from './gpos';
import { type Lookup, part, readClasses, readCoverage, readLayout } from './layout';

const EXTENSION = 9;
const PAIRS = 2;
const X_ADVANCE = 4;

/** What of a GPOS table can be told as kerning pairs and groups, and what was left aside. */
export type KernRead = KernInput & { aside: string[] };

/** A pair subtable: its own pairs, or classes with a value for each two. */
type PairTable =
  | { kind: 'pairs'; pairs: Map<number, Map<number, number>> }
  | { kind: 'classes'; covered: Set<number>; firsts: Map<number, number>; seconds: Map<number, number>; values: readonly (readonly number[])[] };

const bits = (format: number): number => {
  let n = 0;
  for (let f = format; f > 0; f >>= 1) n += f & 1;
  return n;
};

/** The advance of a value record; other fields are passed over, and counted. */
function valueReader(format: number, noted: { other: number }) {
  const fields = bits(format & 0xff);
  const before = bits(format & (X_ADVANCE - 1));
  return (from: Reader): number => {
    let advance = 0;
    for (let i = 0; i < fields; i++) {
      const v = from.int16();
      if (format & X_ADVANCE && i === before) advance = v;
      else if (v !== 0) noted.other++;
    }
    return advance;
  };
}

function readPairTable(from: Reader, noted: { other: number }): PairTable | undefined {
  const format = from.uint16();
  const covered = readCoverage(part(from, from.uint16()) ?? from);
  const formats = [from.uint16(), from.uint16()] as const;
  const first = valueReader(formats[0], noted);
  const second = valueReader(formats[1], noted);
  if (format === 1) {
    const sets = Array.from({ length: from.uint16() }, () => from.uint16());
    const pairs = new Map<number, Map<number, number>>();
    sets.forEach((offset, i) => {
      const set = part(from, offset);
      const glyph = covered[i];
      if (!set || glyph === undefined) return;
      const row = new Map<number, number>();
      const count = set.uint16();
      for (let k = 0; k < count; k++) {
        const other = set.uint16();
        const value = first(set);
        noted.other += second(set) === 0 ? 0 : 1;
        if (!row.has(other)) row.set(other, value);
      }
      pairs.set(glyph, row);
    });
    return { kind: 'pairs', pairs };
  }
  if (format !== 2) return undefined;
  const firsts = readClasses(part(from, from.uint16()) ?? from);
  const seconds = readClasses(part(from, from.uint16()) ?? from);
  const [rows, columns] = [from.uint16(), from.uint16()];
  const values = Array.from({ length: rows }, () =>
    Array.from({ length: columns }, () => {
      const value = first(from);
      noted.other += second(from) === 0 ? 0 : 1;
      return value;
    }),
  );
  return { kind: 'classes', covered: new Set(covered), firsts, seconds, values };
}

/** What one lookup does to a pair: the first subtable that knows it decides. */
function valueIn(lookup: readonly PairTable[], a: number, b: number, withPairs: boolean): number {
  for (const table of lookup) {
    if (table.kind === 'pairs') {
      const value = withPairs ? table.pairs.get(a)?.get(b) : undefined;
      if (value !== undefined) return value;
    } else if (table.covered.has(a)) return table.values[table.firsts.get(a) ?? 0]?.[table.seconds.get(b) ?? 0] ?? 0;
  }
  return 0;
}

/**
 * Kerning of the `kern` feature in all scripts and languages: glyphs that every class subtable treats alike become a group,
 * values of groups are told once, and single pairs only where they differ. Values are horizontal advances of the first glyph.
 */
export function readKerning(bytes: Uint8Array, numGlyphs: number): KernRead {
  const layout = readLayout(bytes, 'GPOS', EXTENSION);
  const wanted = [...new Set(layout.features.filter((f) => f.tag === 'kern').flatMap((f) => f.lookups))].sort((a, b) => a - b);
  const noted = { other: 0 };
  const aside: string[] = [];
  const lookups = wanted.flatMap((i) => {
    const lookup = layout.lookups[i];
    if (!lookup) return [];
    if (lookup.type === PAIRS) return [lookup.subtables.flatMap((s) => readPairTable(s, noted) ?? [])];
    aside.push('contextual kerning');
    return [];
  });
  if (noted.other > 0) aside.push('kerning that also moves the second letter or moves letters up or down');
  return { ...grouped(lookups, numGlyphs), aside: [...new Set(aside)] };
}

function grouped(lookups: readonly (readonly PairTable[])[], numGlyphs: number): KernInput {
  const classed = lookups.flatMap((l) => l.filter((t) => t.kind === 'classes'));
  const alike = (signature: (glyph: number) => string): number[][] => {
    const sets = new Map<string, number[]>();
    for (let glyph = 0; glyph < numGlyphs; glyph++) {
      const key = signature(glyph);
      const set = sets.get(key);
      if (set) set.push(glyph);
      else sets.set(key, [glyph]);
    }
    return [...sets.values()];
  };
  const firstSets = classed.length === 0 ? [] : alike((g) => classed.map((t) => (t.covered.has(g) ? (t.firsts.get(g) ?? 0) : -1)).join());
  const secondSets = classed.length === 0 ? [] : alike((g) => classed.map((t) => t.seconds.get(g) ?? 0).join());
  const total = (a: number, b: number, withPairs: boolean) => lookups.reduce((sum, l) => sum + valueIn(l, a, b, withPairs), 0);
  const pairs: KernInput['pairs'][number][] = [];
  const used = { first: new Map<number, number>(), second: new Map<number, number>() };
  const number = (side: 'first' | 'second', set: number) => {
    if (!used[side].has(set)) used[side].set(set, used[side].size);
    return used[side].get(set)!;
  };
  firstSets.forEach((firsts, i) => {
    secondSets.forEach((seconds, k) => {
      const value = total(firsts[0]!, seconds[0]!, false);
      if (value !== 0) pairs.push({ first: { group: number('first', i) }, second: { group: number('second', k) }, value });
    });
  });
  const single = new Set<string>();
  for (const table of lookups.flat()) {
    if (table.kind !== 'pairs') continue;
    for (const [a, row] of table.pairs) {
      for (const b of row.keys()) {
        if (single.has(`${a} ${b}`)) continue;
        single.add(`${a} ${b}`);
        const value = total(a, b, true);
        if (value !== total(a, b, false)) pairs.push({ first: { glyph: a }, second: { glyph: b }, value });
      }
    }
  }
  const members = (side: 'first' | 'second', sets: readonly number[][]) => [...used[side].keys()].map((set) => sets[set]!);
  return { firstGroups: members('first', firstSets), secondGroups: members('second', secondSets), pairs };
}

/** A place on a glyph where marks of one kind are set; `mark` where the glyph is such a mark itself. */
export type MarkAnchor = { glyph: number; kind: string; x: number; y: number; mark: boolean; part?: number };

const ATTACHMENTS: Readonly<Record<number, string>> = { 4: 'base', 5: 'ligature', 6: 'mark' };

/** Anchors of mark positioning lookups (to bases, ligatures and marks); kinds are numbered over the whole table. */
export function readMarkAnchors(bytes: Uint8Array): MarkAnchor[] {
  const layout = readLayout(bytes, 'GPOS', EXTENSION);
  const out: MarkAnchor[] = [];
  const used = new Set(layout.features.filter((f) => f.tag === 'mark' || f.tag === 'mkmk' || f.tag === 'abvm' || f.tag === 'blwm').flatMap((f) => f.lookups));
  layout.lookups.forEach((lookup: Lookup, i) => {
    if (!used.has(i) || !(lookup.type in ATTACHMENTS)) return;
    lookup.subtables.forEach((from, s) => {
      out.push(...readAttachment(from, lookup.type, `${i}.${s}`));
    });
  });
  return out;
}

function readAttachment(from: Reader, type: number, where: string): MarkAnchor[] {
  if (from.uint16() !== 1) return [];
  const markCoverage = part(from, from.uint16());
  const baseCoverage = part(from, from.uint16());
  const classes = from.uint16();
  const markArray = part(from, from.uint16());
  const baseArray = part(from, from.uint16());
  if (!markCoverage || !baseCoverage || !markArray || !baseArray) return [];
  const kind = (c: number) => `${where}.${c}`;
  const out: MarkAnchor[] = [];
  const marks = readCoverage(markCoverage);
  const count = markArray.uint16();
  for (let i = 0; i < count; i++) {
    const markClass = markArray.seek(2 + i * 4).uint16();
    const anchor = readAnchor(part(markArray, markArray.uint16()));
    if (anchor && marks[i] !== undefined) out.push({ glyph: marks[i]!, kind: kind(markClass), ...anchor, mark: true });
  }
  const bases = readCoverage(baseCoverage);
  const rows = baseArray.uint16();
  for (let i = 0; i < rows; i++) {
    const glyph = bases[i];
    if (glyph === undefined) continue;
    if (type === 5) {
      const ligature = part(baseArray, baseArray.seek(2 + i * 2).uint16());
      const parts = ligature?.uint16() ?? 0;
      for (let p = 0; p < parts; p++) out.push(...anchorRow(ligature!, 2 + p * classes * 2, classes, glyph, kind).map((a) => ({ ...a, part: p + 1 })));
    } else out.push(...anchorRow(baseArray, 2 + i * classes * 2, classes, glyph, kind));
  }
  return out;
}

function anchorRow(from: Reader, start: number, classes: number, glyph: number, kind: (c: number) => string): MarkAnchor[] {
  return Array.from({ length: classes }, (_, c) => c).flatMap((c) => {
    const anchor = readAnchor(part(from, from.seek(start + c * 2).uint16()));
    return anchor ? [{ glyph, kind: kind(c), ...anchor, mark: false }] : [];
  });
}

function readAnchor(from: Reader | undefined): { x: number; y: number } | undefined {
  if (!from) return undefined;
  from.seek(2);
  return { x: from.int16(), y: from.int16() };
}
