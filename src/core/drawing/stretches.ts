import { z } from 'zod';
import { type Contour, isOnCurve, type Point } from '../geometry/contour';
import * as a from '../project/arguments';
import { defineEdit, editDrawing, plural, refused } from '../project/edit';
import type { Drawing } from '../project/model';
import { byContour, type PointKey } from './points';

/** A stretch of a contour between two of its points on the outline, by their indices; `whole` for all of it. */
type Stretch = { from: number; to: number } | 'whole';

const bare = (p: Point): Point => {
  const { smooth: _, ...rest } = p;
  return rest;
};

/** On-curve points of a contour, in order. */
const onCurve = (c: Contour): number[] => c.points.flatMap((p, i) => (isOnCurve(p) ? [i] : []));

/**
 * What chosen points mean of a contour: the stretches between chosen points that follow each other. All of it where all are
 * chosen, or where no two that follow each other are.
 */
function stretchesOf(contour: Contour, chosen: ReadonlySet<number>): Stretch[] {
  const all = onCurve(contour);
  const own = all.filter((i) => chosen.has(i));
  if (own.length === all.length || all.length < 2) return ['whole'];
  const out: { from: number; to: number }[] = [];
  // A closed contour is gone round from a point that is not chosen, so that no stretch is met in its middle.
  const first = contour.closed ? all.findIndex((i) => !chosen.has(i)) : 0;
  const round = [...all.slice(first), ...all.slice(0, first)];
  let run: number[] = [];
  const end = () => {
    if (run.length > 1) out.push({ from: run[0]!, to: run[run.length - 1]! });
    run = [];
  };
  for (const i of round) {
    if (chosen.has(i)) run.push(i);
    else end();
  }
  end();
  return out.length > 0 ? out : ['whole'];
}

/** Points of a contour from one to another on the way that it goes, round its start where it is closed. */
function pointsBetween(contour: Contour, from: number, to: number): Point[] {
  const { points } = contour;
  return from <= to ? points.slice(from, to + 1) : [...points.slice(from), ...points.slice(0, to + 1)];
}

/** An open contour of points, its ends corners. */
function open(points: readonly Point[]): Contour {
  const first: Point = { ...bare(points[0]!), type: 'line' };
  return { closed: false, points: [first, ...points.slice(1, -1), bare(points[points.length - 1]!)] };
}

/** What chosen points take along when they are copied: whole contours, and stretches as open ones. */
export const copiedStretches = (drawing: Drawing, keys: Iterable<PointKey>): Contour[] =>
  [...byContour(drawing, keys)].flatMap(([c, chosen]) => {
    const contour = drawing.contours[c]!;
    return stretchesOf(contour, chosen).map((s) =>
      s === 'whole' ? contour : open(pointsBetween(contour, s.from, s.to)),
    );
  });

/** A contour without some stretches of it: what is left are open contours that end where the stretches began. */
function without(contour: Contour, stretches: readonly Stretch[]): Contour[] {
  const gone = stretches.filter((s) => s !== 'whole');
  if (gone.length < stretches.length) return [];
  if (contour.closed) {
    // From where one stretch ends to where the next begins.
    return gone
      .map((s, i) => pointsBetween(contour, s.to, gone[(i + 1) % gone.length]!.from))
      .filter((p) => p.length > 1)
      .map(open);
  }
  const edges = [0, ...gone.flatMap((s) => [s.from, s.to]), contour.points.length - 1];
  return Array.from({ length: edges.length / 2 }, (_, i) => pointsBetween(contour, edges[2 * i]!, edges[2 * i + 1]!))
    .filter((p) => p.length > 1)
    .map(open);
}

/** Takes away what {@link copiedStretches} copies: a contour opens where a stretch of it goes. */
export const cutStretches = defineEdit(
  {
    name: 'cutStretches',
    does: 'Cuts stretches of contours out',
    reach: 'one master',
    args: z.object({ at: a.at, points: a.points }),
  },
  (project, { at, points }) =>
    editDrawing(project, at, `Cut out what ${plural(points.length, 'point')} hold`, (d) => {
      const selected = byContour(d, points);
      if (selected.size === 0) return refused('No points are selected.');
      return {
        ...d,
        contours: d.contours.flatMap((c, i) => {
          const own = selected.get(i);
          return own ? without(c, stretchesOf(c, own)) : [c];
        }),
      };
    }),
);
