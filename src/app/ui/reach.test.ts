import { readyDemo } from '../../../demo/ready';
import { drawingBounds, drawingsOf } from '../../core/project/outline';
import { glyphNamed } from '../../core/project/queries';
import { reachOf } from './reach';

const demo = readyDemo();
const glyphs = (...names: string[]) => names.map((name) => glyphNamed(demo, name)!);
const box = (name: string) => drawingBounds(glyphNamed(demo, name)!.drawings.m1!, drawingsOf(demo, 'm1'));

test('plain letters are shown in one scale, room above and below for the line', () => {
  const [x, h] = [reachOf(demo, 'm1', glyphs('x')), reachOf(demo, 'm1', glyphs('h', 'p', 'o'))];
  expect(x).toEqual(h);
  expect(x.top).toBeGreaterThanOrEqual(box('h').yMax);
  expect(x.bottom).toBeLessThanOrEqual(box('p').yMin);
});

test('what rises above or hangs below gets the room it needs', () => {
  const plain = reachOf(demo, 'm1', glyphs('x'));
  for (const name of ['lacute', 'Aring', 'ccedilla', 'Ccaron']) {
    const reach = reachOf(demo, 'm1', glyphs(name));
    const { yMin, yMax } = box(name);
    expect([name, reach.top >= yMax, reach.bottom <= yMin]).toEqual([name, true, true]);
    expect(reach.top).toBeGreaterThanOrEqual(plain.top);
    expect(reach.bottom).toBeLessThanOrEqual(plain.bottom);
  }
  expect(reachOf(demo, 'm1', glyphs('lacute')).top).toBeGreaterThan(plain.top);
});

test('a row reaches as far as any glyph in it, whatever the order; no glyph at all is a plain line', () => {
  const row = glyphs('a', 'lacute', 'ccedilla', 'space');
  const reach = reachOf(demo, 'm1', row);
  expect(reachOf(demo, 'm1', [...row].reverse())).toEqual(reach);
  for (const g of row) {
    const own = reachOf(demo, 'm1', [g]);
    expect(own.top).toBeLessThanOrEqual(reach.top);
    expect(own.bottom).toBeGreaterThanOrEqual(reach.bottom);
  }
  expect(reachOf(demo, 'm1', [])).toEqual(reachOf(demo, 'm1', glyphs('x')));
});
