import { z } from 'zod';
import * as a from '../project/arguments';
import { defineEdit, edited, type Outcome, plural, refused, withMaster } from '../project/edit';
import { STYLE_LINKS } from '../project/masterFacts';
import type { Glyph, Master, MasterId, Project } from '../project/model';
import { type Place, placeInWords, samePlace, toUser, wholePlace } from '../project/places';
import { defaultMaster, drawingOf, masterThere } from '../project/queries';
import { instanceAt } from './instance';
import { FARTHEST, grid, place, plainDrawing } from './places';
import { isTaken } from './waypointEdits';

/** Edits of the family’s space: its axes, the masters on them, its instances. */

const TAG = /^[A-Za-z][A-Za-z0-9 ]{3}$/;
const MOST_MASTERS = 64;
const MOST_INSTANCES = 500;
const MOST_AXES = 16;
const name = z.string().trim().min(1).max(200);
const value = z.number().min(-FARTHEST).max(FARTHEST);

/** The only values that an axis has, in user units. */
const singles = z.array(value).max(32).readonly();

type Axis = Project['axes'][number];
type Instance = Project['instances'][number];

/** Refuses an axis whose numbers or tag make none. */
function axisFault(axis: Axis, others: readonly Axis[]): string | undefined {
  if (!TAG.test(axis.tag))
    return `${axis.tag || 'Nothing'} is no tag of an axis: four letters or figures, a letter first.`;
  if (others.some((o) => o.tag === axis.tag)) return `There is an axis ${axis.tag} already.`;
  if (!(axis.minimum <= axis.default && axis.default <= axis.maximum))
    return `The default of ${axis.name} lies between its minimum and its maximum.`;
  if (axis.minimum === axis.maximum) return `${axis.name} needs room between its minimum and its maximum.`;
  const { discrete = [] } = axis;
  if (discrete.length === 0) return undefined;
  if (new Set(discrete).size < Math.max(2, discrete.length))
    return `${axis.name} has two single values at least, each once.`;
  for (const end of [axis.minimum, axis.default, axis.maximum])
    if (!discrete.includes(end))
      return `The single values of ${axis.name} hold its ends and its default; ${end} is not among them.`;
  const beyond = discrete.find((v) => v < axis.minimum || v > axis.maximum);
  if (beyond !== undefined) return `${beyond} lies beyond the ends of ${axis.name}.`;
  return undefined;
}

/** Two masters that stand at one place on axes; undefined where all stand apart. */
function atOnePlace(project: Project, axes: Project['axes']): readonly [Master, Master] | undefined {
  const { masters } = project;
  for (const [i, m] of masters.entries())
    for (const o of masters.slice(0, i)) if (samePlace(axes, m.place, o.place)) return [o, m];
  return undefined;
}

export const addAxis = defineEdit(
  {
    name: 'addAxis',
    does: 'Adds an axis to the family',
    reach: 'all masters',
    args: z.object({
      tag: z.string(),
      name,
      minimum: value,
      default: value,
      maximum: value,
      discrete: singles.optional(),
    }),
  },
  (project, args) => {
    const axis: Axis = { ...args, map: [], hidden: false, labels: {} };
    if (project.axes.length >= MOST_AXES) return refused(`A family has at most ${MOST_AXES} axes.`);
    const fault = axisFault(axis, project.axes);
    if (fault) return refused(fault);
    return edited({ ...project, axes: [...project.axes, axis] }, `Added the axis ${axis.name}`);
  },
);

/** A named value along an axis, in user units. */
const stop = z.object({
  name,
  value,
  minimum: value.optional(),
  maximum: value.optional(),
  linked: value.optional(),
  elidable: z.boolean(),
  older: z.boolean(),
});

/** Why named values of an axis make no sense; undefined where they do. */
function stopsFault({ name: axis, stops = [] }: Axis): string | undefined {
  for (const [i, s] of stops.entries()) {
    if (stops.slice(0, i).some((o) => o.name === s.name)) return `${axis} has two stops named ${s.name}.`;
    if (stops.slice(0, i).some((o) => o.value === s.value)) return `${axis} has two stops at ${s.value}.`;
    const { minimum = s.value, maximum = s.value } = s;
    if (minimum > s.value || maximum < s.value)
      return `${s.name} lies within its own stretch, from ${minimum} to ${maximum}.`;
  }
  return undefined;
}

