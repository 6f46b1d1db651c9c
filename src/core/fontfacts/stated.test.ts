import fc from 'fast-check';
import type { Lib } from '../project/model';
import {
  bitsOf,
  factsOf,
  type StatedTable,
  statedBits,
  statedFields,
  statedGasp,
  statedName,
  statedNames,
} from './stated';

const int16 = fc.integer({ min: -32767, max: 32767 });
const uint32 = fc.integer({ min: 0, max: 0xffffffff });

const RECORDS: Record<StatedTable, fc.Arbitrary<object>> = {
  'OS/2': fc.record({
    ySubscriptXSize: int16,
    ySubscriptYOffset: int16,
    ySuperscriptXOffset: int16,
    ySuperscriptYSize: int16,
    yStrikeoutSize: int16,
    yStrikeoutPosition: int16,
    sFamilyClass: fc.integer({ min: 0, max: 0x7fff }),
    panose: fc.array(fc.integer({ min: 0, max: 255 }), { minLength: 10, maxLength: 10 }),
    fsType: fc.integer({ min: 0, max: 0xffff }),
    ulUnicodeRange1: uint32,
    ulUnicodeRange2: uint32,
    ulUnicodeRange3: uint32,
    ulUnicodeRange4: uint32,
    ulCodePageRange1: uint32,
    ulCodePageRange2: uint32,
  }),
  head: fc.record({
    flags: fc.integer({ min: 0, max: 0xffff }),
    lowestRecPPEM: fc.integer({ min: 0, max: 0x7fff }),
  }),
  hhea: fc.record({ caretSlopeRise: int16, caretSlopeRun: int16, caretOffset: int16 }),
  vhea: fc.record({ vertTypoAscender: int16, vertTypoDescender: int16, vertTypoLineGap: int16, caretSlopeRise: int16 }),
  post: fc.record({ underlinePosition: int16, underlineThickness: int16, isFixedPitch: fc.constantFrom(0, 1) }),
};

test.each(Object.keys(RECORDS) as StatedTable[])('what %s says is stated and comes back in its fields', (table) => {
  fc.assert(
    fc.property(RECORDS[table], (record) => {
      expect(statedFields(factsOf(table, record), table)).toEqual(record);
    }),
  );
});

test('what a table does not have is not stated, and what none could hold is not said', () => {
  expect(factsOf('OS/2', { fsType: 8 })).toEqual({ openTypeOS2Type: [3] });
  const odd: Lib = {
    openTypeOS2Panose: [1, 2],
    openTypeOS2FamilyClass: 3,
    openTypeOS2SubscriptXSize: 1e9,
    openTypeOS2Type: 'none',
    openTypeOS2UnicodeRanges: [0, 0, 127, 128, -1, 2.5, 'x'],
  };
  expect(statedFields(odd, 'OS/2')).toEqual({
    ulUnicodeRange1: 1,
    ulUnicodeRange2: 0,
    ulUnicodeRange3: 0,
    ulUnicodeRange4: 0x80000000,
  });
  expect(statedFields({ postscriptIsFixedPitch: 1 }, 'post')).toEqual({});
  expect(statedFields(undefined, 'head')).toEqual({});
});

test('bits and words are two ways to say one thing', () => {
  fc.assert(
    fc.property(fc.array(uint32, { minLength: 4, maxLength: 4 }), (words) => {
      expect(statedBits({ key: bitsOf(words, 32) }, 'key', 4, 32)).toEqual(words);
    }),
  );
});

test('records of names come back as they were stated; what is no record is left out', () => {
  const record = { nameID: 2, platformID: 3, encodingID: 1, languageID: 0x407, value: 'Fett' };
  const list: Lib = {
    openTypeNameRecords: [
      statedName(record),
      'x',
      { nameID: 1, platformID: 3, encodingID: 1, languageID: 0x407 },
      { nameID: -1, platformID: 3, encodingID: 1, languageID: 0x407, string: 'x' },
      { nameID: 70000, platformID: 3, encodingID: 1, languageID: 0x407, string: 'x' },
    ],
  };
  expect(statedNames(list)).toEqual([record]);
  expect(statedNames({ openTypeNameRecords: 'all' })).toEqual([]);
});

test('ranges of sizes rise; one that is none is left out', () => {
  const ranges: Lib = {
    openTypeGaspRangeRecords: [
      { rangeMaxPPEM: 65535, rangeGaspBehavior: [0, 1, 2, 3] },
      { rangeMaxPPEM: 8, rangeGaspBehavior: [1, 3] },
      { rangeMaxPPEM: 20 },
    ],
  };
  expect(statedGasp(ranges)).toEqual([
    { rangeMaxPPEM: 8, rangeGaspBehavior: 10 },
    { rangeMaxPPEM: 65535, rangeGaspBehavior: 15 },
  ]);
  expect(statedGasp({ openTypeGaspRangeRecords: [] })).toBeUndefined();
});
