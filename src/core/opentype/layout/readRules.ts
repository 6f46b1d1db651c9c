import { refuse } from '../../base/result';
import type { Reader } from '../binary';
import { classDef } from './classDef';
import { part } from './codec';
import type { Context } from './contexts';
import { coverage } from './coverage';
import { GSUB_TYPE, type Ligature, type Reverse } from './substitutions';

/** Subtables of GSUB as rules (OpenType, “GSUB — Glyph Substitution Table”), whatever format they are written in. */
export type ReadRules =
  | { kind: 'single'; by: Map<number, number> }
  | { kind: 'multiple' | 'alternate'; by: Map<number, number[]> }
  | { kind: 'ligature'; ligatures: Ligature[] }
  | { kind: 'context'; contexts: Context[] }
  | { kind: 'reverse'; rules: Reverse[] };

/** Contexts of one subtable may be spelled out to so many. */
const MOST_CONTEXTS = 20_000;

const numbers = (from: Reader, count: number): number[] => Array.from({ length: count }, () => from.uint16());
const list = (from: Reader): number[] => numbers(from, from.uint16());
const covered = (from: Reader, offset: number): number[] => {
  const at = part(from, offset);
  return at ? [...coverage.read(at)] : [];
};
const calls = (from: Reader, count: number): Context['calls'] =>
  Array.from({ length: count }, () => ({ at: from.uint16(), lookup: from.uint16() }));

/**
 * Reads one subtable of a lookup of some type in a font of so many glyphs; refuses (throws) a format that there is not.
 */
export function readSubstitution(type: number, from: Reader, glyphs: number): ReadRules {
  const format = from.uint16();
  switch (type) {
    case GSUB_TYPE.single:
      return readSingle(from, format);
    case GSUB_TYPE.multiple:
    case GSUB_TYPE.alternate: {
      const glyphs = covered(from, from.uint16());
      const rows = list(from).map((o) => list(part(from, o)!));
      const by = new Map(glyphs.flatMap((g, i) => (rows[i] ? [[g, rows[i]] as const] : [])));
      return { kind: type === GSUB_TYPE.multiple ? 'multiple' : 'alternate', by };
    }
    case GSUB_TYPE.ligature:
      return readLigatures(from);
    case GSUB_TYPE.context:
    case GSUB_TYPE.chain:
      return { kind: 'context', contexts: readContexts(from, format, type === GSUB_TYPE.chain, glyphs) };
    case GSUB_TYPE.reverse: {
      const glyphs = covered(from, from.uint16());
      const back = list(from)
        .map((o) => covered(from, o))
        .reverse();
      const ahead = list(from).map((o) => covered(from, o));
      const to = list(from);
      const by = new Map(glyphs.flatMap((g, i) => (to[i] === undefined ? [] : [[g, to[i]] as const])));
      return { kind: 'reverse', rules: [{ back, by, ahead }] };
    }
    default:
      return refuse(`The ${from.name} table has a lookup of the unknown type ${type}.`);
  }
}

function readSingle(from: Reader, format: number): ReadRules {
  const glyphs = covered(from, from.uint16());
  if (format === 1) {
    const delta = from.uint16();
    return { kind: 'single', by: new Map(glyphs.map((g) => [g, (g + delta) & 0xffff])) };
  }
  const to = list(from);
  return { kind: 'single', by: new Map(glyphs.flatMap((g, i) => (to[i] === undefined ? [] : [[g, to[i]] as const]))) };
}

function readLigatures(from: Reader): ReadRules {
  const glyphs = covered(from, from.uint16());
  const sets = list(from);
  const ligatures = glyphs.flatMap((first, i): Ligature[] => {
    const set = part(from, sets[i] ?? 0);
    if (!set) return [];
    return list(set).flatMap((o) => {
      const ligature = part(set, o);
      if (!ligature) return [];
      const to = ligature.uint16();
      return [{ parts: [first, ...numbers(ligature, Math.max(0, ligature.uint16() - 1))], to }];
    });
  });
  return { kind: 'ligature', ligatures };
}

