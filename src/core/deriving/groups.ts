import { addTo } from '../base/grouping';
import type { Group, Project } from '../project/model';
import { glyphNamed } from '../project/queries';

/**
 * Puts glyphs that were made from others, name from name, into groups like those of what they come from: beside H and I a group of
 * their small capitals, named by their suffix, or by `tail`. Those that are in a group of that side stay there.
 */
export function withGroupsLike(project: Project, from: ReadonlyMap<string, string>, tail: string): Project {
  const pairs = [...from].flatMap(([to, of]) => {
    const [a, b] = [glyphNamed(project, to), glyphNamed(project, of)];
    return a && b ? [{ made: a, of: b }] : [];
  });
  let groups: readonly Group[] = project.groups;
  let { nextId } = project;
  for (const side of ['first', 'second'] as const) {
    const grouped = new Set(groups.flatMap((g) => (g.side === side ? g.members : [])));
    const like = new Map<string, string[]>();
    for (const { made, of } of pairs) {
      const group = project.groups.find((g) => g.side === side && g.members.includes(of.id));
      if (!group || grouped.has(made.id)) continue;
      const name = `${group.name}${/\.[^.]+$/.exec(made.name)?.[0] ?? `.${tail}`}`;
      addTo(like, name, made.id);
    }
    for (const [name, members] of like) {
      const known = groups.find((g) => g.side === side && g.name === name);
      if (known) groups = groups.map((g) => (g === known ? { ...g, members: [...g.members, ...members] } : g));
      else if (members.length > 1) groups = [...groups, { id: `k${nextId++}`, side, name, members }];
    }
  }
  return groups === project.groups ? project : { ...project, groups, nextId };
}
