import fc from 'fast-check';
import { type Contour, reverseContour } from '../geometry/contour';
import type { Vec } from '../geometry/curve';
import { carrier } from './carrier';
import { crossedSides } from './crossed';
import { facingsOf } from './facing';
import { farShare, frameOf, inwardAt, turnBetween } from './frame';
import { goalFor, usualAcross } from './goals';
import { heldKnots, isTall } from './held';
import { LeastSquares } from './leastSquares';
import { movedCurves, redrawn } from './redrawn';
import { middleWidth, standardStems, strokesIn, tellingStrokes } from './strokes';
import { Unknowns } from './unknowns';

/** The pieces of reweighting, each by what can be worked out by hand. */

const lines = (...at: readonly (readonly [number, number])[]): Contour => ({
  closed: true,
  points: at.map(([x, y]) => ({ x, y, type: 'line' })),
});
const box = (l: number, b: number, r: number, t: number): Contour => lines([l, b], [r, b], [r, t], [l, t]);
/** A circle of four cubics, counter-clockwise. */
function circle(x: number, y: number, r: number): Contour {
  const k = r * 0.5523;
  const on = (px: number, py: number) => ({ x: x + px, y: y + py, type: 'curve' as const, smooth: true });
  const off = (px: number, py: number) => ({ x: x + px, y: y + py, type: 'off' as const });
  return {
    closed: true,
    points: [
      on(0, -r),
      off(k, -r),
      off(r, -k),
      on(r, 0),
      off(r, k),
      off(k, r),
      on(0, r),
      off(-k, r),
      off(-r, k),
      on(-r, 0),
      off(-r, -k),
      off(-k, -r),
    ],
  };
}
const ring = [circle(300, 250, 250), reverseContour(circle(300, 250, 170))];
const still =
  (frame: ReturnType<typeof frameOf>) =>
  (knot: number): Vec => [frame.knots[knot]!.x, frame.knots[knot]!.y];

describe('least squares', () => {
  test('what can be had is had; what contradicts is met in the middle by weight; what nobody wants stays', () => {
    const system = new LeastSquares(3);
    system.want([0], [1], 10, 1);
    system.want([1], [1], 0, 1);
    system.want([1], [1], 9, 2);
    const [a, b, c] = system.solve(1e-9);
    expect(a).toBeCloseTo(10, 5);
    expect(b).toBeCloseTo(6, 5);
    expect(c).toBeCloseTo(0, 5);
  });

  test('a copy takes wants of its own and leaves the first as it was', () => {
    const first = new LeastSquares(1);
    first.want([0], [1], 4, 1);
    const other = first.copy();
    other.want([0], [1], 10, 1);
    expect(other.solve(1e-9)[0]).toBeCloseTo(7, 5);
    expect(first.solve(1e-9)[0]).toBeCloseTo(4, 5);
  });

  test('any solvable system gives back the unknowns that it was made from', () => {
    const value = fc.integer({ min: -50, max: 50 });
    fc.assert(
      fc.property(
        fc.array(value, { minLength: 1, maxLength: 8 }),
        fc.array(value, { minLength: 24, maxLength: 24 }),
        (x, noise) => {
          const system = new LeastSquares(x.length);
          for (const [i, v] of x.entries()) system.want([i], [1], v, 1);
          for (let i = 0; i + 3 < noise.length; i += 3) {
            const which = [noise[i]!, noise[i + 1]!].map((n) => Math.abs(n) % x.length);
            const factors = [noise[i + 2]! / 10, 1];
            system.want(which, factors, factors[0]! * x[which[0]!]! + factors[1]! * x[which[1]!]!, 2);
          }
          const solved = system.solve(1e-9);
          expect([...solved].map((v) => Math.round(v * 1000) / 1000 + 0)).toEqual(x.map((v) => v + 0));
        },
      ),
      { numRuns: 80 },
    );
  });
});

