// biome-ignore-all format: strokes stand together as they are drawn.

import type { Contour } from '../src/core/geometry/contour';
import { type Draw, shifted, span } from './letter';
import { commaShape } from './marks';
import { bar, mirrored, oval, pen, polygon } from './pen';
import { ruled } from './ruler';
import { across, drawn, level, open } from './strokes';
import type { Measure } from './style';

const radius = (m: Measure) => across(m, 54, 0.72);
const point = (m: Measure, y = -8): Contour => oval(-radius(m), y, radius(m), y + 2 * radius(m));
const at = (c: Contour, dx: number, dy = 0): Contour => shifted([c], dx, dy)[0]!;
const comma = (m: Measure): Contour => commaShape(m, 2 * radius(m) - 6);

/** Quotation marks: a comma raised to the capitals' height; the opening one is the same, turned. */
const quote = (m: Measure): Contour => commaShape(m, 716);
const opening = (m: Measure): Contour => {
  const c = quote(m);
  const [low, high] = span([c], 'y');
  return { ...c, points: c.points.map((p) => ({ ...p, x: -p.x, y: low + high - p.y })) };
};
const twice = (m: Measure, c: Contour): Contour[] => [c, at(c, 2 * across(m, 56, 0.7) + open(m, 42))];

const dash = (width: number): Draw => drawn(48, 48, (m) => [bar(0, 270 - level(m, 74) / 2, open(m, width, 0.5) + (m.stemBy - 1) * 30, 270 + level(m, 74) / 2)]);

/** A bracket's two strokes. */
const bracket = (m: Measure): Contour => {
  const s = across(m, 78, 0.8);
  const t = level(m, 66, 0.8);
  const w = s + open(m, 96, 0.7);
  return polygon([0, -150], [w, -150], [w, -150 + t], [s, -150 + t], [s, 760 - t], [w, 760 - t], [w, 760], [0, 760]);
};
const round = (m: Measure): Contour => {
  const s = across(m, 84, 0.82);
  const t = across(m, 70, 0.6);
  const w = open(m, 118, 0.7) + s * 0.6;
  return pen(w, -156).curve(w * 0.4, -40, 0, 120, 0, 306).curve(0, 490, w * 0.4, 650, w, 766).h(w + t).curve(s + w * 0.34, 640, s, 484, s, 306).curve(s, 126, s + w * 0.34, -30, w + t, -156).close();
};
const brace = (m: Measure): Contour => {
  const s = across(m, 76, 0.74);
  const t = level(m, 64, 0.74);
  const a = open(m, 62, 0.7);
  const w = a + s + open(m, 86, 0.7);
  return pen(w, -150).v(-150 + t).h(w - 20).curve(a + s + 8, -150 + t, a + s, -60 - 26 + t, a + s, -40 + t).v(216).curve(a + s, 268, a + s - 22, 292, a + s - 66, 305).curve(a + s - 22, 318, a + s, 342, a + s, 394)
    .v(650 - t).curve(a + s, 696 - t, a + s + 8, 760 - t, w - 20, 760 - t).h(w).v(760).h(w - 30).curve(a + 30, 760, a, 700, a, 640).v(410).curve(a, 352, a - 24, 340, 0, 340).v(270).curve(a - 24, 270, a, 258, a, 200)
    .v(-30).curve(a, -90, a + 30, -150, w - 30, -150).close();
};
const flippedOver = (c: Contour): Contour => mirrored([c], 0)[0]!;

const chevron = (m: Measure, x: number): Contour => {
  const h = across(m, 82, 0.7);
  const w = open(m, 128, 0.8);
  return polygon([x + w, 68], [x + w + h, 68], [x + h, 262], [x + w + h, 456], [x + w, 456], [x, 262]);
};
const chevrons = (m: Measure): Contour[] => [chevron(m, 0), chevron(m, across(m, 82, 0.7) + open(m, 78, 0.9))];

const stroke = (m: Measure): Contour => polygon([0, -110], [across(m, 82, 0.8), -110], [across(m, 82, 0.8) + open(m, 250, 0.8), 750], [open(m, 250, 0.8), 750]);

