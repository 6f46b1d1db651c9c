import fc from 'fast-check';
import { ellipse, rectangle } from '../drawing/shapes';
import { type Contour, curvesOf, reverseContour, signedArea } from './contour';
import { filledLength } from './coverage';
import { removeOverlaps } from './overlaps';
import { closedContour, square } from './testShapes';

const areaOf = (contours: readonly Contour[]) => contours.reduce((sum, c) => sum + signedArea(c), 0);

/** Area under a non-zero fill by many level lines: independent of how the union was made. */
function scannedArea(contours: readonly Contour[], lines = 4000): number {
  const curves = contours.flatMap((c) => [...curvesOf(c)]);
  const ys = curves.flatMap((c) => c.filter((_, i) => i % 2 === 1));
  const low = Math.min(...ys);
  const high = Math.max(...ys);
  let area = 0;
  for (let i = 0; i < lines; i++) area += filledLength(curves, low + ((i + 0.5) / lines) * (high - low));
  return (area * (high - low)) / lines;
}

test('shapes that do not meet come back as they are', () => {
  const apart = [square(0, 0, 100), square(200, 0, 100)];
  const ring = [square(0, 0, 300), reverseContour(square(100, 100, 100))];
  for (const contours of [apart, ring]) {
    const result = removeOverlaps(contours);
    expect(result.changed).toBe(false);
    expect(result.contours).toBe(contours);
  }
});

test('two overlapping squares become one outline of eight points', () => {
  const { contours, changed } = removeOverlaps([square(0, 0, 100), square(50, 50, 100)]);
  expect(changed).toBe(true);
  expect(contours).toHaveLength(1);
  expect(contours[0]!.points).toHaveLength(8);
  expect(areaOf(contours)).toBeCloseTo(17500, 3);
});

test('shared edges, touching corners, swallowed and repeated shapes', () => {
  expect(areaOf(removeOverlaps([square(0, 0, 100), square(100, 0, 100)]).contours)).toBeCloseTo(20000, 3);
  expect(removeOverlaps([square(0, 0, 100), square(100, 0, 100)]).contours).toHaveLength(1);
  expect(areaOf(removeOverlaps([square(0, 0, 100), square(100, 100, 100)]).contours)).toBeCloseTo(20000, 3);
  expect(removeOverlaps([square(0, 0, 300), square(100, 100, 50)]).contours).toHaveLength(1);
  expect(areaOf(removeOverlaps([square(0, 0, 100), square(0, 0, 100)]).contours)).toBeCloseTo(10000, 3);
});

test('curves stay curves and untouched points stay exactly', () => {
  const circle = ellipse(0, 0, 200, 200);
  const bar = rectangle(80, -50, 120, 90);
  const { contours } = removeOverlaps([circle, bar]);
  expect(contours).toHaveLength(1);
  const points = contours[0]!.points;
  for (const p of circle.points.filter((q) => q.type !== 'off' && q.y > 1)) {
    expect(points.some((q) => q.x === p.x && q.y === p.y && q.type !== 'off')).toBe(true);
  }
  expect(points.filter((p) => p.type === 'curve').length).toBeGreaterThanOrEqual(4);
  expect(Math.abs(areaOf(contours) - scannedArea([circle, bar]))).toBeLessThan(3);
});

test('overlapping letters’ parts: a bowl on a stem keeps its counter', () => {
  const bowl = [ellipse(60, 0, 400, 500), reverseContour(ellipse(140, 80, 320, 420))];
  const { contours } = removeOverlaps([rectangle(40, 0, 120, 700), ...bowl]);
  expect(contours).toHaveLength(2);
  expect(contours.filter((c) => signedArea(c) < 0)).toHaveLength(1);
});

test('a cross on a bar whose middle lies exactly above the crossings', () => {
  const corners = (points: [number, number][]): Contour => ({
    closed: true,
    points: points.map(([x, y]) => ({ x, y, type: 'line' })),
  });
  const shapes = [
    corners([
      [-652, -200],
      [-529, -200],
      [-529, 1275],
      [-652, 1275],
    ]),
    corners([
      [-316, 1044],
      [-765, 1502],
      [-856, 1410],
      [-408, 952],
    ]),
    corners([
      [-764, 952],
      [-316, 1410],
      [-407, 1502],
      [-856, 1044],
    ]),
  ];
  const result = removeOverlaps(shapes);
  expect(result).toMatchObject({ changed: true, failed: false });
  expect(result.contours).toHaveLength(1);
  expect(Math.abs(areaOf(result.contours) - scannedArea(shapes))).toBeLessThan(60);
});

test('random shapes: the outline covers what the non-zero fill covers', () => {
  let failures = 0;
  let runs = 0;
  fc.assert(
    fc.property(fc.array(closedContour, { minLength: 1, maxLength: 3 }), (contours) => {
      runs++;
      const result = removeOverlaps(contours);
      if (result.failed) failures++;
      const before = scannedArea(contours, 300);
      const after = scannedArea(result.contours, 300);
      // The em square is 2000 units here; both sides are scanned alike, so only the union can differ.
      expect(Math.abs(after - before)).toBeLessThan(2000 * 2000 * 0.0006);
      if (!result.failed && result.changed)
        expect(Math.abs(areaOf(result.contours) - before)).toBeLessThan(2000 * 2000 * 0.002);
    }),
    { numRuns: 90, seed: 7 },
  );
  // A refused is said, and gives the input back; it must be rare even on tangles no letter has.
  expect(failures / runs).toBeLessThan(0.05);
});

test('an outline that crosses itself everywhere is given up within bounds, and left as it is', () => {
  // Every edge crosses nearly every other: four thousand of them would meet some eight million times.
  const n = 4001;
  const points = Array.from({ length: n }, (_, i) => {
    const angle = ((i * Math.floor(n / 2)) / n) * 2 * Math.PI;
    return { x: 5000 * Math.cos(angle), y: 5000 * Math.sin(angle), type: 'line' as const, smooth: false };
  });
  const tangled: Contour[] = [{ points, closed: true }];
  const began = performance.now();
  const result = removeOverlaps(tangled);
  expect(result).toMatchObject({ failed: true, changed: false });
  expect(result.contours).toBe(tangled);
  // Without the bound it takes minutes; a slow machine is given its time.
  expect(performance.now() - began).toBeLessThan(30_000);
});
