import { type Refusal, refused } from '../../base/result';
import type { Compiled, CompiledTable } from '../../features/compile';
import { numberedMarks } from '../../features/decompile';
import { fontTexts, groundOf, isOff } from '../../features/ground';
import { scriptsOf, systemsFor } from '../../features/scripts';
import { compileSections, faultSentence, lineAndColumn, type SectionText, tagsIn } from '../../features/sections';
import type { TablesSaid } from '../../features/tableBlocks';
import { writeRules } from '../../features/write';
import { carriedPath } from '../../fontfacts/carried';
import { type KernInput, type KernValue, kernLookups } from '../../opentype/gpos';
import type { LanguageSystem, Lookup } from '../../opentype/layout/lists';
import { GSUB_TYPE, singleSubtables } from '../../opentype/layout/substitutions';
import type { NameRecord } from '../../opentype/name';
import type { Project } from '../../project/model';
import type { CastPlan } from '../plan';
import type { Varying } from '../varying';
import { HANDOVER_FEATURE, handoverRecords } from './handoverRecords';
import { joins } from './joins';
import { definedGlyphs, markFeatures } from './marks';

/** The tables of layout, the names that features bring, what is said of the rules, and where lookups come from. */
export type LayoutTables = {
  tables: readonly (readonly [tag: 'GDEF' | 'GSUB' | 'GPOS', bytes: Uint8Array])[];
  names: readonly NameRecord[];
  notes: readonly Refusal[];
  lookups: LookupSources;
  /** What the rules say of other tables. */
  said: TablesSaid;
};

/** A lookup’s place in the rules: its section, line and name, or what the project makes by itself. */
export type LookupSource = {
  title: string;
  section?: string;
  line?: number;
  name?: string;
  /** Its flag (OpenType, “lookupFlag”). */
  flag: number;
  /** Features that call it, and in which scripts and languages. */
  features: readonly { tag: string; systems: readonly string[] }[];
};
export type LookupSources = Readonly<Record<'GSUB' | 'GPOS', readonly LookupSource[]>>;

/** Faults of the text beyond this are counted. */
const MOST_NOTES = 12;

/** `GSUB`, `GPOS` and `GDEF`: the project’s rules, its kerning, its marks. */
export function layoutTables(plan: CastPlan, kern: KernInput<KernValue>, carried: ReadonlySet<string>): LayoutTables {
  const sections = fontTexts(plan.project.features.sections, groundOf(plan.entries, plan.project.unitsPerEm));
  const gdef = carried.has('GDEF') ? plan.project.kept[carriedPath('GDEF')] : undefined;
  const compiled = compiledOf(plan, sections, gdef);
  const notes = notesOf(compiled, sections);
  const { tags } = compiled;
  const replaced = new Set([...tags].filter((t) => !besideTags(plan.project).has(t)));
  const own = (tag: string) => !replaced.has(tag);
  const marks = markFeatures(plan, !carried.has('GDEF'), compiled.definitions.filterSets.length);
  const made = [{ tag: 'curs', lookups: joins(plan) }, { tag: 'kern', lookups: kernLookups(kern) }, ...marks].filter(
    (f) => f.lookups.length > 0,
  );
  for (const { tag } of made.filter((f) => !own(f.tag)))
    notes.push(
      refused(
        `The rules have a feature ${tag} of their own, so ${tag === 'kern' ? 'the kerning of Kern' : 'what the anchors say for it'} is left out.`,
        { table: 'GPOS' },
        'note',
      ),
    );
  if (carried.has('GSUB') && compiled.GSUB.lookups.length > 0)
    notes.push(
      refused(
        'The substitutions of the font that was opened are carried as they are, so the project’s own rules are left out; in Features they become rules too.',
        { table: 'GSUB' },
        'attention',
      ),
    );
  const gpos = joined(
    compiled.GPOS,
    made.filter((f) => own(f.tag)),
    scriptsOf(plan.characters.keys()),
  );
  const handed = plan.varies && handoverRules(plan, compiled.GSUB);
  const bytes = {
    GDEF: definedGlyphs(plan, compiled.definitions),
    GSUB: handed ? writeRules(handed, 'GSUB') : substitutionBytes(compiled),
    GPOS: writeRules(gpos, 'GPOS'),
  };
  const tables = (['GDEF', 'GSUB', 'GPOS'] as const).flatMap((tag) => {
    const b = bytes[tag];
    return b ? [[tag, b] as const] : [];
  });
  const names = compiled.names.map(
    (n): NameRecord => ({
      platformID: n.platform,
      encodingID: n.encoding,
      languageID: n.language,
      nameID: n.id,
      value: n.text,
    }),
  );
  const lookups = { GSUB: sourcesOf(compiled.GSUB, sections), GPOS: sourcesOf(gpos, sections) };
  return { tables, names, notes, lookups, said: compiled.definitions.said };
}

/** Features whose rules stand beside what the project makes of them by itself. */
function besideTags({ features: { sections } }: Project): ReadonlySet<string> {
  const tags = (beside: boolean) =>
    tagsIn(sections.filter((s) => !isOff(s) && (s.options.beside === true) === beside).map((s) => s.text));
  const others = tags(false);
  return new Set([...tags(true)].filter((t) => !others.has(t)));
}

const variesInText = (plan: CastPlan, sections: readonly SectionText[]): boolean =>
  [...sections.map((s) => s.text), ...Object.values(plan.project.features.included)].some((t) => VARYING.test(t));

