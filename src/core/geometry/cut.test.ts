import fc from 'fast-check';
import { buildStarter } from '../../../demo/starter';
import { ellipse, rectangle } from '../drawing/shapes';
import { drawingsOf, flattened } from '../project/outline';
import { glyphNamed } from '../project/queries';
import { type Contour, contourBounds, reverseContour, signedArea } from './contour';
import { cutAlong } from './cut';
import { square } from './testShapes';

const area = (contours: readonly Contour[]) => contours.reduce((sum, c) => sum + signedArea(c), 0);

test('a square is cut into two, each closed by the cut', () => {
  const { contours, places } = cutAlong([square(0, 0, 100)], [-10, 30], [110, 30]);
  expect(places).toBe(1);
  expect(contours.map((c) => contourBounds(c)).sort((a, b) => a.yMin - b.yMin)).toEqual([
    { xMin: 0, xMax: 100, yMin: 0, yMax: 30 },
    { xMin: 0, xMax: 100, yMin: 30, yMax: 100 },
  ]);
  expect(contours.every((c) => c.points.length === 4 && signedArea(c) > 0)).toBe(true);
});

test('a cut that ends within ink, or misses, changes nothing', () => {
  const shapes = [square(0, 0, 100)];
  for (const [from, to] of [
    [
      [-10, 30],
      [50, 30],
    ],
    [
      [30, 30],
      [60, 60],
    ],
    [
      [-10, 130],
      [110, 130],
    ],
  ] as const) {
    const cut = cutAlong(shapes, from, to);
    expect(cut.places).toBe(0);
    expect(cut.contours[0]).toBe(shapes[0]);
  }
});

test('a cut through a ring opens it; through both walls, it comes apart', () => {
  const ring = [ellipse(0, 0, 400, 400), reverseContour(ellipse(100, 100, 300, 300))];
  const opened = cutAlong(ring, [200, 200], [200, 500]);
  expect([opened.places, opened.contours.length]).toEqual([1, 1]);
  expect(area(opened.contours)).toBeCloseTo(area(ring), 3);
  const apart = cutAlong(ring, [200, -50], [200, 500]);
  expect([apart.places, apart.contours.length]).toEqual([2, 2]);
  for (const half of apart.contours) expect(signedArea(half)).toBeCloseTo(area(ring) / 2, 0);
});

test('only the leg that is cut is cut, and letters keep what they are made of', () => {
  const p = buildStarter();
  const n = flattened(glyphNamed(p, 'n')!.drawings.m1!, drawingsOf(p, 'm1'));
  const { contours, places } = cutAlong(n, [40, 100], [200, 100]);
  expect([places, contours.length - n.length]).toEqual([1, 1]);
  expect(area(contours)).toBeCloseTo(area(n), 2);
  const foot = contours.find((c) => contourBounds(c).yMax <= 100.01)!;
  expect(contourBounds(foot)).toMatchObject({ yMin: 0, yMax: 100 });
});

test('shapes on each other are cut each by itself; an untouched one stays the same object', () => {
  const [a, b, c] = [rectangle(0, 0, 100, 400), rectangle(50, 0, 150, 400), rectangle(500, 0, 600, 400)];
  const { contours, places } = cutAlong([a, b, c], [-20, 200], [180, 200]);
  expect(places).toBe(2);
  expect(contours).toHaveLength(5);
  expect(contours[4]).toBe(c);
});

test('open contours come apart where they are crossed', () => {
  const path: Contour = {
    closed: false,
    points: [
      { x: 0, y: 0, type: 'line' },
      { x: 100, y: 0, type: 'line' },
      { x: 100, y: 100, type: 'line' },
    ],
  };
  const { contours, places } = cutAlong([path], [50, -20], [50, 20]);
  expect([places, contours.map((c) => c.points.map((q) => [q.x, q.y]))]).toEqual([
    1,
    [
      [
        [0, 0],
        [50, 0],
      ],
      [
        [50, 0],
        [100, 0],
        [100, 100],
      ],
    ],
  ]);
});

test('through a corner, along an edge, and touching', () => {
  const shape = [square(0, 0, 100)];
  const diagonal = cutAlong(shape, [-20, -20], [120, 120]);
  expect([diagonal.places, diagonal.contours.length]).toEqual([1, 2]);
  expect(diagonal.contours.map((c) => c.points.length)).toEqual([3, 3]);
  expect(cutAlong(shape, [-20, 0], [120, 0]).places).toBe(0);
  expect(cutAlong([ellipse(0, 0, 100, 100)], [-20, 100], [120, 100]).places).toBe(0);
});

test('any cut keeps the area and adds at most as many contours as places', () => {
  const p = buildStarter();
  const letters = ['a', 'g', 'B', 'eight', 'S', 'o', 'R'].map((name) =>
    flattened(glyphNamed(p, name)!.drawings.m1!, drawingsOf(p, 'm1')),
  );
  const place = fc.tuple(fc.integer({ min: -100, max: 700 }), fc.integer({ min: -250, max: 800 }));
  fc.assert(
    fc.property(fc.constantFrom(...letters), place, place, (letter, from, to) => {
      const { contours, places } = cutAlong(letter, from, to);
      expect(Math.abs(area(contours) - area(letter))).toBeLessThan(3);
      expect(contours.length - letter.length).toBeLessThanOrEqual(places);
      expect(contours.every((c) => c.points.length >= 2)).toBe(true);
    }),
    { numRuns: 300, seed: 9 },
  );
});
