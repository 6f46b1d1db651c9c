import { z } from 'zod';
import { toDesign } from './axes';
import { defineEdit, edited, plural, refused } from './edit';
import type { Family, Glyph, Master, Project } from './model';
import { designEnds, type Place, samePlace, toUser, wholePlace } from './places';
import { glyphsInOrder } from './queries';

/**
 * Partners: a roman and its italic, each a project of its own. What is known here of the other is told by it without its drawings.
 */
export type Partner = Pick<Project, 'family' | 'axes' | 'masters' | 'instances' | 'unitsPerEm'> & {
  glyphs: readonly Pick<Glyph, 'id' | 'name' | 'unicodes'>[];
};

/** What a project tells its partner of itself. */
export const toldToPartner = (project: Project): Partner => ({
  family: project.family,
  axes: project.axes,
  masters: project.masters.map((m) => ({ ...m, kerning: {}, guides: [], info: undefined, lib: undefined })),
  instances: project.instances,
  unitsPerEm: project.unitsPerEm,
  glyphs: glyphsInOrder(project).map(({ id, name, unicodes }) => ({ id, name, unicodes })),
});

/** The partner’s glyph that stands for one here: that of its name, else the first of its characters. */
export function fellowOf(
  glyph: Pick<Glyph, 'name' | 'unicodes'>,
  { glyphs }: Pick<Partner, 'glyphs'>,
): Partner['glyphs'][number] | undefined {
  const [code] = glyph.unicodes;
  return (
    glyphs.find((g) => g.name === glyph.name) ??
    (code === undefined ? undefined : glyphs.find((g) => g.unicodes.includes(code)))
  );
}

/** Glyphs of one that have no fellow in the other, in its order. */
export function withoutFellow<G extends Pick<Glyph, 'name' | 'unicodes'>>(
  glyphs: readonly G[],
  other: Pick<Partner, 'glyphs'>,
): G[] {
  const names = new Set(other.glyphs.map((g) => g.name));
  const codes = new Set(other.glyphs.flatMap((g) => g.unicodes));
  return glyphs.filter((g) => !names.has(g.name) && !(g.unicodes[0] !== undefined && codes.has(g.unicodes[0])));
}

/**
 * The place in a partner’s axes that is the same for a reader: by user values, on the axes that both have, within its ends. Axes of
 * slant and italic keep the partner’s own default: they are what tells the two apart.
 */
export function partnerPlace(axes: Project['axes'], place: Place, partner: Pick<Partner, 'axes'>): Place {
  return Object.fromEntries(
    Object.entries(samePlaceThere(axes, place, partner)).map(([tag, design]) => {
      const { least, most } = designEnds(partner.axes.find((a) => a.tag === tag)!);
      return [tag, Math.min(Math.max(design, Math.min(least, most)), Math.max(least, most))];
    }),
  );
}

/** The same place in a partner’s axes, even where it lies beyond their ends. */
function samePlaceThere(axes: Project['axes'], place: Place, partner: Pick<Partner, 'axes'>): Record<string, number> {
  const whole = wholePlace(axes, place);
  return Object.fromEntries(
    partner.axes.map((theirs) => {
      const ours = axes.find((a) => a.tag === theirs.tag);
      const isSlant = theirs.tag === 'ital' || theirs.tag === 'slnt';
      return [
        theirs.tag,
        !ours || isSlant ? designEnds(theirs).usual : toDesign(theirs, toUser(ours, whole[ours.tag]!)),
      ];
    }),
  );
}

/** The partner’s master nearest to a place of ours, by the share of each axis between them. */
export function partnerMaster(axes: Project['axes'], place: Place, partner: Partner): Master {
  const at = partnerPlace(axes, place, partner);
  const far = (m: Master) => {
    const own = wholePlace(partner.axes, m.place);
    return partner.axes.reduce((sum, a) => {
      const { least, most } = designEnds(a);
      return sum + Math.abs(own[a.tag]! - at[a.tag]!) / (Math.abs(most - least) || 1);
    }, 0);
  };
  return partner.masters.reduce((best, m) => (far(m) < far(best) - 1e-9 ? m : best));
}

/** The partner’s instance at the same place for a reader, by its number; -1 where there is none. */
export function partnerInstance(axes: Project['axes'], place: Place, partner: Partner): number {
  const at = partnerPlace(axes, place, partner);
  return partner.instances.findIndex((i) => samePlace(partner.axes, i.place, at));
}

/** Names that a roman and its italic share, by what they are called. */
const SHARED_NAMES = {
  name: 'family name',
  designer: 'designer',
  designerURL: 'designer’s address',
  manufacturer: 'foundry',
  vendorURL: 'foundry’s address',
  vendor: 'vendor',
  copyright: 'copyright',
  trademark: 'trademark',
  licence: 'licence',
  licenceURL: 'licence’s address',
  versionMajor: 'version',
  versionMinor: 'version',
} as const satisfies Partial<Record<keyof Family, string>>;
const NAME_KEYS = Object.keys(SHARED_NAMES) as (keyof typeof SHARED_NAMES)[];
const ZONES = ['baseline', 'xHeight', 'capHeight', 'ascender', 'descender'] as const;
const ZONE_TITLES = {
  baseline: 'baseline',
  xHeight: 'x-height',
  capHeight: 'cap height',
  ascender: 'ascender',
  descender: 'descender',
} as const;

