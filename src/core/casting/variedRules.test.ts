import { readyDemo } from '../../../demo/ready';
import type { Project } from '../project/model';
import { toUser } from '../project/places';
import { glyphNamed } from '../project/queries';
import { shapedByHarfBuzz } from '../testing/shaping';
import { setHandover, setHandoversLast } from '../variation/handovers';
import { castFont } from './font';

const CAST = new Set(['a', 'b', 'd', 'e', 'o', 'x', 'y', 'z', 'dollar', 'cent', 'space']);
const whole = readyDemo();
/** The demo with these letters only in its fonts. */
const demo: Project = {
  ...whole,
  glyphs: Object.fromEntries(Object.entries(whole.glyphs).map(([k, g]) => [k, { ...g, cast: CAST.has(g.name) }])),
};
const id = (name: string) => glyphNamed(demo, name)!.id;

const withRules = (text: string, of: Project = demo): Project => ({
  ...of,
  features: { ...of.features, sections: [{ id: 'own', title: 'Own', text, options: {} }] },
});

const RULES = `
conditionset heavy { wght 600 800; } heavy;
conditionset narrow { wdth 75 85; } narrow;
lookup swap { sub a by b; } swap;
variation rvrn heavy { lookup swap; } rvrn;
variation rvrn narrow { sub a by d; } rvrn;
variation ccmp narrow { sub o by e; } ccmp;
variation kern heavy { pos b b -77; } kern;
feature ccmp { sub x by z; } ccmp;
`;

type Cast = ReturnType<typeof cast>;
type Asked = { font: Cast; text: string; axes?: Readonly<Record<string, number>> };

/** What texts are set as by fonts at places in user units: the names of their glyphs, and how wide. */
const setAll = (asked: readonly Asked[]): { names: string; width: number }[] =>
  shapedByHarfBuzz(
    asked.map(({ font, text, axes }) => ({ bytes: font.bytes, texts: [text], ...(axes && { axes }) })),
  ).map(([line], i) => ({
    names: line!.map((g) => asked[i]!.font.names[g.gid]).join(' '),
    width: line!.reduce((sum, g) => sum + g.advance, 0),
  }));
const user = (project: Project, wght: number, wdth: number) => ({
  wght: toUser(project.axes[0]!, wght),
  wdth: toUser(project.axes[1]!, wdth),
});

function cast(project: Project, variable: boolean, design?: Record<string, number>) {
  const font = castFont(project, {
    flavour: 'ttf',
    place: design ? { design, name: 'There' } : { master: 'm1' },
    variable,
    keepOverlaps: true,
  });
  if (!font.ok) throw new Error(font.reason);
  const names = font.value.glyphIds.map((g) => project.glyphs[g]?.name ?? '.notdef');
  return { bytes: font.value.bytes, names, notes: font.value.notes.map((n) => n.reason) };
}

test('rules under conditions hold where they say, in a font that varies and in one cast there', () => {
  const project = withRules(RULES);
  const font = cast(project, true);
  const expected: [wght: number, wdth: number, a: string, ox: string][] = [
    [400, 100, 'a', 'o z'],
    [599, 100, 'a', 'o z'],
    [600, 100, 'b', 'o z'],
    [800, 100, 'b', 'o z'],
    [400, 85, 'd', 'e z'],
    [400, 75, 'd', 'e z'],
    [400, 86, 'a', 'o z'],
    // Of two that hold the first counts, with all of its features.
    [700, 80, 'b', 'o z'],
  ];
  const found = setAll(
    expected.flatMap(([wght, wdth]) => [
      { font, text: 'aox', axes: user(project, wght, wdth) },
      { font: cast(project, false, { wght, wdth }), text: 'aox' },
    ]),
  );
  expected.forEach(([wght, wdth, a, ox], i) => {
    const wanted = [wght, wdth, `${a} ${ox}`];
    expect([wght, wdth, found[2 * i]!.names]).toEqual(wanted);
    expect([wght, wdth, found[2 * i + 1]!.names]).toEqual(wanted);
  });
  expect(font.notes.filter((n) => n.includes('ondition'))).toEqual([]);
});

