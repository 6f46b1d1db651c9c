import { attempt, refuse } from '../../base/result';
import { Reader, Writer } from '../binary';
import { at } from './codec';
import { type FeatureParams, featureParams } from './featureParams';

/**
 * What GSUB and GPOS share (OpenType, "Common Table Formats"): scripts and their languages lead to features, features to
 * lookups, lookups to subtables.
 */
export type LanguageSystem = { required?: number; features: readonly number[] };
export type ScriptRecord = {
  tag: string;
  usual?: LanguageSystem;
  languages: readonly { tag: string; system: LanguageSystem }[];
};
/** `parameters` is the table that some features have beside their lookups, `says` what it was read as. */
export type FeatureRecord = {
  tag: string;
  lookups: readonly number[];
  parameters?: Uint8Array;
  says?: FeatureParams;
};
export type Lookup<S> = { type: number; flag: number; markFilteringSet?: number; subtables: readonly S[] };
/** Where on the axes, normalised, some features lead to other lookups: the first record whose conditions all hold counts. */
export type FeatureVariation = {
  conditions: readonly { axis: number; minimum: number; maximum: number }[];
  /** All lookups that a feature leads to there, by its number. */
  features: readonly { feature: number; lookups: readonly number[] }[];
};
export type LayoutLists<S> = {
  scripts: readonly ScriptRecord[];
  features: readonly FeatureRecord[];
  lookups: readonly Lookup<S>[];
};
/** As it is read: subtables by readers that begin at them. */
export type Layout = LayoutLists<Reader>;

const USE_MARK_FILTERING_SET = 0x0010;
const NO_REQUIRED = 0xffff;

/** Reads a GSUB or GPOS table; `extension` is the lookup type that only points further. */
export function readLayout(bytes: Uint8Array, table: string, extension: number): Layout {
  const from = new Reader(bytes, table);
  const [scriptsAt, featuresAt, lookupsAt] = [from.seek(4).uint16(), from.uint16(), from.uint16()];
  const features = featuresAt === 0 ? [] : readFeatures(at(from, featuresAt));
  const lookupList = lookupsAt === 0 ? undefined : at(from, lookupsAt);
  const offsets = lookupList ? Array.from({ length: lookupList.uint16() }, () => lookupList.uint16()) : [];
  return {
    scripts: scriptsAt === 0 ? [] : readScripts(at(from, scriptsAt)),
    features: lookupList ? features : [],
    lookups: featuresAt === 0 ? [] : offsets.map((offset) => readLookup(at(lookupList!, offset), extension)),
  };
}

function readScripts(list: Reader): ScriptRecord[] {
  return Array.from({ length: list.uint16() }, (_, i) => {
    const tag = list.seek(2 + i * 6).tag();
    const script = at(list, list.uint16());
    const usualAt = script.uint16();
    const languages = Array.from({ length: script.uint16() }, (_, k) => {
      const language = script.seek(4 + k * 6).tag();
      return { tag: language, system: readSystem(at(script, script.uint16())) };
    });
    return { tag, ...(usualAt !== 0 && { usual: readSystem(at(script, usualAt)) }), languages };
  });
}

function readSystem(from: Reader): LanguageSystem {
  const required = from.seek(2).uint16();
  const features = Array.from({ length: from.uint16() }, () => from.uint16());
  return { ...(required !== NO_REQUIRED && { required }), features };
}

const readFeatures = (list: Reader): FeatureRecord[] =>
  Array.from({ length: list.uint16() }, (_, i) => {
    const tag = list.seek(2 + i * 6).tag();
    const feature = at(list, list.uint16());
    const paramsAt = feature.uint16();
    const lookups = Array.from({ length: feature.uint16() }, () => feature.uint16());
    // Parameters are named by few; damaged ones say nothing, and the feature holds all the same.
    const says = paramsAt === 0 ? undefined : attempt(() => featureParams.read(tag.trimEnd(), at(feature, paramsAt)));
    return { tag, lookups, ...(says?.ok && says.value && { says: says.value }) };
  });

