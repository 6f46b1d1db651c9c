import { z } from 'zod';
import { type Contour, segmentsOf } from '../geometry/contour';
import { fullnessOf } from '../geometry/fullness';
import { tidy } from '../geometry/tidy';
import * as a from '../project/arguments';
import { defineEdit, editDrawing, plural, refused } from '../project/edit';
import type { Drawing } from '../project/model';
import { evenedOut } from '../tidying/even';
import { byContour, type PointKey } from './points';

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
