import { z } from 'zod';
import * as a from '../project/arguments';
import { defineEdit, edited, plural, refused } from '../project/edit';
import { groupsByGlyph, type Side } from '../project/kerningLookup';
import type { GlyphId, Group, Master, Project } from '../project/model';
import { addGroup, putInGroup } from './edits';
import { likenessOf, sideShape } from './likeness';
import { textGlyphs } from './text';

/** Glyphs that could share a group on a side: new members of a group there is, or a new group by the name of its first glyph. */
const groupProposal = z.object({
  side: a.groupSide,
  group: a.group.optional(),
  name: a.text,
  leader: a.glyph,
  members: z.array(z.object({ glyph: a.glyph, likeness: a.number })).readonly(),
});
export type GroupProposal = z.infer<typeof groupProposal>;

/** How alike sides have to be, from 0 to 1, unless told. */
export const ALIKE_ENOUGH = 0.95;

/**
 * Groups for glyphs that are in none on a side: each glyph goes to the group whose first glyph it is most alike, if it is alike
 * enough and of its kind, or begins a new one. Letters of the plain alphabet lead; the largest groups come first.
 */
export function proposeGroups(
  project: Project,
  master: Master,
  atLeast = ALIKE_ENOUGH,
  glyphs: readonly GlyphId[] = textGlyphs(project),
  progress: (done: number, total: number) => void = () => {},
): GroupProposal[] {
  const plainFirst = [...glyphs].sort((a, b) => Number(isPlain(project, b)) - Number(isPlain(project, a)));
  const out: GroupProposal[] = [];
  (['first', 'second'] as const).forEach((side, half) => {
    const grouped = groupsByGlyph(project)[side];
    const shapes = new Map(glyphs.map((id) => [id, sideShape(project, master, side, id)]));
    type Cluster = { group: Group | undefined; leader: GlyphId; members: { glyph: GlyphId; likeness: number }[] };
    const clusters: Cluster[] = project.groups.flatMap((group) => {
      const leader = group.members.find((m) => shapes.get(m));
      return group.side === side && leader ? [{ group, leader, members: [] }] : [];
    });
    plainFirst.forEach((id, i) => {
      if (i % 16 === 0) progress(half + i / plainFirst.length, 2);
      const shape = shapes.get(id);
      if (!shape || grouped.has(id)) return;
      let best: { cluster: Cluster; likeness: number } | undefined;
      for (const cluster of clusters) {
        if (kindOf(project, cluster.leader) !== kindOf(project, id)) continue;
        const likeness = likenessOf(shapes.get(cluster.leader)!, shape);
        if (likeness >= atLeast && likeness > (best?.likeness ?? 0)) best = { cluster, likeness };
      }
      if (best) best.cluster.members.push({ glyph: id, likeness: best.likeness });
      else clusters.push({ group: undefined, leader: id, members: [] });
    });
    for (const { group, leader, members } of clusters)
      if (members.length > 0)
        out.push({ side, group: group?.id, name: group?.name ?? project.glyphs[leader]!.name, leader, members });
  });
  return out.sort((a, b) => b.members.length - a.members.length);
}

/** Capitals, small letters, figures and the rest keep to themselves. */
function kindOf(project: Project, id: GlyphId): string {
  const character = String.fromCodePoint(project.glyphs[id]!.unicodes[0] ?? 0x20);
  return /\p{Lu}/u.test(character)
    ? 'capital'
    : /\p{L}/u.test(character)
      ? 'small'
      : /\p{N}/u.test(character)
        ? 'figure'
        : 'other';
}

const isPlain = (project: Project, id: GlyphId): boolean => (project.glyphs[id]!.unicodes[0] ?? 0x80) < 0x80;

/** Makes the groups of a proposal, or fills those there are, in one step. */
export const takeGroups = defineEdit(
  {
    name: 'takeGroups',
    does: 'Takes proposed groups over',
    reach: 'no master',
    args: z.object({ proposals: z.array(groupProposal).readonly() }),
  },
  (project, { proposals }) => {
    let current = project;
    for (const { side, group, name, leader, members } of proposals) {
      if (group === undefined) {
        const done = addGroup(current, {
          side,
          name: freeName(current, side, name),
          members: [leader, ...members.map((m) => m.glyph)],
        });
        if (!done.ok) return done;
        current = done.project;
        continue;
      }
      for (const { glyph } of members) {
        const done = putInGroup(current, { side, glyph, group });
        if (!done.ok) return done;
        current = done.project;
      }
    }
    return proposals.length === 0
      ? refused('There is nothing to take over.')
      : edited(current, `Made or filled ${plural(proposals.length, 'kerning group')}`);
  },
);

function freeName(project: Project, side: Side, name: string): string {
  const taken = new Set(project.groups.filter((g) => g.side === side).map((g) => g.name));
  let free = name;
  for (let n = 2; taken.has(free); n++) free = `${name}_${n}`;
  return free;
}
