import { Cursor, FeatureFault } from './cursor';
import { names } from './parseNames';
import { ignore, positioning, substitution } from './parseRules';
import { tableBlock } from './parseTables';
import { anchor, glyphs, place, value } from './parseValues';
import { tokensOf } from './tokens';
import type { Statement, Tree } from './tree';

/** Blocks in blocks beyond this are refused. */
const DEEPEST = 8;
/** Faults beyond this are not told one by one. */
const MOST_FAULTS = 200;

/**
 * Reads feature text (OpenType Feature File Specification 1.26). Goes on after a fault, so that all are found at once; every
 * statement keeps its place in the text.
 */
export function parseFeatures(text: string): Tree {
  const { tokens, comments, faults } = tokensOf(text);
  const c = new Cursor(tokens, text);
  const statements = body(c, 0);
  const all = [...faults.map((f) => ({ ...f, severity: 'error' as const })), ...c.faults];
  all.sort((a, b) => a.from - b.from);
  return { statements, comments, faults: all.slice(0, MOST_FAULTS) };
}

/** Statements up to the end of the block, or of the text. */
function body(c: Cursor, depth: number): Statement[] {
  const out: Statement[] = [];
  while (!c.isEnd) {
    if (c.is('}')) {
      if (depth > 0) return out;
      c.tell('This bracket closes nothing.', c.take());
      if (c.now.kind === 'word' && c.after.text === ';') c.take();
      continue;
    }
    try {
      out.push(statement(c, depth));
    } catch (error) {
      if (!(error instanceof FeatureFault)) throw error;
      c.tell(error.reason, error.at);
      if (c.faults.length > MOST_FAULTS) while (!c.isEnd) c.take();
      c.recover();
    }
  }
  return out;
}

const anonymous = new Set(['anon', 'anonymous']);

function statement(c: Cursor, depth: number): Statement {
  const token = c.now;
  const { from } = token;
  const to = () => ({ from, to: c.end });
  if (c.takes(';')) return { kind: 'empty', ...to() };
  if (token.kind === 'class') return glyphClass(c);
  if (token.kind !== 'word') return c.fail(`A statement cannot begin with “${token.text}”.`);
  switch (token.text) {
    case 'languagesystem': {
      c.take();
      const [script, language] = [tag(c, 'The script'), tag(c, 'The language')];
      c.expect(';', '“languagesystem”');
      return { kind: 'languagesystem', script, language, ...to() };
    }
    case 'markClass': {
      c.take();
      const set = glyphs(c);
      const own = anchor(c);
      if (c.now.kind !== 'class') c.fail(`The name of the class (@…) is missing${c.found()}.`);
      const name = c.take().text.slice(1);
      c.expect(';', 'A class of marks');
      return { kind: 'markClass', name, set, anchor: own, ...to() };
    }
    case 'anchorDef': {
      c.take();
      const own = { ...place(c), ...to() };
      const name = c.word('The name of the anchor').text;
      c.expect(';', 'The definition of an anchor');
      return { kind: 'anchorDef', name, anchor: own, ...to() };
    }
    case 'valueRecordDef': {
      c.take();
      const own = value(c);
      const name = c.word('The name of the value').text;
      c.expect(';', 'The definition of a value');
      return { kind: 'valueRecordDef', name, value: own, ...to() };
    }
    case 'include':
      return include(c);
    case 'feature':
      return depth === 0 ? block(c, depth) : featureReference(c);
    case 'lookup':
      return lookup(c, depth);
    case 'variation':
      return variation(c, depth);
    case 'conditionset':
      return conditions(c);
    case 'table':
      return tableBlock(c);
    case 'script': {
      c.take();
      const own = tag(c, 'The script');
      c.expect(';', '“script”');
      return { kind: 'script', tag: own, ...to() };
    }
    case 'language':
      return language(c);
    case 'lookupflag':
      return lookupflag(c);
    case 'subtable':
      c.take();
      c.expect(';', '“subtable”');
      return { kind: 'subtable', ...to() };
    case 'sub':
    case 'substitute':
    case 'rsub':
    case 'reversesub':
      return substitution(c);
    case 'pos':
    case 'position':
    case 'enum':
    case 'enumerate':
      return positioning(c);
    case 'ignore':
      return ignore(c);
    case 'parameters': {
      c.take();
      const values: number[] = [];
      // Sizes with a point are in points, others in tenths of them.
      while (c.now.kind === 'number') {
        const inPoints = c.now.text.includes('.');
        values.push(c.number('A parameter') * (inPoints ? 10 : 1));
      }
      c.expect(';', '“parameters”');
      return { kind: 'parameters', values, ...to() };
    }
    case 'sizemenuname':
      return names(c, true);
    case 'featureNames':
    case 'FeatUILabelNameID':
    case 'FeatUITooltipTextNameID':
    case 'SampleTextNameID':
    case 'ParamUILabelNameID':
      return names(c, false);
    case 'cvParameters': {
      c.take();
      c.expect('{', '“cvParameters”');
      const inside = body(c, depth + 1);
      c.expect('}', '“cvParameters”');
      c.expect(';', '“cvParameters”');
      return { kind: 'cvParameters', body: inside, ...to() };
    }
    case 'Character': {
      c.take();
      const codes = [c.integer('A code point', 0, 0x10ffff)];
      c.expect(';', '“Character”');
      return { kind: 'characters', codes, ...to() };
    }
  }
  if (anonymous.has(token.text)) return anon(c);
  return c.fail(`“${token.text}” is no statement of the feature language${near(token.text)}.`);
}

