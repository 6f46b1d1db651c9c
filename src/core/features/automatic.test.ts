import { readyDemo } from '../../../demo/ready';
import { readProjectFile, writeProjectFile } from '../formats/project/projectFile';
import type { Outcome } from '../project/edit';
import { renameGlyphs } from '../project/glyphEdits';
import type { Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { automaticRules, type Ground } from './automatic';
import {
  addSections,
  giveSectionBack,
  joinSections,
  moveSection,
  removeSection,
  renameSection,
  setSectionText,
  splitSection,
  switchSection,
  takeForms,
} from './edits';
import { fontTexts, projectGround, sectionTexts, wholeText } from './ground';
import { featureDoes, isUsual, knownFeatures } from './known';
import { compileSections } from './sections';
import { shownSections } from './shown';
import { featuresView } from './view';

const demo = readyDemo();
const done = (o: Outcome): Project => {
  if (!o.ok) throw new Error(o.reason);
  return o.project;
};
const ground = (names: readonly string[], codes: Readonly<Record<string, string>> = {}): Ground => ({
  names,
  codeOf: (n) => (codes[n] ?? (n.length === 1 ? n : undefined))?.codePointAt(0),
  above: names.filter((n) => n === 'acutecomb'),
  below: names.filter((n) => n === 'dotbelowcomb'),
});
const textOf = (g: Ground, tag: string): string | undefined =>
  automaticRules(g)
    .find((r) => r.tag === tag)
    ?.text.replace(/\s+/g, ' ');

test('names call for rules: forms behind a dot, ligatures with low lines, languages, fractions of any length', () => {
  const g = ground([
    'a',
    'b',
    'A',
    'a.sc',
    'b.sc',
    'f',
    'i',
    'longs',
    's',
    'f_i',
    'c_t',
    'c',
    't',
    'longs_t',
    'a.alt1',
    'a.alt2',
    'b.alt',
    'i.loclTRK',
  ]);
  expect(textOf(g, 'smcp')).toBe('feature smcp { sub [a b] by [a.sc b.sc]; } smcp;');
  expect(textOf(g, 'c2sc')).toBe('feature c2sc { sub A by a.sc; } c2sc;');
  expect(textOf(g, 'liga')).toBe('feature liga { sub f i by f_i; } liga;');
  expect(textOf(g, 'dlig')).toBe('feature dlig { sub c t by c_t; } dlig;');
  expect(textOf(g, 'hlig')).toBe('feature hlig { sub longs t by longs_t; } hlig;');
  expect(textOf(g, 'hist')).toBe('feature hist { sub s by longs; } hist;');
  expect(textOf(g, 'salt')).toBe('feature salt { sub a from [a.alt1 a.alt2]; sub b by b.alt; } salt;');
  expect(textOf(g, 'locl')).toBe(
    'feature locl { script latn; language AZE; sub i by i.loclTRK; language TRK; sub i by i.loclTRK; } locl;',
  );
  expect(textOf(g, 'aalt')).toBe('feature aalt { feature smcp; feature c2sc; feature salt; feature hist; } aalt;');
  expect(automaticRules(ground(['a', 'b', 'x_y']))).toEqual([]);
});

test('figures go from one kind to another, and back to the plain ones', () => {
  const g = ground(['zero', 'zero.onum', 'zero.pnum', 'one', 'one.onum']);
  expect(textOf(g, 'onum')).toBe('feature onum { sub [zero one zero.pnum] by [zero.onum one.onum zero.onum]; } onum;');
  expect(textOf(g, 'lnum')).toBe('feature lnum { sub [zero.onum one.onum] by [zero one]; } lnum;');
  expect(textOf(g, 'tnum')).toBe('feature tnum { sub zero.pnum by zero; } tnum;');
});

test('dotless letters under marks write themselves unless the rules have them', () => {
  const g = ground(['i', 'dotlessi', 'acutecomb', 'dotbelowcomb'], { dotlessi: 'ı' });
  const texts = fontTexts([], g);
  expect(texts.map((t) => t.id)).toEqual(['ccmp']);
  expect(texts[0]!.text.replace(/\s+/g, ' ')).toBe(
    "feature ccmp { sub i' acutecomb by dotlessi; sub i' dotbelowcomb acutecomb by dotlessi; } ccmp;",
  );
  const own = [{ id: 'x', title: 'x', options: {}, text: 'feature ccmp { } ccmp;' }];
  expect(fontTexts(own, g)).toHaveLength(1);
});

test('everything that writes itself compiles without a fault, for the demo and for glyphs of every kind', () => {
  const g = projectGround(demo, 'm1');
  const figures = 'zero one two three four five six seven eight nine'.split(' ');
  const all = ground(
    [
      ...'abcdefghijklmnopqrstuvwxyz',
      ...'ABCDEFGHIJKLMNOPQRSTUVWXYZ',
      ...[
        '.sc',
        '.swsh',
        '.titl',
        '.init',
        '.medi',
        '.fina',
        '.isol',
        '.ss01',
        '.ss20',
        '.cv01',
        '.cv99',
        '.alt',
        '.salt',
      ].map((s) => `a${s}`),
      ...figures.flatMap((n) =>
        ['', '.lnum', '.onum', '.pnum', '.tnum', '.numr', '.dnom', '.sups', '.subs', '.sinf', 'superior'].map(
          (s) => n + s,
        ),
      ),
      ...'zero.zero slash fraction ordfeminine ordmasculine longs f_f f_f_i fi c_t.liga longs_t dotlessi acutecomb i.loclTRK hyphen hyphen.case'.split(
        ' ',
      ),
    ],
    { dotlessi: 'ı' },
  );
  for (const each of [g, all]) {
    const sections = automaticRules(each).map((r) => ({ id: r.tag, title: r.title, text: r.text }));
    expect(sections.length).toBeGreaterThan(10);
    expect(compileSections(sections, {}, { glyphs: each.names }).faults).toEqual([]);
  }
});

test('sections are added, written, given back, moved, switched, cut and taken away, each in one step', () => {
  let p = done(
    addSections(
      { ...demo, features: { ...demo.features, sections: [] } },
      {
        sections: [
          { title: 'Ligatures', text: '', automatic: 'liga' },
          { title: 'Mine', text: 'feature ss05 { sub a by b; } ss05;\n\nfeature ss06 { sub c by d; } ss06;' },
        ],
      },
    ),
  );
  const titles = () => p.features.sections.map((s) => s.title);
  const id = (i: number) => p.features.sections[i]!.id;
  expect(new Set([id(0), id(1)]).size).toBe(2);
  p = done(setSectionText(p, { id: id(0), text: 'feature liga { } liga;' }));
  expect(p.features.sections[0]).not.toHaveProperty('automatic');
  p = done(giveSectionBack(p, { id: id(0), automatic: 'liga' }));
  expect(p.features.sections[0]).toMatchObject({ automatic: 'liga', text: '' });
  p = done(moveSection(p, { from: 0, to: 1 }));
  expect(titles()).toEqual(['Mine', 'Ligatures']);
  p = done(splitSection(p, { id: id(0), at: 35 }));
  expect(titles()).toEqual(['Mine', 'Mine, second part', 'Ligatures']);
  expect(p.features.sections[1]!.text).toBe('feature ss06 { sub c by d; } ss06;');
  const parted = p.features.sections;
  p = done(joinSections(p, { id: id(0) }));
  expect(titles()).toEqual(['Mine', 'Ligatures']);
  p = done(splitSection(p, { id: id(0), at: 3 }));
  expect(p.features.sections.map((s) => s.text)).toEqual(parted.map((s) => s.text));
  p = done(renameSection(p, { id: id(1), title: '  Others ' }));
  p = done(switchSection(p, { id: id(1), on: false }));
  expect(sectionTexts(p.features.sections, projectGround(p, 'm1')).map((s) => s.title)).toEqual(['Mine', 'Ligatures']);
  p = done(switchSection(p, { id: id(1), on: true }));
  expect(p.features.sections[1]!.options).toEqual({});
  p = done(removeSection(p, { id: id(0) }));
  expect(titles()).toEqual(['Others', 'Ligatures']);
  for (const refusedOne of [
    setSectionText(p, { id: 'gone', text: '' }),
    moveSection(p, { from: 9, to: 0 }),
    splitSection(p, { id: id(0), at: 0 }),
    splitSection(p, { id: id(1), at: 0 }),
    joinSections(p, { id: id(0) }),
    joinSections(p, { id: id(1) }),
    addSections(p, { sections: [] }),
  ])
    expect(refusedOne.ok).toBe(false);
});

test('sections come back from the project file as they were; a text that another tool changed comes as that text', () => {
  const opened = readProjectFile(writeProjectFile(demo), 'demo.wendril');
  if (!opened.ok) throw new Error(opened.reason);
  expect(opened.value.features.sections).toEqual(demo.features.sections);
  const whole = wholeText(sectionTexts(demo.features.sections, projectGround(demo, 'm1')));
  expect(whole).toMatch(/feature liga \{/);
  expect(
    compileSections([{ id: '', title: '', text: whole }], {}, { glyphs: projectGround(demo, 'm1').names }).faults,
  ).toEqual([]);
});

test('what sections say is told in words and letters, with what stands around', () => {
  const glyphs = ['a', 'b', 'c', 'd', 'x', 'a.sc', 'f_i', 'f', 'i'];
  const [first, second] = shownSections(
    [
      { id: '1', title: '', text: '@V = [a b]; feature liga { sub f i by f_i; sub @V by [c d]; } liga;' },
      {
        id: '2',
        title: '',
        text: "feature calt { sub x @V' c by d; ignore sub d a'; sub a from [b c]; pos a' 5 b; pos a b 3; } calt;",
      },
    ],
    glyphs,
  );
  expect(first).toMatchObject({ tags: ['liga'], words: '1 class of glyphs, 1 ligature, 2 glyphs get another form' });
  expect(first!.rules.map((r) => [r.before.join(' '), r.after.join(' ')])).toEqual([
    ['f i', 'f_i'],
    ['a', 'c'],
    ['b', 'd'],
  ]);
  expect(second!.words).toBe('3 rules with a context, 1 glyph has a choice of forms, 1 rule of pairs');
  expect(second!.rules[0]).toEqual({
    feature: 'calt',
    back: ['x'],
    before: ['a'],
    ahead: ['c'],
    after: ['d'],
    kind: 'replace',
  });
  expect(second!.rules[1]).toMatchObject({ kind: 'alone', back: ['d'], before: ['a'] });
});

test('a rule of one language says so; the next script and the next feature begin without', () => {
  const text =
    'feature locl { script latn; language TRK; sub a by b; language dflt; sub c by d; language NLD; script cyrl; sub a by x; language SRB; } locl; feature salt { sub a by c; } salt;';
  const [shown] = shownSections([{ id: '1', title: '', text }], ['a', 'b', 'c', 'd', 'x']);
  expect(shown!.rules.map((r) => r.language)).toEqual(['TRK', undefined, undefined, undefined]);
});

test('what a lookup says is said where it is called, in the language that calls it, and in the contexts that call it', () => {
  const shown = shownSections(
    [
      { id: '1', title: '', text: 'lookup one { sub a by b; sub c by d; } one;' },
      { id: '2', title: '', text: 'feature ss01 { lookup one; script latn; language TRK; lookup one; } ss01;' },
      {
        id: '3',
        title: '',
        text: 'feature locl { script latn; language TRK; lookup one; language NLD; lookup one; } locl;',
      },
      { id: '4', title: '', text: "feature calt { sub x a' lookup one c'; lookup none; } calt;" },
    ],
    ['a', 'b', 'c', 'd', 'x'],
  );
  expect(shown.map((s) => s.words)).toEqual([
    '2 glyphs get another form',
    '2 glyphs get another form',
    '2 glyphs get another form',
    '1 rule with a context',
  ]);
  expect(
    shown.map((s) => s.rules.map((r) => `${r.feature} ${r.language} ${r.before.join()}→${r.after.join()}`)),
  ).toEqual([
    [' undefined a→b', ' undefined c→d'],
    ['ss01 undefined a→b', 'ss01 undefined c→d'],
    ['locl TRK a→b', 'locl TRK c→d', 'locl NLD a→b', 'locl NLD c→d'],
    ['calt undefined a,c→b,c'],
  ]);
});

test('the stage sees sections, faults at their places, and what is still offered', () => {
  const view = featuresView(demo, 'm1');
  expect(view.sections).toHaveLength(demo.features.sections.length);
  expect(view.sections.flatMap((s) => s.faults)).toEqual([]);
  expect(view.offered.map((o) => o.tag)).toEqual(['aalt', 'locl', 'ordn']);
  const broken = done(
    setSectionText(demo, { id: demo.features.sections[13]!.id, text: 'feature liga {\n sub f q by fq;\n} liga;' }),
  );
  const [fault] = featuresView(broken, 'm1').sections[13]!.faults;
  expect(fault!.reason).toMatch(/^Glyph fq is not in the project/);
});

test('features are known by what they are for', () => {
  expect(featureDoes('ss07')).toBe('Stylistic set 7');
  expect(featureDoes('cv12')).toBe('Character variant 12');
  expect(featureDoes('zzzz')).toBeUndefined();
  expect([isUsual('liga'), isUsual('smcp')]).toEqual([true, false]);
  for (const tag of knownFeatures()) expect([tag, featureDoes(tag) !== undefined]).toEqual([tag, true]);
});

test('languages that a rule which writes itself names keep all other features in the font', () => {
  const added = done(addSections(demo, { sections: [{ title: 'Languages’ forms', text: '', automatic: 'locl' }] }));
  const g = projectGround(added, 'm1');
  const [first, ...others] = sectionTexts(added.features.sections, g);
  expect(first!.text).toMatch(/^languagesystem DFLT dflt;\nlanguagesystem latn dflt;\n.*languagesystem latn ROM;/s);
  const { GSUB } = compileSections([first!, ...others], {}, { glyphs: g.names });
  const latin = GSUB.scripts.find((s) => s.tag === 'latn')!;
  const tags = (features: readonly number[]) => features.map((f) => GSUB.features[f]!.tag);
  const usual = tags(latin.usual!.features);
  expect(usual).toContain('liga');
  for (const { tag, system } of latin.languages)
    expect([tag, usual.filter((t) => !tags(system.features).includes(t))]).toEqual([tag, []]);
  // Who declares systems is taken at their word; the sections come back from the file.
  const own = done(addSections(added, { sections: [{ title: 'Mine', text: 'languagesystem DFLT dflt;' }] }));
  expect(sectionTexts(own.features.sections, g)[0]!.text).not.toMatch(/languagesystem/);
  const opened = readProjectFile(writeProjectFile(added), 'demo.wendril');
  expect(opened.ok && opened.value.features.sections).toEqual(added.features.sections);
});

test('capitals get a hundredth of the em more room among themselves, where there is an alphabet of them', () => {
  const of = (project: Project) => automaticRules(projectGround(project, 'm1')).find((r) => r.tag === 'cpsp');
  expect(of(demo)!.text).toMatch(/^feature cpsp \{\n {2}pos \[.*\bA\b.*\bZ\b.*\] <5 0 10 0>;\n\} cpsp;/s);
  expect(of({ ...demo, unitsPerEm: 2048 })!.text).toContain('<10 0 20 0>');
  const isCapital = (c: number) => /\p{Lu}/u.test(String.fromCodePoint(c));
  const few = Object.fromEntries(Object.entries(demo.glyphs).filter(([, g]) => !g.unicodes.some(isCapital)));
  const order = demo.glyphOrder.filter((id) => few[id]);
  expect(of({ ...demo, glyphs: few, glyphOrder: order })).toBeUndefined();
});

test('which glyphs take part is chosen form by form, holds in fonts, follows new names, and can be taken back', () => {
  const bare = { ...demo, features: { ...demo.features, sections: [] } };
  const added = done(
    addSections(bare, {
      sections: ['smcp', 'c2sc', 'liga', 'cpsp'].map((tag) => ({ title: tag, text: '', automatic: tag })),
    }),
  );
  const idOf = (tag: string) => added.features.sections.find((s) => s.automatic === tag)!.id;
  const text = (p: Project, tag: string) =>
    wholeText(sectionTexts(p.features.sections, projectGround(p, 'm1')))
      .split(`feature ${tag} `)[1]!
      .split('}')[0]!;
  const out = done(takeForms(added, { id: idOf('smcp'), forms: ['a.sc', 'b.sc'], take: false }));
  expect(text(added, 'smcp')).toMatch(/\ba\.sc\b/);
  expect(text(out, 'smcp')).not.toMatch(/\b[ab]\.sc\b/);
  expect(text(out, 'smcp')).toMatch(/\bc\.sc\b/);
  // The other feature of the same forms is as it was.
  expect(text(out, 'c2sc')).toMatch(/\ba\.sc\b/);
  const { forms } = featuresView(out, 'm1').sections[0]!;
  expect(forms.filter((f) => f.isOut).map((f) => f.after[0])).toEqual(['a.sc', 'b.sc']);
  const renamed = done(renameGlyphs(out, { renames: [{ id: glyphNamed(out, 'a.sc')!.id, name: 'a.smcp' }] }));
  expect(text(renamed, 'smcp')).not.toMatch(/\ba\.smcp\b/);
  expect(featuresView(renamed, 'm1').sections[0]!.forms.filter((f) => f.isOut)).toHaveLength(2);
  const back = done(takeForms(out, { id: idOf('smcp'), forms: ['a.sc', 'b.sc'], take: true }));
  expect(text(back, 'smcp')).toBe(text(added, 'smcp'));
  const opened = readProjectFile(writeProjectFile(out), 'demo.wendril');
  expect(opened.ok && text(opened.value, 'smcp')).toBe(text(out, 'smcp'));
  const all = featuresView(out, 'm1').sections[2]!.forms.flatMap((f) => f.after);
  const none = done(takeForms(out, { id: idOf('liga'), forms: all, take: false }));
  expect(text(none, 'liga').trim()).toBe('{');
  expect(text(done(takeForms(out, { id: idOf('cpsp'), forms: ['Q'], take: false })), 'cpsp')).not.toMatch(/\bQ\b/);
});

test('figures of small capitals are in smcp unless left out, in c2sc only when taken', () => {
  const names = ['a', 'b', 'A', 'B', 'one', 'a.sc', 'b.sc', 'one.sc'];
  const codes: Readonly<Record<string, number>> = { a: 97, b: 98, A: 65, B: 66, one: 49 };
  const of = (tag: string, takes?: Ground['takes']) =>
    automaticRules({ names, codeOf: (n) => codes[n], above: [], below: [], ...(takes && { takes }) }).find(
      (r) => r.tag === tag,
    )!.text;
  expect([of('smcp'), of('c2sc')].map((t) => t.includes('one.sc'))).toEqual([true, false]);
  const swapped: Ground['takes'] = (tag, form) => (form === 'one.sc' ? tag === 'c2sc' : undefined);
  expect([of('smcp', swapped), of('c2sc', swapped)].map((t) => t.includes('one.sc'))).toEqual([false, true]);
});

test('a section that only says a size or a table says so; an empty one has no rule yet', () => {
  const texts = [
    'feature size { parameters 100 0; } size;',
    'table GDEF { LigatureCaretByPos a 200; } GDEF;',
    '# nothing',
  ];
  const shown = shownSections(
    texts.map((text, i) => ({ id: String(i), title: '', text })),
    ['a', 'b'],
  );
  expect(shown.map((s) => s.words)).toEqual([
    '1 size that the font is drawn for',
    '1 table said outright',
    'no rule yet',
  ]);
});
