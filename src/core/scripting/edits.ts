import { z } from 'zod';
import * as a from '../project/arguments';
import { defineEdit, edited, refused } from '../project/edit';

/** So many scripts a project keeps, of so many characters each. */
const MOST_SCRIPTS = 500;
const MOST_TEXT = 200_000;

/** Keeps a script with the project: a new one, or one that is there under another name or with another text. */
export const keepScript = defineEdit(
  {
    name: 'keepScript',
    does: 'Keeps a script with the project',
    reach: 'no master',
    args: z.object({ id: a.text.optional(), name: z.string().max(120), text: z.string().max(MOST_TEXT) }),
  },
  (project, { id, name, text }) => {
    const called = name.trim();
    if (called === '') return refused('A script needs a name.');
    const others = project.scripts.filter((s) => s.id !== id);
    if (others.some((s) => s.name === called)) return refused(`There is a script “${called}” already.`);
    const known = project.scripts.find((s) => s.id === id);
    if (known?.name === called && known.text === text) return refused('The script is kept as it is.');
    if (known)
      return edited(
        { ...project, scripts: project.scripts.map((s) => (s === known ? { ...s, name: called, text } : s)) },
        `Kept the script “${called}”`,
      );
    if (project.scripts.length >= MOST_SCRIPTS) return refused(`A project keeps at most ${MOST_SCRIPTS} scripts.`);
    const fresh = { id: `s${project.nextId}`, name: called, text };
    return edited(
      { ...project, nextId: project.nextId + 1, scripts: [...project.scripts, fresh] },
      `Kept the script “${called}”`,
    );
  },
);

/** Gives a script a digit that runs it, from 1 to 9, or none; the script that had it loses it. */
export const setScriptKey = defineEdit(
  {
    name: 'setScriptKey',
    does: 'Gives a script a key',
    reach: 'no master',
    args: z.object({ id: a.text, key: z.number().int().min(1).max(9).optional() }),
  },
  (project, { id, key }) => {
    const known = project.scripts.find((s) => s.id === id);
    if (!known) return refused('That script is no longer there.');
    if (known.key === key) return refused(`“${known.name}” has that key already.`);
    const scripts = project.scripts.map((s) => {
      if (s.id !== id && (key === undefined || s.key !== key)) return s;
      const { key: _, ...rest } = s;
      return s.id === id && key !== undefined ? { ...rest, key } : rest;
    });
    return edited(
      { ...project, scripts },
      key === undefined ? `“${known.name}” has no key` : `“${known.name}” runs by the key ${key}`,
    );
  },
);

/** Takes a script out of the project. */
export const dropScript = defineEdit(
  {
    name: 'dropScript',
    does: 'Removes a script from the project',
    reach: 'no master',
    args: z.object({ id: a.text }),
  },
  (project, { id }) => {
    const known = project.scripts.find((s) => s.id === id);
    return known
      ? edited(
          { ...project, scripts: project.scripts.filter((s) => s !== known) },
          `Removed the script “${known.name}”`,
        )
      : refused('That script is no longer there.');
  },
);
