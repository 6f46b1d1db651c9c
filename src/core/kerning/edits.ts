import { z } from 'zod';
import * as a from '../project/arguments';
import { defineEdit, edited, type Outcome, plural, refused, withMaster } from '../project/edit';
import { groupsByGlyph, kerningOf, membersOf, sideName } from '../project/kerningLookup';
import type { Group, Master, MasterId, Project } from '../project/model';
import { type PairSide, pairKey, pairSides } from '../project/pairs';
import { masterThere } from '../project/queries';
import { kerningUnits } from './units';

const withKerning = (project: Project, master: Master, kerning: Master['kerning']): Project =>
  withMaster(project, master.id, (m) => ({ ...m, kerning }));

function inMaster(project: Project, id: MasterId, change: (master: Master) => Outcome): Outcome {
  return change(masterThere(project, id));
}

/** Gives a pair of sides a value in one master. */
export const setPair = defineEdit(
  {
    name: 'setPair',
    does: 'Kerns a pair',
    reach: 'one master',
    args: z.object({ master: a.master, first: a.pairSide, second: a.pairSide, value: a.number }),
  },
  (project, { master, first, second, value }) =>
    inMaster(project, master, (m) => {
      const most = kerningUnits(project, 'most');
      if (!Number.isFinite(value) || Math.abs(value) > most)
        return refused(`Kerning is from −${most} to ${most} units.`);
      if (membersOf(project, first).length === 0 || membersOf(project, second).length === 0)
        return refused('That glyph or group is no longer in the project.');
      const next = { ...m.kerning, [pairKey(first, second)]: Math.round(value) };
      return edited(
        withKerning(project, m, next),
        `Kerned ${sideName(project, first)}, ${sideName(project, second)} by ${Math.round(value)}, ${m.name}`,
      );
    }),
);

/** Takes values of pairs away in one master, by their keys. */
export const removePairs = defineEdit(
  {
    name: 'removePairs',
    does: 'Takes the kerning of pairs away',
    reach: 'one master',
    args: z.object({ master: a.master, keys: z.array(a.pairKeyText).readonly() }),
  },
  (project, { master, keys }) =>
    inMaster(project, master, (m) => {
      const gone = new Set(keys.filter((k) => m.kerning[k] !== undefined));
      if (gone.size === 0) return refused('Those pairs have no kerning.');
      return edited(
        withKerning(project, m, Object.fromEntries(Object.entries(m.kerning).filter(([k]) => !gone.has(k)))),
        `Took the kerning of ${plural(gone.size, 'pair')} away, ${m.name}`,
      );
    }),
);

/** Many values at once: what a proposal comes to. */
export const setPairs = defineEdit(
  {
    name: 'setPairs',
    does: 'Kerns many pairs',
    reach: 'one master',
    args: z.object({
      master: a.master,
      pairs: z.array(z.object({ first: a.pairSide, second: a.pairSide, value: a.number })).readonly(),
    }),
  },
  (project, { master, pairs }) =>
    inMaster(project, master, (m) => {
      if (pairs.length === 0) return refused('There is nothing to take over.');
      const next = { ...m.kerning };
      for (const { first, second, value } of pairs) next[pairKey(first, second)] = Math.round(value);
      return edited(withKerning(project, m, next), `Kerned ${plural(pairs.length, 'pair')}, ${m.name}`);
    }),
);

/** Lets one pair of glyphs differ from its groups: its present value becomes its own. */
export const makeException = defineEdit(
  {
    name: 'makeException',
    does: 'Gives a pair a value beside its groups’',
    reach: 'one master',
    args: z.object({ master: a.master, first: a.glyph, second: a.glyph, value: a.number.optional() }),
  },
  (project, { master, first, second, value }) =>
    inMaster(project, master, (m) => {
      const found = kerningOf(project, m, first, second);
      if (found && found.first.kind === 'glyph' && found.second.kind === 'glyph' && value === undefined)
        return refused('These two have a value of their own already.');
      return setPair(project, {
        master,
        first: { kind: 'glyph', id: first },
        second: { kind: 'glyph', id: second },
        value: value ?? found?.value ?? 0,
      });
    }),
);

const withGroups = (project: Project, groups: readonly Group[]): Project => ({ ...project, groups });

/** Makes a group of some glyphs on a side; they leave the groups they were in. */
export const addGroup = defineEdit(
  {
    name: 'addGroup',
    does: 'Makes a kerning group',
    reach: 'no master',
    args: z.object({ side: a.groupSide, name: a.text, members: a.glyphs }),
  },
  (project, { side, name, members }) => {
    const typed = name.trim().replace(/\s+/g, '_');
    if (typed === '') return refused('A group has a name.');
    if (project.groups.some((g) => g.side === side && g.name === typed))
      return refused(`There is already a ${side} group named ${typed}.`);
    const own = new Set(members);
    const rest = project.groups.map((g) =>
      g.side === side && g.members.some((m) => own.has(m))
        ? { ...g, members: g.members.filter((m) => !own.has(m)) }
        : g,
    );
    const group: Group = { id: `k${project.nextId}`, side, name: typed, members: [...own] };
    return edited(
      { ...withGroups(project, [...rest, group]), nextId: project.nextId + 1 },
      `Made the ${side} group ${typed}`,
    );
  },
);

