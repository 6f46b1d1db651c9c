import { NAME_ID, type NameRecord } from '../opentype/name';
import { ENGLISH, languageIdOf } from '../opentype/nameLanguages';
import { FS_SELECTION } from '../opentype/os2';
import type { Lib, LibValue, Master, Project } from '../project/model';
import { versionText } from '../project/statedNames';
import { statedBits, statedNames } from './stated';

/** Everything a font says about who it is, derived by rule from family and style, overridden by source facts. */
export type StyleNames = {
  family: string;
  style: string;
  /** Family and subfamily for programs that know four styles only. */
  linkedFamily: string;
  linkedStyle: 'Regular' | 'Italic' | 'Bold' | 'Bold Italic';
  fullName: string;
  postScriptName: string;
  version: string;
  uniqueID: string;
  weightClass: number;
  widthClass: number;
  fsSelection: number;
  macStyle: number;
};

const STYLE_BITS = FS_SELECTION.ITALIC | FS_SELECTION.BOLD | FS_SELECTION.REGULAR;

export const WEIGHTS: readonly (readonly [word: RegExp, weight: number])[] = [
  [/\b(extra|ultra)[ -]?light\b/i, 200],
  [/\b(semi|demi)[ -]?bold\b/i, 600],
  [/\b(extra|ultra)[ -]?bold\b/i, 800],
  [/\b(extra|ultra)[ -]?black\b/i, 950],
  [/\b(thin|hairline)\b/i, 100],
  [/\blight\b/i, 300],
  [/\bmedium\b/i, 500],
  [/\bbold\b/i, 700],
  [/\bheavy\b/i, 800],
  [/\bblack\b/i, 900],
];

export const WIDTHS: readonly (readonly [word: RegExp, width: number])[] = [
  [/\bultra[ -]?condensed\b/i, 1],
  [/\bextra[ -]?condensed\b/i, 2],
  [/\bsemi[ -]?condensed\b/i, 4],
  [/\b(condensed|narrow|compressed)\b/i, 3],
  [/\bsemi[ -]?expanded\b/i, 6],
  [/\bextra[ -]?expanded\b/i, 8],
  [/\bultra[ -]?expanded\b/i, 9],
  [/\b(expanded|extended|wide)\b/i, 7],
];

const text = (v: LibValue | undefined): string | undefined =>
  typeof v === 'string' && v.trim() !== '' ? v : undefined;
const whole = (v: LibValue | undefined, low: number, high: number): number | undefined =>
  typeof v === 'number' && v >= low && v <= high ? Math.round(v) : undefined;

/** A PostScript name: printable ASCII without the ten delimiters, at most 63 characters. */
export const postScriptSafe = (name: string): string =>
  name
    .normalize('NFKD')
    .replace(/[^\x21-\x7e]/g, '')
    .replace(/[[\](){}<>/%]/g, '')
    .slice(0, 63);

const LINKS = ['Regular', 'Italic', 'Bold', 'Bold Italic'] as const;

/** Which of the four styles that older programs know a word is; undefined for any other. */
export const linkOf = (word: string | undefined): StyleNames['linkedStyle'] | undefined =>
  LINKS.find((l) => l.toLowerCase() === word?.trim().toLowerCase());

/** Bits of the selection that are no style: as stated, else lines by the typographic metrics. */
const selection = (info: Lib): number =>
  (statedBits(info, 'openTypeOS2Selection')?.[0] ?? FS_SELECTION.USE_TYPO_METRICS) & ~STYLE_BITS;

/**
 * Names of one master's font. A style made only of Regular, Bold and Italic links within its family; any other style
 * becomes a family of its own for old programs, with the typographic names telling the truth.
 */
