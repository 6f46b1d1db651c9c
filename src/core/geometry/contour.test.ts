import fc from 'fast-check';
import { compose, invert } from './affine';
import {
  type Contour,
  contourBounds,
  contourFromCurves,
  curvesOf,
  insertPoint,
  nearestOnContour,
  reverseContour,
  segmentsOf,
  signedArea,
  transformContour,
  withStart,
} from './contour';
import { areaUnder, nearestOn, pointAt } from './curve';
import { deletePoints } from './deletePoints';
import { closedContour, square } from './testShapes';
import { directedByNesting, hasMixedDirections, nestingDepths, windingAt } from './winding';

test('segments and cached curves are the same curves', () => {
  fc.assert(fc.property(closedContour, (c) => expect(curvesOf(c)).toEqual(segmentsOf(c).flatMap((s) => s.curves))));
});

test('the area from the points is the area from the curves', () => {
  fc.assert(
    fc.property(closedContour, fc.nat(), (c, k) => {
      const turned: Contour = {
        ...c,
        points: [...c.points.slice(k % c.points.length), ...c.points.slice(0, k % c.points.length)],
      };
      const sum = curvesOf(turned).reduce((a, curve) => a + areaUnder(curve), 0);
      expect(signedArea(turned)).toBeCloseTo(sum, 4);
    }),
  );
});

test('reversing turns the area round, twice gives the contour back', () => {
  fc.assert(
    fc.property(closedContour, (c) => {
      const turned = reverseContour(c);
      expect(signedArea(turned)).toBeCloseTo(-signedArea(c), 4);
      expect(reverseContour(turned).points.map((p) => [p.x, p.y, p.type])).toEqual(
        c.points.map((p) => [p.x, p.y, p.type]),
      );
      expect(turned.points[0]).toMatchObject({ x: c.points[0]!.x, y: c.points[0]!.y });
    }),
  );
});

test('reversing an open contour keeps its curves', () => {
  const open: Contour = {
    closed: false,
    points: [
      { x: 0, y: 0, type: 'line' },
      { x: 10, y: 60, type: 'off' },
      { x: 60, y: 100, type: 'off' },
      { x: 100, y: 100, type: 'curve' },
      { x: 200, y: 100, type: 'line' },
    ],
  };
  const turned = reverseContour(open);
  expect(turned.points.map((p) => p.type)).toEqual(['line', 'line', 'off', 'off', 'curve']);
  expect(curvesOf(turned)).toEqual([
    [200, 100, 100, 100],
    [100, 100, 60, 100, 10, 60, 0, 0],
  ]);
});

test('a new start point changes nothing but the start', () => {
  fc.assert(
    fc.property(closedContour, fc.nat(), (c, n) => {
      const on = c.points.flatMap((p, i) => (p.type === 'off' ? [] : [i]));
      const index = on[n % on.length]!;
      const moved = withStart(c, index);
      expect(moved.points[0]).toBe(c.points[index]);
      expect(signedArea(moved)).toBeCloseTo(signedArea(c), 4);
      expect(contourBounds(moved)).toEqual(contourBounds(c));
    }),
  );
});

/** It turns back within less than the samples that the nearest place is looked for by. */
const FOLDED: Contour = {
  closed: true,
  points: [
    { x: 0, y: 0, type: 'line' },
    { x: 0, y: -29, type: 'off' },
    { x: 176, y: 201, type: 'off' },
    { x: 0, y: -16, type: 'qcurve' },
    { x: 0, y: 0, type: 'line' },
  ],
};

test('a point added anywhere leaves the shape as it was', () => {
  fc.assert(
    fc.property(closedContour, fc.nat(), fc.nat(), fc.double({ min: 0.05, max: 0.95, noNaN: true }), (c, s, p, t) => {
      const segments = segmentsOf(c);
      const segment = segments[s % segments.length]!;
      const part = p % segment.curves.length;
      const place = pointAt(segment.curves[part]!, t);
      const { contour, index } = insertPoint(c, segment, part, t);
      expect(contour.points[index]!.x).toBeCloseTo(place[0], 6);
      expect(contour.points[index]!.type).not.toBe('off');
      expect(signedArea(contour)).toBeCloseTo(signedArea(c), 3);
      for (const curve of curvesOf(c)) {
        const [x, y] = pointAt(curve, 0.37);
        expect(nearestOnContour(contour, x, y)!.distance).toBeLessThan(0.3);
      }
    }),
    {
      numRuns: 60,
      examples: [[FOLDED, 1021695117, 450204627, 0.05662906071277369]],
    },
  );
});

