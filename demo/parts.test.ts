import { anchorsOf } from './anchors';
import { recipes } from './composites';
import { featureSections } from './features';
import { span } from './letter';
import { lowercase } from './lowercase';
import { forCapitals, marks } from './marks';
import { figureSets, tabularWidth } from './sets';
import { lowerMeasure, STYLES } from './style';

test('recipes follow Unicode, and the habits of lettering where they differ', () => {
  const made = Object.fromEntries(recipes().map((r) => [String.fromCodePoint(r.code), `${r.base} ${r.mark}`]));
  expect(made).toMatchObject({
    é: 'e acutecomb',
    É: 'E acutecomb.case',
    í: 'dotlessi acutecomb',
    į: 'i ogonekcomb',
    ĵ: 'dotlessj circumflexcomb',
    ď: 'd caronslovakcomb',
    Ď: 'D caroncomb.case',
    ľ: 'l caronslovakcomb',
    Ľ: 'L caronslovakcomb',
    ť: 't caronslovakcomb',
    ģ: 'g commaturnedabovecomb',
    Ģ: 'G commabelowcomb',
    ş: 's cedillacomb',
    ș: 's commabelowcomb',
    ǿ: 'oslash acutecomb',
    Ǽ: 'AE acutecomb.case',
  });
  expect(new Set(recipes().map((r) => r.code)).size).toBe(recipes().length);
});

test('anchors lie over and under the ink, higher on ascenders, and only where a letter takes that mark', () => {
  for (const s of STYLES) {
    const of = (name: string) =>
      Object.fromEntries(anchorsOf(name, lowercase[name]!(lowerMeasure(s)), s).map((a) => [a.name, a]));
    const [left, right] = span(lowercase.o!(lowerMeasure(s)).contours, 'x');
    expect(of('o').top).toMatchObject({ x: Math.round((left + right) / 2), y: s.xHeight, role: 'takesMark' });
    expect(of('l').top!.y).toBe(742);
    expect(of('e').ogonek!.x).toBeGreaterThan(of('e').bottom!.x);
    expect(of('n').ogonek).toBeUndefined();
    expect(of('d').topright!.x).toBeGreaterThan(span(lowercase.d!(lowerMeasure(s)).contours, 'x')[1]);
  }
});

test('accents stand clear of the letter and are centred on their anchor; those of capitals are flatter', () => {
  for (const s of STYLES) {
    const m = lowerMeasure(s);
    for (const [name, draw] of Object.entries(marks)) {
      const mark = draw(m);
      const [bottom, top] = span(mark.contours, 'y');
      if (mark.anchor !== 'top') continue;
      expect([s.name, name, bottom > s.xHeight + 10]).toEqual([s.name, name, true]);
      const capital = forCapitals(mark, m);
      const [low, high] = span(capital.contours, 'y');
      expect(high - low).toBeLessThan(top - bottom);
      expect(low).toBeGreaterThan(700);
    }
    for (const name of [
      'circumflexcomb',
      'caroncomb',
      'macroncomb',
      'brevecomb',
      'dotaccentcomb',
      'dieresiscomb',
      'ringcomb',
    ]) {
      const [left, right] = span(marks[name]!(m).contours, 'x');
      expect(Math.abs(left + right)).toBeLessThanOrEqual(2);
    }
    const [grave, acute] = ['gravecomb', 'acutecomb'].map((n) => span(marks[n]!(m).contours, 'x'));
    expect(grave![0]).toBe(-acute![1]);
  }
});

test('every set has its ten figures; tabular ones are one width in every style', () => {
  const names = Object.keys(figureSets);
  for (const suffix of ['', '.pnum', '.onum', 'superior', 'inferior', '.numr', '.dnom'])
    expect(
      names.filter((n) => n.replace(/^(zero|one|two|three|four|five|six|seven|eight|nine)/, '') === suffix),
    ).toHaveLength(10);
  for (const s of STYLES) {
    for (const n of ['zero', 'one', 'four', 'eight']) expect(figureSets[n]!(s).advance).toBe(tabularWidth(s));
    expect(figureSets['one.pnum']!(s).advance).toBeLessThan(figureSets['eight.pnum']!(s).advance);
    const heights = (n: string) => span(figureSets[n]!(s).contours, 'y');
    expect(heights('three.onum')[0]).toBeLessThan(-80);
    expect(heights('six.onum')[1]).toBeGreaterThan(s.xHeight + 80);
    expect(heights('zero.onum')[1]).toBeLessThan(s.xHeight + 40);
    expect(heights('twosuperior')[0]).toBeGreaterThan(200);
    expect(heights('twoinferior')[0]).toBeLessThan(-100);
  }
});

test('layout rules write themselves but for earlier spelling, room between capitals and sets, which carry names', () => {
  const sections = featureSections();
  expect(new Set(sections.map((s) => s.id)).size).toBe(sections.length);
  expect(sections.filter((s) => s.automatic === undefined).map((s) => s.title)).toEqual([
    'Letters by kind',
    'Long s of earlier spelling',
    'Ligatures of earlier spelling',
    'Room between capitals',
    'Other forms',
    'Round a',
    'Level-tailed g',
    'Straight y',
    'Raised colon in times',
  ]);
  for (const { text, automatic } of sections)
    if (automatic === undefined) expect([text, /featureNames|@|lookup|hlig|salt/.test(text)]).toEqual([text, true]);
  expect(sections.filter((s) => /featureNames/.test(s.text))).toHaveLength(4);
});
