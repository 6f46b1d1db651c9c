import type { Affine } from '../geometry/affine';
import { type Contour, contourBounds } from '../geometry/contour';
import { isEmptyBox } from '../geometry/curve';
import { type Edit, edited, plural, refused } from '../project/edit';
import type { Backdrop, Drawing, GlyphId, MasterId, Picture, Project } from '../project/model';
import { drawingOf, isEmptyDrawing } from '../project/queries';

/** A letter of a sheet: its picture, where its ink and the baseline lie in it (pixels), and outlines traced from it, if any. */
export type LetterPicture = {
  glyph: GlyphId;
  picture: Picture;
  inkLeft: number;
  inkRight: number;
  baseline: number;
  /** Contours in pixels carried to font units by a transform; made when the place is known. */
  outlines?: ((transform: Affine) => Contour[]) | undefined;
};

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
export const placeLettering: Edit<{
  master: MasterId;
  letters: readonly LetterPicture[];
  unitsPerPixel: number;
  sheet: string;
}> = (project, { master, letters, unitsPerPixel, sheet }) => {
  if (letters.length === 0) return refused('No letter of the sheet has a glyph to go to.');
  if (!(unitsPerPixel > 0 && Number.isFinite(unitsPerPixel))) return refused('The size of the lettering is not known.');
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
    const contours = letter.outlines?.(transform);
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
};

/** Puts traced outlines into a drawing, in place of its contours or beside them. */
export const takeTracing: Edit<{
  at: { glyph: GlyphId; master: MasterId };
  contours: readonly Contour[];
  keep: boolean;
}> = (project, { at, contours, keep }) => {
  const glyph = project.glyphs[at.glyph];
  if (!glyph) return refused('That glyph is no longer in the project.');
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
};
