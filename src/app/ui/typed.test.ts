import fc from 'fast-check';
import { buildStarter } from '../../../demo/starter';
import { findGlyphs } from '../../core/project/findGlyphs';
import { readCodePoints } from '../stages/case/codePoints';
import { readNumber } from './number';

test('numbers are typed plainly, with either minus and comma, or changed by a step', () => {
  expect(['12', '-7', '−7', ' 4.5 ', '4,5', '100+4', '100 - 4', '50*1.1', '9/3'].map(readNumber)).toEqual([
    12, -7, -7, 4.5, 4.5, 104, 96, 55.00000000000001, 3,
  ]);
  expect(['', 'x', '1+', '1/0', '1 2', '--3', '1e9', '()', '(1', '1)', '.', '5 px px'].map(readNumber)).toEqual(
    Array(12).fill(undefined),
  );
});

test('sums of any length, with brackets, and units after them', () => {
  expect(
    ['.5', '64 + 8 - 2', '(520-11)/2', '2*(3+4)*-1', '-(1+1)', '10\u2009+\u00a05', '45°', '12 units', '50 %'].map(
      readNumber,
    ),
  ).toEqual([0.5, 70, 254.5, -14, -2, 15, 45, 12, 50]);
  // A sum without brackets, worked out by itself: products first, then from left to right.
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.constantFrom(1, -1), fc.nat(99), fc.nat(99)), { minLength: 1 }), (parts) => {
      const sum = parts.map(([sign, a, b], i) => `${sign < 0 ? '-' : i > 0 ? '+' : ''}${a}*${b}`).join('');
      const value = parts.reduce((total, [sign, a, b]) => total + sign * a * b, 0);
      if (sum.length <= 200) expect(readNumber(sum)).toBeCloseTo(value, 6);
    }),
  );
  expect(readNumber('('.repeat(90) + ')'.repeat(90))).toBeUndefined();
});

test('code points are typed as numbers or characters', () => {
  expect(readCodePoints('U+0061, ą 0x105')).toEqual([0x61, 0x105]);
  expect(readCodePoints('')).toEqual([]);
  expect(readCodePoints('banana')).toBeUndefined();
  expect(readCodePoints('U+110000')).toBeUndefined();
});

test('glyphs answer to a character, a code point and the beginning of a name, the exact one first', () => {
  const demo = buildStarter();
  const names = (typed: string) => findGlyphs(demo, typed).map((g) => g.name);
  expect(names('&')[0]).toBe('ampersand');
  expect(names('0061')[0]).toBe('a');
  expect(names('se')).toEqual(['seven', 'germandbls'].filter((n) => n === 'seven'));
  expect(names('s')[0]).toBe('s');
  expect(names('grave')).toEqual([]);
  expect(names('  ')).toEqual([]);
  expect(names('e').length).toBeLessThanOrEqual(12);
});
