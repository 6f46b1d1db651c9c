import { attempt } from '../../base/result';
import { scriptsOf } from '../../features/scripts';
import {
  type KernInput,
  type KernPair,
  type KernSide,
  type KernValue,
  kernLookups,
  writeGpos,
} from '../../opentype/gpos';
import { kerningThrough } from '../../project/kerningLookup';
import type { GlyphId, MasterId, Project } from '../../project/model';
import { pairSides } from '../../project/pairs';
import { masterOf } from '../../project/queries';
import { type CastPlan, castOrder, characterMap } from '../plan';
import type { Varying } from '../varying';
import { isMark } from './marks';

/** `GPOS`: the kerning of the master alone, which skips some marks, for the scripts that the font serves. */
export const gposTable = (
  plan: Pick<CastPlan, 'characters'>,
  kern: KernInput<KernValue>,
  skipped: ReadonlySet<number>,
): Uint8Array | undefined =>
  writeGpos([{ tag: 'kern', lookups: kernLookups(kern, skipped) }], scriptsOf(plan.characters.keys()));

const units = (v: number): number => Math.max(-32768, Math.min(32767, Math.round(v)));

/** A pair’s value at the default and what it varies by; in a master without one it is what the pair comes to there. */
function varyingValue(project: Project, varies: Varying, key: string): KernValue {
  const { base, deltas } = varies.of(varies.masters.map((m) => units(kerningThrough(project, m, key))));
  const device = varies.device(deltas);
  return device ? { units: base, device } : base;
}

/** How many pairs a master's kerning is in the font, and the bytes that they cost there. */
export function kerningSize(project: Project, masterId: MasterId): { pairs: number; bytes: number } {
  const master = masterOf(project, masterId);
  const result = attempt(() => castOrder(project, masterId));
  if (!master || !result.ok) return { pairs: 0, bytes: 0 };
  const index = new Map(result.value.map((e, i) => [e.glyph.id, i]));
  const kern = kernInput({ project, master, index });
  const marks = result.value.flatMap((e, i) => (isMark(e) ? [i] : []));
  const skipped = new Set(project.settings.kerningStopsAtMarks ? [] : marks);
  const table = gposTable({ characters: characterMap(result.value) }, kern, skipped);
  return { pairs: kern.pairs.length, bytes: table?.length ?? 0 };
}

/** A master's kerning in glyph indices; groups keep the members that are cast, pairs that name nothing left go. */
export function kernInput({
  project,
  master,
  index,
  varies,
}: Pick<CastPlan, 'project' | 'master' | 'index' | 'varies'>): KernInput<KernValue> {
  const groups = {
    first: project.groups.filter((g) => g.side === 'first'),
    second: project.groups.filter((g) => g.side === 'second'),
  };
  const numbers = new Map([
    ...groups.first.map((g, i) => [g.id, i] as const),
    ...groups.second.map((g, i) => [g.id, i] as const),
  ]);
  const members = (list: readonly { members: readonly GlyphId[] }[]) =>
    list.map((g) => g.members.flatMap((id) => index.get(id) ?? []));
  const side = (s: { kind: 'glyph' | 'group'; id: string }): KernSide | undefined => {
    const n = s.kind === 'glyph' ? index.get(s.id) : numbers.get(s.id);
    return n === undefined ? undefined : s.kind === 'glyph' ? { glyph: n } : { group: n };
  };
  const pairs: KernPair<KernValue>[] = [];
  const keys = varies
    ? [...new Set(varies.masters.flatMap((m) => Object.keys(m.kerning)))]
    : Object.keys(master.kerning);
  for (const key of keys) {
    const sides = pairSides(key);
    const first = sides && side(sides[0]);
    const second = sides && side(sides[1]);
    if (!first || !second) continue;
    const value = varies ? varyingValue(project, varies, key) : units(master.kerning[key]!);
    if (value === 0 && 'group' in first && 'group' in second) continue;
    pairs.push({ first, second, value });
  }
  return { firstGroups: members(groups.first), secondGroups: members(groups.second), pairs };
}