export function styleNames(project: Pick<Project, 'family'>, master: Pick<Master, 'name' | 'info'>): StyleNames {
  const info: Lib = master.info ?? {};
  const family = text(info.openTypeNamePreferredFamilyName) ?? project.family.name;
  const style = text(info.openTypeNamePreferredSubfamilyName) ?? (master.name.trim() || 'Regular');
  const italic = /\b(italic|oblique)\b/i.test(style);
  const rest = style.replace(/\b(regular|italic|oblique|bold)\b/gi, ' ').trim();
  const semi = /\b(semi|demi|extra|ultra)[ -]?bold\b/i.test(style);
  const bold = /\bbold\b/i.test(style) && !semi;
  const ribbi = rest === '' && !semi;
  const extra = ribbi
    ? ''
    : ` ${style
        .replace(/\b(italic|oblique)\b/gi, ' ')
        .replace(/\bregular\b/gi, ' ')
        .replace(/\s+/g, ' ')
        .trim()}`;
  const linkedStyle = ribbi && bold ? (italic ? 'Bold Italic' : 'Bold') : italic ? 'Italic' : 'Regular';
  const mapped = text(info.styleMapStyleName);
  const chosen = linkOf(mapped) ?? linkedStyle;
  const postScriptName =
    text(info.postscriptFontName) ?? postScriptSafe(`${family.replace(/\s+/g, '')}-${style.replace(/\s+/g, '')}`);
  const version = versionText(project.family);
  const isBold = chosen.includes('Bold');
  const isItalic = chosen.includes('Italic');
  return {
    family,
    style,
    linkedFamily: text(info.styleMapFamilyName) ?? `${family}${extra}`.trim(),
    linkedStyle: chosen,
    fullName: text(info.postscriptFullName) ?? `${family} ${style}`,
    postScriptName: postScriptSafe(postScriptName) || 'Untitled',
    version: text(info.openTypeNameVersion) ?? `Version ${version}`,
    uniqueID:
      text(info.openTypeNameUniqueID) ??
      `${version};${(project.family.vendor ?? 'NONE').slice(0, 4)};${postScriptSafe(postScriptName)}`,
    weightClass: whole(info.openTypeOS2WeightClass, 1, 1000) ?? WEIGHTS.find(([word]) => word.test(style))?.[1] ?? 400,
    widthClass: whole(info.openTypeOS2WidthClass, 1, 9) ?? WIDTHS.find(([word]) => word.test(style))?.[1] ?? 5,
    fsSelection:
      selection(info) |
      (isItalic ? FS_SELECTION.ITALIC : 0) |
      (isBold ? FS_SELECTION.BOLD : 0) |
      (!isBold && !isItalic ? FS_SELECTION.REGULAR : 0),
    macStyle: (isBold ? 1 : 0) | (isItalic ? 2 : 0),
  };
}

/** The names that follow from family and style; typographic ones only where they say more than the linked ones. */
export function ruledNames(names: StyleNames): [nameID: number, value: string | undefined][] {
  const typographic = names.linkedFamily !== names.family || names.linkedStyle !== names.style;
  return [
    [NAME_ID.family, names.linkedFamily],
    [NAME_ID.subfamily, names.linkedStyle],
    [NAME_ID.uniqueID, names.uniqueID],
    [NAME_ID.full, names.fullName],
    [NAME_ID.version, names.version],
    [NAME_ID.postScript, names.postScriptName],
    [NAME_ID.typographicFamily, typographic ? names.family : undefined],
    [NAME_ID.typographicSubfamily, typographic ? names.style : undefined],
  ];
}

/** Names that a source states by themselves, and that nothing else here says. */
const STATED_NAMES = [
  [NAME_ID.compatibleFull, 'openTypeNameCompatibleFullName'],
  [NAME_ID.wwsFamily, 'openTypeNameWWSFamilyName'],
  [NAME_ID.wwsSubfamily, 'openTypeNameWWSSubfamilyName'],
] as const;

/**
 * The name table's records for Windows, English first, other family names in their languages. Records that the source states one
 * by one come last, and hold over those before.
 */
export function nameRecords(project: Project, names: StyleNames, info: Lib = {}): NameRecord[] {
  const { family } = project;
  const record = (nameID: number, value: string, languageID = ENGLISH): NameRecord => ({
    platformID: 3,
    encodingID: 1,
    languageID,
    nameID,
    value,
  });
  const entries: [number, string | undefined][] = [
    [NAME_ID.copyright, family.copyright],
    ...ruledNames(names),
    [NAME_ID.trademark, family.trademark],
    [NAME_ID.manufacturer, family.manufacturer],
    [NAME_ID.designer, family.designer],
    [NAME_ID.description, family.description],
    [NAME_ID.vendorURL, family.vendorURL],
    [NAME_ID.designerURL, family.designerURL],
    [NAME_ID.licence, family.licence],
    [NAME_ID.licenceURL, family.licenceURL],
    [NAME_ID.sampleText, family.sampleText],
    ...STATED_NAMES.map(([id, key]): [number, string | undefined] => [id, text(info[key])]),
  ];
  const records = entries.flatMap(([id, value]) => (value ? [record(id, value)] : []));
  for (const [tag, value] of Object.entries(family.names)) {
    const language = languageIdOf(tag);
    if (language !== undefined && language !== ENGLISH && value) records.push(record(NAME_ID.family, value, language));
  }
  return [...records, ...statedNames(info)];
}
