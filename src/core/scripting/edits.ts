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
