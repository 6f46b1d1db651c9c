import { readyDemo } from '../../../demo/ready';
import { setGlyphNames } from '../project/glyphEdits';
import { glyphNamed } from '../project/queries';
import { coverageOf, coverageSentence, needsOf, nextSteps, peopleOf } from './coverage';
import { drawnCodes } from './drawn';
import { aimAtLanguages, dropList, keepList } from './edits';
import { findLanguages, type Languages, loadLanguages } from './languages';
import { readList } from './lists';
import { characterSets, loadBlocks, quoteSets } from './sets';

let languages: Languages;
beforeAll(async () => {
  languages = await loadLanguages();
});
const language = (code: string) => languages.all.find((l) => l.code === code)!;
const codes = (text: string) => [...text].map((c) => c.codePointAt(0)!);
const basic = new Set(codes('ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz'));

test('languages of three scripts and more, each with letters, most with readers', () => {
  const of = (script: string) => languages.all.filter((l) => l.script === script);
  expect(of('Latn').length + of('Grek').length + of('Cyrl').length).toBeGreaterThan(150);
  for (const l of languages.all) {
    expect([l.code, l.letters.length > 0, new Set(l.letters).size]).toEqual([l.code, true, l.letters.length]);
    expect(languages.scriptNames[l.script]).toBeTruthy();
    for (const t of l.territories) expect(languages.territoryNames[t]).toBeTruthy();
  }
  expect(languages.all.filter((l) => l.readers > 0).length).toBeGreaterThan(200);
  // Within a fifth of what national censuses say.
  expect(language('pl').readers / 40e6).toBeCloseTo(1, 0);
  expect(language('is').readers).toBeGreaterThan(250e3);
});

test('what a language needs: small letters and capitals, by its own rules', () => {
  const letters = (code: string) => String.fromCodePoint(...needsOf(language(code)).letters);
  for (const c of 'ąćęłńóśźżĄĆĘŁŃÓŚŹŻ') expect(letters('pl')).toContain(c);
  // Turkish i has a dot as a capital too.
  expect(letters('tr')).toMatch(/ı/);
  expect(letters('tr')).toMatch(/İ/);
  // ß needs no capital of its own; digraphs are their letters; the stop of Catalan and marks by themselves stand alone.
  expect(letters('de')).toContain('ß');
  expect([...letters('hu')].every((c) => [...c].length === 1)).toBe(true);
  expect(letters('el')).toContain('ώ');
  expect(letters('el')).toContain('Ώ');
  for (const l of languages.all) {
    const needs = needsOf(l).letters;
    expect(new Set(needs).size).toBe(needs.length);
    // Composed forms are what is asked for where there are any.
    for (const c of needs) expect(String.fromCodePoint(c).normalize('NFC')).toBe(String.fromCodePoint(c));
  }
});

test('coverage is told as a sentence', () => {
  const told = (code: string, have: ReadonlySet<number>) =>
    coverageSentence(coverageOf([language(code)], (c) => have.has(c))[0]!);
  expect(told('hu', new Set([...basic, ...codes('áéíóöúüÁÉÍÓÖÚÜ')]))).toBe('Hungarian: 4 missing, ő ű Ő Ű');
  expect(told('en', basic)).toMatch(/^English: all letters, without - ‐/);
  const punctuated = new Set([...basic, ...needsOf(language('en')).punctuation]);
  expect(told('en', punctuated)).toBe('English: complete');
  expect(told('vi', basic)).toMatch(/^Vietnamese: \d+ missing, à ả .* and \d+ more$/);
});

test('the next steps open most readers for what they cost, and each counts what was done before', () => {
  const all = coverageOf(languages.all, (c) => basic.has(c));
  const steps = nextSteps(all, () => true, { steps: 6, onlyScripts: new Set(['Latn']) });
  expect(steps).toHaveLength(6);
  const done = new Set<number>();
  for (const s of steps) {
    expect(s.codes.some((c) => done.has(c))).toBe(false);
    for (const c of s.codes) done.add(c);
    for (const l of s.languages)
      expect([l.code, needsOf(l).letters.every((c) => basic.has(c) || done.has(c))]).toEqual([l.code, true]);
    expect(s.readers).toBe(s.languages.reduce((n, l) => n + l.readers, 0));
  }
  // By readers alone no single language gives more for less than the first.
  const worth = (codes: number, readers: number) => readers / (codes + 2);
  const first = worth(steps[0]!.codes.length, steps[0]!.readers);
  for (const c of all)
    if (c.missing.length > 0 && c.language.script === 'Latn')
      expect(worth(c.missing.length, c.language.readers)).toBeLessThanOrEqual(first);
  // What must be drawn costs more than what is put together.
  const [dear] = nextSteps(all, () => false, { steps: 1, onlyScripts: new Set(['Latn']) });
  expect(dear!.codes.length).toBeLessThanOrEqual(steps[0]!.codes.length);
  expect([peopleOf(24_300_000), peopleOf(2_400_000), peopleOf(310_400), peopleOf(12)]).toEqual([
    '24 million',
    '2.4 million',
    '310 thousand',
    '12',
  ]);
});

test('languages are found by name, own name, region, script and code', () => {
  const found = (search: string) => findLanguages(languages, search).map((l) => l.code);
  expect(found('polski')).toEqual(['pl']);
  expect(found('tiếng')).toEqual(['vi']);
  expect(found('romania')).toEqual(expect.arrayContaining(['ro', 'hu']));
  expect(found('cyrillic')).toEqual(expect.arrayContaining(['ru', 'bg', 'uk']));
  expect(found('sr-latn')).toEqual(['sr-Latn']);
  expect(found('')).toHaveLength(languages.all.length);
  expect(found('xyzzy')).toEqual([]);
});

