import { z } from 'zod';
import type { Contour } from '../geometry/contour';
import { cutAlong } from '../geometry/cut';
import { combineShapes, removeOverlaps, type ShapeOperation } from '../geometry/overlaps';
import { tidy } from '../geometry/tidy';
import * as a from '../project/arguments';
import { defineEdit, editDrawing, plural, refused } from '../project/edit';

/** Edits that make new outlines of the areas that contours cover. Components are not touched. */

/** Cut points on a grid of thousandths; contours that nothing crossed stay the very same. */
const tidied = (before: readonly Contour[], after: readonly Contour[]): Contour[] =>
  after.map((c) =>
    before.includes(c) ? c : { ...c, points: c.points.map((p) => ({ ...p, x: tidy(p.x), y: tidy(p.y) })) },
  );

/** Joins what overlaps into single outlines: all contours of the drawing, or only those given. */
export const removeOverlap = defineEdit(
  {
    name: 'removeOverlap',
    does: 'Removes overlaps',
    reach: 'one master',
    args: z.object({ at: a.at, contours: a.indices.optional() }),
  },
  (project, { at, contours: chosen = [] }) =>
    editDrawing(project, at, 'Removed overlaps', (d) => {
      const within = d.contours.filter((_, i) => chosen.length === 0 || chosen.includes(i));
      const { contours, changed, failed } = removeOverlaps(within);
      if (failed)
        return refused('These outlines lie on each other so closely that no single outline could be made of them.');
      if (!changed) return refused('Nothing overlaps.');
      return { ...d, contours: [...d.contours.filter((c) => !within.includes(c)), ...tidied(within, contours)] };
    }),
);

const DONE: Readonly<Record<ShapeOperation, string>> = {
  unite: 'United',
  subtract: 'Subtracted',
  intersect: 'Intersected',
  exclude: 'Excluded',
};

/** Puts the given contours and the rest of the drawing together: the rest is the first operand, the given ones the second. */
export const combineContours = defineEdit(
  {
    name: 'combineContours',
    does: 'Unites, subtracts or intersects contours',
    reach: 'one master',
    args: z.object({ at: a.at, contours: a.indices, operation: z.enum(['unite', 'subtract', 'intersect', 'exclude']) }),
  },
  (project, { at, contours: chosen, operation }) =>
    editDrawing(project, at, `${DONE[operation]} ${plural(chosen.length, 'contour')}`, (d) => {
      const second = d.contours.filter((c, i) => chosen.includes(i) && c.closed);
      const first = d.contours.filter((c) => !second.includes(c));
      if (second.length === 0 || !first.some((c) => c.closed))
        return refused('Choose some of the closed contours; they are put together with the others.');
      const { contours, failed } = combineShapes(first, second, operation);
      if (failed)
        return refused('These outlines lie on each other so closely that nothing sound could be made of them.');
      if (contours.length === 0)
        return refused(
          operation === 'intersect'
            ? 'The chosen contours and the others have no area in common.'
            : 'Nothing would be left.',
        );
      return { ...d, contours: tidied([...first, ...second], contours) };
    }),
);

/** Cuts the outlines along a straight line; see {@link cutAlong}. */
export const cutContours = defineEdit(
  {
    name: 'cutContours',
    does: 'Cuts the outline along a line',
    reach: 'one master',
    args: z.object({
      at: a.at,
      from: z.tuple([a.number, a.number]).readonly(),
      to: z.tuple([a.number, a.number]).readonly(),
    }),
  },
  (project, { at, from, to }) =>
    editDrawing(project, at, 'Cut the outline', (d) => {
      const { contours, places } = cutAlong(d.contours, from, to);
      if (places === 0) return refused('A cut goes through ink from edge to edge; this line passes through none.');
      return { ...d, contours: tidied(d.contours, contours) };
    }),
);
