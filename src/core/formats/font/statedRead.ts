import { attempt } from '../../base/result';
import { familyAndStyle, nameOf } from '../../fontfacts/fontNames';
import { linkOf, nameRecords, styleNames } from '../../fontfacts/names';
import { bitsOf, factsOf, type StatedTable, statedName } from '../../fontfacts/stated';
import { codePageBits, unicodeRangeBits } from '../../fontfacts/unicodeRanges';
import { readFvar } from '../../opentype/fvar';
import { gasp } from '../../opentype/gasp';
import { GPOS_EXTENSION } from '../../opentype/gpos';
import { GSUB_EXTENSION } from '../../opentype/gsub';
import { featureParams } from '../../opentype/layout/featureParams';
import { readLayout } from '../../opentype/layout/lists';
import { VARYING_FIELDS } from '../../opentype/metricsVary';
import { NAME_ID, type NameRecord } from '../../opentype/name';
import { ENGLISH } from '../../opentype/nameLanguages';
import { FS_SELECTION } from '../../opentype/os2';
import { post } from '../../opentype/post';
import { tableOf } from '../../opentype/sfnt';
import { jointNames, readStat } from '../../opentype/stat';
import type { Mvar } from '../../opentype/variations';
import { vhea } from '../../opentype/vhea';
import type { Lib, LibValue, Project } from '../../project/model';
import type { Place } from './places';
import type { FontReading } from './reading';

/** Facts of a font that are stated with its masters, as sources state them: only those that the rule would not give. */

type Facts = Record<string, LibValue>;

/** Bits of `head` that speak of instructions, which are left aside. */
const OF_INSTRUCTIONS = [2, 4];
const isList = (v: LibValue | undefined, ...all: readonly number[]): boolean =>
  Array.isArray(v) && v.length === all.length && all.every((n, i) => v[i] === n);

/** Facts of tables at a place on the axes. */
export function factsAt(r: FontReading, place: Place, mvar: Mvar): Facts {
  const { tables } = r.font;
  const records: Record<StatedTable, object | undefined> = {
    'OS/2': r.style,
    head: r.header,
    hhea: r.lines,
    vhea: tables.has('vhea') ? vhea.read(tableOf(r.font, 'vhea')) : undefined,
    post: tables.has('post') ? post.read(tableOf(r.font, 'post')) : undefined,
  };
  const facts: Facts = {};
  for (const [table, record] of Object.entries(records)) {
    if (!record) continue;
    const there: Record<string, unknown> = { ...record };
    for (const [tag, [of, field]] of Object.entries(VARYING_FIELDS))
      if (of === table && typeof there[field] === 'number') there[field] += Math.round(mvar.of(tag, place.at)) as never;
    Object.assign(facts, factsOf(table as StatedTable, there));
  }
  const isDefault = place.at.every((v) => v === 0);
  return withoutRuled(r, mvar, { ...facts, ...selection(r), ...gaspFacts(r), ...(isDefault ? classes(r) : {}) });
}

/** Weight and width by number; at other places of a font that varies they follow from the names. */
const classes = ({ style }: FontReading): Facts => ({
  ...(style.usWeightClass !== undefined && { openTypeOS2WeightClass: style.usWeightClass }),
  ...(style.usWidthClass !== undefined && { openTypeOS2WidthClass: style.usWidthClass }),
});

/** What is chosen beside the style: by which metrics lines are set, and others. */
function selection({ style }: FontReading): Facts {
  if (style.fsSelection === undefined) return {};
  const bits = bitsOf([style.fsSelection], 16).filter((b) => ![0, 5, 6].includes(b));
  return isList(bits, 7) ? {} : { openTypeOS2Selection: bits };
}

function gaspFacts({ font }: FontReading): Facts {
  const table = font.tables.get('gasp');
  const ranges = table ? attempt(() => gasp.read(table)) : undefined;
  const isUsual = ranges?.ok && ranges.value.length === 1 && ranges.value[0]!.rangeGaspBehavior === 15;
  // The rule makes one for TrueType.
  if (!ranges?.ok || (isUsual && font.tables.has('glyf'))) return {};
  return {
    openTypeGaspRangeRecords: ranges.value.map((g) => ({
      rangeMaxPPEM: g.rangeMaxPPEM,
      rangeGaspBehavior: bitsOf([g.rangeGaspBehavior], 16),
    })),
  };
}

