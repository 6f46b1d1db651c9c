import { z } from 'zod';
import * as a from './arguments';
import { defineEdit, edited, refused, withMaster } from './edit';
import type { Lib, Project } from './model';

/** Names of a font that follow by rule and can be set outright, by the facts of sources that hold them. */
export const STYLE_NAME_FACTS = [
  { key: 'openTypeNamePreferredFamilyName', title: 'Family', most: 200 },
  { key: 'openTypeNamePreferredSubfamilyName', title: 'Style', most: 200 },
  { key: 'styleMapFamilyName', title: 'Family of four', most: 200 },
  { key: 'postscriptFullName', title: 'Full name', most: 200 },
  { key: 'postscriptFontName', title: 'PostScript name', most: 63 },
  { key: 'openTypeNameVersion', title: 'Version', most: 200 },
  { key: 'openTypeNameUniqueID', title: 'Unique id', most: 200 },
] as const;
export type StyleNameFact = (typeof STYLE_NAME_FACTS)[number]['key'];
const KEYS = STYLE_NAME_FACTS.map((f) => f.key) as [StyleNameFact, ...StyleNameFact[]];

/** What is set outright of a font’s names. */
export const ownNames = (project: Project, of: { master: string } | { instance: number }): Lib =>
  ('master' in of ? project.masters.find((m) => m.id === of.master)?.info : project.instances[of.instance]?.names) ??
  {};

/** Sets a name of a master’s or an instance’s font outright, or leaves it to the rule where it is given empty. */
export const setStyleName = defineEdit(
  {
    name: 'setStyleName',
    does: 'Sets a name of a font, or leaves it to the rule',
    reach: 'one master',
    args: z.object({
      master: a.master.optional(),
      instance: a.index.optional(),
      fact: z.enum(KEYS),
      value: z.string().max(200),
    }),
  },
  (project, { master, instance, fact, value: given }) => {
    const { title, most } = STYLE_NAME_FACTS.find((f) => f.key === fact)!;
    const value = given.trim();
    if (/\p{Cc}/u.test(value)) return refused(`${title} cannot have breaks of lines or tabs.`);
    if (value.length > most) return refused(`${title} has at most ${most} characters.`);
    const changed = <T>(names: Readonly<Record<string, T>>): Record<string, T | string> => {
      const { [fact]: _, ...rest } = names;
      return value === '' ? rest : { ...rest, [fact]: value };
    };
    if (master !== undefined) {
      const own = project.masters.find((m) => m.id === master);
      if (!own) return refused('That master is not in the project.');
      return edited(
        withMaster(project, master, (m) => ({ ...m, info: changed(m.info ?? {}) })),
        value === '' ? `Left ${title.toLowerCase()} of ${own.name} to the rule` : `Set ${title.toLowerCase()} ${value}`,
      );
    }
    const own = instance === undefined ? undefined : project.instances[instance];
    if (!own) return refused('That instance is no longer in the project.');
    const { names: _, ...rest } = own;
    const names = changed(own.names ?? {});
    const next = Object.keys(names).length > 0 ? { ...rest, names } : rest;
    return edited(
      { ...project, instances: project.instances.map((o) => (o === own ? next : o)) },
      value === '' ? `Left ${title.toLowerCase()} of ${own.name} to the rule` : `Set ${title.toLowerCase()} ${value}`,
    );
  },
);
