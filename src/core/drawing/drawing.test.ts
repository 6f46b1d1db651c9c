import fc from 'fast-check';
import { buildStarter } from '../../../demo/starter';
import { refused } from '../base/result';
import { controlStrings, glyphsOfLine } from '../fitting/lines';
import { setSides, sidesOf } from '../fitting/sides';
import { type Contour, curvesOf, segmentsOf, signedArea } from '../geometry/contour';
import { setSmooth, toggleSegment } from '../geometry/pointKinds';
import type { Outcome } from '../project/edit';
import type { Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { addContour, movePoints, placePoint, resizePoints } from './edits';
import { movePointsOf } from './move';
import { ellipse, rectangle } from './shapes';

const done = (o: Outcome): Project => {
  if (!o.ok) throw new Error(o.reason);
  return o.project;
};
const straight = (c: Contour, i: number) => {
  const n = c.points.length;
  const [a, p, b] = [c.points[(i - 1 + n) % n]!, c.points[i]!, c.points[(i + 1) % n]!];
  return (
    Math.abs((p.x - a.x) * (b.y - p.y) - (p.y - a.y) * (b.x - p.x)) /
    (Math.hypot(p.x - a.x, p.y - a.y) * Math.hypot(b.x - p.x, b.y - p.y))
  );
};

test('an ellipse is nearly a true one and has its points at the extremes', () => {
  const c = ellipse(0, 0, 400, 200);
  expect(signedArea(c) / (Math.PI * 200 * 100)).toBeCloseTo(1, 3);
  expect(c.points.filter((p) => p.type !== 'off').map((p) => [p.x, p.y])).toEqual([
    [400, 100],
    [200, 200],
    [0, 100],
    [200, 0],
  ]);
});

test('a point takes its handles with it', () => {
  const moved = movePointsOf(ellipse(0, 0, 200, 200), new Set([0]), [10, 5]);
  const before = ellipse(0, 0, 200, 200).points;
  for (const i of [0, 1, 11]) expect(moved.points[i]).toMatchObject({ x: before[i]!.x + 10, y: before[i]!.y + 5 });
  for (const i of [2, 3, 10]) expect(moved.points[i]).toEqual(before[i]);
});

test('smooth points stay smooth however handles and neighbours are moved', () => {
  const d = (n: number) => fc.integer({ min: -n, max: n });
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 11 }), d(80), d(80), (i, dx, dy) => {
      const moved = movePointsOf(ellipse(0, 0, 300, 300), new Set([i]), [dx, dy]);
      moved.points.forEach((p, k) => {
        const n = moved.points.length;
        const reach = Math.min(
          ...[-1, 1].map((s) =>
            Math.hypot(moved.points[(k + s + n) % n]!.x - p.x, moved.points[(k + s + n) % n]!.y - p.y),
          ),
        );
        if (p.smooth && reach > 5) expect(straight(moved, k)).toBeLessThan(0.002);
      });
    }),
  );
});

test('the handle at a tangent point keeps to its line when the line turns', () => {
  const c: Contour = {
    closed: true,
    points: [
      { x: 0, y: 0, type: 'line' },
      { x: 100, y: 0, type: 'line', smooth: true },
      { x: 150, y: 0, type: 'off' },
      { x: 200, y: 50, type: 'off' },
      { x: 200, y: 100, type: 'curve' },
    ],
  };
  const moved = movePointsOf(c, new Set([0]), [0, 100]);
  expect(straight(moved, 1)).toBeLessThan(0.001);
  expect(Math.hypot(moved.points[2]!.x - 100, moved.points[2]!.y)).toBeCloseTo(50, 2);
});

test('corner and smooth; line and curve', () => {
  const round = ellipse(0, 0, 100, 100);
  const corner = setSmooth(round, new Set([0]), false);
  expect(corner.points[0]!.smooth).toBeUndefined();
  const bent = movePointsOf(corner, new Set([1]), [30, 0]);
  expect(straight(setSmooth(bent, new Set([0]), true), 0)).toBeLessThan(0.001);
  const box = rectangle(0, 0, 90, 90);
  expect(setSmooth(box, new Set([0]), true).points[0]!.smooth).toBeUndefined();
  const curved = toggleSegment(box, segmentsOf(box)[0]!);
  expect(curved.points.map((p) => p.type)).toEqual(['line', 'off', 'off', 'curve', 'line', 'line']);
  expect(signedArea(curved)).toBeCloseTo(8100, 6);
  expect(toggleSegment(curved, segmentsOf(curved)[0]!).points.map((p) => p.type)).toEqual([
    'line',
    'line',
    'line',
    'line',
  ]);
});

