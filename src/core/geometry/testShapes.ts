import fc from 'fast-check';
import type { Contour, Point } from './contour';
import type { Curve } from './curve';

/** Shapes for tests: arbitrary curves and closed contours on whole coordinates. */

export const coordinate = fc.integer({ min: -1000, max: 1000 });
export const cubic: fc.Arbitrary<Curve> = fc.array(coordinate, { minLength: 8, maxLength: 8 });
export const anyCurve: fc.Arbitrary<Curve> = fc
  .constantFrom(4, 6, 8)
  .chain((n) => fc.array(coordinate, { minLength: n, maxLength: n }));

const on = (x: number, y: number, type: Point['type']): Point => ({ x, y, type });

export const square = (x: number, y: number, size: number): Contour => ({
  closed: true,
  points: [on(x, y, 'line'), on(x + size, y, 'line'), on(x + size, y + size, 'line'), on(x, y + size, 'line')],
});

/** A closed contour of lines, cubics and quadratics between arbitrary points. */
export const closedContour: fc.Arbitrary<Contour> = fc
  .array(
    fc.record({
      x: coordinate,
      y: coordinate,
      kind: fc.constantFrom('line', 'curve', 'qcurve'),
      a: fc.tuple(coordinate, coordinate),
      b: fc.tuple(coordinate, coordinate),
    }),
    {
      minLength: 3,
      maxLength: 8,
    },
  )
  .map((steps) => {
    const points = steps.flatMap(({ x, y, kind, a, b }): Point[] => {
      if (kind === 'line') return [on(x, y, 'line')];
      return [on(a[0], a[1], 'off'), on(b[0], b[1], 'off'), on(x, y, kind as Point['type'])];
    });
    // Off-curve points before the first on-curve point belong at the end of the list.
    const first = points.findIndex((p) => p.type !== 'off');
    return { closed: true, points: [...points.slice(first), ...points.slice(0, first)] };
  });
