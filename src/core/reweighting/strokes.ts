import type { Contour } from '../geometry/contour';
import type { Vec } from '../geometry/curve';
import { type Facing, facingsOf } from './facing';
import { frameOf } from './frame';
import type { Stems } from './goals';

export type StrokeKind = 'vertical' | 'horizontal' | 'diagonal' | 'curved';
/** A stroke of a drawing where it was measured: from edge to edge, along the normal. */
export type MeasuredStroke = {
  readonly kind: StrokeKind;
  readonly from: Vec;
  readonly to: Vec;
  readonly width: number;
  /** How long the edge is on which it was measured, for a mean that means something. */
  readonly run: number;
};

const LEVEL = 0.995;

function kindOf({ a, b, way }: Facing): StrokeKind {
  const straight = a.side.curve.length === 4 && b?.side.curve.length === 4;
  if (!straight) return 'curved';
  if (Math.abs(way[0]) > LEVEL) return 'vertical';
  if (Math.abs(way[1]) > LEVEL) return 'horizontal';
  return 'diagonal';
}

/** All strokes of an outline up to `thickest` font units: pairs of edges that face each other across ink, at several places. */
export function strokesIn(contours: readonly Contour[], advance: number, thickest: number): MeasuredStroke[] {
  return facingsOf(frameOf(contours), advance).ink.flatMap((facing): MeasuredStroke[] => {
    const { a, b, width } = facing;
    if (!b || width > thickest || a.side.length < width * 0.7) return [];
    return [{ kind: kindOf(facing), from: a.at, to: b.at, width, run: a.side.length }];
  });
}

/** Strokes that tell of a drawing: of those near each other the one on the longest edge, straight before curved. */
export function tellingStrokes(strokes: readonly MeasuredStroke[], near: number): MeasuredStroke[] {
  const order = (s: MeasuredStroke) => (s.kind === 'curved' ? 0 : 1e6) + s.run - s.width * 0.01;
  const middle = (s: MeasuredStroke): Vec => [(s.from[0] + s.to[0]) / 2, (s.from[1] + s.to[1]) / 2];
  const out: MeasuredStroke[] = [];
  for (const s of [...strokes].sort((a, b) => order(b) - order(a))) {
    const [x, y] = middle(s);
    if (out.every((o) => Math.hypot(middle(o)[0] - x, middle(o)[1] - y) > near)) out.push(s);
  }
  return out;
}

/** The middle of widths, each counted by how long its edge runs; undefined where there are none. */
export function middleWidth(strokes: readonly MeasuredStroke[]): number | undefined {
  const sorted = [...strokes].sort((a, b) => a.width - b.width);
  const half = sorted.reduce((sum, s) => sum + s.run, 0) / 2;
  let sum = 0;
  for (const s of sorted) {
    sum += s.run;
    if (sum >= half) return s.width;
  }
  return undefined;
}

/**
 * How thick the upright and the level strokes of some drawings are: the middle of their straight ones. Where straight strokes
 * are missing in a direction, curved ones that run that way stand in. `unitsPerEm` bounds what is a stroke.
 */
export function standardStems(
  drawings: readonly { readonly contours: readonly Contour[]; readonly advance: number }[],
  unitsPerEm: number,
): Stems | undefined {
  const all = drawings.flatMap((d) => strokesIn(d.contours, d.advance, unitsPerEm * 0.36));
  const across = (kind: 'vertical' | 'horizontal', axis: 0 | 1): number | undefined => {
    const straight = middleWidth(all.filter((s) => s.kind === kind));
    if (straight !== undefined) return straight;
    return middleWidth(all.filter((s) => s.kind === 'curved' && Math.abs(s.to[axis] - s.from[axis]) > s.width * 0.97));
  };
  const vertical = across('vertical', 0);
  const horizontal = across('horizontal', 1);
  if (vertical === undefined && horizontal === undefined) return undefined;
  return { vertical: vertical ?? horizontal!, horizontal: horizontal ?? vertical! };
}
