import { z } from 'zod';
import * as a from '../project/arguments';
import { defineEdit, edited, plural, refused } from '../project/edit';
import { addGlyphs } from '../project/glyphEdits';
import { composed, withAnchors } from './compose';

/** Adds characters and puts together those that can be, in every master; see {@link composed}. */
export const composeGlyphs = defineEdit(
  {
    name: 'composeGlyphs',
    does: 'Puts letters together from bases and marks',
    reach: 'all masters',
    args: z.object({
      codes: a.codePoints,
      /** Those that cannot be put together are added empty. */
      addRest: z.boolean().optional(),
    }),
  },
  (project, { codes, addRest }) => {
    const { project: next, built, made, notPossible } = composed(project, codes);
    const told = [
      ...(built.length > 0 ? [`Put ${plural(built.length, 'letter')} together`] : []),
      ...(made.length > 0
        ? [`made ${plural(made.length, 'mark or dotless letter', 'marks and dotless letters')}`]
        : []),
    ];
    if (addRest && notPossible.length > 0) {
      const requests = notPossible.map(({ code, name }) => ({ name, unicodes: [code] }));
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
