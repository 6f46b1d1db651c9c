import { nameOf } from '../fontfacts/fontNames';
import { postScriptSafe, ruledNames, type StyleNames, styleNames } from '../fontfacts/names';
import { readFvar } from '../opentype/fvar';
import { head } from '../opentype/head';
import { NAME_ID, type NameRecord, name } from '../opentype/name';
import { FS_SELECTION, os2 } from '../opentype/os2';
import { type Sfnt, tableOf, writeSfnt } from '../opentype/sfnt';
import { readFontFacts } from './facts';

/** What is asked for: family and style, from which the rest follows; any of the rest may be said outright. */
export type Naming = { family: string; style: string } & Partial<
  Pick<
    StyleNames,
    | 'linkedFamily'
    | 'linkedStyle'
    | 'fullName'
    | 'postScriptName'
    | 'weightClass'
    | 'widthClass'
    | 'version'
    | 'uniqueID'
  >
>;

export type Renamed = { bytes: Uint8Array; names: StyleNames; notes: string[] };

const RULED: readonly number[] = [
  NAME_ID.family,
  NAME_ID.subfamily,
  NAME_ID.uniqueID,
  NAME_ID.full,
  NAME_ID.version,
  NAME_ID.postScript,
  NAME_ID.typographicFamily,
  NAME_ID.typographicSubfamily,
];
/** Names of families by weight, width and slope; with typographic names they only repeat. */
const WWS = [21, 22, 25];

/** The names that follow for a font, without writing it. A weight or width that the style does not name stays as it is. */
export function namesFor(font: Sfnt, naming: Naming): StyleNames {
  const facts = readFontFacts(font);
  const [major, minor] = [Math.floor(facts.revision), Math.round((facts.revision % 1) * 1000)];
  const ruled = styleNames(
    {
      family: {
        name: naming.family,
        names: {},
        versionMajor: major,
        versionMinor: minor,
        ...(facts.vendor ? { vendor: facts.vendor } : {}),
      },
    },
    { name: naming.style, info: {} },
  );
  const own = Object.fromEntries(
    Object.entries(naming).filter(([key, v]) => v !== undefined && key in ruled),
  ) as Partial<StyleNames>;
  // A variable font's classes are those of its default, whatever its style is called.
  const classes = facts.axes.length > 0 ? { weightClass: facts.weightClass, widthClass: facts.widthClass } : {};
  const linked = own.linkedStyle ?? ruled.linkedStyle;
  const [bold, italic] = [linked.includes('Bold'), linked.includes('Italic')];
  const kept = os2.read(tableOf(font, 'OS/2')).fsSelection ?? 0;
  const marks = FS_SELECTION.ITALIC | FS_SELECTION.BOLD | FS_SELECTION.REGULAR;
  return {
    ...ruled,
    version: facts.version ?? ruled.version,
    ...classes,
    ...own,
    fsSelection:
      (kept & ~marks) |
      (italic ? FS_SELECTION.ITALIC : 0) |
      (bold ? FS_SELECTION.BOLD : 0) |
      (!bold && !italic ? FS_SELECTION.REGULAR : 0),
    macStyle: (bold ? 1 : 0) | (italic ? 2 : 0),
  };
}

/**
 * Gives a font new names: `name`, and what `OS/2` and `head` say of weight, width, bold and italic. All other tables come
 * out byte for byte as they were, but for a signature, which would no longer hold.
 */
