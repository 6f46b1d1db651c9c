import type { NameRecord } from '../opentype/name';
import type { Lib, LibValue } from '../project/model';

/**
 * Facts that a source states about a master, by the names that `fontinfo.plist` (UFO 3) has for them, and the fields of tables
 * that hold them. One list serves both ways: reading a font states what its tables say, casting writes what is stated. What is
 * stated wins over the rule.
 */
export type StatedTable = 'OS/2' | 'head' | 'hhea' | 'vhea' | 'post';

/** How a fact is said: a number, a truth, a list of bytes, or the bits that are set in fields of so many bits, lowest first. */
type Said = 'number' | 'truth' | 'bytes' | 'class' | { bits: number };
type Fact = readonly [info: string, table: StatedTable, fields: readonly string[], said: Said];

const numbers = (table: StatedTable, prefix: string, fields: Readonly<Record<string, string>>): Fact[] =>
  Object.entries(fields).map(([info, field]): Fact => [`${prefix}${info}`, table, [field], 'number']);
const CARET = { CaretSlopeRise: 'caretSlopeRise', CaretSlopeRun: 'caretSlopeRun', CaretOffset: 'caretOffset' };

const FACTS: readonly Fact[] = [
  ...numbers('OS/2', 'openTypeOS2', {
    SubscriptXSize: 'ySubscriptXSize',
    SubscriptYSize: 'ySubscriptYSize',
    SubscriptXOffset: 'ySubscriptXOffset',
    SubscriptYOffset: 'ySubscriptYOffset',
    SuperscriptXSize: 'ySuperscriptXSize',
    SuperscriptYSize: 'ySuperscriptYSize',
    SuperscriptXOffset: 'ySuperscriptXOffset',
    SuperscriptYOffset: 'ySuperscriptYOffset',
    StrikeoutSize: 'yStrikeoutSize',
    StrikeoutPosition: 'yStrikeoutPosition',
  }),
  ['openTypeOS2FamilyClass', 'OS/2', ['sFamilyClass'], 'class'],
  ['openTypeOS2Panose', 'OS/2', ['panose'], 'bytes'],
  ['openTypeOS2Type', 'OS/2', ['fsType'], { bits: 16 }],
  [
    'openTypeOS2UnicodeRanges',
    'OS/2',
    ['ulUnicodeRange1', 'ulUnicodeRange2', 'ulUnicodeRange3', 'ulUnicodeRange4'],
    { bits: 32 },
  ],
  ['openTypeOS2CodePageRanges', 'OS/2', ['ulCodePageRange1', 'ulCodePageRange2'], { bits: 32 }],
  ['openTypeHeadFlags', 'head', ['flags'], { bits: 16 }],
  ['openTypeHeadLowestRecPPEM', 'head', ['lowestRecPPEM'], 'number'],
  ...numbers('hhea', 'openTypeHhea', CARET),
  ...numbers('vhea', 'openTypeVhea', {
    VertTypoAscender: 'vertTypoAscender',
    VertTypoDescender: 'vertTypoDescender',
    VertTypoLineGap: 'vertTypoLineGap',
    ...CARET,
  }),
  ...numbers('post', 'postscript', {
    UnderlinePosition: 'underlinePosition',
    UnderlineThickness: 'underlineThickness',
  }),
  ['postscriptIsFixedPitch', 'post', ['isFixedPitch'], 'truth'],
];

/** Facts that are lengths, and so in between where masters are. */
export const STATED_LENGTHS: readonly string[] = FACTS.flatMap(([key, table, , said]) =>
  said === 'number' && table !== 'head' ? [key] : [],
);

/** The height at which a glyph begins where lines run down, as sources keep it with a drawing. */
export const VERTICAL_ORIGIN = 'public.verticalOrigin';

/** A number that is stated about a master, where it fits its 16 bits. */
export const statedNumber = (info: Lib | undefined, key: string): number | undefined => {
  const v = info?.[key];
  return typeof v === 'number' && Math.abs(v) <= 32767 ? Math.round(v) : undefined;
};

/** The bits of a list, in words of so many; undefined where no list is stated. */
export function statedBits(info: Lib | undefined, key: string, words = 1, bits = 16): number[] | undefined {
  const list = info?.[key];
  if (!Array.isArray(list)) return undefined;
  const out = new Array<number>(words).fill(0);
  for (const bit of new Set(list))
    if (typeof bit === 'number' && Number.isInteger(bit) && bit >= 0 && bit < words * bits)
      out[Math.floor(bit / bits)]! += 2 ** (bit % bits);
  return out;
}

