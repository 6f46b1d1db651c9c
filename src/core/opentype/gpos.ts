import { refuse } from '../base/result';
import { Writer } from './binary';
import { classDef } from './layout/classDef';
import { coverage } from './layout/coverage';
import { type Lookup, uniformLayout, writeLayout } from './layout/lists';
import { fittedClassPairs, type PairValue } from './layout/positions';
import { type Device, device, valueBit, valueRecords } from './layout/values';

/** One side of a kerning pair as the table needs it: a glyph, or the number of a group on that side. */
export type KernSide = { glyph: number } | { group: number };
/** A value in font units; with what it varies by, in variable fonts. */
export type KernValue = number | { units: number; device: Device };
export type KernPair<V extends KernValue = number> = { first: KernSide; second: KernSide; value: V };
export type KernInput<V extends KernValue = number> = {
  /** Members of each first-side group, by group number. */
  firstGroups: readonly (readonly number[])[];
  secondGroups: readonly (readonly number[])[];
  pairs: readonly KernPair<V>[];
};

/** first -> second -> value. */
type Rows = Map<number, Map<number, KernValue>>;

const PAIR_ADJUSTMENT = 2;
/** Lookup flag (OpenType, “lookupFlag”). */
const IGNORE_MARKS = 8;
/** The lookup type of GPOS that only points further. */
export const GPOS_EXTENSION = 9;
const X_ADVANCE = valueBit('xAdvance');
const advances = valueRecords(X_ADVANCE);

/**
 * The lookups of kerning: glyph pairs first, then one of classes, so that the order glyph–glyph, glyph–group, group–glyph,
 * group–group holds. Exceptions (glyph with group, group with glyph) are spelled out as glyph pairs. None where nothing is kerned.
 * Marks between two letters are skipped, where there are any; pairs with a mark have a lookup of their own.
 */
export function kernLookups(input: KernInput<KernValue>, marks: ReadonlySet<number> = new Set()): Lookup<Uint8Array>[] {
  if (marks.size === 0) return pairLookups(input, 0);
  const isMark = (g: number) => marks.has(g);
  const isOf = (side: KernSide) => 'glyph' in side && isMark(side.glyph);
  const letters: KernInput<KernValue> = {
    firstGroups: input.firstGroups.map((g) => g.filter((m) => !isMark(m))),
    secondGroups: input.secondGroups.map((g) => g.filter((m) => !isMark(m))),
    pairs: input.pairs.filter((p) => !isOf(p.first) && !isOf(p.second)),
  };
  return [...pairLookups(letters, IGNORE_MARKS), ...pairLookups(pairsWith(input, isMark), 0)];
}

/** All pairs of which a mark is one side or both, glyph by glyph. */
function pairsWith(input: KernInput<KernValue>, isMark: (glyph: number) => boolean): KernInput<KernValue> {
  const hasMark = input.firstGroups.map((g) => g.some(isMark));
  const hasMarkSecond = input.secondGroups.map((g) => g.some(isMark));
  const concerns = (side: KernSide, of: readonly boolean[]) =>
    'glyph' in side ? isMark(side.glyph) : (of[side.group] ?? false);
  const pairs = input.pairs.filter((p) => concerns(p.first, hasMark) || concerns(p.second, hasMarkSecond));
  const rows = explicitPairs({ ...input, pairs }, true);
  const own = [...rows].flatMap(([a, row]) =>
    [...row].flatMap(([b, value]): KernPair<KernValue>[] =>
      isMark(a) || isMark(b) ? [{ first: { glyph: a }, second: { glyph: b }, value }] : [],
    ),
  );
  return { firstGroups: [], secondGroups: [], pairs: own };
}

function pairLookups(input: KernInput<KernValue>, flag: number): Lookup<Uint8Array>[] {
  const specific = explicitPairs(input);
  const classes = classMatrix(input);
  const subtables: Uint8Array[] = [];
  if (input.pairs.some((p) => typeof p.value !== 'number')) {
    for (const part of splitBySize(specific, VARYING_PAIR)) subtables.push(writeVaryingPairs(part));
    subtables.push(...varyingClasses(input, classes ?? new Map()));
    return [{ type: PAIR_ADJUSTMENT, flag, subtables }];
  }
  for (const part of splitBySize(specific)) subtables.push(writePairFormat1(part));
  for (const part of classes ? splitRows(input, classes) : []) subtables.push(writePairFormat2(input, part));
  return subtables.length === 0 ? [] : [{ type: PAIR_ADJUSTMENT, flag, subtables }];
}

const placed = (value: KernValue): PairValue => ({
  first:
    typeof value === 'number' ? { xAdvance: value } : { xAdvance: value.units, devices: { xAdvance: value.device } },
  second: {},
});

