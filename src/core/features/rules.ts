import { counted } from '../base/notation';
import type { AnchorAt, PairValue, Value } from '../opentype/layout/positions';
import { FeatureFault } from './cursor';
import type { ClassPart, DraftLookup, Flag, PairPart, Rules } from './lookups';
import type { Names } from './resolve';
import type { Attachment, GlyphSet, Item, Pattern, Span, Statement } from './tree';

type Kind = Rules['kind'];
type Of<K extends Kind> = Extract<Rules, { kind: K }>;

/** Most rules that one statement may be spelled out to. */
const MOST_SPELLED = 200_000;

/** What adding rules needs of the compiler: names, the lookup that rules of a kind go to, lookups of their own, those by name. */
export type RuleBench = {
  names: Names;
  /** The lookup that takes rules of a kind just now: the one at hand where it takes them, else a new one. */
  lookupFor(table: 'GSUB' | 'GPOS', kind: Kind, at: Span, fits?: (rules: Rules) => boolean): DraftLookup;
  /** A new lookup that only other lookups call, with the flag of the one at hand. */
  own(table: 'GSUB' | 'GPOS', at: Span): DraftLookup;
  named(name: string): DraftLookup | undefined;
  /** Is text set from top to bottom in this feature? */
  isVertical: boolean;
  tell(reason: string, at: Span, severity?: 'error' | 'attention'): void;
};

const empty: { [K in Kind]: () => Of<K> } = {
  single: () => ({ kind: 'single', by: new Map() }),
  multiple: () => ({ kind: 'multiple', by: new Map() }),
  alternate: () => ({ kind: 'alternate', by: new Map() }),
  ligature: () => ({ kind: 'ligature', ligatures: [], seen: new Map() }),
  reverse: () => ({ kind: 'reverse', rules: [] }),
  context: () => ({ kind: 'context', rules: [] }),
  move: () => ({ kind: 'move', by: new Map() }),
  pair: () => ({ kind: 'pair', parts: [emptyPairs()] }),
  cursive: () => ({ kind: 'cursive', by: new Map() }),
  attach: () => ({ kind: 'attach', onto: 'base', classes: [], seats: new Map() }),
  attachParts: () => ({ kind: 'attachParts', classes: [], parts: new Map() }),
};
export const emptyPairs = (): PairPart => ({ glyphs: new Map(), classes: [] });

/** The rules that a lookup is being filled with: those of the kind, after its last break. */
export function rulesOf<K extends Kind>(lookup: DraftLookup, kind: K): Of<K> {
  const last = lookup.parts[lookup.parts.length - 1];
  if (last?.kind === kind) return last as Of<K>;
  const fresh = empty[kind]();
  lookup.parts.push(fresh);
  return fresh;
}

const sets = (names: Names, list: readonly GlyphSet[]): number[][] =>
  list.map((s) => (s.kind === 'class' ? names.sortedClass(s) : unique(names.glyphs(s))));
const unique = (glyphs: readonly number[]): number[] => [...new Set(glyphs)].sort((a, b) => a - b);

/** Every way to take one of each set, in order. */
function spelled(lists: readonly (readonly number[])[], at: Span): Iterable<number[]> {
  // Most rules are of single glyphs.
  if (lists.length > 0 && lists.every((l) => l.length === 1)) return [lists.map((l) => l[0]!)];
  const total = lists.reduce((n, l) => n * l.length, 1);
  if (total > MOST_SPELLED)
    throw new FeatureFault(
      `This rule stands for ${counted(total)} single ones; ${counted(MOST_SPELLED)} is the most.`,
      at,
    );
  return lists.length === 0 || lists.some((l) => l.length === 0) ? [] : everyRow(lists);
}

function* everyRow(lists: readonly (readonly number[])[]): Generator<number[]> {
  const places = lists.map(() => 0);
  for (;;) {
    yield places.map((p, i) => lists[i]![p]!);
    let i = lists.length - 1;
    while (i >= 0 && ++places[i]! === lists[i]!.length) places[i--] = 0;
    if (i < 0) return;
  }
}

