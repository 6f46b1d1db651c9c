import { z } from 'zod';
import { type Contour, isOnCurve, type Point, reverseContour, withStart } from '../geometry/contour';
import * as a from '../project/arguments';
import { defineEdit, editDrawing, refused } from '../project/edit';
import type { Drawing } from '../project/model';
import { keyParts, type PointKey, pointKey } from './points';

/** Is this point a loose end, and which one? */
export function looseEnd(drawing: Drawing, key: PointKey): 'first' | 'last' | undefined {
  const [c, i] = keyParts(key);
  const contour = drawing.contours[c];
  if (!contour || contour.closed || contour.points.length < 2) return undefined;
  return i === 0 ? 'first' : i === contour.points.length - 1 ? 'last' : undefined;
}

/** The loose end nearest to a place within a reach, other than one. */
export function looseEndNear(
  drawing: Drawing,
  x: number,
  y: number,
  within: number,
  except: PointKey,
): PointKey | undefined {
  let best: { key: PointKey; distance: number } | undefined;
  drawing.contours.forEach((c, i) => {
    if (c.closed || c.points.length < 2) return;
    for (const k of [0, c.points.length - 1]) {
      const key = pointKey(i, k);
      const distance = Math.hypot(c.points[k]!.x - x, c.points[k]!.y - y);
      if (key !== except && distance <= within && (!best || distance < best.distance)) best = { key, distance };
    }
  });
  return best?.key;
}

/** Two open contours put together where the last point of the first and the first of the second become one, at the second's place. */
const chained = (a: Contour, b: Contour): Contour => {
  const last = a.points[a.points.length - 1]!;
  const first = b.points[0]!;
  return {
    closed: false,
    points: [...a.points.slice(0, -1), { ...last, x: first.x, y: first.y, smooth: undefined }, ...b.points.slice(1)],
  };
};

/** Joins a loose end to another, at whose place it ends: two contours become one, or one closes. */
export const joinEnds = defineEdit(
  {
    name: 'joinEnds',
    does: 'Joins two loose ends',
    reach: 'one master',
    args: z.object({ at: a.at, from: a.point, to: a.point }),
  },
  (project, { at, from, to }) =>
    editDrawing(project, at, 'Joined two ends', (d) => {
      const [a, b] = [looseEnd(d, from), looseEnd(d, to)];
      if (!a || !b || from === to) return refused('Only loose ends of open contours can be joined.');
      const [ca, cb] = [keyParts(from)[0], keyParts(to)[0]];
      const [first, second] = [d.contours[ca]!, d.contours[cb]!];
      if (ca === cb) {
        const { points } = first;
        const target = points[b === 'first' ? 0 : points.length - 1]!;
        // The last point falls onto the first and gives it its segment.
        const last = points[points.length - 1]!;
        const start: Point = { ...points[0]!, x: target.x, y: target.y, type: last.type, smooth: undefined };
        return {
          ...d,
          contours: d.contours.map((c, i) =>
            i === ca ? { ...c, closed: true, points: [start, ...points.slice(1, -1)] } : c,
          ),
        };
      }
      const one = a === 'last' ? first : reverseContour(first);
      const other = b === 'first' ? second : reverseContour(second);
      return { ...d, contours: d.contours.flatMap((c, i) => (i === ca ? [chained(one, other)] : i === cb ? [] : [c])) };
    }),
);

/** Cuts the outline at an on-curve point: a closed contour opens there, an open one comes apart. */
export const cutAtPoint = defineEdit(
  {
    name: 'cutAtPoint',
    does: 'Cuts an outline at a point',
    reach: 'one master',
    args: z.object({ at: a.at, point: a.point }),
  },
  (project, { at, point }) =>
    editDrawing(project, at, 'Cut the outline at a point', (d) => {
      const [c, i] = keyParts(point);
      const contour = d.contours[c];
      const p = contour?.points[i];
      if (!contour || !p || !isOnCurve(p)) return refused('The outline is cut at a point that lies on it.');
      if (!contour.closed && (i === 0 || i === contour.points.length - 1))
        return refused('That is a loose end already.');
      return { ...d, contours: d.contours.flatMap((o, k) => (k === c ? cutAt(contour, i) : [o])) };
    }),
);

function cutAt(contour: Contour, index: number): Contour[] {
  const bare = (p: Point, type: Point['type']): Point => ({ x: p.x, y: p.y, type });
  if (contour.closed) {
    const { points } = withStart(contour, index);
    const start = points[0]!;
    return [{ closed: false, points: [bare(start, 'line'), ...points.slice(1), bare(start, start.type)] }];
  }
  const p = contour.points[index]!;
  return [
    { closed: false, points: [...contour.points.slice(0, index), bare(p, p.type)] },
    { closed: false, points: [bare(p, 'line'), ...contour.points.slice(index + 1)] },
  ];
}
