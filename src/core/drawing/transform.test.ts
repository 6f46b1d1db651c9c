import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import { contourBounds, curvesOf, signedArea, transformContour } from '../geometry/contour';
import { boundsOf } from '../geometry/curve';
import type { Project } from '../project/model';
import { drawingBounds, drawingsOf, flattened } from '../project/outline';
import { glyphNamed } from '../project/queries';
import { pointKey } from './points';
import { affineOf, ORIGINS, originOn, transformGlyphs, transformPoints } from './transform';

const demo = readyDemo();
const id = (name: string) => glyphNamed(demo, name)!.id;
const outline = (p: Project, name: string) => flattened(glyphNamed(p, name)!.drawings.m1!, drawingsOf(p, 'm1'));
const area = (p: Project, name: string) => outline(p, name).reduce((sum, c) => sum + signedArea(c), 0);
const box = (p: Project, name: string) => drawingBounds(glyphNamed(p, name)!.drawings.m1!, drawingsOf(p, 'm1'));
const done = (args: Parameters<typeof transformGlyphs>[1], from: Project = demo) => {
  const outcome = transformGlyphs(from, args);
  if (!outcome.ok) throw new Error(outcome.reason);
  return outcome.project;
};

test('areas grow by the determinant and keep their sign, mirrored ones too', () => {
  const factor = fc.double({ min: -3, max: 3, noNaN: true }).filter((v) => Math.abs(v) > 0.2);
  fc.assert(
    fc.property(
      factor,
      factor,
      fc.integer({ min: -40, max: 40 }),
      fc.integer({ min: 0, max: 360 }),
      fc.constantFrom(...ORIGINS),
      (scaleX, scaleY, slant, rotate, origin) => {
        const after = done({ glyphs: [id('a')], masters: ['m1'], by: { scaleX, scaleY, slant, rotate }, origin });
        expect(area(after, 'a') / (area(demo, 'a') * Math.abs(scaleX * scaleY))).toBeCloseTo(1, 3);
      },
    ),
    { numRuns: 40 },
  );
});

test('the origin stays where it is', () => {
  const before = box(demo, 'R');
  for (const origin of ORIGINS) {
    const [x, y] = originOn(before, origin);
    const [a, b, c, d, e, f] = affineOf({ scaleX: 0.6, scaleY: 1.4, slant: 9, rotate: 31 }, x, y);
    expect([a * x + c * y + e, b * x + d * y + f].map((v) => Math.round(v * 1e6) / 1e6)).toEqual(
      [x, y].map((v) => Math.round(v * 1e6) / 1e6),
    );
  }
  const grown = box(
    done({ glyphs: [id('R')], masters: ['m1'], by: { scaleX: 2, scaleY: 2 }, origin: 'bottom right' }),
    'R',
  );
  expect([grown.xMax, grown.yMin]).toEqual([before.xMax, before.yMin]);
  expect(grown.xMax - grown.xMin).toBeCloseTo(2 * (before.xMax - before.xMin), 2);
});

test('four quarter turns, and a flip twice, come back', () => {
  let p: Project = demo;
  for (let i = 0; i < 4; i++) p = done({ glyphs: [id('g')], masters: ['m1'], by: { rotate: 90 }, origin: 'centre' }, p);
  const places = (q: Project) =>
    outline(q, 'g').map((c) => c.points.map((o) => [Math.round(o.x * 10) / 10, Math.round(o.y * 10) / 10]));
  expect(places(p)).toEqual(places(demo));
  let flipped: Project = demo;
  for (let i = 0; i < 2; i++)
    flipped = done({ glyphs: [id('g')], masters: ['m1'], by: { scaleX: -1 }, origin: 'zero' }, flipped);
  expect(places(flipped)).toEqual(places(demo));
});

