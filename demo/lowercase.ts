// biome-ignore-all format: strokes stand together as they are drawn, one side of a letter to a line.

import type { Contour } from '../src/core/geometry/contour';
import { type Draw, shifted, sided } from './letter';
import { flipped, mirrored, oval, pen, polygon } from './pen';
import { ruled } from './ruler';
import { across, cross, drawn, kay, vee, wave } from './strokes';
import type { Measure } from './style';

/** Heights and weights of the Regular. Level strokes are lighter than upright ones; joins are thinner still. */
const X = 520;
const ASC = 742;
const DESC = -204;
const OVER = 11;
const STEM = 84;
const LEVEL = 73;

/** The narrow shoulder of n, h, m, r: stem at `left`, arch to `right`, branching low and thin from the stem. */
function arch(left: number, right: number, top: number) {
  const s = left + STEM;
  const tall = top > X;
  const crown = s + (right - s) * 0.46;
  return [
    pen(left, 0).h(s).v(336)
      .vh(crown - 14, X + OVER - LEVEL - 3, 0.6, 0.5)
      .hv(right - STEM, 324, 0.6, 0.56).v(0).h(right).v(330)
      .vh(crown + 6, X + OVER, 0.6, 0.56)
      .curve(crown - 62, X + OVER, s + 24, X - 26, tall ? s : s - 1, X - 86)
      .line(tall ? s : s - 6, top).h(left).close(),
  ];
}

/** A bowl on a stem at its left, from baseline to x-height: b without its ascender. */
function bowl(left: number, right: number, top: number, bottom: number) {
  const s = left + STEM;
  const mid = s + (right - s) * 0.42;
  return [
    pen(left, bottom).h(s).v(bottom < 0 ? 60 : 70)
      .curve(s + 26, 22, s + 84, -OVER, mid + 10, -OVER)
      .hv(right, X / 2 + 2, 0.585).vh(mid + 12, X + OVER, 0.585)
      .curve(s + 86, X + OVER, s + 26, X - 28, s, X - 76)
      .v(top).h(left).close(),
    pen(s, 344).curve(s + 4, 414, s + 52, X + OVER - LEVEL, mid - 8, X + OVER - LEVEL)
      .hv(right - STEM - 2, X / 2 + 2, 0.575).vh(mid - 10, LEVEL - OVER, 0.575)
      .curve(s + 50, LEVEL - OVER, s + 4, 108, s, 176).close(),
  ];
}

/** A dot over i and j: it grows with the stems, and stays clear of them. */
export function dot(m: Measure): { contour: Contour; radius: number; centre: number } {
  const radius = across(m, 54, 0.66);
  const centre = m.line(X) + 92 * (1 - (m.levelBy - 1) * 0.32) + radius;
  return { contour: oval(-radius, centre - radius, radius, centre + radius), radius, centre };
}

/** The stem of i, and the hook of j, about the middle of their stems. */
const stemOfI = (m: Measure): Contour => polygon([-across(m, 42, 1), 0], [across(m, 42, 1), 0], [across(m, 42, 1), m.line(X)], [-across(m, 42, 1), m.line(X)]);
const hook = ruled({ advance: 226, x: [[80, 164]], y: [[-206, -132]] }, [
  pen(80, X).v(-40).curve(80, -104, 56, -132, 8, -132).curve(-10, -132, -28, -129, -46, -122).line(-62, -190)
    .curve(-38, -201, -10, -206, 16, -206).hv(164, -46, 0.58).v(X).close(),
]);

