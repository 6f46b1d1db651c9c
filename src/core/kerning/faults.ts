import { kerningOf, membersOf } from '../project/kerningLookup';
import type { Group, Master, Project } from '../project/model';
import { pairSides } from '../project/pairs';
import { kerningUnits } from './units';

/** What is wrong with the kerning of a master, with the keys that a mend takes away, or the groups that it dissolves. */
export type KerningFault = { what: string; keys: readonly string[]; groups?: readonly Group['id'][] };

export function kerningFaults(
  project: Project,
  master: Master,
  least = kerningUnits(project, 'least'),
): KerningFault[] {
  // What is small or needless here and not in another master holds the place between them.
  const inEvery = (holds: (m: Master) => boolean) =>
    holds(master) && project.masters.every((m) => m.id === master.id || holds(m));
  const isSmall = (key: string) => inEvery((m) => Math.abs(m.kerning[key] ?? 0) < least);
  const small: string[] = [];
  const missing: string[] = [];
  const needless: string[] = [];
  for (const key of Object.keys(master.kerning)) {
    const sides = pairSides(key);
    if (!sides || sides.some((s) => membersOf(project, s).length === 0)) {
      missing.push(key);
      continue;
    }
    const [first, second] = sides;
    if (first.kind === 'glyph' && second.kind === 'glyph') {
      const under = (m: Master) => kerningOf(project, m, first.id, second.id, key)?.value;
      if (inEvery((m) => under(m) !== undefined && (m.kerning[key] ?? under(m)) === under(m))) needless.push(key);
      else if (inEvery((m) => under(m) === undefined) && isSmall(key)) small.push(key);
    } else if (isSmall(key) && first.kind === second.kind) small.push(key);
  }
  const lonely = project.groups.filter((g) => g.members.filter((m) => project.glyphs[m]).length < 2);
  const count = (n: number) => (n === 1 ? 'One pair' : `${n} pairs`);
  return [
    ...(needless.length > 0
      ? [
          {
            what: `${count(needless.length)} of glyphs have the value that their groups give them anyway`,
            keys: needless,
          },
        ]
      : []),
    ...(small.length > 0 ? [{ what: `${count(small.length)} of less than ${least} units`, keys: small }] : []),
    ...(missing.length > 0
      ? [{ what: `${count(missing.length)} of glyphs or groups that are no longer there`, keys: missing }]
      : []),
    ...(lonely.length > 0
      ? [
          {
            what: `${lonely.length === 1 ? 'One group has' : `${lonely.length} groups have`} one glyph or none: ${lonely.map((g) => g.name).join(', ')}`,
            keys: [],
            groups: lonely.map((g) => g.id),
          },
        ]
      : []),
  ];
}
