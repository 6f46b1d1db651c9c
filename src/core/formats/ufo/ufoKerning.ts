import type { GlyphId, Group } from '../../project/model';
import { type PairSide, pairKey } from '../../project/pairs';
import type { Ufo } from './ufo';
import type { MasterSource } from './ufoFacts';

/** UFO 3 kerning groups by prefix; in UFO 2 a group is on the side on which kerning names it. */
export function kerningSide(name: string, ufo: Ufo): 'first' | 'second' | undefined {
  if (name.startsWith('public.kern1.')) return 'first';
  if (name.startsWith('public.kern2.')) return 'second';
  if (ufo.formatVersion === 3) return undefined;
  if (name in ufo.kerning) return 'first';
  return Object.values(ufo.kerning).some((row) => name in row) ? 'second' : undefined;
}

export const plainGroupName = (name: string) => name.replace(/^public\.kern[12]\./, '');

export function mergeGroups(sources: readonly MasterSource[], ids: ReadonlyMap<string, GlyphId>): Group[] {
  const groups = new Map<string, { id: string; side: 'first' | 'second'; name: string; members: GlyphId[] }>();
  const taken = { first: new Set<GlyphId>(), second: new Set<GlyphId>() };
  for (const { ufo } of sources) {
    for (const [name, members] of Object.entries(ufo.groups)) {
      const side = kerningSide(name, ufo);
      if (!side) continue;
      const key = `${side} ${plainGroupName(name)}`;
      const group = groups.get(key) ?? { id: `k${groups.size + 1}`, side, name: plainGroupName(name), members: [] };
      groups.set(key, group);
      for (const member of members) {
        const id = ids.get(member);
        if (id === undefined || taken[side].has(id)) continue;
        taken[side].add(id);
        group.members.push(id);
      }
    }
  }
  return [...groups.values()];
}

export const otherGroups = (ufo: Ufo): Record<string, string[]> =>
  Object.fromEntries(Object.entries(ufo.groups).filter(([name]) => kerningSide(name, ufo) === undefined));

export function kerningOf(
  ufo: Ufo,
  ids: ReadonlyMap<string, GlyphId>,
  groups: readonly Group[],
): Record<string, number> {
  const kerning: Record<string, number> = {};
  const side = (name: string, which: 'first' | 'second'): PairSide | undefined => {
    const group =
      name in ufo.groups ? groups.find((g) => g.side === which && g.name === plainGroupName(name)) : undefined;
    if (group) return { kind: 'group', id: group.id };
    const id = ids.get(name);
    return id === undefined ? undefined : { kind: 'glyph', id };
  };
  for (const [first, row] of Object.entries(ufo.kerning)) {
    const a = side(first, 'first');
    if (!a) continue;
    for (const [second, value] of Object.entries(row)) {
      const b = side(second, 'second');
      if (b) kerning[pairKey(a, b)] = value;
    }
  }
  return kerning;
}
