import { z } from 'zod';
import { isOnCurve, neighbour, type Point } from '../geometry/contour';
import { align } from '../geometry/pointKinds';
import { gridded, tidy } from '../geometry/tidy';
import * as a from '../project/arguments';
import { defineEdit, editDrawing, plural, refused } from '../project/edit';
import type { Drawing } from '../project/model';
import { between } from './gauge';
import { movePointsOf } from './move';
import { keyParts, type PointKey, pointKey, pointOf } from './points';

export const ALIGNMENTS = ['left', 'centre', 'right', 'top', 'middle', 'bottom'] as const;
export type Alignment = (typeof ALIGNMENTS)[number];

/** Every chosen point moved by its own distance, handles along with it. */
function movedEach(d: Drawing, moves: ReadonlyMap<PointKey, readonly [number, number]>): Drawing {
  const contours = [...d.contours];
  for (const [key, [dx, dy]] of moves) {
    const [c, i] = keyParts(key);
    if (dx !== 0 || dy !== 0) contours[c] = movePointsOf(contours[c]!, new Set([i]), [dx, dy]);
  }
  return { ...d, contours };
}

const onCurveOnly = (d: Drawing, keys: readonly PointKey[]): PointKey[] =>
  keys.filter((k) => pointOf(d, k) && isOnCurve(pointOf(d, k)!));

/** Brings points to one line: the outermost of them, or the middle. */
export const alignPoints = defineEdit(
  {
    name: 'alignPoints',
    does: 'Aligns points',
    reach: 'one master',
    args: z.object({ at: a.at, points: a.points, to: z.enum(ALIGNMENTS) }),
  },
  (project, { at, points, to }) =>
    editDrawing(project, at, `Aligned ${plural(points.length, 'point')}`, (d) => {
      const own = onCurveOnly(d, points);
      if (own.length < 2) return refused('Choose two or more points on the outline.');
      const axis = to === 'left' || to === 'right' || to === 'centre' ? 'x' : 'y';
      const values = own.map((k) => pointOf(d, k)![axis]);
      const [least, most] = [Math.min(...values), Math.max(...values)];
      const goal =
        to === 'left' || to === 'bottom'
          ? least
          : to === 'right' || to === 'top'
            ? most
            : gridded((least + most) / 2, project.settings.grid);
      return movedEach(
        d,
        new Map(own.map((k) => [k, axis === 'x' ? [goal - pointOf(d, k)!.x, 0] : [0, goal - pointOf(d, k)!.y]])),
      );
    }),
);

/** Spaces points evenly between the outermost two. */
export const distributePoints = defineEdit(
  {
    name: 'distributePoints',
    does: 'Spaces points evenly',
    reach: 'one master',
    args: z.object({ at: a.at, points: a.points, axis: z.enum(['x', 'y']) }),
  },
  (project, { at, points, axis }) =>
    editDrawing(project, at, `Spaced ${plural(points.length, 'point')} evenly`, (d) => {
      const own = onCurveOnly(d, points).sort((a, b) => pointOf(d, a)![axis] - pointOf(d, b)![axis]);
      if (own.length < 3) return refused('Choose three or more points on the outline.');
      const [first, last] = [pointOf(d, own[0]!)![axis], pointOf(d, own[own.length - 1]!)![axis]];
      return movedEach(
        d,
        new Map(
          own.map((k, i) => {
            const goal = gridded(first + ((last - first) * i) / (own.length - 1), project.settings.grid);
            const by = tidy(goal - pointOf(d, k)![axis]);
            return [k, axis === 'x' ? [by, 0] : [0, by]];
          }),
        ),
      );
    }),
);

/** The on-curve point that a handle hangs on. */
export function ownerOf(drawing: Drawing, key: PointKey): PointKey | undefined {
  const [c, i] = keyParts(key);
  const contour = drawing.contours[c];
  if (contour?.points[i]?.type !== 'off') return undefined;
  for (const step of [-1, 1]) {
    const k = neighbour(contour, i, step);
    if (k !== undefined && contour.points[k]!.type !== 'off') return pointKey(c, k);
  }
  return undefined;
}

/** Length and angle (degrees) of a handle, seen from its point. */
export function handleOf(drawing: Drawing, key: PointKey): { distance: number; angle: number } | undefined {
  const owner = ownerOf(drawing, key);
  return owner && between(pointOf(drawing, owner)!, pointOf(drawing, key)!);
}

/** Gives a handle a length and an angle; at a smooth point the other side keeps in line. */
export const setHandle = defineEdit(
  {
    name: 'setHandle',
    does: 'Sets a handle by length and angle',
    reach: 'one master',
    args: z.object({ at: a.at, handle: a.point, length: a.number.optional(), angle: a.number.optional() }),
  },
  (project, { at, handle, length, angle }) =>
    editDrawing(project, at, 'Set a handle', (d) => {
      const owner = ownerOf(d, handle);
      const now = handleOf(d, handle);
      if (!owner || !now) return refused('That is no handle.');
      const [p, q] = [pointOf(d, owner)!, pointOf(d, handle)!];
      const long = length ?? now.distance;
      if (!(long >= 0 && long <= 1e5)) return refused('A handle is 0 to 100 000 units long.');
      const turn = ((angle ?? now.angle) * Math.PI) / 180;
      const [c, i] = keyParts(handle);
      const moved = movePointsOf(d.contours[c]!, new Set([i]), [
        p.x + Math.cos(turn) * long - q.x,
        p.y + Math.sin(turn) * long - q.y,
      ]);
      return { ...d, contours: d.contours.map((o, k) => (k === c ? moved : o)) };
    }),
);

