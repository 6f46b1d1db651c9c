import { z } from 'zod';
import { cycleIn } from '../drawing/components';
import * as a from '../project/arguments';
import { defineEdit, edited, type Outcome, plural, refused } from '../project/edit';
import { glyphNameFault } from '../project/glyphNames';
import type { Glyph, Master, Project } from '../project/model';
import { glyphNamed, glyphThere } from '../project/queries';
import { derivedSet, madeItem, madeSet, noted, termsOf } from './derive';
import { ligatureOf, welded } from './ligatures';
import { type SetFacts, setOf } from './sets';
import { spacedSet } from './sides';
import { canChoose } from './ways';

const percent = z.number().min(20).max(300);

/** Sets the numbers of a set, or of one glyph of it; what it made follows when it is made again. */
export const setSetTerms = defineEdit(
  {
    name: 'setSetTerms',
    does: 'Sets height, width and weight of a set of glyphs made from others',
    reach: 'all masters',
    args: z.object({
      set: a.text,
      /** One glyph of the set by its name. */
      glyph: a.text.optional(),
      /** The glyph has those of its set again. */
      asSet: z.boolean().optional(),
      height: percent.optional(),
      width: percent.optional(),
      weight: percent.optional(),
      foot: z.number().min(-200).max(300).optional(),
    }),
  },
  (project, { set: key, glyph, asSet, ...change }) => {
    const set = setOf(key);
    if (!set) return refused(`There is no set ${key}.`);
    const now = termsOf(project, set);
    if (glyph !== undefined) return ownTerms(project, set, glyph, asSet ? undefined : change);
    const { height = now.height, width = now.width, weight = now.weight, foot = now.foot } = change;
    const deriving = project.settings.deriving ?? {};
    const terms = { ...deriving.terms, [key]: { height, width, weight, foot } };
    return edited(
      { ...project, settings: { ...project.settings, deriving: { ...deriving, terms } } },
      `${set.title}: ${height} % high, ${width} % wide, weight ${weight} %`,
    );
  },
);

type Own = NonNullable<NonNullable<Project['settings']['deriving']>['own']>[string];

/** Gives one glyph of a set numbers of its own, or those of the set again. */
function ownTerms(project: Project, set: SetFacts, name: string, change: Own | undefined): Outcome {
  if (!set.items(project).some((i) => i.name === name)) return refused(`${set.title} has no ${name}.`);
  const deriving = project.settings.deriving ?? {};
  const { [name]: was, ...others } = deriving.own ?? {};
  if (!change && !was) return refused(`${name} is as its set has it already.`);
  const given = Object.fromEntries(Object.entries(change ?? {}).filter(([, v]) => v !== undefined));
  const own = change ? { ...others, [name]: { ...was, ...given } } : others;
  return edited(
    { ...project, settings: { ...project.settings, deriving: { ...deriving, own } } },
    change ? `${name} goes its own way in ${set.title}` : `${name} is as its set has it`,
  );
}

/** Chooses what a glyph of a set comes from and how; drawn by hand it is left alone. */
export const setSetWay = defineEdit(
  {
    name: 'setSetWay',
    does: 'Chooses what a glyph of a set comes from, and how',
    reach: 'all masters',
    args: z.object({
      set: a.text,
      glyph: a.text,
      as: z.enum(['scaled', 'part', 'hand']).optional(),
      /** The glyph that it comes from, by its name. */
      of: a.text.optional(),
    }),
  },
  (project, { set: key, glyph: name, as, of }) => {
    const set = setOf(key);
    if (!set) return refused(`There is no set ${key}.`);
    const item = set.items(project).find((i) => i.name === name);
    if (!item) return refused(`${set.title} has no ${name}.`);
    if (!canChoose(item.way)) return refused(`${name} is what it holds: it has no other way.`);
    const source = of === undefined ? undefined : glyphNamed(project, of);
    if (of !== undefined && !source) return refused(`There is no glyph ${of}.`);
    const made = glyphNamed(project, name);
    const [{ id: master }, ...others] = project.masters as [Master, ...Master[]];
    const at = made && { glyph: made.id, master, also: others.map((m) => m.id) };
    if (source && at && cycleIn(project, at, source.id)) return refused(`${of} is built on ${name} itself.`);
    return ownTerms(project, set, name, { ...(as && { as }), ...(source && { of: source.name }) });
  },
);

