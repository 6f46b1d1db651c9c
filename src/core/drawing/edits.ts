import { z } from 'zod';
import type { Affine } from '../geometry/affine';
import { translation } from '../geometry/affine';
import {
  type Contour,
  closedUp,
  insertPoint as insertOn,
  nearestOnContour,
  reverseContour,
  segmentsOf,
  transformContour,
  withStart,
} from '../geometry/contour';
import { deletePoints as deleteFrom } from '../geometry/deletePoints';
import { setSmooth as smoothOf, toggleSegment as toggleOf } from '../geometry/pointKinds';
import { gridded, tidy } from '../geometry/tidy';
import { directedByNesting } from '../geometry/winding';
import * as a from '../project/arguments';
import { defineEdit, editDrawing, plural, refused } from '../project/edit';
import type { Anchor, Drawing } from '../project/model';
import { drawingOf, glyphThere } from '../project/queries';
import { movePointsOf, withHandles } from './move';
import { byContour, keyParts, pointOf } from './points';

/** Edits of one drawing: points, contours, backdrops. Distances are font units. */

const replaceContours = (
  drawing: Drawing,
  change: (contour: Contour, index: number) => Contour | undefined,
): Drawing => ({
  ...drawing,
  contours: drawing.contours.flatMap((c, i) => change(c, i) ?? []),
});

export const addContour = defineEdit(
  {
    name: 'addContour',
    does: 'Draws a contour',
    reach: 'one master',
    within: 'glyph',
    args: z.object({ at: a.at, contour: a.contour, what: a.text }),
  },
  (project, { at, contour, what }) =>
    editDrawing(project, at, `Drew ${what}`, (d) => ({ ...d, contours: [...d.contours, contour] })),
);

/** Puts a contour in the place of another; the pen grows a contour this way. */
export const replaceContour = defineEdit(
  {
    name: 'replaceContour',
    does: 'Puts a contour in the place of another',
    reach: 'one master',
    within: 'glyph',
    args: z.object({ at: a.at, index: a.index, contour: a.contour, what: a.text }),
  },
  (project, { at, index, contour, what }) =>
    editDrawing(project, at, what, (d) =>
      d.contours[index]
        ? replaceContours(d, (c, i) => (i === index ? contour : c))
        : refused('That contour is no longer there.'),
    ),
);

export const setContours = defineEdit(
  {
    name: 'setContours',
    does: 'Draws the outlines of a glyph anew',
    reach: 'one master',
    within: 'glyph',
    args: z.object({ at: a.at, contours: a.contours }),
  },
  (project, { at, contours }) => editDrawing(project, at, 'Drew the outlines', (d) => ({ ...d, contours })),
);

export const movePoints = defineEdit(
  {
    name: 'movePoints',
    does: 'Moves points',
    reach: 'one master',
    within: 'glyph',
    args: z.object({ at: a.at, points: a.points, dx: a.number, dy: a.number, free: a.free }),
  },
  (project, { at, points, dx, dy, free }) =>
    editDrawing(project, at, `Moved ${plural(points.length, 'point')}`, (d) => {
      const selected = byContour(d, points);
      if (selected.size === 0) return refused('No points are selected.');
      const grid = free ? 0 : project.settings.grid;
      return replaceContours(d, (c, i) => (selected.has(i) ? movePointsOf(c, selected.get(i)!, [dx, dy], grid) : c));
    }),
);

/** Scales points to a width or height in units, the lower left corner of their box staying. Handles of chosen points scale too. */
export const resizePoints = defineEdit(
  {
    name: 'resizePoints',
    does: 'Gives points a width or height',
    reach: 'one master',
    args: z.object({ at: a.at, points: a.points, width: a.number.optional(), height: a.number.optional() }),
  },
  (project, { at, points, width, height }) =>
    editDrawing(project, at, `Resized ${plural(points.length, 'point')}`, (d) => {
      const selected = byContour(d, points);
      const chosen = points.flatMap((k) => pointOf(d, k) ?? []);
      const left = Math.min(...chosen.map((p) => p.x));
      const bottom = Math.min(...chosen.map((p) => p.y));
      const scale = (wanted: number | undefined, now: number) => (wanted === undefined || now === 0 ? 1 : wanted / now);
      const sx = scale(width, Math.max(...chosen.map((p) => p.x)) - left);
      const sy = scale(height, Math.max(...chosen.map((p) => p.y)) - bottom);
      if (!(sx > 0 && sy > 0)) return refused('A width or height must be more than 0.');
      return replaceContours(d, (c, i) => {
        const own = selected.get(i);
        if (!own) return c;
        const scaled = withHandles(c, own);
        return {
          ...c,
          points: c.points.map((p, k) =>
            scaled.has(k) ? { ...p, x: tidy(left + (p.x - left) * sx), y: tidy(bottom + (p.y - bottom) * sy) } : p,
          ),
        };
      });
    }),
);

