import { z } from 'zod';
import type { Affine } from '../geometry/affine';
import { contourBounds } from '../geometry/contour';
import { isEmptyBox } from '../geometry/curve';
import * as a from '../project/arguments';
import { defineEdit, edited, plural, refused } from '../project/edit';
import { type Backdrop, type Drawing, type Project, pictureSchema } from '../project/model';
import { drawingOf, glyphThere, isEmptyDrawing } from '../project/queries';
import { placedOutlines } from './placedOutlines';

/** A letter of a sheet: its picture, where its ink and the baseline lie in it (pixels), and outlines traced from it, if any. */
const letterPicture = z.object({
  glyph: a.glyph,
  picture: pictureSchema,
  inkLeft: a.number,
  inkRight: a.number,
  baseline: a.number,
  /** Outlines of the ink in pixels, y up from the lower edge; they go to their place with the picture. */
  outlines: a.contours.optional(),
});
export type LetterPicture = z.infer<typeof letterPicture>;

/** White left and right of lettering in a glyph that had nothing yet, as a share of the em. */
const SIDE = 0.06;
const STRENGTH = 0.35;

/** The transform from a letter's picture to font units: on the baseline, its ink where the drawing is or at a usual side. */
export function letterTransform(
  project: Project,
  drawing: Drawing,
  letter: LetterPicture,
  unitsPerPixel: number,
): Affine {
  const drawn = drawing.contours.map(contourBounds).filter((b) => !isEmptyBox(b));
  const left = drawn.length > 0 ? Math.min(...drawn.map((b) => b.xMin)) : Math.round(project.unitsPerEm * SIDE);
  return [unitsPerPixel, 0, 0, -unitsPerPixel, left - letter.inkLeft * unitsPerPixel, letter.baseline * unitsPerPixel];
}

/**
 * Puts letters of a sheet behind their glyphs at one scale, standing on the baseline. A glyph with nothing in it gets an advance
 * that leaves a usual side on either hand; with outlines, glyphs get those in place of their contours.
 */
export const placeLettering = defineEdit(
  {
    name: 'placeLettering',
    does: 'Puts letters of a sheet behind glyphs',
    reach: 'one master',
    args: z.object({
      master: a.master,
      letters: z.array(letterPicture).readonly(),
      unitsPerPixel: a.number,
      sheet: a.text,
    }),
  },
  (project, { master, letters, unitsPerPixel, sheet }) => {
    if (letters.length === 0) return refused('No letter of the sheet has a glyph to go to.');
    if (!(unitsPerPixel > 0 && Number.isFinite(unitsPerPixel)))
      return refused('The size of the lettering is not known.');
    const glyphs = { ...project.glyphs };
    const pictures = { ...project.pictures };
    let { nextId } = project;
    let traced = 0;
    for (const letter of letters) {
      const glyph = glyphs[letter.glyph];
      if (!glyph) continue;
      const drawing = drawingOf(glyph, master);
      const transform = letterTransform(project, drawing, letter, unitsPerPixel);
      const key = `sheet-${nextId}`;
      pictures[key] = letter.picture;
      const backdrop: Backdrop = {
        id: `b${nextId++}`,
        picture: key,
        transform,
        strength: STRENGTH,
        locked: true,
        visible: true,
      };
      const grid = Math.max(1, project.settings.grid);
      const contours = letter.outlines && placedOutlines(letter.outlines, letter.picture.height, transform, grid);
      if (contours && contours.length > 0) traced++;
      const width = (letter.inkRight - letter.inkLeft) * unitsPerPixel;
      const next: Drawing = {
        ...drawing,
        backdrops: [...drawing.backdrops, backdrop],
        ...(contours && contours.length > 0 ? { contours } : {}),
        ...(isEmptyDrawing(drawing) ? { advance: Math.round(width + 2 * Math.round(project.unitsPerEm * SIDE)) } : {}),
      };
      glyphs[letter.glyph] = { ...glyph, drawings: { ...glyph.drawings, [master]: next } };
    }
    const what =
      traced > 0
        ? `Traced ${plural(traced, 'glyph')} from ${sheet}`
        : `Put ${sheet} behind ${plural(letters.length, 'glyph')}`;
    return edited({ ...project, glyphs, pictures, nextId }, what);
  },
);

/** Puts traced outlines into a drawing, in place of its contours or beside them. */
export const takeTracing = defineEdit(
  {
    name: 'takeTracing',
    does: 'Takes traced outlines over',
    reach: 'one master',
    args: z.object({ at: a.at, contours: a.contours, keep: z.boolean() }),
  },
  (project, { at, contours, keep }) => {
    const glyph = glyphThere(project, at.glyph);
    if (contours.length === 0) return refused('There is no ink in the picture at this threshold.');
    const drawing = drawingOf(glyph, at.master);
    const next = { ...drawing, contours: keep ? [...drawing.contours, ...contours] : contours };
    return edited(
      {
        ...project,
        glyphs: { ...project.glyphs, [glyph.id]: { ...glyph, drawings: { ...glyph.drawings, [at.master]: next } } },
      },
      `Traced ${glyph.name}`,
    );
  },
);