/**
 * Moves a handle by hand. `free`: the point becomes a corner and the other handle stays; `equal`: the other handle mirrors this
 * one; neither: the other side keeps in line where the point is smooth.
 */
export const moveHandle = defineEdit(
  {
    name: 'moveHandle',
    does: 'Moves a handle, free or equal to its fellow',
    reach: 'one master',
    args: z.object({
      at: a.at,
      handle: a.point,
      x: a.number,
      y: a.number,
      how: z.enum(['free', 'equal']),
      free: a.free,
    }),
  },
  (project, { at, handle, x, y, how, free }) =>
    editDrawing(project, at, 'Moved a handle', (d) => {
      const owner = ownerOf(d, handle);
      if (!owner) return refused('That is no handle.');
      const [c, i] = keyParts(handle);
      const o = keyParts(owner)[1];
      const contour = d.contours[c]!;
      const points: Point[] = [...contour.points];
      const grid = free ? 0 : project.settings.grid;
      points[i] = { ...points[i]!, x: tidy(x), y: tidy(y) };
      const otherAt = neighbour(contour, o, neighbour(contour, o, 1) === i ? -1 : 1);
      const other = otherAt === undefined ? undefined : points[otherAt];
      if (how === 'free') {
        const { smooth: _, ...corner } = points[o]!;
        points[o] = corner;
      } else if (otherAt !== undefined && other?.type === 'off') {
        const p = points[o]!;
        points[otherAt] = { ...other, x: gridded(tidy(2 * p.x - x), grid), y: gridded(tidy(2 * p.y - y), grid) };
        points[o] = { ...p, smooth: true };
      } else if (points[o]!.smooth && otherAt !== undefined) align(points, o, otherAt, i);
      return { ...d, contours: d.contours.map((k, n) => (n === c ? { ...contour, points } : k)) };
    }),
);

/** Moves on-curve points while all handles stay; points whose handles no longer lie in line become corners. */
export const movePointsAlone = defineEdit(
  {
    name: 'movePointsAlone',
    does: 'Moves points, their handles left',
    reach: 'one master',
    args: z.object({ at: a.at, points: a.points, dx: a.number, dy: a.number }),
  },
  (project, { at, points, dx, dy }) =>
    editDrawing(project, at, `Moved ${plural(points.length, 'point')}, handles left`, (d) => {
      const own = onCurveOnly(d, points);
      if (own.length === 0) return refused('Choose a point on the outline.');
      const contours = d.contours.map((contour, c) => {
        const mine = new Set(own.flatMap((k) => (keyParts(k)[0] === c ? [keyParts(k)[1]] : [])));
        if (mine.size === 0) return contour;
        const moved = contour.points.map((p, i) => (mine.has(i) ? { ...p, x: tidy(p.x + dx), y: tidy(p.y + dy) } : p));
        return {
          ...contour,
          points: moved.map((p, i) => {
            if (!mine.has(i) || !p.smooth) return p;
            const [a, b] = [neighbour(contour, i, -1), neighbour(contour, i, 1)].map((k) =>
              k === undefined ? p : moved[k]!,
            ) as [Point, Point];
            const turn = Math.abs(
              Math.atan2(
                (p.x - a.x) * (b.y - p.y) - (p.y - a.y) * (b.x - p.x),
                (p.x - a.x) * (b.x - p.x) + (p.y - a.y) * (b.y - p.y),
              ),
            );
            if (turn < 0.02) return p;
            const { smooth: _, ...corner } = p;
            return corner;
          }),
        };
      });
      return { ...d, contours };
    }),
);

/** The one of the two directions of a line that is nearer to a direction; degrees. */
function nearerWay(line: number, direction: number): number {
  const turned = ((((line - direction) % 360) + 540) % 360) - 180;
  return Math.abs(turned) > 90 ? line + 180 : line;
}

/**
 * Puts the second of two points at a distance and angle from the first: a terminal's cut given to another. A cut is a line,
 * so that an angle is meant modulo 180 degrees: the point that moves stays on its side of the other.
 */
export const setBetween = defineEdit(
  {
    name: 'setBetween',
    does: 'Sets the distance or angle of two points',
    reach: 'one master',
    args: z.object({ at: a.at, from: a.point, to: a.point, distance: a.number.optional(), angle: a.number.optional() }),
  },
  (project, { at, from, to, distance, angle }) =>
    editDrawing(project, at, 'Set the distance of two points', (d) => {
      const [p, q] = [pointOf(d, from), pointOf(d, to)];
      if (!p || !q) return refused('Those points are no longer there.');
      const now = between(p, q);
      const long = distance ?? now.distance;
      if (!Number.isFinite(long) || long < 0) return refused('A distance is 0 or more.');
      const turn = ((angle === undefined ? now.angle : nearerWay(angle, now.angle)) * Math.PI) / 180;
      return movedEach(
        d,
        new Map([[to, [tidy(p.x + Math.cos(turn) * long) - q.x, tidy(p.y + Math.sin(turn) * long) - q.y]]]),
      );
    }),
);
