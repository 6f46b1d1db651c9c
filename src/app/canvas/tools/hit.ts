import { nearestSegment } from '../../../core/drawing/edits';
import { type PointKey, pointKey } from '../../../core/drawing/points';
import { contourBounds, curvesOf } from '../../../core/geometry/contour';
import { windingAt } from '../../../core/geometry/winding';
import type { Drawing, Guide, MasterId, Project } from '../../../core/project/model';
import { drawingsOf, flattened } from '../../../core/project/outline';

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
export function segmentUnder(
  drawing: Drawing,
  x: number,
  y: number,
  reach: number,
): { contour: number; points: PointKey[] } | undefined {
  const near = nearestSegment(drawing, x, y);
  if (!near || near.distance > reach || near.segment.from < 0) return undefined;
  return {
    contour: near.contour,
    points: [pointKey(near.contour, near.segment.from), pointKey(near.contour, near.segment.to)],
  };
}

/** Every point inside a rectangle; handles count only when `handles` is set. */
export function pointsWithin(
  drawing: Drawing,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  handles: boolean,
): Set<PointKey> {
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

/** The guide under the hand, by its place among those that hold for a drawing: the master's first, then its own. */
export function guideUnder(guides: readonly Guide[], x: number, y: number, reach: number): number | undefined {
  const far = guides.map((g) => {
    const turn = (g.angle * Math.PI) / 180;
    return Math.abs((x - g.x) * Math.sin(turn) - (y - g.y) * Math.cos(turn));
  });
  const nearest = far.indexOf(Math.min(...far));
  return nearest >= 0 && far[nearest]! <= reach * 0.75 ? nearest : undefined;
}

/** The topmost part (component) whose ink is under the hand. */
export function partUnder(
  project: Project,
  master: MasterId,
  drawing: Drawing,
  x: number,
  y: number,
): number | undefined {
  const source = drawingsOf(project, master);
  for (let i = drawing.components.length - 1; i >= 0; i--) {
    const contours = flattened({ ...drawing, contours: [], components: [drawing.components[i]!] }, source);
    const near = contours.some((c) => {
      const b = contourBounds(c);
      return b.xMin <= x && x <= b.xMax && b.yMin <= y && y <= b.yMax;
    });
    if (
      near &&
      windingAt(
        contours.flatMap((c) => [...curvesOf(c)]),
        x,
        y,
      ) !== 0
    )
      return i;
  }
  return undefined;
}

/** The anchor under the hand, by its name. */
export const anchorUnder = (drawing: Drawing, x: number, y: number, reach: number): string | undefined =>
  drawing.anchors
    .map((a) => ({ name: a.name, off: Math.hypot(a.x - x, a.y - y) }))
    .filter((a) => a.off <= reach)
    .sort((a, b) => a.off - b.off)[0]?.name;