/** Changes an axis; masters and instances stay where they are. */
export const setAxis = defineEdit(
  {
    name: 'setAxis',
    does: 'Changes an axis of the family',
    reach: 'all masters',
    args: z.object({
      tag: z.string(),
      change: z.object({
        name: name.optional(),
        minimum: value.optional(),
        default: value.optional(),
        maximum: value.optional(),
        hidden: z.boolean().optional(),
        labels: z.record(z.string().max(40), z.string().max(200)).readonly().optional(),
        stops: z.array(stop).max(64).readonly().optional(),
        /** None: the axis runs through. */
        discrete: singles.optional(),
        map: z
          .array(z.tuple([value, value]).readonly())
          .max(64)
          .readonly()
          .optional(),
      }),
    }),
  },
  (project, { tag, change }) => {
    const axis = project.axes.find((x) => x.tag === tag);
    if (!axis) return refused(`There is no axis ${tag}.`);
    const { discrete, ...said }: Axis = {
      ...axis,
      ...Object.fromEntries(Object.entries(change).filter(([, v]) => v !== undefined)),
    };
    const next: Axis = { ...said, ...(discrete && discrete.length > 0 && { discrete }) };
    const fault = axisFault(
      next,
      project.axes.filter((x) => x !== axis),
    );
    const odd = fault ?? stopsFault(next);
    if (odd) return refused(odd);
    const rising = [...next.map].sort((p, q) => p[0] - q[0]);
    if (rising.some(([user], i) => i > 0 && user === rising[i - 1]![0]))
      return refused(`The map of ${next.name} has two design values for one.`);
    if (rising.some(([, own], i) => i > 0 && own < rising[i - 1]![1]))
      return refused(`The map of ${next.name} goes on upwards: no design value may be less than the one before.`);
    const axes = project.axes.map((x) => (x === axis ? next : x));
    return edited({ ...project, axes }, `Changed the axis ${next.name}`);
  },
);

/** The glyphs with other waypoints, those that have any. */
function withWaypoints(project: Project, change: (g: Glyph) => Glyph['waypoints']): Project['glyphs'] {
  const some = Object.entries(project.glyphs).filter(([, g]) => g.waypoints.length > 0);
  if (some.length === 0) return project.glyphs;
  return { ...project.glyphs, ...Object.fromEntries(some.map(([id, g]) => [id, { ...g, waypoints: change(g) }])) };
}

/** Takes an axis away: masters and instances lose their place on it. */
export const removeAxis = defineEdit(
  {
    name: 'removeAxis',
    does: 'Takes an axis away',
    reach: 'all masters',
    args: z.object({ tag: z.string() }),
  },
  (project, { tag }) => {
    const axis = project.axes.find((x) => x.tag === tag);
    if (!axis) return refused(`There is no axis ${tag}.`);
    const axes = project.axes.filter((x) => x !== axis);
    const same = atOnePlace(project, axes);
    if (same)
      return refused(
        `Without ${axis.name}, ${same[0].name} and ${same[1].name} would stand at one place; take one of them away first.`,
      );
    const without = <T extends { place: Place }>(list: readonly T[]): T[] =>
      list.map((x) => {
        const { [tag]: _, ...rest } = x.place;
        return { ...x, place: rest };
      });
    const over = Object.values(project.glyphs).find((g) => g.handovers.some((h) => h.axis === tag));
    if (over) return refused(`${over.name} gives way to another glyph along ${axis.name}; take that away first.`);
    const glyphs = withWaypoints(project, (g) => without(g.waypoints));
    for (const g of Object.values(glyphs))
      if (g.waypoints.some((w, i) => isTaken(axes, project.masters, g.waypoints.slice(0, i), w.place)))
        return refused(
          `Without ${axis.name}, a waypoint of ${g.name} would stand where another drawing stands; take it away first.`,
        );
    return edited(
      { ...project, axes, glyphs, masters: without(project.masters), instances: without(project.instances) },
      `Took the axis ${axis.name} away`,
    );
  },
);

function withoutHandovers(project: Project): Project {
  const some = Object.values(project.glyphs).filter((g) => g.handovers.length > 0);
  if (some.length === 0) return project;
  const glyphs = { ...project.glyphs, ...Object.fromEntries(some.map((g) => [g.id, { ...g, handovers: [] }])) };
  return { ...project, glyphs };
}

/** An id that no master has or had. */
export const nextMasterId = ({ masters, glyphs }: Project): MasterId => {
  const taken = new Set(masters.map((m) => m.id));
  // Drawings of a master that was taken away and may come back by undo are not met again.
  for (const g of Object.values(glyphs)) for (const id of Object.keys(g.drawings)) taken.add(id);
  let n = 1;
  while (taken.has(`m${n}`)) n++;
  return `m${n}`;
};

/** Axes that reach as far as a place. */
export const reaching = (axes: Project['axes'], at: Place): Axis[] =>
  axes.map((x) => {
    const user = toUser(x, wholePlace(axes, at)[x.tag]!);
    return { ...x, minimum: Math.min(x.minimum, user), maximum: Math.max(x.maximum, user) };
  });

