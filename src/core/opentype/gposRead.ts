import type { Reader } from './binary';
import { GPOS_EXTENSION, type KernInput } from './gpos';
import { classDef } from './layout/classDef';
import { part } from './layout/codec';
import { coverage } from './layout/coverage';
import { type Layout, readLayout } from './layout/lists';
import { valueRecords } from './layout/values';
import { type DeltasAt, variationAt } from './variations';

const PAIRS = 2;
const IGNORE_MARKS = 8;

/**
 * What of a GPOS table can be told as kerning pairs and groups, and what was left aside. A pair's value is that of the
 * default; `varied` has it at every place that was asked for, where it is not the same at all.
 */
export type KernRead = Omit<KernInput, 'pairs'> & {
  pairs: (KernInput['pairs'][number] & { varied?: readonly number[] })[];
  aside: string[];
  /** No mark between two letters is skipped. */
  stopsAtMarks: boolean;
};

/** A value at every place that was asked for; one number stands for the same at all. */
type Value = number | readonly number[];

/** A pair subtable: its own pairs, or classes with a value for each two. */
type PairTable =
  | { kind: 'pairs'; pairs: Map<number, Map<number, Value>> }
  | {
      kind: 'classes';
      covered: Set<number>;
      firsts: ReadonlyMap<number, number>;
      seconds: ReadonlyMap<number, number>;
      values: readonly (readonly Value[])[];
    };

/**
 * Reads the advance of value records of a format, with its differences at other places; other fields are passed over, and
 * counted. Offsets of differences count from `parent`.
 */
function valueReader(format: number, noted: { other: number }, deltas: DeltasAt | undefined) {
  const records = valueRecords(format);
  return (from: Reader, parent: Reader): Value => {
    const { xAdvance = 0, devices, ...others } = records.read(from);
    for (const v of Object.values(others)) if (v !== 0) noted.other++;
    const offset = devices?.xAdvance ?? 0;
    const differences = offset > 0 && deltas ? variationAt(parent, offset, deltas) : undefined;
    return differences ? differences.map((d) => xAdvance + d) : xAdvance;
  };
}

function readPairTable(from: Reader, noted: { other: number }, deltas: DeltasAt | undefined): PairTable | undefined {
  const format = from.uint16();
  const covered = coverage.read(part(from, from.uint16()) ?? from);
  const formats = [from.uint16(), from.uint16()] as const;
  const first = valueReader(formats[0], noted, deltas);
  const second = valueReader(formats[1], noted, undefined);
  if (format === 1) {
    const sets = Array.from({ length: from.uint16() }, () => from.uint16());
    const pairs = new Map<number, Map<number, Value>>();
    sets.forEach((offset, i) => {
      const set = part(from, offset);
      const glyph = covered[i];
      if (!set || glyph === undefined) return;
      const row = new Map<number, Value>();
      const count = set.uint16();
      for (let k = 0; k < count; k++) {
        const other = set.uint16();
        const value = first(set, set);
        noted.other += second(set, set) === 0 ? 0 : 1;
        if (!row.has(other)) row.set(other, value);
      }
      pairs.set(glyph, row);
    });
    return { kind: 'pairs', pairs };
  }
  if (format !== 2) return undefined;
  const firsts = classDef.read(part(from, from.uint16()) ?? from);
  const seconds = classDef.read(part(from, from.uint16()) ?? from);
  const [rows, columns] = [from.uint16(), from.uint16()];
  const values = Array.from({ length: rows }, () =>
    Array.from({ length: columns }, () => {
      const value = first(from, from);
      noted.other += second(from, from) === 0 ? 0 : 1;
      return value;
    }),
  );
  return { kind: 'classes', covered: new Set(covered), firsts, seconds, values };
}

type PairLookup = readonly PairTable[];

/** What one lookup does to a pair: the first subtable that knows it decides; undefined where none does. */
function valueIn(lookup: PairLookup, a: number, b: number, withPairs: boolean): Value | undefined {
  for (const table of lookup) {
    if (table.kind === 'pairs') {
      const value = withPairs ? table.pairs.get(a)?.get(b) : undefined;
      if (value !== undefined) return value;
    } else if (table.covered.has(a)) {
      const value = table.values[table.firsts.get(a) ?? 0]?.[table.seconds.get(b) ?? 0] ?? 0;
      return isNone(value) ? undefined : value;
    }
  }
  return undefined;
}

/** The lookups that kern a text, by its script and language: each choice of them once, that of Latin first and of no script last. */
function systemsOf({ scripts, features }: Layout): (readonly number[])[] {
  const lookupsOf = (of: readonly number[]) =>
    [...new Set(of.flatMap((f) => (features[f]?.tag === 'kern' ? features[f].lookups : [])))].sort((a, b) => a - b);
  const rank = (tag: string) => (tag === 'latn' ? 0 : tag === 'DFLT' ? 2 : 1);
  const found = [...scripts]
    .sort((a, b) => rank(a.tag) - rank(b.tag))
    .flatMap(({ usual, languages }) => [...(usual ? [usual] : []), ...languages.map((l) => l.system)])
    .map(({ features, required }) => lookupsOf(required === undefined ? features : [required, ...features]));
  const systems = new Map(found.filter((l) => l.length > 0).map((l) => [l.join(), l]));
  return systems.size > 0 ? [...systems.values()] : [lookupsOf(features.map((_, i) => i))];
}