/** Puts one point at a place by number. */
export const placePoint = defineEdit(
  {
    name: 'placePoint',
    does: 'Puts a point at a place',
    reach: 'one master',
    within: 'glyph',
    args: z.object({ at: a.at, point: a.point, x: a.number.optional(), y: a.number.optional() }),
  },
  (project, { at, point, x, y }) => {
    const glyph = project.glyphs[at.glyph];
    const current = glyph?.drawings[at.master] && pointOf(glyph.drawings[at.master]!, point);
    if (!current) return refused('That point is no longer there.');
    return movePoints(project, {
      at,
      points: [point],
      dx: (x ?? current.x) - current.x,
      dy: (y ?? current.y) - current.y,
    });
  },
);

export const deletePoints = defineEdit(
  {
    name: 'deletePoints',
    does: 'Deletes points, keeping the shape as near as possible',
    reach: 'one master',
    within: 'glyph',
    args: z.object({ at: a.at, points: a.points }),
  },
  (project, { at, points }) =>
    editDrawing(project, at, `Deleted ${plural(points.length, 'point')}`, (d) => {
      const selected = byContour(d, points);
      if (selected.size === 0) return refused('No points are selected.');
      return replaceContours(d, (c, i) => (selected.has(i) ? deleteFrom(c, selected.get(i)!) : c));
    }),
);

export const setSmooth = defineEdit(
  {
    name: 'setSmooth',
    does: 'Makes points smooth or corners',
    reach: 'one master',
    within: 'glyph',
    args: z.object({ at: a.at, points: a.points, smooth: z.boolean() }),
  },
  (project, { at, points, smooth }) =>
    editDrawing(
      project,
      at,
      `Made ${plural(points.length, 'point')} ${smooth ? 'smooth' : points.length === 1 ? 'a corner' : 'corners'}`,
      (d) => {
        const selected = byContour(d, points);
        return replaceContours(d, (c, i) => (selected.has(i) ? smoothOf(c, selected.get(i)!, smooth) : c));
      },
    ),
);

/** Straightens or curves the segment nearest to a place. */
export const toggleSegment = defineEdit(
  {
    name: 'toggleSegment',
    does: 'Makes a segment straight or curved',
    reach: 'one master',
    args: z.object({ at: a.at, x: a.number, y: a.number, within: a.number }),
  },
  (project, { at, x, y, within }) =>
    editDrawing(project, at, 'Changed a segment', (d) => {
      // The place is meant in the master at hand; in others it is the same segment.
      const near = nearestSegment(drawingOf(glyphThere(project, at.glyph), at.master), x, y);
      if (!near || near.distance > within) return refused('There is no segment at that place.');
      return replaceContours(d, (c, i) => {
        const segment = segmentsOf(c).find((s) => s.from === near.segment.from && s.to === near.segment.to);
        return i === near.contour && segment ? toggleOf(c, segment) : c;
      });
    }),
);

/** The points that a contour has and an older form of it has not, on the grid. */
function withNewOnGrid(older: Contour, newer: Contour, grid: number): Contour {
  if (grid <= 0) return newer;
  const known = new Set(older.points);
  const points = newer.points.map((p) => (known.has(p) ? p : { ...p, x: gridded(p.x, grid), y: gridded(p.y, grid) }));
  return { ...newer, points };
}

/** Adds a point on the outline nearest to a place; the shape changes by what the grid asks, not at all where `free`. */
export const insertPoint = defineEdit(
  {
    name: 'insertPoint',
    does: 'Adds a point on a curve without changing it',
    reach: 'one master',
    args: z.object({ at: a.at, x: a.number, y: a.number, within: a.number, free: a.free }),
  },
  (project, { at, x, y, within, free }) =>
    editDrawing(project, at, 'Added a point', (d) => {
      const near = nearestSegment(drawingOf(glyphThere(project, at.glyph), at.master), x, y);
      if (!near || near.distance > within) return refused('There is no outline at that place.');
      return replaceContours(d, (c, i) => {
        const segment = segmentsOf(c).find((s) => s.from === near.segment.from && s.to === near.segment.to);
        return i === near.contour && segment
          ? withNewOnGrid(c, insertOn(c, segment, near.part, near.t).contour, free ? 0 : project.settings.grid)
          : c;
      });
    }),
);

