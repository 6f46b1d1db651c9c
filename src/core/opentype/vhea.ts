import { plainTable } from './fields';

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
  ['caretSlopeRise', 'int16'],
  ['caretSlopeRun', 'int16'],
  ['caretOffset', 'int16'],
  ['reserved1', 'int16'],
  ['reserved2', 'int16'],
  ['reserved3', 'int16'],
  ['reserved4', 'int16'],
  ['metricDataFormat', 'int16'],
  ['numOfLongVerMetrics', 'uint16'],
] as const;

/** Vertical header, version 1.1. */
export const vhea = plainTable('vhea', FIELDS);
