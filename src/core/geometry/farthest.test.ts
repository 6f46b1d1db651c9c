import fc from 'fast-check';
import type { Contour } from './contour';
import { type Curve, nearestOn, pointAt, reversed } from './curve';
import { farthestFrom } from './fit';
import { curvatureAt, cutAtTurns, parallel } from './offset';
import { wrongWay } from './winding';

const place = fc.tuple(fc.integer({ min: -300, max: 300 }), fc.integer({ min: -300, max: 300 }));
const cubic = fc.tuple(place, place, place, place).map((p) => p.flat() as Curve);

test('the distance of places from a curve is that of the exact search within a unit in a hundred', () => {
  fc.assert(
    fc.property(cubic, fc.array(place, { minLength: 1, maxLength: 8 }), (c, places) => {
      const exact = Math.max(...places.map(([x, y]) => nearestOn(c, x, y).distance));
      expect(Math.abs(farthestFrom(c, places) - exact)).toBeLessThan(Math.max(1.5, exact * 0.01));
    }),
    { seed: 5 },
  );
  expect(farthestFrom([0, 0, 10, 0], [])).toBe(0);
});

test('the parallel of a curve travelled the other way lies on the other side', () => {
  fc.assert(
    fc.property(cubic, fc.integer({ min: 5, max: 40 }), (c, distance) => {
      const there = parallel(c, distance);
      const back = parallel(reversed(c), -distance);
      expect(back.turnsBack).toBe(there.turnsBack);
      if (there.turnsBack) return;
      const [from] = there.curves;
      const last = back.curves[back.curves.length - 1]!;
      expect(Math.hypot(from![0]! - last[last.length - 2]!, from![1]! - last[last.length - 1]!)).toBeLessThan(1e-6);
    }),
    { seed: 6 },
  );
  expect(curvatureAt([0, 0, 5, 5], 0.5)).toBe(0);
});

test('a parallel goes round a turn that is as good as a corner, and keeps its distance all the way', () => {
  // Turns back within a hair of its length, near its end.
  const c: Curve = [90, 0, 108, 174, 292, 283, 251, 257];
  const { curves, turnsBack } = parallel(c, -6);
  expect(turnsBack).toBe(false);
  curves.forEach((piece, i) => {
    for (let k = 0; k <= 16; k++) {
      const [x, y] = pointAt(piece, k / 16);
      expect(Math.abs(nearestOn(c, x, y).distance - 6)).toBeLessThan(0.3);
    }
    const next = curves[i + 1];
    if (next)
      expect(Math.hypot(next[0]! - piece[piece.length - 2]!, next[1]! - piece[piece.length - 1]!)).toBeLessThan(0.05);
  });
  const parts = cutAtTurns(c, 6);
  expect(parts).toHaveLength(3);
  expect(parts.map((p) => parallel(p, 6).turnsBack)).toEqual([false, true, false]);
});

test('the contours that go the wrong way are named, and only those; a drawing turned round as a whole is right', () => {
  const square = (left: number, size: number, ccw: boolean): Contour => {
    const points = [
      [left, left],
      [left + size, left],
      [left + size, left + size],
      [left, left + size],
    ].map(([x, y]) => ({ x: x!, y: y!, type: 'line' as const }));
    return { closed: true, points: ccw ? points : [...points].reverse() };
  };
  const [outer, hole, island, apart] = [
    square(0, 100, true),
    square(20, 60, false),
    square(40, 20, true),
    square(200, 30, true),
  ];
  expect(wrongWay([outer, hole, island, apart])).toEqual([]);
  expect(wrongWay([outer, square(20, 60, true), island])).toEqual([1]);
  expect(wrongWay([outer, hole, square(40, 20, false), square(200, 30, false)])).toEqual([2, 3]);
  expect(wrongWay([square(0, 100, false), square(20, 60, true)])).toEqual([]);
  expect(wrongWay([{ ...outer, closed: false }])).toEqual([]);
  expect(wrongWay([])).toEqual([]);
});