/** Why a master of this name cannot be added at a place; undefined where it can. */
export function masterFault({ masters, axes }: Project, called: string, at: Place): string | undefined {
  if (masters.length >= MOST_MASTERS) return `A family has at most ${MOST_MASTERS} masters.`;
  if (axes.length === 0) return 'A second master needs an axis to stand on; add one first.';
  const there = masters.find((m) => samePlace(axes, m.place, at));
  if (there) return `${there.name} stands at ${placeInWords(axes, at)} already.`;
  return masters.some((m) => m.name === called) ? `There is a master ${called} already.` : undefined;
}

/**
 * Adds a master at a place: as a copy of another, or as what lies there between the masters, or beyond them in a straight line. Axes
 * grow to reach it.
 */
export const addMaster = defineEdit(
  {
    name: 'addMaster',
    does: 'Adds a master',
    reach: 'all masters',
    args: z.object({ name, place, copy: a.master.optional() }),
  },
  (project, { name: called, place: at, copy }) => {
    const { masters, axes } = project;
    const fault = masterFault(project, called, at);
    if (fault) return refused(fault);
    const id = nextMasterId(project);
    const model = copy === undefined ? undefined : masterThere(project, copy);
    // Each glyph’s own drawing, whatever it gives way to in text.
    const plain = withoutHandovers(project);
    const made = model ? undefined : instanceAt(plain, at, called, true);
    const from = made?.project ?? project;
    const fromId = model?.id ?? defaultMaster(project).id;
    const master: Master = {
      ...(model ?? from.masters[0]!),
      id,
      name: called,
      place: Object.fromEntries(axes.map((x) => [x.tag, wholePlace(axes, at)[x.tag]!])),
      lib: withoutOrigin((model ?? from.masters[0]!).lib),
    };
    const glyphs: Record<string, Glyph> = {};
    for (const [key, g] of Object.entries(project.glyphs))
      glyphs[key] = {
        ...g,
        drawings: { ...g.drawings, [id]: plainDrawing(drawingOf(from.glyphs[key]!, fromId)) },
        // Where the master stands it says what a waypoint said.
        waypoints: g.waypoints.filter((w) => !samePlace(axes, w.place, at)),
      };
    const stuck = made?.stuck ?? [];
    const said =
      stuck.length > 0
        ? `; ${plural(stuck.length, 'glyph')} whose masters do not agree ${stuck.length === 1 ? 'has' : 'have'} the default’s drawing`
        : '';
    return edited(
      { ...project, axes: reaching(axes, at), masters: [...masters, roundedMaster(master)], glyphs },
      `Added the master ${called}${model ? `, as a copy of ${model.name}` : ''}${said}`,
    );
  },
);

/** What a master remembers of the file it came from is not its copy’s. */
function withoutOrigin(lib: Master['lib']): Master['lib'] {
  if (!lib) return undefined;
  const { 'org.wendril.folder': _, ...rest } = lib;
  return rest;
}

const roundedMaster = (m: Master): Master => ({
  ...m,
  kerning: Object.fromEntries(Object.entries(m.kerning).map(([k, v]) => [k, Math.round(v)])),
  stems: m.stems.map((s) => ({ ...s, value: grid(s.value) })),
  zones: {
    ...m.zones,
    ...Object.fromEntries(
      (['baseline', 'xHeight', 'capHeight', 'ascender', 'descender'] as const).map((key) => [
        key,
        { ...m.zones[key], position: grid(m.zones[key].position), overshoot: grid(m.zones[key].overshoot) },
      ]),
    ),
  },
});

/** Takes a master away, with all that was drawn, kerned and measured in it. */
export const removeMaster = defineEdit(
  { name: 'removeMaster', does: 'Takes a master away', reach: 'all masters', args: z.object({ master: a.master }) },
  (project, { master: id }) => {
    const master = masterThere(project, id);
    if (project.masters.length === 1) return refused('A project keeps one master at least.');
    if (master.id === defaultMaster(project).id)
      return refused(
        `${master.name} is the default, which the others are seen from; make another one the default first.`,
      );
    const glyphs: Record<string, Glyph> = {};
    for (const [key, g] of Object.entries(project.glyphs)) {
      const { [id]: _, ...drawings } = g.drawings;
      const side = (list: Glyph['follows']['left']) => list.filter((f) => f.master !== id);
      const follows = { left: side(g.follows.left), right: side(g.follows.right) };
      glyphs[key] = { ...g, drawings, follows, takes: g.takes.filter((t) => t.master !== id) };
    }
    return edited(
      { ...project, glyphs, masters: project.masters.filter((m) => m.id !== id) },
      `Took the master ${master.name} away`,
    );
  },
);

