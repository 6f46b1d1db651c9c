import fc from 'fast-check';
import { curvesOf, isOnCurve } from './contour';
import { directionAt, pointAt } from './curve';
import { curvatureAt } from './offset';
import { curveThrough, type Dot } from './through';

const dot = (x: number, y: number, corner = false): Dot => ({ x, y, corner });

test('four dots on a circle make a circle, with level and upright extremes', () => {
  const round = curveThrough([dot(100, 0), dot(0, 100), dot(-100, 0), dot(0, -100)], true);
  expect(round.points.filter(isOnCurve).map((p) => [p.x, p.y, p.smooth])).toEqual([
    [100, 0, true],
    [0, 100, true],
    [-100, 0, true],
    [0, -100, true],
  ]);
  for (const c of curvesOf(round))
    for (let k = 0; k <= 10; k++) expect(Math.abs(Math.hypot(...pointAt(c, k / 10)) - 100)).toBeLessThan(0.1);
});

test('corners part the curve; two in a row are joined by a line', () => {
  const shape = curveThrough(
    [dot(0, 0, true), dot(100, 0, true), dot(100, 100, true), dot(50, 160), dot(0, 100, true)],
    true,
  );
  expect(shape.points.map((p) => p.type)).toEqual([
    'line',
    'line',
    'line',
    'off',
    'off',
    'curve',
    'off',
    'off',
    'curve',
  ]);
  expect(shape.points.filter((p) => p.smooth).map((p) => [p.x, p.y])).toEqual([[50, 160]]);
  // The top is an extreme, so its handles are level.
  const top = shape.points.findIndex((p) => p.smooth);
  expect([shape.points[top - 1]!.y, shape.points[top + 1]!.y].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([
    160, 160,
  ]);
});

test('the curve goes through every dot, once, smoothly, and curvature does not jump where nothing was made level', () => {
  const place = fc.integer({ min: -300, max: 300 });
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.tuple(place, place), { minLength: 3, maxLength: 9, selector: (p) => p.join() }),
      fc.boolean(),
      (places, closed) => {
        const dots = places.map(([x, y]) => dot(x, y));
        const contour = curveThrough(dots, closed);
        expect(contour.closed).toBe(closed);
        expect(contour.points.filter(isOnCurve).map((p) => [p.x, p.y])).toEqual(places);
        const curves = curvesOf(contour);
        expect(curves).toHaveLength(closed ? places.length : places.length - 1);
        curves.forEach((c, i) => {
          const next = curves[i + 1] ?? (closed ? curves[0]! : undefined);
          if (!next) return;
          const [a, b] = [directionAt(c, 1), directionAt(next, 0)];
          expect(Math.abs(Math.atan2(a[0] * b[1] - a[1] * b[0], a[0] * b[0] + a[1] * b[1]))).toBeLessThan(1e-6);
        });
      },
    ),
    { seed: 3 },
  );
  const wave = curvesOf(curveThrough([dot(0, 0), dot(90, 40), dot(190, 70), dot(300, 60)], false));
  expect(curvatureAt(wave[0]!, 1)).toBeCloseTo(curvatureAt(wave[1]!, 0), 2);
});

test('few, doubled and no dots are no trouble', () => {
  expect(curveThrough([], true).points).toEqual([]);
  expect(curveThrough([dot(5, 5)], true)).toEqual({ closed: false, points: [{ x: 5, y: 5, type: 'line' }] });
  expect(curveThrough([dot(0, 0), dot(0, 0), dot(9, 0)], false).points.filter(isOnCurve)).toHaveLength(2);
  expect(
    curveThrough([dot(0, 0), dot(50, 50), dot(0, 0)], true).points.every(
      (p) => Number.isFinite(p.x) && Number.isFinite(p.y),
    ),
  ).toBe(true);
});
