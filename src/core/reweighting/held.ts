import { pointAt } from '../geometry/curve';
import type { Frame, Side } from './frame';

/** How far from a line what stands on it may be, in thousandths of the em. */
const NEAR = 4;
/** A drawing as high as this share of the em ends where it ends, on a line or not. */
const TALL = 0.4;

/** Knots at which an outline turns back in height, or runs level. */
function turningKnots(frame: Frame): number[] {
  const slope = (side: Side | undefined, end: boolean): number => {
    if (!side) return 0;
    const c = side.curve;
    const [a, b] = end ? [pointAt(c, 0.98), pointAt(c, 1)] : [pointAt(c, 0), pointAt(c, 0.02)];
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    return Math.abs(dy) < Math.abs(dx) * 0.06 ? 0 : Math.sign(dy);
  };
  return frame.knots.flatMap((_, i) => {
    const before = slope(frame.sides[frame.into[i]!], true);
    const after = slope(frame.sides[frame.out[i]!], false);
    return before * after <= 0 ? [i] : [];
  });
}

/** Is a drawing as high as letters are, so that it ends where it ends? */
export function isTall(frame: Frame, unitsPerEm: number): boolean {
  const ys = frame.knots.map((k) => k.y);
  return Math.max(...ys) - Math.min(...ys) > unitsPerEm * TALL;
}

/** Knots that keep their height: those at lines of the design, and the ends of a tall drawing; of a dot its foot on the baseline. */
export function heldKnots(
  frame: Frame,
  dots: ReadonlySet<number>,
  lines: readonly number[],
  unitsPerEm: number,
): number[] {
  if (frame.knots.length === 0) return [];
  const near = (NEAR * unitsPerEm) / 1000;
  const ys = frame.knots.map((k) => k.y);
  const [low, high] = [Math.min(...ys), Math.max(...ys)];
  const all = isTall(frame, unitsPerEm) ? [...lines, low, high] : lines;
  return turningKnots(frame).filter((i) => {
    const { y, contour } = frame.knots[i]!;
    return dots.has(frame.solid[contour]!) ? Math.abs(y) <= near * 3 : all.some((line) => Math.abs(line - y) <= near);
  });
}
