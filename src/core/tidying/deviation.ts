import { type Contour, curvesOf } from '../geometry/contour';
import { boundsOf, type Curve, nearestOn, pointAt } from '../geometry/curve';

const SAMPLES = 16;

/**
 * The greatest distance, in font units, from any place of some curves to the nearest of others; beyond `enough`, what is found
 * first.
 */
export function distanceTo(
  from: readonly Curve[],
  to: readonly Curve[],
  { enough = Number.POSITIVE_INFINITY, samples = SAMPLES } = {},
): number {
  if (from.length === 0) return 0;
  if (to.length === 0) return Number.POSITIVE_INFINITY;
  const boxes = to.map((c) => boundsOf([c]));
  let worst = 0;
  // Where the place before was nearest, the next is likely to be: most others are then too far to be looked at.
  let nearest = 0;
  const alike = from.length === to.length;
  for (const [n, c] of from.entries()) {
    for (let i = 0; i <= samples; i++) {
      const [x, y] = pointAt(c, i / samples);
      if (alike) {
        // Mostly the two are one after a change: a place that lies near its own like is never the worst.
        const [u, v] = pointAt(to[n]!, i / samples);
        if (Math.hypot(u - x, v - y) <= worst) continue;
        nearest = n;
      }
      const first = nearest;
      let near = nearestOn(to[first]!, x, y).distance;
      for (let k = 0; k < to.length; k++) {
        if (k === first) continue;
        const box = boxes[k]!;
        const away = Math.hypot(Math.max(box.xMin - x, 0, x - box.xMax), Math.max(box.yMin - y, 0, y - box.yMax));
        if (away >= near) continue;
        const { distance } = nearestOn(to[k]!, x, y);
        if (distance >= near) continue;
        near = distance;
        nearest = k;
      }
      worst = Math.max(worst, near);
      if (worst > enough) return worst;
    }
  }
  return worst;
}

/** How far two outlines lie apart at most, in font units, whichever of them is looked from. */
export function deviation(a: readonly Contour[], b: readonly Contour[]): number {
  const [first, second] = [a, b].map((list) => list.flatMap((c) => [...curvesOf(c)])) as [Curve[], Curve[]];
  return Math.max(distanceTo(first, second), distanceTo(second, first));
}