const hook = ruled({ advance: 452, x: [[168, 250, 0.5]], above: { y: 330, x: [[22, 84, 0.6], [316, 406]] }, y: [[636, 711, 0.96]] }, [
  pen(168, 196).h(250).v(232).curve(250, 284, 286, 314, 330, 356).curve(376, 400, 406, 448, 406, 522).vh(226, 711, 0.56, 0.6).curve(146, 711, 74, 674, 22, 604).line(84, 552)
    .curve(120, 604, 166, 636, 218, 636).hv(316, 520, 0.56, 0.6).curve(316, 474, 296, 444, 256, 406).curve(208, 360, 168, 316, 168, 240).close(),
]);
const question: Draw = (m) => {
  const { advance, contours } = hook(m);
  const foot = contours[0]!.points.filter((p) => p.y === Math.min(...contours[0]!.points.map((q) => q.y))).map((p) => p.x);
  return { advance, contours: [...contours, at(point(m), (Math.min(...foot) + Math.max(...foot)) / 2)] };
};
const exclam: Draw = drawn(72, 72, (m) => {
  const s = across(m, 92, 0.86) / 2;
  return [polygon([-s * 0.68, 196 + (m.levelBy - 1) * 22], [s * 0.68, 196 + (m.levelBy - 1) * 22], [s, 700], [-s, 700]), point(m)];
});
/** Turned half round, for the signs that open a Spanish sentence; they hang from the x-height. */
const turned =
  (draw: Draw): Draw =>
  (m) => {
    const { advance, contours } = draw(m);
    return { advance, contours: contours.map((c) => ({ ...c, points: c.points.map((p) => ({ ...p, x: advance - p.x, y: Math.round(m.line(520) - 8) - p.y })) })) };
  };

const ring = (cx: number, cy: number, rx: number, ry: number, s: number, t: number): Contour[] => [oval(cx - rx, cy - ry, cx + rx, cy + ry, 0.575), oval(cx - rx + s, cy - ry + t, cx + rx - s, cy + ry - t, 0.575)];

/** The rings of percent and per mille, and the slanted stroke between them. */
function perCent(m: Measure, rings: number): Contour[] {
  const s = across(m, 70, 0.62);
  const t = level(m, 58, 0.66);
  const r = open(m, 66, 0.9) + s;
  const slant = across(m, 70, 0.6);
  const out = ring(r, 532, r, 170, s, t);
  const from = r * 1.35;
  const run = open(m, 330, 0.9);
  out.push(polygon([from, 0], [from + slant, 0], [from + run + slant, 690], [from + run, 690]));
  for (let i = 0; i < rings; i++) out.push(...ring(from + run * 0.72 + r + slant * 0.4 + i * (2 * r + open(m, 42)), 158, r, 170, s, t));
  return out;
}

const asterisk = (m: Measure): Contour[] => {
  const w = across(m, 62, 0.6) / 2;
  return [90, 18, -54, -126, 162].map((angle) => {
    const a = (angle * Math.PI) / 180;
    const [c, s] = [Math.cos(a), Math.sin(a)];
    const to = (x: number, y: number): [number, number] => [x * c - y * s, 552 + x * s + y * c];
    return polygon(to(-8, -w * 0.62), to(176, -w), to(176, w), to(-8, w * 0.62));
  });
};

const AT = ruled({ advance: 924, x: [[48, 110, 0.5], [252, 322, 0.62], [588, 660, 0.62], [812, 874, 0.5]], y: [[-110, -52, 0.5], [412, 470, 0.5], [584, 642, 0.5]] }, [
  pen(704, -16).curve(640, -78, 562, -110, 466, -110).hv(48, 262, 0.575).vh(474, 642, 0.575).hv(874, 322, 0.575).curve(874, 152, 802, 46, 706, 46).curve(646, 46, 600, 78, 588, 132)
    .line(660, 160).curve(664, 124, 684, 104, 712, 104).curve(770, 104, 812, 184, 812, 318).vh(474, 584, 0.575).hv(110, 262, 0.575).vh(468, -52, 0.575).curve(548, -52, 612, -28, 664, 24).close(),
  pen(588, 460).v(120).h(660).v(460).close(),
  pen(438, 46).curve(540, 46, 652, 140, 652, 290).curve(652, 400, 580, 470, 464, 470).hv(252, 250, 0.57).vh(438, 46, 0.57).close(),
  pen(452, 106).hv(322, 250, 0.57).vh(466, 412, 0.57).curve(544, 412, 592, 366, 592, 288).curve(592, 186, 524, 106, 452, 106).close(),
]);

