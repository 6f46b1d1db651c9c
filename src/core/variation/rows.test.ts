import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import type { Contour } from '../geometry/contour';
import { curvesOf } from '../geometry/contour';
import { windingAt } from '../geometry/winding';
import { drawingsOf, flattened } from '../project/outline';
import { glyphNamed } from '../project/queries';
import { glyphAt } from './glyphAt';
import { rowsOf, stemAndCounter } from './rows';

const demo = readyDemo();
const box = (x: number, y: number, w: number, h: number): Contour => ({
  closed: true,
  points: [
    [x, y],
    [x + w, y],
    [x + w, y + h],
    [x, y + h],
  ].map(([px, py]) => ({ x: px!, y: py!, type: 'line', smooth: false })) as Contour['points'],
});

test('stems and counters are measured as they were drawn, parts that overlap as one', () => {
  expect(stemAndCounter({ contours: [box(50, 0, 80, 500), box(300, 0, 90, 500)] })).toEqual({ stem: 80, counter: 170 });
  expect(stemAndCounter({ contours: [box(50, 0, 80, 500), box(100, 0, 60, 500)] })).toEqual({ stem: 110 });
  expect(stemAndCounter({ contours: [] })).toEqual({});
  // The stem of the n grows with its weight.
  const n = glyphNamed(demo, 'n')!.id;
  const stems = [300, 400, 550, 800].map((wght) => stemAndCounter(glyphAt(demo, n, { wght, wdth: 100 })!));
  stems.slice(1).forEach((s, i) => {
    expect(s.stem!).toBeGreaterThan(stems[i]!.stem!);
    expect(s.counter!).toBeLessThan(stems[i]!.counter!);
  });
});

test('a row has ink where the winding says so, in any letter at any height', () => {
  const letters = ['a', 'g', 'B', 'ampersand', 'eight', 'odieresis'].map((name) => {
    const source = drawingsOf(demo, 'm1');
    return flattened(source(glyphNamed(demo, name)!.id)!, source);
  });
  fc.assert(
    fc.property(fc.constantFrom(...letters), fc.double({ min: 0.05, max: 0.95, noNaN: true }), (contours, share) => {
      const [row] = rowsOf(contours, [share]);
      const curves = contours.flatMap((c) => curvesOf(c));
      const edges = row!.ink.flat();
      edges.slice(1).forEach((x, i) => {
        // Near an end of a run straight pieces and curves may differ by a little.
        if (x - edges[i]! < 6) return;
        const inside = windingAt(curves, (x + edges[i]!) / 2, row!.y) !== 0;
        expect(inside).toBe(i % 2 === 0);
      });
    }),
    { numRuns: 300 },
  );
});
