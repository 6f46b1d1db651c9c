import type { Cursor } from './cursor';
import { anchor, glyphs, startsGlyphs, startsValue, value } from './parseValues';
import type { AnchorText, Attachment, GlyphSet, Item, Pattern, Span, Statement } from './tree';

/** Longest pattern of a rule. */
const MOST_ITEMS = 64;

/** Shared by all places and patterns that have none. */
const NONE: readonly never[] = [];

/** Places of a row, and which of them are marked with an apostrophe. */
type Row = { items: Item[]; marks: boolean[] };

/** A row of glyphs, some marked with an apostrophe, with lookups or values behind them. */
function row(c: Cursor, withValues: boolean): Row {
  const items: Item[] = [];
  const marks: boolean[] = [];
  while (startsGlyphs(c)) {
    if (items.length >= MOST_ITEMS) c.fail(`A rule is about ${MOST_ITEMS} glyphs in a row at most.`);
    const set = glyphs(c);
    marks.push(c.takes("'"));
    const lookups = c.is('lookup') ? calls(c) : NONE;
    const own = withValues && startsValue(c) ? value(c) : undefined;
    items.push(own ? { set, lookups, value: own } : { set, lookups });
  }
  return { items, marks };
}

/** Lookups that a place calls. */
function calls(c: Cursor): Item['lookups'] {
  const out: (Span & { name: string })[] = [];
  while (c.is('lookup')) {
    const { from } = c.take();
    const name = c.word('The name of a lookup').text;
    out.push({ name, from, to: c.end });
  }
  return out;
}

/** A row as a pattern: what comes before the first marked place, what lies between, what comes behind the last. */
function pattern(c: Cursor, { items, marks }: Row, at: Span): Pattern {
  const first = marks.indexOf(true);
  if (first < 0) {
    const stray = items.find((i) => i.lookups.length > 0);
    if (stray) c.fail('A lookup is called for a glyph marked with an apostrophe.', stray.lookups[0]!);
    return { back: NONE, input: items, ahead: NONE, isContext: false };
  }
  const last = marks.lastIndexOf(true);
  const gap = items.find((_, i) => i > first && i < last && !marks[i]);
  if (gap) c.fail('The marked glyphs of a rule must stand together; this one is not marked.', gap.set);
  const input = items.slice(first, last + 1);
  const [back, ahead] = [items.slice(0, first), items.slice(last + 1)];
  const outside = [...back, ...ahead];
  const stray = outside.find((i) => i.lookups.length > 0);
  if (stray) c.fail('A lookup is called for a glyph marked with an apostrophe.', stray.lookups[0]!);
  // A value behind the context stands for the last marked glyph, as the specification allows.
  const valued = outside.filter((i) => i.value);
  if (valued.length > 0) {
    const only = valued.length === 1 && items[items.length - 1] === valued[0] && input.every((i) => !i.value);
    if (!only || input.length !== 1) c.fail('A value stands behind a marked glyph.', valued[0]!.set);
    input[0] = { ...input[0]!, value: valued[0]!.value! };
  }
  if (items.length === 0) c.fail('A rule needs glyphs.', at);
  return { back: back.map((i) => i.set), input, ahead: ahead.map((i) => i.set), isContext: true };
}

/** `sub …;`, `rsub …;` */
export function substitution(c: Cursor): Statement {
  const at = c.take();
  const reverse = at.text === 'rsub' || at.text === 'reversesub';
  const items = row(c, false);
  if (items.items.length === 0) c.fail(`A substitution needs a glyph to replace${c.found()}.`);
  const found = pattern(c, items, at);
  let by: GlyphSet[] | undefined;
  let choice: GlyphSet | undefined;
  if (c.takes('by')) {
    by = [];
    if (!c.takes('NULL')) while (startsGlyphs(c)) by.push(glyphs(c));
    if (by.length === 0 && c.end > 0 && c.text.slice(c.end - 4, c.end) !== 'NULL')
      c.fail(`What replaces it is missing${c.found()}.`);
  } else if (c.takes('from')) choice = glyphs(c);
  else if (!found.isContext && !reverse) {
    // A bare glyph is replaced by nothing, as `by NULL`.
    if (found.input.length === 1 && c.is(';')) by = [];
    else c.fail(`A substitution says “by” what or “from” which glyphs${c.found()}.`);
  }
  c.expect(';', 'A substitution');
  return { kind: 'sub', pattern: found, by, choice, reverse, from: at.from, to: c.end };
}

