import type { GlyphId, Group, Master, Project } from './model';
import { type PairSide, pairKey, pairSides } from './pairs';

export type Side = Group['side'];

const indices = new WeakMap<Project['groups'], Record<Side, ReadonlyMap<GlyphId, Group>>>();

/** The group of each glyph by side; made once for a project's groups. */
export function groupsByGlyph(project: Project): Record<Side, ReadonlyMap<GlyphId, Group>> {
  let found = indices.get(project.groups);
  if (!found) {
    const of = (side: Side) =>
      new Map(project.groups.flatMap((g) => (g.side === side ? g.members.map((m) => [m, g] as const) : [])));
    found = { first: of('first'), second: of('second') };
    indices.set(project.groups, found);
  }
  return found;
}

const groupIndices = new WeakMap<Project['groups'], ReadonlyMap<string, Group>>();

/** A group by its id; the index is made once for a project's groups. */
function groupById({ groups }: Pick<Project, 'groups'>, id: string): Group | undefined {
  let found = groupIndices.get(groups);
  if (!found) {
    found = new Map(groups.map((g) => [g.id, g]));
    groupIndices.set(groups, found);
  }
  return found.get(id);
}

/** Where the kerning of two glyphs comes from: its key, its value, and which sides of it are groups. */
export type Found = { key: string; value: number; first: PairSide; second: PairSide };

/**
 * The kerning of two glyphs: glyph with glyph, then glyph with group, group with glyph, group with group; the first that has a
 * value, as it is cast. Undefined where none has. `except` is a key that is passed over.
 */
export function kerningOf(
  project: Project,
  master: Pick<Master, 'kerning'>,
  first: GlyphId,
  second: GlyphId,
  except?: string,
): Found | undefined {
  const groups = groupsByGlyph(project);
  const [a, b] = [groups.first.get(first), groups.second.get(second)];
  const own = [{ kind: 'glyph', id: first } as const, { kind: 'glyph', id: second } as const] as const;
  const ways: (readonly [PairSide, PairSide])[] = [own];
  if (b) ways.push([own[0], { kind: 'group', id: b.id }]);
  if (a) ways.push([{ kind: 'group', id: a.id }, own[1]]);
  if (a && b)
    ways.push([
      { kind: 'group', id: a.id },
      { kind: 'group', id: b.id },
    ]);
  for (const [x, y] of ways) {
    const key = pairKey(x, y);
    const value = master.kerning[key];
    if (value !== undefined && key !== except) return { key, value, first: x, second: y };
  }
  return undefined;
}

/**
 * What a master kerns two sides by: the value of their own pair, else the one that the groups of its glyphs have there, as
 * it is cast; 0 where there is none. What one master says of a glyph another may say of its group.
 */
export function kerningThrough(project: Project, master: Pick<Master, 'kerning'>, key: string): number {
  const own = master.kerning[key];
  const sides = own === undefined ? pairSides(key) : undefined;
  if (!sides) return own ?? 0;
  const groups = groupsByGlyph(project);
  const wider = (side: PairSide, of: Side): PairSide[] => {
    const group = side.kind === 'glyph' ? groups[of].get(side.id) : undefined;
    return group ? [side, { kind: 'group', id: group.id }] : [side];
  };
  for (const first of wider(sides[0], 'first')) {
    for (const second of wider(sides[1], 'second')) {
      const value = master.kerning[pairKey(first, second)];
      if (value !== undefined) return value;
    }
  }
  return 0;
}

/** The sides that a new value for two glyphs is put on: their groups where they have some, so that all members move. */
export function widestSides(project: Project, first: GlyphId, second: GlyphId): readonly [PairSide, PairSide] {
  const groups = groupsByGlyph(project);
  const [a, b] = [groups.first.get(first), groups.second.get(second)];
  return [
    a ? { kind: 'group', id: a.id } : { kind: 'glyph', id: first },
    b ? { kind: 'group', id: b.id } : { kind: 'glyph', id: second },
  ];
}

/** The sides that a change of two glyphs' kerning goes to: where it stands now, else their groups. */
export function sidesToChange(
  project: Project,
  master: Pick<Master, 'kerning'>,
  first: GlyphId,
  second: GlyphId,
): readonly [PairSide, PairSide] {
  const found = kerningOf(project, master, first, second);
  return found ? [found.first, found.second] : widestSides(project, first, second);
}

/** Glyphs that a side of a pair stands for. */
export const membersOf = (project: Project, side: PairSide): readonly GlyphId[] =>
  side.kind === 'glyph'
    ? project.glyphs[side.id]
      ? [side.id]
      : []
    : (groupById(project, side.id)?.members.filter((m) => project.glyphs[m]) ?? []);

/** What a side is called: a glyph's name, or a group's with a mark that it is one. */
export const sideName = (project: Project, side: PairSide): string =>
  side.kind === 'glyph'
    ? (project.glyphs[side.id]?.name ?? 'a missing glyph')
    : `${groupById(project, side.id)?.name ?? 'a missing group'} group`;

/** How many pairs of glyphs the values of a master serve: those of groups count with all their members. */
export const pairsServed = (project: Project, kerning: Master['kerning']): number =>
  Object.keys(kerning).reduce((sum, key) => {
    const [first, second] = pairSides(key) ?? [];
    return first && second ? sum + membersOf(project, first).length * membersOf(project, second).length : sum;
  }, 0);