/** Each glyph of one class by that of another: of as many, or all by one. */
function paired(from: readonly number[], to: readonly number[], at: Span): [number, number][] {
  // What is missing was told.
  if (from.length === 0 || to.length === 0) return [];
  if (to.length === 1) return from.map((g) => [g, to[0]!]);
  if (from.length !== to.length)
    throw new FeatureFault(`${from.length} glyphs cannot be replaced by ${to.length}: as many are needed, or one.`, at);
  return from.map((g, i) => [g, to[i]!]);
}

/** Adds to a map unless something else stands there already, which is told. */
function note<T>(bench: RuleBench, map: Map<number, T>, glyph: number, value: T, at: Span, what: string): void {
  const there = map.get(glyph);
  if (there === undefined) map.set(glyph, value);
  else if (JSON.stringify(there) !== JSON.stringify(value))
    bench.tell(`${what} has another rule before this one in the lookup, which is taken.`, at, 'attention');
}

type Sub = Extract<Statement, { kind: 'sub' }>;

/** What kind of substitution a rule without context is. */
function subKind({ pattern, by, choice }: Sub): 'single' | 'multiple' | 'alternate' | 'ligature' {
  if (choice) return 'alternate';
  if (pattern.input.length > 1) return 'ligature';
  return by!.length === 1 ? 'single' : 'multiple';
}

export function addSubstitution(bench: RuleBench, rule: Sub): void {
  const { pattern } = rule;
  const calls = pattern.input.some((i) => i.lookups.length > 0);
  if (rule.reverse) {
    addReverse(bench, rule);
    return;
  }
  if (!pattern.isContext) {
    const lookup = bench.lookupFor('GSUB', subKind(rule), rule);
    fill(bench, lookup, rule, rule);
    return;
  }
  if (calls && (rule.by || rule.choice)) throw new FeatureFault('A rule calls lookups or says “by”, not both.', rule);
  const chain = bench.lookupFor('GSUB', 'context', rule);
  const context = contextOf(bench.names, pattern);
  const made: { at: number; lookup: DraftLookup }[] = calls ? called(bench, pattern.input, 'GSUB') : [];
  if (!calls && (rule.by || rule.choice)) {
    const kind = subKind(rule);
    made.push({ at: 0, lookup: inlineSub(bench, chain, kind, rule) });
  }
  rulesOf(chain, 'context').rules.push({ ...context, calls: made, from: { from: rule.from, to: rule.to } });
}

/** The lookup that an inline replacement goes to: one made for this chain already where they do not contradict, else a new one. */
function inlineSub(bench: RuleBench, chain: DraftLookup, kind: ReturnType<typeof subKind>, rule: Sub): DraftLookup {
  const rules = rulesOf(chain, 'context').rules;
  if (kind === 'single') {
    const wanted = singlePairs(bench.names, rule);
    for (const { calls } of rules)
      for (const { lookup } of calls) {
        const own = lookup.parts[0];
        if (lookup.name !== undefined || own?.kind !== 'single') continue;
        if (wanted.some(([g, to]) => own.by.has(g) && own.by.get(g) !== to)) continue;
        for (const [g, to] of wanted) own.by.set(g, to);
        return lookup;
      }
  }
  const lookup = bench.own('GSUB', rule);
  fill(bench, lookup, rule, rule);
  return lookup;
}

const singlePairs = (names: Names, rule: Sub): [number, number][] =>
  paired(names.glyphs(rule.pattern.input[0]!.set), names.glyphs(rule.by![0]!), rule);

