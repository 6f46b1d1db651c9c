// biome-ignore-all format: strokes stand together as they are drawn.

import type { Contour } from '../src/core/geometry/contour';
import { capitals } from './capitals';
import { type Draw, shifted, sided, span } from './letter';
import { lowercase } from './lowercase';
import { bar, oval, pen, polygon } from './pen';
import { across, drawn, level, open } from './strokes';
import type { Measure } from './style';

/** The middle of figures, on which signs of reckoning sit. */
const MIDDLE = 338;

const half = (m: Measure) => open(m, 208, 0.42) + (m.stemBy - 1) * 14;
const dash = (m: Measure, y: number): Contour => bar(-half(m), y - level(m, 72, 0.8) / 2, half(m), y + level(m, 72, 0.8) / 2);
const upright = (m: Measure, y: number, reach: number): Contour => bar(-across(m, 74, 0.7) / 2, y - reach, across(m, 74, 0.7) / 2, y + reach);
const point = (m: Measure, y: number): Contour => oval(-across(m, 52, 0.5), y - across(m, 52, 0.5), across(m, 52, 0.5), y + across(m, 52, 0.5));
const apart = (m: Measure) => 84 + (m.levelBy - 1) * 40;
const sign = (contours: (m: Measure) => Contour[]): Draw => drawn(52, 52, contours);

/** Two strokes that meet at a point on the left: less than. */
function angle(m: Measure, y: number, reach: number): Contour {
  const t = level(m, 80, 0.85);
  const w = half(m);
  return polygon([-w, y - t * 0.52], [w, y - reach - t * 0.5], [w, y - reach + t * 0.5], [-w + t * 1.5, y], [w, y + reach - t * 0.5], [w, y + reach + t * 0.5], [-w, y + t * 0.52]);
}
const turned = (c: Contour): Contour => ({ ...c, points: c.points.map((p) => ({ ...p, x: -p.x })) });

function wave(m: Measure, y: number): Contour {
  const t = level(m, 72, 0.75);
  const w = half(m) + 8;
  const e = w - across(m, 34, 0.6);
  const low = y - t / 2 - 28;
  return pen(-w, low + 10).h(-e).curve(-e + 6, low + 44, -e * 0.78, low + 58, -w * 0.46, low + 58).curve(-w * 0.16, low + 58, w * 0.1, low, w * 0.44, low).curve(w * 0.8, low, w, low + 54, w, low + t + 48).h(e)
    .curve(e - 6, low + t + 14, e * 0.78, low + t, w * 0.46, low + t).curve(w * 0.16, low + t, -w * 0.1, low + t + 58, -w * 0.44, low + t + 58).curve(-w * 0.8, low + t + 58, -w, low + t + 4, -w, low + 10).close();
}

export const reckoning: Record<string, Draw> = {
  plus: sign((m) => [dash(m, MIDDLE), upright(m, MIDDLE, half(m))]),
  minus: sign((m) => [dash(m, MIDDLE)]),
  multiply: sign((m) => {
    const t = across(m, 54, 0.5);
    const r = half(m) + (m.stemBy - 1) * 6;
    return [polygon([-r, MIDDLE - r + t], [-r + t, MIDDLE - r], [r, MIDDLE + r - t], [r - t, MIDDLE + r]), polygon([r - t, MIDDLE - r], [r, MIDDLE - r + t], [-r + t, MIDDLE + r], [-r, MIDDLE + r - t])];
  }),
  divide: sign((m) => [dash(m, MIDDLE), point(m, MIDDLE + 176 + (m.levelBy - 1) * 14), point(m, MIDDLE - 176 - (m.levelBy - 1) * 14)]),
  equal: sign((m) => [dash(m, MIDDLE + apart(m)), dash(m, MIDDLE - apart(m))]),
  notequal: sign((m) => [dash(m, MIDDLE + apart(m)), dash(m, MIDDLE - apart(m)), polygon([-100, MIDDLE - 236], [-100 + across(m, 74, 0.6), MIDDLE - 236], [100, MIDDLE + 236], [100 - across(m, 74, 0.6), MIDDLE + 236])]),
  less: sign((m) => [angle(m, MIDDLE, 172)]),
  greater: sign((m) => [turned(angle(m, MIDDLE, 172))]),
  lessequal: sign((m) => [angle(m, MIDDLE + 76, 160), dash(m, MIDDLE - 236)]),
  greaterequal: sign((m) => [turned(angle(m, MIDDLE + 76, 160)), dash(m, MIDDLE - 236)]),
  plusminus: sign((m) => [dash(m, MIDDLE + 60), upright(m, MIDDLE + 60, half(m) * 0.9), dash(m, MIDDLE - 236)]),
  asciitilde: sign((m) => [wave(m, MIDDLE - 24)]),
  approxequal: sign((m) => [wave(m, MIDDLE + apart(m) + 8), wave(m, MIDDLE - apart(m) - 8)]),
  logicalnot: sign((m) => {
    const w = half(m);
    const t = level(m, 72, 0.8);
    const s = across(m, 74, 0.7);
    return [polygon([w, MIDDLE - 130], [w, MIDDLE + 60], [-w, MIDDLE + 60], [-w, MIDDLE + 60 - t], [w - s, MIDDLE + 60 - t], [w - s, MIDDLE - 130])];
  }),
  fraction: drawn(-90, -90, (m) => [polygon([0, 0], [across(m, 76, 0.6), 0], [across(m, 76, 0.6) + open(m, 330, 0.7), 690], [open(m, 330, 0.7), 690])]),
};

