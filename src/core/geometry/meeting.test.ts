import fc from 'fast-check';
import { nearestOn, pointAt, splitAt } from './curve';
import { fitCubic } from './fit';
import { crossings, surelyApart } from './intersect';
import { anyCurve, coordinate, cubic } from './testShapes';

const line = fc.tuple(coordinate, coordinate, coordinate, coordinate).map((c) => [...c]);

/** Signed distance of samples from a line; sign changes are crossings found without any solving. */
function signChanges(curve: readonly number[], l: readonly number[]): number {
  const side = (t: number) => {
    const [x, y] = pointAt(curve, t);
    return (l[2]! - l[0]!) * (y - l[1]!) - (l[3]! - l[1]!) * (x - l[0]!);
  };
  const along = (t: number) => {
    const [x, y] = pointAt(curve, t);
    return (
      ((x - l[0]!) * (l[2]! - l[0]!) + (y - l[1]!) * (l[3]! - l[1]!)) / ((l[2]! - l[0]!) ** 2 + (l[3]! - l[1]!) ** 2)
    );
  };
  let count = 0;
  const n = 3000;
  for (let i = 0; i < n; i++) {
    // Within a hair of the line's ends, rounding decides; those are left out.
    const within = [i / n, (i + 1) / n].every((t) => along(t) > 0.002 && along(t) < 0.998);
    if (side(i / n) > 0 !== side((i + 1) / n) > 0 && within) count++;
  }
  return count;
}

test('every crossing told is one, on both curves', () => {
  fc.assert(
    fc.property(anyCurve, anyCurve, (a, b) => {
      for (const { t, u } of crossings(a, b)) {
        const [x, y] = pointAt(a, t);
        const [p, q] = pointAt(b, u);
        expect(Math.hypot(x - p, y - q)).toBeLessThan(0.011);
        expect(t >= 0 && t <= 1 && u >= 0 && u <= 1).toBe(true);
      }
    }),
  );
});

test('no crossing of a cubic with a line is missed', () => {
  fc.assert(
    fc.property(cubic, line, (c, l) => {
      fc.pre(Math.hypot(l[2]! - l[0]!, l[3]! - l[1]!) > 20);
      expect(crossings(c, l).length).toBeGreaterThanOrEqual(signChanges(c, l));
    }),
    { numRuns: 200 },
  );
});

/** Where the straight pieces between samples of two curves cross, a pair at a time. */
function sampledMeetings(a: readonly number[], b: readonly number[]): (readonly [number, number])[] {
  const STEPS = 160;
  const samples = (c: readonly number[]) => Array.from({ length: STEPS + 1 }, (_, i) => pointAt(c, i / STEPS));
  const [p, q] = [samples(a), samples(b)];
  const out: (readonly [number, number])[] = [];
  for (let i = 0; i < STEPS; i++)
    for (let k = 0; k < STEPS; k++) {
      const [[ax, ay], [bx, by], [cx, cy], [dx, dy]] = [p[i]!, p[i + 1]!, q[k]!, q[k + 1]!];
      const det = (bx - ax) * (dy - cy) - (by - ay) * (dx - cx);
      const t = ((cx - ax) * (dy - cy) - (cy - ay) * (dx - cx)) / det;
      const u = ((cx - ax) * (by - ay) - (cy - ay) * (bx - ax)) / det;
      if (t > 0 && t < 1 && u > 0 && u < 1) out.push([ax + t * (bx - ax), ay + t * (by - ay)]);
    }
  return out;
}

test('no crossing of two cubics is missed', () => {
  fc.assert(
    fc.property(cubic, cubic, (a, b) => {
      const found = crossings(a, b).map(({ t }) => pointAt(a, t));
      for (const [x, y] of sampledMeetings(a, b))
        expect(Math.min(...found.map((f) => Math.hypot(f[0] - x, f[1] - y)))).toBeLessThan(2);
    }),
    { numRuns: 60 },
  );
});