export const lowercase: Record<string, Draw> = {
  a: ruled({ advance: 512, x: [[50, 136], [356, 440]], y: [[-11, 55], [250, 313, 0.82], [458, 531]] }, [
      pen(440, 0).v(340).vh(262, X + OVER, 0.57).curve(194, X + OVER, 130, 507, 84, 466).line(124, 403)
        .curve(162, 436, 208, X + OVER - LEVEL, 254, X + OVER - LEVEL).hv(356, 346, 0.57).v(313)
        .h(264).hv(50, 148, 0.56, 0.6).vh(206, -OVER, 0.6, 0.56).curve(274, -OVER, 330, 20, 359, 74).line(367, 0).close(),
      pen(356, 250).h(270).hv(136, 152, 0.56, 0.6).vh(228, 55, 0.57).curve(300, 55, 356, 112, 356, 186).close(),
    ]),
  b: ruled({ advance: 576, x: [[72, 156], [444, 530]], y: [[-11, 62], [458, 531]] }, bowl(72, 530, ASC, 0)),
  c: ruled({ advance: 482, x: [[44, 131], [402, 456, 0.85]], y: [[-11, 63], [457, 531]] }, [
      pen(456, 454).curve(418, 503, 362, X + OVER, 294, X + OVER).hv(44, 260, 0.575).vh(292, -OVER, 0.575)
        .curve(362, -OVER, 424, 18, 462, 68).line(407, 116).curve(378, 82, 342, 63, 298, 63)
        .hv(131, 260, 0.575).vh(298, 457, 0.575).curve(340, 457, 374, 440, 402, 408).close(),
    ]),
  d: ruled({ advance: 576, x: [[46, 132], [420, 504]], y: [[-11, 62], [458, 531]] }, mirrored(bowl(72, 530, ASC, 0), 288)),
  e: ruled({ advance: 548, x: [[44, 130], [426, 512, 0.95]], y: [[-11, 61], [232, 300, 0.72], [461, 531]] }, [
      pen(508, 232).h(129).curve(136, 128, 208, 61, 304, 61).curve(366, 61, 414, 82, 456, 122).line(501, 64)
        .curve(448, 14, 380, -OVER, 300, -OVER).hv(44, 258, 0.575).vh(284, X + OVER, 0.575)
        .hv(512, 276, 0.57).curve(512, 260, 511, 246, 508, 232).close(),
      pen(132, 300).h(426).curve(420, 402, 366, 461, 284, 461).curve(200, 461, 142, 400, 132, 300).close(),
    ]),
  f: ruled({ advance: 326, x: [[94, 178]], y: [[447, 520], [678, 752]] }, [
      pen(94, 0).h(178).v(447).h(308).v(X).h(178).v(584).vh(252, 678, 0.6).curve(276, 678, 296, 673, 316, 664).line(336, 733)
        .curve(310, 746, 276, 752, 246, 752).hv(94, 590, 0.58).v(X).h(18).v(447).h(94).close(),
    ]),
  g: ruled({ advance: 572, x: [[42, 130], [416, 500]], y: [[-212, -138], [0, 73, 0.88], [458, 531, 0.95]] }, [
      pen(500, X).h(424).line(416, 446).curve(390, 500, 334, X + OVER, 268, X + OVER).hv(42, 266, 0.575)
        .vh(262, 0, 0.58).curve(330, 0, 386, 30, 416, 82).v(20).curve(416, -82, 362, -138, 258, -138)
        .curve(200, -138, 148, -122, 102, -94).line(72, -160).curve(126, -194, 190, -212, 260, -212)
        .hv(500, 12, 0.58).close(),
      pen(416, 342).curve(416, 410, 362, 458, 286, 458).hv(130, 266, 0.575).vh(284, 73, 0.575).curve(362, 73, 416, 122, 416, 190).close(),
    ]),
  h: ruled({ advance: 546, x: [[72, 156], [396, 480]], y: [[455, 531]] }, arch(72, 480, ASC)),
  i: (m) => sided(m, [stemOfI(m), dot(m).contour], 60, 60),
  dotlessi: (m) => sided(m, [stemOfI(m)], 72, 72),
  j: (m) => {
    const { contours, advance } = hook(m);
    const centre = advance - Math.round(62 * m.sideBy) - across(m, 42, 1);
    return { advance, contours: [...contours, shifted([dot(m).contour], centre)[0]!] };
  },
  dotlessj: hook,
  k: drawn(72, 6, (m) => [kay(m, { stem: 84, arm: 102, leg: 102, reach: 320, spread: 350, top: X, tall: ASC, upper: 0.558, lower: 0.365 })]),
  l: ruled({ advance: 262, x: [[72, 156]], y: [[-11, 62]] }, [
      pen(72, ASC).v(134).vh(200, -OVER, 0.58).curve(222, -OVER, 242, -8, 260, 0).line(248, 68)
        .curve(238, 64, 226, 62, 216, 62).hv(156, 140, 0.6).v(ASC).close(),
    ]),
  m: ruled({ advance: 838, x: [[72, 156, 0.96], [356, 440, 0.94], [688, 772, 0.96]], y: [[455, 531]] }, [
        ...arch(72, 440, X),
        pen(688, 0).h(772).v(336).vh(622, X + OVER, 0.6, 0.56).curve(556, X + OVER, 474, 500, 424, 412).line(440, 340)
          .h(440).v(336).vh(584, X + OVER - LEVEL - 3, 0.58, 0.5).hv(688, 328, 0.6, 0.56).close(),
      ]),
  n: ruled({ advance: 546, x: [[72, 156], [396, 480]], y: [[455, 531]] }, arch(72, 480, X)),
  o: ruled({ advance: 576, x: [[44, 130], [446, 532]], y: [[-11, 61], [459, 531]] }, [oval(44, -OVER, 532, X + OVER, 0.575, 4), oval(130, LEVEL - OVER - 1, 446, X + OVER - LEVEL + 1, 0.575, 6)]),
  p: ruled({ advance: 576, x: [[72, 156], [444, 530]], y: [[-11, 62], [458, 531]] }, flipped(bowl(72, 530, X - DESC, 0), X / 2)),
  q: ruled({ advance: 576, x: [[46, 132], [420, 504]], y: [[-11, 62], [458, 531]] }, mirrored(flipped(bowl(72, 530, X - DESC, 0), X / 2), 288)),
  r: ruled({ advance: 366, x: [[72, 156]], y: [[449, 531]] }, [
      pen(72, 0).h(156).v(312).curve(162, 402, 218, 449, 300, 449).curve(318, 449, 336, 447, 352, 442).v(522)
        .curve(338, 528, 322, 531, 304, 531).curve(240, 531, 184, 498, 155, 432).line(150, X).h(72).close(),
    ]),
  s: ruled({ advance: 462, x: [[32, 82], [344, 430]], above: { y: 262, x: [[56, 140], [354, 404]] }, y: [[-11, 60, 0.93], [228, 300, 0.86], [460, 531, 0.93]] }, [
      pen(404, 464).curve(362, 508, 308, X + OVER, 244, X + OVER).curve(132, X + OVER, 56, 470, 56, 382)
        .curve(56, 286, 138, 252, 222, 228).curve(290, 209, 344, 196, 344, 138).curve(344, 88, 300, 60, 234, 60)
        .curve(174, 60, 124, 84, 82, 130).line(32, 74).curve(82, 18, 150, -OVER, 230, -OVER)
        .curve(350, -OVER, 430, 48, 430, 144).curve(430, 244, 346, 276, 262, 300)
        .curve(194, 320, 140, 332, 140, 386).curve(140, 432, 180, 460, 240, 460).curve(284, 460, 322, 444, 354, 410).close(),
    ]),
  t: ruled({ advance: 344, x: [[96, 180]], y: [[-11, 64], [447, 520]] }, [
      pen(96, 648).v(X).h(20).v(447).h(96).v(142).vh(224, -OVER, 0.58).curve(262, -OVER, 294, -3, 320, 10).line(304, 79)
        .curve(286, 70, 264, 64, 244, 64).hv(180, 148, 0.6).v(447).h(314).v(X).h(180).v(648).close(),
    ]),
  u: ruled({ advance: 546, x: [[72, 156], [390, 474]], y: [[-11, 65]] }, mirrored(flipped(arch(66, 474, X), X / 2), 273)),
  v: drawn(12, 12, (m) => [vee(m, { arm: 90, foot: 94, gap: 296, top: X })]),
  w: drawn(16, 16, (m) => [wave(m, { arm: 88, foot: 88, gap: 233, top: X, peak: 90 })]),
  x: drawn(12, 12, (m) => [cross(m, { arm: 97, below: 272, above: 256, top: X })]),
  y: ruled({ advance: 498, x: [[20, 96, 0.7], [196, 276]], above: { y: 60, x: [[12, 103, 0.93], [397, 486, 0.93]] }, y: [[-204, -128], [8, 112]] }, [
      pen(12, X).line(212, 8).line(196, -36).curve(174, -98, 144, -128, 96, -128).curve(76, -128, 58, -124, 40, -117).line(20, -187)
        .curve(44, -198, 72, -204, 102, -204).curve(186, -204, 238, -154, 276, -50).line(486, X).h(397).line(252, 112).line(103, X).close(),
    ]),
  z: ruled({ advance: 464, x: [[36, 146, 0.82]], above: { y: 260, x: [[314, 424, 0.82]] }, y: [[0, 73], [447, 520]] }, [polygon([36, 0], [430, 0], [430, 73], [146, 73], [424, 462], [424, X], [50, X], [50, 447], [312, 447], [36, 60])]),
};
