import { readyDemo } from '../../../demo/ready';
import type { Contour } from '../geometry/contour';
import { transformContour } from '../geometry/contour';
import { drawingsOf, flattened } from '../project/outline';
import { glyphNamed } from '../project/queries';
import { alikeShapes, type Shaped } from './shapeMatching';

const demo = readyDemo();
const outline = (name: string, master: string): readonly Contour[] => {
  const source = drawingsOf(demo, master);
  return flattened(source(glyphNamed(demo, name)!.id)!, source);
};
const shapes = (names: readonly string[], master: string): Shaped[] =>
  names.map((id) => ({ id, contours: outline(id, master) }));
const em = demo.unitsPerEm;

test('a letter is known again in another weight, and none is taken for another', () => {
  const names = ['a', 'e', 'g', 's', 'k', 'R', 'S', 'ampersand', 'three', 'question', 'x', 'A'];
  const found = alikeShapes(shapes(names, 'm1'), shapes([...names].reverse(), 'm3'), em);
  expect(found.length).toBeGreaterThan(8);
  for (const [ours, theirs] of found) expect(theirs).toBe(ours);
});

test('what stands elsewhere on the line, is much wider, or is a plain bar, is not taken', () => {
  const moved = (by: number): Shaped[] => [
    { id: 'other', contours: outline('a', 'm1').map((c) => transformContour(c, [1, 0, 0, 1, 0, by])) },
  ];
  expect(alikeShapes(shapes(['a'], 'm1'), moved(0), em)).toEqual([['a', 'other']]);
  expect(alikeShapes(shapes(['a'], 'm1'), moved(200), em)).toEqual([]);
  const wide = [{ id: 'wide', contours: outline('a', 'm1').map((c) => transformContour(c, [2, 0, 0, 1, 0, 0])) }];
  expect(alikeShapes(shapes(['a'], 'm1'), wide, em)).toEqual([]);
  expect(alikeShapes(shapes(['hyphen'], 'm1'), shapes(['hyphen'], 'm1'), em)).toEqual([]);
  expect(alikeShapes(shapes(['space'], 'm1'), shapes(['space'], 'm1'), em)).toEqual([]);
  // Two that look the same say nothing.
  expect(alikeShapes(shapes(['a'], 'm1'), [...moved(0), { ...moved(0)[0]!, id: 'twin' }], em)).toEqual([]);
});