describe('frame', () => {
  test('an outline is knots and sides; ink lies where it does, however the contours go', () => {
    const frame = frameOf(ring);
    expect([frame.knots.length, frame.sides.length]).toEqual([8, 8]);
    // The counter belongs to the shape round it.
    expect(frame.solid).toEqual([0, 0]);
    const turned = frameOf(ring.map(reverseContour));
    for (const f of [frame, turned])
      for (const side of f.sides) {
        const { at, inward } = inwardAt(f, side, 0.5);
        const out = Math.hypot(at[0] + inward[0] * 5 - 300, at[1] + inward[1] * 5 - 250);
        expect(out > 171 && out < 249).toBe(true);
      }
  });

  test('a place on a side takes part in the moves of both its knots, at the ends in one alone', () => {
    const [side] = frameOf([circle(0, 0, 100)]).sides;
    expect(farShare(side!, 0)).toEqual([0, 0]);
    expect(farShare(side!, 1)[0]).toBeCloseTo(1, 9);
    const [x, y] = farShare(side!, 0.5);
    // From the foot to the right: half way on, x is nearer its end than y.
    expect(x).toBeCloseTo(Math.SQRT1_2, 2);
    expect(y).toBeCloseTo(0.2929, 2);
  });

  test('implied points between two off-curve points are knots of their own; open contours have ends', () => {
    const quadratic: Contour = {
      closed: true,
      points: [
        { x: 0, y: 0, type: 'off' },
        { x: 100, y: 0, type: 'off' },
        { x: 100, y: 100, type: 'off' },
        { x: 0, y: 100, type: 'off' },
      ],
    };
    expect(frameOf([quadratic]).knots).toHaveLength(4);
    const open: Contour = { closed: false, points: lines([0, 0], [50, 80], [90, 0]).points };
    const frame = frameOf([open]);
    expect([frame.into[0], frame.out[2]]).toEqual([-1, -1]);
    expect(frame.knots).toHaveLength(3);
  });

  test('turns are told as cosines', () => {
    expect(turnBetween([0, 0, 10, 0], [10, 0, 20, 0])).toBeCloseTo(1, 9);
    expect(turnBetween([0, 0, 10, 0], [10, 0, 10, 10])).toBeCloseTo(0, 9);
    expect(turnBetween([0, 0, 10, 0], [10, 0, 0, 0])).toBeCloseTo(-1, 9);
  });
});

describe('facing edges', () => {
  test('across ink by its width, across white to the next ink, and to the edges of the glyph', () => {
    const { ink, white } = facingsOf(frameOf([box(100, 0, 180, 700), box(320, 0, 400, 700)]), 500);
    const level = ink.filter((f) => Math.abs(f.way[0]) > 0.9);
    expect(new Set(level.map((f) => Math.round(f.width)))).toEqual(new Set([80]));
    const across = white.filter((f) => Math.abs(f.way[0]) > 0.9);
    expect(across.filter((f) => f.edge === 'left').every((f) => Math.round(f.width) === 100)).toBe(true);
    expect(across.filter((f) => f.edge === 'right').every((f) => Math.round(f.width) === 100)).toBe(true);
    expect(across.filter((f) => f.b).every((f) => Math.round(f.width) === 140)).toBe(true);
    expect(across.filter((f) => f.b).length).toBeGreaterThan(0);
  });

  test('of a ring everywhere by its wall, to a tenth of a unit', () => {
    const { ink } = facingsOf(frameOf(ring), 600);
    const wall = ink.filter((f) => f.square > 0.99);
    expect(wall.length).toBeGreaterThan(20);
    for (const f of wall) expect(Math.abs(f.width - 80)).toBeLessThan(0.5);
  });

  test('what does not face squarely is no stroke, and open contours have no ink', () => {
    const wedge = lines([0, 0], [400, 0], [0, 300]);
    const { ink } = facingsOf(frameOf([wedge]), 400);
    for (const f of ink) expect(f.square).toBeGreaterThan(0.72);
    const open: Contour = { closed: false, points: box(0, 0, 100, 100).points };
    expect(facingsOf(frameOf([open]), 100)).toEqual({ ink: [], white: [] });
  });
});

