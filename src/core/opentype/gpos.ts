import { Reader, Writer } from './binary';

/** One side of a kerning pair as the table needs it: a glyph, or the number of a group on that side. */
export type KernSide = { glyph: number } | { group: number };
export type KernPair = { first: KernSide; second: KernSide; value: number };
export type KernInput = {
  /** Members of each first-side group, by group number. */
  firstGroups: readonly (readonly number[])[];
  secondGroups: readonly (readonly number[])[];
  pairs: readonly KernPair[];
};

/** ValueFormat with xAdvance only. */
const X_ADVANCE = 4;

/**
 * A GPOS table with one `kern` feature for the scripts given (tags, `DFLT` added) and one pair lookup: subtables with
 * glyph pairs first, then one with classes, so that the order glyph–glyph, glyph–group, group–glyph, group–group holds.
 * Exceptions (glyph with group, group with glyph) are spelled out as glyph pairs.
 */
export function writeKernGpos(input: KernInput, scripts: readonly string[]): Uint8Array | undefined {
  const specific = explicitPairs(input);
  const classes = classMatrix(input);
  const subtables: Uint8Array[] = [];
  for (const part of splitBySize(specific)) subtables.push(writePairFormat1(part));
  for (const part of classes ? splitRows(input, classes) : []) subtables.push(writePairFormat2(input, part));
  if (subtables.length === 0) return undefined;
  return assemble(subtables, [...new Set(['DFLT', ...scripts])].sort());
}

/** first glyph -> second glyph -> value, for every pair that names a glyph on some side. */
function explicitPairs(input: KernInput): Map<number, Map<number, number>> {
  const ranked = input.pairs
    .map((pair) => ({
      pair,
      rank: 'glyph' in pair.first ? ('glyph' in pair.second ? 0 : 1) : 'glyph' in pair.second ? 2 : 3,
    }))
    .filter(({ rank }) => rank < 3)
    .sort((a, b) => b.rank - a.rank);
  const out = new Map<number, Map<number, number>>();
  for (const { pair } of ranked) {
    const firsts = 'glyph' in pair.first ? [pair.first.glyph] : (input.firstGroups[pair.first.group] ?? []);
    const seconds = 'glyph' in pair.second ? [pair.second.glyph] : (input.secondGroups[pair.second.group] ?? []);
    for (const a of firsts) {
      const row = out.get(a) ?? new Map<number, number>();
      out.set(a, row);
      for (const b of seconds) row.set(b, pair.value);
    }
  }
  return out;
}

function classMatrix(input: KernInput): Map<number, Map<number, number>> | undefined {
  const matrix = new Map<number, Map<number, number>>();
  for (const { first, second, value } of input.pairs) {
    if (!('group' in first) || !('group' in second)) continue;
    if ((input.firstGroups[first.group]?.length ?? 0) === 0) continue;
    const row = matrix.get(first.group) ?? new Map<number, number>();
    matrix.set(first.group, row);
    row.set(second.group, value);
  }
  return matrix.size > 0 ? matrix : undefined;
}

