// biome-ignore-all format: strokes stand together as they are drawn, one side of a letter to a line.

import type { Draw } from './letter';
import { oval, pen, polygon } from './pen';
import { ruled } from './ruler';

/** Figures as tall as signs need them, a touch lower than the capitals. Their widths are set in `sets.ts`. */
const FIG = 690;
const OVER = 11;
const WIDTH = 560;

/** Figures as each is drawn, with its own width. */
export const figures: Record<string, Draw> = {
  zero: ruled({ advance: WIDTH, x: [[44, 133], [427, 516]], y: [[-11, 64], [626, 701]] }, [oval(44, -OVER, 516, FIG + OVER, 0.585, 4), oval(133, 64, 427, FIG - 64, 0.59, 6)]),
  one: ruled({ advance: WIDTH, x: [[246, 336]], y: [[0, 74], [520, 590, 0.9]] }, [polygon([110, 0], [470, 0], [470, 74], [336, 74], [336, FIG], [258, FIG], [108, 590], [140, 520], [246, 582], [246, 74], [110, 74])]),
  two: ruled({ advance: WIDTH, x: [[62, 182, 0.4]], above: { y: 240, x: [[56, 120, 0.5], [296, 366, 0.3], [394, 486, 0.92]] }, y: [[0, 77], [622, 701]] }, [
      pen(62, 0).h(504).v(77).h(196).line(366, 250).curve(440, 326, 486, 400, 486, 492).curve(486, 616, 402, FIG + OVER, 274, FIG + OVER)
        .curve(182, FIG + OVER, 108, 662, 56, 590).line(120, 536).curve(158, 592, 208, 622, 268, 622).curve(344, 622, 394, 572, 394, 490)
        .curve(394, 424, 358, 368, 296, 304).line(62, 66).close(),
    ]),
  three: ruled({ advance: WIDTH, x: [[50, 110], [414, 506]], above: { y: 362, x: [[236, 336, 0.4], [372, 482, 0.8]] }, y: [[-11, 67], [330, 396, 0.9], [614, 690]] }, [
      pen(50, 104).curve(104, 28, 182, -OVER, 272, -OVER).curve(412, -OVER, 506, 74, 506, 200).curve(506, 310, 438, 384, 336, 398)
        .line(482, 634).v(FIG).h(84).v(614).h(372).line(236, 394).v(330).h(272).curve(360, 330, 414, 282, 414, 202)
        .curve(414, 120, 356, 67, 270, 67).curve(206, 67, 150, 98, 110, 156).close(),
    ]),
  four: ruled({ advance: WIDTH, x: [[28, 128, 0.8], [346, 434]], above: { y: 300, x: [[346, 434]] }, y: [[154, 229, 0.9], [576, 690, 0.8]] }, [polygon([346, 0], [434, 0], [434, 154], [532, 154], [532, 229], [434, 229], [434, FIG], [336, FIG], [28, 222], [28, 154], [346, 154]), polygon([128, 229], [346, 576], [346, 229])]),
  five: ruled({ advance: WIDTH, x: [[54, 112], [416, 508]], above: { y: 312, x: [[92, 182], [416, 508]] }, y: [[-11, 67], [364, 440], [613, 690]] }, [
      pen(54, 96).curve(108, 26, 180, -OVER, 266, -OVER).curve(412, -OVER, 508, 82, 508, 222).curve(508, 354, 424, 440, 298, 440)
        .curve(252, 440, 212, 428, 182, 408).line(194, 613).h(472).v(FIG).h(114).line(92, 340).line(152, 318).curve(186, 348, 230, 364, 276, 364)
        .curve(362, 364, 416, 308, 416, 218).curve(416, 124, 356, 67, 264, 67).curve(204, 67, 152, 96, 112, 150).close(),
    ]),
  six: ruled({ advance: WIDTH, x: [[46, 136], [424, 514]], above: { y: 400, x: [[168, 268, 0.9], [336, 440, 0.95]] }, y: [[-11, 66], [350, 427]] }, [
      pen(336, FIG).h(440).line(268, 422).curve(280, 425, 292, 427, 304, 427).curve(428, 427, 514, 340, 514, 212).curve(514, 80, 418, -OVER, 280, -OVER)
        .curve(140, -OVER, 46, 82, 46, 214).curve(46, 290, 78, 350, 122, 412).close(),
      pen(280, 66).curve(368, 66, 424, 124, 424, 208).curve(424, 294, 368, 350, 280, 350).curve(192, 350, 136, 294, 136, 208).curve(136, 124, 192, 66, 280, 66).close(),
    ]),
  seven: ruled({ advance: WIDTH, x: [[138, 240]], above: { y: 300, x: [[398, 504]] }, y: [[612, 690]] }, [polygon([138, 0], [240, 0], [504, 634], [504, FIG], [52, FIG], [52, 612], [398, 612])]),
  eight: ruled({ advance: WIDTH, x: [[48, 140], [420, 512]], above: { y: 361, x: [[70, 160], [400, 490]] }, y: [[-11, 64], [322, 396, 0.86], [626, 701]] }, [
      pen(280, -OVER).curve(422, -OVER, 512, 66, 512, 182).curve(512, 268, 464, 330, 388, 362).curve(452, 392, 490, 446, 490, 518)
        .curve(490, 628, 408, FIG + OVER, 280, FIG + OVER).curve(152, FIG + OVER, 70, 628, 70, 518).curve(70, 446, 108, 392, 172, 362)
        .curve(96, 330, 48, 268, 48, 182).curve(48, 66, 138, -OVER, 280, -OVER).close(),
      pen(280, 396).curve(354, 396, 400, 440, 400, 508).curve(400, 580, 354, 626, 280, 626).curve(206, 626, 160, 580, 160, 508).curve(160, 440, 206, 396, 280, 396).close(),
      pen(280, 64).curve(366, 64, 420, 112, 420, 190).curve(420, 268, 366, 322, 280, 322).curve(194, 322, 140, 268, 140, 190).curve(140, 112, 194, 64, 280, 64).close(),
    ]),
  nine: (m) => {
    const { advance, contours } = figures.six!(m);
    return { advance, contours: contours.map((c) => ({ ...c, points: c.points.map((p) => ({ ...p, x: advance - p.x, y: Math.round(m.line(0) + m.line(FIG)) - p.y })) })) };
  },
};

export const ampersand: Draw = ruled({ advance: 672, x: [[40, 132], [236, 310, 0.8], [424, 480, 0.5], [534, 640, 0.8]], above: { y: 370, x: [[118, 208], [392, 480]] }, y: [[-11, 66], [638, 711]] }, [
      pen(650, 0).h(534).line(474, 66).curve(416, 14, 342, -OVER, 258, -OVER).curve(126, -OVER, 40, 66, 40, 180).curve(40, 274, 96, 336, 186, 384)
        .curve(142, 434, 118, 484, 118, 540).curve(118, 642, 194, 711, 304, 711).curve(410, 711, 480, 648, 480, 552).curve(480, 462, 416, 404, 330, 358)
        .line(480, 192).curve(506, 236, 522, 288, 526, 344).h(612).curve(606, 262, 580, 190, 536, 130).close(),
      pen(276, 416).curve(350, 456, 392, 494, 392, 550).curve(392, 602, 356, 638, 302, 638).curve(246, 638, 208, 602, 208, 548).curve(208, 506, 234, 462, 276, 416).close(),
      pen(424, 122).line(236, 328).curve(166, 290, 132, 246, 132, 188).curve(132, 114, 184, 66, 266, 66).curve(326, 66, 380, 86, 424, 122).close(),
    ]);