export const moveMaster = defineEdit(
  {
    name: 'moveMaster',
    does: 'Moves a master on the axes',
    reach: 'one master',
    args: z.object({ master: a.master, place }),
  },
  (project, { master: id, place: at }) => {
    const master = masterThere(project, id);
    const { axes } = project;
    if (axes.length === 0) return refused('There is no axis to move a master on.');
    const next = wholePlace(axes, { ...master.place, ...at });
    const there = project.masters.find((m) => m.id !== id && samePlace(axes, m.place, next));
    if (there) return refused(`${there.name} stands at ${placeInWords(axes, next)} already.`);
    const met = Object.values(project.glyphs).find((g) => g.waypoints.some((w) => samePlace(axes, w.place, next)));
    if (met) return refused(`${met.name} has a waypoint at ${placeInWords(axes, next)}.`);
    const isDefault = defaultMaster(project).id === id && !samePlace(axes, next, {});
    if (isDefault)
      return refused(
        `${master.name} stands where the axes have their defaults; make another one the default first, or change the axes.`,
      );
    return edited(
      withMaster({ ...project, axes: reaching(axes, next) }, id, (m) => ({ ...m, place: next })),
      `Moved the master ${master.name} to ${placeInWords(axes, next)}`,
    );
  },
);

/** Makes a master the default: the axes have their defaults where it stands. */
export const makeDefault = defineEdit(
  {
    name: 'makeDefault',
    does: 'Makes a master the default',
    reach: 'all masters',
    args: z.object({ master: a.master }),
  },
  (project, { master: id }) => {
    const master = masterThere(project, id);
    if (defaultMaster(project).id === id) return refused(`${master.name} is the default already.`);
    const at = wholePlace(project.axes, master.place);
    // Places that are not said lie at the old defaults.
    const said = <T extends { place: Place }>(list: readonly T[]): T[] =>
      list.map((x) => ({ ...x, place: wholePlace(project.axes, x.place) }));
    const axes = project.axes.map((x) => ({ ...x, default: toUser(x, at[x.tag]!) }));
    return edited(
      {
        ...project,
        axes,
        masters: said(project.masters),
        instances: said(project.instances),
        glyphs: withWaypoints(project, (g) => said(g.waypoints)),
      },
      `Made ${master.name} the default`,
    );
  },
);

const instance = z.object({
  name,
  place,
  weightClass: z.number().int().min(1).max(1000).optional(),
  widthClass: z.number().int().min(1).max(9).optional(),
  /** Which of four linked styles it is; nothing where its name says so. */
  styleLink: z.enum(['', ...STYLE_LINKS]).optional(),
  /** Its file’s name without an ending; nothing where the rule holds. */
  fileName: z
    .string()
    .trim()
    .max(120)
    .regex(/^[^\\/:*?"<>|\p{Cc}]*$/u, 'no file can be called that')
    .optional(),
});

/** Adds instances; those whose names or places are taken are left out, and told. */
export const addInstances = defineEdit(
  {
    name: 'addInstances',
    does: 'Adds instances',
    reach: 'no master',
    args: z.object({ instances: z.array(instance).min(1).readonly() }),
  },
  (project, { instances }): Outcome => {
    const fresh = instances.filter(
      (i) => !project.instances.some((o) => o.name === i.name || samePlace(project.axes, o.place, i.place)),
    );
    if (fresh.length === 0) return refused('There are instances of these names or at these places already.');
    if (project.instances.length + fresh.length > MOST_INSTANCES)
      return refused(`A family has at most ${MOST_INSTANCES} instances.`);
    const left = instances.length - fresh.length;
    return edited(
      { ...project, instances: [...project.instances, ...fresh] },
      `Added ${plural(fresh.length, 'instance')}${left > 0 ? `; ${left} ${left === 1 ? 'was' : 'were'} there already` : ''}`,
    );
  },
);

export const setInstance = defineEdit(
  {
    name: 'setInstance',
    does: 'Changes an instance',
    reach: 'no master',
    args: z.object({ index: a.index, change: instance.partial() }),
  },
  (project, { index, change }) => {
    const own = project.instances[index];
    if (!own) return refused('That instance is no longer in the project.');
    // What is given empty is left to the rule again.
    const next: Instance = Object.fromEntries(
      Object.entries({ ...own, ...change }).filter(([, v]) => v !== undefined && v !== ''),
    ) as Instance;
    if (project.instances.some((o) => o !== own && o.name === next.name))
      return refused(`There is an instance ${next.name} already.`);
    return edited(
      { ...project, instances: project.instances.map((o) => (o === own ? next : o)) },
      `Changed the instance ${next.name}`,
    );
  },
);

export const removeInstance = defineEdit(
  { name: 'removeInstance', does: 'Takes an instance away', reach: 'no master', args: z.object({ index: a.index }) },
  (project, { index }) => {
    const own = project.instances[index];
    if (!own) return refused('That instance is no longer in the project.');
    return edited(
      { ...project, instances: project.instances.filter((o) => o !== own) },
      `Took the instance ${own.name} away`,
    );
  },
);