describe('goals', () => {
  const from = { vertical: 80, horizontal: 60 };
  const to = { vertical: 160, horizontal: 90 };
  test('upright and level strokes become what is asked, slanted ones what lies between', () => {
    expect(goalFor(80, [1, 0], from, to)).toBeCloseTo(160, 9);
    expect(goalFor(60, [0, 1], from, to)).toBeCloseTo(90, 9);
    expect(usualAcross(from, [Math.SQRT1_2, Math.SQRT1_2])).toBeCloseTo(70, 9);
    const slanted = goalFor(70, [Math.SQRT1_2, Math.SQRT1_2], from, to);
    expect(slanted > 120 && slanted < 130).toBe(true);
  });
  test('a round a little thicker keeps its share, a dot gains what a stroke gains, a thin stroke what thin ones do', () => {
    expect(goalFor(84, [1, 0], from, to)).toBeCloseTo(168, 9);
    expect(goalFor(130, [1, 0], from, to)).toBeCloseTo(92 * 2 + 38, 9);
    const contrast = { vertical: 100, horizontal: 30 };
    const heavier = { vertical: 180, horizontal: 33 };
    expect(goalFor(30, [1, 0], contrast, heavier)).toBeCloseTo(33, 6);
  });
  test('more is asked of what is thicker, and nothing where stems stay', () => {
    fc.assert(
      fc.property(fc.integer({ min: 20, max: 150 }), fc.integer({ min: 0, max: 90 }), (width, degrees) => {
        const turn = (degrees * Math.PI) / 180;
        const way: [number, number] = [Math.cos(turn), Math.sin(turn)];
        expect(goalFor(width, way, from, from)).toBeCloseTo(width, 6);
        expect(goalFor(width + 5, way, from, to)).toBeGreaterThanOrEqual(goalFor(width, way, from, to) - 1e-6);
      }),
    );
  });
});

describe('heights', () => {
  test('knots at lines and the ends of a tall drawing are held; those between are not', () => {
    const bar = frameOf([box(100, 0, 180, 700), box(180, 300, 400, 360)]);
    const held = heldKnots(bar, new Set(), [0, 700], 1000).map((i) => bar.knots[i]!.y);
    expect(held.sort((a, b) => a - b)).toEqual([0, 0, 700, 700]);
    expect(isTall(bar, 1000)).toBe(true);
    const dash = frameOf([box(0, 300, 300, 360)]);
    expect(isTall(dash, 1000)).toBe(false);
    expect(heldKnots(dash, new Set(), [0, 700], 1000)).toEqual([]);
    // Of a dot only its foot on the baseline.
    const dot = frameOf([circle(60, 50, 55)]);
    expect(heldKnots(dot, new Set([0]), [0, 105], 1000).map((i) => dot.knots[i]!.y)).toEqual([-5]);
  });
});

describe('drawing again', () => {
  test('knots that stay give the contours that there were', () => {
    const frame = frameOf(ring);
    expect(redrawn(frame, still(frame))).toEqual(ring);
    expect(movedCurves(frame, still(frame))).toEqual(frame.sides.map((s) => s.curve.map(Number)));
  });
  test('extremes stay extremes and handles keep their share when a circle becomes an oval', () => {
    const frame = frameOf([circle(0, 0, 100)]);
    const [oval] = redrawn(frame, (k) => [frame.knots[k]!.x * 1.5, frame.knots[k]!.y]);
    for (const [i, p] of oval!.points.entries()) {
      const q = circle(0, 0, 100).points[i]!;
      expect([p.x, p.y]).toEqual([expect.closeTo(q.x * 1.5, 6), expect.closeTo(q.y, 6)]);
    }
  });
  test('a smooth point bent by its neighbours is laid in line again', () => {
    const frame = frameOf([circle(0, 0, 100)]);
    const [made] = redrawn(frame, (k) => [
      frame.knots[k]!.x + (k === 1 ? 20 : 0),
      frame.knots[k]!.y + (k === 2 ? 30 : 0),
    ]);
    made!.points.forEach((p, i) => {
      if (p.type === 'off') return;
      const n = made!.points.length;
      const [a, b] = [made!.points[(i - 1 + n) % n]!, made!.points[(i + 1) % n]!];
      const cross = (p.x - a.x) * (b.y - p.y) - (p.y - a.y) * (b.x - p.x);
      expect(Math.abs(cross)).toBeLessThan(1e-6);
    });
  });
  test('anchors go between the sides of the glyph in shares of each', () => {
    const frame = frameOf([box(100, 0, 300, 500)]);
    const carry = carrier(frame, (k) => [frame.knots[k]!.x < 200 ? 80 : 340, frame.knots[k]!.y], 400, 420);
    expect(carry([200, 500])).toEqual([210, 500]);
    expect(carry([100, 700])).toEqual([80, 700]);
    expect(carry([350, -50])).toEqual([390, -50]);
    expect(carrier(frameOf([]), () => [0, 0], 400, 800)([100, 7])).toEqual([200, 7]);
  });
});