/** The same for rows of classes: coverage and class definitions lie behind the matrix and must be reached. */
function splitRows(input: KernInput, matrix: Map<number, Map<number, number>>): Map<number, Map<number, number>>[] {
  const columns = new Set([...matrix.values()].flatMap((row) => [...row.keys()]));
  const definitions = [...columns].reduce((sum, n) => sum + (input.secondGroups[n]?.length ?? 0) * 6, 4);
  const parts: Map<number, Map<number, number>>[] = [];
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
function splitBySize(pairs: Map<number, Map<number, number>>): Map<number, Map<number, number>>[] {
  const parts: Map<number, Map<number, number>>[] = [];
  let size = 0;
  for (const first of [...pairs.keys()].sort((a, b) => a - b)) {
    const row = pairs.get(first)!;
    const cost = 6 + row.size * 4;
    if (parts.length === 0 || size + cost > 60000) {
      parts.push(new Map());
      size = 0;
    }
    size += cost;
    parts[parts.length - 1]!.set(first, row);
  }
  return parts;
}

function coverageOf(glyphs: readonly number[]): Uint8Array {
  const sorted = [...glyphs].sort((a, b) => a - b);
  const ranges = rangesOf(sorted.map((g) => [g, 0]));
  const out = new Writer();
  if (ranges.length * 6 < sorted.length * 2) {
    out.uint16(2).uint16(ranges.length);
    let index = 0;
    for (const r of ranges) {
      out.uint16(r.start).uint16(r.end).uint16(index);
      index += r.end - r.start + 1;
    }
  } else {
    out.uint16(1).uint16(sorted.length);
    for (const g of sorted) out.uint16(g);
  }
  return out.toBytes();
}

function rangesOf(
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

function classDefOf(classes: readonly (readonly [glyph: number, value: number])[]): Uint8Array {
  const ranges = rangesOf([...classes].sort((a, b) => a[0] - b[0]));
  const out = new Writer().uint16(2).uint16(ranges.length);
  for (const r of ranges) out.uint16(r.start).uint16(r.end).uint16(r.value);
  return out.toBytes();
}

function writePairFormat1(pairs: Map<number, Map<number, number>>): Uint8Array {
  const firsts = [...pairs.keys()].sort((a, b) => a - b);
  const sets = firsts.map((first) => {
    const row = pairs.get(first)!;
    const out = new Writer().uint16(row.size);
    for (const second of [...row.keys()].sort((a, b) => a - b)) out.uint16(second).int16(row.get(second)!);
    return out.toBytes();
  });
  const header = 10 + firsts.length * 2;
  const coverage = coverageOf(firsts);
  const out = new Writer().uint16(1).uint16(header).uint16(X_ADVANCE).uint16(0).uint16(firsts.length);
  let offset = header + coverage.length;
  for (const set of sets) {
    out.uint16(offset);
    offset += set.length;
  }
  out.raw(coverage);
  for (const set of sets) out.raw(set);
  return out.toBytes();
}

function writePairFormat2(input: KernInput, matrix: Map<number, Map<number, number>>): Uint8Array {
  const firstNumbers = [...matrix.keys()].sort((a, b) => a - b);
  const secondNumbers = [...new Set([...matrix.values()].flatMap((row) => [...row.keys()]))].sort((a, b) => a - b);
  const firstMembers = firstNumbers.map((n) => input.firstGroups[n] ?? []);
  const coverage = coverageOf(firstMembers.flat());
  // The first group is class 0: every covered glyph that no other class claims.
  const classDef1 = classDefOf(
    firstMembers.flatMap((members, i) => (i === 0 ? [] : members.map((g) => [g, i] as const))),
  );
  const classDef2 = classDefOf(
    secondNumbers.flatMap((n, i) => (input.secondGroups[n] ?? []).map((g) => [g, i + 1] as const)),
  );
  const width = secondNumbers.length + 1;
  const coverageAt = 16 + firstNumbers.length * width * 2;
  const out = new Writer().uint16(2).uint16(coverageAt).uint16(X_ADVANCE).uint16(0);
  out.uint16(coverageAt + coverage.length).uint16(coverageAt + coverage.length + classDef1.length);
  out.uint16(firstNumbers.length).uint16(width);
  for (const n of firstNumbers) {
    const row = matrix.get(n)!;
    out.int16(0);
    for (const m of secondNumbers) out.int16(row.get(m) ?? 0);
  }
  return out.raw(coverage).raw(classDef1).raw(classDef2).toBytes();
}

/** Header, script list, feature list and a lookup whose subtables are reached through 32-bit extension offsets. */
function assemble(subtables: readonly Uint8Array[], scripts: readonly string[]): Uint8Array {
  const scriptSize = 4 + 8;
  const scriptList = new Writer().uint16(scripts.length);
  scripts.forEach((tag, i) => {
    scriptList.tag(tag).uint16(2 + scripts.length * 6 + i * scriptSize);
  });
  for (const _ of scripts) scriptList.uint16(4).uint16(0).uint16(0).uint16(0xffff).uint16(1).uint16(0);
  const featureList = new Writer().uint16(1).tag('kern').uint16(8).uint16(0).uint16(1).uint16(0);
  const headerSize = 10;
  const lookupListAt = headerSize + scriptList.length + featureList.length;
  const out = new Writer()
    .uint16(1)
    .uint16(0)
    .uint16(headerSize)
    .uint16(headerSize + scriptList.length)
    .uint16(lookupListAt);
  out.raw(scriptList.toBytes()).raw(featureList.toBytes());
  out.uint16(1).uint16(4);
  const lookupHead = 6 + subtables.length * 2;
  out.uint16(9).uint16(0).uint16(subtables.length);
  subtables.forEach((_, i) => {
    out.uint16(lookupHead + i * 8);
  });
  let offset = subtables.length * 8;
  subtables.forEach((sub, i) => {
    out
      .uint16(1)
      .uint16(2)
      .uint32(offset - i * 8);
    offset += sub.length;
  });
  for (const sub of subtables) out.raw(sub);
  return out.toBytes();
}

/** Feature tags of a GPOS or GSUB table, in list order. */
export function readFeatureTags(bytes: Uint8Array, table: string): string[] {
  const from = new Reader(bytes, table);
  const list = from.seek(6).uint16();
  const count = from.seek(list).uint16();
  return Array.from({ length: count }, (_, i) => from.seek(list + 2 + i * 6).tag());
}
