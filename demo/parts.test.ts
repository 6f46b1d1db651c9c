import { anchorsOf } from './anchors';
import { recipes } from './composites';
import { featureSections } from './features';
import { FIRST, SECOND } from './groups';
import { kerning, profiles } from './kern';
import { type Letter, span } from './letter';
import { lowercase } from './lowercase';
import { forCapitals, marks } from './marks';
import { bar } from './pen';
import { figureSets, tabularWidth } from './sets';
import { lowerMeasure, REGULAR, STYLES } from './style';

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
    const of = (name: string) => Object.fromEntries(anchorsOf(name, lowercase[name]!(lowerMeasure(s)), s).map((a) => [a.name, a]));
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
    for (const name of ['circumflexcomb', 'caroncomb', 'macroncomb', 'brevecomb', 'dotaccentcomb', 'dieresiscomb', 'ringcomb']) {
      const [left, right] = span(marks[name]!(m).contours, 'x');
      expect(Math.abs(left + right)).toBeLessThanOrEqual(2);
    }
    const [grave, acute] = ['gravecomb', 'acutecomb'].map((n) => span(marks[n]!(m).contours, 'x'));
    expect(grave![0]).toBe(-acute![1]);
  }
});

test('profiles tell how far ink is from the edges at each height, and nothing where there is none', () => {
  const letter: Letter = { advance: 500, contours: [bar(100, 0, 300, 360), bar(150, 360, 200, 600)] };
  const { left, right } = profiles(letter);
  const at = (y: number) => Math.round((y + 204) / 12);
  expect([left[at(120)], right[at(120)]]).toEqual([100, 200]);
  expect([left[at(480)], right[at(480)]]).toEqual([150, 300]);
  expect([left[at(-100)], right[at(-100)], left[at(660)]]).toEqual([undefined, undefined, undefined]);
});

test('kerning closes open pairs, leaves plain ones, and never lets letters touch', () => {
  const upright = (left: number, right: number, advance: number, top = 700): Letter => ({ advance, contours: [bar(left, 0, right, top)] });
  const letters: Record<string, Letter> = {};
  for (const side of [FIRST, SECOND]) for (const [name, [first]] of Object.entries(side)) letters[first!] = upright(60, 340, 400, /^[A-Z]/.test(name) ? 700 : 520);
  letters.H = upright(60, 340, 400);
  letters.n = upright(60, 340, 400, 520);
  // T: a bar over a thin stem; A: wide at its foot alone.
  letters.T = { advance: 400, contours: [bar(10, 620, 390, 700), bar(170, 0, 230, 620)] };
  letters.A = { advance: 400, contours: [bar(5, 0, 395, 60), bar(180, 60, 220, 700)] };
  const pairs = kerning(letters, REGULAR);
  expect(pairs.get('T o')).toBeLessThan(-40);
  expect(pairs.get('T A')).toBeLessThan(-20);
  expect(pairs.get('V O')).toBe(0);
  expect([...pairs.values()].every((v) => v % 2 === 0 && v >= -96 && v <= 36)).toBe(true);
  // Two As stand foot to foot: there is no room to take.
  expect(pairs.get('A A') ?? 0).toBeGreaterThanOrEqual(0);
});

test('every set has its ten figures; tabular ones are one width in every style', () => {
  const names = Object.keys(figureSets);
  for (const suffix of ['', '.pnum', '.onum', 'superior', 'inferior', '.numr', '.dnom'])
    expect(names.filter((n) => n.replace(/^(zero|one|two|three|four|five|six|seven|eight|nine)/, '') === suffix)).toHaveLength(10);
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

test('layout rules swap sets of equal size, and stylistic sets carry names', () => {
  const sections = featureSections(['hyphen', 'parenleft'], ['acutecomb', 'gravecomb']);
  expect(new Set(sections.map((s) => s.id)).size).toBe(sections.length);
  for (const { text } of sections) {
    for (const [, from, to] of text.matchAll(/sub \[([^\]]+)\] by \[([^\]]+)\]/g)) expect(from!.split(' ')).toHaveLength(to!.split(' ').length);
    const tag = /^feature (\w{4}) \{/.exec(text)?.[1];
    expect(text.endsWith(`} ${tag};`)).toBe(true);
  }
  expect(sections.filter((s) => /featureNames/.test(s.text)).map((s) => s.title)).toEqual(['Round a', 'Level-tailed g', 'Straight y']);
  // Longer ligatures are tried before the shorter ones they begin with.
  const liga = sections.find((s) => s.title === 'Ligatures')!.text;
  expect(liga.indexOf('by f_f_i')).toBeLessThan(liga.indexOf('by f_f;'));
});
