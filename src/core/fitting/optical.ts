import { isEmptyBox } from '../geometry/curve';
import type { Glyph, GlyphId, Master, MasterId, Project } from '../project/model';
import { drawingBounds, drawingIn, drawingsOf } from '../project/outline';
import { glyphForCodePoint } from '../project/queries';
import { controlsFor, controlsOf } from './lines';
import { limitRise, lineAt, type Profile, profileOf } from './profile';
import { type SideName, sidesOf } from './sides';

const { exp, max, min, round } = Math;

/**
 * How deep the eye looks into a side, as a share of the em: white there counts less and less, and all of it together as no more
 * than this. Found with {@link RISE} and {@link OVERHANG} by holding proposals against the sides of fifty text faces, serif and sans
 * (`npm run bench fitting`).
 */
const DEEPEST = 0.11;

/** White between two arms, as in c or E, is filled from them by so many units for a unit of height; that of v or T stays open. */
const RISE = 0.9;

/** The zone that a glyph's spacing is judged in, in font units. */
export type FitZone = { bottom: number; top: number };

/** Baseline to x-height for lower case, to cap height for what stands as high, the glyph's own height for what is low or high alone. */
export function zoneOf(project: Project, glyph: Glyph, master: Master): FitZone {
  const [straight] = controlsFor(glyph);
  const top = straight === 'n' ? master.zones.xHeight.position : master.zones.capHeight.position;
  const box = drawingBounds(drawingIn(project, glyph, master.id), drawingsOf(project, master.id));
  const small = glyph.name.endsWith('.sc') ? master.zones.xHeight.position : top;
  if (isEmptyBox(box)) return { bottom: 0, top: small };
  const inZone = Math.min(box.yMax, small) - Math.max(box.yMin, 0);
  // Punctuation and marks that fill little of the zone are judged where they are.
  return inZone < small * 0.6 ? { bottom: box.yMin, top: box.yMax } : { bottom: 0, top: small };
}

/** What counts of ink that stands out beyond the zone's, as the tail of j does under its neighbour, or the hook of f over it. */
const OVERHANG = { below: 0.9, above: 0.95, bar: 0.95 };

/**
 * A bar is no thicker than this share of the zone and lies in its middle; the stem that it crosses stands straight in so much of
 * it. How far a bar stands out at least, and how straight a stem is, in hundredths of the em.
 */
const BAR = { thickest: 0.22, ends: 0.15, stem: 0.55, out: 1, straight: 0.4 };

/**
 * Where the stem of a side stands that a bar crosses in its middle, as in Đ or Ł, outwards positive; undefined where nothing stands
 * out of a stem that way. Serifs stand out at its ends.
 */
function stemWithBar(
  edge: Float64Array,
  outward: 1 | -1,
  [from, to]: readonly [number, number],
  step: number,
): number | undefined {
  const lines = to - from + 1;
  const reach = (i: number) => outward * edge[i]!;
  const all = Array.from({ length: lines }, (_, k) => reach(from + k)).filter((r) => !Number.isNaN(r));
  const sorted = [...all].sort((a, b) => b - a);
  // The stem is what most lines reach beyond the thickest bar there can be.
  const stem = sorted[Math.floor(lines * BAR.thickest)];
  if (stem === undefined || sorted[0]! - stem < BAR.out * step) return undefined;
  for (let i = from; i <= to; i++) {
    const atEnd = i - from < lines * BAR.ends || to - i < lines * BAR.ends;
    if (atEnd && reach(i) - stem > BAR.straight * step) return undefined;
  }
  const upright = all.filter((r) => Math.abs(r - stem) <= BAR.straight * step).length;
  return upright >= lines * BAR.stem ? stem : undefined;
}

/**
 * The white of a side: what counts on each line of the zone from its outermost ink there inwards, in font units; where that ink lies;
 * and what ink farther out, over or under the zone, takes from the white.
 */
export type SideWhite = { from: number; depths: Float64Array; inside: number; taken: number };

/** What counts of the white between a side's outermost ink in a zone and its outline, line by line upwards; none for a glyph without ink there. */
export function whiteLines(
  profile: Profile,
  side: SideName,
  { bottom, top }: FitZone,
  unitsPerEm: number,
): SideWhite | undefined {
  const edge = profile[side];
  const [from, to] = [lineAt(profile, bottom + profile.step / 2), lineAt(profile, top - profile.step / 2)];
  const outward = side === 'left' ? -1 : 1;
  const reach = (first: number, last: number) => {
    let most = -Infinity;
    for (let i = Math.max(0, first); i <= Math.min(edge.length - 1, last); i++)
      if (!Number.isNaN(edge[i]!)) most = Math.max(most, outward * edge[i]!);
    return most;
  };
  const [whole, below, above] = [reach(from, to), reach(0, from - 1), reach(to + 1, edge.length - 1)];
  if (whole === -Infinity) return undefined;
  const stem = stemWithBar(edge, outward, [from, to], profile.step);
  const inside = stem ?? whole;
  const depths = Float64Array.from({ length: Math.max(0, to - from + 1) }, (_, i) =>
    Number.isNaN(edge[from + i]!) ? Infinity : max(0, inside - outward * edge[from + i]!),
  );
  limitRise(depths, RISE * profile.step);
  const deepest = DEEPEST * unitsPerEm;
  for (let i = 0; i < depths.length; i++) depths[i] = deepest * (1 - exp(-depths[i]! / deepest));
  // A bar through a stem hangs over: the stem decides, and what the bar would touch is kerned.
  const bar = stem === undefined ? 0 : (whole - stem) * (1 - OVERHANG.bar);
  const taken = bar + (max(inside, below, above) - inside) * (1 - (below >= above ? OVERHANG.below : OVERHANG.above));
  return { from, depths, inside: outward * inside, taken };
}

