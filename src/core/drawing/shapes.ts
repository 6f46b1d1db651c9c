import type { Contour, Point } from '../geometry/contour';

/** A curve's handles for a quarter of an ellipse, as a share of the radius: keeps within 0.02 % of the true ellipse. */
const QUARTER = 0.551915;

/** An ellipse with points at its extremes, counter-clockwise from the right. */
export function ellipse(left: number, bottom: number, right: number, top: number): Contour {
  const cx = (left + right) / 2;
  const cy = (bottom + top) / 2;
  const hx = ((right - left) / 2) * QUARTER;
  const hy = ((top - bottom) / 2) * QUARTER;
  const on = (x: number, y: number): Point => ({ x, y, type: 'curve', smooth: true });
  const off = (x: number, y: number): Point => ({ x: Math.round(x * 10) / 10, y: Math.round(y * 10) / 10, type: 'off' });
  return {
    closed: true,
    points: [
      on(right, cy),
      off(right, cy + hy),
      off(cx + hx, top),
      on(cx, top),
      off(cx - hx, top),
      off(left, cy + hy),
      on(left, cy),
      off(left, cy - hy),
      off(cx - hx, bottom),
      on(cx, bottom),
      off(cx + hx, bottom),
      off(right, cy - hy),
    ],
  };
}

/** A rectangle, counter-clockwise from its bottom left corner. */
export function rectangle(left: number, bottom: number, right: number, top: number): Contour {
  const at = (x: number, y: number): Point => ({ x, y, type: 'line' });
  return { closed: true, points: [at(left, bottom), at(right, bottom), at(right, top), at(left, top)] };
}
