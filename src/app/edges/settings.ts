import type { FRAME_SIDES, StrokeKind, StrokeWork } from '../../core/drawing/strokes';
import type { CAPS, JOINS } from '../../core/geometry/stroke';

/** The kinds of work on edges, as they are offered. */
export const EDGE_KINDS: readonly { kind: StrokeKind; title: string; hint: string }[] = [
  { kind: 'stroke', title: 'Stroke', hint: 'Contours become strokes of a width' },
  { kind: 'grow', title: 'Grow', hint: 'Every edge moves outwards, or inwards for a negative number' },
  { kind: 'hollow', title: 'Hollow', hint: 'An open face: a wall along the edge, nothing inside' },
  { kind: 'frame', title: 'Frame', hint: 'A box or a key around the letter, drawn or filled' },
];

/** Numbers of the work, remembered from one glyph to the next. */
export type EdgeSettings = {
  width: number;
  by: number;
  wall: number;
  margin: number;
  frame: number;
  radius: number;
  least: number;
  reversed: boolean;
  sides: (typeof FRAME_SIDES)[number];
  join: (typeof JOINS)[number];
  cap: (typeof CAPS)[number];
};

let settings: EdgeSettings = {
  width: 40,
  by: 10,
  wall: 20,
  margin: 40,
  frame: 30,
  radius: 60,
  least: 0,
  reversed: false,
  sides: 'around',
  join: 'round',
  cap: 'round',
};

export const edgeSettings = (): EdgeSettings => settings;
export const rememberEdges = (s: EdgeSettings): void => {
  settings = s;
};

export const edgeWork = (kind: StrokeKind, s: EdgeSettings): StrokeWork => {
  if (kind === 'stroke') return { kind, width: s.width, join: s.join, cap: s.cap };
  if (kind === 'grow') return { kind, by: s.by, join: s.join };
  if (kind === 'hollow') return { kind, wall: s.wall, join: s.join };
  return {
    kind,
    margin: s.margin,
    wall: s.frame,
    radius: s.radius,
    reversed: s.reversed,
    sides: s.sides,
    least: s.least,
  };
};
