import { addTo } from '../../base/grouping';
import { kerningAsRules } from '../../features/movingPairs';
import { type MarkAnchor, readMarkAnchors } from '../../opentype/anchorsRead';
import type { KernInput } from '../../opentype/gpos';
import { type KernRead, readKerning } from '../../opentype/gposRead';
import { readKernTable } from '../../opentype/kern';
import type { DeltasAt } from '../../opentype/variations';
import type { Anchor, Group, Master } from '../../project/model';
import { type PairSide, pairKey } from '../../project/pairs';
import type { FontReading } from './reading';

/** An anchor with its places in the masters, where they differ. */
export type PlacedAnchor = Anchor & { varied?: readonly { x: number; y: number }[] };

export function kerningRead(r: FontReading, deltas: DeltasAt | undefined): KernRead {
  const gpos = r.font.tables.get('GPOS');
  const read: KernRead = gpos
    ? readKerning(gpos, r.numGlyphs, deltas, kerningAsRules(gpos, r.numGlyphs))
    : { firstGroups: [], secondGroups: [], pairs: [], aside: [], stopsAtMarks: false };
  const old = r.font.tables.get('kern');
  if (read.pairs.length > 0 || !old) return inRange(read, r.numGlyphs);
  const pairs = [...readKernTable(old)].flatMap(([first, row]) =>
    [...row].map(([second, value]) => ({ first: { glyph: first }, second: { glyph: second }, value })),
  );
  const found = pairs.filter((p) => p.value !== 0);
  if (found.length === 0) return read;
  return inRange({ ...read, pairs: found, stopsAtMarks: true }, r.numGlyphs);
}

function inRange(read: KernRead, numGlyphs: number): KernRead {
  const fits = (side: KernInput['pairs'][number]['first']) => !('glyph' in side) || side.glyph < numGlyphs;
  return { ...read, pairs: read.pairs.filter((p) => fits(p.first) && fits(p.second)) };
}

/** Groups named after their first member, those of the first side before those of the second. */
export function groupsOf(kerning: KernInput, ids: readonly string[], glyphNames: readonly string[]): Group[] {
  const side = (which: 'first' | 'second', sets: readonly (readonly number[])[]): Group[] =>
    sets.map((members, i) => ({
      id: `k${which === 'first' ? 1 : 2}-${i + 1}`,
      side: which,
      name: glyphNames[members[0] ?? 0] ?? `group${i + 1}`,
      members: members.map((g) => ids[g]!),
    }));
  return [...side('first', kerning.firstGroups), ...side('second', kerning.secondGroups)];
}

/** The kerning of one master: the pairs with their values at its place. */
export function masterKerning(
  kerning: KernRead,
  ids: readonly string[],
  groups: readonly Group[],
  index: number,
): Master['kerning'] {
  const side = (of: KernRead['pairs'][number]['first'], first: number): PairSide =>
    'glyph' in of ? { kind: 'glyph', id: ids[of.glyph]! } : { kind: 'group', id: groups[first + of.group]!.id };
  return Object.fromEntries(
    kerning.pairs.map((p) => [
      pairKey(side(p.first, 0), side(p.second, kerning.firstGroups.length)),
      Math.round(p.varied?.[index] ?? p.value),
    ]),
  );
}

export function anchorsRead(
  r: FontReading,
  ids: readonly string[],
  glyphNames: readonly string[],
  deltas: DeltasAt | undefined,
): Map<number, PlacedAnchor[]> {
  const gpos = r.font.tables.get('GPOS');
  const found = gpos ? readMarkAnchors(gpos, deltas).filter((a) => a.glyph < ids.length) : [];
  const kinds = kindNames(found, r.style.sxHeight || r.header.unitsPerEm / 2);
  const out = new Map<number, PlacedAnchor[]>();
  for (const a of found) {
    const kind = kinds.get(a.kind)!;
    const anchorName = a.mark ? `_${kind}` : a.part ? `${kind}_${a.part}` : kind;
    const list = out.get(a.glyph) ?? [];
    if (!list.some((o) => o.name === anchorName))
      list.push({
        name: anchorName,
        x: a.x,
        y: a.y,
        role: a.mark ? 'isMark' : 'takesMark',
        ...(a.varied && { varied: a.varied }),
      });
    out.set(a.glyph, list);
  }
  return glyphNames.length > 0 ? out : new Map();
}

/** Kinds of anchors get a name by where they mostly lie: above, below, or within letters. */
function kindNames(anchors: readonly MarkAnchor[], xHeight: number): Map<string, string> {
  const heights = new Map<string, number[]>();
  for (const a of anchors) if (!a.mark) addTo(heights, a.kind, a.y);
  const counts = new Map<string, number>();
  const out = new Map<string, string>();
  for (const kind of new Set(anchors.map((a) => a.kind))) {
    const ys = (heights.get(kind) ?? [0]).sort((a, b) => a - b);
    const middle = ys[ys.length >> 1]!;
    const word = middle >= xHeight * 0.7 ? 'top' : middle <= xHeight * 0.15 ? 'bottom' : 'center';
    const count = (counts.get(word) ?? 0) + 1;
    counts.set(word, count);
    out.set(kind, count === 1 ? word : `${word}${count}`);
  }
  return out;
}
