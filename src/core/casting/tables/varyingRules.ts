import { axisShare } from '../../base/interpolation';
import type { CompiledTable, VariedFeatures } from '../../features/compile';
import { scriptsOf } from '../../features/scripts';
import type { FeatureVariation } from '../../opentype/layout/lists';
import { GSUB_TYPE, singleSubtables } from '../../opentype/layout/substitutions';
import { designEnds } from '../../project/places';
import type { CastPlan } from '../plan';
import { type Condition, type HandoverRecord, handoverFeature } from './handoverRecords';
import { joinedFeatures } from './joinedFeatures';

type Added = { tag: string; lookups: readonly number[] };
type Box = { conditions: readonly Condition[]; features: readonly Added[] };

/**
 * Rules whose features lead to more lookups somewhere on the axes: glyphs that give way to others there, and what the text says under
 * conditions. A font counts the first record that holds at a place (OpenType, “FeatureVariations table”), so that each of the text’s is
 * met with each of the handovers before either stands alone. Undefined where nothing varies.
 */
export function varyingRules(
  plan: CastPlan,
  rules: CompiledTable,
  handovers: readonly HandoverRecord[] = [],
): CompiledTable | undefined {
  const written = (rules.varied ?? []).flatMap((v) => boxOf(plan, v));
  if (written.length + handovers.length === 0) return undefined;
  const standIn = handoverFeature(plan.project);
  const tags = new Set([
    ...(handovers.length > 0 ? [standIn] : []),
    ...written.flatMap((w) => w.features.map((f) => f.tag)),
  ]);
  const added = [...tags].map((tag) => ({ tag, lookups: [] }));
  const table = joinedFeatures(rules, added, scriptsOf(plan.characters.keys()));
  const lookups = [...table.lookups];
  const handed = handovers.map(({ conditions, subs }): Box => {
    const lookup = { type: GSUB_TYPE.single, flag: 0, subtables: singleSubtables(subs) };
    const at = lookups.push({ ...lookup, source: -1, from: { from: 0, to: 0 } }) - 1;
    return { conditions, features: [{ tag: standIn, lookups: [at] }] };
  });
  const met = written.flatMap((w) => [...handed.flatMap((h) => meeting(w, h)), w]);
  const variations = [...met, ...handed].map(
    ({ conditions, features }): FeatureVariation => ({
      conditions,
      features: table.features.flatMap((f, feature) => {
        const more = features.filter((a) => a.tag === f.tag).flatMap((a) => a.lookups);
        return more.length === 0 ? [] : [{ feature, lookups: [...new Set([...f.lookups, ...more])] }];
      }),
    }),
  );
  return { ...table, lookups, variations };
}

/** Conditions of the text on the axes of the font, normalised; nothing where they can hold nowhere. */
function boxOf({ varies }: CastPlan, { ranges, features }: VariedFeatures): Box[] {
  const conditions: Condition[] = [];
  for (const { axis: tag, least, most } of ranges) {
    const at = varies?.axes.findIndex((a) => a.tag === tag) ?? -1;
    if (at < 0) return [];
    const ends = designEnds(varies!.axes[at]!);
    const shares = [least, most].map((v) => axisShare(ends.least, ends.usual, ends.most, v));
    const own = { axis: at, minimum: Math.min(...shares), maximum: Math.max(...shares) };
    const there = conditions.findIndex((c) => c.axis === at);
    if (there < 0) conditions.push(own);
    else conditions[there] = narrower(conditions[there]!, own);
  }
  return conditions.some((c) => c.minimum > c.maximum) ? [] : [{ conditions, features }];
}

const narrower = (a: Condition, b: Condition): Condition => ({
  axis: a.axis,
  minimum: Math.max(a.minimum, b.minimum),
  maximum: Math.min(a.maximum, b.maximum),
});

/** Where two boxes both hold, with the features of both. */
function meeting(a: Box, b: Box): Box[] {
  const conditions = new Map(a.conditions.map((c) => [c.axis, c]));
  for (const c of b.conditions) {
    const own = conditions.get(c.axis);
    conditions.set(c.axis, own ? narrower(own, c) : c);
  }
  const all = [...conditions.values()].sort((x, y) => x.axis - y.axis);
  return all.some((c) => c.minimum > c.maximum) ? [] : [{ conditions: all, features: [...a.features, ...b.features] }];
}
