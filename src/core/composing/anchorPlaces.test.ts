import { readyDemo } from '../../../demo/ready';
import type { Glyph, Master } from '../project/model';
import { drawingBounds, drawingsOf } from '../project/outline';
import { drawingOf, glyphForCodePoint, glyphNamed } from '../project/queries';
import { basePlace, markPlace } from './anchorPlaces';
import { type AnchorName, markCodeOf } from './marks';

const demo = readyDemo();
const regular = demo.masters[0]!;
const boxOf = (glyph: Glyph, master: Master) => drawingBounds(drawingOf(glyph, master.id), drawingsOf(demo, master.id));
const letter = (c: string) => glyphForCodePoint(demo, c.codePointAt(0)!)!;

/** How far across a letter its mark stands, from 0 at its left to 1 at its right; in every upright master. */
const shares = (c: string, anchor: AnchorName) =>
  demo.masters
    .filter((m) => m.italicAngle === 0)
    .map((master) => {
      const box = boxOf(letter(c), master);
      return (basePlace(demo, letter(c), master, anchor)!.x - box.xMin) / (box.xMax - box.xMin);
    });
const expectAll = (values: readonly number[], low: number, high: number) => {
  expect(values.length).toBeGreaterThan(1);
  for (const v of values) {
    expect(v).toBeGreaterThan(low);
    expect(v).toBeLessThan(high);
  }
};

test('marks stand over what carries them: the stem of J and ı, the whole of E, between stem and bowl of R', () => {
  expectAll(shares('J', 'top'), 0.5, 0.95);
  expectAll(shares('ı', 'top'), 0.35, 0.65);
  expectAll(shares('E', 'top'), 0.49, 0.51);
  expectAll(shares('R', 'top'), 0.3, 0.52);
});

test('what hangs below: a comma at the waist of N and under the foot of r, the cedilla of H from its left stem', () => {
  expectAll(shares('N', 'bottom'), 0.44, 0.56);
  expectAll(shares('r', 'bottom'), 0.1, 0.45);
  expectAll(shares('H', 'cedilla'), 0.04, 0.3);
  expectAll(shares('h', 'cedilla'), 0.04, 0.35);
  expectAll(shares('T', 'cedilla'), 0.45, 0.55);
});

test('an ogonek ends left of a capital’s foot, and well right of the middle of a round letter', () => {
  const foot = (c: string) => boxOf(letter(c), regular).xMax - basePlace(demo, letter(c), regular, 'ogonek')!.x;
  expect(foot('A')).toBeGreaterThanOrEqual(0.02 * demo.unitsPerEm);
  expectAll(shares('O', 'ogonek'), 0.58, 0.85);
});

test('a leaning mark is held nearer to its lower end than to its middle, a double acute most of all', () => {
  /** How far from its middle a mark is held, towards the end at which it stands, as a share of half its width. */
  const held = (code: number, master: Master) => {
    const mark = glyphForCodePoint(demo, code)!;
    const box = boxOf(mark, master);
    return (markPlace(demo, mark, master, 'top')!.x - (box.xMin + box.xMax) / 2) / ((box.xMax - box.xMin) / 2);
  };
  for (const master of demo.masters.filter((m) => m.italicAngle === 0)) {
    expect(held(0x301, master)).toBeLessThan(-0.1);
    expect(held(0x300, master)).toBeGreaterThan(0.1);
    expect(held(0x30b, master)).toBeLessThan(-0.1);
    expect(Math.abs(held(0x308, master))).toBeLessThan(0.02);
    expect(Math.abs(held(0x303, master))).toBeLessThan(0.1);
  }
});

test('what a glyph draws is told by its character, by that of its spacing twin, and by the name before a dot', () => {
  const of = (name: string) => markCodeOf(demo, glyphNamed(demo, name)!);
  expect(of('acutecomb')).toBe(0x301);
  expect(of('acutecomb.case')).toBe(0x301);
  expect(of('grave')).toBe(0x300);
  expect(of('hungarumlaut')).toBe(0x30b);
  for (const other of ['a', 'comma', 'period', 'quoteright', 'cedilla']) expect(of(other)).toBeUndefined();
});