const section: Draw = (m) => {
  const one = ruled({ advance: 520, x: [[74, 160], [360, 446]], above: { y: 330, x: [[74, 160], [368, 420]] }, y: [[-156, -86, 0.8], [112, 180, 0.5], [330, 398, 0.5], [630, 700, 0.8]] }, [
    pen(420, 634).curve(378, 676, 324, 700, 262, 700).curve(150, 700, 74, 638, 74, 548).curve(74, 470, 130, 430, 214, 398).curve(300, 366, 360, 342, 360, 282).curve(360, 230, 316, 202, 250, 180)
      .line(272, 112).curve(372, 140, 446, 196, 446, 284).curve(446, 372, 384, 412, 300, 442).curve(214, 474, 160, 494, 160, 550).curve(160, 600, 202, 630, 262, 630).curve(304, 630, 340, 614, 368, 586).close(),
  ])(m);
  // Each end lies in the middle of the other's slanting stroke.
  const at = (i: number) => one.contours[0]!.points[i]!.y;
  const sum = Math.round((at(15) + at(16) + at(9) + at(22)) / 2);
  const turn = one.contours.map((c) => ({ ...c, points: c.points.map((p) => ({ ...p, x: one.advance - p.x, y: sum - p.y })) }));
  return { advance: one.advance, contours: [...one.contours, ...turn] };
};

