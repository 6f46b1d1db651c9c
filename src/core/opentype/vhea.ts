import { CARET_FIELDS, plainTable, type RecordOf } from './fields';

const FIELDS = [
  ['majorVersion', 'uint16'],
  ['minorVersion', 'uint16'],
  ['vertTypoAscender', 'int16'],
  ['vertTypoDescender', 'int16'],
  ['vertTypoLineGap', 'int16'],
  ['advanceHeightMax', 'uint16'],
  ['minTopSideBearing', 'int16'],
  ['minBottomSideBearing', 'int16'],
  ['yMaxExtent', 'int16'],
  ...CARET_FIELDS,
  ['numOfLongVerMetrics', 'uint16'],
] as const;

export type Vhea = RecordOf<typeof FIELDS>;

/** Vertical header, version 1.1. */
export const vhea = plainTable('vhea', FIELDS);