/** The contour, segment and place nearest to a point. */
export function nearestSegment(drawing: Drawing, x: number, y: number) {
  let best: (NonNullable<ReturnType<typeof nearestOnContour>> & { contour: number }) | undefined;
  drawing.contours.forEach((c, contour) => {
    const near = nearestOnContour(c, x, y);
    if (near && (!best || near.distance < best.distance)) best = { ...near, contour };
  });
  return best;
}

export const reverseContours = defineEdit(
  {
    name: 'reverseContours',
    does: 'Reverses contours',
    reach: 'one master',
    within: 'glyph',
    args: z.object({ at: a.at, contours: a.indices }),
  },
  (project, { at, contours }) =>
    editDrawing(project, at, `Reversed ${plural(contours.length, 'contour')}`, (d) =>
      replaceContours(d, (c, i) => (contours.includes(i) ? reverseContour(c) : c)),
    ),
);

export const setStartPoint = defineEdit(
  {
    name: 'setStartPoint',
    does: 'Makes a point the start of its contour',
    reach: 'one master',
    within: 'glyph',
    args: z.object({ at: a.at, point: a.point }),
  },
  (project, { at, point }) =>
    editDrawing(project, at, 'Moved the start point', (d) => {
      const [ci, pi] = keyParts(point);
      const p = pointOf(d, point);
      if (!p || p.type === 'off' || !d.contours[ci]!.closed)
        return refused('A contour starts at an on-curve point of a closed contour.');
      return replaceContours(d, (c, i) => (i === ci ? withStart(c, pi) : c));
    }),
);

/** Sets every contour's direction by nesting. */
export const directByNesting = defineEdit(
  { name: 'directByNesting', does: 'Sets directions by nesting', reach: 'one master', args: z.object({ at: a.at }) },
  (project, { at }) =>
    editDrawing(project, at, 'Set directions by nesting', (d) => {
      const contours = directedByNesting(d.contours);
      return contours === d.contours ? refused('All contours go the right way already.') : { ...d, contours };
    }),
);

/** Closes an open contour with a straight side. */
export const closeContour = defineEdit(
  { name: 'closeContour', does: 'Closes a contour', reach: 'one master', args: z.object({ at: a.at, index: a.index }) },
  (project, { at, index }) =>
    editDrawing(project, at, 'Closed a contour', (d) =>
      replaceContours(d, (c, i) => (i === index && !c.closed && segmentsOf(c).length > 0 ? closedUp(c) : c)),
    ),
);

/** Contours added as they are; what pasting does. */
export const addContours = defineEdit(
  {
    name: 'addContours',
    does: 'Pastes contours',
    reach: 'one master',
    args: z.object({ at: a.at, contours: a.contours }),
  },
  (project, { at, contours }) =>
    contours.length === 0
      ? refused('There is nothing to paste.')
      : editDrawing(project, at, `Pasted ${plural(contours.length, 'contour')}`, (d) => ({
          ...d,
          contours: [...d.contours, ...contours],
        })),
);

/** Takes whole contours away. */
export const removeContours = defineEdit(
  {
    name: 'removeContours',
    does: 'Deletes contours',
    reach: 'one master',
    args: z.object({ at: a.at, contours: a.indices }),
  },
  (project, { at, contours }) =>
    editDrawing(project, at, `Deleted ${plural(contours.length, 'contour')}`, (d) =>
      replaceContours(d, (c, i) => (contours.includes(i) ? undefined : c)),
    ),
);

/** A drawing and everything in it carried sideways: outlines, components, anchors; backdrops too. */
export function shifted(drawing: Drawing, dx: number): Drawing {
  const t = translation(dx, 0);
  const move = <T extends { readonly transform: Affine }>(o: T): T => {
    const [a, b, c, d, e, f] = o.transform;
    return { ...o, transform: [a, b, c, d, tidy(e + dx), f] as Affine };
  };
  return {
    ...drawing,
    contours: drawing.contours.map((c) => transformContour(c, t)),
    components: drawing.components.map(move),
    anchors: drawing.anchors.map((a: Anchor) => ({ ...a, x: tidy(a.x + dx) })),
    backdrops: drawing.backdrops.map(move),
  };
}

/** Gives a contour another place in the order of contours. */
export const orderContour = defineEdit(
  {
    name: 'orderContour',
    does: 'Gives a contour another place in the order',
    reach: 'one master',
    args: z.object({ at: a.at, from: a.index, to: a.index }),
  },
  (project, { at, from, to }) =>
    editDrawing(project, at, `Made contour ${from + 1} number ${to + 1}`, (d) => {
      const moved = d.contours[from];
      if (!moved || !d.contours[to] || from === to) return refused('That contour stands there already.');
      const rest = d.contours.filter((_, i) => i !== from);
      return { ...d, contours: [...rest.slice(0, to), moved, ...rest.slice(to)] };
    }),
);