/** `ignore sub a' b, c' d;` */
export function ignore(c: Cursor): Statement {
  const { from } = c.take();
  const what = c.take();
  if (!/^(sub|substitute|rsub|reversesub|pos|position)$/.test(what.text))
    c.fail('“ignore” is followed by sub or pos.', what);
  const patterns: Pattern[] = [];
  do {
    const at = c.now;
    const items = row(c, false);
    if (items.items.length === 0) c.fail(`A context to be left alone is missing${c.found()}.`);
    const found = pattern(c, items, at);
    // Without a mark the first glyph is meant.
    if (!found.isContext && found.input.length > 0) {
      const [head, ...rest] = found.input as [Item, ...Item[]];
      patterns.push({ back: [], input: [head], ahead: rest.map((i) => i.set), isContext: true });
    } else patterns.push(found);
  } while (c.takes(','));
  c.expect(';', '“ignore”');
  return { kind: 'ignore', table: what.text.startsWith('pos') ? 'GPOS' : 'GSUB', patterns, from, to: c.end };
}

/** `<anchor …> mark @CLASS`, one or several. */
function attachments(c: Cursor): Attachment[] {
  const out: Attachment[] = [];
  while (c.is('<')) {
    const own = anchor(c);
    let markClass: Attachment['markClass'];
    if (c.takes('mark')) {
      if (c.now.kind !== 'class') c.fail(`A class of marks (@…) is missing${c.found()}.`);
      const token = c.take();
      markClass = { name: token.text.slice(1), from: token.from, to: token.to };
    } else if (own.kind !== 'null') c.fail(`An anchor is followed by “mark” and a class of marks${c.found()}.`);
    out.push({ anchor: own, markClass });
  }
  return out;
}

/** `pos …;`, `enum pos …;` */
export function positioning(c: Cursor): Statement {
  const start = c.now;
  const each = c.takes('enum') || c.takes('enumerate');
  const at = c.take();
  if (at.text !== 'pos' && at.text !== 'position') c.fail('“enum” is followed by pos.', at);
  const span = () => ({ from: start.from, to: c.end });
  // `cursive`, `base` and so on are names of glyphs too: what follows tells.
  if (c.is('cursive') && c.after.text !== "'") {
    c.take();
    const set = glyphs(c);
    const [entry, exit]: [AnchorText, AnchorText] = [anchor(c), anchor(c)];
    c.expect(';', 'A rule of joining');
    return { kind: 'cursive', set, entry, exit, ...span() };
  }
  if ((c.is('base') || c.is('mark')) && startsSet(c)) {
    const onto = c.take().text as 'base' | 'mark';
    const set = glyphs(c);
    const list = attachments(c);
    if (list.length === 0) c.fail(`An anchor is missing${c.found()}.`);
    c.expect(';', 'A rule of marks');
    return { kind: 'attach', onto, set, attachments: list, ...span() };
  }
  if (c.is('ligature') && startsSet(c)) {
    c.take();
    const set = glyphs(c);
    const parts: Attachment[][] = [attachments(c)];
    while (c.takes('ligComponent')) parts.push(attachments(c));
    c.expect(';', 'A rule of marks');
    return { kind: 'attachParts', set, parts, ...span() };
  }
  const items = row(c, true);
  if (items.items.length === 0) c.fail(`A position needs a glyph${c.found()}.`);
  const found = pattern(c, items, at);
  c.expect(';', 'A position');
  return { kind: 'pos', pattern: found, each, ...span() };
}

const startsSet = (c: Cursor): boolean =>
  ['class', 'cid', 'escaped', 'word'].includes(c.after.kind) || c.after.text === '[';
