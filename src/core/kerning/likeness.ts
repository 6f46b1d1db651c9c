import { type FitZone, zoneOf } from '../fitting/optical';
import { lineAt, type Profile, profileOf } from '../fitting/profile';
import { groupsByGlyph, type Side } from '../project/kerningLookup';
import type { GlyphId, Master, Project } from '../project/model';
import { drawingOf, isEmptyDrawing } from '../project/queries';

/** How deep a side is looked into, as a share of the em: what lies farther in does not show beside a neighbour. */
const DEEPEST = 0.1;

/** The side of a first glyph that meets a second one is its right, and the other way round. */
const edgeOf = (profile: Profile, side: Side): Float64Array => (side === 'first' ? profile.right : profile.left);

/** A side of a glyph as it is compared with others: its profile and the zone it is judged in. */
export type SideShape = {
  profile: Profile;
  edge: Float64Array;
  outward: 1 | -1;
  zone: FitZone;
  deepest: number;
  highest: number;
};

/** The side of a glyph that is met by a neighbour; undefined for one that is not drawn. */
export function sideShape(project: Project, master: Master, side: Side, id: GlyphId): SideShape | undefined {
  const glyph = project.glyphs[id];
  if (!glyph || isEmptyDrawing(drawingOf(glyph, master.id))) return undefined;
  const profile = profileOf(project, id, master.id);
  const edge = edgeOf(profile, side);
  const highest = edge.findLastIndex((x) => !Number.isNaN(x));
  return {
    profile,
    edge,
    outward: side === 'first' ? 1 : -1,
    zone: zoneOf(project, glyph, master),
    deepest: DEEPEST * project.unitsPerEm,
    highest,
  };
}

/** How alike two sides are, 0 to 1: see {@link likeness}. */
export function likenessOf(a: SideShape, b: SideShape): number {
  const from = lineAt(a.profile, Math.min(a.zone.bottom, b.zone.bottom));
  // Ascenders and accents count: the stem of b, or the dots of ï, meet what n and i do not.
  const to = Math.max(lineAt(a.profile, Math.max(a.zone.top, b.zone.top)), a.highest, b.highest);
  if (to < from) return 0;
  const outermost = ({ edge, outward }: SideShape) => {
    let most = -Infinity;
    for (let i = from; i <= to; i++) if (outward * edge[i]! > most) most = outward * edge[i]!;
    return most;
  };
  const [x, y] = [outermost(a), outermost(b)];
  let sum = 0;
  for (let i = from; i <= to; i++) {
    const p = Number.isNaN(a.edge[i]!) ? a.deepest : Math.min(a.deepest, x - a.outward * a.edge[i]!);
    const q = Number.isNaN(b.edge[i]!) ? b.deepest : Math.min(b.deepest, y - b.outward * b.edge[i]!);
    sum += Math.abs(p - q);
  }
  return Math.max(0, 1 - sum / (to - from + 1) / a.deepest);
}

/**
 * How alike two glyphs are on a side from the baseline up, 0 to 1: one less the mean difference of their depths as a share of the depth looked into.
 * 1 for the same shape wherever it stands; 0 as well for glyphs of which one is not drawn.
 */
export function likeness(project: Project, master: Master, side: Side, a: GlyphId, b: GlyphId): number {
  const [x, y] = [sideShape(project, master, side, a), sideShape(project, master, side, b)];
  return x && y ? likenessOf(x, y) : 0;
}

/** Glyphs that are as alike to one on a side as wanted, the most alike first. */
export const alike = (
  project: Project,
  master: Master,
  side: Side,
  glyph: GlyphId,
  atLeast = 0.93,
): { glyph: GlyphId; likeness: number }[] =>
  project.glyphOrder
    .filter(
      (id) =>
        id !== glyph && project.glyphs[id]!.unicodes.some((c) => /[\p{L}\p{N}\p{P}]/u.test(String.fromCodePoint(c))),
    )
    .map((id) => ({ glyph: id, likeness: likeness(project, master, side, glyph, id) }))
    .filter((l) => l.likeness >= atLeast)
    .sort((a, b) => b.likeness - a.likeness);

/** How many glyphs are offered for a group at once. */
const OFFERED = 6;

/** Glyphs that look alike on a side of one that is in a group and are not in that group yet, the most alike first; none for one in no group. */
export function offeredFor(
  project: Project,
  master: Master,
  side: Side,
  glyph: GlyphId,
): { glyph: GlyphId; likeness: number }[] {
  const groups = groupsByGlyph(project)[side];
  const group = groups.get(glyph);
  if (!group) return [];
  return alike(project, master, side, glyph)
    .filter((o) => groups.get(o.glyph) !== group)
    .slice(0, OFFERED);
}
