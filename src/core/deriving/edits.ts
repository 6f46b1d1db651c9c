import { z } from 'zod';
import * as a from '../project/arguments';
import { defineEdit, edited, plural, refused } from '../project/edit';
import { madeSet, termsOf } from './derive';
import { setOf } from './sets';

const percent = z.number().min(20).max(300);

/** Sets the numbers of a set; glyphs that it made follow when it is made again. */
export const setSetTerms = defineEdit(
  {
    name: 'setSetTerms',
    does: 'Sets height, width and weight of a set of glyphs made from others',
    reach: 'all masters',
    args: z.object({
      set: a.text,
      height: percent.optional(),
      width: percent.optional(),
      weight: percent.optional(),
      foot: z.number().min(-200).max(300).optional(),
    }),
  },
  (project, { set: key, ...change }) => {
    const set = setOf(key);
    if (!set) return refused(`There is no set ${key}.`);
    const now = termsOf(project, set);
    const { height = now.height, width = now.width, weight = now.weight, foot = now.foot } = change;
    const deriving = project.settings.deriving ?? {};
    const terms = { ...deriving.terms, [key]: { height, width, weight, foot } };
    return edited(
      { ...project, settings: { ...project.settings, deriving: { ...deriving, terms } } },
      `${set.title}: ${height} % high, ${width} % wide, weight ${weight} %`,
    );
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
