import { type Context, contextSubtables, isChained } from '../opentype/layout/contexts';
import type { Lookup } from '../opentype/layout/lists';
import {
  type AnchorAt,
  attachPartsSubtable,
  attachSubtable,
  type ClassPairs,
  classPairSubtable,
  cursiveSubtable,
  GPOS_TYPE,
  glyphPairSubtables,
  type PairValue,
  type Seats,
  singlePosSubtables,
  type Value,
} from '../opentype/layout/positions';
import {
  alternateSubtables,
  GSUB_TYPE,
  type Ligature,
  ligatureSubtables,
  multipleSubtables,
  type Reverse,
  reverseSubtable,
  singleSubtables,
} from '../opentype/layout/substitutions';
import type { Span } from './tree';

/** What lookups of a flag skip. */
export type Flag = { flags: number; attachment?: readonly number[]; filter?: readonly number[] };
export const sameFlag = (a: Flag, b: Flag): boolean =>
  a.flags === b.flags && String(a.attachment) === String(b.attachment) && String(a.filter) === String(b.filter);

/** A rule with a context: calls are of lookups by themselves, so that they may be numbered later. */
export type ContextRule = Omit<Context, 'calls'> & { calls: { at: number; lookup: DraftLookup }[]; from: Span };

/** Rules of one kind, filled while the text is read. */
export type Rules =
  | { kind: 'single'; by: Map<number, number> }
  | { kind: 'multiple'; by: Map<number, readonly number[]> }
  | { kind: 'alternate'; by: Map<number, readonly number[]> }
  | { kind: 'ligature'; ligatures: Ligature[]; seen: Map<string, number> }
  | { kind: 'reverse'; rules: Reverse[] }
  | { kind: 'context'; rules: ContextRule[] }
  | { kind: 'move'; by: Map<number, Value> }
  | { kind: 'pair'; parts: PairPart[] }
  | { kind: 'cursive'; by: Map<number, { entry?: AnchorAt; exit?: AnchorAt }> }
  | { kind: 'attach'; onto: 'base' | 'mark'; classes: string[]; seats: Map<number, Map<string, AnchorAt>> }
  | { kind: 'attachParts'; classes: string[]; parts: Map<number, Map<string, AnchorAt>[]> };

/** Pairs between two breaks of subtables: of glyphs, then of classes. */
export type PairPart = {
  glyphs: Map<number, Map<number, PairValue>>;
  classes: ClassPart[];
};
export type ClassPart = { first: readonly number[][]; second: readonly number[][]; values: Map<string, PairValue> };

/** A lookup as it grows: its rules between breaks of subtables, its flag, where it comes from. */
export type DraftLookup = {
  table: 'GSUB' | 'GPOS';
  flag: Flag;
  parts: Rules[];
  name?: string;
  /** Where its first rule stands. */
  from: Span;
  /** Of which feature’s text it is part, where it stands in one. */
  feature?: string;
  /** Where its name stands, and in which text. */
  nameAt?: Span & { source: number };
  /** The text that it stands in, by its number. */
  source?: number;
  /** Set when the font is put together. */
  index?: number;
};

export type MarkClasses = {
  get(name: string): ReadonlyMap<number, AnchorAt> | undefined;
  /** Equal for the same marks with the same anchors. */
  stamp(name: string): unknown;
};

const TYPES: Readonly<Record<Rules['kind'], number>> = {
  single: GSUB_TYPE.single,
  multiple: GSUB_TYPE.multiple,
  alternate: GSUB_TYPE.alternate,
  ligature: GSUB_TYPE.ligature,
  reverse: GSUB_TYPE.reverse,
  context: 0,
  move: GPOS_TYPE.single,
  pair: GPOS_TYPE.pair,
  cursive: GPOS_TYPE.cursive,
  attach: GPOS_TYPE.markToBase,
  attachParts: GPOS_TYPE.markToLigature,
};

