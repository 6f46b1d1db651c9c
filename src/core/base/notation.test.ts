import fc from 'fast-check';
import { plural } from '../project/edit';
import { codePointForms, counted, shownNumber } from './notation';

test('counts have their thousands set apart and read back as what they are', () => {
  expect([0, 7, 999, 1000, 6782, 1_083_028].map(counted)).toEqual(['0', '7', '999', '1,000', '6,782', '1,083,028']);
  expect([plural(1, 'glyph'), plural(0, 'glyph'), plural(6782, 'glyph')]).toEqual([
    '1 glyph',
    '0 glyphs',
    '6,782 glyphs',
  ]);
  expect(plural(11_299, 'glyph moves', 'glyphs move')).toBe('11,299 glyphs move');
  const independent = new Intl.NumberFormat('en');
  fc.assert(
    fc.property(fc.integer({ min: -1e12, max: 1e12 }), (eighths) =>
      expect(counted(eighths / 8)).toBe(independent.format(eighths / 8)),
    ),
  );
});

test('numbers have a true minus and no zero below zero; code points are written as the standard does', () => {
  expect([-0.001, -40, 2.005, 0.125, -1.5].map((v) => shownNumber(v))).toEqual(['0', '−40', '2.01', '0.13', '−1.5']);
  expect(shownNumber(1234.56, 0)).toBe('1235');
  expect([codePointForms([0x41, 0x1f600]), codePointForms([])]).toEqual(['U+0041, U+1F600', 'no code point']);
});
