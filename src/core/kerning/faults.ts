import type { Finding } from '../base/finding';
import { listed } from '../base/text';
import { kerningOf, membersOf } from '../project/kerningLookup';
import type { Master, Project } from '../project/model';
import { pairSides } from '../project/pairs';
import { dissolveGroups, removePairs } from './edits';
import { kerningUnits } from './units';

/** What is wrong with the kerning of a master, or needless in it, each with the edit that mends it. */
export function kerningFaults(project: Project, master: Master, least = kerningUnits(project, 'least')): Finding[] {
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
  // A group of one that has values is only a longer way to say them; one that has none says nothing.
  const used = new Set(
    project.masters.flatMap((m) =>
      Object.keys(m.kerning).flatMap((key) =>
        (pairSides(key) ?? []).flatMap((s) => (s.kind === 'group' ? [s.id] : [])),
      ),
    ),
  );
  const lonely = project.groups.filter((g) => !used.has(g.id) && g.members.filter((m) => project.glyphs[m]).length < 2);
  const count = (n: number) => (n === 1 ? 'One pair' : `${n} pairs`);
  const place = { master: master.name };
  const taken = (kind: string, keys: readonly string[], what: string): Finding[] => {
    if (keys.length === 0) return [];
    const title = `Take ${keys.length === 1 ? 'it' : 'them'} away`;
    const mend = { edit: removePairs.facts.name, args: { master: master.id, keys }, title };
    return [{ kind, title: 'Kerning', reason: `${count(keys.length)} ${what}.`, severity: 'attention', place, mend }];
  };
  const found = [
    ...taken('kerning/needless', needless, 'of glyphs have the value that their groups give them anyway'),
    ...taken('kerning/small', small, `of less than ${least} units`),
    ...taken('kerning/missing', missing, 'of glyphs or groups that are no longer there'),
  ];
  if (lonely.length === 0) return found;
  const groups = lonely.map((g) => g.id);
  return [
    ...found,
    {
      kind: 'kerning/lonely',
      title: 'Groups',
      reason: `${lonely.length === 1 ? 'One group has' : `${lonely.length} groups have`} one glyph or none, and no value: ${listed(lonely.map((g) => g.name))}.`,
      severity: 'attention',
      mend: {
        edit: dissolveGroups.facts.name,
        args: { groups },
        title: `Dissolve ${groups.length === 1 ? 'it' : 'them'}`,
        keeps: 'Their pairs go to their glyphs, so that nothing moves',
      },
    },
  ];
}
