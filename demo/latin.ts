// biome-ignore-all format: strokes stand together as they are drawn.

import type { Contour } from '../src/core/geometry/contour';
import { capitals } from './capitals';
import { type Draw, type Letter, shifted, sided, span } from './letter';
import { lowercase } from './lowercase';
import { bar, pen, polygon } from './pen';
import { ruled } from './ruler';
import { across, level, open } from './strokes';
import type { Measure } from './style';

type More = (m: Measure, box: { left: number; right: number; letter: Letter }) => readonly Contour[];

/** A letter with more strokes on it. */
const extended =
  (draw: Draw, more: More): Draw =>
  (m) => {
    const letter = draw(m);
    const [left, right] = span(letter.contours, 'x');
    return { advance: letter.advance, contours: [...letter.contours, ...more(m, { left, right, letter })] };
  };

/** A level bar across a stem. */
const crossbar = (y: number, from: (m: Measure, box: Parameters<More>[1]) => number, to: (m: Measure, box: Parameters<More>[1]) => number, thick = 62): More => (m, box) => {
  const t = level(m, thick, 0.7);
  return [bar(from(m, box), y - t / 2, to(m, box), y + t / 2)];
};

const slash = (bottom: number, top: number, reach: number): More => (m, { left, right }) => {
  const h = across(m, 66, 0.5);
  const c = (left + right) / 2;
  const w = (right - left) / 2 - reach;
  return [polygon([c - w - h * 0.62, bottom], [c - w + h * 0.48, bottom], [c + w + h * 0.62, top], [c + w - h * 0.48, top])];
};
/** The slanted bar of Polish l. */
const bent = (low: number, rise: number, by: number): More => (m, { left }) => {
  const s = across(m, 84, 1);
  const t = level(m, 76, 0.8);
  const out = open(m, 66, 0.8);
  return [polygon([left - out + by, low], [left + s + out + by, low + rise], [left + s + out + by, low + rise + t], [left - out + by, low + t])];
};

/** Two letters run into one: the second begins where the first ends, less what they share. */
const joined = (first: Draw, second: Draw, share: (m: Measure) => number): Draw => (m) => {
  const a = first(m);
  const b = second(m);
  const [, aRight] = span(a.contours, 'x');
  const [bLeft] = span(b.contours, 'x');
  const dx = Math.round(aRight - bLeft - share(m));
  return { advance: b.advance + dx, contours: [...a.contours, ...shifted(b.contours, dx)] };
};

const roundStem = (m: Measure) => across(m, 86, 0.82);

const G = lowercase;
const C = capitals;
const stem = (m: Measure) => across(m, 84, 1);

