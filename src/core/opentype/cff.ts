import { Writer } from './binary';
import standard from './cffStandard.json';

/** Number of predefined strings; own strings are numbered from here (Adobe Technical Note 5176, appendix A). */
export const STANDARD_STRINGS = 391;

export const OP = {
  version: 0,
  Notice: 1,
  FullName: 2,
  FamilyName: 3,
  Weight: 4,
  FontBBox: 5,
  BlueValues: 6,
  OtherBlues: 7,
  StdHW: 10,
  StdVW: 11,
  charset: 15,
  CharStrings: 17,
  Private: 18,
  Subrs: 19,
  defaultWidthX: 20,
  nominalWidthX: 21,
  FontMatrix: 0x0c07,
  ROS: 0x0c1e,
  FDArray: 0x0c24,
  FDSelect: 0x0c25,
  vstore: 24,
} as const;

export type CffInfo = {
  postScriptName: string;
  fullName: string;
  familyName: string;
  weight: string;
  version: string;
  notice: string;
  unitsPerEm: number;
  fontBBox: readonly [number, number, number, number];
  /** Pairs of bottom and top of alignment zones, the baseline's first, rising. */
  blueValues: readonly number[];
  otherBlues: readonly number[];
  stdHW?: number | undefined;
  stdVW?: number | undefined;
  defaultWidthX: number;
  nominalWidthX: number;
};

/** Shared parts of charstrings by their numbers: for the whole file, and for its one private dictionary. */
export type Subroutines = { global: readonly Uint8Array[]; local: readonly Uint8Array[] };
const NONE: Subroutines = { global: [], local: [] };

/** A Compact Font Format table from charstrings in glyph order (the first is `.notdef`), their names and subroutines. */
export function writeCff(
  info: CffInfo,
  glyphNames: readonly string[],
  charstrings: readonly Uint8Array[],
  subroutines: Subroutines = NONE,
): Uint8Array {
  const strings: string[] = [];
  const sid = (text: string) => STANDARD_STRINGS + strings.push(text) - 1;
  const named = writeCharset(glyphNames.slice(1));
  const { charset } = named;
  strings.push(...named.strings);
  const top = new Writer();
  if (info.version) dictNumber(top, sid(info.version)).uint8(OP.version);
  if (info.notice) dictNumber(top, sid(info.notice)).uint8(OP.Notice);
  dictNumber(top, sid(info.fullName)).uint8(OP.FullName);
  dictNumber(top, sid(info.familyName)).uint8(OP.FamilyName);
  dictNumber(top, sid(info.weight)).uint8(OP.Weight);
  for (const v of info.fontBBox) dictNumber(top, v);
  top.uint8(OP.FontBBox);
  if (info.unitsPerEm !== 1000) {
    for (const v of [1 / info.unitsPerEm, 0, 0, 1 / info.unitsPerEm, 0, 0]) dictReal(top, v);
    top.uint16(OP.FontMatrix);
  }
  const privateDict = writePrivate(info, subroutines.local.length > 0);
  const nameIndex = writeIndex([ascii(info.postScriptName)]);
  const stringIndex = writeIndex(strings.map(ascii));
  const globalSubrs = writeIndex(subroutines.global);
  const localSubrs = subroutines.local.length > 0 ? writeIndex(subroutines.local) : new Uint8Array();
  // Offsets in the top dictionary are written five bytes wide, so its size is known before their values are.
  const topSize = top.length + 6 + 6 + 11;
  const fixed = 4 + nameIndex.length + indexSize([topSize]) + stringIndex.length + globalSubrs.length;
  const charsetAt = fixed;
  const charStringsIndex = writeIndex(charstrings);
  const charStringsAt = charsetAt + charset.length;
  const privateAt = charStringsAt + charStringsIndex.length;
  dictOffset(top, charsetAt).uint8(OP.charset);
  dictOffset(top, charStringsAt).uint8(OP.CharStrings);
  dictOffset(dictOffset(top, privateDict.length), privateAt).uint8(OP.Private);

  return new Writer()
    .raw([1, 0, 4, 4])
    .raw(nameIndex)
    .raw(writeIndex([top.toBytes()]))
    .raw(stringIndex)
    .raw(globalSubrs)
    .raw(charset)
    .raw(charStringsIndex)
    .raw(privateDict)
    .raw(localSubrs)
    .toBytes();
}

const standardNumber = new Map(standard.standardStrings.split(' ').map((text, i) => [text, i]));

/**
 * The charset of glyphs after the first, and the strings it needs (Adobe Technical Note 5176, 13): names of the standard
 * strings by their numbers or all names as own strings in glyph order, runs of numbers in the format that is shortest.
 */