/** Matrices of classes whose values vary; halved until every part lies within reach of an offset. */
function varyingClasses(input: KernInput<KernValue>, matrix: Rows): Uint8Array[] {
  if (matrix.size === 0) return [];
  const firsts = [...matrix.keys()].sort((a, b) => a - b);
  const seconds = [...new Set([...matrix.values()].flatMap((row) => [...row.keys()]))].sort((a, b) => a - b);
  const values = new Map<string, PairValue>();
  firsts.forEach((f, i) => {
    seconds.forEach((s, k) => {
      const value = matrix.get(f)!.get(s);
      if (value !== undefined) values.set(`${i} ${k}`, placed(value));
    });
  });
  const subtable = fittedClassPairs({
    first: firsts.map((n) => input.firstGroups[n] ?? []),
    second: seconds.map((n) => input.secondGroups[n] ?? []),
    values,
  });
  if (subtable) return [subtable];
  if (firsts.length < 2) refuse('The kerning of one group is more than a font can hold.');
  const half = firsts.length >> 1;
  const part = (from: number, to: number) => new Map(firsts.slice(from, to).map((f) => [f, matrix.get(f)!]));
  return [...varyingClasses(input, part(0, half)), ...varyingClasses(input, part(half, firsts.length))];
}

/** A GPOS table of features, each with its lookups, for the scripts given (`DFLT` added); undefined without any. */
export function writeGpos(
  features: readonly { tag: string; lookups: readonly Lookup<Uint8Array>[] }[],
  scripts: readonly string[],
): Uint8Array | undefined {
  const wanted = features.filter((f) => f.lookups.length > 0);
  return wanted.length === 0 ? undefined : writeLayout(uniformLayout(scripts, wanted), GPOS_EXTENSION);
}

const plain = (value: KernValue): number => (typeof value === 'number' ? value : value.units);

/** first glyph -> second glyph -> value, for every pair that names a glyph on some side, or for all. */
function explicitPairs(input: KernInput<KernValue>, all = false): Rows {
  const ranked = input.pairs
    .map((pair) => ({
      pair,
      rank: 'glyph' in pair.first ? ('glyph' in pair.second ? 0 : 1) : 'glyph' in pair.second ? 2 : 3,
    }))
    .filter(({ rank }) => all || rank < 3)
    .sort((a, b) => b.rank - a.rank);
  const out = new Map();
  for (const { pair } of ranked) {
    const firsts = 'glyph' in pair.first ? [pair.first.glyph] : (input.firstGroups[pair.first.group] ?? []);
    const seconds = 'glyph' in pair.second ? [pair.second.glyph] : (input.secondGroups[pair.second.group] ?? []);
    for (const a of firsts) {
      const row = out.get(a) ?? new Map<number, KernValue>();
      out.set(a, row);
      for (const b of seconds) row.set(b, pair.value);
    }
  }
  return out;
}

function classMatrix(input: KernInput<KernValue>): Rows | undefined {
  const matrix = new Map();
  for (const { first, second, value } of input.pairs) {
    if (!('group' in first) || !('group' in second)) continue;
    if ((input.firstGroups[first.group]?.length ?? 0) === 0) continue;
    const row = matrix.get(first.group) ?? new Map<number, KernValue>();
    matrix.set(first.group, row);
    row.set(second.group, value);
  }
  return matrix.size > 0 ? matrix : undefined;
}

/** The same for rows of classes: coverage and class definitions lie behind the matrix and must be reached. */
function splitRows(input: KernInput<KernValue>, matrix: Rows): Rows[] {
  const columns = new Set([...matrix.values()].flatMap((row) => [...row.keys()]));
  const definitions = [...columns].reduce((sum, n) => sum + (input.secondGroups[n]?.length ?? 0) * 6, 4);
  const parts: Rows[] = [];
  let size = Number.POSITIVE_INFINITY;
  for (const [first, row] of [...matrix].sort(([a], [b]) => a - b)) {
    const cost = (columns.size + 1) * 2 + (input.firstGroups[first]?.length ?? 0) * 12;
    if (size + cost > 60000) {
      parts.push(new Map());
      size = Math.min(definitions, 30000);
    }
    size += cost;
    parts[parts.length - 1]!.set(first, row);
  }
  return parts;
}

/** Offsets within a subtable are 16 bits wide; larger sets of pairs are spread over several subtables. */
function splitBySize(pairs: Rows, bytes = 4): Rows[] {
  const parts: Rows[] = [];
  let size = 0;
  for (const first of [...pairs.keys()].sort((a, b) => a - b)) {
    const row = pairs.get(first)!;
    const cost = 6 + row.size * bytes;
    if (parts.length === 0 || size + cost > 60000) {
      parts.push(new Map());
      size = 0;
    }
    size += cost;
    parts[parts.length - 1]!.set(first, row);
  }
  return parts;
}