/** Leaves out what says nothing, or what the rule gives. */
function withoutRuled(r: FontReading, mvar: Mvar, facts: Facts): Facts {
  const out = { ...facts };
  const drop = (key: string, isRuled: boolean) => {
    if (isRuled) delete out[key];
  };
  const codes = [...r.characters.keys()].sort((a, b) => a - b);
  drop('openTypeOS2Type', isList(out.openTypeOS2Type));
  drop('openTypeOS2FamilyClass', isList(out.openTypeOS2FamilyClass, 0, 0));
  drop('openTypeOS2Panose', isList(out.openTypeOS2Panose, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0));
  drop('openTypeOS2UnicodeRanges', isList(out.openTypeOS2UnicodeRanges, ...bitsOf(unicodeRangeBits(codes), 32)));
  drop('openTypeOS2CodePageRanges', isList(out.openTypeOS2CodePageRanges, ...bitsOf(codePageBits(new Set(codes)), 32)));
  const flags = out.openTypeHeadFlags;
  if (Array.isArray(flags)) out.openTypeHeadFlags = flags.filter((b) => !OF_INSTRUCTIONS.includes(b as number));
  drop('openTypeHeadFlags', isList(out.openTypeHeadFlags, 0, 1));
  const isUpright = out.openTypeHheaCaretSlopeRise === 1 && out.openTypeHheaCaretSlopeRun === 0;
  if (isUpright && !mvar.tags.has('hcrn')) {
    delete out.openTypeHheaCaretSlopeRise;
    delete out.openTypeHheaCaretSlopeRun;
  }
  drop('openTypeHheaCaretOffset', out.openTypeHheaCaretOffset === 0);
  drop('postscriptIsFixedPitch', out.postscriptIsFixedPitch === isFixedPitch(r));
  return out;
}

/** As the rule has it: one advance for all that have characters. */
const isFixedPitch = ({ characters, metrics, numGlyphs }: FontReading): boolean => {
  const advances = new Set([...characters.values()].map((g) => metrics[g]?.advanceWidth ?? 0).filter((a) => a > 0));
  return advances.size === 1 && numGlyphs > 2;
};

/**
 * Names of the default’s font that neither family nor style give by rule: those that can be set outright, and records of all
 * others, in all languages. What only Macintosh systems of long ago read is left aside, and told where nothing else says it.
 */
export function namesStated(r: FontReading, project: Project, fixed: boolean): Lib {
  const master = project.masters[0]!;
  const { style } = familyAndStyle(r.names);
  const ruled = styleNames(project, { name: master.name, info: {} });
  const facts: Facts = {};
  const state = (key: string, value: string | undefined, rule: string | undefined) => {
    if (value !== undefined && value !== rule) facts[key] = value;
  };
  const of = (id: number) => nameOf(r.names, id);
  const link = linkedStyleOf(r, style);
  if (link !== undefined && link !== ruled.linkedStyle) facts.styleMapStyleName = link.toLowerCase();
  state('styleMapFamilyName', of(NAME_ID.family), ruled.linkedFamily);
  state('postscriptFontName', of(NAME_ID.postScript), ruled.postScriptName);
  state('postscriptFullName', of(NAME_ID.full), ruled.fullName);
  state('openTypeNameVersion', of(NAME_ID.version), ruled.version);
  state('openTypeNameUniqueID', of(NAME_ID.uniqueID), styleNames(project, { name: master.name, info: facts }).uniqueID);
  const info = { ...master.info, ...facts };
  const records = otherRecords(r, nameRecords(project, styleNames(project, { name: master.name, info }), info), fixed);
  return { ...facts, ...(records.length > 0 ? { openTypeNameRecords: records.map(statedName) } : {}) };
}

