import { Reader } from './binary';
import { type RecordOf, readFields, writeFields } from './fields';

const VERSION_0 = [
  ['version', 'uint16'],
  ['xAvgCharWidth', 'int16'],
  ['usWeightClass', 'uint16'],
  ['usWidthClass', 'uint16'],
  ['fsType', 'uint16'],
  ['ySubscriptXSize', 'int16'],
  ['ySubscriptYSize', 'int16'],
  ['ySubscriptXOffset', 'int16'],
  ['ySubscriptYOffset', 'int16'],
  ['ySuperscriptXSize', 'int16'],
  ['ySuperscriptYSize', 'int16'],
  ['ySuperscriptXOffset', 'int16'],
  ['ySuperscriptYOffset', 'int16'],
  ['yStrikeoutSize', 'int16'],
  ['yStrikeoutPosition', 'int16'],
  ['sFamilyClass', 'int16'],
  ['panose', 'bytes10'],
  ['ulUnicodeRange1', 'uint32'],
  ['ulUnicodeRange2', 'uint32'],
  ['ulUnicodeRange3', 'uint32'],
  ['ulUnicodeRange4', 'uint32'],
  ['achVendID', 'tag'],
  ['fsSelection', 'uint16'],
  ['usFirstCharIndex', 'uint16'],
  ['usLastCharIndex', 'uint16'],
  ['sTypoAscender', 'int16'],
  ['sTypoDescender', 'int16'],
  ['sTypoLineGap', 'int16'],
  ['usWinAscent', 'uint16'],
  ['usWinDescent', 'uint16'],
] as const;

const VERSION_1 = [...VERSION_0, ['ulCodePageRange1', 'uint32'], ['ulCodePageRange2', 'uint32']] as const;

const VERSION_4 = [
  ...VERSION_1,
  ['sxHeight', 'int16'],
  ['sCapHeight', 'int16'],
  ['usDefaultChar', 'uint16'],
  ['usBreakChar', 'uint16'],
  ['usMaxContext', 'uint16'],
] as const;

const VERSION_5 = [...VERSION_4, ['usLowerOpticalPointSize', 'uint16'], ['usUpperOpticalPointSize', 'uint16']] as const;

/** Sizes that a font is drawn for, in twentieths of a point. */
type Sizes = { usLowerOpticalPointSize?: number; usUpperOpticalPointSize?: number };
export type Os2 = RecordOf<typeof VERSION_4> & Sizes;

/** OS/2 and Windows metrics; written as version 4, or 5 where it has sizes; older versions read with what they have. */
export const os2 = {
  tag: 'OS/2',
  write(record: Os2): Uint8Array {
    const { usLowerOpticalPointSize: lower, usUpperOpticalPointSize: upper } = record;
    if (lower === undefined && upper === undefined) return writeFields(VERSION_4, record).toBytes();
    const sizes = { usLowerOpticalPointSize: lower ?? 0, usUpperOpticalPointSize: upper ?? 0xffff };
    return writeFields(VERSION_5, { ...record, ...sizes, version: 5 }).toBytes();
  },
  read(bytes: Uint8Array): Partial<Os2> {
    const version = new Reader(bytes, 'OS/2').uint16();
    const fields = version >= 5 ? VERSION_5 : version >= 2 ? VERSION_4 : version === 1 ? VERSION_1 : VERSION_0;
    return readFields(fields, new Reader(bytes, 'OS/2'));
  },
};

/** fsSelection bits by their names in the specification. */
export const FS_SELECTION = { ITALIC: 1, BOLD: 1 << 5, REGULAR: 1 << 6, USE_TYPO_METRICS: 1 << 7 } as const;
