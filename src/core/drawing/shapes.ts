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
  const off = (x: number, y: number): Point => ({
    x: Math.round(x * 10) / 10,
    y: Math.round(y * 10) / 10,
    type: 'off',
  });
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

/** A rectangle with rounded corners, counter-clockwise; a radius is at most half a side. */
export function roundedRectangle(left: number, bottom: number, right: number, top: number, radius: number): Contour {
  const r = Math.min(radius, (right - left) / 2, (top - bottom) / 2);
  const k = Math.round(r * (1 - QUARTER) * 1000) / 1000;
  const on = (x: number, y: number, type: Point['type']): Point => ({ x, y, type, smooth: true });
  const off = (x: number, y: number): Point => ({ x, y, type: 'off' });
  return {
    closed: true,
    points: [
      on(left + r, bottom, 'curve'),
      on(right - r, bottom, 'line'),
      off(right - k, bottom),
      off(right, bottom + k),
      on(right, bottom + r, 'curve'),
      on(right, top - r, 'line'),
      off(right, top - k),
      off(right - k, top),
      on(right - r, top, 'curve'),
      on(left + r, top, 'line'),
      off(left + k, top),
      off(left, top - k),
      on(left, top - r, 'curve'),
      on(left, bottom + r, 'line'),
      off(left, bottom + k),
      off(left + k, bottom),
    ],
  };
}
