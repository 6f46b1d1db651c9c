import { z } from 'zod';
import * as a from '../project/arguments';
import { defineEdit, edited, plural, refused } from '../project/edit';
import { readList } from './lists';

/** Edits of what a project aims at: languages, and lists of characters of its own. */

/** Languages that the project is made for, by their codes. */
export const aimAtLanguages = defineEdit(
  {
    name: 'aimAtLanguages',
    does: 'Says which languages the project is for',
    reach: 'no master',
    args: z.object({ languages: z.array(z.string().max(40)).max(1000).readonly() }),
  },
  (project, { languages }) => {
    const codes = [...new Set(languages)];
    return edited(
      { ...project, settings: { ...project.settings, languages: codes } },
      codes.length === 0 ? 'Aims at no language' : `Aims at ${plural(codes.length, 'language')}`,
    );
  },
);

const MOST_LISTS = 40;

/** Keeps a list of characters under a name, in place of what it held. */
export const keepList = defineEdit(
  {
    name: 'keepList',
    does: 'Keeps a list of characters',
    reach: 'no master',
    args: z.object({ name: a.text, text: z.string().max(400_000) }),
  },
  (project, { name: wanted, text }) => {
    const name = wanted.trim().slice(0, 80);
    if (name === '') return refused('A list needs a name.');
    const { codes, names } = readList(text);
    if (codes.length + names.length === 0) return refused('Nothing in that list can be read.');
    const lists = project.settings.lists ?? [];
    const there = lists.some((l) => l.name === name);
    if (!there && lists.length >= MOST_LISTS) return refused(`A project keeps at most ${MOST_LISTS} lists.`);
    const next = there ? lists.map((l) => (l.name === name ? { name, text } : l)) : [...lists, { name, text }];
    return edited(
      { ...project, settings: { ...project.settings, lists: next } },
      `${there ? 'Changed' : 'Kept'} the list ${name}, ${plural(codes.length + names.length, 'glyph')}`,
    );
  },
);

/** Takes a list away; its glyphs stay. */
export const dropList = defineEdit(
  { name: 'dropList', does: 'Takes a list of characters away', reach: 'no master', args: z.object({ name: a.text }) },
  (project, { name }) => {
    const lists = project.settings.lists ?? [];
    if (!lists.some((l) => l.name === name)) return refused(`There is no list ${name}.`);
    return edited(
      { ...project, settings: { ...project.settings, lists: lists.filter((l) => l.name !== name) } },
      `Took the list ${name} away; its glyphs stay`,
    );
  },
);