/** Fits what a set made by its own controls. */
export const spaceSet = defineEdit(
  {
    name: 'spaceSet',
    does: 'Fits the sides of a set of glyphs by its own controls',
    reach: 'all masters',
    args: z.object({ set: a.text }),
  },
  (project, { set: key }) => {
    const set = setOf(key);
    if (!set) return refused(`There is no set ${key}.`);
    const items = derivedSet(project, set);
    const done = spacedSet(project, set, items);
    if (typeof done === 'string') return refused(done);
    if (done.count === 0) return refused('What this set made stands as its controls have it.');
    // Rows of what was fitted stand anew by the new widths.
    const rows = items.flatMap((i) => (i.state === 'made' && i.way.how === 'row' ? [i.name] : []));
    const whole = rows.length > 0 ? madeSet(noted(done.project, set, rows), set, rows).project : done.project;
    return edited(whole, `${set.title}: fitted ${plural(done.count, 'glyph')} by its own controls`);
  },
);

/** Makes the glyphs of a set that can be made, or those that are named, and brings up to date those that it made before. */
export const deriveSet = defineEdit(
  {
    name: 'deriveSet',
    does: 'Makes a set of glyphs from others: small capitals, superiors, fractions and more',
    reach: 'all masters',
    args: z.object({ set: a.text, names: a.texts.optional() }),
  },
  (project, { set: key, names }) => {
    const set = setOf(key);
    if (!set) return refused(`There is no set ${key}.`);
    const done = madeSet(project, set, names);
    return done.made.length + done.updated.length === 0
      ? refused(done.left[0] ? `Nothing could be made: ${done.left[0].why}` : 'All of this set is drawn already.')
      : edited(done.project, derivedSentence(set.title, done));
  },
);

/** Makes a ligature of letters as parts in every master, with carets and anchors: `fj` by characters, `f_f_j` by names. */
export const makeLigature = defineEdit(
  {
    name: 'makeLigature',
    does: 'Makes a ligature of letters',
    reach: 'all masters',
    args: z.object({ letters: a.text }),
  },
  (project, { letters }) => {
    const item = ligatureOf(project, letters);
    if (!item)
      return refused('A ligature is of two letters at least that are in the project: fj, or f_f_j by their names.');
    const fault = glyphNameFault(item.name);
    if (fault) return refused(fault);
    const made = madeItem(project, setOf('ligatures')!, item);
    return typeof made === 'string' ? refused(made) : edited(made, `Made the ligature ${item.name}`);
  },
);

/** Draws parts out and unites them where they touch, in every master; glyphs whose masters would not agree any more stay. */
export const weldParts = defineEdit(
  {
    name: 'weldParts',
    does: 'Welds the parts of glyphs to single outlines',
    reach: 'all masters',
    args: z.object({ glyphs: a.glyphs }),
  },
  (project, { glyphs: ids }) => {
    const glyphs: Record<string, Glyph> = { ...project.glyphs };
    const apart: string[] = [];
    let count = 0;
    for (const id of ids) {
      const glyph = glyphThere(project, id);
      if (!Object.values(glyph.drawings).some((d) => d.components.length > 0)) continue;
      const done = welded(project, glyph);
      if (done) glyphs[id] = done;
      if (done) count++;
      else apart.push(glyph.name);
    }
    if (count === 0)
      return refused(
        apart.length > 0
          ? `Welded, the masters of ${apart.join(', ')} would not agree: what touches in one does not in another.`
          : 'These glyphs have no parts to weld.',
      );
    const left = apart.length > 0 ? `; ${apart.join(', ')} of parts still, as their masters would not agree` : '';
    return edited({ ...project, glyphs }, `Welded ${plural(count, 'glyph')}${left}`);
  },
);

/** What making a set came to, in words. */
export function derivedSentence(
  title: string,
  { made, updated }: { made: readonly string[]; updated: readonly string[] },
): string {
  const parts = [
    ...(made.length > 0 ? [`made ${plural(made.length, 'glyph')}`] : []),
    ...(updated.length > 0 ? [`brought ${plural(updated.length, 'glyph')} up to date`] : []),
  ];
  return `${title}: ${parts.join(', ')}`;
}