/** Puts a glyph into a group, out of any other on that side, or out of all with no group. */
export const putInGroup = defineEdit(
  {
    name: 'putInGroup',
    does: 'Puts a glyph into a group, or out of one',
    reach: 'no master',
    args: z.object({ side: a.groupSide, glyph: a.glyph, group: a.group.optional() }),
  },
  (project, { side, glyph, group }) => {
    const target = project.groups.find((g) => g.id === group);
    if (group !== undefined && (!target || target.side !== side)) return refused('That group is no longer there.');
    if (target?.members.includes(glyph)) return refused(`${project.glyphs[glyph]?.name} is in that group already.`);
    const before = project.groups.find((g) => g.side === side && g.members.includes(glyph));
    if (!target && !before) return refused(`${project.glyphs[glyph]?.name} is in no ${side} group.`);
    const groups = project.groups.map((g) => {
      if (g === before) return { ...g, members: g.members.filter((m) => m !== glyph) };
      return g === target ? { ...g, members: [...g.members, glyph] } : g;
    });
    const name = project.glyphs[glyph]?.name;
    return edited(
      withGroups(project, groups),
      target
        ? `Put ${name} into the ${side} group ${target.name}`
        : `Took ${name} out of the ${side} group ${before!.name}`,
    );
  },
);

/** Dissolves a group; its pairs go to its members one by one, so that nothing moves. */
export const dissolveGroup = defineEdit(
  {
    name: 'dissolveGroup',
    does: 'Dissolves a kerning group, its pairs kept',
    reach: 'all masters',
    args: z.object({ group: a.group }),
  },
  (project, { group: id }) => {
    const group = project.groups.find((g) => g.id === id);
    if (!group) return refused('That group is no longer there.');
    const masters = project.masters.map((m) => {
      const kerning: Record<string, number> = {};
      // Pairs of the group first, so that what a member has of its own stands.
      const entries = Object.entries(m.kerning).map(([key, value]) => ({ key, value, sides: pairSides(key) }));
      const ofGroup = ({ sides }: (typeof entries)[number]) => sides?.some((s) => s.kind === 'group' && s.id === id);
      for (const { sides, value } of entries.filter(ofGroup)) {
        const spread = (s: PairSide): PairSide[] =>
          s.kind === 'group' && s.id === id ? group.members.map((m) => ({ kind: 'glyph', id: m })) : [s];
        for (const a of spread(sides![0])) {
          for (const b of spread(sides![1])) {
            // What a member has with the other's whole group came before what its group had with one glyph, and still does.
            const other =
              sides![0].kind === 'group' && b.kind === 'glyph' && a.kind === 'glyph'
                ? groupsByGlyph(project).second.get(b.id)
                : undefined;
            if (!other || m.kerning[pairKey(a, { kind: 'group', id: other.id })] === undefined)
              kerning[pairKey(a, b)] = value;
          }
        }
      }
      for (const { key, value, sides } of entries) if (!ofGroup({ key, value, sides })) kerning[key] = value;
      return { ...m, kerning };
    });
    return edited(
      { ...project, masters, groups: project.groups.filter((g) => g !== group) },
      `Dissolved the ${group.side} group ${group.name}`,
    );
  },
);

/** Dissolves several groups in one step. */
export const dissolveGroups = defineEdit(
  {
    name: 'dissolveGroups',
    does: 'Dissolves kerning groups, their pairs kept',
    reach: 'all masters',
    args: z.object({ groups: z.array(a.group).readonly() }),
  },
  (project, { groups }) => {
    let current = project;
    for (const group of groups) {
      const done = dissolveGroup(current, { group });
      if (!done.ok) return done;
      current = done.project;
    }
    return groups.length === 0
      ? refused('There is no group to dissolve.')
      : edited(current, `Dissolved ${plural(groups.length, 'kerning group')}`);
  },
);

const LEFT = 'org.wendril.kerning.left';

/** Pairs that were looked at and left for good, by their keys. */
export const pairsLeft = (project: Pick<Project, 'lib'>): ReadonlySet<string> => {
  const list = project.lib[LEFT];
  return new Set(Array.isArray(list) ? list.filter((k): k is string => typeof k === 'string') : []);
};

/** Leaves a pair for good, or takes it up again. */
export const leavePair = defineEdit(
  {
    name: 'leavePair',
    does: 'Leaves a pair for good, or takes it up again',
    reach: 'no master',
    args: z.object({ key: a.pairKeyText, leave: z.boolean() }),
  },
  (project, { key, leave }) => {
    const left = new Set(pairsLeft(project));
    if (left.has(key) === leave)
      return refused(leave ? 'That pair is left for good already.' : 'That pair is not left.');
    if (leave) left.add(key);
    else left.delete(key);
    return edited(
      { ...project, lib: { ...project.lib, [LEFT]: [...left] } },
      leave ? 'Left a pair for good' : 'Took a pair up again',
    );
  },
);

/** Most lines of a word list that are kept. */
const MOST_LINES = 5000;

/** The words and pairs that are stepped through. */
export const setWordList = defineEdit(
  { name: 'setWordList', does: 'Takes a list of words', reach: 'no master', args: z.object({ lines: a.texts }) },
  (project, { lines }) =>
    lines.length === 0
      ? refused('There are no words in that list.')
      : edited(
          { ...project, texts: { ...project.texts, pairs: lines.slice(0, MOST_LINES).map((l) => l.slice(0, 200)) } },
          `Took a list of ${plural(Math.min(lines.length, MOST_LINES), 'line')}`,
        ),
);