function readLookup(from: Reader, extension: number): Lookup<Reader> {
  let type = from.uint16();
  const flag = from.uint16();
  const offsets = Array.from({ length: from.uint16() }, () => from.uint16());
  const set = flag & USE_MARK_FILTERING_SET ? { markFilteringSet: from.uint16() } : {};
  const subtables = offsets.map((offset) => at(from, offset));
  if (type !== extension) return { type, flag, ...set, subtables };
  const reached = subtables.map((sub) => {
    sub.seek(2);
    type = sub.uint16();
    return at(sub, sub.uint32());
  });
  if (type === extension) refuse(`The ${from.name} table has an extension that leads to an extension.`);
  return { type, flag, ...set, subtables: reached };
}

/** Tables one after the other behind a head that gives their offsets. */
function withOffsets(headSize: number, tables: readonly Uint8Array[], head: (offsets: number[], out: Writer) => void) {
  let end = headSize;
  const offsets = tables.map((t) => {
    const offset = end;
    end += t.length;
    return offset;
  });
  const out = new Writer();
  head(offsets, out);
  for (const t of tables) out.raw(t);
  return out.toBytes();
}

/** Records of tag and offset, as scripts, languages and features have them. */
const tagged = (tags: readonly string[], tables: readonly Uint8Array[]): Uint8Array =>
  withOffsets(2 + tags.length * 6, tables, (offsets, out) => {
    out.uint16(tags.length);
    for (const [i, tag] of tags.entries()) out.tag(tag).uint16(offsets[i]!);
  });

function writeSystem({ required = NO_REQUIRED, features }: LanguageSystem): Uint8Array {
  const out = new Writer().uint16(0).uint16(required).uint16(features.length);
  for (const f of features) out.uint16(f);
  return out.toBytes();
}

function writeScript({ usual, languages }: ScriptRecord): Uint8Array {
  const systems = [...(usual ? [usual] : []), ...languages.map((l) => l.system)].map(writeSystem);
  return withOffsets(4 + languages.length * 6, systems, (offsets, out) => {
    out.uint16(usual ? offsets[0]! : 0).uint16(languages.length);
    for (const [i, { tag }] of languages.entries()) out.tag(tag).uint16(offsets[i + (usual ? 1 : 0)]!);
  });
}

function writeFeature({ lookups, parameters }: FeatureRecord): Uint8Array {
  const out = new Writer().uint16(parameters ? 4 + lookups.length * 2 : 0).uint16(lookups.length);
  for (const l of lookups) out.uint16(l);
  return parameters ? out.raw(parameters).toBytes() : out.toBytes();
}

const headSize = (l: Lookup<unknown>): number =>
  6 + l.subtables.length * 2 + (l.markFilteringSet === undefined ? 0 : 2);

const lookupHead = (l: Lookup<unknown>, type: number, out: Writer, offsets: readonly number[]): void => {
  const flag = l.markFilteringSet === undefined ? l.flag : l.flag | USE_MARK_FILTERING_SET;
  out.uint16(type).uint16(flag).uint16(offsets.length);
  for (const o of offsets) out.uint16(o);
  if (l.markFilteringSet !== undefined) out.uint16(l.markFilteringSet);
};

/** A lookup with its subtables behind it. */
const plainLookup = (l: Lookup<Uint8Array>): Uint8Array =>
  withOffsets(headSize(l), l.subtables, (offsets, out) => lookupHead(l, l.type, out, offsets));

/**
 * The lookup list. Offsets to subtables have 16 bits; where they do not reach, every lookup goes through subtables of the
 * extension type, whose own offsets have 32, and the real subtables stand behind all of them.
 */
function writeLookups(lookups: readonly Lookup<Uint8Array>[], extension: number): Uint8Array {
  const list = (tables: readonly Uint8Array[], behind: readonly Uint8Array[] = []) =>
    withOffsets(2 + lookups.length * 2, [...tables, ...behind], (offsets, out) => {
      out.uint16(lookups.length);
      for (let i = 0; i < lookups.length; i++) out.uint16(offsets[i]!);
    });
  const plain = lookups.map(plainLookup);
  const size = 2 + lookups.length * 2 + plain.reduce((sum, l) => sum + l.length, 0);
  if (size <= 0xffff) return list(plain);
  const heads = lookups.map((l) => headSize(l) + l.subtables.length * 8);
  const subtables = lookups.flatMap((l) => l.subtables);
  let start = 0;
  let behind = heads.reduce((sum, n) => sum + n, 0);
  const extended = lookups.map((l, i) => {
    const out = new Writer();
    lookupHead(
      l,
      l.subtables.length > 0 ? extension : l.type,
      out,
      l.subtables.map((_, k) => headSize(l) + k * 8),
    );
    for (const [k, sub] of l.subtables.entries()) {
      out
        .uint16(1)
        .uint16(l.type)
        .uint32(behind - (start + headSize(l) + k * 8));
      behind += sub.length;
    }
    start += heads[i]!;
    return out.toBytes();
  });
  return list(extended, subtables);
}