/** Which of four styles the font is: by its name where that is one of them, else by what is marked. Where both differ it is told. */
function linkedStyleOf(r: FontReading, style: string | undefined) {
  const subfamily = nameOf(r.names, NAME_ID.subfamily) ?? style;
  const named = linkOf(subfamily) ?? linkOf(subfamily?.replace(/oblique/i, 'Italic'));
  const bits = r.style.fsSelection;
  if (bits === undefined) return named;
  const [bold, italic] = [bits & FS_SELECTION.BOLD, bits & FS_SELECTION.ITALIC];
  const marked = bold ? (italic ? 'Bold Italic' : 'Bold') : italic ? 'Italic' : 'Regular';
  if (named && named !== marked && bits & (FS_SELECTION.BOLD | FS_SELECTION.ITALIC | FS_SELECTION.REGULAR))
    r.notes.push(`Its names call it ${named}, but it is marked as ${marked} (OS/2, fsSelection); the names hold.`);
  return named ?? marked;
}

const plain = (text: string): string => text.replace(/[\u0000-\u0008\u000b-\u001f]/g, '').trim();
const placeOf = (n: NameRecord): string => `${n.nameID} ${n.languageID}`;

function otherRecords(r: FontReading, ruled: readonly NameRecord[], fixed: boolean): NameRecord[] {
  const said = new Map(ruled.map((n) => [placeOf(n), plain(n.value)]));
  const referred = fixed ? namesReferredTo(r) : new Set<number>();
  const windows = r.names.filter((n) => n.platformID === 3);
  const has = new Set(windows.map((n) => n.nameID));
  const old = r.names.filter(
    (n) => n.platformID === 1 && n.nameID < 256 && !has.has(n.nameID) && !said.has(`${n.nameID} ${ENGLISH}`),
  );
  if (old.length > 0)
    r.notes.push(
      `${old.length === 1 ? 'One name' : `${old.length} names`} that only old Macintosh systems read ${old.length === 1 ? 'is' : 'are'} left aside.`,
    );
  const wanted = windows.filter((n) => {
    if (plain(n.value) === '' || said.get(placeOf(n)) === plain(n.value)) return false;
    if (n.nameID >= 256) return referred.has(n.nameID);
    // Made anew with the axes.
    return !(n.nameID === NAME_ID.variationsPrefix && r.font.tables.has('fvar'));
  });
  const byPlace = new Map(
    wanted.map((n) => [placeOf(n), { ...n, encodingID: 1, value: n.value.replaceAll('\u0000', '') }]),
  );
  return [...byPlace.values()];
}

/** Tables that are carried and may refer to names, in ways that are not looked into. */
const MAY_NAME = ['CPAL', 'feat', 'Feat', 'Silf'];

/** Numbers of names that what is carried refers to, or may refer to: not those of axes and instances, which are made anew. */
function namesReferredTo({ font, names }: FontReading): ReadonlySet<number> {
  if (MAY_NAME.some((tag) => font.tables.has(tag))) {
    const anew = font.tables.get('fvar') ? namesOfPlaces(font) : new Set<number>();
    return new Set(names.flatMap((n) => (anew.has(n.nameID) ? [] : [n.nameID])));
  }
  const of = (tag: string, extension: number): number[] => {
    const table = font.tables.get(tag);
    const layout = table ? attempt(() => readLayout(table, tag, extension)) : undefined;
    return layout?.ok ? layout.value.features.flatMap((f) => (f.says ? featureParams.names(f.says) : [])) : [];
  };
  return new Set([...of('GSUB', GSUB_EXTENSION), ...of('GPOS', GPOS_EXTENSION)]);
}

function namesOfPlaces({ tables }: FontReading['font']): ReadonlySet<number> {
  const [fvar, stat] = [tables.get('fvar'), tables.get('STAT')];
  const places = attempt(() => {
    const { axes, instances } = fvar ? readFvar(fvar) : { axes: [], instances: [] };
    const style = stat ? [...readStat(stat).map((v) => v.nameID), ...jointNames(stat)] : [];
    return [...axes.map((a) => a.nameID), ...instances.flatMap((i) => [i.nameID, i.postScriptNameID ?? 0]), ...style];
  });
  return new Set(places.ok ? places.value : []);
}
