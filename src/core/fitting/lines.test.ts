import { buildStarter } from '../../../demo/starter';
import { glyphNamed } from '../project/queries';
import { wordsWith, wordsWithPair } from './lines';

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
