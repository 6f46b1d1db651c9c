import fc from 'fast-check';
import {
  type Contour,
  closedUp,
  contourFromCurves,
  curvesOf,
  insertPoint,
  type Point,
  segmentsOf,
  signedArea,
} from '../geometry/contour';
import { areaUnder, type Curve, derivativeAt, pointAt } from '../geometry/curve';
import { deviation } from '../tidying/deviation';
import { OUTLINE_CHECKS } from './outlineFindings';
import { inflectionsOf } from './points';

/** Checks and mends of single curves, held against what curves do. */
const U = 1;
const checkOf = (kind: string) => OUTLINE_CHECKS.find((c) => c.kind === `outlines/${kind}`)!;
const look = (kind: string, contour: Contour, amount = checkOf(kind).amount?.usual ?? 0) =>
  checkOf(kind).look({ contours: [contour], u: U, grid: 1, leans: false }, amount);
function mend(kind: string, contour: Contour, way = 0): Contour | undefined {
  const [fault] = look(kind, contour);
  const { usual = 0 } = checkOf(kind).amount ?? {};
  return checkOf(kind).ways![way]!.mend([contour], { contour: 0, point: fault!.point! }, usual, U)?.[0]?.[0];
}
const round = (c: Contour): Contour => ({
  ...c,
  points: c.points.map((p) => ({ ...p, x: Math.round(p.x * 10) / 10, y: Math.round(p.y * 10) / 10 })),
});

const coordinate = fc.integer({ min: 0, max: 400 });
const cubic = fc.array(coordinate, { minLength: 8, maxLength: 8 });
/** A cubic that turns one way by less than half a turn, closed by two sides below it. */
const arc = fc
  .tuple(
    fc.integer({ min: 40, max: 190 }),
    fc.integer({ min: 40, max: 190 }),
    fc.integer({ min: 200, max: 400 }),
    fc.integer({ min: 200, max: 400 }),
  )
  .map(([a, b, w, h]): Curve => [0, 0, 0, a, w - b, h, w, h]);
const closedBelow = (c: Curve): Contour =>
  contourFromCurves([c, [c[6]!, c[7]!, c[6]!, -100], [c[6]!, -100, c[0]!, -100], [c[0]!, -100, c[0]!, c[1]!]], true);

describe('inflections', () => {
  /** How the curve bends at t: the sign of the cross product of first and second difference. */
  const bends = (c: Curve, t: number): number => {
    const [[ax, ay], [bx, by]] = [derivativeAt(c, t - 1e-3), derivativeAt(c, t + 1e-3)];
    return Math.sign(ax * by - ay * bx);
  };

  it('lie where the curve changes the way it bends', () => {
    fc.assert(
      fc.property(cubic, (c) => {
        const all = inflectionsOf(c);
        // Two that nearly fall together are a cusp.
        if (all.length === 2 && all[1]!.t - all[0]!.t < 0.05) return;
        for (const { t, bends: by } of all) {
          // Where it bends by next to nothing, rounding decides.
          if (by < 3 || t < 0.06 || t > 0.94) continue;
          expect(bends(c, t - 0.02) * bends(c, t + 0.02)).toBeLessThanOrEqual(0);
        }
      }),
      { numRuns: 2000 },
    );
  });

  it('are none in an arc, and one in an S', () => {
    fc.assert(fc.property(arc, (c) => expect(inflectionsOf(c)).toEqual([])));
    const [s] = inflectionsOf([0, 0, 100, 0, 0, 200, 100, 200]);
    expect(s!.t).toBeCloseTo(0.5, 6);
    expect(s!.bends).toBeGreaterThan(20);
  });
});

describe('needless points', () => {
  it('are those that part a curve which one cubic draws; taken away, it is as it was', () => {
    fc.assert(
      fc.property(arc, fc.double({ min: 0.25, max: 0.75, noNaN: true }), (c, t) => {
        const whole = closedBelow(c);
        const k = segmentsOf(whole).findIndex((s) => s.offs.length === 2);
        const parted = round(insertPoint(whole, segmentsOf(whole)[k]!, 0, t).contour);
        const found = look('needless', parted);
        expect(found).toHaveLength(1);
        const after = mend('needless', parted)!;
        expect(after.points).toHaveLength(whole.points.length);
        expect(deviation([whole], [after])).toBeLessThan(1.2);
        expect(look('needless', after)).toEqual([]);
      }),
      { numRuns: 120 },
    );
  });

  it('points at extremes, corners and on bends of their own are needed', () => {
    fc.assert(
      fc.property(arc, (c) => expect(look('needless', closedBelow(c))).toEqual([])),
      { numRuns: 200 },
    );
  });
});