test('a place on a fold tighter than any sample is found', () => {
  for (const curve of curvesOf(FOLDED)) {
    for (let i = 0; i <= 200; i++) {
      const [x, y] = pointAt(curve, i / 200);
      expect(nearestOn(curve, x, y).distance).toBeLessThan(0.01);
    }
  }
});

test('deleting a point that was added on a curve gives nearly the old curve back', () => {
  const k = 55;
  const circle: Contour = {
    closed: true,
    points: [
      { x: 100, y: 0, type: 'curve', smooth: true },
      { x: 100, y: k, type: 'off' },
      { x: k, y: 100, type: 'off' },
      { x: 0, y: 100, type: 'curve', smooth: true },
      { x: -k, y: 100, type: 'off' },
      { x: -100, y: k, type: 'off' },
      { x: -100, y: 0, type: 'curve', smooth: true },
      { x: -100, y: -k, type: 'off' },
      { x: -k, y: -100, type: 'off' },
      { x: 0, y: -100, type: 'curve', smooth: true },
      { x: k, y: -100, type: 'off' },
      { x: 100, y: -k, type: 'off' },
    ],
  };
  const { contour, index } = insertPoint(circle, segmentsOf(circle)[1]!, 0, 0.4);
  const back = deletePoints(contour, new Set([index]))!;
  expect(back.points).toHaveLength(circle.points.length);
  for (const curve of curvesOf(circle)) {
    for (const t of [0.2, 0.5, 0.8]) expect(nearestOnContour(back, ...pointAt(curve, t))!.distance).toBeLessThan(0.05);
  }
});

test('deleting: handles straighten, corners join by lines, a contour without points goes', () => {
  const box = square(0, 0, 100);
  expect(deletePoints(box, new Set([1]))!.points.map((p) => [p.x, p.y])).toEqual([
    [0, 0],
    [100, 100],
    [0, 100],
  ]);
  expect(deletePoints(box, new Set([0, 1, 2]))).toBeUndefined();
  const bent: Contour = {
    closed: true,
    points: [
      { x: 0, y: 0, type: 'line' },
      { x: 100, y: 0, type: 'line' },
      { x: 130, y: 50, type: 'off' },
      { x: 90, y: 100, type: 'off' },
      { x: 50, y: 100, type: 'curve' },
    ],
  };
  expect(deletePoints(bent, new Set([2]))!.points.map((p) => p.type)).toEqual(['line', 'line', 'line']);
});

test('a contour rebuilt from its curves has the same area', () => {
  fc.assert(
    fc.property(closedContour, (c) =>
      expect(signedArea(contourFromCurves(curvesOf(c), true))).toBeCloseTo(signedArea(c), 4),
    ),
  );
});

test('winding, nesting and directions', () => {
  const outer = square(0, 0, 300);
  const counter = square(50, 50, 200);
  const island = square(100, 100, 50);
  expect(windingAt(curvesOf(outer), 150, 150)).toBe(1);
  expect(windingAt(curvesOf(reverseContour(outer)), 150, 150)).toBe(-1);
  expect(windingAt(curvesOf(outer), 400, 150)).toBe(0);
  expect(nestingDepths([outer, counter, island])).toEqual([0, 1, 2]);
  const directed = directedByNesting([reverseContour(outer), counter, island]);
  expect(directed.map((c) => signedArea(c) > 0)).toEqual([true, false, true]);
  expect(directedByNesting(directed)).toBe(directed);
  expect([directed, directed.map(reverseContour), [outer, counter, island], [outer]].map(hasMixedDirections)).toEqual([
    false,
    false,
    true,
    false,
  ]);
});

test('transforms compose and invert', () => {
  const t = [1.2, 0.3, -0.4, 0.9, 30, -20] as const;
  const inverse = invert(t)!;
  expect(compose(inverse, t).map((v) => Math.round(v * 1e9) / 1e9)).toEqual([1, 0, 0, 1, 0, 0]);
  expect(invert([1, 1, 1, 1, 0, 0])).toBeUndefined();
  expect(signedArea(transformContour(square(0, 0, 10), [2, 0, 0, 3, 5, 5]))).toBeCloseTo(600, 6);
});