/** The bits that are set in fields, as a list. */
export const bitsOf = (fields: readonly number[], bits: number): number[] =>
  fields.flatMap((word, k) =>
    Array.from({ length: bits }, (_, i) => i).flatMap((i) =>
      Math.floor((word >>> 0) / 2 ** i) % 2 === 1 ? [k * bits + i] : [],
    ),
  );

/** What is stated for the fields of a table; fields of which nothing is stated, or what none could hold, are absent. */
export function statedFields<T extends object>(info: Lib | undefined, table: StatedTable): Partial<T> {
  const out: Record<string, unknown> = {};
  for (const [key, of, fields, said] of FACTS) {
    if (of !== table || info?.[key] === undefined) continue;
    const value = info[key]!;
    if (typeof said === 'object') {
      statedBits(info, key, fields.length, said.bits)?.forEach((word, i) => {
        out[fields[i]!] = word;
      });
    } else {
      const one = fieldOf(said, value, statedNumber(info, key));
      if (one !== undefined) out[fields[0]!] = one;
    }
  }
  return out as Partial<T>;
}

function fieldOf(said: Exclude<Said, object>, value: LibValue, number: number | undefined): unknown {
  if (said === 'number') return number;
  if (said === 'truth') return typeof value === 'boolean' ? Number(value) : undefined;
  if (!Array.isArray(value)) return undefined;
  const bytes = value.map((v) => (typeof v === 'number' ? v & 255 : 0));
  if (said === 'bytes') return bytes.length === 10 ? bytes : undefined;
  if (bytes.length !== 2) return undefined;
  const both = (bytes[0]! << 8) | bytes[1]!;
  return both > 32767 ? both - 65536 : both;
}

/** The facts that the fields of a table state, by their names; fields that a table does not have state nothing. */
export function factsOf(table: StatedTable, record: object): Record<string, LibValue> {
  const has = record as Readonly<Record<string, number | readonly number[] | undefined>>;
  return Object.fromEntries(
    FACTS.flatMap(([key, of, fields, said]): [string, LibValue][] => {
      const value = has[fields[0]!];
      if (of !== table || value === undefined) return [];
      if (typeof said === 'object')
        return [
          [
            key,
            bitsOf(
              fields.map((f) => (has[f] ?? 0) as number),
              said.bits,
            ),
          ],
        ];
      if (said === 'bytes') return [[key, [...(value as readonly number[])]]];
      if (said === 'truth') return [[key, value !== 0]];
      if (said === 'class') return [[key, [((value as number) >> 8) & 255, (value as number) & 255]]];
      return [[key, value as number]];
    }),
  );
}

/** `openTypeNameRecords`: names that are stated record by record; what is none is left out. */
export function statedNames(info: Lib | undefined): NameRecord[] {
  const list = info?.openTypeNameRecords;
  if (!Array.isArray(list)) return [];
  return list.flatMap((entry): NameRecord[] => {
    if (typeof entry !== 'object' || entry === null || Array.isArray(entry) || entry instanceof Uint8Array) return [];
    const at = (key: string): number | undefined => {
      const v = (entry as Lib)[key];
      return typeof v === 'number' && Number.isInteger(v) && v >= 0 && v <= 0xffff ? v : undefined;
    };
    const [nameID, platformID, encodingID, languageID] = ['nameID', 'platformID', 'encodingID', 'languageID'].map(at);
    const value = (entry as Lib).string;
    return nameID === undefined ||
      platformID === undefined ||
      encodingID === undefined ||
      languageID === undefined ||
      typeof value !== 'string'
      ? []
      : [{ nameID, platformID, encodingID, languageID, value }];
  });
}

/** A record of the name table as it is stated. */
export const statedName = ({ value, ...rest }: NameRecord): Lib => ({ ...rest, string: value });

/** `openTypeGaspRangeRecords` as a table of so many sizes; undefined where none are stated. */
export function statedGasp(info: Lib | undefined): { rangeMaxPPEM: number; rangeGaspBehavior: number }[] | undefined {
  const list = info?.openTypeGaspRangeRecords;
  if (!Array.isArray(list) || list.length === 0) return undefined;
  const ranges = list.flatMap((entry) => {
    if (typeof entry !== 'object' || entry === null || Array.isArray(entry) || entry instanceof Uint8Array) return [];
    const most = (entry as Lib).rangeMaxPPEM;
    const [bits] = statedBits(entry as Lib, 'rangeGaspBehavior') ?? [];
    return typeof most === 'number' && most >= 0 && most <= 0xffff && bits !== undefined
      ? [{ rangeMaxPPEM: Math.round(most), rangeGaspBehavior: bits }]
      : [];
  });
  return ranges.length > 0 ? ranges.sort((a, b) => a.rangeMaxPPEM - b.rangeMaxPPEM) : undefined;
}