const over = (draw: Draw, more: (m: Measure, from: number, to: number, advance: number) => Contour[]): Draw => (m) => {
  const { advance, contours } = draw(m);
  const [from, to] = span(contours, 'x');
  return { advance, contours: [...contours, ...more(m, from, to, advance)] };
};

/** A currency letter on a figure's scale. */
const bars = (heights: readonly number[], left: number, right: number) => (m: Measure, from: number, to: number): Contour[] => {
  const t = level(m, 62, 0.62);
  return heights.map((y) => bar(from + left * (to - from), y - t / 2, from + right * (to - from), y + t / 2));
};

export const currency: Record<string, Draw> = {
  dollar: over(capitals.S!, (m, from, to) => {
    const s = across(m, 74, 0.5);
    const c = (from + to) / 2 - 4;
    return [bar(c - s / 2, -112, c + s / 2, 20), bar(c - s / 2, 680, c + s / 2, 812)];
  }),
  cent: over(lowercase.c!, (m, from, to) => {
    const s = across(m, 72, 0.5);
    const c = from + (to - from) * 0.56;
    return [bar(c - s / 2, -104, c + s / 2, 20), bar(c - s / 2, 500, c + s / 2, 624)];
  }),
  sterling: (m) => {
    const s = across(m, 88, 0.96);
    const t = level(m, 75, 0.96);
    const b = level(m, 68, 0.7);
    const g = open(m, 196);
    const right = 96 + s + g;
    const c = 96 + s + g * 0.46;
    const end = right + 26 - s * 0.3;
    return sided(m, [
      pen(40, 0).h(right + 52).v(t).h(96 + s * 0.5).curve(96 + s * 0.82, t + 44, 96 + s, 168, 96 + s, 236).v(520).curve(96 + s, 590, 96 + s + g * 0.26, 701 - t, c + g * 0.1, 701 - t)
        .curve(c + (end - c) * 0.5, 701 - t, end - (end - c) * 0.2, 701 - t - 16, end, 701 - t - 50).line(right + 52, 701 - t * 0.3 - 46).curve(right + 10, 701 - t * 0.1 - 24, right - g * 0.2, 701, c + g * 0.08, 701).hv(96, 520, 0.58).v(240).curve(96, 160, 70, 96, 40, 62).close(),
      bar(28, 330 - b / 2, right - 20, 330 + b / 2),
    ], 40, 44);
  },
  yen: over(capitals.Y!, bars([292, 168], 0.1, 0.9)),
  Euro: over(capitals.C!, (m, from, to) => bars([412, 288], -0.12, 0.66)(m, from, to)),
  currency: drawn(40, 40, (m) => {
    const s = across(m, 72, 0.6);
    const t = level(m, 66, 0.62);
    const r = open(m, 150, 0.8) + s * 0.4;
    const k = across(m, 50, 0.5);
    const tick = (sx: number, sy: number) => polygon([sx * r * 0.56, MIDDLE + sy * (r * 0.56 + k)], [sx * (r * 0.56 + k), MIDDLE + sy * r * 0.56], [sx * (r + 52 + k * 0.2), MIDDLE + sy * (r + 52 - k * 0.8)], [sx * (r + 52 - k * 0.8), MIDDLE + sy * (r + 52 + k * 0.2)]);
    return [oval(-r, MIDDLE - r, r, MIDDLE + r, 0.56), oval(-r + s, MIDDLE - r + t, r - s, MIDDLE + r - t, 0.56), tick(1, 1), tick(-1, 1), tick(-1, -1), tick(1, -1)];
  }),
};

