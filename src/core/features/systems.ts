import type { LanguageSystem } from '../opentype/layout/lists';
import type { DraftLookup } from './lookups';

/** A script and a language of it. */
export type System = readonly [script: string, language: string];

/** Scripts with their languages, and the features that they have, by number. */
export type Systems = {
  scripts: { tag: string; usual?: LanguageSystem; languages: { tag: string; system: LanguageSystem }[] }[];
  features: { tag: string; lookups: number[]; parameters?: Uint8Array }[];
};

/** What features the text gave to which systems, and what belongs to them. */
export type FeatureFacts = {
  /** Lookups by script, language and feature; see {@link featureKey}. */
  features: ReadonlyMap<string, readonly DraftLookup[]>;
  /** The feature that a system must have, by script and language. */
  required: ReadonlyMap<string, string>;
  /** Parameter tables by feature. */
  parameters: ReadonlyMap<string, Uint8Array>;
  /** Systems that have the feature \`size\`, where the text has one. */
  sized: readonly System[];
};

export const featureKey = (script: string, language: string, tag: string): string => `${script}\n${language}\n${tag}`;
export const systemKey = (script: string, language: string): string => `${script}\n${language}`;

/** Scripts, their languages, and the features of each in one table, those of one tag and the same lookups once. */
export function systemsOf(table: 'GSUB' | 'GPOS', { features, required, parameters, sized }: FeatureFacts): Systems {
  const found = new Map<string, { tag: string; lookups: number[] }>();
  const systems = new Map<string, Map<string, string[]>>();
  const add = (script: string, language: string, id: string | undefined) => {
    const languages = systems.get(script) ?? new Map<string, string[]>();
    systems.set(script, languages);
    const own = languages.get(language) ?? [];
    languages.set(language, own);
    if (id !== undefined) own.push(id);
  };
  for (const [k, list] of features) {
    const [script, language, tag] = k.split('\n') as [string, string, string];
    const lookups = list
      .filter((l) => l.table === table && l.parts.length > 0)
      .map((l) => l.index!)
      .sort((a, b) => a - b);
    const id = `${tag.padEnd(4)} ${lookups.join(',')}`;
    add(script, language, lookups.length > 0 ? id : undefined);
    if (lookups.length > 0) found.set(id, { tag: tag.padEnd(4), lookups });
  }
  if (table === 'GPOS' && sized.length > 0) {
    found.set('size ', { tag: 'size', lookups: [] });
    for (const [script, language] of sized) add(script, language, 'size ');
  }
  const ids = [...found.keys()].sort();
  const numbers = new Map(ids.map((id, i) => [id, i]));
  const system = (script: string, language: string, own: readonly string[]): LanguageSystem => {
    const wanted = required.get(systemKey(script, language));
    const must = own.find((id) => wanted !== undefined && id.startsWith(wanted.padEnd(4)));
    const others = own.filter((id) => id !== must).map((id) => numbers.get(id)!);
    return { ...(must !== undefined && { required: numbers.get(must)! }), features: others.sort((a, b) => a - b) };
  };
  const scripts = [...systems]
    .filter(([, languages]) => [...languages.values()].some((own) => own.length > 0))
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([tag, languages]) => ({
      tag,
      ...(languages.has('dflt') && { usual: system(tag, 'dflt', languages.get('dflt')!) }),
      languages: [...languages]
        .filter(([l]) => l !== 'dflt')
        .sort(([a], [b]) => (a < b ? -1 : 1))
        .map(([l, own]) => ({ tag: l, system: system(tag, l, own) })),
    }));
  return {
    scripts,
    features: ids.map((id) => {
      const f = found.get(id)!;
      const own = parameters.get(f.tag.trimEnd());
      return own ? { ...f, parameters: own } : f;
    }),
  };
}
