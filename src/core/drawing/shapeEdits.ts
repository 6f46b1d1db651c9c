import { z } from 'zod';
import { type Contour, contourBounds, curvesOf } from '../geometry/contour';
import { pointAt } from '../geometry/curve';
import { cutBy, planCut } from '../geometry/cut';
import { combineShapes, removeOverlaps, type ShapeOperation } from '../geometry/overlaps';
import { tidy } from '../geometry/tidy';
import { windingAt } from '../geometry/winding';
import * as a from '../project/arguments';
import { defineEdit, editDrawing, plural, refused } from '../project/edit';
import { drawingOf, glyphThere } from '../project/queries';

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

/** Chosen contours and the closed ones that lie wholly inside one of them: a letter goes with its counters. */
function withInsides(contours: readonly Contour[], chosen: readonly number[]): ReadonlySet<number> {
  const out = new Set(chosen);
  for (const outer of chosen.flatMap((i) => contours[i] ?? [])) {
    if (!outer.closed) continue;
    const edge = curvesOf(outer);
    const box = contourBounds(outer);
    contours.forEach((c, i) => {
      if (out.has(i) || !c.closed) return;
      const b = contourBounds(c);
      const within = b.xMin >= box.xMin && b.xMax <= box.xMax && b.yMin >= box.yMin && b.yMax <= box.yMax;
      if (within && curvesOf(c).every((curve) => windingAt(edge, ...pointAt(curve, 0.5)) !== 0)) out.add(i);
    });
  }
  return out;
}

/**
 * Puts the given contours and the rest of the drawing together: the rest is the first operand, the given ones with what lies
 * inside them the second.
 */
export const combineContours = defineEdit(
  {
    name: 'combineContours',
    does: 'Unites, subtracts or intersects contours',
    reach: 'one master',
    args: z.object({ at: a.at, contours: a.indices, operation: z.enum(['unite', 'subtract', 'intersect', 'exclude']) }),
  },
  (project, { at, contours: chosen, operation }) =>
    editDrawing(project, at, `${DONE[operation]} ${plural(chosen.length, 'contour')}`, (d) => {
      const given = withInsides(d.contours, chosen);
      const second = d.contours.filter((c, i) => given.has(i) && c.closed);
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

/**
 * Cuts the outlines, or only the contours given, along a straight line; see {@link planCut}. In other masters the cut goes
 * through the same places of the same contours.
 */
export const cutContours = defineEdit(
  {
    name: 'cutContours',
    does: 'Cuts the outline along a line',
    reach: 'one master',
    args: z.object({
      at: a.at,
      from: z.tuple([a.number, a.number]).readonly(),
      to: z.tuple([a.number, a.number]).readonly(),
      contours: a.indices.optional(),
    }),
  },
  (project, { at, from, to, contours: chosen = [] }) => {
    const within = (all: readonly Contour[]) => all.filter((_, i) => chosen.length === 0 || chosen.includes(i));
    const plan = planCut(within(drawingOf(glyphThere(project, at.glyph), at.master).contours), from, to);
    if (plan.places === 0) return refused('A cut goes through ink from edge to edge; this line passes through none.');
    return editDrawing(project, at, 'Cut the outline', (d) => {
      const own = within(d.contours);
      return {
        ...d,
        contours: [...d.contours.filter((c) => !own.includes(c)), ...tidied(own, cutBy(own, plan))],
      };
    });
  },
);
