import { attempt, type Refusal, refused } from '../../base/result';
import type { Compiled, CompiledTable } from '../../features/compile';
import { numberedMarks } from '../../features/decompile';
import { fontTexts, groundOf, isOff } from '../../features/ground';
import { scriptsOf, systemsFor } from '../../features/scripts';
import { compileSections, faultSentence, lineAndColumn, type SectionText, tagsIn } from '../../features/sections';
import type { TablesSaid } from '../../features/tableBlocks';
import { withoutFeatures } from '../../features/without';
import { writeRules } from '../../features/write';
import { carriedPath, isPositions } from '../../fontfacts/carried';
import { GLYPH_CLASS, readGdef } from '../../opentype/gdef';
import { GPOS_EXTENSION, type KernInput, type KernValue, kernLookups } from '../../opentype/gpos';
import { GSUB_EXTENSION } from '../../opentype/gsub';
import { type LanguageSystem, type LayoutLists, readLayout } from '../../opentype/layout/lists';
import type { NameRecord } from '../../opentype/name';
import type { Glyph, Project } from '../../project/model';
import type { CastPlan } from '../plan';
import type { Varying } from '../varying';
import { handoverRecords } from './handoverRecords';
import { joinedFeatures } from './joinedFeatures';
import { joins } from './joins';
import { definedGlyphs, isMark, markFeatures } from './marks';
import { varyingRules } from './varyingRules';

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
export function layoutTables(
  plan: CastPlan,
  kern: KernInput<KernValue>,
  carried: ReadonlySet<string>,
  firstName: number,
): LayoutTables {
  const sections = textsOf(plan);
  const gdef = carried.has('GDEF') ? plan.project.kept[carriedPath('GDEF')] : undefined;
  const compiled = compiledOf(plan, sections, gdef, firstName);
  // Of a font that is a part, what is only odd is odd in the whole one too, where it is told.
  const notes = notesOf(compiled, sections).filter((n) => !plan.partial || n.severity !== 'attention');
  const { tags } = compiled;
  const beside = besideTags(plan.project);
  const replaced = new Set([...tags].filter((t) => !beside.has(t)));
  const own = (tag: string) => !replaced.has(tag) && !plan.without.has(tag);
  const marks = markFeatures(plan, !carried.has('GDEF'), compiled.definitions.filterSets.length);
  const made = [
    { tag: 'curs', lookups: joins(plan) },
    { tag: 'kern', lookups: kernLookups(kern, skippedMarks(plan, carried)) },
    ...marks,
  ].filter((f) => f.lookups.length > 0);
  const isCarried = [...carried].some(isPositions);
  for (const { tag } of made.filter((f) => !isCarried && replaced.has(f.tag)))
    notes.push(
      refused(
        `The rules have a feature ${tag} of their own, so ${tag === 'kern' ? 'the kerning of Kern' : 'what the anchors say for it'} is left out.`,
        { table: 'GPOS' },
        'note',
      ),
    );
  if (carried.has('GSUB') && plan.without.size > 0)
    notes.push(
      refused(
        'The substitutions of the font that was opened are carried whole; no feature of them is left out. In Features they become rules.',
        { table: 'GSUB' },
        'attention',
      ),
    );
  // Rules that the project makes by itself were no one’s wish.
  const wished = new Set(plan.project.features.sections.map((s) => s.id));
  if (carried.has('GSUB') && compiled.GSUB.lookups.some((l) => wished.has(sections[l.source]?.id ?? '')))
    notes.push(
      refused(
        'The substitutions of the font that was opened are carried as they are, so the project’s own rules are left out; in Features they become rules too.',
        { table: 'GSUB' },
        'attention',
      ),
    );
  const gpos = joinedFeatures(
    compiled.GPOS,
    made.filter((f) => own(f.tag)),
    scriptsOf(plan.characters.keys()),
  );
  const varying = plan.varies && varyingRules(plan, compiled.GSUB, handoverRecords(plan));
  const moving =
    plan.varies && varyingRules(plan, { ...gpos, ...(compiled.GPOS.varied && { varied: compiled.GPOS.varied }) });
  const bytes = {
    GDEF: definedGlyphs(plan, compiled.definitions),
    GSUB: varying ? writeRules(varying, 'GSUB') : substitutionBytes(compiled),
    GPOS: writeRules(moving ?? gpos, 'GPOS'),
  };
  const tables = (['GDEF', 'GSUB', 'GPOS'] as const).flatMap((tag) => {
    // Positions that are carried go with the definitions that they came with, or with none.
    const b = tag !== 'GSUB' && isCarried ? undefined : bytes[tag];
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
  const lookups = {
    GSUB: carried.has('GSUB') ? carriedSources(plan.project, 'GSUB') : sourcesOf(compiled.GSUB, sections),
    GPOS: carried.has('GPOS') ? carriedSources(plan.project, 'GPOS') : sourcesOf(gpos, sections),
  };
  return { tables, names, notes, lookups, said: compiled.definitions.said };
}

/** Marks that kerning skips: those that the font’s definitions call so. */
function skippedMarks(plan: CastPlan, carried: ReadonlySet<string>): ReadonlySet<number> {
  if (plan.project.settings.kerningStopsAtMarks) return new Set();
  const gdef = carried.has('GDEF') ? plan.project.kept[carriedPath('GDEF')] : undefined;
  const classes = gdef && attempt(() => readGdef(gdef).classes);
  if (classes?.ok) return new Set([...classes.value].flatMap(([g, c]) => (c === GLYPH_CLASS.mark ? [g] : [])));
  return new Set(plan.entries.flatMap((e, i) => (isMark(e) ? [i] : [])));
}

/** The rules as fonts have them, without features that are left out; lines keep their numbers. */
function textsOf({ project, entries, without }: CastPlan): SectionText[] {
  const texts = fontTexts(project.features.sections, groundOf(entries, project.unitsPerEm));
  return without.size === 0 ? texts : texts.map((s) => ({ ...s, text: withoutFeatures(s.text, without) }));
}

/** Files that the rules include, without features that are left out. */
const includedOf = ({ project, without }: CastPlan): Readonly<Record<string, string>> =>
  without.size === 0
    ? project.features.included
    : Object.fromEntries(
        Object.entries(project.features.included).map(([path, text]) => [path, withoutFeatures(text, without)]),
      );

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

const carriedLookups = new WeakMap<Uint8Array, LookupSource[]>();

/** Lookups of a table that is carried: whose they are, and which features call them. */
function carriedSources(project: Project, tag: 'GSUB' | 'GPOS'): LookupSource[] {
  const bytes = project.kept[carriedPath(tag)]!;
  const known = carriedLookups.get(bytes);
  if (known) return known;
  const read = attempt(() => readLayout(bytes, tag, tag === 'GSUB' ? GSUB_EXTENSION : GPOS_EXTENSION));
  const { scripts, features, lookups } = read.ok ? read.value : { scripts: [], features: [], lookups: [] };
  const systems = systemsByFeature({ scripts, features });
  const sources = lookups.map(({ flag }, i) => ({
    title: 'the font that was opened',
    flag,
    features: features.flatMap((f, k) =>
      f.lookups.includes(i) ? [{ tag: f.tag.trimEnd(), systems: systems[k]! }] : [],
    ),
  }));
  carriedLookups.set(bytes, sources);
  return sources;
}

/** Scripts and languages that have each feature, as `latn TRK`. */
function systemsByFeature({ scripts, features }: Pick<LayoutLists<unknown>, 'scripts' | 'features'>): string[][] {
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
function compiledOf(
  plan: CastPlan,
  sections: readonly SectionText[],
  gdef: Uint8Array | undefined,
  firstName: number,
): Compiled {
  const glyphs = plan.entries.map((e) => e.glyph.name);
  const { languageSystems } = plan.project.features;
  const included = includedOf(plan);
  const systems = systemsFor(plan.characters.keys(), languageSystems);
  const cast = new Set(glyphs);
  const absent = Object.values(plan.project.glyphs).filter((g) => !cast.has(g.name));
  const isAway = (g: Glyph) => plan.partial && !g.cast;
  const waiting = new Set(absent.flatMap((g) => (isAway(g) ? [] : [g.name])));
  const away = new Set(absent.flatMap((g) => (isAway(g) ? [g.name] : [])));
  const key = [
    ...sections.flatMap((s) => [s.id, s.title, s.text]),
    JSON.stringify([included, systems]),
    glyphs.join(' '),
    [...waiting].join(' '),
    [...away].join(' '),
    `${gdef?.length ?? 0} ${firstName}`,
    JSON.stringify(variesInText(plan, sections) ? plan.at : ''),
  ].join('\n\n');
  const { varies } = plan;
  const compile = () =>
    compileSections(sections, included, {
      glyphs,
      waiting,
      away,
      systems,
      place: plan.at,
      firstName,
      // A table that is carried along numbers marks already.
      ...(gdef && { knownMarks: numberedMarks(gdef) }),
      ...(varies && { vary: (values: Parameters<Varying['deviceOf']>[0]) => varies.deviceOf(values) }),
    });
  // Numbers that vary lead into a store that is this font’s alone.
  return varies && variesInText(plan, sections) ? compile() : plan.cache.compiledRules(key, compile);
}

/** Notes what numbers in rules vary by, before the store is laid out. */
export function noteRules(plan: CastPlan): void {
  const sections = textsOf(plan);
  if (variesInText(plan, sections)) compiledOf(plan, sections, undefined, 256);
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
