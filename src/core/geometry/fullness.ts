import { asNumbers, type Curve } from './curve';

/** How far each handle of a cubic reaches towards the place where both directions meet, 0 to 1; undefined where they do not. */
export function reaches(c: Curve): readonly [number, number] | undefined {
  if (c.length !== 8) return undefined;
  const [x0, y0, x1, y1, x2, y2, x3, y3] = asNumbers(c);
  const [ax, ay, bx, by] = [x1 - x0, y1 - y0, x2 - x3, y2 - y3];
  const det = ax * by - ay * bx;
  if (Math.abs(det) < 1e-6 * (Math.hypot(ax, ay) * Math.hypot(bx, by) + 1e-9)) return undefined;
  const s = ((x3 - x0) * by - (y3 - y0) * bx) / det;
  const u = ((x3 - x0) * ay - (y3 - y0) * ax) / det;
  // The handles must lead towards the meeting place.
  return s > 1e-6 && u > 1e-6 ? [1 / s, 1 / u] : undefined;
}

/** Fullness of a curve: the mean reach of its handles, 0 a line to 1 a corner; a quarter of a circle has 0.552. */
export function fullnessOf(c: Curve): number | undefined {
  const reach = reaches(c);
  return reach && (reach[0] + reach[1]) / 2;
}
