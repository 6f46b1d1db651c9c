import type { CastingList } from '../project/castingLists';
import { type CastTerms, castTermsSchema, type Project } from '../project/model';
import { FORMATS, type Format } from './outputs';
import { type CastThing, thingsOf } from './things';

/** What a list comes to in a project: what is made, in which formats, and what it names that is gone. */
export type ListedThings = {
  formats: Format[];
  things: CastThing[];
  terms: CastTerms;
  /** Names of masters and instances that the project has no more. */
  gone: string[];
};

export function thingsOfList(project: Project, list: CastingList): ListedThings {
  const instances = list.instances.map((name) => ({ name, at: project.instances.findIndex((i) => i.name === name) }));
  const masters = list.masters.map((id) => ({ id, there: project.masters.some((m) => m.id === id) }));
  return {
    formats: FORMATS.filter((f) => list.formats.includes(f)),
    things: [
      ...masters.flatMap(({ id, there }) => (there ? [{ master: id }] : [])),
      ...instances.flatMap(({ at }) => (at < 0 ? [] : [{ instance: at }])),
      ...(list.variable ? thingsOf(project).variable : []),
    ],
    terms: castTermsSchema.parse(list),
    gone: [...masters.flatMap((m) => (m.there ? [] : [m.id])), ...instances.flatMap((i) => (i.at < 0 ? [i.name] : []))],
  };
}

/** A choice as a list of a name. */
export function listOfThings(
  project: Project,
  name: string,
  choice: { formats: readonly Format[]; things: readonly CastThing[]; terms: CastTerms },
): CastingList {
  return {
    name,
    formats: [...choice.formats],
    masters: choice.things.flatMap((t) => ('master' in t ? [t.master] : [])),
    instances: choice.things.flatMap((t) => ('instance' in t ? (project.instances[t.instance]?.name ?? []) : [])),
    variable: choice.things.some((t) => 'variable' in t),
    ...choice.terms,
  };
}

/** Lists that make sense in any project: styles are its instances, or its masters where it has none. */
export function readyLists(project: Project): CastingList[] {
  const instances = project.instances.map((i) => i.name);
  const masters = instances.length > 0 ? [] : project.masters.map((m) => m.id);
  const plain = { masters, instances, variable: false, keepOverlaps: false, blanks: false };
  const varies = thingsOf(project).variable.length > 0;
  const none = { ...plain, masters: [], instances: [] };
  return [
    { ...plain, name: 'For the desk', formats: ['otf'] },
    { ...plain, name: 'For the web', formats: ['woff2'] },
    ...(varies ? [{ ...none, name: 'As one font', formats: ['ttf', 'woff2'], variable: true }] : []),
    { ...plain, name: 'Everything', formats: ['otf', 'ttf', 'woff2'], variable: varies },
  ];
}

/** Every list of a project by name, its own before those that are ready. */
export const allLists = (project: Project): CastingList[] => {
  const own = project.settings.castingLists ?? [];
  return [...own, ...readyLists(project).filter((r) => !own.some((o) => o.name === r.name))];
};