function writePairFormat1(pairs: Rows): Uint8Array {
  const firsts = [...pairs.keys()].sort((a, b) => a - b);
  const sets = firsts.map((first) => {
    const row = pairs.get(first)!;
    const out = new Writer().uint16(row.size);
    for (const second of [...row.keys()].sort((a, b) => a - b)) {
      out.uint16(second);
      advances.write(out, { xAdvance: plain(row.get(second)!) });
    }
    return out.toBytes();
  });
  const header = 10 + firsts.length * 2;
  const covered = coverage.write(firsts);
  const out = new Writer().uint16(1).uint16(header).uint16(X_ADVANCE).uint16(0).uint16(firsts.length);
  let offset = header + covered.length;
  // Letters with the same pairs, as those with accents have, share them.
  const places = new Map<string, number>();
  const behind: Uint8Array[] = [];
  for (const set of sets) {
    const key = String.fromCharCode(...set);
    const known = places.get(key);
    out.uint16(known ?? offset);
    if (known !== undefined) continue;
    places.set(key, offset);
    behind.push(set);
    offset += set.length;
  }
  out.raw(covered);
  for (const set of behind) out.raw(set);
  return out.toBytes();
}

/** Bytes of a pair that varies, with the most that its device table can cost. */
const VARYING_PAIR = 12;

/** Pairs of glyphs whose values vary: equal sets are written once, and device tables stand behind all sets, each once. */
function writeVaryingPairs(pairs: Rows): Uint8Array {
  const firsts = [...pairs.keys()].sort((a, b) => a - b);
  const sets = firsts.map((first) => [...pairs.get(first)!].sort(([a], [b]) => a - b));
  const deviceKey = (v: KernValue) => (typeof v === 'number' ? '' : JSON.stringify(v.device));
  const keys = sets.map((set) => set.map(([g, v]) => `${g} ${plain(v)} ${deviceKey(v)}`).join('|'));
  const covered = coverage.write(firsts);
  const places = new Map<string, number>();
  let at = 10 + firsts.length * 2 + covered.length;
  keys.forEach((key, i) => {
    if (places.has(key)) return;
    places.set(key, at);
    at += 2 + sets[i]!.length * 6;
  });
  const devices = new Map<string, { at: number; bytes: Uint8Array }>();
  for (const set of sets)
    for (const [, v] of set) {
      if (typeof v === 'number' || devices.has(deviceKey(v))) continue;
      const bytes = device.write(v.device);
      devices.set(deviceKey(v), { at, bytes });
      at += bytes.length;
    }
  const out = new Writer().uint16(1).uint16(10 + firsts.length * 2);
  out
    .uint16(X_ADVANCE | (X_ADVANCE << 4))
    .uint16(0)
    .uint16(firsts.length);
  for (const key of keys) out.uint16(places.get(key)!);
  out.raw(covered);
  const written = new Set<string>();
  sets.forEach((set, i) => {
    if (written.has(keys[i]!)) return;
    written.add(keys[i]!);
    out.uint16(set.length);
    for (const [second, v] of set)
      out
        .uint16(second)
        .int16(plain(v))
        .uint16(typeof v === 'number' ? 0 : devices.get(deviceKey(v))!.at - places.get(keys[i]!)!);
  });
  for (const { bytes } of devices.values()) out.raw(bytes);
  return out.toBytes();
}

function writePairFormat2(input: KernInput<KernValue>, matrix: Rows): Uint8Array {
  const firstNumbers = [...matrix.keys()].sort((a, b) => a - b);
  const secondNumbers = [...new Set([...matrix.values()].flatMap((row) => [...row.keys()]))].sort((a, b) => a - b);
  const firstMembers = firstNumbers.map((n) => input.firstGroups[n] ?? []);
  const covered = coverage.write(firstMembers.flat());
  // The first group is class 0: every covered glyph that no other class claims.
  const classDef1 = classDef.write(
    new Map(firstMembers.flatMap((members, i) => (i === 0 ? [] : members.map((g) => [g, i] as const)))),
  );
  const classDef2 = classDef.write(
    new Map(secondNumbers.flatMap((n, i) => (input.secondGroups[n] ?? []).map((g) => [g, i + 1] as const))),
  );
  const width = secondNumbers.length + 1;
  const coverageAt = 16 + firstNumbers.length * width * 2;
  const out = new Writer().uint16(2).uint16(coverageAt).uint16(X_ADVANCE).uint16(0);
  out.uint16(coverageAt + covered.length).uint16(coverageAt + covered.length + classDef1.length);
  out.uint16(firstNumbers.length).uint16(width);
  for (const n of firstNumbers) {
    const row = matrix.get(n)!;
    advances.write(out, {});
    for (const m of secondNumbers) advances.write(out, { xAdvance: plain(row.get(m) ?? 0) });
  }
  return out.raw(covered).raw(classDef1).raw(classDef2).toBytes();
}
