import { z } from 'zod';
import * as a from '../project/arguments';
import { defineEdit, edited, type Outcome, plural, refused, withMaster } from '../project/edit';
import { drawingSchema, type Project } from '../project/model';
import { drawingOf, glyphThere, masterThere } from '../project/queries';
import { addAxis, addMaster } from '../variation/familyEdits';
import { REGISTERED_AXES } from '../variation/registeredAxes';
import { reweighedGlyphs } from './many';

/** What a stem may be, in font units. */
const stem = z.number().min(1).max(2000);
const stems = z.object({ vertical: stem, horizontal: stem });
const weighing = {
  from: stems,
  to: stems,
  width: z.number().min(0.3).max(3).optional().describe('share of the advance; none: counters keep their width'),
  bearings: z.enum(['share', 'kept']),
  rounds: z.number().min(0.5).max(2),
};

/** Keeps how thick the upright and the level strokes of a master are; both empty lets them be measured again. */
export const setStems = defineEdit(
  {
    name: 'setStems',
    does: 'Sets the standard stems of a master',
    reach: 'one master',
    args: z.object({ master: a.master, vertical: stem.optional(), horizontal: stem.optional() }),
  },
  (project, { master: id, vertical, horizontal }) => {
    const master = masterThere(project, id);
    const one = (value: number | undefined, upright: boolean) =>
      value === undefined ? [] : [{ name: upright ? 'Vertical' : 'Horizontal', value, vertical: upright }];
    const kept = master.stems.filter((s) => s.name !== 'Vertical' && s.name !== 'Horizontal');
    // The first of a direction counts.
    const next = [...one(vertical, true), ...one(horizontal, false), ...kept];
    if (JSON.stringify(next) === JSON.stringify(master.stems)) return refused('Its stems are so already.');
    return edited(
      withMaster(project, id, (m) => ({ ...m, stems: next })),
      vertical === undefined && horizontal === undefined
        ? `Stems of ${master.name} are measured`
        : `Set the stems of ${master.name} to ${vertical ?? 'measured'} and ${horizontal ?? 'measured'}`,
    );
  },
);

const made = z.array(z.object({ glyph: a.glyph, drawing: drawingSchema })).readonly();
type Made = z.infer<typeof made>;

/** Puts drawings into a master; where they come from another, that keeps its own guides, pictures and notes. */
function taken(project: Project, of: string, into: string, list: Made): Outcome {
  if (list.length === 0) return refused('No glyph could be reweighted.');
  const master = masterThere(project, into);
  const glyphs = { ...project.glyphs };
  for (const { glyph: id, drawing } of list) {
    const glyph = glyphThere(project, id);
    const was = drawingOf(glyph, into);
    const { advance, contours, components, anchors, guides } = drawing;
    const next = { ...was, advance, contours, components, anchors, guides: of === into ? guides : was.guides };
    glyphs[id] = { ...glyph, drawings: { ...glyph.drawings, [into]: next } };
  }
  return edited({ ...project, glyphs }, `Reweighted ${plural(list.length, 'glyph')} in ${master.name}`);
}

/** Takes over reweighted drawings into a master. */
export const takeReweighed = defineEdit(
  {
    name: 'takeReweighed',
    does: 'Takes over reweighted drawings of many glyphs',
    reach: 'masters named',
    args: z.object({
      /** The master that they were made from; the one they go to where it is left out. */
      of: a.master.optional(),
      master: a.master,
      made,
    }),
  },
  (project, { of, master, made: list }) => taken(project, of ?? master, master, list),
);

/** A project with the axes that a place names: those that lack are begun at the usual design, where its masters are. */
function withAxes(project: Project, place: Readonly<Record<string, number>>): Outcome {
  let current = project;
  for (const [tag, value] of Object.entries(place)) {
    if (current.axes.some((x) => x.tag === tag)) continue;
    const { name, default: usual } = REGISTERED_AXES.find((x) => x.tag === tag) ?? { name: tag, default: 0 };
    const ends = { minimum: Math.min(usual, value), default: usual, maximum: Math.max(usual, value) };
    const added = addAxis(current, { tag, name, ...ends });
    if (!added.ok) return added;
    current = added.project;
  }
  return edited(current, 'Added axes');
}

/** Adds a master as a copy of another with reweighted drawings in it, and the axes that its place names where they lack. */
export const addReweighedMaster = defineEdit(
  {
    name: 'addReweighedMaster',
    does: 'Adds a master of reweighted drawings',
    reach: 'all masters',
    args: z.object({
      name: z.string().trim().min(1).max(200),
      place: z.record(z.string(), z.number()).readonly(),
      copy: a.master,
      made,
    }),
  },
  (project, { name, place, copy, made: list }) => {
    const ready = withAxes(project, place);
    if (!ready.ok) return ready;
    const added = addMaster(ready.project, { name, place, copy });
    if (!added.ok) return added;
    const id = added.project.masters.at(-1)!.id;
    // What was kept of the old stems is not true of the new ones.
    const fresh = withMaster(added.project, id, (m) => ({ ...m, stems: [] }));
    const done = taken(fresh, copy, id, list);
    return done.ok
      ? edited(done.project, `Added the master ${name}, ${plural(list.length, 'glyph')} reweighted`)
      : done;
  },
);

/** Reweights glyphs of a master in one step, in place or into another master. */
export const reweightGlyphs = defineEdit(
  {
    name: 'reweightGlyphs',
    does: 'Gives glyphs of a master new stems, there or in another master',
    reach: 'masters named',
    args: z.object({
      glyphs: a.glyphs,
      master: a.master,
      into: a.master.optional(),
      own: z.record(z.string(), z.number().min(-500).max(500)).optional(),
      ...weighing,
    }),
  },
  (project, { into, own = {}, ...asked }) => {
    const done = reweighedGlyphs(project, { ...asked, width: asked.width, own });
    return taken(project, asked.master, into ?? asked.master, done.made);
  },
);