describe('extremes', () => {
  it('get a point each, and the shape stays', () => {
    fc.assert(
      fc.property(fc.integer({ min: 120, max: 400 }), fc.integer({ min: 0, max: 300 }), (high, far) => {
        const contour = contourFromCurves(
          [
            [0, 0, -far / 3, high, 300 + far / 3, high, 300, 0],
            [300, 0, 0, 0],
          ],
          true,
        );
        const found = look('extreme', contour);
        expect(found).toHaveLength(1);
        const after = mend('extreme', contour)!;
        expect(look('extreme', after)).toEqual([]);
        expect(deviation([contour], [after])).toBeLessThan(0.05);
      }),
      { numRuns: 100 },
    );
  });
});

describe('handles', () => {
  it('past their meeting point are drawn back with the area kept, or left to the hand', () => {
    let mended = 0;
    fc.assert(
      fc.property(
        fc.double({ min: 1.05, max: 1.6, noNaN: true }),
        fc.double({ min: 0.2, max: 0.6, noNaN: true }),
        (over, under) => {
          const curve: Curve = [0, 0, 0, 300 * over, 300 - 300 * under, 300, 300, 300];
          const contour = closedBelow(curve);
          if (look('handlesPast', contour).length === 0) return;
          const after = mend('handlesPast', contour);
          if (!after) return;
          mended++;
          expect(look('handlesPast', after)).toEqual([]);
          const is = curvesOf(after).find((c) => c.length === 8)!;
          // Directions at both ends stay.
          expect([is[2], is[5]]).toEqual([0, 300]);
          expect(Math.abs(areaUnder(is) - areaUnder(curve))).toBeLessThan(0.12 * 300 * 300);
        },
      ),
      { numRuns: 200 },
    );
    expect(mended).toBeGreaterThan(20);
  });

  it('of no length on one side: drawn out with the ends, the far direction and the area as they were', () => {
    const contour = closedBelow([0, 0, 0, 0, 150, 300, 300, 300]);
    const after = mend('handleless', contour)!;
    expect(look('handleless', after)).toEqual([]);
    expect(Math.abs(signedArea(after) - signedArea(contour))).toBeLessThan(30);
    const is = curvesOf(after).find((c) => c.length === 8)!;
    expect(is[5]).toBeCloseTo(300, 2);
    expect(deviation([contour], [after])).toBeLessThan(12);
  });

  it('nearly level at a round are made so, both of them, and the point stays smooth', () => {
    const points: Point[] = [
      { x: 200, y: 300, type: 'curve', smooth: true },
      { x: 120, y: 301, type: 'off' },
      { x: 0, y: 180, type: 'off' },
      { x: 0, y: 0, type: 'curve' },
      { x: 400, y: 0, type: 'line' },
      { x: 400, y: 180, type: 'off' },
      { x: 280, y: 299, type: 'off' },
    ];
    const after = mend('nearlyLevelHandle', { closed: true, points })!;
    expect([after.points[1]!.y, after.points[6]!.y, after.points[0]!.smooth]).toEqual([300, 300, true]);
  });
});

describe('sides', () => {
  it('nearly level go to the coordinate that has company', () => {
    const points: Point[] = (
      [
        [0, 0],
        [300, 0],
        [300, 201],
        [200, 200],
        [100, 200],
        [0, 200],
      ] as const
    ).map(([x, y]) => ({ x, y, type: 'line' }));
    const after = mend('nearlyLevel', { closed: true, points })!;
    expect(after.points[2]).toEqual({ x: 300, y: 200, type: 'line' });
    // A slope that is meant is none.
    const steep = points.map((p) => (p.y === 201 ? { ...p, y: 212 } : p));
    expect(look('nearlyLevel', { closed: true, points: steep })).toEqual([]);
  });

  it('drawn as curves become lines', () => {
    const contour = contourFromCurves(
      [
        [0, 0, 100, 0.2, 200, -0.2, 300, 0],
        [300, 0, 300, 300],
        [300, 300, 0, 300],
        [0, 300, 0, 0],
      ],
      true,
    );
    const after = mend('straightCurve', contour)!;
    expect(after.points.every((p) => p.type === 'line')).toBe(true);
    expect(after.points).toHaveLength(4);
  });
});

test('an open contour is closed by a side, or by the curve that handles behind its last point begin', () => {
  const line = (x: number, y: number): Point => ({ x, y, type: 'line' });
  const off = (x: number, y: number): Point => ({ x, y, type: 'off' });
  const closed = (points: readonly Point[]) => closedUp({ closed: false, points });
  expect(closed([line(0, 0), line(9, 0), line(9, 9)]).points[0]!.type).toBe('line');
  const curved = closed([line(0, 0), line(90, 0), off(90, 90), off(0, 90)]);
  expect(curved.points[0]!.type).toBe('curve');
  expect(curvesOf(curved).map((c) => c.length)).toEqual([4, 8]);
  const [x, y] = pointAt(curvesOf(curved)[1]!, 1);
  expect([x, y]).toEqual([0, 0]);
  expect(closed([line(0, 0), line(90, 0), off(90, 90)]).points[0]!.type).toBe('qcurve');
});
