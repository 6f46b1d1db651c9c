import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import { refused } from '../base/result';
import { type Contour, contourBounds, curvesOf, signedArea } from '../geometry/contour';
import { boundsOf, nearestOn, pointAt } from '../geometry/curve';
import { curvatureAt, OFFSET_TOLERANCE, parallel } from '../geometry/offset';
import { strokeOutline } from '../geometry/stroke';
import { windingAt } from '../geometry/winding';
import { drawingsOf, flattened } from '../project/outline';
import { drawingOf, glyphNamed } from '../project/queries';
import { sameStructure } from '../project/structure';
import { ellipse, rectangle, roundedRectangle } from './shapes';
import { workStrokes } from './strokes';
import { workedGlyphs, workStrokesOfGlyphs } from './strokesOfMany';

const project = readyDemo();
const at = (name: string, master = 'm1') => ({ glyph: glyphNamed(project, name)!.id, master });
const area = (contours: readonly Contour[]) => contours.reduce((sum, c) => sum + signedArea(c), 0);
const open = (points: readonly (readonly [number, number, 'line' | 'curve' | 'off'])[]): Contour => ({
  closed: false,
  points: points.map(([x, y, type]) => ({ x, y, type })),
});

/** Distances of an outline's places from the path it is a stroke of. */
function distances(outline: readonly Contour[], path: readonly Contour[]): number[] {
  const curves = path.flatMap((c) => curvesOf(c).map((curve) => ({ curve, box: boundsOf([curve]) })));
  return outline.flatMap((c) =>
    curvesOf(c).flatMap((curve) =>
      [0, 0.2, 0.5, 0.8].map((t) => {
        const [x, y] = pointAt(curve, t);
        let best = Infinity;
        for (const { curve: q, box } of curves)
          if (Math.hypot(Math.max(0, box.xMin - x, x - box.xMax), Math.max(0, box.yMin - y, y - box.yMax)) < best)
            best = Math.min(best, nearestOn(q, x, y).distance);
        return best;
      }),
    ),
  );
}

test('a straight stroke has its width, its caps and its joins', () => {
  const line = open([
    [0, 0, 'line'],
    [100, 0, 'line'],
  ]);
  const of = (cap: 'flat' | 'round' | 'square') => strokeOutline([line], { width: 20, join: 'sharp', cap }).contours;
  expect(contourBounds(of('flat')[0]!)).toEqual({ xMin: 0, xMax: 100, yMin: -10, yMax: 10 });
  expect(contourBounds(of('square')[0]!)).toEqual({ xMin: -10, xMax: 110, yMin: -10, yMax: 10 });
  expect(area(of('round'))).toBeCloseTo(2000 + Math.PI * 100, 0);
  const bent = open([
    [0, 0, 'line'],
    [100, 0, 'line'],
    [100, 100, 'line'],
  ]);
  const joined = (join: 'round' | 'sharp' | 'bevel') =>
    area(strokeOutline([bent], { width: 20, join, cap: 'flat' }).contours);
  // Two bars share a quarter of a square inside; outside the corner is filled or not.
  expect(joined('bevel')).toBeCloseTo(4000 - 100 + 50, 1);
  expect(joined('sharp')).toBeCloseTo(4000 - 100 + 100, 1);
  expect(joined('round')).toBeCloseTo(4000 - 100 + (Math.PI * 100) / 4, 0);
});

test('a needle’s tip becomes a bevel, not a spike', () => {
  const needle = open([
    [0, 0, 'line'],
    [300, 8, 'line'],
    [0, 16, 'line'],
  ]);
  const box = contourBounds(strokeOutline([needle], { width: 20, join: 'sharp', cap: 'flat' }).contours[0]!);
  expect(box.xMax).toBeLessThan(320);
});

test('strokes along letters lie half their width from them everywhere, without loops or spikes', () => {
  for (const name of ['a', 'g', 'S', 'ampersand', 'asterisk']) {
    for (const width of [10, 44]) {
      const contours = drawingOf(glyphNamed(project, name)!, 'm1').contours;
      const { contours: outline, failed } = strokeOutline(contours, { width, join: 'round', cap: 'round' });
      expect(failed).toBe(false);
      for (const d of distances(outline, contours)) expect(Math.abs(d - width / 2)).toBeLessThan(0.5);
    }
  }
});

test('random open curves, tight ones too, have sound strokes within half a unit', () => {
  const place = fc.integer({ min: 0, max: 300 });
  fc.assert(
    fc.property(
      fc.array(fc.tuple(place, place), { minLength: 4, maxLength: 7 }),
      fc.constantFrom(12, 60),
      (places, width) => {
        const n = places.length - ((places.length - 1) % 3);
        const path = open(
          places.slice(0, n).map(([x, y], i) => [x, y, i === 0 ? 'line' : i % 3 === 0 ? 'curve' : 'off'] as const),
        );
        const { contours: outline, failed } = strokeOutline([path], { width, join: 'round', cap: 'round' });
        expect(failed).toBe(false);
        for (const d of distances(outline, [path])) expect(Math.abs(d - width / 2)).toBeLessThan(0.5);
        // The path itself is inside.
        const edge = outline.flatMap((c) => [...curvesOf(c)]);
        for (const c of curvesOf(path)) expect(windingAt(edge, ...pointAt(c, 0.37))).not.toBe(0);
      },
    ),
    { seed: 21, numRuns: 25 },
  );
});

