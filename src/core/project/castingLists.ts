import { z } from 'zod';
import { defineEdit, edited, refused } from './edit';
import { type Project, settingsSchema } from './model';

/** Lists of what is cast, kept with the project under names of its own. */
export type CastingList = NonNullable<Project['settings']['castingLists']>[number];

const listSchema = settingsSchema.shape.castingLists.unwrap().unwrap().element;
const MOST = 40;

export const keepCastingList = defineEdit(
  {
    name: 'keepCastingList',
    does: 'Keeps what is cast as a list of that name',
    reach: 'no master',
    args: z.object({ list: listSchema }),
  },
  (project, { list }) => {
    const name = list.name.trim();
    if (name === '') return refused('A casting list needs a name.');
    if (list.formats.length === 0) return refused('A casting list needs a format.');
    if (list.masters.length + list.instances.length === 0 && !list.variable)
      return refused('A casting list needs a master, an instance or the whole family.');
    const before = project.settings.castingLists ?? [];
    const at = before.findIndex((l) => l.name === name);
    if (at < 0 && before.length >= MOST) return refused(`A project keeps at most ${MOST} casting lists.`);
    const named = { ...list, name };
    const castingLists = at < 0 ? [...before, named] : before.with(at, named);
    return edited({ ...project, settings: { ...project.settings, castingLists } }, `Kept the casting list ${name}`);
  },
);

export const dropCastingList = defineEdit(
  {
    name: 'dropCastingList',
    does: 'Lets a casting list go',
    reach: 'no master',
    args: z.object({ name: z.string() }),
  },
  (project, { name }) => {
    const before = project.settings.castingLists ?? [];
    const castingLists = before.filter((l) => l.name !== name);
    if (castingLists.length === before.length) return refused(`There is no casting list ${name}.`);
    return edited({ ...project, settings: { ...project.settings, castingLists } }, `Let the casting list ${name} go`);
  },
);
