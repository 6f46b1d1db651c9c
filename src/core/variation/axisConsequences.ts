import { listed } from '../base/text';
import { plural } from '../project/edit';
import type { Project } from '../project/model';
import { designEnds, samePlace, toUser, wholePlace } from '../project/places';

type Axis = Project['axes'][number];
export type AxisChange = Partial<Pick<Axis, 'minimum' | 'default' | 'maximum' | 'map'>>;

const shown = (v: number): number => Math.round(v * 10) / 10;

/**
 * What a change of an axis does to masters and instances, a sentence each, before it is done: they stay where they were drawn, so it is
 * their numbers, the ends and the default that move.
 */
export function axisConsequences(project: Project, tag: string, change: AxisChange): string[] {
  const axis = project.axes.find((x) => x.tag === tag);
  if (!axis) return [];
  const next = { ...axis, ...change };
  const axes = project.axes.map((x) => (x === axis ? next : x));
  const out: string[] = [];
  const at = (place: Readonly<Record<string, number>>) => wholePlace(project.axes, place)[tag]!;
  const beyond = (x: Axis, value: number) => {
    const { least, most } = designEnds(x);
    return value < Math.min(least, most) - 1e-6 || value > Math.max(least, most) + 1e-6;
  };
  const left = (list: readonly { name: string; place: Readonly<Record<string, number>> }[]) =>
    list.filter((m) => beyond(next, at(m.place)) && !beyond(axis, at(m.place))).map((m) => m.name);
  const masters = left(project.masters);
  if (masters.length > 0)
    out.push(
      `${listed(masters)} would lie beyond its ends: ${masters.length === 1 ? 'it is' : 'they are'} reached no more.`,
    );
  const instances = left(project.instances);
  if (instances.length > 0) out.push(`${listed(instances)} would lie beyond its ends and look as the end does.`);
  const defaultOf = (list: Project['axes']) => project.masters.find((m) => samePlace(list, m.place, {}));
  const [before, after] = [defaultOf(project.axes), defaultOf(axes)];
  if (before !== after)
    out.push(
      after
        ? `The default would be ${after.name}${before ? `, not ${before.name}` : ''}.`
        : `No master would stand at the default; ${project.masters[0]!.name} would be taken for it.`,
    );
  const unsaid = project.masters.filter((m) => m.place[tag] === undefined);
  if (unsaid.length > 0 && designEnds(next).usual !== designEnds(axis).usual)
    out.push(`${listed(unsaid.map((m) => m.name))} would move along with the default.`);
  // An instance that stands at a master has its name, as a rule.
  const places = new Map([...project.instances, ...project.masters].map((m) => [m.name, m] as const));
  const renumbered = [...places.values()]
    .map((m) => ({ name: m.name, from: shown(toUser(axis, at(m.place))), to: shown(toUser(next, at(m.place))) }))
    .filter((m) => m.from !== m.to);
  const named = renumbered.slice(0, 4).map((m) => `${m.name} at ${m.to} (${m.from} now)`);
  if (renumbered.length > 0)
    out.push(
      `Fonts would have ${named.join(', ')}${renumbered.length > 4 ? `, and ${plural(renumbered.length - 4, 'other place')}` : ''}.`,
    );
  return out;
}
