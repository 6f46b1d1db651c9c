import { z } from 'zod';
import { type Affine, compose, determinant, IDENTITY, invert, translation } from '../geometry/affine';
import { reverseContour, transformContour } from '../geometry/contour';
import { type Box, emptyBox, isEmptyBox, stretchBox } from '../geometry/curve';
import { gridded, tidy } from '../geometry/tidy';
import * as a from '../project/arguments';
import { defineEdit, editDrawing, edited, plural, refused } from '../project/edit';
import type { Drawing, GlyphId } from '../project/model';
import { drawingBounds, drawingsOf } from '../project/outline';
import { drawingOf } from '../project/queries';
import { withHandles } from './move';
import { byContour } from './points';

/** The place a transform is about: one of nine on the box of what is drawn, or the glyph's own zero on the baseline. */
export const ORIGINS = [
  'top left',
  'top',
  'top right',
  'left',
  'centre',
  'right',
  'bottom left',
  'bottom',
  'bottom right',
  'zero',
] as const;
export type Origin = (typeof ORIGINS)[number];

/** What to do, in this order: scale, slant, turn, move. Scales are factors, angles degrees; a slant to the right is positive. */
const transformBy = z
  .object({ scaleX: a.number, scaleY: a.number, slant: a.number, rotate: a.number, dx: a.number, dy: a.number })
  .partial();
export type TransformBy = z.infer<typeof transformBy>;

/** The transform about a place. */
export function affineOf(
  { scaleX = 1, scaleY = 1, slant = 0, rotate = 0, dx = 0, dy = 0 }: TransformBy,
  x: number,
  y: number,
): Affine {
  const lean = Math.tan((slant * Math.PI) / 180);
  const [c, s] = [Math.cos((rotate * Math.PI) / 180), Math.sin((rotate * Math.PI) / 180)];
  const about = compose([c, s, -s, c, 0, 0], compose([1, 0, lean, 1, 0, 0], [scaleX, 0, 0, scaleY, 0, 0]));
  return compose(translation(x + dx, y + dy), compose(about, translation(-x, -y)));
}

/** Where an origin lies on a box. */
export function originOn(box: Box, origin: Origin): readonly [number, number] {
  if (origin === 'zero' || isEmptyBox(box)) return [0, 0];
  const x = origin.includes('left') ? box.xMin : origin.includes('right') ? box.xMax : (box.xMin + box.xMax) / 2;
  const y = origin.includes('bottom') ? box.yMin : origin.includes('top') ? box.yMax : (box.yMin + box.yMax) / 2;
  return [x, y];
}

/**
 * A drawing through a transform: outlines, components, anchors; the advance stays. A mirrored outline is turned round so
 * that it fills as before. Parts whose own glyph goes through the same transform keep their shape and only move along.
 */
export function transformedDrawing(drawing: Drawing, t: Affine, alsoTransformed: (glyph: GlyphId) => boolean): Drawing {
  const back = invert(t) ?? IDENTITY;
  const mirrored = determinant(t) < 0;
  const clean = (a: Affine): Affine =>
    a.map((v, i) => (i < 4 ? Math.round(v * 1e6) / 1e6 : tidy(v))) as unknown as Affine;
  const place = ({ x, y }: { x: number; y: number }) => ({
    x: tidy(t[0] * x + t[2] * y + t[4]),
    y: tidy(t[1] * x + t[3] * y + t[5]),
  });
  return {
    ...drawing,
    contours: drawing.contours.map((c) => {
      const moved = transformContour(c, t);
      const exact = { ...moved, points: moved.points.map((p) => ({ ...p, x: tidy(p.x), y: tidy(p.y) })) };
      return mirrored ? reverseContour(exact) : exact;
    }),
    components: drawing.components.map((c) => ({
      ...c,
      transform: clean(compose(t, alsoTransformed(c.glyph) ? compose(c.transform, back) : c.transform)),
    })),
    anchors: drawing.anchors.map((a) => ({ ...a, ...place(a) })),
  };
}

