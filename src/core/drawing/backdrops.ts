import { z } from 'zod';
import type { Affine } from '../geometry/affine';
import { type Contour, transformContour } from '../geometry/contour';
import * as a from '../project/arguments';
import { defineEdit, editDrawing, refused } from '../project/edit';
import {
  type Backdrop,
  type BackdropOutline,
  backdropOutlineSchema,
  backdropSchema,
  type Glyph,
  type MasterId,
  type Project,
  pictureSchema,
} from '../project/model';
import { cycleFrom, drawingsOf, flattened } from '../project/outline';
import { drawingOf, masterThere } from '../project/queries';

export const addBackdrop = defineEdit(
  {
    name: 'addBackdrop',
    does: 'Puts a picture behind a drawing',
    reach: 'one master',
    args: z.object({ at: a.at, key: a.text, picture: pictureSchema, backdrop: backdropSchema }),
  },
  (project, { at, key, picture, backdrop }) =>
    editDrawing(
      { ...project, pictures: { ...project.pictures, [key]: picture } },
      at,
      `Put ${picture.name} behind the drawing`,
      (d) => ({
        ...d,
        backdrops: [...d.backdrops, backdrop],
      }),
    ),
);

export const setBackdrop = defineEdit(
  {
    name: 'setBackdrop',
    does: 'Changes a backdrop',
    reach: 'one master',
    args: z.object({ at: a.at, id: a.text, change: backdropSchema.omit({ id: true }).partial() }),
  },
  (project, { at, id, change }) =>
    editDrawing(project, at, 'Changed the backdrop', (d) => ({
      ...d,
      backdrops: d.backdrops.map((b) => (b.id === id ? { ...b, ...change } : b)),
    })),
);

/** A transform scaled by a factor about a place that stays. */
export function scaledAbout([a, b, c, d, e, f]: Affine, factor: number, x: number, y: number): Affine {
  return [a * factor, b * factor, c * factor, d * factor, x + (e - x) * factor, y + (f - y) * factor];
}

/** Scales and moves a picture so that two heights on it come to lie on the baseline and on another line of the metrics. */
export const levelBackdrop = defineEdit(
  {
    name: 'levelBackdrop',
    does: 'Sets a picture by its baseline and another height',
    reach: 'one master',
    args: z.object({ at: a.at, id: a.text, base: a.number, line: a.number, zone: z.enum(['xHeight', 'capHeight']) }),
  },
  (project, { at, id, base, line, zone }) => {
    const { zones } = masterThere(project, at.master);
    const [foot, head] = [zones.baseline.position, zones[zone].position];
    const factor = (head - foot) / (line - base);
    if (!Number.isFinite(factor) || factor <= 0)
      return refused(`The ${zones[zone].name} lies above the baseline; click the baseline first.`);
    if (factor > 1000 || factor < 0.001) return refused('Those two places are too near to each other.');
    return editDrawing(project, at, `Set the picture by its baseline and ${zones[zone].name}`, (d) => ({
      ...d,
      backdrops: d.backdrops.map((b) => {
        if (b.id !== id) return b;
        const [xx, xy, yx, yy, dx, dy] = scaledAbout(b.transform, factor, 0, base);
        return { ...b, transform: [xx, xy, yx, yy, dx, dy + foot - base] as const };
      }),
    }));
  },
);

/** Takes a backdrop away; its picture goes too when nothing else shows it. */
export const removeBackdrop = defineEdit(
  {
    name: 'removeBackdrop',
    does: 'Takes a backdrop away',
    reach: 'one master',
    args: z.object({ at: a.at, id: a.text }),
  },
  (project, { at, id }) => {
    const outcome = editDrawing(project, at, 'Removed the backdrop', (d) => ({
      ...d,
      backdrops: d.backdrops.filter((b) => b.id !== id),
    }));
    if (!outcome.ok) return outcome;
    const drawings = Object.values(outcome.project.glyphs).flatMap((g) => [
      ...Object.values(g.drawings),
      ...g.takes.map((t) => t.drawing),
    ]);
    const used = new Set(drawings.flatMap((d) => d.backdrops.map((b) => b.picture)));
    const pictures = Object.fromEntries(Object.entries(outcome.project.pictures).filter(([key]) => used.has(key)));
    return { ...outcome, project: { ...outcome.project, pictures } };
  },
);

/** Strength of an outline behind a drawing when it is put there. */
const STRENGTH = 0.3;

/** Puts an outline behind a drawing; one that is there already is refused. */
export const addOutlineBackdrop = defineEdit(
  {
    name: 'addOutlineBackdrop',
    does: 'Puts an outline behind a drawing',
    reach: 'one master',
    args: z.object({ at: a.at, outline: backdropOutlineSchema }),
  },
  (project, { at, outline }) => {
    const name = outlineName(project, project.glyphs[at.glyph], outline);
    if (name === undefined) return refused('What was to be shown is no longer there.');
    if (
      outline.kind === 'glyph' &&
      (outline.glyph === at.glyph || cycleFrom(outline.glyph, drawingsOf(project, at.master)))
    )
      return refused('A glyph cannot stand behind itself; show a copy of it.');
    const backdrop: Backdrop = {
      id: `b${project.nextId}`,
      picture: '',
      outline,
      transform: [1, 0, 0, 1, 0, 0],
      strength: STRENGTH,
      locked: true,
      visible: true,
    };
    return editDrawing({ ...project, nextId: project.nextId + 1 }, at, `Put ${name} behind the drawing`, (d) => {
      const there =
        outline.kind !== 'copy' &&
        d.backdrops.some((b) => b.outline && JSON.stringify(b.outline) === JSON.stringify(outline));
      return there
        ? refused(`${name} is behind the drawing already.`)
        : { ...d, backdrops: [...d.backdrops, backdrop] };
    });
  },
);

/** What an outline backdrop is called; undefined when what it shows is gone. */
export function outlineName(project: Project, glyph: Glyph | undefined, outline: BackdropOutline): string | undefined {
  if (outline.kind === 'master') return project.masters.find((m) => m.id === outline.master)?.name;
  if (outline.kind === 'glyph') return project.glyphs[outline.glyph]?.name;
  if (outline.kind === 'take') return glyph?.takes.find((t) => t.id === outline.take)?.name;
  return 'a copy';
}

/** The contours that an outline backdrop shows, in font units; none when what it shows is gone. */
export function backdropContours(
  project: Project,
  glyph: Glyph,
  master: MasterId,
  { outline, transform }: Backdrop,
): readonly Contour[] {
  const contours = ((): readonly Contour[] => {
    if (!outline) return [];
    if (outline.kind === 'copy') return outline.contours;
    if (outline.kind === 'master')
      return flattened(drawingOf(glyph, outline.master), drawingsOf(project, outline.master));
    const drawing =
      outline.kind === 'take'
        ? glyph.takes.find((t) => t.id === outline.take)?.drawing
        : project.glyphs[outline.glyph] && drawingOf(project.glyphs[outline.glyph]!, master);
    return drawing ? flattened(drawing, drawingsOf(project, master)) : [];
  })();
  const [xx, xy, yx, yy, dx, dy] = transform;
  return xx === 1 && xy === 0 && yx === 0 && yy === 1 && dx === 0 && dy === 0
    ? contours
    : contours.map((c) => transformContour(c, transform));
}