/**
 * Kerning of the `kern` feature in all scripts and languages: glyphs that every class subtable treats alike become a group,
 * values of groups are told once, and single pairs only where they differ. Values are horizontal advances of the first glyph:
 * in Latin text, where that kerns the pair, else in the first script or language that does. With `deltas` the values are
 * read at other places of a variable font too.
 */
export function readKerning(
  bytes: Uint8Array,
  numGlyphs: number,
  deltas?: DeltasAt,
  /** Lookups that are told elsewhere. */
  elsewhere: ReadonlySet<number> = new Set(),
): KernRead {
  const layout = readLayout(bytes, 'GPOS', GPOS_EXTENSION);
  const noted = { other: 0 };
  let stops = 0;
  const read = new Map<number, PairLookup>();
  const systems = systemsOf(layout);
  for (const i of new Set(systems.flat())) {
    const lookup = layout.lookups[i];
    if (lookup?.type !== PAIRS || elsewhere.has(i)) continue;
    if ((lookup.flag & IGNORE_MARKS) === 0) stops++;
    read.set(
      i,
      lookup.subtables.flatMap((s) => readPairTable(s, noted, deltas) ?? []),
    );
  }
  const { otherwise, ...kerning } = grouped(
    systems.map((lookups) => lookups.flatMap((i) => (read.has(i) ? [read.get(i)!] : []))),
    numGlyphs,
  );
  return {
    ...kerning,
    stopsAtMarks: stops > 0 && stops === read.size,
    aside: [
      ...(noted.other > 0 ? ['what some pairs move beside the advance of their first letter'] : []),
      ...(otherwise > 0
        ? [
            `what ${otherwise === 1 ? 'one pair is' : `${otherwise} pairs are`} kerned by in another script or language only`,
          ]
        : []),
    ],
  };
}

const plus = (a: Value, b: Value): Value => {
  if (typeof a === 'number') return typeof b === 'number' ? a + b : b.map((v) => v + a);
  return a.map((v, i) => v + (typeof b === 'number' ? b : b[i]!));
};
const isNone = (v: Value): boolean => (typeof v === 'number' ? v === 0 : v.every((one) => one === 0));
const isSame = (a: Value, b: Value): boolean => isNone(plus(a, typeof b === 'number' ? -b : b.map((v) => -v)));
/** The default is the first place. */
const told = (v: Value): { value: number; varied?: readonly number[] } =>
  typeof v === 'number' ? { value: v } : { value: v[0]!, varied: v };

/** Groups and pairs; `otherwise` counts values that a pair has in another system than the one it is told of. */
function grouped(
  systems: readonly (readonly PairLookup[])[],
  numGlyphs: number,
): Omit<KernRead, 'aside' | 'stopsAtMarks'> & { otherwise: number } {
  const lookups = [...new Set(systems.flat())];
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
  const firstSets =
    classed.length === 0
      ? []
      : alike((g) => classed.map((t) => (t.covered.has(g) ? (t.firsts.get(g) ?? 0) : -1)).join());
  const secondSets = classed.length === 0 ? [] : alike((g) => classed.map((t) => t.seconds.get(g) ?? 0).join());
  const inSystem = (system: readonly PairLookup[], a: number, b: number, withPairs: boolean) =>
    system.reduce((sum: Value | undefined, l) => {
      const value = valueIn(l, a, b, withPairs);
      return sum === undefined || value === undefined ? (sum ?? value) : plus(sum, value);
    }, undefined);
  /** What the systems that kern a pair give it, the one that counts first. */
  const valuesOf = (a: number, b: number, withPairs: boolean): readonly Value[] =>
    systems.map((system) => inSystem(system, a, b, withPairs)).filter((v) => v !== undefined);
  const differ = ([value, ...others]: readonly Value[]): boolean => others.some((v) => !isSame(v, value!));
  const single = new Map<string, readonly [number, number]>();
  for (const table of lookups.flat())
    if (table.kind === 'pairs')
      for (const [a, row] of table.pairs) for (const b of row.keys()) single.set(`${a} ${b}`, [a, b]);
  let otherwise = 0;
  const pairs: KernRead['pairs'] = [];
  const used = { first: new Map<number, number>(), second: new Map<number, number>() };
  const number = (side: 'first' | 'second', set: number) => {
    if (!used[side].has(set)) used[side].set(set, used[side].size);
    return used[side].get(set)!;
  };
  firstSets.forEach((firsts, i) => {
    secondSets.forEach((seconds, k) => {
      const values = valuesOf(firsts[0]!, seconds[0]!, false);
      const [value = 0] = values;
      const isSeen = () => firsts.some((a) => seconds.some((b) => !single.has(`${a} ${b}`)));
      if (differ(values) && isSeen()) otherwise++;
      if (!isNone(value))
        pairs.push({ first: { group: number('first', i) }, second: { group: number('second', k) }, ...told(value) });
    });
  });
  for (const [a, b] of single.values()) {
    const values = valuesOf(a, b, true);
    const [value = 0] = values;
    if (differ(values)) otherwise++;
    if (!isSame(value, valuesOf(a, b, false)[0] ?? 0))
      pairs.push({ first: { glyph: a }, second: { glyph: b }, ...told(value) });
  }
  const members = (side: 'first' | 'second', sets: readonly number[][]) =>
    [...used[side].keys()].map((set) => sets[set]!);
  return { firstGroups: members('first', firstSets), secondGroups: members('second', secondSets), pairs, otherwise };
}
