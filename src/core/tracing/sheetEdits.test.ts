import { withLetterCount } from './regions';
import { addRegion, charactersOf, joinWithNext, lettered, moveBaseline, moveEdge, removeRegion } from './sheetEdits';

const region = (left: number) => ({ left, top: 10, right: left + 20, bottom: 60 });
const lines = () => [
  { baseline: 60, regions: [region(0), region(30), region(60)] },
  { baseline: 160, regions: [region(0)] },
];

test('a typed line names the regions from left to right, composed and without its spaces', () => {
  expect(charactersOf('ż a\u0308 f')).toEqual(['ż', 'ä', 'f']);
  expect(lettered(lines()[0]!, 'a b c').characters).toEqual(['a', 'b', 'c']);
  expect(lettered(lines()[1]!, '').characters).toEqual([undefined]);
  expect(lettered({ baseline: 1, regions: [region(0)] }, 'xyz').characters).toEqual(['x']);
});

test('edges move but never cross', () => {
  expect(moveEdge(lines(), { line: 0, region: 1 }, 'right', 44.4)[0]!.regions[1]).toEqual({ ...region(30), right: 44 });
  expect(moveEdge(lines(), { line: 0, region: 1 }, 'right', 12)[0]!.regions[1]).toEqual(region(30));
  expect(moveBaseline(lines(), 1, 150.6)[1]!.baseline).toBe(151);
});

test('joining and removing keep one character for each region; the characters move up', () => {
  const joined = joinWithNext(lines(), { line: 0, region: 0 });
  expect(joined[0]!.regions).toEqual([{ left: 0, top: 10, right: 50, bottom: 60 }, region(60)]);
  expect(lettered(joined[0]!, 'a b c').characters).toEqual(['a', 'b']);
  expect(joinWithNext(lines(), { line: 0, region: 2 })).toEqual(lines());
  const fewer = removeRegion(lines(), { line: 0, region: 0 });
  expect(fewer[0]!.regions).toEqual([region(30), region(60)]);
  expect(lettered(fewer[0]!, 'a b c').characters).toEqual(['a', 'b']);
});

test('a new region goes to the nearest line in its order, or makes a line', () => {
  const more = addRegion(lines(), { left: 100, top: 120, right: 130, bottom: 158 });
  expect(more[1]!.regions.map((r) => r.left)).toEqual([0, 100]);
  expect(addRegion([], region(5))[0]).toEqual({ baseline: 60, regions: [region(5)] });
});

test('as many letters as were written: the nearest pieces are put together first', () => {
  const line = { baseline: 60, regions: [region(0), region(22), region(60), region(81)] };
  expect(withLetterCount(line, 3).regions.map((r) => [r.left, r.right])).toEqual([
    [0, 20],
    [22, 42],
    [60, 101],
  ]);
  expect(withLetterCount(line, 2).regions.map((r) => r.left)).toEqual([0, 60]);
  expect(withLetterCount(line, 9).regions).toHaveLength(4);
});
