import { z } from 'zod';
import {
  type Contour,
  isOnCurve,
  neighbour,
  type Point,
  type Segment,
  segmentsOf,
  withSegmentPoints,
} from '../geometry/contour';
import { type Curve, directionAt, nearestOn, pointAt, splitAt, type Vec } from '../geometry/curve';
import { farthestFrom, fitCubic } from '../geometry/fit';
import { tidy } from '../geometry/tidy';
import * as a from '../project/arguments';
import { defineEdit, editDrawing, refused } from '../project/edit';
import { keyParts } from './points';

/** How far the shape may stray when a point glides, in font units. */
export const GLIDE_WITHIN = 0.5;
/** A turn, in radians, at which a point is a corner: it would take the corner along. */
const SHARP = 0.06;

/**
 * Slides an on-curve point along its outline towards a place, the shape staying within {@link GLIDE_WITHIN}: one side is cut
 * exactly, the other drawn out over the piece it takes on and fitted anew. The point stops where the shape could no longer be
 * kept. Undefined where the point cannot glide: at an end, or where a line would have to bend.
 */
export function glided(contour: Contour, index: number, x: number, y: number): Contour | undefined {
  const segments = segmentsOf(contour);
  const into = segments.find((s) => s.to === index);
  const out = segments.find((s) => s.from === index);
  if (!into || !out || into === out || into.curves.length !== 1 || out.curves.length !== 1) return undefined;
  const [a, b] = [into.curves[0]!, out.curves[0]!];
  if (a.length === 6 || b.length === 6 || turnBetween(a, b) > SHARP) return undefined;
  const [nearA, nearB] = [nearestOn(a, x, y), nearestOn(b, x, y)];
  const onA = nearA.distance <= nearB.distance;
  // How far along the way from the point to the far end of that side.
  const goal = onA ? 1 - nearA.t : nearB.t;
  let [low, high] = [0, Math.min(goal, 0.98)];
  let best = moved(a, b, onA, high);
  if (!best) {
    for (let round = 0; round < 14; round++) {
      const middle = (low + high) / 2;
      const found = moved(a, b, onA, middle);
      if (found) [low, best] = [middle, found];
      else high = middle;
    }
  }
  if (!best || low + high < 1e-4) return undefined;
  return rebuilt(contour, into, out, index, best);
}

const turnBetween = (a: Curve, b: Curve): number => {
  const [u, v] = [directionAt(a, 1), directionAt(b, 0)];
  return Math.abs(Math.atan2(u[0] * v[1] - u[1] * v[0], u[0] * v[0] + u[1] * v[1]));
};

/** Both sides with the point moved by a share of one of them; undefined when the shape would stray too far. */
function moved(a: Curve, b: Curve, onA: boolean, share: number): readonly [Curve, Curve] | undefined {
  const [near, far] = onA ? [a, b] : [b, a];
  const t = onA ? 1 - share : share;
  const [first, second] = splitAt(near, t);
  const kept = onA ? first : second;
  const taken = onA ? second : first;
  const order = onA ? [taken, far] : [far, taken];
  const samples: Vec[] = order.flatMap((c, i) => Array.from({ length: 25 }, (_, k) => pointAt(c, (k + i) / 25)));
  samples.unshift(pointAt(order[0]!, 0));
  const [start, end] = [order[0]!, order[1]!];
  if (far.length === 4) {
    const whole: Curve = [...pointAt(start, 0), ...pointAt(end, 1)];
    return farthestFrom(whole, samples) <= GLIDE_WITHIN ? (onA ? [kept, whole] : [whole, kept]) : undefined;
  }
  const [from, to] = [directionAt(start, 0), directionAt(end, 1)];
  const grown = fitCubic(samples, from, [-to[0], -to[1]]);
  if (farthestFrom(grown, samples) > GLIDE_WITHIN * 0.9) return undefined;
  return onA ? [kept, grown] : [grown, kept];
}

function rebuilt(
  contour: Contour,
  into: Segment,
  out: Segment,
  index: number,
  [a, b]: readonly [Curve, Curve],
): Contour {
  const off = (c: Curve): Point[] =>
    c.length === 8 ? [2, 4].map((i) => ({ x: tidy(c[i]!), y: tidy(c[i + 1]!), type: 'off' as const })) : [];
  const point = contour.points[index]!;
  const [x, y] = pointAt(b, 0);
  const next = { ...point, x: tidy(x), y: tidy(y) };
  const placed = { ...contour, points: contour.points.map((p, i) => (i === index ? next : p)) };
  const before = withSegmentPoints(placed, into, off(a));
  // Each side keeps its number of points, so the places of the other stay.
  return withSegmentPoints(before, out, off(b));
}

/** The same for the point of a drawing. */
export const glidePoint = defineEdit(
  {
    name: 'glidePoint',
    does: 'Glides a point along its curve',
    reach: 'one master',
    args: z.object({ at: a.at, point: a.point, x: a.number, y: a.number }),
  },
  (project, { at, point, x, y }) =>
    editDrawing(project, at, 'Glided a point', (d) => {
      const [c, i] = keyParts(point);
      const contour = d.contours[c];
      if (!contour?.points[i] || !isOnCurve(contour.points[i]) || neighbour(contour, i, 1) === undefined)
        return refused('Only a point on the outline can glide.');
      const next = glided(contour, i, x, y);
      return next
        ? { ...d, contours: d.contours.map((o, k) => (k === c ? next : o)) }
        : refused('This point cannot glide without changing the shape.');
    }),
);
