import { z } from 'zod';
import { addTo } from '../base/grouping';
import * as a from '../project/arguments';
import { drawingsAt } from '../project/drawingsAt';
import { defineEdit, edited, refused, withGlyph } from '../project/edit';
import { kerningThrough } from '../project/kerningLookup';
import type { Glyph, GlyphId, Master, Project } from '../project/model';
import { pairKey, pairSides } from '../project/pairs';
import { designEnds, type Place, weightsAt, wholePlace } from '../project/places';
import { glyphThere } from '../project/queries';
import { FARTHEST } from './places';

/**
 * Handovers: over a stretch of an axis, in design units, its ends counted in, a glyph gives way to another in text. Composites that are
 * built on it keep it.
 */
export type Handover = Glyph['handovers'][number];

const MOST = 16;

/** The handover of a glyph that holds at a place: the first that reaches there. */
const handoverAt = (project: Project, glyph: Glyph, at: Place): Handover | undefined => {
  if (glyph.handovers.length === 0) return undefined;
  const whole = wholePlace(project.axes, at);
  return glyph.handovers.find((h) => {
    const value = whole[h.axis];
    return value !== undefined && value >= h.from && value <= h.to && project.glyphs[h.glyph] !== undefined;
  });
};

/** The glyph that stands in text for one at a place: itself, or the one that it gives way to. */
export const standsFor = (project: Project, id: GlyphId, at: Place): GlyphId => {
  const glyph = project.glyphs[id];
  return (glyph && handoverAt(project, glyph, at)?.glyph) ?? id;
};

function fault(project: Project, glyph: Glyph, others: readonly Handover[], next: Handover): string | undefined {
  const axis = project.axes.find((x) => x.tag === next.axis);
  if (!axis) return `There is no axis ${next.axis}.`;
  const to = project.glyphs[next.glyph];
  if (!to) return 'That glyph is no longer in the project.';
  if (to.id === glyph.id) return `${glyph.name} cannot give way to itself.`;
  if (to.handovers.length > 0) return `${to.name} gives way itself; a glyph that stands in does not.`;
  if (next.from > next.to) return 'A handover goes from a value to one that is not less.';
  const { least, most } = designEnds(axis);
  const [low, high] = [Math.min(least, most), Math.max(least, most)];
  if (next.to < low || next.from > high) return `${axis.name} does not reach there.`;
  if (others.some((o) => o.axis === next.axis && o.from <= next.to && next.from <= o.to))
    return `Another handover of ${glyph.name} holds there already.`;
  return undefined;
}

const value = z.number().min(-FARTHEST).max(FARTHEST);

/** Says whether handovers work after all other rules of the font, or before them. */
export const setHandoversLast = defineEdit(
  {
    name: 'setHandoversLast',
    does: 'Lets handovers work after all other rules, or before them',
    reach: 'all masters',
    args: z.object({ last: z.boolean() }),
  },
  (project, { last }) => {
    const { handoversLast: _, ...settings } = project.settings;
    return edited(
      { ...project, settings: { ...settings, ...(last && { handoversLast: true }) } },
      `Let handovers work ${last ? 'after' : 'before'} all other rules`,
    );
  },
);

/** Lets a glyph give way to another over a stretch of an axis; `index` names the handover that is changed, a new one without. */
export const setHandover = defineEdit(
  {
    name: 'setHandover',
    does: 'Lets a glyph give way to another over part of an axis',
    reach: 'all masters',
    args: z.object({
      glyph: a.glyph,
      index: a.index.optional(),
      handover: z.object({ axis: z.string().max(4), from: value, to: value, glyph: a.glyph }),
    }),
  },
  (project, { glyph: id, index, handover }) => {
    const glyph = glyphThere(project, id);
    const { handovers } = glyph;
    if (index !== undefined && !handovers[index])
      return refused('That handover is no longer there.', { glyph: glyph.name });
    if (index === undefined && handovers.length >= MOST)
      return refused(`A glyph has at most ${MOST} handovers.`, { glyph: glyph.name });
    if (index === undefined && Object.values(project.glyphs).some((g) => g.handovers.some((h) => h.glyph === id)))
      return refused(`${glyph.name} stands in for another glyph; it does not give way itself.`, { glyph: glyph.name });
    const why = fault(
      project,
      glyph,
      handovers.filter((_, i) => i !== index),
      handover,
    );
    if (why) return refused(why, { glyph: glyph.name });
    const next = index === undefined ? [...handovers, handover] : handovers.with(index, handover);
    const to = project.glyphs[handover.glyph]!;
    return edited(
      withGlyph(project, { ...glyph, handovers: next }),
      `${glyph.name} gives way to ${to.name} from ${handover.axis} ${handover.from} to ${handover.to}`,
    );
  },
);

export const removeHandover = defineEdit(
  {
    name: 'removeHandover',
    does: 'Takes a handover away',
    reach: 'all masters',
    args: z.object({ glyph: a.glyph, index: a.index }),
  },
  (project, { glyph: id, index }) => {
    const glyph = glyphThere(project, id);
    if (!glyph.handovers[index]) return refused('That handover is no longer there.', { glyph: glyph.name });
    const handovers = glyph.handovers.filter((_, i) => i !== index);
    return edited(withGlyph(project, { ...glyph, handovers }), `${glyph.name} gives way there no longer`);
  },
);