/** Rules with contexts in all three formats, in the order in which they are tried for a glyph. */
export function readContexts(from: Reader, format: number, chained: boolean, glyphs: number): Context[] {
  if (format === 3) return [readSets(from, chained)];
  const start = covered(from, from.uint16());
  if (format === 1) {
    const sets = list(from);
    return bounded(start.flatMap((glyph, i) => glyphRules(part(from, sets[i] ?? 0), chained, (g) => [g], [glyph])));
  }
  if (format !== 2) return refuse(`The ${from.name} table has a context of the unknown format ${format}.`);
  const definitions = numbers(from, chained ? 3 : 1).map((o) => {
    const at = part(from, o);
    return at ? classDef.read(at) : new Map<number, number>();
  });
  const [back, input, ahead] = chained ? definitions : [new Map(), definitions[0]!, new Map()];
  const members = (map: ReadonlyMap<number, number>) => {
    const by = new Map<number, number[]>();
    for (let g = 0; g < glyphs; g++) {
      const c = map.get(g) ?? 0;
      const list = by.get(c);
      if (list) list.push(g);
      else by.set(c, [g]);
    }
    return by;
  };
  const [b, n, a] = [back!, input!, ahead!].map(members) as [
    Map<number, number[]>,
    Map<number, number[]>,
    Map<number, number[]>,
  ];
  const sets = list(from);
  return bounded(
    sets.flatMap((offset, c) => {
      const first = start.filter((g) => (input!.get(g) ?? 0) === c);
      if (first.length === 0) return [];
      return classRules(part(from, offset), chained, { back: b, input: n, ahead: a }, first);
    }),
  );
}

function bounded(contexts: Context[]): Context[] {
  return contexts.length > MOST_CONTEXTS ? refuse(`A lookup has ${contexts.length} contexts.`) : contexts;
}

function readSets(from: Reader, chained: boolean): Context {
  if (!chained) {
    const [count, many] = [from.uint16(), from.uint16()];
    const offsets = numbers(from, count);
    const made = calls(from, many);
    return { back: [], input: offsets.map((o) => covered(from, o)), ahead: [], calls: made };
  }
  const [back, input, ahead] = [list(from), list(from), list(from)];
  const made = calls(from, from.uint16());
  const sets = (offsets: readonly number[]) => offsets.map((o) => covered(from, o));
  return { back: sets(back).reverse(), input: sets(input), ahead: sets(ahead), calls: made };
}

type RawRule = { back: number[]; rest: number[]; ahead: number[]; calls: Context['calls'] };

function rawRules(set: Reader | undefined, chained: boolean): RawRule[] {
  if (!set) return [];
  return list(set).flatMap((o): RawRule[] => {
    const rule = part(set, o);
    if (!rule) return [];
    if (!chained) {
      const [count, many] = [rule.uint16(), rule.uint16()];
      const rest = numbers(rule, Math.max(0, count - 1));
      return [{ back: [], rest, ahead: [], calls: calls(rule, many) }];
    }
    const back = list(rule).reverse();
    const rest = numbers(rule, Math.max(0, rule.uint16() - 1));
    const ahead = list(rule);
    return [{ back, rest, ahead, calls: calls(rule, rule.uint16()) }];
  });
}

const glyphRules = (
  set: Reader | undefined,
  chained: boolean,
  glyphs: (n: number) => number[],
  first: readonly number[],
): Context[] =>
  rawRules(set, chained).map((r) => ({
    back: r.back.map(glyphs),
    input: [first, ...r.rest.map(glyphs)],
    ahead: r.ahead.map(glyphs),
    calls: r.calls,
  }));

/** A rule by classes; class 0 is every glyph that is in no other. */
function classRules(
  set: Reader | undefined,
  chained: boolean,
  members: Record<'back' | 'input' | 'ahead', ReadonlyMap<number, readonly number[]>>,
  first: readonly number[],
): Context[] {
  const of = (kind: keyof typeof members) => (c: number) => members[kind].get(c) ?? [];
  return rawRules(set, chained)
    .map((r) => ({
      back: r.back.map(of('back')),
      input: [first, ...r.rest.map(of('input'))],
      ahead: r.ahead.map(of('ahead')),
      calls: r.calls,
    }))
    .filter((c) => [...c.back, ...c.input, ...c.ahead].every((list) => list.length > 0));
}
