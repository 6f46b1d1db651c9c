import { GlyphIndex } from './glyphIndex';
import { compileSections } from './sections';

const compiled = (text: string, options: { waiting?: string[]; away?: string[] } = {}) =>
  compileSections(
    [{ id: 'x', title: 'Own', text }],
    {},
    {
      glyphs: ['.notdef', 'a', 'b', 'c', 'e', 'f_i'],
      waiting: new Set(options.waiting ?? []),
      away: new Set(options.away ?? []),
    },
  );
const told = (text: string, options?: Parameters<typeof compiled>[1]) =>
  compiled(text, options).faults.map((f) => `${f.severity}: ${f.reason}`);

test('a glyph that is nowhere is an error with what is near it; one that waits is said to; one that is away is not spoken of', () => {
  const rule = 'feature ss01 { sub a by d; sub b by c; } ss01;';
  expect(told(rule)).toEqual([expect.stringMatching(/^error: Glyph d is not in the project\./)]);
  expect(told(rule, { waiting: ['d'] })).toEqual(['attention: Glyph d is not drawn yet; what names it waits.']);
  expect(told(rule, { away: ['d'] })).toEqual([]);
  // The rule beside it works in each.
  for (const options of [{}, { waiting: ['d'] }, { away: ['d'] }])
    expect(compiled(rule, options).GSUB.lookups).toHaveLength(1);
});

test('a range goes from a glyph to another though its ends, or what lies between, are not in the font', () => {
  const rule = 'feature ss01 { sub [a-e] by f_i; } ss01;';
  expect(told(rule, { away: ['d'] })).toEqual([]);
  expect(told(rule.replace('a-e', 'a-z'), { away: [...'dghijklmnopqrstuvwxyzf'] })).toEqual([]);
  expect(
    told(rule.replace('a-e', 'a-z'), { waiting: [...'dghijklmnopqrstuvwxyzf'] }).every((s) =>
      s.startsWith('attention:'),
    ),
  ).toBe(true);
  // Where an end is no glyph at all it is a name with a hyphen.
  expect(told('feature ss01 { sub [a-zz] by f_i; } ss01;')[0]).toMatch(/^error: .*a-zz/);
});

test('classes are of those that are there, whatever is away', () => {
  const text = '@x = [a d b]; feature ss01 { sub @x by c; } ss01;';
  const all = compiled(text, { away: ['d'] });
  expect(all.faults).toEqual([]);
  expect(all.drafts[0]!.parts[0]).toMatchObject({
    kind: 'single',
    by: new Map([
      [1, 3],
      [2, 3],
    ]),
  });
});

test('names are found, known and away each by itself', () => {
  const index = new GlyphIndex(['a', 'b'], new Set(['c']), new Set(['d']));
  expect([index.find('a'), index.find('c'), index.find('d')]).toEqual([0, undefined, undefined]);
  expect([...'abcde'].map(index.isKnown)).toEqual([true, true, true, true, false]);
  expect([...'abcde'].map(index.isAway)).toEqual([false, false, false, true, false]);
  expect([...'abcde'].map(index.isWaiting)).toEqual([false, false, true, false, false]);
});