/** Punctuation marks of the text height. */
export const punctuation: Record<string, Draw> = {
  period: drawn(56, 56, (m) => [point(m)]),
  comma: drawn(50, 52, (m) => [comma(m)]),
  colon: drawn(62, 62, (m) => [point(m), point(m, m.line(520) - 40 - 2 * radius(m) + 8)]),
  semicolon: drawn(56, 60, (m) => [comma(m), point(m, m.line(520) - 40 - 2 * radius(m) + 8)]),
  ellipsis: drawn(56, 56, (m) => [0, 1, 2].map((i) => at(point(m), i * (2 * radius(m) + open(m, 118))))),
  exclam,
  exclamdown: turned(exclam),
  question,
  questiondown: turned(question),
  hyphen: dash(234),
  endash: dash(464),
  emdash: dash(864),
  underscore: drawn(0, 0, (m) => [bar(0, -120, 500, -120 + level(m, 66, 0.7))]),
  parenleft: drawn(52, 20, (m) => [round(m)]),
  parenright: drawn(20, 52, (m) => [flippedOver(round(m))]),
  bracketleft: drawn(78, 30, (m) => [bracket(m)]),
  bracketright: drawn(30, 78, (m) => [flippedOver(bracket(m))]),
  braceleft: drawn(28, 28, (m) => [brace(m)]),
  braceright: drawn(28, 28, (m) => [flippedOver(brace(m))]),
  slash: drawn(14, 14, (m) => [stroke(m)]),
  backslash: drawn(14, 14, (m) => [flippedOver(stroke(m))]),
  bar: drawn(92, 92, (m) => [bar(0, -160, across(m, 72, 0.7), 780)]),
  brokenbar: drawn(92, 92, (m) => [bar(0, -160, across(m, 72, 0.7), 240), bar(0, 380, across(m, 72, 0.7), 780)]),
  asterisk: drawn(30, 30, asterisk),
  quotesingle: drawn(58, 58, (m) => [tick(m)]),
  quotedbl: drawn(58, 58, (m) => [tick(m), at(tick(m), across(m, 86, 0.56) + open(m, 84, 0.5))]),
  quoteleft: drawn(50, 44, (m) => [opening(m)]),
  quoteright: drawn(44, 50, (m) => [quote(m)]),
  quotedblleft: drawn(50, 44, (m) => twice(m, opening(m))),
  quotedblright: drawn(44, 50, (m) => twice(m, quote(m))),
  quotesinglbase: drawn(50, 52, (m) => [comma(m)]),
  quotedblbase: drawn(50, 52, (m) => twice(m, comma(m))),
  guilsinglleft: drawn(40, 52, (m) => [chevron(m, 0)]),
  guilsinglright: drawn(52, 40, (m) => [flippedOver(chevron(m, 0))]),
  guillemotleft: drawn(40, 52, chevrons),
  guillemotright: drawn(52, 40, (m) => chevrons(m).map(flippedOver)),
  bullet: drawn(64, 64, (m) => [oval(0, 270 - across(m, 102, 0.35), 2 * across(m, 102, 0.35), 270 + across(m, 102, 0.35))]),
  periodcentered: drawn(64, 64, (m) => [point(m, 270 - radius(m))]),
  dagger: drawn(36, 36, (m) => [bar(across(m, 76, 0.8) / -2, -130, across(m, 76, 0.8) / 2, 700), bar(-open(m, 186, 0.8), 470, open(m, 186, 0.8), 470 + level(m, 72, 0.8))]),
  daggerdbl: drawn(36, 36, (m) => [bar(across(m, 76, 0.8) / -2, -130, across(m, 76, 0.8) / 2, 700), ...[70, 470].map((y) => bar(-open(m, 186, 0.8), y, open(m, 186, 0.8), y + level(m, 72, 0.8)))]),
  section,
  paragraph: ruled({ advance: 596, x: [[256, 336], [424, 504]], y: [[630, 700]] }, [pen(504, -120).v(700).h(248).curve(114, 700, 36, 622, 36, 506).curve(36, 388, 116, 312, 250, 312).h(256).v(-120).h(336).v(630).h(424).v(-120).close()]),
  at: AT,
  numbersign: drawn(28, 28, (m) => {
    const h = across(m, 70, 0.62);
    const g = open(m, 152, 0.9);
    const lean = 92;
    const over = open(m, 74, 0.8);
    const t = level(m, 64, 0.66);
    const w = 2 * over + 2 * h + g;
    return [0, h + g].map((x) => polygon([over + x - lean / 2 - 8, 0], [over + x - lean / 2 - 8 + h, 0], [over + x + lean / 2 + h - 8, 690], [over + x + lean / 2 - 8, 690])).concat([218, 424].map((y) => bar(0, y, w, y + t)));
  }),
  percent: drawn(36, 36, (m) => perCent(m, 1)),
  perthousand: drawn(36, 36, (m) => perCent(m, 2)),
  degree: drawn(48, 48, (m) => ring(0, 556, open(m, 74, 0.8) + across(m, 60, 0.55), 74 + level(m, 60, 0.45), across(m, 60, 0.55), level(m, 60, 0.55))),
  asciicircum: drawn(40, 40, (m) => {
    const h = across(m, 84, 0.62);
    const w = open(m, 132, 0.8) + h;
    return [polygon([-w, 390], [-w + h, 390], [0, 600], [w - h, 390], [w, 390], [h * 0.5, 690], [-h * 0.5, 690])];
  }),
};

/** The upright quotation mark: a wedge. */
function tick(m: Measure): Contour {
  const s = across(m, 86, 0.56) / 2;
  return polygon([-s * 0.74, 452], [s * 0.74, 452], [s, 716], [-s, 716]);
}

/** Signs that are raised to stand well beside capitals and figures, and by how much. */
export const RAISED: Readonly<Record<string, number>> = {
  hyphen: 84, endash: 84, emdash: 84, bullet: 84, periodcentered: 84, guilsinglleft: 88, guilsinglright: 88, guillemotleft: 88, guillemotright: 88,
  parenleft: 44, parenright: 44, bracketleft: 44, bracketright: 44, braceleft: 44, braceright: 44, at: 84, exclamdown: 190, questiondown: 190,
};