test('parallels keep within their tolerance, and curvature has its sign', () => {
  const [quarter] = curvesOf(ellipse(-100, -100, 100, 100));
  expect(curvatureAt(quarter!, 0.3)).toBeCloseTo(0.01, 4);
  for (const distance of [30, -30, 95]) {
    for (const c of parallel(quarter!, distance).curves)
      for (const t of [0, 0.3, 0.7, 1])
        expect(Math.abs(Math.hypot(...pointAt(c, t)) - (100 - distance))).toBeLessThan(OFFSET_TOLERANCE + 0.05);
  }
  expect(parallel(quarter!, 130).turnsBack).toBe(true);
  expect(parallel([0, 0, 30, 40], 10).curves).toEqual([[-8, 6, 22, 46]]);
});

test('growing and shrinking move every edge by the distance; too much leaves nothing and is refused', () => {
  const grown = workStrokes(project, { at: at('o'), contours: [], work: { kind: 'grow', by: 12, join: 'round' } });
  const before = drawingOf(glyphNamed(project, 'o')!, 'm1').contours;
  if (!grown.ok) throw new Error(grown.reason);
  const after = drawingOf(grown.project.glyphs[at('o').glyph]!, 'm1').contours;
  expect(after).toHaveLength(2);
  for (const d of distances(after, before)) expect(Math.abs(d - 12)).toBeLessThan(0.5);
  expect(area(after)).toBeGreaterThan(area(before));
  const back = workStrokes(grown.project, {
    at: at('o'),
    contours: [],
    work: { kind: 'grow', by: -12, join: 'round' },
  });
  if (!back.ok) throw new Error(back.reason);
  expect(area(drawingOf(back.project.glyphs[at('o').glyph]!, 'm1').contours)).toBeCloseTo(area(before), -3);
  expect(
    workStrokes(project, { at: at('o'), contours: [], work: { kind: 'grow', by: -200, join: 'round' } }),
  ).toMatchObject({ ok: false });
});

test('a hollow letter has the wall that was asked for, all round', () => {
  const done = workStrokes(project, { at: at('H'), contours: [], work: { kind: 'hollow', wall: 20, join: 'round' } });
  if (!done.ok) throw new Error(done.reason);
  const before = drawingOf(glyphNamed(project, 'H')!, 'm1').contours;
  const after = drawingOf(done.project.glyphs[at('H').glyph]!, 'm1').contours;
  const inner = after.filter((c) => signedArea(c) < 0);
  expect(inner).toHaveLength(1);
  // A corner of the letter that points inwards is a corner of the counter too; elsewhere the wall is the wall.
  for (const d of distances(inner, before)) expect(d).toBeGreaterThan(19.9);
  expect(distances(inner, before).filter((d) => d > 20.1).length).toBeLessThan(inner[0]!.points.length);
  expect(
    workStrokes(project, { at: at('H'), contours: [], work: { kind: 'hollow', wall: 60, join: 'sharp' } }),
  ).toMatchObject(refused(expect.stringContaining('so thick')));
});

test('a frame goes round the letter at the line’s height, drawn or reversed', () => {
  const frame = { kind: 'frame', margin: 40, wall: 30, radius: 0, reversed: false } as const;
  const done = workStrokes(project, { at: at('A'), contours: [], work: frame });
  if (!done.ok) throw new Error(done.reason);
  const letter = drawingOf(glyphNamed(project, 'A')!, 'm1').contours;
  const contours = drawingOf(done.project.glyphs[at('A').glyph]!, 'm1').contours;
  expect(contours.slice(0, letter.length)).toEqual(letter);
  const [outer, inner] = contours.slice(letter.length).map((c) => contourBounds(c));
  expect(outer!.yMax - inner!.yMax).toBe(30);
  expect(inner!.xMin - outer!.xMin).toBe(30);
  const reversed = workStrokes(project, {
    at: at('Aacute'),
    contours: [],
    work: { ...frame, reversed: true, radius: 60 },
  });
  if (!reversed.ok) throw new Error(reversed.reason);
  const key = drawingOf(reversed.project.glyphs[at('Aacute').glyph]!, 'm1');
  expect(key.components).toEqual([]);
  const edge = key.contours.flatMap((c) => [...curvesOf(c)]);
  const box = contourBounds(key.contours[0]!);
  expect(windingAt(edge, box.xMin + 5, 300)).not.toBe(0);
  expect(windingAt(edge, box.xMin + 3, box.yMin + 3)).toBe(0);
  expect(contourBounds(roundedRectangle(0, 0, 100, 60, 500))).toEqual({ xMin: 0, xMax: 100, yMin: 0, yMax: 60 });
});