/** Mean white that the shape of a side counts by itself, in font units: 0 for a straight stem. */
export const openness = (profile: Profile, side: SideName, zone: FitZone, unitsPerEm: number): number =>
  whiteOf(profile, side, zone, unitsPerEm)?.open ?? 0;

/** Mean white of a side as it is set: `open` that of its shape by itself, 0 for a straight stem; `now` all of it, from the edge on. */
function whiteOf(
  profile: Profile,
  side: SideName,
  zone: FitZone,
  unitsPerEm: number,
): { open: number; now: number } | undefined {
  const white = whiteLines(profile, side, zone, unitsPerEm);
  if (!white) return undefined;
  const open = white.depths.reduce((sum, d) => sum + d, 0) / max(1, white.depths.length);
  return { open, now: (side === 'left' ? white.inside : profile.advance - white.inside) - white.taken + open };
}

/** What a control has on its sides, in the mean: the white of its shape, and all of it with the side bearing. */
type Control = { open: number; white: number };

/**
 * What one kind of glyph is spaced by: the white of its straight and of its round control; and how far slanted letters stand to the
 * right of the middle, which is a matter of taste, 0 in upright masters.
 */
export type Measure = { straight: Control; round: Control; shift: number };

/** The measure that leaves a straight and a round control as they are set: both sides of n and o, or of H and O. */
export function measureFrom(project: Project, master: Master, straight: GlyphId, round: GlyphId): Measure | undefined {
  let shift = 0;
  const control = (id: GlyphId): Control | undefined => {
    const profile = profileOf(project, id, master.id);
    const zone = zoneOf(project, project.glyphs[id]!, master);
    const [left, right] = (['left', 'right'] as const).map((s) => whiteOf(profile, s, zone, project.unitsPerEm));
    if (!left || !right) return undefined;
    if (profile.lean !== 0) shift += (left.now - right.now) / 4;
    return { open: (left.open + right.open) / 2, white: (left.now + right.now) / 2 };
  };
  const [s, r] = [control(straight), control(round)];
  return s && r && { straight: s, round: r, shift };
}

/** The white that a side shall have in all: that of the straight control for a side as straight, of the round one for one as open or more. */
export function whiteWanted({ straight, round, shift }: Measure, open: number, side: SideName): number {
  const share = (open - straight.open) / (round.open - straight.open || 1);
  return straight.white + (round.white - straight.white) * max(0, min(1, share)) + (side === 'left' ? shift : -shift);
}

/** White of a side as it is set, and as its controls would have it, in font units; undefined for a glyph without ink in its zone. */
export function whiteOnSide(
  project: Project,
  glyph: Glyph,
  master: Master,
  side: SideName,
  measure: Measure,
): { now: number; wanted: number } | undefined {
  const white = whiteOf(
    profileOf(project, glyph.id, master.id),
    side,
    zoneOf(project, glyph, master),
    project.unitsPerEm,
  );
  return white && { now: white.now, wanted: whiteWanted(measure, white.open, side) };
}

/** Left and right side bearings that a glyph would have by a measure, in whole units; undefined for one that is not drawn. */
export function proposedSides(
  project: Project,
  glyph: Glyph,
  master: MasterId,
  measure: Measure,
): { left: number; right: number } | undefined {
  const m = project.masters.find((x) => x.id === master)!;
  const now = sidesOf(project, glyph, master);
  const [left, right] = (['left', 'right'] as const).map((side) => whiteOnSide(project, glyph, m, side, measure));
  if (!('left' in now) || !left || !right) return undefined;
  return { left: round(now.left + left.wanted - left.now), right: round(now.right + right.wanted - right.now) };
}

/** The measure for a glyph's kind from the controls of its kind; those of the capitals for figures without their own. */
export function measureFor(project: Project, glyph: Glyph, master: Master): Measure | undefined {
  // Figures are spaced as capitals: most are of one width, and tell nothing.
  const isFigure = controlsFor(glyph)[0] === '1';
  const capitals = () => ['H', 'O'].map((c) => glyphForCodePoint(project, c.codePointAt(0)!));
  const controls = controlsOf(project, glyph);
  const [s, r] = isFigure ? capitals() : [controls?.straight, controls?.round];
  return s && r && measureFrom(project, master, s.id, r.id);
}