/** An arrow to the right about the origin: a shaft and a head of two level-ended strokes. */
function arrow(m: Measure, slanted: boolean): Contour {
  const t = across(m, 78, 0.72) / 2;
  const reach = open(m, 384, 0.4);
  const head = 226 + (m.stemBy - 1) * 52;
  const k = t * 2.5;
  const x = reach - (slanted ? 40 : 0);
  return polygon([-x, -t], [x - t * 2.3, -t], [x - head + t * 0.4, -head + t * 0.4 - 0], [x - head + t * 0.4 + k, -head + t * 0.4], [x + t * 0.9, 0], [x - head + t * 0.4 + k, head - t * 0.4], [x - head + t * 0.4, head - t * 0.4], [x - t * 2.3, t], [-x, t]);
}

const DIRECTIONS = ['arrowright', 'arrowNE', 'arrowup', 'arrowNW', 'arrowleft', 'arrowSW', 'arrowdown', 'arrowSE'];

/** Arrows for platform signs, in eight directions and one width, standing as tall as capitals. */
export const arrows: Record<string, Draw> = Object.fromEntries(
  DIRECTIONS.map((name, i) => [
    name,
    (m: Measure) => {
      const [c, s] = [Math.cos((i * Math.PI) / 4), Math.sin((i * Math.PI) / 4)];
      const contour = arrow(m, i % 2 === 1);
      const whole = Math.round(2 * open(m, 384, 0.4) + 150 * m.sideBy);
      return { advance: whole, contours: shifted([{ ...contour, points: contour.points.map((p) => ({ ...p, x: p.x * c - p.y * s, y: p.x * s + p.y * c })) }], whole / 2, 340) };
    },
  ]),
);

/** The line's own signs, white on a tablet: platform, tunnel, level crossing. They are as wide in every style. */
const tablet = pen(40, 20).v(680).vh(100, 740, 0.56).h(700).hv(760, 680, 0.56).v(20).vh(700, -40, 0.56).h(100).hv(40, 20, 0.56).close();
const lineSign = (contours: readonly Contour[]): Draw => () => ({ advance: 800, contours: [tablet, ...contours] });

export const lineSigns: Record<string, Draw> = {
  platform: lineSign([
    polygon([110, 130], [690, 130], [690, 210], [110, 210]),
    pen(250, 290).h(310).v(420).h(330).v(290).h(390).v(560).vh(356, 594, 0.56).h(284).hv(250, 560, 0.56).close(),
    oval(270, 612, 370, 712 - 30, 0.56),
    polygon([470, 250], [650, 250], [650, 570], [470, 570]),
    polygon([504, 330], [504, 536], [616, 536], [616, 330]),
  ]),
  tunnel: lineSign([
    pen(130, 60).v(330).vh(400, 610, 0.56).hv(670, 330, 0.56).v(60).h(590).v(330).vh(400, 530, 0.56).hv(210, 330, 0.56).v(60).close(),
    polygon([290, 60], [342, 60], [384, 300], [358, 300]),
    polygon([458, 60], [510, 60], [442, 300], [416, 300]),
  ]),
  levelcrossing: lineSign([
    polygon([130, 232], [184, 168], [400, 340], [616, 168], [670, 232], [464, 396], [670, 560], [616, 624], [400, 452], [184, 624], [130, 560], [336, 396]),
    polygon([366, 20], [434, 20], [434, 270], [400, 243], [366, 270]),
  ]),
};

