import type { CompiledTable } from '../../features/compile';
import type { Lookup } from '../../opentype/layout/lists';

/** Rules of the text, and behind them features that the project makes by itself, in every system of scripts and languages. */
export function joinedFeatures(
  table: CompiledTable,
  made: readonly { tag: string; lookups: readonly Lookup<Uint8Array>[] }[],
  scripts: readonly string[],
): CompiledTable {
  if (made.length === 0) return table;
  const lookups = [...table.lookups];
  const features = [...table.features];
  const added = made.map(({ tag, lookups: own }) => {
    const at = own.map((l) => lookups.push({ ...l, source: -1, from: { from: 0, to: 0 } }) - 1);
    return features.push({ tag, lookups: at }) - 1;
  });
  const missing = ['DFLT', ...scripts].filter((s) => !table.scripts.some((t) => t.tag === s));
  /** A feature that a system has already goes on with the lookups that are added: of two of one tag only the first would hold. */
  const grown = new Map<string, number>();
  const goesOn = (there: number, more: number): number => {
    const key = `${there} ${more}`;
    const known = grown.get(key);
    if (known !== undefined) return known;
    const feature = features[there]!;
    const at = features.push({ ...feature, lookups: [...feature.lookups, ...features[more]!.lookups] }) - 1;
    grown.set(key, at);
    return at;
  };
  const withAdded = <T extends { features: readonly number[] }>(system: T): T => {
    const own = [...system.features];
    for (const more of added) {
      const there = own.findIndex((f) => features[f]!.tag === features[more]!.tag);
      if (there < 0) own.push(more);
      else if (features[more]!.lookups.length > 0) own[there] = goesOn(own[there]!, more);
    }
    return { ...system, features: own };
  };
  const all = [
    ...table.scripts.map((s) => ({
      tag: s.tag,
      usual: withAdded(s.usual ?? { features: [] }),
      languages: s.languages.map((l) => ({ tag: l.tag, system: withAdded(l.system) })),
    })),
    ...missing.map((tag) => ({ tag, usual: { features: added }, languages: [] })),
  ];
  return sortedTable({ lookups, features, scripts: all.sort((a, b) => (a.tag < b.tag ? -1 : 1)) });
}

/** Features by their tags, as the specification has them, and systems with their new numbers. */
function sortedTable({ lookups, features, scripts }: CompiledTable): CompiledTable {
  const order = features
    .map((_, i) => i)
    .sort((a, b) => (features[a]!.tag === features[b]!.tag ? a - b : features[a]!.tag < features[b]!.tag ? -1 : 1));
  const place = new Map(order.map((from, to) => [from, to]));
  const renumbered = <T extends { required?: number; features: readonly number[] }>(s: T): T => ({
    ...s,
    ...(s.required !== undefined && { required: place.get(s.required)! }),
    features: s.features.map((f) => place.get(f)!).sort((a, b) => a - b),
  });
  return {
    lookups,
    features: order.map((i) => features[i]!),
    scripts: scripts.map((s) => ({
      tag: s.tag,
      ...(s.usual && { usual: renumbered(s.usual) }),
      languages: s.languages.map((l) => ({ tag: l.tag, system: renumbered(l.system) })),
    })),
  };
}