const STATEMENTS =
  'languagesystem markClass anchorDef valueRecordDef include feature lookup variation conditionset table script language lookupflag subtable sub substitute rsub pos position enum ignore parameters featureNames cvParameters anon'.split(
    ' ',
  );

/** The statement that a misspelt word may have meant. */
function near(word: string): string {
  const close = STATEMENTS.filter((s) => Math.abs(s.length - word.length) <= 2 && distance(s, word.toLowerCase()) <= 2);
  return close.length > 0 ? `; near: ${close.slice(0, 3).join(', ')}` : '';
}

/** How many letters must change, come or go to make one word the other (Levenshtein). */
export function distance(a: string, b: string): number {
  let above = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i++) {
    const row = [i];
    for (let k = 1; k <= b.length; k++)
      row.push(Math.min(above[k]! + 1, row[k - 1]! + 1, above[k - 1]! + (a[i - 1] === b[k - 1] ? 0 : 1)));
    above = row;
  }
  return above[b.length]!;
}

/** A tag of one to four characters, filled up with spaces. */
export function tag(c: Cursor, what: string): string {
  const token = c.word(what);
  if (token.text.length > 4) c.fail(`${what} is a tag of at most four characters; “${token.text}” is longer.`, token);
  return token.text.padEnd(4, ' ');
}

function glyphClass(c: Cursor): Statement {
  const token = c.take();
  c.expect('=', 'The definition of a class');
  const set = glyphs(c);
  c.expect(';', 'The definition of a class');
  return { kind: 'glyphClass', name: token.text.slice(1), set, from: token.from, to: c.end };
}

function include(c: Cursor): Statement {
  const { from } = c.take();
  const open = c.expect('(', '“include”');
  // A path is any text up to the bracket.
  const close = c.text.indexOf(')', open.to);
  if (close < 0) c.fail('The path of an included file does not end.', open);
  const path = c.text.slice(open.to, close).trim();
  while (!c.isEnd && c.now.from < close) c.take();
  c.expect(')', '“include”');
  c.takes(';');
  return { kind: 'include', path, from, to: c.end };
}

/** The statements of a block, and its name again behind it. */
function inside(c: Cursor, depth: number, what: string, name: string): Statement[] {
  const open = c.expect('{', what);
  if (depth >= DEEPEST) c.fail('Blocks stand too deep in one another.', open);
  const statements = body(c, depth + 1);
  if (c.isEnd) c.fail(`${what} ${name.trim()} begins here and does not end.`, open);
  c.expect('}', what);
  const again = c.word(`The name of ${what} behind its end`);
  if (again.text.padEnd(4) !== name.padEnd(4)) c.tell(`${what} ${name.trim()} ends as “${again.text}”.`, again);
  c.expect(';', what);
  return statements;
}

function block(c: Cursor, depth: number): Statement {
  const { from } = c.take();
  const tagAt = c.now;
  const own = tag(c, 'The tag of the feature');
  const extension = c.takes('useExtension');
  const statements = inside(c, depth, 'the feature', own);
  const span = { from: tagAt.from, to: tagAt.to };
  return { kind: 'feature', tag: own, tagAt: span, extension, body: statements, from, to: c.end };
}

