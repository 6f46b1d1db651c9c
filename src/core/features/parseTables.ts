import { type Cursor, FeatureFault } from './cursor';
import { name } from './parseNames';
import { glyphs, startsGlyphs } from './parseValues';
import type { GlyphSet, NameText, Statement, TableStatement } from './tree';

/** What may stand in the block of each table. */
export const TABLE_LINES: Readonly<Record<string, readonly string[]>> = {
  BASE: [
    'HorizAxis.BaseTagList',
    'HorizAxis.BaseScriptList',
    'HorizAxis.MinMax',
    'VertAxis.BaseTagList',
    'VertAxis.BaseScriptList',
    'VertAxis.MinMax',
  ],
  GDEF: ['GlyphClassDef', 'Attach', 'LigatureCaretByPos', 'LigatureCaretByIndex', 'LigatureCaretByDev'],
  head: ['FontRevision'],
  hhea: ['CaretOffset', 'Ascender', 'Descender', 'LineGap'],
  name: ['nameid'],
  'OS/2': [
    'FSType',
    'Panose',
    'UnicodeRange',
    'CodePageRange',
    'TypoAscender',
    'TypoDescender',
    'TypoLineGap',
    'winAscent',
    'winDescent',
    'XHeight',
    'CapHeight',
    'WeightClass',
    'WidthClass',
    'Vendor',
    'LowerOpSize',
    'UpperOpSize',
    'FamilyClass',
  ],
  STAT: ['ElidedFallbackName', 'ElidedFallbackNameID', 'DesignAxis', 'AxisValue'],
  vhea: ['VertTypoAscender', 'VertTypoDescender', 'VertTypoLineGap'],
  vmtx: ['VertOriginY', 'VertAdvanceY'],
};

/** `table TAG { … } TAG;` */
export function tableBlock(c: Cursor): Statement {
  const { from } = c.take();
  const token = c.word('The tag of the table');
  const tag = token.text;
  const known = TABLE_LINES[tag];
  if (!known) c.fail(`The language has no table ${tag}; it has ${Object.keys(TABLE_LINES).join(', ')}.`, token);
  const open = c.expect('{', 'A table');
  const body: TableStatement[] = [];
  while (!c.is('}')) {
    if (c.isEnd) c.fail(`The table ${tag} begins here and does not end.`, open);
    if (c.takes(';')) continue;
    try {
      body.push(line(c, tag, known));
    } catch (error) {
      if (!(error instanceof FeatureFault)) throw error;
      c.tell(error.reason, error.at);
      c.recover();
    }
  }
  c.expect('}', 'A table');
  const again = c.word('The tag behind the table');
  if (again.text !== tag) c.tell(`The table ${tag} ends as “${again.text}”.`, again);
  c.expect(';', 'A table');
  return { kind: 'table', tag, body, from, to: c.end };
}

function line(c: Cursor, tag: string, known: readonly string[]): TableStatement {
  const token = c.word('A line of the table');
  const keyword = token.text;
  if (!known.includes(keyword)) c.fail(`The table ${tag} has no “${keyword}”.`, token);
  const sets: GlyphSet[] = [];
  const numbers: number[] = [];
  const words: string[] = [];
  const list: NameText[] = [];
  if (keyword === 'GlyphClassDef') classes(c, sets);
  else if (tag === 'GDEF' || tag === 'vmtx') {
    sets.push(glyphs(c));
    while (c.now.kind === 'number') numbers.push(c.number('A number'));
  } else if (keyword === 'nameid') {
    numbers.push(c.integer('The number of a name', 0, 32767));
    list.push(name(c));
  } else if (c.is('{')) {
    block(c, words, numbers, list);
  } else rest(c, words, numbers, list);
  if (keyword !== 'DesignAxis' && keyword !== 'AxisValue' && keyword !== 'ElidedFallbackName')
    c.expect(';', `“${keyword}”`);
  else c.takes(';');
  return { keyword, sets, numbers, words, names: list, from: token.from, to: c.end };
}

/** Bases, ligatures, marks, components: each may be left out. */
function classes(c: Cursor, sets: GlyphSet[]): void {
  for (let i = 0; i < 4; i++) {
    sets.push(startsGlyphs(c) ? glyphs(c) : { kind: 'list', items: [], from: c.now.from, to: c.now.from });
    if (!c.takes(',')) break;
  }
}

/** Words, numbers and texts up to the semicolon. */
function rest(c: Cursor, words: string[], numbers: number[], list: NameText[]): void {
  while (!c.is(';') && !c.is('}') && !c.isEnd) {
    if (c.is('{')) block(c, words, numbers, list);
    else if (c.now.kind === 'number') numbers.push(c.number('A number'));
    else if (c.now.kind === 'string') words.push(c.take().text.slice(1, -1));
    else words.push(c.take().text);
  }
}

/** A block within a line, as axes and their values have: its lines one after the other. */
function block(c: Cursor, words: string[], numbers: number[], list: NameText[]): void {
  const open = c.expect('{', 'A block');
  while (!c.is('}')) {
    if (c.isEnd) c.fail('This block does not end.', open);
    if (c.takes('name')) {
      list.push(name(c));
      c.expect(';', 'A name');
    } else if (c.takes(';')) words.push(';');
    else if (c.now.kind === 'number') numbers.push(c.number('A number'));
    else words.push(c.take().text);
  }
  c.expect('}', 'A block');
}
