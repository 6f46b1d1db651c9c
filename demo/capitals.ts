// biome-ignore-all format: strokes stand together as they are drawn, one side of a letter to a line.

import type { Draw } from './letter';
import { oval, pen, polygon } from './pen';
import { ruled } from './ruler';
import { across, cross, drawn, kay, level, open, peaked, vee, wave } from './strokes';

/** Capitals of the Regular: a touch heavier and narrower in the shoulder than geometry would have them. */
const CAP = 700;
const OVER = 11;
const LEVEL = 78;

const ROUND = [oval(48, -OVER, 688, CAP + OVER, 0.57, 5), oval(144, 68, 592, 632, 0.57, 7)];
const round = ruled({ advance: 736, x: [[48, 144], [592, 688]], y: [[-11, 68], [632, 711]] }, ROUND);

export const capitals: Record<string, Draw> = {
  A: drawn(12, 12, (m) => peaked(m, { arm: 97, foot: 102, gap: 418, top: CAP }, [176, 250])),
  B: ruled({ advance: 620, x: [[84, 175], [480, 574]], above: { y: 345, x: [[84, 175], [456, 548]] }, y: [[0, 78], [324, 398, 0.82], [622, 700]] }, [
      pen(84, 0).h(350).hv(574, 196, 0.57).curve(574, 288, 528, 344, 450, 366).curve(512, 392, 548, 446, 548, 520).vh(340, CAP, 0.57).h(84).close(),
      pen(175, 398).v(622).h(334).hv(456, 510, 0.57).vh(334, 398, 0.57).close(),
      pen(175, 78).v(324).h(346).hv(480, 200, 0.57).vh(346, 78, 0.57).close(),
    ]),
  C: ruled({ advance: 636, x: [[48, 144], [534, 596, 0.85]], y: [[-11, 69], [631, 711]] }, [
      pen(596, 604).curve(542, 672, 462, CAP + OVER, 368, CAP + OVER).hv(48, 350, 0.57).vh(366, -OVER, 0.57).curve(464, -OVER, 548, 28, 604, 100)
        .line(544, 156).curve(502, 100, 440, 69, 370, 69).hv(144, 350, 0.57).vh(370, 631, 0.57).curve(440, 631, 496, 602, 534, 550).close(),
    ]),
  D: ruled({ advance: 690, x: [[84, 175], [548, 644]], y: [[0, 78], [622, 700]] }, [pen(84, 0).h(326).hv(644, 350, 0.565).vh(326, CAP, 0.565).h(84).close(), pen(175, LEVEL).v(CAP - LEVEL).h(322).hv(548, 350, 0.565).vh(322, LEVEL, 0.565).close()]),
  E: ruled({ advance: 546, x: [[84, 175]], y: [[0, 78], [318, 394, 0.88], [622, 700]] }, [polygon([84, 0], [502, 0], [502, 78], [175, 78], [175, 318], [456, 318], [456, 394], [175, 394], [175, 622], [496, 622], [496, CAP], [84, CAP])]),
  F: ruled({ advance: 522, x: [[84, 175]], y: [[302, 379, 0.88], [622, 700]] }, [polygon([84, 0], [175, 0], [175, 302], [450, 302], [450, 379], [175, 379], [175, 622], [490, 622], [490, CAP], [84, CAP])]),
  G: ruled({ advance: 686, x: [[48, 144], [528, 618]], above: { y: 480, x: [[48, 144], [550, 612, 0.85]] }, y: [[-11, 69], [296, 372, 0.88], [631, 711]] }, [
      pen(612, 606).curve(556, 674, 474, CAP + OVER, 372, CAP + OVER).hv(48, 350, 0.57).vh(370, -OVER, 0.57).curve(474, -OVER, 562, 28, 618, 92)
        .v(372).h(372).v(296).h(528).v(126).curve(490, 88, 438, 69, 376, 69).hv(144, 350, 0.57).vh(376, 631, 0.57).curve(448, 631, 508, 602, 550, 552).close(),
    ]),
  H: ruled({ advance: 706, x: [[84, 175], [531, 622]], y: [[316, 394, 0.9]] }, [polygon([84, 0], [175, 0], [175, 316], [531, 316], [531, 0], [622, 0], [622, CAP], [531, CAP], [531, 394], [175, 394], [175, CAP], [84, CAP])]),
  I: ruled({ advance: 346, x: [[127, 218]], y: [[0, 70], [630, 700]] }, [polygon([46, 0], [300, 0], [300, 70], [218, 70], [218, 630], [300, 630], [300, CAP], [46, CAP], [46, 630], [127, 630], [127, 70], [46, 70])]),
  J: ruled({ advance: 470, x: [[12, 76, 0.6], [302, 393]], y: [[-11, 70]] }, [pen(302, CAP).v(196).curve(302, 108, 264, 70, 196, 70).curve(144, 70, 104, 94, 76, 142).line(12, 92).curve(52, 22, 116, -OVER, 198, -OVER).hv(393, 194, 0.575).v(CAP).close()]),
  K: drawn(84, 12, (m) => [kay(m, { stem: 91, arm: 112, leg: 113, reach: 415, spread: 436, top: CAP, tall: CAP, upper: 0.503, lower: 0.331 })]),
  L: ruled({ advance: 502, x: [[84, 175]], y: [[0, 79]] }, [polygon([84, 0], [478, 0], [478, 79], [175, 79], [175, CAP], [84, CAP])]),
  M: drawn(84, 84, (m) => {
    const s = across(m, 88, 0.94);
    const arm = across(m, 94, 0.86);
    const foot = across(m, 74, 0.6);
    const g = open(m, 478);
    const c = s + g / 2;
    const width = 2 * s + g;
    const cap = m.line(CAP);
    const low = cap * 0.12;
    const slope = (c - foot / 2 - s * 0.98) / (cap - low);
    const top = cap - (arm - s) / slope - cap * 0.133 * m.levelBy;
    return [polygon([0, 0], [s * 0.98, 0], [s * 0.98, top], [c - foot / 2, low], [c + foot / 2, low], [width - s * 0.98, top], [width - s * 0.98, 0], [width, 0], [width, cap], [width - arm, cap], [c, low + level(m, 108)], [arm, cap], [0, cap])];
  }),
  N: drawn(84, 84, (m) => {
    const s = across(m, 87, 0.96);
    const arm = across(m, 97, 0.92);
    const g = open(m, 374);
    const width = 2 * s + g;
    const cap = m.line(CAP);
    const run = (width - arm) / cap;
    return [polygon([0, 0], [s, 0], [s, cap - (s * 0.94) / run], [width - arm, 0], [width, 0], [width, cap], [width - s, cap], [width - s, (s * 0.94) / run], [arm, cap], [0, cap])];
  }),
  O: round,
  P: ruled({ advance: 594, x: [[84, 175], [466, 560]], y: [[266, 342, 0.9], [624, 700]] }, [pen(84, 0).h(175).v(266).h(343).hv(560, 483, 0.57).vh(343, CAP, 0.57).h(84).close(), pen(175, 342).v(624).h(344).hv(466, 483, 0.57).vh(344, 342, 0.57).close()]),
  Q: (m) => {
    const { advance, contours } = round(m);
    const h = across(m, 104);
    const x = advance * 0.555;
    const run = open(m, 190);
    return { advance, contours: [...contours, polygon([x, m.line(CAP) * 0.254], [x + run, m.line(CAP) * -0.154], [x + run + h, m.line(CAP) * -0.154], [x + h * 0.94, m.line(CAP) * 0.254])] };
  },
  R: ruled({ advance: 628, x: [[84, 175], [496, 602, 0.8]], above: { y: 150, x: [[84, 175], [330, 424, 0.3], [472, 566, 0.95]] }, y: [[288, 363, 0.88], [624, 700]] }, [
    pen(84, 0).h(175).v(288).h(330).line(496, 0).h(602).line(424, 300).curve(512, 328, 566, 400, 566, 494).vh(360, CAP, 0.57).h(84).close(),
    pen(175, 363).v(624).h(350).hv(472, 494, 0.57).vh(350, 363, 0.57).close(),
  ]),
  S: ruled({ advance: 576, x: [[34, 98], [438, 534]], above: { y: 360, x: [[66, 160], [448, 504]] }, y: [[-11, 68], [318, 400, 0.95], [632, 711]] }, [
      pen(504, 612).curve(452, 676, 384, CAP + OVER, 300, CAP + OVER).curve(164, CAP + OVER, 66, 634, 66, 520).curve(66, 398, 160, 352, 274, 318)
        .curve(372, 288, 438, 262, 438, 184).curve(438, 112, 378, 68, 288, 68).curve(210, 68, 146, 100, 98, 162).line(34, 106)
        .curve(96, 28, 184, -OVER, 286, -OVER).curve(438, -OVER, 534, 66, 534, 190).curve(534, 318, 440, 364, 322, 400)
        .curve(224, 430, 160, 454, 160, 528).curve(160, 590, 214, 632, 298, 632).curve(358, 632, 410, 608, 448, 558).close(),
    ]),
  T: ruled({ advance: 566, x: [[238, 329]], y: [[622, 700]] }, [polygon([238, 0], [329, 0], [329, 622], [548, 622], [548, CAP], [18, CAP], [18, 622], [238, 622])]),
  U: ruled({ advance: 694, x: [[80, 171], [523, 614]], y: [[-11, 70]] }, [pen(80, CAP).v(262).vh(348, -OVER, 0.58).hv(614, 262, 0.58).v(CAP).h(524).v(266).vh(348, 70, 0.58).hv(171, 266, 0.58).v(CAP).close()]),
  V: drawn(10, 10, (m) => [vee(m, { arm: 98, foot: 104, gap: 412, top: CAP })]),
  W: drawn(18, 18, (m) => [wave(m, { arm: 96, foot: 98, gap: 306, top: CAP, peak: 96 })]),
  X: drawn(14, 14, (m) => [cross(m, { arm: 108, below: 372, above: 352, top: CAP })]),
  Y: drawn(8, 8, (m) => {
    const h = across(m, 101);
    const s = across(m, 91, 1);
    const width = 2 * h + open(m, 374);
    const c = width / 2;
    const cap = m.line(CAP);
    const fork = cap * (0.391 - (m.levelBy - 1) * 0.03);
    const y = cap - ((cap - fork) * (c - h)) / (c - s / 2) * 0.955;
    return [polygon([c - s / 2, 0], [c + s / 2, 0], [c + s / 2, fork], [width, cap], [width - h, cap], [c, y], [h, cap], [0, cap], [c - s / 2, fork])];
  }),
  Z: ruled({ advance: 566, x: [[40, 162, 0.82]], above: { y: 350, x: [[400, 522, 0.82]] }, y: [[0, 79], [621, 700]] }, [polygon([40, 0], [528, 0], [528, 79], [162, 79], [522, 634], [522, CAP], [56, CAP], [56, 621], [400, 621], [40, 68])]),
};