/** A GSUB or GPOS table of scripts, features and lookups, each list in the order that it is given in. */
export function writeLayout(
  {
    scripts,
    features,
    lookups,
    variations = [],
  }: LayoutLists<Uint8Array> & { variations?: readonly FeatureVariation[] },
  extension: number,
): Uint8Array {
  const lists = [
    tagged(
      scripts.map((s) => s.tag),
      scripts.map(writeScript),
    ),
    tagged(
      features.map((f) => f.tag),
      features.map(writeFeature),
    ),
    writeLookups(lookups, extension),
  ];
  if (variations.length === 0)
    return withOffsets(10, lists, (offsets, out) => {
      out.uint16(1).uint16(0);
      for (const o of offsets) out.uint16(o);
    });
  // The variations stand before the lookups, which may be long.
  const [scriptList, featureList, lookupList] = lists as [Uint8Array, Uint8Array, Uint8Array];
  return withOffsets(14, [scriptList, featureList, featureVariations(variations), lookupList], (offsets, out) =>
    out.uint16(1).uint16(1).uint16(offsets[0]!).uint16(offsets[1]!).uint16(offsets[3]!).uint32(offsets[2]!),
  );
}

/** Sets of conditions, each with what the features lead to where they hold (OpenType, “FeatureVariations table”). */
function featureVariations(records: readonly FeatureVariation[]): Uint8Array {
  const tables = records.flatMap((r) => [conditionSet(r.conditions), substituted(r)]);
  let at = 8 + records.length * 8;
  const out = new Writer().uint16(1).uint16(0).uint32(records.length);
  for (const t of tables) {
    out.uint32(at);
    at += t.length;
  }
  for (const t of tables) out.raw(t);
  return out.toBytes();
}

function conditionSet(conditions: FeatureVariation['conditions']): Uint8Array {
  const out = new Writer().uint16(conditions.length);
  conditions.forEach((_, i) => {
    out.uint32(2 + conditions.length * 4 + i * 8);
  });
  for (const { axis, minimum, maximum } of conditions) out.uint16(1).uint16(axis).f2dot14(minimum).f2dot14(maximum);
  return out.toBytes();
}

function substituted({ features }: FeatureVariation): Uint8Array {
  const sorted = [...features].sort((a, b) => a.feature - b.feature);
  const tables = sorted.map(({ lookups }) => writeFeature({ tag: '', lookups: [...lookups].sort((a, b) => a - b) }));
  const out = new Writer().uint16(1).uint16(0).uint16(sorted.length);
  let at = 6 + sorted.length * 6;
  const offsets = new Map<string, number>();
  const apart: Uint8Array[] = [];
  sorted.forEach(({ feature }, i) => {
    const key = tables[i]!.join();
    const known = offsets.get(key);
    out.uint16(feature).uint32(known ?? at);
    if (known !== undefined) return;
    offsets.set(key, at);
    apart.push(tables[i]!);
    at += tables[i]!.length;
  });
  for (const t of apart) out.raw(t);
  return out.toBytes();
}

/**
 * Features of a font whose scripts all have the same ones, by tag and the lookups that they lead to: one script list for
 * them, `DFLT` and the scripts that are given.
 */
export function uniformLayout(
  scripts: readonly string[],
  features: readonly { tag: string; lookups: readonly Lookup<Uint8Array>[] }[],
): LayoutLists<Uint8Array> {
  const sorted = [...features].sort((a, b) => (a.tag < b.tag ? -1 : 1));
  const lookups = features.flatMap((f) => f.lookups);
  const usual = { features: sorted.map((_, i) => i) };
  return {
    scripts: [...new Set(['DFLT', ...scripts])].sort().map((tag) => ({ tag, usual, languages: [] })),
    features: sorted.map((f) => ({ tag: f.tag, lookups: f.lookups.map((l) => lookups.indexOf(l)) })),
    lookups,
  };
}
