import { readyDemo } from '../../../demo/ready';
import { isOnCurve, signedArea, withStart } from '../geometry/contour';
import type { Project } from '../project/model';
import { drawingOf, glyphNamed } from '../project/queries';
import { sameStructure } from '../project/structure';
import { looksAt, placesBetween } from './kinks';
import { tanglesOf } from './tangles';
import { mendTangles, untangled } from './untangling';

const demo = readyDemo();
const looks = looksAt(demo, placesBetween(demo));

/** The demo with a contour of a glyph begun so many points on in the Heavy. */
function turned(name: string, by: number): Project {
  const glyph = glyphNamed(demo, name)!;
  const d = drawingOf(glyph, 'm3');
  const [c, ...rest] = d.contours;
  const on = c!.points.flatMap((p, i) => (isOnCurve(p) ? [i] : []));
  const drawings = { ...glyph.drawings, m3: { ...d, contours: [withStart(c!, on[by]!), ...rest] } };
  return { ...demo, glyphs: { ...demo.glyphs, [glyph.id]: { ...glyph, drawings } } };
}

test('a start that agrees in number and tangles is put where nothing crosses, shapes staying', () => {
  let mended = 0;
  for (const [name, by] of [
    ['T', 3],
    ['E', 4],
    ['F', 3],
    ['H', 6],
    ['L', 2],
  ] as const) {
    const project = turned(name, by);
    const glyph = glyphNamed(project, name)!;
    if (!sameStructure([drawingOf(glyph, 'm1'), drawingOf(glyph, 'm3')])) continue;
    const tangled = tanglesOf(project, glyph, looks);
    if (tangled.length === 0) continue;
    const next = untangled(project, glyph)!;
    expect([name, tanglesOf(project, next, looks)]).toEqual([name, []]);
    expect(drawingOf(next, 'm3').contours[0]!.points).toEqual(
      drawingOf(glyphNamed(demo, name)!, 'm3').contours[0]!.points,
    );
    expect(signedArea(drawingOf(next, 'm3').contours[0]!)).toBeCloseTo(
      signedArea(drawingOf(glyph, 'm3').contours[0]!),
      6,
    );
    expect(drawingOf(next, 'm1')).toBe(drawingOf(glyph, 'm1'));
    mended++;
  }
  expect(mended).toBeGreaterThan(1);
});

test('what does not cross is left alone, and what no start parts is said', () => {
  expect(untangled(demo, glyphNamed(demo, 'T')!)).toBeUndefined();
  const none = mendTangles(demo, { glyphs: [glyphNamed(demo, 'T')!.id] });
  expect(none.ok ? '' : none.reason).toMatch(/for the hand/);
  const project = turned('T', 3);
  const done = mendTangles(project, { glyphs: [glyphNamed(project, 'T')!.id] });
  expect(done.ok && done.sentence).toBe('Parted the outlines of T between its masters');
});
