import { z } from 'zod';
import { type Contour, segmentsOf } from '../geometry/contour';
import { asNumbers, type Curve } from '../geometry/curve';
import { tidy } from '../geometry/tidy';
import * as a from '../project/arguments';
import { defineEdit, editDrawing, plural, refused } from '../project/edit';
import type { Drawing } from '../project/model';
import { evenedOut } from '../tidying/even';
import { byContour, type PointKey } from './points';

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

/** Segments of a contour whose both ends are among some points, and that have a fullness. */
function chosenSegments(contour: Contour, points: ReadonlySet<number>) {
  return segmentsOf(contour).filter(
    (s) => points.has(s.from) && points.has(s.to) && s.curves.length === 1 && fullnessOf(s.curves[0]!) !== undefined,
  );
}

/** The fullness of every curve whose both ends are chosen. */
export const fullnesses = (drawing: Drawing, keys: Iterable<PointKey>): number[] =>
  [...byContour(drawing, keys)].flatMap(([c, points]) =>
    chosenSegments(drawing.contours[c]!, points).map((s) => fullnessOf(s.curves[0]!)!),
  );

/** Gives all curves between chosen points one fullness; each keeps the proportion of its own two handles. */
export const setFullness = defineEdit(
  {
    name: 'setFullness',
    does: 'Sets the fullness of curves',
    reach: 'one master',
    args: z.object({ at: a.at, points: a.points, fullness: a.number }),
  },
  (project, { at, points, fullness }) =>
    editDrawing(project, at, `Set the fullness of ${plural(points.length, 'point')}`, (d) => {
      if (!(fullness >= 0.05 && fullness <= 1)) return refused('A fullness is from 5 to 100 %.');
      const selected = byContour(d, points);
      let changed = 0;
      const contours = d.contours.map((contour, i) => {
        const own = selected.get(i);
        if (!own) return contour;
        const next = [...contour.points];
        for (const s of chosenSegments(contour, own)) {
          const scale = fullness / fullnessOf(s.curves[0]!)!;
          changed++;
          s.offs.forEach((off, k) => {
            const end = contour.points[k === 0 ? s.from : s.to]!;
            const p = next[off]!;
            next[off] = { ...p, x: tidy(end.x + (p.x - end.x) * scale), y: tidy(end.y + (p.y - end.y) * scale) };
          });
        }
        return { ...contour, points: next };
      });
      return changed === 0
        ? refused('Choose both ends of a curve; a line or an S has no fullness.')
        : { ...d, contours };
    }),
);

/** Lets curvature run on through chosen smooth points. */
export const evenOut = defineEdit(
  {
    name: 'evenOut',
    does: 'Makes curvature even across smooth points',
    reach: 'one master',
    args: z.object({ at: a.at, points: a.points }),
  },
  (project, { at, points }) =>
    editDrawing(project, at, `Evened out ${plural(points.length, 'point')}`, (d) => {
      const selected = byContour(d, points);
      const contours = d.contours.map((c, i) => (selected.has(i) ? evenedOut(c, selected.get(i)!) : c));
      return contours.every((c, i) => c === d.contours[i])
        ? refused(
            'The curvature runs on already, or these points are no smooth points between two curves that bend one way.',
          )
        : { ...d, contours };
    }),
);