/** What a line of text would jump by at the limit of a handover, in units: the advance, and the kerning that differs most. */
export type Jump = {
  advance: number;
  /** The greatest difference in kerning, and the other side of that pair. */
  kerning?: { units: number; with: string; side: 'before' | 'behind' };
};

/** Glyphs that stand for all that are kerned: those with pairs of their own, and the first of each group. */
function kernedGlyphs({ masters, groups }: Project): ReadonlySet<GlyphId> {
  const out = new Set(groups.flatMap((g) => g.members.slice(0, 1)));
  for (const m of masters)
    for (const key in m.kerning) for (const s of pairSides(key) ?? []) if (s.kind === 'glyph') out.add(s.id);
  return out;
}

export function jumpAt(project: Project, glyph: Glyph, handover: Handover, limit: number): Jump {
  const place = { [handover.axis]: limit };
  const source = drawingsAt(project, place);
  const advance = (source(handover.glyph)?.advance ?? 0) - (source(glyph.id)?.advance ?? 0);
  const weights = weightsAt(
    project.axes,
    project.masters.map((m) => m.place),
    place,
  );
  const own = (id: GlyphId) => ({ kind: 'glyph' as const, id });
  let kerning: Jump['kerning'];
  for (const other of kernedGlyphs(project)) {
    if (other === glyph.id || other === handover.glyph) continue;
    for (const side of ['behind', 'before'] as const) {
      const key = (id: GlyphId) => (side === 'behind' ? pairKey(own(id), own(other)) : pairKey(own(other), own(id)));
      const at = (id: GlyphId) =>
        project.masters.reduce(
          (sum, m, i) => sum + (weights[i] ? weights[i]! * kerningThrough(project, m, key(id)) : 0),
          0,
        );
      const units = at(handover.glyph) - at(glyph.id);
      if (Math.abs(units) > Math.abs(kerning?.units ?? 0.5))
        kerning = { units, with: project.glyphs[other]?.name ?? other, side };
    }
  }
  return { advance, ...(kerning && { kerning }) };
}

/**
 * A project at a place with the glyphs that give way there drawn, spaced and kerned as those that they give way to; composites keep
 * what they are built on. `family` has the handovers, `made` is what lies at the place.
 */
export function handedOver(family: Project, made: Project, at: Place): Project {
  const pairs = Object.values(family.glyphs).flatMap((g) => {
    const h = handoverAt(family, g, at);
    return h ? [[g.id, h.glyph] as const] : [];
  });
  if (pairs.length === 0) return made;
  const by = new Map(pairs);
  const glyphs: Record<GlyphId, Glyph> = { ...made.glyphs };
  const used = new Set(
    Object.values(made.glyphs).flatMap((g) =>
      Object.values(g.drawings).flatMap((d) => d.components.map((c) => c.glyph)),
    ),
  );
  const held = new Map(pairs.filter(([id]) => used.has(id)).map(([id]) => [id, `${id} held`]));
  for (const [id, stand] of held) {
    const { unicodes: _, ...rest } = made.glyphs[id]!;
    glyphs[stand] = { ...rest, id: stand, name: `${rest.name}.held`, unicodes: [], cast: false };
  }
  if (held.size > 0)
    for (const [id, g] of Object.entries(glyphs))
      glyphs[id] = {
        ...g,
        drawings: Object.fromEntries(
          Object.entries(g.drawings).map(([m, d]) => [
            m,
            d.components.some((c) => held.has(c.glyph))
              ? { ...d, components: d.components.map((c) => ({ ...c, glyph: held.get(c.glyph) ?? c.glyph })) }
              : d,
          ]),
        ),
      };
  for (const [id, to] of pairs) glyphs[id] = { ...glyphs[id]!, drawings: glyphs[to]!.drawings };
  return {
    ...made,
    glyphs,
    glyphOrder: [...made.glyphOrder, ...held.values()],
    groups: made.groups.map((g) => ({
      ...g,
      members: [
        ...g.members.filter((m) => !by.has(m)),
        ...pairs.flatMap(([id, to]) => (g.members.includes(to) ? [id] : [])),
      ],
    })),
    masters: made.masters.map((m) => ({ ...m, kerning: kerningHandedOver(m.kerning, by) })),
  };
}

/** Pairs of the glyphs that give way are those of the ones that stand in. */
function kerningHandedOver(kerning: Master['kerning'], by: ReadonlyMap<GlyphId, GlyphId>): Master['kerning'] {
  const out: Record<string, number> = {};
  const gives = (s: { kind: string; id: string }) => s.kind === 'glyph' && by.has(s.id);
  const like = new Map<GlyphId, GlyphId[]>();
  for (const [id, to] of by) addTo(like, to, id);
  for (const [key, units] of Object.entries(kerning)) {
    const sides = pairSides(key);
    if (sides?.some(gives)) continue;
    out[key] = units;
    if (!sides) continue;
    const all = sides.map((s) => [
      s,
      ...(s.kind === 'glyph' ? (like.get(s.id) ?? []).map((id) => ({ ...s, id })) : []),
    ]);
    for (const first of all[0]!) for (const second of all[1]!) out[pairKey(first, second)] = units;
  }
  return out;
}