test('a line that runs back along a curve from its end meets it there only, unless it does cross', () => {
  // The curve stays on one side of the line all the way.
  const back = [293, 396, 286, 396, 279, 393, 272, 387];
  expect(crossings(back, [272, 387, 466, 554])).toEqual([{ t: expect.closeTo(1, 9), u: expect.closeTo(0, 9) }]);
  const through = [219, 379, 215, 379, 210, 376, 206, 371];
  expect(crossings(through, [206, 371, 361, 554])).toHaveLength(2);
});

test('crossings do not depend on which curve comes first', () => {
  fc.assert(
    fc.property(cubic, cubic, (a, b) => {
      expect(crossings(b, a).length).toBe(crossings(a, b).length);
    }),
    { numRuns: 60 },
  );
});

test('touching ends, shared stretches and tangents', () => {
  expect(crossings([0, 0, 100, 0], [100, 0, 100, 50])).toHaveLength(1);
  expect(crossings([0, 0, 100, 0], [50, 0, 150, 0])).toHaveLength(2);
  expect(crossings([0, 0, 100, 0], [0, 5, 100, 5])).toHaveLength(0);
  expect(crossings([0, 0, 50, 100, 100, 0], [0, 50, 100, 50]).length).toBeGreaterThanOrEqual(1);
});

test('a cubic fitted to samples of a cubic, split or not, is that cubic', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 60, max: 400 }),
      fc.integer({ min: 60, max: 400 }),
      fc.double({ min: 0.25, max: 0.75, noNaN: true }),
      (w, h, t) => {
        const c = [0, 0, 0, 0.55 * h, 0.45 * w, h, w, h];
        const samples = splitAt(c, t).flatMap((part, i) =>
          Array.from({ length: 12 }, (_, k) => pointAt(part, (k + i) / 12)),
        );
        const fitted = fitCubic([[0, 0], ...samples.slice(1, -1), [w, h]], [0, 1], [-1, 0]);
        const off = Array.from({ length: 21 }, (_, k) => nearestOn(fitted, ...pointAt(c, k / 20)).distance);
        expect(Math.max(...off)).toBeLessThan(0.02);
      },
    ),
    { numRuns: 60 },
  );
});

describe('curves that surely lie apart', () => {
  const place = fc.tuple(fc.integer({ min: 0, max: 400 }), fc.integer({ min: 0, max: 400 }));
  const anyCurve = fc
    .oneof(fc.tuple(place, place), fc.tuple(place, place, place), fc.tuple(place, place, place, place))
    .map((p) => p.flat());

  it('do not cross but at an end that they share', () => {
    fc.assert(
      fc.property(anyCurve, anyCurve, fc.integer({ min: 0, max: 2 }), (a, b, share) => {
        const other =
          share === 0 ? b : share === 1 ? [...a.slice(-2), ...b.slice(2)] : [...b.slice(0, -2), ...a.slice(0, 2)];
        if (!surelyApart(a, other)) return;
        const common = crossings(a, other).filter(({ t }) => {
          const [x, y] = pointAt(a, t);
          const near = (c: readonly number[], i: number) => Math.hypot(c[i]! - x, c[i + 1]! - y) < 0.1;
          return !([0, a.length - 2].some((i) => near(a, i)) && [0, other.length - 2].some((i) => near(other, i)));
        });
        expect(common).toEqual([]);
      }),
      { numRuns: 3000 },
    );
  });

  it('are not taken for apart where one begins on the other and both end in one point', () => {
    expect(surelyApart([0, 8, 2, 8], [1, 8, 0, 0, 0, 8])).toBe(false);
    expect(surelyApart([0, 8, 2, 8], [1, 7, 0, 0, 0, 8])).toBe(true);
    expect(surelyApart([0, 0, 10, 0], [10, 0, 20, 0])).toBe(true);
  });

  it('are told apart for most parts of a letter that do not meet', () => {
    const far = surelyApart([0, 0, 100, 0, 100, 100], [200, 0, 300, 40]);
    const beside = surelyApart([0, 0, 40, 30, 80, 60, 120, 70], [0, 40, 40, 70, 80, 95, 120, 100]);
    expect([far, beside, surelyApart([0, 0, 100, 100], [0, 100, 100, 0])]).toEqual([true, true, false]);
  });
});
