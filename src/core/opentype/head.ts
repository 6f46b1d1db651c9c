import { plainTable, type RecordOf } from './fields';

const FIELDS = [
  ['majorVersion', 'uint16'],
  ['minorVersion', 'uint16'],
  ['fontRevision', 'fixed'],
  ['checksumAdjustment', 'uint32'],
  ['magicNumber', 'uint32'],
  ['flags', 'uint16'],
  ['unitsPerEm', 'uint16'],
  ['created', 'longDateTime'],
  ['modified', 'longDateTime'],
  ['xMin', 'int16'],
  ['yMin', 'int16'],
  ['xMax', 'int16'],
  ['yMax', 'int16'],
  ['macStyle', 'uint16'],
  ['lowestRecPPEM', 'uint16'],
  ['fontDirectionHint', 'int16'],
  ['indexToLocFormat', 'int16'],
  ['glyphDataFormat', 'int16'],
] as const;

export type Head = RecordOf<typeof FIELDS>;

/** Font header. */
export const head = plainTable('head', FIELDS);

/** Seconds between the epoch of OpenType dates (1904-01-01) and that of Unix time. */
export const EPOCH_1904 = 2082844800;
