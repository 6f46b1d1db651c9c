import { readyDemo } from '../../../demo/ready';
import { contourBounds } from '../geometry/contour';
import { kerningOf } from '../project/kerningLookup';
import { drawingOf, glyphForCodePoint, glyphNamed, masterOf } from '../project/queries';
import { setHandover } from './handovers';
import { wordAt } from './wordAt';

const demo = readyDemo();
const idOf = (c: string) => glyphForCodePoint(demo, c.codePointAt(0)!)!.id;
const advanceIn = (master: string, word: string): number => {
  const ids = [...word].map(idOf);
  return ids.reduce((sum, id, i) => {
    const kern = i > 0 ? (kerningOf(demo, masterOf(demo, master)!, ids[i - 1]!, id)?.value ?? 0) : 0;
    return sum + kern + drawingOf(demo.glyphs[id]!, master).advance;
  }, 0);
};

test('a word is as wide as its letters with their kerning, in masters and half way between', () => {
  const [regular, heavy] = ['m1', 'm3'].map((m) => advanceIn(m, 'AVATo'));
  const at = (wght: number) => wordAt(demo, 'AVATo', { wght, wdth: 100 });
  expect(at(400).advance).toBeCloseTo(regular!, 6);
  expect(at(800).advance).toBeCloseTo(heavy!, 6);
  expect(at(600).advance).toBeCloseTo((regular! + heavy!) / 2, 6);
  expect(at(600).stuck).toBe(false);
  // Letters stand one behind the other.
  const lefts = at(400).contours.map((c) => contourBounds(c).xMin);
  expect(lefts.at(-1)!).toBeGreaterThan(lefts[0]!);
});

test('characters that are not there are passed over, a glyph that gives way stands in, one that does not agree is said', () => {
  const place = { wght: 700, wdth: 100 };
  expect(wordAt(demo, 'n\u4e00n', place)).toEqual(wordAt(demo, 'nn', place));
  expect(wordAt(demo, '', place)).toEqual({ contours: [], advance: 0, stuck: false });
  const given = setHandover(demo, {
    glyph: idOf('n'),
    handover: { axis: 'wght', from: 600, to: 800, glyph: idOf('o') },
  });
  if (!given.ok) throw new Error(given.reason);
  expect(wordAt(given.project, 'n', place)).toEqual(wordAt(demo, 'o', place));
  const n = glyphNamed(demo, 'n')!;
  const torn = { ...n, drawings: { ...n.drawings, m3: { ...n.drawings.m3!, contours: [] } } };
  expect(wordAt({ ...demo, glyphs: { ...demo.glyphs, [n.id]: torn } }, 'on', place).stuck).toBe(true);
});
