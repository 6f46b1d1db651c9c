import { z } from 'zod';
import { isRefused, type Refusal } from '../base/result';
import { tidy } from '../geometry/tidy';
import * as a from '../project/arguments';
import { type DrawingPlace, defineEdit, editDrawing, edited, type Outcome, refused, withMaster } from '../project/edit';
import { type Drawing, type Guide, guideSchema, type Master, type MasterId, type Project } from '../project/model';
import { masterOf, masterThere } from '../project/queries';

/** Guide lines of one drawing, or of a whole master. */
type Where = { at: DrawingPlace; whole: boolean };

/** The guides that hold for a drawing: the master's, then its own. */
export const guidesFor = (master: Master, drawing: Drawing): readonly Guide[] =>
  master.guides.length === 0 ? drawing.guides : [...master.guides, ...drawing.guides];

const changeGuides = (
  project: Project,
  { at, whole }: Where,
  sentence: string,
  change: (guides: readonly Guide[]) => readonly Guide[] | Refusal,
): Outcome => {
  if (!whole)
    return editDrawing(project, at, sentence, (d) => {
      const guides = change(d.guides);
      return isRefused(guides) ? guides : { ...d, guides };
    });
  const master = masterThere(project, at.master);
  const guides = change(master.guides);
  return isRefused(guides)
    ? guides
    : edited(
        withMaster(project, master.id, (m) => ({ ...m, guides })),
        `${sentence} in ${master.name}`,
      );
};

/** Degrees from 0 up to 180: a line has no direction. */
export const lineAngle = (degrees: number): number => tidy(((degrees % 180) + 180) % 180);

export const addGuide = defineEdit(
  {
    name: 'addGuide',
    does: 'Adds a guide',
    reach: 'one master',
    args: z.object({ at: a.at, whole: z.boolean(), guide: guideSchema }),
  },
  (project, { guide, ...where }) =>
    changeGuides(project, where, 'Added a guide', (guides) => [...guides, { ...guide, angle: lineAngle(guide.angle) }]),
);

/** A guide through two places. */
export function guideThrough(x0: number, y0: number, x1: number, y1: number): Guide | undefined {
  if (Math.hypot(x1 - x0, y1 - y0) < 0.01) return undefined;
  return { x: x0, y: y0, angle: lineAngle((Math.atan2(y1 - y0, x1 - x0) * 180) / Math.PI) };
}

export const setGuide = defineEdit(
  {
    name: 'setGuide',
    does: 'Moves a guide',
    reach: 'one master',
    args: z.object({ at: a.at, whole: z.boolean(), index: a.index, change: guideSchema.partial() }),
  },
  (project, { index, change, ...where }) =>
    changeGuides(project, where, 'Moved a guide', (guides) => {
      if (!guides[index]) return refused('That guide is no longer there.');
      return guides.map((g, i) =>
        i === index
          ? { ...g, ...change, ...(change.angle === undefined ? {} : { angle: lineAngle(change.angle) }) }
          : g,
      );
    }),
);

export const removeGuide = defineEdit(
  {
    name: 'removeGuide',
    does: 'Takes a guide away',
    reach: 'one master',
    args: z.object({ at: a.at, whole: z.boolean(), index: a.index }),
  },
  (project, { index, ...where }) =>
    changeGuides(project, where, 'Took a guide away', (guides) =>
      guides[index] ? guides.filter((_, i) => i !== index) : refused('That guide is no longer there.'),
    ),
);

/** Puts a guide from a glyph to its whole master, or the other way. */
export const moveGuideTo = defineEdit(
  {
    name: 'moveGuideTo',
    does: 'Gives a guide to the glyph or to its whole master',
    reach: 'one master',
    args: z.object({ at: a.at, index: a.index, toWhole: z.boolean() }),
  },
  (project, { at, index, toWhole }) => {
    const guide = toWhole
      ? project.glyphs[at.glyph]?.drawings[at.master]?.guides[index]
      : masterOf(project, at.master as MasterId)?.guides[index];
    if (!guide) return refused('That guide is no longer there.');
    const removed = removeGuide(project, { at, whole: !toWhole, index });
    return removed.ok ? addGuide(removed.project, { at, whole: toWhole, guide }) : removed;
  },
);