test('the demo is complete for the languages of Europe that are written in Latin', () => {
  const have = drawnCodes(readyDemo());
  for (const code of [
    'pl',
    'cs',
    'hu',
    'ro',
    'tr',
    'de',
    'fr',
    'es',
    'pt',
    'it',
    'sv',
    'da',
    'fi',
    'et',
    'lv',
    'lt',
    'sk',
    'sl',
    'hr',
    'sq',
    'mt',
    'is',
    'ga',
    'cy',
    'nl',
  ])
    expect(coverageOf([language(code)], (c) => have.has(c))[0]!.missing).toEqual([]);
});

test('sets by purpose, and older code pages as the platform decodes them', () => {
  const sets = new Map(characterSets().map((s) => [s.id, s.codes]));
  expect(sets.size).toBe(characterSets().length);
  for (const label of [
    'windows-1250',
    'windows-1257',
    'windows-874',
    'iso-8859-1',
    'iso-8859-2',
    'iso-8859-9',
    'iso-8859-16',
    'macintosh',
  ])
    expect([label, (sets.get(label)?.length ?? 0) > 150]).toEqual([label, true]);
  for (const c of codes('ąčďęěłňőřśťůűźż')) expect(sets.get('windows-1250')).toContain(c);
  for (const c of codes('ĞİŞğış')) expect(sets.get('iso-8859-9')).toContain(c);
  for (const c of codes('ÐÞð')) expect(sets.get('iso-8859-9')).not.toContain(c);
  for (const c of codes('ÐÞðÿ')) expect(sets.get('iso-8859-1')).toContain(c);
  expect(sets.get('iso-8859-1')).not.toContain(0x20ac);
  expect(sets.get('iso-8859-15')).toContain(0x20ac);
  expect(sets.get('macintosh')).toContain('ﬁ'.codePointAt(0));
  for (const { id, codes: all, names = [] } of characterSets()) {
    const set = [...all, ...names];
    expect([id, set.length > 0, new Set(set).size]).toEqual([id, true, set.length]);
  }
});

test('a list is read line by line; what cannot be read is told with its line', () => {
  const read = readList('Hamborn\nU+0105, U+0100–U+0102\n/a.ss01 one.tf\nU+0200–U+0100\n');
  expect(read.codes).toEqual(expect.arrayContaining([...codes('Hamborn'), 0x105, 0x100, 0x101, 0x102]));
  expect(read.names).toEqual(['a.ss01', 'one.tf']);
  expect(read.faults).toEqual([{ line: 4, reason: 'U+0200–U+0100 is not a range of code points.' }]);
  expect(readList('')).toEqual({ codes: [], names: [], faults: [] });
});

test('lists and languages are kept with the project; a renamed glyph is renamed in them', () => {
  const demo = readyDemo();
  const done = (o: ReturnType<typeof keepList>) => {
    if (!o.ok) throw new Error(o.reason);
    return o.project;
  };
  let p = done(keepList(demo, { name: ' Plaques ', text: 'Orde /a.ss01 a.ss01\none' }));
  p = done(keepList(p, { name: 'More', text: 'ab' }));
  p = done(keepList(p, { name: 'More', text: 'abc' }));
  expect(p.settings.lists).toEqual([
    { name: 'Plaques', text: 'Orde /a.ss01 a.ss01\none' },
    { name: 'More', text: 'abc' },
  ]);
  const a = glyphNamed(p, 'a.ss01')!;
  p = done(setGlyphNames(p, { id: a.id, name: 'a.round', unicodes: [] }));
  expect(p.settings.lists![0]!.text).toBe('Orde /a.round a.round\none');
  p = done(dropList(p, { name: 'More' }));
  expect(p.settings.lists).toHaveLength(1);
  expect(dropList(p, { name: 'More' })).toMatchObject({ ok: false });
  expect(keepList(p, { name: 'Empty', text: ' ' })).toMatchObject({
    ok: false,
    reason: 'Nothing in that list can be read.',
  });
  expect(done(aimAtLanguages(p, { languages: ['pl', 'cs', 'pl'] })).settings.languages).toEqual(['pl', 'cs']);
});

test('forms by their names, quotation marks of languages, and blocks with what is assigned in them', async () => {
  const sets = new Map(characterSets().map((s) => [s.id, s]));
  expect(sets.get('onum')!.names).toContain('three.onum');
  expect(sets.get('small-caps')!.names).toHaveLength(26);
  const { all } = await loadLanguages();
  const quotes = quoteSets(all.filter((l) => ['pl', 'de', 'da', 'fr'].includes(l.code)));
  const of = (name: string) => String.fromCodePoint(...quotes.find((q) => q.title.includes(name))!.codes);
  expect([of('Polish'), of('German'), of('French')]).toEqual(['„”«»', '„“‚‘', '«»']);
  expect(quoteSets(all).length).toBeLessThan(80);
  const blocks = await loadBlocks();
  const block = (title: string) => blocks.find((b) => b.title === title)!.codes;
  expect(block('Latin Extended A')).toHaveLength(128);
  expect(block('Basic Latin')).toHaveLength(95);
  // Two code points of the block stand for nothing.
  expect(block('Greek And Coptic')).not.toContain(0x378);
  expect(new Set(blocks.map((b) => b.id)).size).toBe(blocks.length);
});
