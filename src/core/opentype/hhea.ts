import { CARET_FIELDS, plainTable, type RecordOf } from './fields';

const FIELDS = [
  ['majorVersion', 'uint16'],
  ['minorVersion', 'uint16'],
  ['ascender', 'int16'],
  ['descender', 'int16'],
  ['lineGap', 'int16'],
  ['advanceWidthMax', 'uint16'],
  ['minLeftSideBearing', 'int16'],
  ['minRightSideBearing', 'int16'],
  ['xMaxExtent', 'int16'],
  ...CARET_FIELDS,
  ['numberOfHMetrics', 'uint16'],
] as const;

export type Hhea = RecordOf<typeof FIELDS>;

/** Horizontal header. */
export const hhea = plainTable('hhea', FIELDS);
