import { nearestSegment } from '../../../core/drawing/edits';
import { type PointKey, pointKey } from '../../../core/drawing/points';
import type { Drawing } from '../../../core/project/model';

/** The point under the hand; on-curve points win over handles at the same distance, the nearest wins otherwise. */
export function pointUnder(drawing: Drawing, x: number, y: number, reach: number): PointKey | undefined {
  let best: PointKey | undefined;
  let bestDistance = reach;
  drawing.contours.forEach((contour, c) => {
    contour.points.forEach((p, i) => {
      const distance = Math.hypot(p.x - x, p.y - y) * (p.type === 'off' ? 1.05 : 1);
      if (distance < bestDistance) {
        bestDistance = distance;
        best = pointKey(c, i);
      }
    });
  });
  return best;
}

/** The two ends of the segment under the hand. */
export function segmentUnder(drawing: Drawing, x: number, y: number, reach: number): { contour: number; points: PointKey[] } | undefined {
  const near = nearestSegment(drawing, x, y);
  if (!near || near.distance > reach || near.segment.from < 0) return undefined;
  return { contour: near.contour, points: [pointKey(near.contour, near.segment.from), pointKey(near.contour, near.segment.to)] };
}

/** Every point inside a rectangle; handles count only when `handles` is set. */
export function pointsWithin(drawing: Drawing, x0: number, y0: number, x1: number, y1: number, handles: boolean): Set<PointKey> {
  const found = new Set<PointKey>();
  const left = Math.min(x0, x1);
  const right = Math.max(x0, x1);
  const bottom = Math.min(y0, y1);
  const top = Math.max(y0, y1);
  drawing.contours.forEach((contour, c) => {
    contour.points.forEach((p, i) => {
      if (p.type === 'off' && !handles) return;
      if (p.x >= left && p.x <= right && p.y >= bottom && p.y <= top) found.add(pointKey(c, i));
    });
  });
  return found;
}