export function renameFont(font: Sfnt, naming: Naming): Renamed {
  const names = namesFor(font, naming);
  const notes: string[] = [];
  const tables = new Map(font.tables);
  const records = name.read(tableOf(font, 'name'));
  const ruled = ruledNames(names).map(([id, value]): [number, string | undefined] => [
    id,
    value ?? pointedAt(font, records, id, names),
  ]);
  const untrue = records.filter(
    (r) =>
      RULED.includes(r.nameID) &&
      !isEnglish(r) &&
      nameOf(records, r.nameID) !== ruled.find(([id]) => id === r.nameID)?.[1],
  );
  if (untrue.length > 0)
    notes.push(
      `${untrue.length} ${untrue.length === 1 ? 'name' : 'names'} in other languages went with what they translate.`,
    );
  const kept = records.filter(
    (r) => !WWS.includes(r.nameID) && !untrue.includes(r) && !(RULED.includes(r.nameID) && isEnglish(r)),
  );
  tables.set('name', name.write(withInstances(font, [...kept, ...englishNames(records, ruled)], names.family)));
  const old = head.read(tableOf(font, 'head'));
  // The checksum is set when the file is put together.
  tables.set('head', head.write({ ...old, macStyle: (old.macStyle & ~3) | names.macStyle, checksumAdjustment: 0 }));
  tables.set('OS/2', patchedOs2(tableOf(font, 'OS/2'), names));
  if (tables.delete('DSIG')) notes.push('The digital signature was dropped; it does not hold for a changed file.');
  return { bytes: writeSfnt(font.version, tables), names, notes };
}

const isEnglish = (r: NameRecord): boolean =>
  r.platformID === 3 ? (r.languageID & 0x3ff) === 9 : r.platformID === 1 ? r.languageID === 0 : true;

/** In a variable font axes and instances may point at the typographic names: they stay where they were, though they repeat. */
function pointedAt(font: Sfnt, records: readonly NameRecord[], id: number, names: StyleNames): string | undefined {
  if (!font.tables.has('fvar') || nameOf(records, id) === undefined) return undefined;
  return id === NAME_ID.typographicFamily
    ? names.family
    : id === NAME_ID.typographicSubfamily
      ? names.style
      : undefined;
}

/** The ruled names for every platform and kind of English that the font speaks. */
function englishNames(
  records: readonly NameRecord[],
  ruled: readonly (readonly [id: number, value: string | undefined])[],
): NameRecord[] {
  const spoken = new Map<string, NameRecord>();
  for (const r of records) if (isEnglish(r)) spoken.set(`${r.platformID} ${r.encodingID} ${r.languageID}`, r);
  if (spoken.size === 0) spoken.set('', { platformID: 3, encodingID: 1, languageID: 0x409, nameID: 0, value: '' });
  return [...spoken.values()].flatMap(({ platformID, encodingID, languageID }) =>
    ruled.flatMap(([nameID, value]) =>
      value ? [{ platformID, encodingID, languageID, nameID, value: platformID === 1 ? plain(value) : value }] : [],
    ),
  );
}

/** PostScript names of a variable font's instances begin with the family; they follow it. */
function withInstances(font: Sfnt, records: readonly NameRecord[], family: string): NameRecord[] {
  const fvar = font.tables.get('fvar');
  const instances = fvar ? readFvar(fvar).instances : [];
  const wanted = new Map(
    instances.flatMap((i) => {
      const style = nameOf(records, i.nameID);
      return i.postScriptNameID === undefined || i.postScriptNameID < 256 || i.postScriptNameID === 0xffff || !style
        ? []
        : [[i.postScriptNameID, postScriptSafe(`${family.replace(/\s+/g, '')}-${style.replace(/\s+/g, '')}`)] as const];
    }),
  );
  return records.map((r) => (wanted.has(r.nameID) ? { ...r, value: wanted.get(r.nameID)! } : r));
}

/** Macintosh strings are written in plain ASCII. */
const plain = (value: string): string =>
  value
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/[^\x20-\x7e]/g, '?');

/** Weight class, width class and selection stand at fixed places in every version of the table. */
function patchedOs2(bytes: Uint8Array, names: StyleNames): Uint8Array {
  const out = new Uint8Array(bytes);
  const view = new DataView(out.buffer);
  view.setUint16(4, names.weightClass);
  view.setUint16(6, names.widthClass);
  view.setUint16(62, names.fsSelection);
  return out;
}
