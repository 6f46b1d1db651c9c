import { familyAndStyle, nameOf } from '../fontfacts/fontNames';
import { readFvar } from '../opentype/fvar';
import { head } from '../opentype/head';
import { NAME_ID, name } from '../opentype/name';
import { FS_SELECTION, os2 } from '../opentype/os2';
import { post } from '../opentype/post';
import { type Sfnt, tableOf } from '../opentype/sfnt';

/** What a finished font says it is. Names that a font does not have are undefined. */
export type FontFacts = {
  /** Family and style as they are meant. */
  family: string | undefined;
  style: string | undefined;
  /** The names of four-style families, with which older programs sort. */
  linkedFamily: string | undefined;
  linkedStyle: string | undefined;
  typographicFamily: string | undefined;
  typographicStyle: string | undefined;
  fullName: string | undefined;
  postScriptName: string | undefined;
  version: string | undefined;
  uniqueID: string | undefined;
  vendor: string;
  weightClass: number;
  widthClass: number;
  /** Degrees counter-clockwise; negative for letters that lean to the right. */
  slope: number;
  isItalic: boolean;
  isBold: boolean;
  isRegular: boolean;
  macBold: boolean;
  macItalic: boolean;
  revision: number;
  axes: readonly string[];
  instances: readonly string[];
  signed: boolean;
};

/** Reads what a font says of itself. */
export function readFontFacts(font: Sfnt): FontFacts {
  const records = name.read(tableOf(font, 'name'));
  const header = head.read(tableOf(font, 'head'));
  const style = os2.read(tableOf(font, 'OS/2'));
  const selection = style.fsSelection ?? 0;
  const fvar = font.tables.has('fvar') ? readFvar(font.tables.get('fvar')!) : undefined;
  const text = (id: number) => nameOf(records, id);
  return {
    ...familyAndStyle(records),
    linkedFamily: text(NAME_ID.family),
    linkedStyle: text(NAME_ID.subfamily),
    typographicFamily: text(NAME_ID.typographicFamily),
    typographicStyle: text(NAME_ID.typographicSubfamily),
    fullName: text(NAME_ID.full),
    postScriptName: text(NAME_ID.postScript),
    version: text(NAME_ID.version),
    uniqueID: text(NAME_ID.uniqueID),
    vendor: (style.achVendID ?? '').trim(),
    weightClass: style.usWeightClass ?? 400,
    widthClass: style.usWidthClass ?? 5,
    slope: font.tables.has('post') ? post.read(font.tables.get('post')!).italicAngle : 0,
    isItalic: (selection & FS_SELECTION.ITALIC) !== 0,
    isBold: (selection & FS_SELECTION.BOLD) !== 0,
    isRegular: (selection & FS_SELECTION.REGULAR) !== 0,
    macBold: (header.macStyle & 1) !== 0,
    macItalic: (header.macStyle & 2) !== 0,
    revision: header.fontRevision,
    axes: fvar?.axes.map((a) => a.tag) ?? [],
    instances: fvar?.instances.map((i) => text(i.nameID) ?? '') ?? [],
    signed: font.tables.has('DSIG'),
  };
}
