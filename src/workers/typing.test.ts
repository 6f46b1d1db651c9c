import { SHIPPED } from '../core/scripting/shipped/shipped';
import { libraries } from '../typing/libraries';
import { typingServiceWith } from './typing';

/** Scripts by types: what does not fit is told with its place; what fits is left alone; members are those of the thing itself. */
const typing = typingServiceWith(libraries());
const told = (text: string) => typing.faults(text).map((f) => [f.line, text.slice(f.from, f.to), f.reason]);

test('scripts that come with Wendril fit', () => {
  for (const { title, text } of SHIPPED) expect([title, told(text)]).toEqual([title, []]);
}, 120_000);

test('what is set, given or named wrongly is told with its place', () => {
  expect(told("\nfont.glyph('n').drawing().left = 'wide';")).toEqual([
    [2, "font.glyph('n').drawing().left", "Type 'string' is not assignable to type 'number'."],
  ]);
  expect(told('edits.setSides({ at: chosen[0].drawing(), lefft: 5 });')).toEqual([
    [1, 'lefft', expect.stringMatching(/'lefft' does not exist/)],
  ]);
  expect(told('const { by } = ask({ by: { number: 1 } });\nby.trim();')).toEqual([
    [2, 'trim', "Property 'trim' does not exist on type 'number'."],
  ]);
  expect(told('font.glyfs;')).toEqual([[1, 'glyfs', expect.stringMatching(/'glyfs' does not exist/)]]);
  expect(told('for (const g of chosen) g.drawing(masters[0], 1);')).toEqual([
    [1, '1', 'Expected 0-1 arguments, but got 2.'],
  ]);
});

test('glyphs are given where edits take their ids', () => {
  const side = (of: string) => `{ kind: 'glyph', id: font.glyph('${of}') }`;
  expect(told(`edits.setPair({ master: masters[0], first: ${side('H')}, second: ${side('O')}, value: 3 });`)).toEqual(
    [],
  );
  expect(told('edits.removeGlyphs({ ids: chosen }); edits.setSides({ at: chosen[0].drawing(), left: 3 });')).toEqual(
    [],
  );
});

test('edits of every stage are known', () => {
  expect(told("edits.deriveSet({ set: 'keys' });")).toEqual([]);
  expect(told('edits.reweightGlyphs({});').length).toBe(1);
});

test('nothing of a page is there, and nothing is advised that a script cannot do', () => {
  expect(told('new Date();')).toEqual([[1, 'Date', expect.stringMatching(/Date/)]]);
  expect(told('document.title; fetch(1); setTimeout(say)')).toEqual([
    [1, 'document', "Cannot find name 'document'."],
    [1, 'fetch', "Cannot find name 'fetch'."],
    [1, 'setTimeout', "Cannot find name 'setTimeout'."],
  ]);
});

test('a script may use names of its own, comments and quoted words are no code, and what cannot be read is left to the reading', () => {
  expect(told('const font = 3, chosen = [font]; say(chosen.length); // font.nothing')).toEqual([]);
  expect(told("say('font.nothing', `edits.none`); /* shapes.none */")).toEqual([]);
  expect(told('for (;;) {')).toEqual([]);
});

test('members are those of what stands before the point, with what each is', () => {
  const names = (text: string) => typing.members(text, text.length).map((m) => m.name);
  const drawing = "const d = font.glyph('n').drawing();\nd.";
  expect(names(drawing)).toEqual(expect.arrayContaining(['left', 'right', 'contours', 'glyph']));
  expect(names(drawing)).not.toContain('unicodes');
  expect(names("const { which } = ask({ which: { glyphs: '' } });\nwhich[0].")).toContain('drawing');
  expect(names('[3].')).toContain('map');
  expect(names('nobody.')).toEqual([]);
  expect(typing.about(drawing, drawing.length, 'left')).toEqual({
    form: 'Drawing.left: number',
    does: expect.stringMatching(/side bearing/),
  });
  expect(typing.named(drawing, drawing.length - 2)).toMatchObject({ form: 'const d: Drawing', to: drawing.length - 1 });
});

test('a call is told with the argument that is written, until it is closed', () => {
  const call = "font.glyph('n').drawing(";
  expect(typing.callAt(call, call.length)).toMatchObject({
    form: 'drawing(master?: Master): Drawing',
    argument: 'master?: Master',
  });
  expect(typing.callAt(`${call})`, call.length + 1)).toBeUndefined();
});

test('a text of any length ends the question, not the worker', () => {
  expect(told(`${'font.glyfs;\n'.repeat(50_000)}`)).toEqual([]);
});
