import { isEmptyBox } from '../geometry/curve';
import type { Glyph, GlyphId, Master, MasterId, Project } from '../project/model';
import { drawingBounds, drawingsOf } from '../project/outline';
import { drawingOf, glyphNamed } from '../project/queries';
import { controlsFor } from './lines';
import { lineAt, type Profile, profileOf } from './profile';

export type SideName = 'left' | 'right';

/** Depth, as a share of the em, beyond which white in a side no longer counts: the eye looks no farther into c or under T. */
export const DEEPEST = 0.13;

/** The zone that a glyph's spacing is judged in, in font units. */
export type FitZone = { bottom: number; top: number };

/** Baseline to x-height for lower case, to cap height for what stands as high, the glyph's own height for what is low or high alone. */
export function zoneOf(project: Project, glyph: Glyph, master: Master): FitZone {
  const [straight] = controlsFor(glyph);
  const top = straight === 'n' ? master.zones.xHeight.position : master.zones.capHeight.position;
  const box = drawingBounds(drawingOf(glyph, master.id), drawingsOf(project, master.id));
  const small = glyph.name.endsWith('.sc') ? master.zones.xHeight.position : top;
  if (isEmptyBox(box)) return { bottom: 0, top: small };
  const inZone = Math.min(box.yMax, small) - Math.max(box.yMin, 0);
  // Punctuation and marks that fill little of the zone are judged where they are.
  return inZone < small * 0.6 ? { bottom: box.yMin, top: box.yMax } : { bottom: 0, top: small };
}

/** What counts of ink that stands out beyond the zone's, as the tail of j does under its neighbour, or the hook of f over it. */
const OVERHANG = { below: 1, above: 0.85 };

/**
 * Mean white between a side's outermost ink and its outline over a zone, in font units: 0 for a straight stem. Ink that stands
 * out below or above the zone counts as white that the neighbour may come under.
 */
export function openness(profile: Profile, side: SideName, { bottom, top }: FitZone, unitsPerEm: number): { open: number; overhang: number } {
  const edge = profile[side];
  const [from, to] = [lineAt(profile, bottom + profile.step / 2), lineAt(profile, top - profile.step / 2)];
  const outward = side === 'left' ? -1 : 1;
  const reach = (first: number, last: number) => {
    let most = -Infinity;
    for (let i = Math.max(0, first); i <= Math.min(edge.length - 1, last); i++) if (!Number.isNaN(edge[i]!)) most = Math.max(most, outward * edge[i]!);
    return most;
  };
  const [inside, below, above] = [reach(from, to), reach(0, from - 1), reach(to + 1, edge.length - 1)];
  if (inside === -Infinity) return { open: 0, overhang: 0 };
  const deepest = DEEPEST * unitsPerEm;
  let sum = 0;
  for (let i = from; i <= to; i++) sum += Math.min(deepest, Number.isNaN(edge[i]!) ? deepest : inside - outward * edge[i]!);
  const outer = Math.max(inside, below, above);
  const overhang = (outer - inside) * (below >= above ? OVERHANG.below : OVERHANG.above);
  return { open: sum / Math.max(1, to - from + 1), overhang };
}

/** What one kind of glyph is spaced by: the white a side shall have, and how much of its openness counts as such. */
export type Measure = { target: number; weight: number };

/** The measure that makes a straight and a round control as they are set: both sides of n and o, or of H and O. */
export function measureFrom(project: Project, master: Master, straight: GlyphId, round: GlyphId): Measure | undefined {
  const side = (id: GlyphId) => {
    const glyph = project.glyphs[id]!;
    const profile = profileOf(project, id, master.id);
    const box = drawingBounds(drawingOf(glyph, master.id), drawingsOf(project, master.id));
    if (isEmptyBox(box)) return undefined;
    const zone = zoneOf(project, glyph, master);
    const open = (['left', 'right'] as const).map((s) => openness(profile, s, zone, project.unitsPerEm).open);
    return { bearing: (box.xMin + profile.advance - box.xMax) / 2, open: (open[0]! + open[1]!) / 2 };
  };
  const [s, r] = [side(straight), side(round)];
  if (!s || !r) return undefined;
  const weight = Math.abs(r.open - s.open) < 1 ? 1 : Math.max(0.2, Math.min(1.6, (s.bearing - r.bearing) / (r.open - s.open)));
  return { target: s.bearing + weight * s.open, weight };
}

/** Left and right side bearings that a glyph would have by a measure, in whole units; undefined for one that is not drawn. */
export function proposedSides(project: Project, glyph: Glyph, master: MasterId, measure: Measure): { left: number; right: number } | undefined {
  const m = project.masters.find((x) => x.id === master)!;
  const box = drawingBounds(drawingOf(glyph, master), drawingsOf(project, master));
  if (isEmptyBox(box)) return undefined;
  const bearing = (side: SideName) => Math.round(measure.target - whiteOnSide(project, glyph, m, side, 0, measure));
  return { left: bearing('left'), right: bearing('right') };
}

/** The white that a glyph has on a side by a measure: its side bearing, what stands out over it, and what its openness counts. */
export function whiteOnSide(project: Project, glyph: Glyph, master: Master, side: SideName, bearing: number, measure: Measure): number {
  const { open, overhang } = openness(profileOf(project, glyph.id, master.id), side, zoneOf(project, glyph, master), project.unitsPerEm);
  return bearing + overhang + measure.weight * open;
}

/** The measure for a glyph's kind from the controls of its kind; those of the capitals for figures without their own. */
export function measureFor(project: Project, glyph: Glyph, master: Master): Measure | undefined {
  const [straight, round] = controlsFor(glyph);
  const names = straight === '1' ? ['H', 'O'] : [straight, round];
  const [s, r] = names.map((n) => glyphNamed(project, n!)?.id);
  return s && r ? measureFrom(project, master, s, r) : undefined;
}