/** Puts the replacement of a rule into a lookup, whatever context it stands in. */
function fill(bench: RuleBench, lookup: DraftLookup, rule: Sub, at: Span): void {
  const { names } = bench;
  const { pattern, by, choice } = rule;
  const kind = subKind(rule);
  const first = pattern.input[0]!.set;
  const among = lookup.parts[lookup.parts.length - 1];
  if (kind === 'single' && among?.kind === 'ligature') {
    for (const [g, target] of singlePairs(names, rule)) {
      if (among.seen.has(String(g))) continue;
      among.seen.set(String(g), target);
      among.ligatures.push({ parts: [g], to: target });
    }
  } else if (kind === 'single' && among?.kind === 'multiple') {
    for (const [g, target] of singlePairs(names, rule)) note(bench, among.by, g, [target], at, 'This glyph');
  } else if (kind === 'single') {
    const { by: map } = rulesOf(lookup, 'single');
    for (const [g, to] of singlePairs(names, rule)) note(bench, map, g, to, at, 'This glyph');
  } else if (kind === 'alternate') {
    if (pattern.input.length > 1) throw new FeatureFault('“from” chooses for one glyph.', at);
    const { by: map } = rulesOf(lookup, 'alternate');
    const choices = names.glyphs(choice!);
    for (const g of names.glyphs(first)) note(bench, map, g, choices, at, 'This glyph');
  } else if (kind === 'multiple') {
    const { by: map } = rulesOf(lookup, 'multiple');
    const from = names.glyphs(first);
    const rows = by!.map((s) => names.glyphs(s));
    const odd = rows.find((r) => r.length !== 1 && r.length !== from.length);
    if (odd) throw new FeatureFault(`A class of ${odd.length} glyphs cannot follow one of ${from.length}.`, at);
    from.forEach((g, i) => {
      note(
        bench,
        map,
        g,
        rows.map((r) => (r.length === 1 ? r[0]! : r[i]!)),
        at,
        'This glyph',
      );
    });
  } else {
    if (by!.length !== 1) throw new FeatureFault('Several glyphs are replaced by one.', at);
    const to = names.glyphs(by![0]!);
    const rows = [
      ...spelled(
        pattern.input.map((i) => names.glyphs(i.set)),
        at,
      ),
    ];
    // What is missing was told.
    if (to.length === 0 || rows.length === 0) return;
    if (to.length !== 1 && to.length !== rows.length && rows.length > 0)
      throw new FeatureFault('A ligature is one glyph.', by![0]!);
    const { ligatures, seen } = rulesOf(lookup, 'ligature');
    rows.forEach((parts, i) => {
      const target = to[to.length === 1 ? 0 : i];
      if (target === undefined) return;
      const key = parts.join(' ');
      const before = seen.get(key);
      if (before === undefined) {
        seen.set(key, target);
        ligatures.push({ parts, to: target });
      } else if (before !== target)
        bench.tell(
          'These glyphs have another ligature before this one in the lookup, which is taken.',
          at,
          'attention',
        );
    });
  }
}

function addReverse(bench: RuleBench, rule: Sub): void {
  const { names } = bench;
  if (rule.pattern.input.length !== 1) throw new FeatureFault('A reversed rule replaces one glyph.', rule);
  if (rule.by?.length !== 1) throw new FeatureFault('A reversed rule says “by” one glyph or class.', rule);
  const lookup = bench.lookupFor('GSUB', 'reverse', rule);
  rulesOf(lookup, 'reverse').rules.push({
    back: sets(names, rule.pattern.back),
    ahead: sets(names, rule.pattern.ahead),
    by: new Map(singlePairs(names, rule)),
  });
}

const contextOf = (names: Names, pattern: Pattern) => ({
  back: sets(names, pattern.back),
  input: sets(
    names,
    pattern.input.map((i) => i.set),
  ),
  ahead: sets(names, pattern.ahead),
});

/** Lookups that the places of a pattern call, in order. */
function called(
  bench: RuleBench,
  input: readonly Item[],
  table: 'GSUB' | 'GPOS',
): { at: number; lookup: DraftLookup }[] {
  return input.flatMap((item, at) =>
    item.lookups.map(({ name, ...span }) => {
      const lookup = bench.named(name);
      if (!lookup) throw new FeatureFault(`The lookup ${name} is not defined before this place.`, span);
      if (lookup.table !== table)
        throw new FeatureFault(
          table === 'GSUB'
            ? `The lookup ${name} positions glyphs; this rule replaces some.`
            : `The lookup ${name} replaces glyphs; this rule positions some.`,
          span,
        );
      return { at, lookup };
    }),
  );
}

