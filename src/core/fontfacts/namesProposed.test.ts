import { Writer } from '../opentype/binary';
import { waysToGlyphs } from '../opentype/gsubRead';
import { proposedNames } from './namesProposed';

test('names that spell are said, names of one’s own stay, none is there twice', () => {
  const names = [
    '.notdef',
    'uni006E',
    'uni0061.sc',
    'uni00660069',
    'uni0061_uni0301',
    'uni0410',
    'fancy',
    'o',
    'uni006F',
  ];
  expect(proposedNames(names, [])).toEqual([
    '.notdef',
    'n',
    'a.sc',
    'f_i',
    'a_acutecomb',
    'uni0410',
    'fancy',
    'o',
    'uni006F',
  ]);
});

test('glyphs that only count are named by what leads to them, through others too', () => {
  const names = [
    '.notdef',
    'a',
    'f',
    'i',
    'glyph00004',
    'glyph00005',
    'glyph00006',
    'glyph00007',
    'glyph00008',
    'glyph00009',
  ];
  const ways = [
    { from: [4], to: 5, feature: 'ss01' },
    { from: [1], to: 4, feature: 'smcp' },
    { from: [2, 3], to: 6, feature: 'liga' },
    { from: [4, 3], to: 7, feature: 'hlig' },
    { from: [1], to: 8, feature: 'salt', nth: 2 },
  ];
  expect(proposedNames(names, ways).slice(4)).toEqual([
    'a.smcp',
    'a.smcp.ss01',
    'f_i',
    'a_i.smcp.hlig',
    'a.salt2',
    'glyph00009',
  ]);
});

/** A GSUB table with one lookup for each subtable, each of its own feature. */
function gsub(lookups: readonly { tag: string; type: number; subtable: Uint8Array }[]): Uint8Array {
  const n = lookups.length;
  const features = 10;
  const featureSize = 2 + n * 6 + n * 6;
  const w = new Writer()
    .uint16(1)
    .uint16(0)
    .uint16(0)
    .uint16(features)
    .uint16(features + featureSize);
  w.uint16(n);
  for (const [i, { tag }] of lookups.entries()) w.tag(tag).uint16(2 + n * 6 + i * 6);
  for (let i = 0; i < n; i++) w.uint16(0).uint16(1).uint16(i);
  let at = 2 + n * 2;
  w.uint16(n);
  for (const { subtable } of lookups) {
    w.uint16(at);
    at += 8 + subtable.length;
  }
  for (const { type, subtable } of lookups) w.uint16(type).uint16(0).uint16(1).uint16(8).raw(subtable);
  return w.toBytes();
}

test('single, alternate and ligature substitutions are read; a damaged table is refused, not misread', () => {
  const single1 = new Writer().uint16(1).uint16(6).uint16(5).uint16(1).uint16(2).uint16(3).uint16(4).toBytes();
  const single2 = new Writer().uint16(2).uint16(8).uint16(1).uint16(20).uint16(1).uint16(1).uint16(7).toBytes();
  const alternates = new Writer()
    .uint16(1)
    .uint16(14)
    .uint16(1)
    .uint16(8)
    .uint16(2)
    .uint16(30)
    .uint16(31)
    .uint16(1)
    .uint16(1)
    .uint16(9)
    .toBytes();
  const ligature = new Writer()
    .uint16(1)
    .uint16(18)
    .uint16(1)
    .uint16(8)
    .uint16(1)
    .uint16(4)
    .uint16(40)
    .uint16(2)
    .uint16(6)
    .uint16(1)
    .uint16(1)
    .uint16(5)
    .toBytes();
  const bytes = gsub([
    { tag: 'smcp', type: 1, subtable: single1 },
    { tag: 'ss02', type: 1, subtable: single2 },
    { tag: 'salt', type: 3, subtable: alternates },
    { tag: 'liga', type: 4, subtable: ligature },
  ]);
  expect(waysToGlyphs(bytes)).toEqual([
    { from: [3], to: 8, feature: 'smcp' },
    { from: [4], to: 9, feature: 'smcp' },
    { from: [7], to: 20, feature: 'ss02' },
    { from: [9], to: 30, nth: 1, feature: 'salt' },
    { from: [9], to: 31, nth: 2, feature: 'salt' },
    { from: [5, 6], to: 40, feature: 'liga' },
  ]);
  for (let cut = 1; cut < bytes.length; cut += 7) {
    const short = bytes.slice(0, cut);
    try {
      expect(waysToGlyphs(short).length).toBeLessThanOrEqual(6);
    } catch (error) {
      expect(String(error)).toMatch(/GSUB/);
    }
  }
});