/** In what names and metrics a project is other than its partner, as short phrases; none where both are alike. */
export function unlikePartner(project: Project, partner: Partner): string[] {
  const names = NAME_KEYS.filter((k) => project.family[k] !== partner.family[k]).map((k) => SHARED_NAMES[k]);
  const out: string[] = [...new Set(names)];
  if (project.unitsPerEm !== partner.unitsPerEm) out.push(`units per em (${partner.unitsPerEm} there)`);
  for (const [master, like] of pairedMasters(project, partner)) {
    const zones = ZONES.filter(
      (z) =>
        master.zones[z].position !== like.zones[z].position || master.zones[z].overshoot !== like.zones[z].overshoot,
    ).map((z) => ZONE_TITLES[z]);
    const lines = JSON.stringify(sorted(master.verticalMetrics)) !== JSON.stringify(sorted(like.verticalMetrics));
    const told = [...zones, ...(lines ? ['line heights'] : [])];
    if (told.length > 0) out.push(`${told.join(', ')} of ${master.name}`);
  }
  return out;
}

const sorted = (o: object): [string, unknown][] =>
  Object.entries(o)
    .filter(([, v]) => v !== undefined)
    .sort(([a], [b]) => (a < b ? -1 : 1));

/** Masters that have one of the partner’s at the same place for a reader. */
function pairedMasters(project: Project, partner: Partner): [Master, Master][] {
  return project.masters.flatMap((m): [Master, Master][] => {
    const at = samePlaceThere(project.axes, m.place, partner);
    const like = partner.masters.find((o) => {
      const own = wholePlace(partner.axes, o.place);
      return partner.axes.every((a) => Math.abs(own[a.tag]! - at[a.tag]!) < 1e-6);
    });
    return like ? [[m, like]] : [];
  });
}

const partnerArgs = z.object({ id: z.string().min(1).max(80), name: z.string().max(400) });

/** Makes two projects partners, as far as this one is concerned; none takes the bond away. */
export const setPartner = defineEdit(
  {
    name: 'setPartner',
    does: 'Says which project is the partner of this one: the italic of a roman, the roman of an italic',
    reach: 'no master',
    args: z.object({ partner: partnerArgs.optional() }),
  },
  (project, { partner }) => {
    const { partner: before, ...rest } = project.settings;
    if (before?.id === partner?.id && before?.name === partner?.name)
      return refused(partner ? `${partner.name} is the partner already.` : 'There is no partner.');
    return edited(
      { ...project, settings: { ...rest, ...(partner && { partner }) } },
      partner ? `${partner.name} is the partner now` : `${before?.name ?? 'The other'} is no partner any more`,
    );
  },
);

/** Names and metrics as a partner has them, in every master that it has one for. The drawings stay; so do the units of the em. */
export function likePartner(project: Project, partner: Partner): ReturnType<typeof takePartnerFacts> {
  const family = Object.fromEntries(NAME_KEYS.map((k) => [k, partner.family[k]]));
  const masters = pairedMasters(project, partner).map(([{ id }, { zones, verticalMetrics }]) => ({
    master: id,
    zones: Object.fromEntries(
      ZONES.map((key) => [key, { position: zones[key].position, overshoot: zones[key].overshoot }]),
    ),
    verticalMetrics,
  }));
  return takePartnerFacts(project, { from: partner.family.name, family, masters });
}

const zoneFacts = z.object({ position: z.number(), overshoot: z.number() });
export const takePartnerFacts = defineEdit(
  {
    name: 'takePartnerFacts',
    does: 'Takes names, heights and line heights over from the partner',
    reach: 'all masters',
    args: z.object({
      from: z.string(),
      family: z.record(z.string(), z.union([z.string(), z.number()]).optional()),
      masters: z.array(
        z.object({
          master: z.string(),
          zones: z.record(z.string(), zoneFacts),
          verticalMetrics: z.record(z.string(), z.number().optional()),
        }),
      ),
    }),
  },
  (project, { from, family, masters }) => {
    const names = Object.entries(family).filter(([k]) => k in SHARED_NAMES);
    const next: Project = {
      ...project,
      family: defined({ ...project.family, ...Object.fromEntries(names) }) as Family,
      masters: project.masters.map((m) => {
        const given = masters.find((g) => g.master === m.id);
        if (!given) return m;
        const zones = { ...m.zones };
        for (const key of ZONES) zones[key] = { ...zones[key], ...given.zones[key] };
        return { ...m, zones, verticalMetrics: defined(given.verticalMetrics) as Master['verticalMetrics'] };
      }),
    };
    return edited(next, `Took names and heights of ${plural(masters.length, 'master')} over from ${from}`);
  },
);

const defined = (o: object): Record<string, unknown> =>
  Object.fromEntries(Object.entries(o).filter(([, v]) => v !== undefined));