export function addIgnore(bench: RuleBench, rule: Extract<Statement, { kind: 'ignore' }>): void {
  const lookup = bench.lookupFor(rule.table, 'context', rule);
  for (const pattern of rule.patterns)
    rulesOf(lookup, 'context').rules.push({
      ...contextOf(bench.names, pattern),
      calls: [],
      from: { from: rule.from, to: rule.to },
    });
}

type Pos = Extract<Statement, { kind: 'pos' }>;

export function addPosition(bench: RuleBench, rule: Pos): void {
  const { pattern } = rule;
  const { names, isVertical } = bench;
  if (pattern.isContext) {
    addContextPosition(bench, rule);
    return;
  }
  const [first, second, ...more] = pattern.input as [Item, Item | undefined, ...Item[]];
  if (more.length > 0)
    throw new FeatureFault('A position of three and more glyphs marks with apostrophes those that move.', rule);
  if (!second) {
    if (!first.value) throw new FeatureFault('The value is missing.', rule);
    if (rule.each) throw new FeatureFault('“enum” is for pairs.', rule);
    const { by } = rulesOf(bench.lookupFor('GPOS', 'move', rule), 'move');
    const moved = names.value(first.value, isVertical);
    for (const g of names.glyphs(first.set)) note(bench, by, g, moved, rule, 'This glyph');
    return;
  }
  if (!first.value && !second.value) throw new FeatureFault('The value of the pair is missing.', rule);
  // A value behind both is that of the first.
  const [a, b] = first.value ? [first.value, second.value] : [second.value, undefined];
  const value: PairValue = {
    first: a ? names.value(a, isVertical) : {},
    second: b ? names.value(b, isVertical) : {},
  };
  const lookup = bench.lookupFor('GPOS', 'pair', rule);
  const rules = rulesOf(lookup, 'pair');
  const part = rules.parts[rules.parts.length - 1]!;
  const [firsts, seconds] = [names.glyphs(first.set), names.glyphs(second.set)];
  const byClass = (names.isClass(first.set) || names.isClass(second.set)) && !rule.each;
  if (byClass) {
    addClassPair(part, unique(firsts), unique(seconds), value);
    return;
  }
  for (const [x, y] of spelled([firsts, seconds], rule)) {
    const row = part.glyphs.get(x!) ?? new Map<number, PairValue>();
    part.glyphs.set(x!, row);
    // The first that is said of a pair holds.
    if (!row.has(y!)) row.set(y!, value);
  }
}

/** A pair of classes goes to the last matrix if its classes are in it or share nothing with those that are, else to a new one. */
function addClassPair(part: PairPart, first: number[], second: number[], value: PairValue): void {
  if (first.length === 0 || second.length === 0) return;
  const last = part.classes[part.classes.length - 1];
  const places = last && ([place(last.first, first), place(last.second, second)] as const);
  const fits = places && places[0] !== undefined && places[1] !== undefined;
  const matrix: ClassPart = fits ? last : { first: [], second: [], values: new Map() };
  if (!fits) part.classes.push(matrix);
  const number = (list: readonly number[][], set: number[]): number => {
    const at = list.findIndex((s) => String(s) === String(set));
    return at >= 0 ? at : (list as number[][]).push(set) - 1;
  };
  const key = `${number(matrix.first, first)} ${number(matrix.second, second)}`;
  if (!matrix.values.has(key)) matrix.values.set(key, value);
}

/** Where a class is in a list, or may be added (−1); undefined where it shares glyphs with another. */
function place(list: readonly (readonly number[])[], set: readonly number[]): number | undefined {
  const at = list.findIndex((s) => String(s) === String(set));
  if (at >= 0) return at;
  const members = new Set(set);
  return list.some((s) => s.some((g) => members.has(g))) ? undefined : -1;
}