/** The lookup as it is written; lookups that it calls are numbered before. */
export function builtLookup(
  draft: DraftLookup,
  marks: MarkClasses,
  numbers: { attachmentClass(set: readonly number[]): number; filterSet(set: readonly number[]): number },
): Lookup<Uint8Array> {
  const contexts = draft.parts.map((p) => (p.kind === 'context' ? p.rules.map(numbered) : []));
  const chained = isChained(contexts.flat());
  const first = draft.parts[0];
  const type =
    first?.kind === 'context'
      ? { GSUB: [GSUB_TYPE.context, GSUB_TYPE.chain], GPOS: [GPOS_TYPE.context, GPOS_TYPE.chain] }[draft.table][
          chained ? 1 : 0
        ]!
      : first?.kind === 'attach' && first.onto === 'mark'
        ? GPOS_TYPE.markToMark
        : TYPES[first?.kind ?? 'single'];
  const subtables = writtenOnce(draft, contexts, marks, () =>
    draft.parts.flatMap((p, i) =>
      p.kind === 'context' ? contextSubtables(contexts[i]!, chained) : subtablesOf(p, marks),
    ),
  );
  const { flags, attachment, filter } = draft.flag;
  return {
    type,
    flag: flags | (attachment ? numbers.attachmentClass(attachment) << 8 : 0),
    ...(filter && { markFilteringSet: numbers.filterSet(filter) }),
    subtables,
  };
}

const written = new WeakMap<DraftLookup, { key: string; subtables: Uint8Array[] }>();
/** Subtables as they were written before, while the lookups that they call keep their numbers and the marks their anchors. */
function writtenOnce(
  draft: DraftLookup,
  contexts: readonly (readonly Context[])[],
  marks: MarkClasses,
  write: () => Uint8Array[],
): Uint8Array[] {
  const calls = contexts.flatMap((rules) => rules.flatMap((r) => r.calls.map((c) => c.lookup)));
  const classes = draft.parts.flatMap((p) => ('classes' in p ? p.classes.map((c) => marks.stamp(c)) : []));
  const key = `${calls.join(' ')}|${classes.join('|')}`;
  const known = written.get(draft);
  if (known?.key === key) return known.subtables;
  const subtables = write();
  written.set(draft, { key, subtables });
  return subtables;
}

const numbered = (rule: ContextRule): Context => ({
  back: rule.back,
  input: rule.input,
  ahead: rule.ahead,
  calls: rule.calls.map(({ at, lookup }) => ({ at, lookup: lookup.index ?? 0 })),
});

function subtablesOf(rules: Exclude<Rules, { kind: 'context' }>, marks: MarkClasses): Uint8Array[] {
  switch (rules.kind) {
    case 'single':
      return singleSubtables(rules.by);
    case 'multiple':
      return multipleSubtables(rules.by);
    case 'alternate':
      return alternateSubtables(rules.by);
    case 'ligature':
      return ligatureSubtables(rules.ligatures);
    case 'reverse':
      return rules.rules.map(reverseSubtable);
    case 'move':
      return singlePosSubtables(rules.by);
    case 'pair':
      return rules.parts.flatMap((p) => [
        ...glyphPairSubtables(p.glyphs),
        ...p.classes.map((c: ClassPairs) => classPairSubtable(c)),
      ]);
    case 'cursive':
      return [cursiveSubtable(rules.by)];
    case 'attach': {
      const seats = new Map([...rules.seats].map(([g, by]) => [g, rules.classes.map((c) => by.get(c))] as const));
      return [attachSubtable(sitting(rules.classes, marks), rules.classes.length, seats)];
    }
    case 'attachParts': {
      const parts = new Map(
        [...rules.parts].map(([g, list]) => [g, list.map((by): Seats => rules.classes.map((c) => by.get(c)))] as const),
      );
      return [attachPartsSubtable(sitting(rules.classes, marks), rules.classes.length, parts)];
    }
  }
}

/** Marks of some classes, by their numbers; a mark is in the first class that has it. */
function sitting(classes: readonly string[], marks: MarkClasses): Map<number, { markClass: number; anchor: AnchorAt }> {
  const out = new Map<number, { markClass: number; anchor: AnchorAt }>();
  classes.forEach((name, markClass) => {
    for (const [glyph, anchor] of marks.get(name) ?? []) if (!out.has(glyph)) out.set(glyph, { markClass, anchor });
  });
  return out;
}
