import { buildStarter } from '../../../demo/starter';
import { findGlyphs } from '../../core/project/findGlyphs';
import { readCodePoints } from '../stages/case/codePoints';
import { readNumber } from './number';

test('numbers are typed plainly, with either minus and comma, or changed by a step', () => {
  expect(['12', '-7', '−7', ' 4.5 ', '4,5', '100+4', '100 - 4', '50*1.1', '9/3'].map(readNumber)).toEqual([
    12, -7, -7, 4.5, 4.5, 104, 96, 55.00000000000001, 3,
  ]);
  expect(['', 'x', '1+', '1/0', '1 2', '--3', '1e9'].map(readNumber)).toEqual(Array(7).fill(undefined));
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
