import { readyDemo } from '../../../demo/ready';
import { buildStarter } from '../../../demo/starter';
import { glyphNamed } from '../project/queries';
import { formLines, formsOf, glyphsOfLine, wordsWith, wordsWithPair } from './lines';

test('words hold the letter that is fitted, accented letters in the place of their base', () => {
  const demo = buildStarter();
  const letters = [...'abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ'];
  for (const letter of letters) {
    const glyph = glyphNamed(demo, letter) ?? { ...glyphNamed(demo, 'n')!, unicodes: [letter.codePointAt(0)!] };
    const words = wordsWith(glyph);
    expect(words.length).toBeGreaterThan(0);
    expect(words.every((w) => w.includes(letter))).toBe(true);
  }
  expect(
    wordsWith({ ...glyphNamed(demo, 'n')!, unicodes: ['ż'.codePointAt(0)!] }, 2).every(
      (w) => w.includes('ż') && !w.includes('z'),
    ),
  ).toBe(true);
  expect(wordsWith({ ...glyphNamed(demo, 'n')!, unicodes: [] })).toEqual([]);
});

test('words hold a pair, those of one’s own text first, none twice', () => {
  expect(wordsWithPair('T', 'o', 'Tor Tower  Hut')).toEqual(['Tor', 'Tower']);
  expect(wordsWithPair('l', 'e', '', 3)).toHaveLength(3);
  expect(wordsWithPair('Q', 'Q', 'Qu')).toEqual([]);
});

test('the forms of a letter stand side by side, then in the same words in turn; sets of other text are no forms', () => {
  const demo = readyDemo();
  const names = (name: string) => formsOf(demo, glyphNamed(demo, name)!).map((g) => g.name);
  expect(names('a')).toEqual(['a', 'a.ss01']);
  // From any of its forms the same ones, the plain one first.
  expect(names('a.ss01')).toEqual(['a', 'a.ss01']);
  expect(names('n')).toEqual(['n']);
  expect(names('zero')).toEqual(['zero', 'zero.pnum', 'zero.onum']);
  const [among, plain, other, ...more] = formLines(demo, glyphNamed(demo, 'a.ss01')!);
  const drawn = (line: string) => glyphsOfLine(demo, line).glyphs.map((id) => demo.glyphs[id]!.name);
  expect(drawn(among!)).toEqual(['n', 'a', 'n', 'a.ss01', 'n', 'o', 'a', 'o', 'a.ss01', 'o']);
  expect(plain).toMatch(/a/);
  expect(drawn(other!)).toEqual(drawn(plain!).map((name) => (name === 'a' ? 'a.ss01' : name)));
  expect(more).toEqual([]);
  expect(glyphsOfLine(demo, among! + other!).missing).toEqual([]);
});