/** Puts glyphs through a transform about an origin of each one's own box, in some masters. */
export const transformGlyphs = defineEdit(
  {
    name: 'transformGlyphs',
    does: 'Puts glyphs through a transform',
    reach: 'masters named',
    args: z.object({ glyphs: a.glyphs, masters: a.masters, by: transformBy, origin: z.enum(ORIGINS) }),
  },
  (project, { glyphs, masters, by, origin }) => {
    const fault = faultIn(by);
    if (fault) return refused(fault);
    const chosen = new Set(glyphs);
    const next = { ...project.glyphs };
    for (const id of glyphs) {
      const glyph = project.glyphs[id];
      if (!glyph) continue;
      const drawings = { ...glyph.drawings };
      for (const m of masters) {
        if (!glyph.drawings[m]) continue;
        const drawing = drawingOf(glyph, m);
        const [x, y] = originOn(drawingBounds(drawing, drawingsOf(project, m)), origin);
        // Parts that are transformed about another place than this glyph cannot keep in step; they are drawn as they were.
        const t = affineOf(by, x, y);
        drawings[m] = transformedDrawing(drawing, t, (part) => origin === 'zero' && chosen.has(part));
      }
      next[id] = { ...glyph, drawings };
    }
    const where = glyphs.length === 1 ? (project.glyphs[glyphs[0]!]?.name ?? '') : plural(glyphs.length, 'glyph');
    return edited({ ...project, glyphs: next }, `Transformed ${where}`);
  },
);

/** The box of chosen points, their handles left out. */
function boxOfPoints(drawing: Drawing, selected: ReadonlyMap<number, ReadonlySet<number>>): Box {
  const box = emptyBox();
  for (const [c, own] of selected)
    for (const i of own) stretchBox(box, drawing.contours[c]!.points[i]!.x, drawing.contours[c]!.points[i]!.y);
  return box;
}

/**
 * Puts chosen points with their handles through a transform about an origin on their box; with none chosen, everything that
 * is drawn, about the outline's box. `copy` leaves what was there and adds the transformed contours: whole ones only.
 * `grid`: what it changes lands on a grid of so many units, as under a hand.
 */
export const transformPoints = defineEdit(
  {
    name: 'transformPoints',
    does: 'Puts points through a transform',
    reach: 'one master',
    args: z.object({
      at: a.at,
      points: a.points,
      by: transformBy,
      origin: z.enum(ORIGINS),
      copy: z.boolean().optional(),
      grid: a.number.optional(),
    }),
  },
  (project, { at, points, by, origin, copy = false, grid = 0 }) => {
    const fault = faultIn(by);
    if (fault) return refused(fault);
    return editDrawing(
      project,
      at,
      copy ? 'Transformed a copy' : `Transformed ${points.length > 0 ? plural(points.length, 'point') : 'all'}`,
      (d, master) => {
        const selected = byContour(d, points);
        const whole = selected.size === 0;
        const t = affineOf(
          by,
          ...originOn(whole ? drawingBounds(d, drawingsOf(project, master)) : boxOfPoints(d, selected), origin),
        );
        if (whole && !copy)
          return landed(
            transformedDrawing(d, t, () => false),
            grid,
          );
        const chosen = (i: number) => whole || selected.has(i);
        if (copy) {
          const added = transformedDrawing(
            { ...d, contours: d.contours.filter((_, i) => chosen(i)), components: [], anchors: [] },
            t,
            () => false,
          ).contours;
          return added.length === 0
            ? refused('There are no contours to copy.')
            : { ...d, contours: [...d.contours, ...landed({ ...d, contours: added }, grid).contours] };
        }
        return {
          ...d,
          contours: d.contours.map((c, i) => {
            const own = selected.get(i);
            if (!own) return c;
            const moving = withHandles(c, own);
            const moved = transformContour(c, t).points;
            const next = {
              ...c,
              points: c.points.map((p, k) =>
                moving.has(k) ? { ...p, x: gridded(tidy(moved[k]!.x), grid), y: gridded(tidy(moved[k]!.y), grid) } : p,
              ),
            };
            return determinant(t) < 0 && moving.size === c.points.length ? reverseContour(next) : next;
          }),
        };
      },
    );
  },
);

/** Points, parts and anchors of a drawing on a grid; 0 leaves them where they are. */
function landed(d: Drawing, grid: number): Drawing {
  if (grid <= 0) return d;
  const on = <T extends { readonly x: number; readonly y: number }>(p: T): T => ({
    ...p,
    x: gridded(p.x, grid),
    y: gridded(p.y, grid),
  });
  return {
    ...d,
    contours: d.contours.map((c) => ({ ...c, points: c.points.map(on) })),
    components: d.components.map((c) => {
      const [xx, xy, yx, yy, x, y] = c.transform;
      return { ...c, transform: [xx, xy, yx, yy, gridded(x, grid), gridded(y, grid)] as const };
    }),
    anchors: d.anchors.map(on),
  };
}

/** What is wrong with the numbers of a transform, in a sentence. */
function faultIn(by: TransformBy): string | undefined {
  if (Object.values(by).some((v) => v !== undefined && !Number.isFinite(v))) return 'A number is missing.';
  if (by.scaleX === 0 || by.scaleY === 0) return 'Scaled by 0, nothing would be left.';
  return Math.abs(by.slant ?? 0) > 60 ? 'A slant may be 60 degrees at most.' : undefined;
}
