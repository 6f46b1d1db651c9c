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
  const parts: Part[] = [];
  const places: Place[] = [];
  if (keyword === 'GlyphClassDef') classes(c, sets);
  else if (tag === 'GDEF' || tag === 'vmtx') {
    sets.push(glyphs(c));
    while (c.now.kind === 'number') numbers.push(c.number('A number'));
  } else if (keyword === 'nameid') {
    numbers.push(c.integer('The number of a name', 0, 32767));
    list.push(name(c));
  } else if (keyword === 'AxisValue' || keyword === 'ElidedFallbackName') block(c, { words, list, places });
  else if (keyword === 'DesignAxis') {
    words.push(c.word('The tag of an axis').text);
    numbers.push(c.integer('The order of an axis', 0, 65535));
    block(c, { words: [], list, places: [] });
  } else {
    parts.push(...rest(c));
    words.push(...parts.flatMap((p) => p.words));
    numbers.push(...parts.flatMap((p) => p.numbers));
  }
  if (keyword !== 'DesignAxis' && keyword !== 'AxisValue' && keyword !== 'ElidedFallbackName')
    c.expect(';', `“${keyword}”`);
  else c.takes(';');
  return { keyword, sets, numbers, words, names: list, parts, places, from: token.from, to: c.end };
}

type Part = { words: string[]; numbers: number[] };
type Place = { axis: string; numbers: number[] };

/** Bases, ligatures, marks, components: each may be left out. */
function classes(c: Cursor, sets: GlyphSet[]): void {
  for (let i = 0; i < 4; i++) {
    sets.push(startsGlyphs(c) ? glyphs(c) : { kind: 'list', items: [], from: c.now.from, to: c.now.from });
    if (!c.takes(',')) break;
  }
}

/** Words, numbers and texts up to the semicolon, cut at commas. */
function rest(c: Cursor): Part[] {
  const parts: Part[] = [{ words: [], numbers: [] }];
  while (!c.is(';') && !c.is('}') && !c.isEnd) {
    const part = parts[parts.length - 1]!;
    if (c.takes(',')) parts.push({ words: [], numbers: [] });
    else if (c.now.kind === 'number') part.numbers.push(c.number('A number'));
    else if (c.now.kind === 'string') part.words.push(c.take().text.slice(1, -1));
    else if (c.now.kind === 'symbol') c.fail(`“${c.now.text}” has no place in this line.`);
    else part.words.push(c.take().text);
  }
  return parts;
}

/** A block of names, flags and places on axes. */
function block(c: Cursor, { words, list, places }: { words: string[]; list: NameText[]; places: Place[] }): void {
  const open = c.expect('{', 'A block');
  while (!c.is('}')) {
    if (c.isEnd) c.fail('This block does not end.', open);
    if (c.takes('name')) list.push(name(c));
    else if (c.takes('location')) places.push(place(c));
    else if (c.takes('flag')) while (c.now.kind === 'word') words.push(c.take().text);
    else if (!c.is(';')) c.fail(`A name, a location or a flag stands here${c.found()}.`);
    c.expect(';', 'A line of the block');
  }
  c.expect('}', 'A block');
}

/** A place on an axis: `wght 400`, `wght 400 700` linked to another, `wght 400 350 450` with its range. */
function place(c: Cursor): Place {
  const axis = c.word('The tag of an axis').text;
  const numbers: number[] = [];
  while (c.now.kind === 'number') numbers.push(c.number('A place'));
  return { axis, numbers };
}