function featureReference(c: Cursor): Statement {
  const { from } = c.take();
  const own = tag(c, 'The tag of the feature');
  c.expect(';', '“feature”');
  return { kind: 'featureRef', tag: own, from, to: c.end };
}

function variation(c: Cursor, depth: number): Statement {
  const { from } = c.take();
  const own = tag(c, 'The tag of the feature');
  const condition = c.word('The name of the conditions').text;
  const extension = c.takes('useExtension');
  const statements = inside(c, depth, 'the variation', own);
  return { kind: 'variation', tag: own, condition, body: statements, from, to: extension ? c.end : c.end };
}

function conditions(c: Cursor): Statement {
  const { from } = c.take();
  const name = c.word('The name of the conditions').text;
  c.expect('{', '“conditionset”');
  const ranges: { axis: string; least: number; most: number }[] = [];
  while (!c.is('}') && !c.isEnd) {
    const axis = tag(c, 'The tag of an axis');
    ranges.push({ axis, least: c.number('The least place'), most: c.number('The greatest place') });
    c.expect(';', 'A condition');
  }
  c.expect('}', '“conditionset”');
  c.word('The name of the conditions behind their end');
  c.expect(';', '“conditionset”');
  return { kind: 'conditionset', name, ranges, from, to: c.end };
}

function lookup(c: Cursor, depth: number): Statement {
  const { from } = c.take();
  const nameAt = c.now;
  const name = c.word('The name of the lookup').text;
  if (c.takes(';')) return { kind: 'lookupRef', name, from, to: c.end };
  const extension = c.takes('useExtension');
  const statements = inside(c, depth, 'the lookup', name);
  const span = { from: nameAt.from, to: nameAt.to };
  return { kind: 'lookup', name, nameAt: span, extension, body: statements, from, to: c.end };
}

function language(c: Cursor): Statement {
  const { from } = c.take();
  const own = tag(c, 'The language');
  let [withDefault, required] = [true, false];
  for (;;) {
    if (c.takes('exclude_dflt') || c.takes('excludeDFLT')) withDefault = false;
    else if (c.takes('include_dflt') || c.takes('includeDFLT')) withDefault = true;
    else if (c.takes('required')) required = true;
    else break;
  }
  c.expect(';', '“language”');
  return { kind: 'language', tag: own, withDefault, required, from, to: c.end };
}

const FLAGS: Readonly<Record<string, number>> = {
  RightToLeft: 1,
  IgnoreBaseGlyphs: 2,
  IgnoreLigatures: 4,
  IgnoreMarks: 8,
};

function lookupflag(c: Cursor): Statement {
  const { from } = c.take();
  const out: { flags: number; attachment?: ReturnType<typeof glyphs>; filter?: ReturnType<typeof glyphs> } = {
    flags: 0,
  };
  if (c.now.kind === 'number') out.flags = c.integer('“lookupflag”', 0, 65535);
  else {
    if (c.is(';')) c.fail('“lookupflag” says which glyphs are skipped; 0 stands for none.');
    while (!c.is(';')) {
      const word = c.word('A flag');
      if (word.text === 'MarkAttachmentType') out.attachment = glyphs(c);
      else if (word.text === 'UseMarkFilteringSet') out.filter = glyphs(c);
      else if (FLAGS[word.text] !== undefined) out.flags |= FLAGS[word.text]!;
      else c.fail(`“${word.text}” is no flag of lookups; there are ${Object.keys(FLAGS).join(', ')}.`, word);
    }
  }
  c.expect(';', '“lookupflag”');
  return { kind: 'lookupflag', ...out, from, to: c.end };
}

/** A block of text for other programs: anything up to `} tag;`. */
function anon(c: Cursor): Statement {
  const { from } = c.take();
  const own = c.word('The tag of the text').text;
  const open = c.expect('{', 'An anonymous block');
  const end = new RegExp(`\\}\\s*${own.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}\\s*;`, 'g');
  end.lastIndex = open.to;
  const found = end.exec(c.text);
  if (!found) c.fail('This anonymous block does not end.', open);
  while (!c.isEnd && c.now.from < found.index + found[0].length) c.take();
  return { kind: 'anon', tag: own, text: c.text.slice(open.to, found.index), from, to: found.index + found[0].length };
}