export const latin: Record<string, Draw> = {
  ae: joined(G.a!, G.e!, roundStem),
  oe: joined(G.o!, G.e!, roundStem),
  AE: (m) => {
    const e = C.E!(m);
    const s = across(m, 91, 1);
    const h = across(m, 97, 0.9);
    const run = open(m, 286, 0.6) + 48 + (h - 97) * 0.75;
    const [left] = span(e.contours, 'x');
    const b = level(m, 72, 0.9);
    const inner = (y: number): [number, number] => [h + ((run + s * 0.45 - h) * y) / 700, y];
    const leg = polygon([0, 0], [h, 0], inner(176), [run + 20, 176], [run + 20, 176 + b], inner(176 + b), [run + s * 0.45, 700], [run, 700]);
    return sided(m, [leg, ...shifted(e.contours, run - left)], 6, e.advance / m.sideBy - span(e.contours, 'x')[1] / m.sideBy);
  },
  // One outline: the bowl runs level into the arms, so that nothing of it stands out behind the stem.
  OE: ruled({ advance: 900, x: [[48, 144], [416, 507]], y: [[0, 78], [318, 394, 0.88], [622, 700]] }, [
    pen(366, 0).h(856).v(78).h(507).v(318).h(806).v(394).h(507).v(622).h(850).v(700).h(366).hv(48, 350, 0.57).vh(366, 0, 0.57).close(),
    pen(374, 78).hv(144, 350, 0.57).vh(374, 622, 0.57).h(416).v(78).close(),
  ]),
  oslash: extended(G.o!, slash(-46, 566, 34)),
  Oslash: extended(C.O!, slash(-52, 752, 44)),
  eth: (m) => {
    const s = roundStem(m);
    const t = level(m, 72, 1);
    const w = 2 * across(m, 86, 1) + open(m, 312);
    const X = m.line(520);
    const b = level(m, 58, 0.5);
    return sided(m, [
      pen(w, 250).curve(w, 96, w * 0.78, m.line(-11), w / 2, m.line(-11)).curve(w * 0.22, m.line(-11), 0, 90, 0, 232).curve(0, 374, w * 0.22, X - 58, w * 0.46, X - 58).curve(w * 0.62, X - 58, w * 0.74, X - 84, w * 0.8, X - 120)
        .curve(w * 0.72, X + 60, w * 0.56, 660, w * 0.24, 720).line(w * 0.24 + 36, 720 + t * 0.86).curve(w * 0.78, 720, w, 520, w, 250).close(),
      pen(w - s, 244).curve(w - s, 340, w * 0.64, X - 58 - t, w / 2, X - 58 - t).curve(s + (w - 2 * s) * 0.18, X - 58 - t, s, 340, s, 232).curve(s, 130, s + (w - 2 * s) * 0.18, m.line(-11) + t, w / 2, m.line(-11) + t).curve(w * 0.64, m.line(-11) + t, w - s, 134, w - s, 244).close(),
      polygon([w * 0.24, 566], [w * 0.86, 660], [w * 0.86, 660 + b], [w * 0.24, 566 + b]),
    ], 44, 44);
  },
  Eth: extended(C.D!, crossbar(352, (_, b) => b.left - 62, (m, b) => b.left + across(m, 91, 1) + open(m, 128), 68)),
  Dcroat: extended(C.D!, crossbar(352, (_, b) => b.left - 62, (m, b) => b.left + across(m, 91, 1) + open(m, 128), 68)),
  thorn: (m) => {
    const p = G.p!(m);
    const stemOf = stem(m);
    const [left] = span(p.contours, 'x');
    return { advance: p.advance, contours: [...p.contours, bar(left, m.line(520) - 80, left + stemOf, 742)] };
  },
  Thorn: ruled({ advance: 590, x: [[84, 175], [462, 556]], y: [[130, 206, 0.9], [488, 564, 0.9]] }, [
    pen(84, 0).h(175).v(130).h(340).hv(556, 347, 0.57).vh(340, 564, 0.57).h(175).v(700).h(84).close(),
    pen(175, 206).v(488).h(340).hv(462, 347, 0.57).vh(340, 206, 0.57).close(),
  ]),
  germandbls: ruled({ advance: 574, x: [[72, 156], [446, 530]], above: { y: 392, x: [[72, 156], [404, 488]] }, y: [[-11, 61], [384, 452, 0.6], [680, 752]] }, [
    pen(72, 0).h(156).v(560).vh(282, 680, 0.6).curve(352, 680, 404, 638, 404, 572).curve(404, 520, 372, 480, 320, 452).line(318, 412).curve(396, 384, 446, 316, 446, 222).curve(446, 122, 388, 61, 300, 61).curve(270, 61, 242, 68, 216, 82)
      .line(194, 16).curve(226, -4, 264, -11, 304, -11).curve(440, -11, 530, 82, 530, 222).curve(530, 330, 478, 410, 396, 440).curve(456, 470, 488, 520, 488, 582).curve(488, 684, 404, 752, 284, 752).hv(72, 556, 0.58).close(),
  ]),
  uni1E9E: ruled({ advance: 668, x: [[84, 175], [524, 616]], above: { y: 402, x: [[84, 175], [300, 408, 0.3], [446, 560, 0.8]] }, y: [[-11, 67], [632, 711]] }, [
    pen(84, 0).h(175).v(470).curve(175, 570, 236, 632, 330, 632).h(446).line(300, 452).v(390).h(344).curve(456, 390, 524, 326, 524, 222).curve(524, 124, 460, 67, 356, 67).curve(318, 67, 284, 74, 252, 88)
      .line(226, 20).curve(266, -2, 312, -11, 362, -11).curve(520, -11, 616, 80, 616, 224).curve(616, 356, 532, 442, 408, 456).line(560, 640).v(711).h(330).hv(84, 470, 0.58).close(),
  ]),
  dcroat: extended(G.d!, crossbar(634, (m, b) => b.right - stem(m) - open(m, 150), (m, b) => b.right + open(m, 52))),
  hbar: extended(G.h!, crossbar(634, (m, b) => b.left - open(m, 52), (m, b) => b.left + stem(m) + open(m, 150))),
  Hbar: extended(C.H!, crossbar(560, (m, b) => b.left - open(m, 66), (m, b) => b.right + open(m, 66), 66)),
  lslash: extended(G.l!, bent(300, 110, 0)),
  Lslash: extended(C.L!, bent(248, 150, 20)),
  tbar: extended(G.t!, crossbar(284, (_, b) => b.left, (m, b) => b.right - open(m, 30), 58)),
  Tbar: extended(C.T!, crossbar(356, (m, b) => b.left + open(m, 96), (m, b) => b.right - open(m, 96), 66)),
  eng: ruled({ advance: 552, x: [[72, 156], [396, 480]], y: [[-206, -134], [455, 531]] }, [
    pen(72, 0).h(156).v(336).vh(291, 455, 0.6, 0.5).hv(396, 324, 0.6, 0.56).v(-40).curve(396, -104, 366, -134, 312, -134).curve(288, -134, 262, -130, 238, -120).line(220, -188).curve(250, -200, 284, -206, 320, -206).hv(480, -46, 0.58).v(330)
      .vh(311, 531, 0.6, 0.56).curve(243, 531, 180, 494, 155, 434).line(150, 520).h(72).close(),
  ]),
  Eng: ruled({ advance: 700, x: [[84, 175], [524, 616]], y: [[-180, -104], [632, 711]] }, [
    pen(84, 0).h(175).v(456).vh(366, 632, 0.6, 0.5).hv(524, 446, 0.6, 0.56).v(20).curve(524, -66, 488, -104, 420, -104).curve(394, -104, 366, -100, 338, -90).line(320, -160).curve(352, -174, 390, -180, 430, -180).hv(616, 12, 0.58).v(452)
      .vh(392, 711, 0.6, 0.56).curve(306, 711, 220, 668, 174, 588).line(168, 700).h(84).close(),
  ]),
  kgreenlandic: (m) => {
    const k = G.k!(m);
    const top = m.line(520);
    return { advance: k.advance, contours: k.contours.map((c) => ({ ...c, points: c.points.map((p) => (p.y > 700 ? { ...p, y: top } : p)) })) };
  },
  ordfeminine: (m) => raised(m, G.a!),
  ordmasculine: (m) => raised(m, G.o!),
  mu: (m) => {
    const u = G.u!(m);
    const [left] = span(u.contours, 'x');
    return { advance: u.advance, contours: [...u.contours, bar(left, -204, left + stem(m), 120)] };
  },
};

/** A small letter over a short bar, for ordinal numbers. */
function raised(m: Measure, draw: Draw): Letter {
  const by = 0.58;
  const stouter = m.stemBy > 1.5 ? 1 : 1.2;
  const { advance, contours } = draw({ ...m, stemBy: m.stemBy * stouter, levelBy: m.levelBy * stouter });
  const small = contours.map((c) => ({ ...c, points: c.points.map((p) => ({ ...p, x: Math.round(p.x * by), y: Math.round(p.y * by + 396) })) }));
  const [left, right] = span(small, 'x');
  return { advance: Math.round(advance * by), contours: [...small, bar(left, 284, right, 284 + level(m, 52, 0.6))] };
}
