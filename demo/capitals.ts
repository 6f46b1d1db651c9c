// biome-ignore-all format: strokes stand together as they are drawn, one side of a letter to a line.

import type { Letter } from './letter';
import { oval, pen, polygon } from './pen';

/** Capitals of the Regular: a touch heavier and narrower in the shoulder than geometry would have them. */
const CAP = 700;
const OVER = 11;
const STEM = 91;
const LEVEL = 78;

/** The bowl of P and R, from the cap line down to `low`. */
function lobe(left: number, right: number, low: number) {
  const s = left + STEM;
  const mid = (CAP + low) / 2;
  return { s, mid, outer: (from: ReturnType<typeof pen>) => from.h(right - (CAP - low) * 0.5).hv(right, mid, 0.57).vh(right - (CAP - low) * 0.5, CAP, 0.57) };
}

export const capitals: Record<string, () => Letter> = {
  A: () => ({ advance: 636, contours: [polygon([12, 0], [108, 0], [169, 176], [467, 176], [528, 0], [624, 0], [369, CAP], [267, CAP]), polygon([194, 250], [318, 608], [442, 250])] }),
  B: () => ({
    advance: 620,
    contours: [
      pen(84, 0).h(350).hv(574, 196, 0.57).curve(574, 288, 528, 344, 450, 366).curve(512, 392, 548, 446, 548, 520).vh(340, CAP, 0.57).h(84).close(),
      pen(175, 398).v(622).h(334).hv(456, 510, 0.57).vh(334, 398, 0.57).close(),
      pen(175, 78).v(324).h(346).hv(480, 200, 0.57).vh(346, 78, 0.57).close(),
    ],
  }),
  C: () => ({
    advance: 636,
    contours: [
      pen(596, 604).curve(542, 672, 462, CAP + OVER, 368, CAP + OVER).hv(48, 350, 0.57).vh(366, -OVER, 0.57).curve(464, -OVER, 548, 28, 604, 100)
        .line(544, 156).curve(502, 100, 440, 69, 370, 69).hv(144, 350, 0.57).vh(370, 631, 0.57).curve(440, 631, 496, 602, 534, 550).close(),
    ],
  }),
  D: () => ({
    advance: 690,
    contours: [pen(84, 0).h(326).hv(644, 350, 0.565).vh(326, CAP, 0.565).h(84).close(), pen(175, LEVEL).v(CAP - LEVEL).h(322).hv(548, 350, 0.565).vh(322, LEVEL, 0.565).close()],
  }),
  E: () => ({ advance: 546, contours: [polygon([84, 0], [502, 0], [502, 78], [175, 78], [175, 318], [456, 318], [456, 394], [175, 394], [175, 622], [496, 622], [496, CAP], [84, CAP])] }),
  F: () => ({ advance: 522, contours: [polygon([84, 0], [175, 0], [175, 302], [450, 302], [450, 379], [175, 379], [175, 622], [490, 622], [490, CAP], [84, CAP])] }),
  G: () => ({
    advance: 686,
    contours: [
      pen(612, 606).curve(556, 674, 474, CAP + OVER, 372, CAP + OVER).hv(48, 350, 0.57).vh(370, -OVER, 0.57).curve(474, -OVER, 562, 28, 618, 92)
        .v(372).h(372).v(296).h(528).v(126).curve(490, 88, 438, 69, 376, 69).hv(144, 350, 0.57).vh(376, 631, 0.57).curve(448, 631, 508, 602, 550, 552).close(),
    ],
  }),
  H: () => ({ advance: 706, contours: [polygon([84, 0], [175, 0], [175, 316], [531, 316], [531, 0], [622, 0], [622, CAP], [531, CAP], [531, 394], [175, 394], [175, CAP], [84, CAP])] }),
  I: () => ({ advance: 346, contours: [polygon([46, 0], [300, 0], [300, 70], [218, 70], [218, 630], [300, 630], [300, CAP], [46, CAP], [46, 630], [127, 630], [127, 70], [46, 70])] }),
  J: () => ({
    advance: 470,
    contours: [pen(302, CAP).v(196).curve(302, 108, 264, 70, 196, 70).curve(144, 70, 104, 94, 76, 142).line(12, 92).curve(52, 22, 116, -OVER, 198, -OVER).hv(393, 194, 0.575).v(CAP).close()],
  }),
  K: () => ({ advance: 622, contours: [polygon([84, 0], [175, 0], [175, 232], [262, 332], [498, 0], [610, 0], [322, 396], [590, CAP], [478, CAP], [175, 352], [175, CAP], [84, CAP])] }),
  L: () => ({ advance: 502, contours: [polygon([84, 0], [478, 0], [478, 79], [175, 79], [175, CAP], [84, CAP])] }),
  M: () => ({ advance: 822, contours: [polygon([84, 0], [171, 0], [171, 530], [374, 84], [448, 84], [651, 530], [651, 0], [738, 0], [738, CAP], [646, CAP], [411, 192], [176, CAP], [84, CAP])] }),
  N: () => ({ advance: 716, contours: [polygon([84, 0], [171, 0], [171, 544], [536, 0], [632, 0], [632, CAP], [545, CAP], [545, 158], [182, CAP], [84, CAP])] }),
  O: () => ({ advance: 736, contours: [oval(48, -OVER, 688, CAP + OVER, 0.57, 5), oval(144, 68, 592, 632, 0.57, 7)] }),
  P: () => {
    const { s, mid, outer } = lobe(84, 560, 266);
    return {
      advance: 594,
      contours: [outer(pen(84, 0).h(s).v(266)).h(84).close(), pen(s, 342).v(624).h(344).hv(466, mid, 0.57).vh(344, 342, 0.57).close()],
    };
  },
  Q: () => ({ advance: 736, contours: [oval(48, -OVER, 688, CAP + OVER, 0.57, 5), oval(144, 68, 592, 632, 0.57, 7), polygon([412, 172], [598, -104], [706, -104], [506, 200])] }),
  R: () => {
    const { s, mid } = lobe(84, 566, 288);
    return {
      advance: 628,
      contours: [
        pen(84, 0).h(s).v(288).h(330).line(496, 0).h(602).line(424, 300).curve(512, 328, 566, 400, 566, 494).vh(360, CAP, 0.57).h(84).close(),
        pen(s, 363).v(624).h(350).hv(472, mid, 0.57).vh(350, 363, 0.57).close(),
      ],
    };
  },
  S: () => ({
    advance: 576,
    contours: [
      pen(504, 612).curve(452, 676, 384, CAP + OVER, 300, CAP + OVER).curve(164, CAP + OVER, 66, 634, 66, 520).curve(66, 398, 160, 352, 274, 318)
        .curve(372, 288, 438, 262, 438, 184).curve(438, 112, 378, 68, 288, 68).curve(210, 68, 146, 100, 98, 162).line(34, 106)
        .curve(96, 28, 184, -OVER, 286, -OVER).curve(438, -OVER, 534, 66, 534, 190).curve(534, 318, 440, 364, 322, 400)
        .curve(224, 430, 160, 454, 160, 528).curve(160, 590, 214, 632, 298, 632).curve(358, 632, 410, 608, 448, 558).close(),
    ],
  }),
  T: () => ({ advance: 566, contours: [polygon([238, 0], [329, 0], [329, 622], [548, 622], [548, CAP], [18, CAP], [18, 622], [238, 622])] }),
  U: () => ({
    advance: 694,
    contours: [pen(80, CAP).v(262).vh(348, -OVER, 0.58).hv(614, 262, 0.58).v(CAP).h(524).v(266).vh(348, 70, 0.58).hv(171, 266, 0.58).v(CAP).close()],
  }),
  V: () => ({ advance: 628, contours: [polygon([10, CAP], [262, 0], [366, 0], [618, CAP], [520, CAP], [314, 108], [109, CAP])] }),
  W: () => ({ advance: 936, contours: [polygon([18, CAP], [202, 0], [300, 0], [468, 566], [636, 0], [734, 0], [918, CAP], [822, CAP], [686, 122], [516, CAP], [420, CAP], [250, 122], [114, CAP])] }),
  X: () => ({ advance: 616, contours: [polygon([14, 0], [122, 0], [308, 278], [494, 0], [604, 0], [366, 356], [592, CAP], [486, CAP], [310, 432], [134, CAP], [26, CAP], [252, 354])] }),
  Y: () => ({ advance: 592, contours: [polygon([250, 0], [341, 0], [341, 274], [584, CAP], [482, CAP], [296, 364], [110, CAP], [8, CAP], [250, 274])] }),
  Z: () => ({ advance: 566, contours: [polygon([40, 0], [528, 0], [528, 79], [162, 79], [522, 634], [522, CAP], [56, CAP], [56, 621], [400, 621], [40, 68])] }),
};