describe('crossings and unknowns', () => {
  test('a bow crosses itself, a box does not; sides that meet in a point do not cross there', () => {
    const count = (c: Contour) => {
      const frame = frameOf([c]);
      return crossedSides(
        frame,
        frame.sides.map((s) => s.curve),
      ).length;
    };
    expect(count(lines([0, 0], [100, 100], [100, 0], [0, 100]))).toBe(1);
    expect(count(box(0, 0, 100, 100))).toBe(0);
    expect(count(circle(0, 0, 50))).toBe(0);
  });
  test('the ends of an upright side move as one in x, those of a level one in y', () => {
    const unknowns = new Unknowns(frameOf([box(0, 0, 100, 100)]));
    // Two columns, two rows, and the edge of the glyph.
    expect(unknowns.count).toBe(5);
    expect(new Set(unknowns.x).size).toBe(2);
    expect(new Set(unknowns.y).size).toBe(2);
    const slanted = new Unknowns(frameOf([lines([0, 0], [100, 10], [60, 90])]));
    expect(slanted.count).toBe(7);
  });
});

describe('measured strokes', () => {
  test('kinds are told by their edges, the middle by how long edges run, the standard by straight ones', () => {
    const drawing = { contours: [box(100, 0, 190, 700), box(190, 300, 400, 370)], advance: 500 };
    const strokes = strokesIn(drawing.contours, drawing.advance, 300);
    expect(new Set(strokes.filter((s) => s.kind === 'vertical').map((s) => Math.round(s.width)))).toEqual(
      new Set([90]),
    );
    expect(middleWidth(strokes.filter((s) => s.kind === 'horizontal'))).toBeCloseTo(70, 6);
    expect(middleWidth([])).toBeUndefined();
    expect(standardStems([drawing], 1000)).toEqual({
      vertical: expect.closeTo(90, 6),
      horizontal: expect.closeTo(70, 6),
    });
    expect(standardStems([], 1000)).toBeUndefined();
    // A ring has curved strokes alone, and they stand in for straight ones.
    const round = standardStems([{ contours: ring, advance: 600 }], 1000)!;
    expect(Math.abs(round.vertical - 80)).toBeLessThan(1);
    const slant = strokesIn([lines([0, 0], [80, 0], [280, 700], [200, 700])], 300, 300);
    expect(slant.every((s) => s.kind === 'diagonal')).toBe(true);
    expect(Math.abs(middleWidth(slant)! - 76.9)).toBeLessThan(0.2);
  });
  test('of strokes near each other one tells, and none is lost that stands apart', () => {
    const strokes = strokesIn([box(100, 0, 190, 700), box(600, 0, 690, 700)], 800, 300);
    const told = tellingStrokes(strokes, 70);
    expect(told.length).toBeLessThan(strokes.length);
    for (const a of told)
      for (const b of told) {
        const middle = (s: typeof a) => [(s.from[0] + s.to[0]) / 2, (s.from[1] + s.to[1]) / 2] as const;
        const apart = Math.hypot(middle(a)[0] - middle(b)[0], middle(a)[1] - middle(b)[1]);
        expect(a === b || apart > 70).toBe(true);
      }
    expect(told.some((s) => s.from[0] < 200) && told.some((s) => s.from[0] > 500)).toBe(true);
  });
});
