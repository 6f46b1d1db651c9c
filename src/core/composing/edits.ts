import { z } from 'zod';
import * as a from '../project/arguments';
import { defineEdit, edited, plural, refused } from '../project/edit';
import { addGlyphs } from '../project/glyphEdits';
import { type Composed, composed, withAnchors } from './compose';

/** Adds characters, and glyphs by their names, and puts together those that can be, in every master; see {@link composed}. */
export const composeGlyphs = defineEdit(
  {
    name: 'composeGlyphs',
    does: 'Puts letters together from bases and marks',
    reach: 'all masters',
    args: z.object({
      codes: a.codePoints,
      /** Glyphs without a code point, by recipes of the project's own. */
      names: a.texts.optional(),
      /** Those that cannot be put together are added empty. */
      addRest: z.boolean().optional(),
    }),
  },
  (project, { codes, names = [], addRest }) => {
    const done = composed(project, [...codes, ...names]);
    const { project: next, notPossible } = done;
    const told = toldOf(done);
    if (addRest && notPossible.length > 0) {
      const requests = notPossible.map(({ code, name }) => ({ name, unicodes: code === undefined ? [] : [code] }));
      const added = addGlyphs(next, { requests });
      if (added.ok)
        return edited(
          added.project,
          sentence([...told, `added ${plural(requests.length, 'empty glyph')} to be drawn`]),
        );
    }
    if (told.length === 0)
      return refused(
        notPossible[0] ? `Nothing could be put together: ${notPossible[0].why}` : 'All of these are drawn already.',
      );
    return edited(next, sentence(told));
  },
);

/** What a build came to, in parts of a sentence. */
const toldOf = ({ built, made }: Composed, verb = 'Put'): string[] => [
  ...(built.length > 0 ? [`${verb} ${plural(built.length, 'letter')} together`] : []),
  ...(made.length > 0 ? [`made ${plural(made.length, 'mark or dotless letter', 'marks and dotless letters')}`] : []),
];

/** Makes glyphs anew by their recipes, in every master, in place of what is drawn; guides and pictures behind stay. */
export const rebuildGlyphs = defineEdit(
  {
    name: 'rebuildGlyphs',
    does: 'Makes glyphs anew by their recipes',
    reach: 'all masters',
    args: z.object({ glyphs: a.glyphs }),
  },
  (project, { glyphs }) => {
    const names = glyphs.flatMap((id) => project.glyphs[id]?.name ?? []);
    const done = composed(project, names, { again: true });
    const [first] = done.notPossible;
    if (done.built.length === 0) return refused(first?.why ?? 'There is nothing to make anew.');
    const left = first ? `; ${plural(done.notPossible.length, 'stays', 'stay')} as drawn: ${first.why}` : '';
    return edited(done.project, sentence(toldOf(done, 'Put')).replace(/ together/, ' together anew') + left);
  },
);

const sentence = (parts: readonly string[]): string => {
  const text = parts.join(', ');
  return text.charAt(0).toUpperCase() + text.slice(1);
};

/** Places the anchors that glyphs lack, in every master. */
export const placeAnchors = defineEdit(
  {
    name: 'placeAnchors',
    does: 'Places the anchors that glyphs lack',
    reach: 'all masters',
    args: z.object({ glyphs: a.glyphs }),
  },
  (project, { glyphs }) => {
    const { project: next, changed } = withAnchors(project, glyphs);
    return changed === 0
      ? refused('These glyphs have their anchors, or take none.')
      : edited(next, `Placed anchors in ${plural(changed, 'glyph')}`);
  },
);
