import fc from 'fast-check';
import {
  areaUnder,
  asCubic,
  boundsOf,
  derivativeAt,
  lengthOf,
  nearestOn,
  partOf,
  pointAt,
  reversed,
  solveRising,
  splitAt,
} from './curve';
import { anyCurve, coordinate } from './testShapes';

const t = fc.double({ min: 0, max: 1, noNaN: true });

test('a split curve traces the same shape', () => {
  fc.assert(
    fc.property(anyCurve, t, t, (c, at, u) => {
      const [left, right] = splitAt(c, at);
      const [x, y] = pointAt(left, u);
      const [p, q] = pointAt(c, u * at);
      expect(Math.hypot(x - p, y - q)).toBeLessThan(1e-6);
      const [v, w] = pointAt(right, u);
      const [r, s] = pointAt(c, at + u * (1 - at));
      expect(Math.hypot(v - r, w - s)).toBeLessThan(1e-6);
    }),
  );
});

test('a part of a curve begins and ends where it should', () => {
  fc.assert(
    fc.property(anyCurve, t, t, (c, a, b) => {
      fc.pre(Math.abs(a - b) > 1e-3);
      const part = partOf(c, Math.min(a, b), Math.max(a, b));
      const [x, y] = pointAt(part, 0.5);
      const [p, q] = pointAt(c, (a + b) / 2);
      expect(Math.hypot(x - p, y - q)).toBeLessThan(1e-5);
    }),
  );
});

test('bounds hold every point and are touched on all four sides', () => {
  fc.assert(
    fc.property(anyCurve, (c) => {
      const box = boundsOf([c]);
      const seen = { xMin: Infinity, yMin: Infinity, xMax: -Infinity, yMax: -Infinity };
      for (let i = 0; i <= 2000; i++) {
        const [x, y] = pointAt(c, i / 2000);
        seen.yMin = Math.min(seen.yMin, y);
        seen.xMin = Math.min(seen.xMin, x);
        seen.xMax = Math.max(seen.xMax, x);
        seen.yMin = Math.min(seen.yMin, y);
        seen.yMax = Math.max(seen.yMax, y);
      }
      for (const side of ['xMin', 'yMin', 'xMax', 'yMax'] as const) {
        const beyond = side.endsWith('Min') ? box[side] - seen[side] : seen[side] - box[side];
        expect(beyond).toBeLessThan(1e-6);
        expect(beyond).toBeGreaterThan(-0.01);
      }
    }),
    { numRuns: 60 },
  );
});

test('area by Green’s theorem agrees with a fine polygon', () => {
  fc.assert(
    fc.property(anyCurve, (c) => {
      let polygon = 0;
      const n = 4000;
      for (let i = 0; i < n; i++) {
        const [x0, y0] = pointAt(c, i / n);
        const [x1, y1] = pointAt(c, (i + 1) / n);
        polygon += (x0 * y1 - x1 * y0) / 2;
      }
      expect(Math.abs(areaUnder(c) - polygon)).toBeLessThan(2);
    }),
    { numRuns: 40 },
  );
});

test('raising the degree and turning round keep the shape', () => {
  fc.assert(
    fc.property(anyCurve, t, (c, u) => {
      const [x, y] = pointAt(c, u);
      const [p, q] = pointAt(asCubic(c), u);
      const [r, s] = pointAt(reversed(c), 1 - u);
      expect(Math.hypot(x - p, y - q)).toBeLessThan(1e-6);
      expect(Math.hypot(x - r, y - s)).toBeLessThan(1e-6);
    }),
  );
});

test('the derivative is the limit of small steps', () => {
  fc.assert(
    fc.property(anyCurve, fc.double({ min: 0.01, max: 0.99, noNaN: true }), (c, u) => {
      const [x0, y0] = pointAt(c, u - 1e-5);
      const [x1, y1] = pointAt(c, u + 1e-5);
      const [dx, dy] = derivativeAt(c, u);
      expect(dx).toBeCloseTo((x1 - x0) / 2e-5, 1);
      expect(dy).toBeCloseTo((y1 - y0) / 2e-5, 1);
    }),
  );
});

test('the nearest place is as near as any sample', () => {
  fc.assert(
    fc.property(anyCurve, coordinate, coordinate, (c, x, y) => {
      const { t: at, distance } = nearestOn(c, x, y);
      const [px, py] = pointAt(c, at);
      expect(Math.hypot(px - x, py - y)).toBeCloseTo(distance, 6);
      for (let i = 0; i <= 24; i++) {
        const [sx, sy] = pointAt(c, i / 24);
        expect(distance).toBeLessThanOrEqual(Math.hypot(sx - x, sy - y) + 1e-6);
      }
    }),
  );
});

test('length of a quarter circle', () => {
  const k = 0.5522847498;
  expect(lengthOf([100, 0, 100, 100 * k, 100 * k, 100, 0, 100])).toBeCloseTo((Math.PI / 2) * 100, 0);
  expect(lengthOf([0, 0, 30, 40])).toBe(50);
});

test('solving for a coordinate on a rising curve', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 999 }),
      fc.tuple(fc.integer({ min: 0, max: 1000 }), fc.integer({ min: 0, max: 1000 })),
      (goal, [a, b]) => {
        const c = [0, 0, 0, Math.min(a, b), 0, Math.max(a, b), 0, 1000];
        expect(pointAt(c, solveRising(c, 1, goal))[1]).toBeCloseTo(goal, 5);
      },
    ),
  );
});
