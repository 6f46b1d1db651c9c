import fc from 'fast-check';
import { type Moved, pointsToKeep } from './inferred';

/** Where a point that is not told comes to lie on one axis, as the specification has it (OpenType, “gvar”, inferred deltas). */
function inferred(v: number, a: number, b: number, da: number, db: number): number {
  if (a === b) return da === db ? da : 0;
  const [low, high, dLow, dHigh] = a < b ? [a, b, da, db] : [b, a, db, da];
  if (v <= low) return dLow;
  if (v >= high) return dHigh;
  return dLow + ((v - low) / (high - low)) * (dHigh - dLow);
}

/** What a reader makes of a contour of which some points are told; nothing of one of which none is. */
function filledIn({ xs, ys, dx, dy }: Moved, n: number, told: readonly number[]): [number[], number[]] {
  if (told.length === 0) return [new Array(n).fill(0), new Array(n).fill(0)];
  const out: [number[], number[]] = [[], []];
  for (let i = 0; i < n; i++) {
    const before = [...told].reverse().find((t) => t <= i) ?? told[told.length - 1]!;
    const after = told.find((t) => t >= i) ?? told[0]!;
    [xs, ys].forEach((at, k) => {
      const by = k === 0 ? dx : dy;
      out[k]!.push(inferred(at[i]!, at[before]!, at[after]!, by[before]!, by[after]!));
    });
  }
  return out;
}

const fits = (m: Moved, n: number, told: readonly number[]): boolean => {
  const [x, y] = filledIn(m, n, told);
  return x.every((v, i) => Math.abs(v - m.dx[i]!) <= 0.5 && Math.abs(y[i]! - m.dy[i]!) <= 0.5);
};

/** One contour with the four phantom points behind it. */
const contour = fc.integer({ min: 2, max: 7 }).chain((n) => {
  const list = (least: number, most: number) =>
    fc.array(fc.integer({ min: least, max: most }), { minLength: n, maxLength: n });
  return fc
    .tuple(list(0, 9), list(0, 9), list(-3, 3), list(-3, 3))
    .map(([xs, ys, dx, dy]): { m: Moved; n: number } => ({
      n,
      m: {
        xs: [...xs, 0, 500, 0, 0],
        ys: [...ys, 0, 0, 0, 0],
        ends: [n - 1],
        dx: [...dx, 0, 0, 0, 0],
        dy: [...dy, 0, 0, 0, 0],
      },
    }));
});

test('points that are told tell all others within half a unit, by the rule of the specification', () => {
  fc.assert(
    fc.property(contour, ({ m, n }) => {
      expect(fits(m, n, pointsToKeep(m))).toBe(true);
    }),
    { numRuns: 400 },
  );
});

test('of small contours no fewer points that begin with the one that moves most would do', () => {
  fc.assert(
    fc.property(contour, ({ m, n }) => {
      const kept = pointsToKeep(m);
      const by = (i: number) => Math.abs(m.dx[i]!) + Math.abs(m.dy[i]!);
      const first = Array.from({ length: n }, (_, i) => i).reduce((best, i) => (by(i) > by(best) ? i : best), 0);
      for (let mask = 0; mask < 1 << n; mask++) {
        const some = Array.from({ length: n }, (_, i) => i).filter((i) => (mask >> i) & 1);
        // One point alone moves all by as much; two or more tell between them.
        if (some.length >= kept.length || some.length < 2 || !some.includes(first)) continue;
        expect(fits(m, n, some)).toBe(false);
      }
    }),
    { numRuns: 150 },
  );
});

test('a contour that moves as one is told by one point, one that stands still by none; phantom points where they move', () => {
  const still = { xs: [0, 9, 9, 0, 500, 0, 0], ys: [0, 0, 9, 0, 0, 0, 0], ends: [2] };
  const all = (v: number) => [v, v, v, 0, 0, 0, 0];
  expect(pointsToKeep({ ...still, dx: all(4), dy: all(-2) })).toEqual([0]);
  expect(pointsToKeep({ ...still, dx: all(0), dy: all(0) })).toEqual([]);
  expect(pointsToKeep({ ...still, dx: [0, 0, 0, 0, 7, 0, 0], dy: all(0) })).toEqual([4]);
});
