import { ENGLISH, languageIdOf, languageTagOf } from './nameLanguages';

test('tags and numbers lead to each other, whatever their case and marks', () => {
  for (const tag of ['de', 'pl', 'pt', 'pt-BR', 'zh', 'zh-Hant', 'el', 'ar', 'sr', 'uk'])
    expect([tag, languageTagOf(languageIdOf(tag)!)]).toEqual([tag, tag]);
  expect(languageIdOf('en')).toBe(ENGLISH);
  expect(languageIdOf('PT_br')).toBe(languageIdOf('pt-BR'));
  expect(languageIdOf('pt')).not.toBe(languageIdOf('pt-BR'));
});

test('a longer tag has its shorter one’s number, a number of another country its language’s tag', () => {
  expect(languageIdOf('de-AT')).toBe(languageIdOf('de'));
  expect(languageIdOf('zh-Hant-HK')).toBe(languageIdOf('zh-Hant'));
  // German of Austria, French of Canada, English of Britain.
  expect([0xc07, 0xc0c, 0x809].map(languageTagOf)).toEqual(['de', 'fr', 'en']);
});

test('what has no number is not guessed', () => {
  expect(['', 'q', 'tlh', 'xx-de', '-'].map(languageIdOf)).toEqual([
    undefined,
    undefined,
    undefined,
    undefined,
    undefined,
  ]);
  expect(languageTagOf(0x3ff)).toBeUndefined();
});
