import { readyDemo } from '../../../demo/ready';
import { carriedPath } from '../fontfacts/carried';
import type { Project } from '../project/model';
import { AS_TEXT, asked, isFontTag, isoScript, saidIn } from './setting';
import { settingChoices } from './settingChoices';

const demo = readyDemo();
const withText = (text: string, options = {}): Pick<Project, 'features' | 'kept'> => ({
  kept: {},
  features: { ...demo.features, included: {}, sections: [{ id: 's1', title: '', text, options }] },
});

test('a setting counts what it says; features, scripts and languages are asked of a shaper in its own words', () => {
  expect(saidIn(AS_TEXT)).toBe(0);
  expect(saidIn({ features: { liga: 0, ss01: 1 }, language: 'tr', direction: 'rtl' })).toBe(4);
  expect(asked({ features: { liga: 0, salt: 3 }, script: 'latn', language: 'TRK', direction: 'ltr' })).toEqual({
    features: ['liga=0', 'salt=3'],
    settings: { language: 'x-hbotTRK', script: 'Latn', direction: 'ltr' },
  });
  expect(asked({ features: {}, language: 'tr' })).toEqual({ features: [], settings: { language: 'tr' } });
  expect(['dev2', 'yi', 'nko', 'arab', 'DFLT', 'cyrl'].map(isoScript)).toEqual([
    'Deva',
    'Yiii',
    'Nkoo',
    'Arab',
    'Zyyy',
    'Cyrl',
  ]);
  expect(['TRK', 'tr', 'ROM', 'de-AT'].map(isFontTag)).toEqual([true, false, true, false]);
});

test('choices are the features of the rules with as many forms as a letter has, and the scripts and languages that they know', () => {
  const text = `
    languagesystem DFLT dflt; languagesystem latn dflt; languagesystem latn TRK;
    @forms = [a.alt b.alt c.alt];
    feature salt { sub a from [a.alt a.two]; sub b from @forms; } salt;
    feature swsh { sub a from [a.swsh1-a.swsh5 b.swsh]; } swsh;
    feature ss01 { script cyrl; language SRB; sub a by a.alt; } ss01;
    feature aalt { feature salt; } aalt;`;
  const choices = settingChoices(withText(text));
  expect(choices.features.map((f) => [f.tag, f.most])).toEqual([
    ['salt', 3],
    ['swsh', 6],
    ['ss01', 1],
  ]);
  expect(choices.scripts).toEqual(['cyrl', 'latn']);
  expect(choices.languages).toEqual(['SRB', 'TRK']);
  expect(settingChoices(withText(text, { off: true })).features).toEqual([]);
  expect(settingChoices(withText('feature liga { sub f')).features).toEqual([]);
});

test('the demo offers what its sections do, by their own titles; a table that cannot be read offers nothing and harms nothing', () => {
  const { features } = settingChoices(demo);
  const tags = features.map((f) => f.tag);
  for (const tag of ['smcp', 'onum', 'frac', 'hist', 'ss04']) expect(tags).toContain(tag);
  expect(new Set(tags).size).toBe(tags.length);
  for (const f of features) expect(f.title.length).toBeGreaterThan(2);
  const torn = { ...withText(''), kept: { [carriedPath('GSUB')]: new Uint8Array([0, 1, 0, 0, 0, 99]) } };
  expect(settingChoices(torn).features).toEqual([]);
});