test('positions under conditions move only there', () => {
  const pairs = withRules(RULES);
  const [varying, plain] = [cast(pairs, true), cast(withRules('feature ccmp { sub x by z; } ccmp;'), true)];
  const weights = [400, 590, 600, 700];
  const found = setAll(
    weights.flatMap((wght) => [varying, plain].map((font) => ({ font, text: 'bb', axes: user(pairs, wght, 100) }))),
  );
  expect(weights.map((_, i) => found[2 * i]!.width - found[2 * i + 1]!.width)).toEqual([0, 0, -77, -77]);
});

test('with handovers too, both hold at every place, as in fonts cast there', () => {
  const handed = setHandover(withRules(RULES), {
    glyph: id('dollar'),
    handover: { axis: 'wght', from: 500, to: 700, glyph: id('cent') },
  });
  if (!handed.ok) throw new Error(handed.reason);
  const font = cast(handed.project, true);
  const places = [3.5, 4.5, 5.5, 6.5, 7.5].flatMap((w) => [76, 81, 91].map((wdth) => ({ wght: w * 100, wdth })));
  const found = setAll(places.map(({ wght, wdth }) => ({ font, text: 'a$', axes: user(demo, wght, wdth) })));
  places.forEach(({ wght, wdth }, i) => {
    const a = wght >= 600 ? 'b' : wdth <= 85 ? 'd' : 'a';
    const dollar = wght >= 500 && wght <= 700 ? 'cent' : 'dollar';
    expect([wght, wdth, found[i]!.names]).toEqual([wght, wdth, `${a} ${dollar}`]);
  });
});

test('handovers work before other rules, or after them where that is chosen', () => {
  const rules = withRules('feature liga { sub dollar by e; sub cent by o; } liga;');
  const handed = setHandover(rules, {
    glyph: id('dollar'),
    handover: { axis: 'wght', from: 600, to: 800, glyph: id('cent') },
  });
  if (!handed.ok) throw new Error(handed.reason);
  const last = setHandoversLast(handed.project, { last: true });
  if (!last.ok) throw new Error(last.reason);
  const axes = user(demo, 700, 100);
  const fonts = [handed.project, last.project, { ...last.project, features: demo.features }].map((p) => cast(p, true));
  const found = setAll(
    fonts.flatMap((font) => [
      { font, text: '$' },
      { font, text: '$', axes },
    ]),
  );
  expect(found.map((f) => f.names)).toEqual(['e', 'o', 'e', 'e', 'dollar', 'cent']);
});

test('conditions that cannot be are told with their line, and nothing else is lost', () => {
  const told = (text: string, of = demo) => cast(withRules(text, of), true).notes;
  expect(told('conditionset far { opsz 1 2; } far;')).toEqual([
    expect.stringContaining('line 1: The project has no axis opsz'),
  ]);
  expect(told('conditionset back { wght 800 400; } back;')).toEqual([expect.stringContaining('ends before it begins')]);
  expect(told('\nvariation rvrn gone { sub a by b; } rvrn;')).toEqual([
    expect.stringContaining('line 2: The conditions gone are not defined'),
  ]);
  expect(told('conditionset c { wght 600 800; } c;\nvariation rvrn c { script latn; sub a by b; } rvrn;')).toEqual([
    expect.stringContaining('scripts and languages is left out'),
  ]);
  const single: Project = { ...demo, axes: [], masters: demo.masters.filter((m) => m.id === 'm1'), instances: [] };
  const alone = cast(withRules(RULES, single), false);
  expect(alone.notes.filter((n) => n.includes('no axes'))).toHaveLength(2);
  expect(setAll([{ font: alone, text: 'xa' }])[0]!.names).toBe('z a');
});
