// biome-ignore-all format: strokes stand together as they are drawn.

import { capitals } from './capitals';
import { figures } from './figures';
import { centred, type Draw, type Letter, shifted, sided, span } from './letter';
import { lowercase } from './lowercase';
import { bar, mirrored, pen, polygon } from './pen';
import { ruled } from './ruler';
import { across, drawn, level, open, vee } from './strokes';
import { capitalMeasure, lowerMeasure, type Measure, type Style, smallCapMeasure, smallMeasure } from './style';

/** A glyph of one style. */
export type Make = (s: Style) => Letter;
export type Glyphs = Record<string, Make>;

export const FIGURES = ['zero', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'];

/** All signs of a set drawn to one measure. */
export const to = (measure: (s: Style) => Measure, set: Readonly<Record<string, Draw>>): Glyphs =>
  Object.fromEntries(Object.entries(set).map(([name, draw]) => [name, (s: Style) => draw(measure(s))]));

const figure = (name: string): Draw => figures[name]!;

/** The one width of tabular figures in a style, from its zero and room at both sides. */
export const tabularWidth = (s: Style): number => figure('zero')(capitalMeasure(s)).advance + Math.round(4 * s.side);

const tabular = (measure: (s: Style) => Measure, lift: (name: string) => (s: Style) => number = () => () => 0): Glyphs =>
  Object.fromEntries(
    FIGURES.map((name) => [
      name,
      (s: Style) => {
        const { contours } = figure(name)(measure(s));
        return centred(shifted(contours, 0, lift(name)(s)), tabularWidth(s));
      },
    ]),
  );

/** Side bearings of proportional figures in the Regular, left and right. */
const SIDES: Record<string, readonly [number, number]> = {
  zero: [44, 44], one: [58, 50], two: [54, 50], three: [46, 46], four: [28, 30], five: [52, 46], six: [46, 42], seven: [40, 26], eight: [46, 46], nine: [42, 46],
};

const proportional = (name: string): Draw => (m) => sided(m, figure(name)(m).contours, ...SIDES[name]!);

/** Figures that stand between lowercase letters: 0, 1 and 2 as tall as x, 6 and 8 above it, the others hanging. */
const HANGING = ['three', 'four', 'five', 'seven', 'nine'];
const oldStyleMeasure = (name: string) => (s: Style): Measure => {
  const short = ['zero', 'one', 'two'].includes(name);
  const height = (s.xHeight + (short ? 6 : 0)) / 690;
  const m = capitalMeasure(s);
  const lower = lowerMeasure(s);
  const drop = HANGING.includes(name) ? s.xHeight - 690 + 12 : 0;
  return {
    ...m,
    stemBy: (lower.stemBy * 84 * 1.02) / 91,
    levelBy: (lower.levelBy * 73 * 1.0) / 75,
    gapBy: s.capGap * (short ? 0.9 : 0.94),
    line: (y) => (short ? (y < 0 ? y : y > 690 ? s.xHeight + 6 + (y - 690) : y * height) : m.line(y) + drop),
  };
};

const named = (suffix: string, glyphs: Glyphs): Glyphs => Object.fromEntries(Object.entries(glyphs).map(([name, make]) => [`${name}${suffix}`, make]));

const small = (raise: number): Glyphs => to((s) => smallMeasure(s, raise), Object.fromEntries(FIGURES.map((n) => [n, figure(n)])));

/** Every set of figures: tabular, proportional, old-style, raised, lowered, and those of fractions. */
export const figureSets: Glyphs = {
  ...tabular(capitalMeasure),
  ...named('.pnum', to(capitalMeasure, Object.fromEntries(FIGURES.map((n) => [n, proportional(n)])))),
  ...named('.onum', Object.fromEntries(FIGURES.map((n) => [n, (s: Style) => proportional(n)(oldStyleMeasure(n)(s))]))),
  ...named('superior', small(276)),
  ...named('inferior', small(-150)),
  ...named('.numr', small(276)),
  ...named('.dnom', small(0)),
};

/** Small capitals of the plain alphabet. */
export const smallCapitals: Glyphs = Object.fromEntries(Object.entries(capitals).map(([name, draw]) => [`${name.toLowerCase()}.sc`, (s: Style) => draw(smallCapMeasure(s))]));

const bridge = (m: Measure, from: number, end: number) => bar(from, m.line(520) - level(m, 73), end, m.line(520));

/** f with letters it runs into: their bars become one. `parts` are set with the bar's gap between them. */
function run(...parts: Draw[]): Draw {
  return (m) => {
    let pens = 0;
    const contours: Letter['contours'][number][] = [];
    let last = 0;
    parts.forEach((draw, i) => {
      const letter = draw(m);
      const inked = shifted(letter.contours, pens);
      const stemLeft = span([inked[0]!], 'x')[0];
      if (i > 0) contours.push(bridge(m, last, stemLeft + across(m, 84, 1) * 0.6));
      contours.push(...inked);
      last = pens + Math.round(letter.advance * 0.5);
      pens += letter.advance;
      if (i + 1 < parts.length) pens -= Math.round(open(m, i === 0 && parts[1] === lowercase.f ? 22 : 18));
    });
    return { advance: pens, contours };
  };
}

const { f, i, l } = lowercase as { f: Draw; i: Draw; l: Draw };

/** Letters that f runs into, and where a caret may stand within them. */
export const ligatures: Readonly<Record<string, { parts: readonly string[]; draw: Draw }>> = {
  f_f: { parts: ['f', 'f'], draw: run(f, f) },
  f_i: { parts: ['f', 'i'], draw: run(f, i) },
  f_l: { parts: ['f', 'l'], draw: run(f, l) },
  f_f_i: { parts: ['f', 'f', 'i'], draw: run(f, f, i) },
  f_f_l: { parts: ['f', 'f', 'l'], draw: run(f, f, l) },
};

/** The long s of earlier spelling: f without the right half of its bar. */
const longs: Draw = ruled({ advance: 330, x: [[94, 178]], y: [[447, 520], [678, 752]] }, [
  pen(94, 0).h(178).v(584).vh(252, 678, 0.6).curve(276, 678, 296, 673, 316, 664).line(336, 733)
    .curve(310, 746, 276, 752, 246, 752).hv(94, 590, 0.58).v(520).h(34).v(447).h(94).close(),
]);

/** Letters set so close that they belong together. */
const close = (...parts: Draw[]): Draw => (m) => {
  let pens = 0;
  const contours: Letter['contours'][number][] = [];
  for (const draw of parts) {
    const letter = draw(m);
    contours.push(...shifted(letter.contours, pens));
    pens += letter.advance - Math.round(open(m, 26));
  }
  return { advance: pens + Math.round(open(m, 26)), contours };
};

/** Letters of earlier spelling and their ligatures. */
export const historical: Readonly<Record<string, { parts: readonly string[]; draw: Draw }>> = {
  longs: { parts: ['longs'], draw: longs },
  longs_longs: { parts: ['longs', 'longs'], draw: close(longs, longs) },
  longs_i: { parts: ['longs', 'i'], draw: close(longs, i) },
  longs_l: { parts: ['longs', 'l'], draw: close(longs, l) },
  longs_t: { parts: ['longs', 't'], draw: close(longs, lowercase.t as Draw) },
};

const X = 520;

/** Other shapes of a, g and y: a round a for children's notices, a g with a level tail, a straight y. */
export const alternates: Record<string, Draw> = {
  'a.ss01': ruled({ advance: 570, x: [[46, 132], [414, 498]], y: [[-11, 62], [458, 531]] }, mirrored([
    pen(72, 0).h(156).v(70).curve(182, 22, 240, -11, 312, -11).hv(524, 262, 0.585).vh(314, 531, 0.585).curve(242, 531, 182, 492, 156, 444).v(X).h(72).close(),
    pen(156, 344).curve(160, 414, 208, 458, 294, 458).hv(438, 262, 0.575).vh(294, 62, 0.575).curve(206, 62, 160, 108, 156, 176).close(),
  ], 285)),
  'g.ss02': ruled({ advance: 572, x: [[42, 130], [416, 500]], y: [[-204, -131], [0, 73, 0.88], [458, 531, 0.95]] }, [
    pen(500, X).h(424).line(416, 446).curve(390, 500, 334, 531, 268, 531).hv(42, 266, 0.575).vh(262, 0, 0.58).curve(330, 0, 386, 30, 416, 82).v(-20).curve(416, -96, 388, -131, 322, -131).h(96).v(-204).h(340).hv(500, -36, 0.58).close(),
    pen(416, 342).curve(416, 410, 362, 458, 286, 458).hv(130, 266, 0.575).vh(284, 73, 0.575).curve(362, 73, 416, 122, 416, 190).close(),
  ]),
  'y.ss03': drawn(12, 12, (m) => {
    const v = vee(m, { arm: 90, foot: 94, gap: 296, top: X });
    const [a, b, c, ...rest] = v.points;
    const h = across(m, 88);
    // The right arm runs on to the descender, as straight as it came.
    const d = v.points[3]!;
    const slope = (d.x - c!.x) / d.y;
    const end = -204;
    const x = c!.x + slope * end;
    return [polygon([a!.x, a!.y], [b!.x, b!.y], [x - h, end], [x, end], ...rest.map((p): [number, number] => [p.x, p.y]))];
  }),
};