function writeCharset(names: readonly string[]): { charset: Uint8Array; strings: string[] } {
  const own = names.filter((n) => !standardNumber.has(n));
  let next = STANDARD_STRINGS;
  const mixed = names.map((n) => standardNumber.get(n) ?? next++);
  const all = names.map((_, i) => STANDARD_STRINGS + i);
  const choices = [
    { numbers: mixed, strings: own },
    { numbers: all, strings: [...names] },
  ].flatMap(({ numbers, strings }) => [0, 1, 2].map((format) => ({ charset: charsetBytes(numbers, format), strings })));
  const cost = (c: { charset: Uint8Array; strings: readonly string[] }) =>
    c.charset.length + c.strings.reduce((sum, s) => sum + s.length + 2, 0);
  return choices.reduce((best, c) => (cost(c) < cost(best) ? c : best));
}

function charsetBytes(numbers: readonly number[], format: number): Uint8Array {
  const out = new Writer().uint8(format);
  if (format === 0) {
    for (const n of numbers) out.uint16(n);
    return out.toBytes();
  }
  const longest = format === 1 ? 255 : 65535;
  for (let i = 0; i < numbers.length; ) {
    let more = 0;
    while (more < longest && numbers[i + more + 1] === numbers[i]! + more + 1) more++;
    out.uint16(numbers[i]!);
    if (format === 1) out.uint8(more);
    else out.uint16(more);
    i += more + 1;
  }
  return out.toBytes();
}

function writePrivate(info: CffInfo, hasSubroutines: boolean): Uint8Array {
  const out = new Writer();
  const deltas = (values: readonly number[], op: number) => {
    if (values.length === 0) return;
    values.forEach((v, i) => {
      dictNumber(out, v - (values[i - 1] ?? 0));
    });
    out.uint8(op);
  };
  deltas(info.blueValues, OP.BlueValues);
  deltas(info.otherBlues, OP.OtherBlues);
  if (info.stdHW !== undefined) dictNumber(out, info.stdHW).uint8(OP.StdHW);
  if (info.stdVW !== undefined) dictNumber(out, info.stdVW).uint8(OP.StdVW);
  dictNumber(out, info.defaultWidthX).uint8(OP.defaultWidthX);
  dictNumber(out, info.nominalWidthX).uint8(OP.nominalWidthX);
  // Local subroutines follow the dictionary; where, it says in its own last six bytes.
  if (hasSubroutines) dictOffset(out, out.length + 6).uint8(OP.Subrs);
  return out.toBytes();
}

const ascii = (text: string): Uint8Array =>
  Uint8Array.from([...text].map((c) => (c.charCodeAt(0) > 126 || c.charCodeAt(0) < 32 ? 63 : c.charCodeAt(0))));

function dictNumber(out: Writer, v: number): Writer {
  if (!Number.isInteger(v)) return dictReal(out, v);
  if (v >= -107 && v <= 107) return out.uint8(v + 139);
  if (v >= 108 && v <= 1131) return out.uint8(247 + ((v - 108) >> 8)).uint8((v - 108) & 255);
  if (v >= -1131 && v <= -108) return out.uint8(251 + ((-v - 108) >> 8)).uint8((-v - 108) & 255);
  if (v >= -32768 && v <= 32767) return out.uint8(28).int16(v);
  return out.uint8(29).uint32(v >>> 0);
}

const dictOffset = (out: Writer, v: number): Writer => out.uint8(29).uint32(v);

/** A real number as packed decimal digits. */
function dictReal(out: Writer, v: number): Writer {
  const text = String(v).replace('e-', 'c').replace('e+', 'b').replace('e', 'b');
  const nibbles = [...text].map((c) => (c === '.' ? 10 : c === 'b' ? 11 : c === 'c' ? 12 : c === '-' ? 14 : Number(c)));
  nibbles.push(15);
  if (nibbles.length % 2) nibbles.push(15);
  out.uint8(30);
  for (let i = 0; i < nibbles.length; i += 2) out.uint8(nibbles[i]! * 16 + nibbles[i + 1]!);
  return out;
}

const offsetSize = (total: number) => (total < 256 ? 1 : total < 65536 ? 2 : total < 2 ** 24 ? 3 : 4);

function indexSize(lengths: readonly number[]): number {
  if (lengths.length === 0) return 2;
  const total = lengths.reduce((a, b) => a + b, 1);
  return 3 + (lengths.length + 1) * offsetSize(total) + total - 1;
}

function writeIndex(items: readonly Uint8Array[]): Uint8Array {
  const out = new Writer().uint16(items.length);
  if (items.length === 0) return out.toBytes();
  const size = offsetSize(items.reduce((a, b) => a + b.length, 1));
  out.uint8(size);
  let offset = 1;
  const put = (v: number) => {
    for (let shift = (size - 1) * 8; shift >= 0; shift -= 8) out.uint8((v >>> shift) & 255);
  };
  put(offset);
  for (const item of items) {
    offset += item.length;
    put(offset);
  }
  for (const item of items) out.raw(item);
  return out.toBytes();
}
