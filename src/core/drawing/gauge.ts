import { type Contour, curvesOf } from '../geometry/contour';
import { boundsOf } from '../geometry/curve';
import { crossings } from '../geometry/intersect';
import { windingAt } from '../geometry/winding';

/** A gauge laid over a drawing: through a place, at an angle in degrees; `length` bounds it on both sides, endless without. */
export type Gauge = { x0: number; y0: number; x1: number; y1: number };
/** A stretch between two crossings: ink (a stem) or white (a counter). */
export type Stretch = { from: readonly [number, number]; to: readonly [number, number]; length: number; ink: boolean };

/** All stretches along a gauge between the first crossing and the last. */
export function stretchesAlong(contours: readonly Contour[], { x0, y0, x1, y1 }: Gauge): Stretch[] {
  const length = Math.hypot(x1 - x0, y1 - y0);
  if (length < 1e-6) return [];
  const line = [x0, y0, x1, y1];
  const closed = contours.filter((c) => c.closed);
  const curves = closed.flatMap((c) => [...curvesOf(c)]);
  const [left, right, bottom, top] = [Math.min(x0, x1), Math.max(x0, x1), Math.min(y0, y1), Math.max(y0, y1)];
  const along: number[] = [];
  for (const c of curves) {
    const box = boundsOf([c]);
    if (box.xMax < left || box.xMin > right || box.yMax < bottom || box.yMin > top) continue;
    for (const { u } of crossings(c, line)) along.push(u);
  }
  along.sort((a, b) => a - b);
  const places = along.filter((u, i) => i === 0 || (u - along[i - 1]!) * length > 0.01);
  const at = (u: number) => [x0 + (x1 - x0) * u, y0 + (y1 - y0) * u] as const;
  const out: Stretch[] = [];
  places.slice(1).forEach((to, i) => {
    const from = places[i]!;
    const ink = windingAt(curves, ...at((from + to) / 2)) !== 0;
    const last = out[out.length - 1];
    const size = (to - from) * length;
    // An edge inside the ink, where shapes overlap, parts nothing.
    if (last && last.ink === ink) out[out.length - 1] = { ...last, to: at(to), length: last.length + size };
    else out.push({ from: at(from), to: at(to), length: size, ink });
  });
  return out;
}

/** Distance and angle (degrees, counter-clockwise from level) between two places. */
export const between = (
  a: { x: number; y: number },
  b: { x: number; y: number },
): { distance: number; angle: number } => ({
  distance: Math.hypot(b.x - a.x, b.y - a.y),
  angle: (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI,
});
