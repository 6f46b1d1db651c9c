import { addTo } from '../../base/grouping';
import { classDef } from './classDef';
import { coverage } from './coverage';
import { Packed } from './packed';

/**
 * Subtables with contexts, of GSUB and GPOS alike (OpenType, “Common Table Formats”, sequence contexts and chained sequence
 * contexts): glyphs that may stand before, at and behind, and which lookups work at which place.
 */
export type Context = {
  /** In the order of the text. */
  back: readonly (readonly number[])[];
  input: readonly (readonly number[])[];
  ahead: readonly (readonly number[])[];
  calls: readonly { at: number; lookup: number }[];
};

/** Has any rule something before or behind? Then the chained type is needed. */
export const isChained = (contexts: readonly Context[]): boolean =>
  contexts.some((c) => c.back.length > 0 || c.ahead.length > 0);

/**
 * The subtables for contexts, tried in order: by glyphs where every place is one glyph, by classes where places share none but
 * whole sets, else by sets, a subtable for each; whichever is smallest.
 */
export function contextSubtables(contexts: readonly Context[], chained: boolean): Uint8Array[] {
  if (contexts.length === 0) return [];
  const bySets = contexts.map((c) => setsSubtable(c, chained));
  const candidates = [glyphsSubtable(contexts, chained), classesSubtable(contexts, chained)].filter(
    (t): t is Uint8Array => t !== undefined,
  );
  const size = bySets.reduce((sum, t) => sum + t.length + 2, 0);
  const best = candidates.sort((a, b) => a.length - b.length)[0];
  return best && best.length + 2 < size ? [best] : bySets;
}

const calls = (c: Context): number[] => c.calls.flatMap(({ at, lookup }) => [at, lookup]);
const covered = (sets: readonly (readonly number[])[]): Uint8Array[] => sets.map((s) => coverage.write(s));

/** Format 3: coverage at every place. */
function setsSubtable(c: Context, chained: boolean): Uint8Array {
  if (!chained)
    return new Packed()
      .number(3, c.input.length, c.calls.length)
      .part(...covered(c.input))
      .number(...calls(c))
      .toBytes();
  return new Packed()
    .number(3, c.back.length)
    .part(...covered([...c.back].reverse()))
    .number(c.input.length)
    .part(...covered(c.input))
    .number(c.ahead.length)
    .part(...covered(c.ahead))
    .number(c.calls.length, ...calls(c))
    .toBytes();
}

/** A rule by numbers, of glyphs or of classes. */
function rule(c: { back: number[]; input: number[]; ahead: number[] }, of: Context, chained: boolean): Uint8Array {
  const [, ...rest] = c.input;
  if (!chained) return new Packed().number(c.input.length, of.calls.length, ...rest, ...calls(of)).toBytes();
  return new Packed()
    .number(c.back.length, ...[...c.back].reverse(), c.input.length, ...rest)
    .number(c.ahead.length, ...c.ahead, of.calls.length, ...calls(of))
    .toBytes();
}

/** Rules by what they begin with, in their order. */
function grouped(rules: readonly { first: number; bytes: Uint8Array }[]): Map<number, Uint8Array[]> {
  const out = new Map<number, Uint8Array[]>();
  for (const { first, bytes } of rules) addTo(out, first, bytes);
  return out;
}
const ruleSet = (rules: readonly Uint8Array[] | undefined): Uint8Array | undefined =>
  rules &&
  new Packed()
    .number(rules.length)
    .part(...rules)
    .toBytes();

/** Format 1: every place is one glyph. */
function glyphsSubtable(contexts: readonly Context[], chained: boolean): Uint8Array | undefined {
  const single = (sets: readonly (readonly number[])[]): number[] | undefined =>
    sets.every((s) => s.length === 1) ? sets.map((s) => s[0]!) : undefined;
  const rules: { first: number; bytes: Uint8Array }[] = [];
  for (const c of contexts) {
    const [back, input, ahead] = [single(c.back), single(c.input), single(c.ahead)];
    if (!back || !input || !ahead) return undefined;
    rules.push({ first: input[0]!, bytes: rule({ back, input, ahead }, c, chained) });
  }
  const sets = [...grouped(rules)].sort(([a], [b]) => a - b);
  return new Packed()
    .number(1)
    .part(coverage.write(sets.map(([g]) => g)))
    .number(sets.length)
    .part(...sets.map(([, list]) => ruleSet(list)))
    .fitted();
}

/** Numbers sets that are equal or share nothing; undefined where two overlap. From 1 on, in order of appearance. */
function classesOf(
  sets: readonly (readonly number[])[],
): { of: (set: readonly number[]) => number; map: Map<number, number> } | undefined {
  const numbers = new Map<string, number>();
  const map = new Map<number, number>();
  const key = (set: readonly number[]) => [...set].sort((a, b) => a - b).join(' ');
  for (const set of sets) {
    const k = key(set);
    if (numbers.has(k)) continue;
    const n = numbers.size + 1;
    for (const g of set) {
      if (map.has(g)) return undefined;
      map.set(g, n);
    }
    numbers.set(k, n);
  }
  return { of: (set) => numbers.get(key(set))!, map };
}

/** Format 2: classes at every place. */
function classesSubtable(contexts: readonly Context[], chained: boolean): Uint8Array | undefined {
  const input = classesOf(contexts.flatMap((c) => c.input));
  const back = classesOf(contexts.flatMap((c) => c.back));
  const ahead = classesOf(contexts.flatMap((c) => c.ahead));
  if (!input || !back || !ahead) return undefined;
  const rules = contexts.map((c) => {
    const numbers = { back: c.back.map(back.of), input: c.input.map(input.of), ahead: c.ahead.map(ahead.of) };
    return { first: numbers.input[0]!, bytes: rule(numbers, c, chained) };
  });
  const by = grouped(rules);
  const most = Math.max(...by.keys());
  const first = [...new Set(contexts.flatMap((c) => c.input[0]!))];
  const table = new Packed().number(2).part(coverage.write(first));
  if (chained) table.part(classDef.write(back.map), classDef.write(input.map), classDef.write(ahead.map));
  else table.part(classDef.write(input.map));
  return table
    .number(most + 1)
    .part(...Array.from({ length: most + 1 }, (_, n) => ruleSet(by.get(n))))
    .fitted();
}