const written = new WeakMap<Compiled, Uint8Array>();

/** `GSUB` of compiled rules, written once. */
function substitutionBytes(compiled: Compiled): Uint8Array | undefined {
  const bytes = written.get(compiled) ?? writeRules(compiled.GSUB, 'GSUB');
  if (bytes) written.set(compiled, bytes);
  return bytes;
}

const BY_ITSELF: Readonly<Record<string, string>> = {
  kern: 'the pairs of Kern',
  mark: 'the anchors of letters and marks',
  mkmk: 'the anchors of marks on marks',
  curs: 'the entries and exits of letters',
};

function sourcesOf(table: CompiledTable, sections: readonly SectionText[]): LookupSource[] {
  const systems = systemsByFeature(table);
  return table.lookups.map((l, i) => {
    const section = sections[l.source];
    const features = table.features.flatMap((f, k) =>
      f.lookups.includes(i) ? [{ tag: f.tag.trimEnd(), systems: systems[k]! }] : [],
    );
    const called = { flag: l.flag, features };
    if (!section) return { title: BY_ITSELF[features[0]?.tag ?? ''] ?? 'the project itself', ...called };
    const { line } = lineAndColumn(section.text, l.from.from);
    return {
      title: section.title,
      section: section.id,
      line,
      ...(l.name !== undefined && { name: l.name }),
      ...called,
    };
  });
}

/** Scripts and languages that have each feature, as `latn TRK`. */
function systemsByFeature({ scripts, features }: CompiledTable): string[][] {
  const out = features.map((): string[] => []);
  const note = (system: LanguageSystem | undefined, name: string) => {
    for (const f of [...(system?.features ?? []), ...(system?.required === undefined ? [] : [system.required])])
      out[f]?.push(name);
  };
  for (const s of scripts) {
    note(s.usual, `${s.tag.trimEnd()} dflt`);
    for (const l of s.languages) note(l.system, `${s.tag.trimEnd()} ${l.tag.trimEnd()}`);
  }
  return out;
}

/** What text has where numbers vary with the place. */
const VARYING = /\(\s*\w{1,4}\s*=/;

/** Rules compiled for these glyphs; the same again while neither rules nor glyphs change. */
function compiledOf(plan: CastPlan, sections: readonly SectionText[], gdef: Uint8Array | undefined): Compiled {
  const glyphs = plan.entries.map((e) => e.glyph.name);
  const { included, languageSystems } = plan.project.features;
  const systems = systemsFor(plan.characters.keys(), languageSystems);
  const cast = new Set(glyphs);
  const waiting = new Set(Object.values(plan.project.glyphs).flatMap((g) => (cast.has(g.name) ? [] : [g.name])));
  const key = [
    ...sections.flatMap((s) => [s.id, s.title, s.text]),
    JSON.stringify([included, systems]),
    glyphs.join(' '),
    [...waiting].join(' '),
    String(gdef?.length ?? 0),
    JSON.stringify(variesInText(plan, sections) ? plan.at : ''),
  ].join('\n\n');
  const { varies } = plan;
  const compile = () =>
    compileSections(sections, included, {
      glyphs,
      waiting,
      systems,
      place: plan.at,
      // A table that is carried along numbers marks already.
      ...(gdef && { knownMarks: numberedMarks(gdef) }),
      ...(varies && { vary: (values: Parameters<Varying['deviceOf']>[0]) => varies.deviceOf(values) }),
    });
  // Numbers that vary lead into a store that is this font’s alone.
  return varies && variesInText(plan, sections) ? compile() : plan.cache.compiledRules(key, compile);
}

/** Notes what numbers in rules vary by, before the store is laid out. */
export function noteRules(plan: CastPlan): void {
  const sections = fontTexts(plan.project.features.sections, groundOf(plan.entries, plan.project.unitsPerEm));
  if (variesInText(plan, sections)) compiledOf(plan, sections, undefined);
}

function notesOf(compiled: Compiled, sections: readonly SectionText[]): Refusal[] {
  const notes = compiled.faults.slice(0, MOST_NOTES).map((f) => {
    const section = sections[f.source];
    const place = section && lineAndColumn(section.text, f.from);
    return refused(faultSentence(section, f), { table: 'GSUB', ...place }, f.severity);
  });
  const more = compiled.faults.length - notes.length;
  return more > 0 ? [...notes, refused(`And ${more} more in the rules.`, { table: 'GSUB' }, 'attention')] : notes;
}

/** Rules with the lookups that stand in along the axes; nothing where no glyph gives way. */
function handoverRules(plan: CastPlan, rules: CompiledTable): CompiledTable | undefined {
  const records = handoverRecords(plan);
  if (records.length === 0) return undefined;
  const table = joined(rules, [{ tag: HANDOVER_FEATURE, lookups: [] }], scriptsOf(plan.characters.keys()));
  const lookups = [...table.lookups];
  const variations = records.map(({ conditions, subs }) => ({
    conditions,
    features: table.features.flatMap((f, i) => (f.tag === HANDOVER_FEATURE ? [i] : [])),
    lookups: [
      lookups.push({
        type: GSUB_TYPE.single,
        flag: 0,
        subtables: singleSubtables(subs),
        source: -1,
        from: { from: 0, to: 0 },
      }) - 1,
    ],
  }));
  return { ...table, lookups, variations };
}

/** Rules of the text, and behind them features that the project makes by itself, in every system of scripts and languages. */
function joined(
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
      else own[there] = goesOn(own[there]!, more);
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