test('composites go along: all glyphs slanted are what each one drawn out and slanted would be', () => {
  const slanted = done({ glyphs: demo.glyphOrder, masters: ['m1'], by: { slant: 12 }, origin: 'zero' });
  const t = affineOf({ slant: 12 }, 0, 0);
  for (const name of ['eacute', 'Aring', 'onehalf', 'ccedilla']) {
    const expected = boundsOf(outline(demo, name).flatMap((c) => [...curvesOf(transformContour(c, t))]));
    const is = boundsOf(outline(slanted, name).flatMap((c) => [...curvesOf(c)]));
    for (const side of ['xMin', 'xMax', 'yMin', 'yMax'] as const)
      expect(Math.abs(is[side] - expected[side])).toBeLessThan(0.01);
  }
  // Alone, the composite is slanted with its parts.
  const alone = done({ glyphs: [id('eacute')], masters: ['m1'], by: { slant: 12 }, origin: 'zero' });
  expect(box(alone, 'eacute').xMax).toBeCloseTo(box(slanted, 'eacute').xMax, 3);
  expect(box(alone, 'eacute').yMax).toBeCloseTo(box(slanted, 'eacute').yMax, 3);
  expect(box(alone, 'e')).toEqual(box(demo, 'e'));
});

test('anchors move with the drawing, advances stay, other masters are not touched', () => {
  const moved = done({ glyphs: [id('a')], masters: ['m1'], by: { dx: 11, dy: -7 }, origin: 'zero' });
  const [before, after] = [demo, moved].map((p) => glyphNamed(p, 'a')!);
  expect(after!.drawings.m1!.advance).toBe(before!.drawings.m1!.advance);
  expect(after!.drawings.m1!.anchors.map((a) => [a.x - 11, a.y + 7])).toEqual(
    before!.drawings.m1!.anchors.map((a) => [a.x, a.y]),
  );
  expect(after!.drawings.m2).toBe(before!.drawings.m2);
});

test.each([
  [{ scaleX: 0 }, /nothing would be left/],
  [{ slant: 80 }, /60 degrees at most/],
  [{ dx: Number.NaN }, /A number is missing/],
])('%j is refused', (by, reason) => {
  const outcome = transformGlyphs(demo, { glyphs: [id('a')], masters: ['m1'], by, origin: 'zero' });
  expect(outcome.ok ? '' : outcome.reason).toMatch(reason);
});

describe('on points of one drawing', () => {
  const at = { glyph: id('o'), master: 'm1' };
  const points = (outcome: ReturnType<typeof transformPoints>) => {
    if (!outcome.ok) throw new Error(outcome.reason);
    return outcome.project.glyphs[at.glyph]!.drawings.m1!;
  };
  const o = glyphNamed(demo, 'o')!.drawings.m1!;
  const inner = o.contours[1]!.points.flatMap((p, k) => (p.type === 'off' ? [] : [pointKey(1, k)]));

  test('chosen points go with their handles, about their own box; the others stay', () => {
    const after = points(
      transformPoints(demo, { at, points: inner, by: { scaleX: 0.5, scaleY: 0.5 }, origin: 'centre' }),
    );
    expect(after.contours[0]).toBe(o.contours[0]);
    expect(Math.abs(signedArea(after.contours[1]!))).toBeCloseTo(Math.abs(signedArea(o.contours[1]!)) / 4, 0);
    const [a, b] = [contourBounds(o.contours[1]!), contourBounds(after.contours[1]!)];
    expect((b.xMin + b.xMax) / 2).toBeCloseTo((a.xMin + a.xMax) / 2, 2);
  });

  test('a flipped contour keeps its direction; with nothing chosen all goes, anchors too', () => {
    const flipped = points(transformPoints(demo, { at, points: inner, by: { scaleX: -1 }, origin: 'centre' }));
    expect(Math.sign(signedArea(flipped.contours[1]!))).toBe(Math.sign(signedArea(o.contours[1]!)));
    const all = points(transformPoints(demo, { at, points: [], by: { dx: 10 }, origin: 'zero' }));
    expect(all.anchors[0]!.x).toBe(o.anchors[0]!.x + 10);
    expect(all.advance).toBe(o.advance);
  });

  test('a copy leaves what was there', () => {
    const copied = points(
      transformPoints(demo, { at, points: inner, by: { rotate: 30 }, origin: 'centre', copy: true }),
    );
    expect(copied.contours.slice(0, 2)).toEqual(o.contours);
    expect(copied.contours).toHaveLength(3);
    expect(transformPoints(demo, { at, points: [], by: { scaleX: 0 }, origin: 'zero' })).toMatchObject({ ok: false });
  });
});