test('edits by place and number; a missing glyph or point is refused', () => {
  const p = buildStarter();
  const n = glyphNamed(p, 'n')!;
  const at = { glyph: n.id, master: 'm1' };
  const placed = done(placePoint(p, { at, point: '0:0', x: 60 }));
  expect(placed.glyphs[n.id]!.drawings.m1!.contours[0]!.points[0]).toMatchObject({ x: 60, y: 0 });
  expect(placePoint(p, { at, point: '9:0', x: 1 })).toMatchObject({ ok: false });
  expect(movePoints(p, { at: { glyph: 'gone', master: 'm1' }, points: ['0:0'], dx: 1, dy: 0 })).toMatchObject({
    ok: false,
  });
});

test('an oval takes the size that is typed', () => {
  const p = buildStarter();
  const at = { glyph: glyphNamed(p, 'arrowright')!.id, master: 'm1' };
  const drawn = done(addContour(p, { at, contour: ellipse(100, 50, 300, 150), what: 'an oval' }));
  const points = ['0:0', '0:3', '0:6', '0:9'] as const;
  const resized = done(resizePoints(done(resizePoints(drawn, { at, points, width: 440 })), { at, points, height: 90 }));
  const contour = resized.glyphs[at.glyph]!.drawings.m1!.contours[0]!;
  const wanted = ellipse(100, 50, 540, 140);
  contour.points.forEach((q, i) => {
    expect(Math.abs(q.x - wanted.points[i]!.x) + Math.abs(q.y - wanted.points[i]!.y)).toBeLessThan(0.3);
  });
  expect(resizePoints(drawn, { at, points, width: 0 })).toMatchObject({ ok: false });
});

test('side bearings: left moves the drawing, right the edge; composites keep their marks', () => {
  const p = buildStarter();
  const n = glyphNamed(p, 'n')!;
  const dot = glyphNamed(p, 'period')!;
  const eacute = glyphNamed(p, 'eacute')!;
  const composite: Project = {
    ...p,
    glyphs: {
      ...p.glyphs,
      [eacute.id]: {
        ...eacute,
        drawings: {
          m1: {
            ...n.drawings.m1!,
            contours: [],
            components: [
              { glyph: n.id, transform: [1, 0, 0, 1, 0, 0] },
              { glyph: dot.id, transform: [1, 0, 0, 1, 200, 600] },
            ],
          },
        },
      },
    },
  };
  const before = sidesOf(composite, n, 'm1');
  if (!('left' in before)) throw new Error('n is drawn');
  const next = done(setSides(composite, { at: { glyph: n.id, master: 'm1' }, left: before.left + 12 }));
  expect(sidesOf(next, next.glyphs[n.id]!, 'm1')).toEqual({
    left: before.left + 12,
    right: before.right,
    advance: before.advance + 12,
  });
  const drawing = next.glyphs[eacute.id]!.drawings.m1!;
  expect(drawing.components[1]!.transform).toEqual([1, 0, 0, 1, 212, 600]);
  expect(drawing.advance).toBe(before.advance + 12);
  const dotMoved = done(setSides(composite, { at: { glyph: dot.id, master: 'm1' }, left: 0 }));
  const shift = -(sidesOf(composite, dot, 'm1') as { left: number }).left;
  expect(dotMoved.glyphs[eacute.id]!.drawings.m1!.components[1]!.transform[4]).toBe(200 - shift);
  expect(setSides(p, { at: { glyph: n.id, master: 'm1' }, advance: -4 })).toMatchObject(
    refused(expect.stringContaining('-4')),
  );
  const space = glyphNamed(p, 'space')!;
  expect(setSides(p, { at: { glyph: space.id, master: 'm1' }, left: 10 })).toMatchObject({ ok: false });
  expect(
    done(setSides(p, { at: { glyph: space.id, master: 'm1' }, advance: 300 })).glyphs[space.id]!.drawings.m1!.advance,
  ).toBe(300);
});

test('lines take characters and names; control strings suit the kind of glyph', () => {
  const p = buildStarter();
  const names = (line: string) => glyphsOfLine(p, line).glyphs.map((id) => p.glyphs[id]!.name);
  expect(names('n/ampersand o7')).toEqual(['n', 'ampersand', 'o', 'seven']);
  expect(glyphsOfLine(p, 'nЖ').missing).toEqual(['Ж']);
  expect(controlStrings(p, glyphNamed(p, 'R')!)[0]).toBe('HHRHRRHH');
  expect(controlStrings(p, glyphNamed(p, 'seven')!)[1]).toBe('00707700');
  expect(curvesOf(rectangle(0, 0, 1, 1))).toHaveLength(4);
});
