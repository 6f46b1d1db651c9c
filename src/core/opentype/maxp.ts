import { Reader } from './binary';
import { type RecordOf, readFields, writeFields } from './fields';

const SHORT = [
  ['version', 'uint32'],
  ['numGlyphs', 'uint16'],
] as const;

const FULL = [
  ...SHORT,
  ['maxPoints', 'uint16'],
  ['maxContours', 'uint16'],
  ['maxCompositePoints', 'uint16'],
  ['maxCompositeContours', 'uint16'],
  ['maxZones', 'uint16'],
  ['maxTwilightPoints', 'uint16'],
  ['maxStorage', 'uint16'],
  ['maxFunctionDefs', 'uint16'],
  ['maxInstructionDefs', 'uint16'],
  ['maxStackElements', 'uint16'],
  ['maxSizeOfInstructions', 'uint16'],
  ['maxComponentElements', 'uint16'],
  ['maxComponentDepth', 'uint16'],
] as const;

const VERSION_CFF = 0x00005000;
const VERSION_TRUETYPE = 0x00010000;

export type MaxpCff = { version: typeof VERSION_CFF; numGlyphs: number };
export type MaxpTrueType = RecordOf<typeof FULL>;

/** Maximum profile: version 0.5 for CFF, 1.0 for TrueType outlines. */
export const maxp = {
  tag: 'maxp',
  VERSION_CFF,
  VERSION_TRUETYPE,
  write: (record: MaxpCff | MaxpTrueType): Uint8Array =>
    ('maxPoints' in record ? writeFields(FULL, record) : writeFields(SHORT, record)).toBytes(),
  read(bytes: Uint8Array): MaxpCff | MaxpTrueType {
    const version = new Reader(bytes, 'maxp').uint32();
    const fields = version === VERSION_CFF ? SHORT : FULL;
    return readFields(fields, new Reader(bytes, 'maxp')) as MaxpCff | MaxpTrueType;
  },
} as const;
