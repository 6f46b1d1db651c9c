import { plainTable } from './fields';

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
  ['caretSlopeRise', 'int16'],
  ['caretSlopeRun', 'int16'],
  ['caretOffset', 'int16'],
  ['reserved1', 'int16'],
  ['reserved2', 'int16'],
  ['reserved3', 'int16'],
  ['reserved4', 'int16'],
  ['metricDataFormat', 'int16'],
  ['numberOfHMetrics', 'uint16'],
] as const;

/** Horizontal header. */
export const hhea = plainTable('hhea', FIELDS);