test('chosen contours only; what cannot be is refused in a sentence; many glyphs at once', () => {
  const one = workStrokes(project, {
    at: at('i'),
    contours: [0],
    work: { kind: 'stroke', width: 10, join: 'round', cap: 'flat' },
  });
  const i = drawingOf(glyphNamed(project, 'i')!, 'm1');
  if (!one.ok) throw new Error(one.reason);
  expect(drawingOf(one.project.glyphs[at('i').glyph]!, 'm1').contours).toContain(i.contours[1]);
  for (const work of [
    { kind: 'stroke', width: 0, join: 'round', cap: 'flat' },
    { kind: 'grow', by: Number.NaN, join: 'round' },
    { kind: 'hollow', wall: -3, join: 'round' },
    { kind: 'frame', margin: -1, wall: 10, radius: 0, reversed: false },
  ] as const)
    expect(workStrokes(project, { at: at('i'), contours: [], work })).toMatchObject({ ok: false });
  const many = workStrokesOfGlyphs(project, {
    glyphs: ['o', 'n', 'space', 'eacute'].map((n) => glyphNamed(project, n)!.id),
    masters: ['m1', 'm3'],
    work: { kind: 'hollow', wall: 10, join: 'round' },
  });
  expect(many.ok && many.sentence).toBe('Hollowed in 2 glyphs');
  expect(area([rectangle(0, 0, 10, 10)])).toBe(100);
});

test('key-caps of many letters: one width, the sides around, all masters agreeing; the glyphs themselves stay when copies are made', () => {
  const ids = ['A', 'I', 'W', 'Aacute', 'space'].map((n) => glyphNamed(project, n)!.id);
  const masters = project.masters.map((m) => m.id);
  const work = {
    kind: 'frame',
    margin: 40,
    wall: 30,
    radius: 60,
    reversed: false,
    sides: 'frame',
    least: 900,
  } as const;
  const keys = workStrokesOfGlyphs(project, { glyphs: ids, masters, work, suffix: 'key' });
  if (!keys.ok) throw new Error(keys.reason);
  expect(keys.sentence).toBe('Framed in 5 copies');
  for (const id of ids) expect(keys.project.glyphs[id]).toBe(project.glyphs[id]);
  for (const name of ['A.key', 'I.key', 'Aacute.key', 'space.key']) {
    const key = glyphNamed(keys.project, name)!;
    expect(key.unicodes).toEqual([]);
    for (const m of masters) {
      const d = drawingOf(key, m);
      expect(d.advance).toBe(Math.max(900, d.advance));
      const box = contourBounds(d.contours.at(-2)!);
      expect([box.xMin, box.xMax]).toEqual([0, d.advance]);
    }
    expect(sameStructure(masters.map((m) => drawingOf(key, m)))).toBe(true);
  }
  const order = keys.project.glyphOrder.map((id) => keys.project.glyphs[id]!.name);
  expect(order.indexOf('A.key')).toBe(order.indexOf('A') + 1);
  // In place, a letter built of a framed one has one frame, not that one's within its own.
  const placed = workedGlyphs(project, { glyphs: ids, masters: ['m1'], work, copies: false });
  const aacute = placed.made.find((m) => m.glyph === ids[3])!.drawings.m1!;
  expect(aacute.components).toEqual([]);
  expect(aacute.contours).toHaveLength(
    flattened(drawingOf(project.glyphs[ids[3]!]!, 'm1'), drawingsOf(project, 'm1')).length + 2,
  );
  const copied = workedGlyphs(project, { glyphs: ids, masters: ['m1'], work, copies: true });
  expect(copied.made.find((m) => m.glyph === ids[3])!.drawings.m1!.components).toHaveLength(2);
  expect(workStrokesOfGlyphs(keys.project, { glyphs: ids, masters, work, suffix: 'key' })).toMatchObject({
    ok: false,
    reason: 'There is already a glyph named A.key; choose another suffix.',
  });
});

test('a glyph that cannot be worked on in one master stays as it is in all, and is told with the reason', () => {
  const ids = ['n', 'i', 'eacute'].map((n) => glyphNamed(project, n)!.id);
  const masters = project.masters.map((m) => m.id);
  const dot = glyphNamed(project, 'period')!.id;
  const { made, left } = workedGlyphs(project, {
    glyphs: [...ids, dot],
    masters,
    work: { kind: 'grow', by: -34, join: 'round' },
    copies: false,
  });
  const thin = left.filter((l) => /^Nothing would be left \(.+\)\.$/.test(l.reason));
  expect(thin.map((l) => project.glyphs[l.glyph]!.name)).toContain('n');
  expect(left.find((l) => l.glyph === ids[2])?.reason).toBe('It is built of parts, and changes as they do.');
  for (const m of made) expect(Object.keys(m.drawings).sort()).toEqual([...masters].sort());
  expect(made.length + left.length).toBe(4);
});