function addContextPosition(bench: RuleBench, rule: Pos): void {
  const { pattern } = rule;
  const { names, isVertical } = bench;
  const chain = bench.lookupFor('GPOS', 'context', rule);
  const calls = called(bench, pattern.input, 'GPOS');
  const rules = rulesOf(chain, 'context').rules;
  pattern.input.forEach((item, at) => {
    if (!item.value) return;
    const value = names.value(item.value, isVertical);
    const glyphs = names.glyphs(item.set);
    calls.push({ at, lookup: inlineMove(bench, rules, glyphs, value, rule) });
  });
  calls.sort((a, b) => a.at - b.at);
  rules.push({ ...contextOf(names, pattern), calls, from: { from: rule.from, to: rule.to } });
}

function inlineMove(
  bench: RuleBench,
  rules: Of<'context'>['rules'],
  glyphs: readonly number[],
  value: Value,
  at: Span,
): DraftLookup {
  const text = JSON.stringify(value);
  for (const { calls } of rules)
    for (const { lookup } of calls) {
      const own = lookup.parts[0];
      if (lookup.name !== undefined || own?.kind !== 'move') continue;
      if (glyphs.some((g) => own.by.has(g) && JSON.stringify(own.by.get(g)) !== text)) continue;
      for (const g of glyphs) own.by.set(g, value);
      return lookup;
    }
  const lookup = bench.own('GPOS', at);
  const { by } = rulesOf(lookup, 'move');
  for (const g of glyphs) by.set(g, value);
  return lookup;
}

export function addCursive(bench: RuleBench, rule: Extract<Statement, { kind: 'cursive' }>): void {
  const { by } = rulesOf(bench.lookupFor('GPOS', 'cursive', rule), 'cursive');
  const [entry, exit] = [bench.names.anchor(rule.entry), bench.names.anchor(rule.exit)];
  for (const g of bench.names.glyphs(rule.set))
    note(bench, by, g, { ...(entry && { entry }), ...(exit && { exit }) }, rule, 'This glyph');
}

/** Anchors by their classes of marks. */
function seatsOf(bench: RuleBench, list: readonly Attachment[], classes: string[], at: Span): Map<string, AnchorAt> {
  const out = new Map<string, AnchorAt>();
  for (const { anchor, markClass } of list) {
    const place = bench.names.anchor(anchor);
    if (!markClass || !place) continue;
    if (!bench.names.markClasses.has(markClass.name))
      throw new FeatureFault(`The class of marks @${markClass.name} is not defined before this place.`, markClass);
    if (!classes.includes(markClass.name)) classes.push(markClass.name);
    if (out.has(markClass.name)) bench.tell(`@${markClass.name} has an anchor here already.`, at, 'attention');
    else out.set(markClass.name, place);
  }
  return out;
}

export function addAttachment(bench: RuleBench, rule: Extract<Statement, { kind: 'attach' }>): void {
  const lookup = bench.lookupFor('GPOS', 'attach', rule, (r) => r.kind === 'attach' && r.onto === rule.onto);
  const rules = rulesOf(lookup, 'attach');
  rules.onto = rule.onto;
  const seats = seatsOf(bench, rule.attachments, rules.classes, rule);
  for (const g of bench.names.glyphs(rule.set)) {
    const there = rules.seats.get(g);
    const twice = [...seats.keys()].find((c) => there?.has(c) && !sameAnchor(there.get(c)!, seats.get(c)!));
    if (twice !== undefined)
      bench.tell(`A glyph has another anchor for @${twice} in this lookup; this one is taken.`, rule.set, 'attention');
    rules.seats.set(g, there ? new Map([...there, ...seats]) : seats);
  }
}

const sameAnchor = (a: AnchorAt, b: AnchorAt): boolean => JSON.stringify(a) === JSON.stringify(b);

export function addPartsAttachment(bench: RuleBench, rule: Extract<Statement, { kind: 'attachParts' }>): void {
  const rules = rulesOf(bench.lookupFor('GPOS', 'attachParts', rule), 'attachParts');
  const parts = rule.parts.map((p) => seatsOf(bench, p, rules.classes, rule));
  for (const g of bench.names.glyphs(rule.set)) {
    if (rules.parts.has(g))
      bench.tell('A ligature has other anchors in this lookup; these are taken.', rule.set, 'attention');
    rules.parts.set(g, parts);
  }
}

export type { Flag };
