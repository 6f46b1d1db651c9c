import fc from 'fast-check';
import { type CffContour, writeCharstring } from './charstring';
import { readCharstring } from './charstringRead';
import { shareSubroutines } from './subroutines';

/** Outlines made of few shapes, so that much is shared; some have a width of their own. */
const shape = fc.array(fc.tuple(fc.integer({ min: -300, max: 300 }), fc.integer({ min: -300, max: 300 })), { minLength: 2, maxLength: 9 });
const font = fc.tuple(
  fc.array(shape, { minLength: 1, maxLength: 4 }),
  fc.array(fc.tuple(fc.array(fc.nat(3), { maxLength: 5 }), fc.option(fc.integer({ min: -500, max: 2000 }), { nil: undefined })), { maxLength: 30 }),
);

const contour = (points: readonly (readonly [number, number])[], at: number): CffContour => {
  let [x, y] = [at, 0];
  const segments: number[][] = [];
  for (const [i, [dx, dy]] of points.entries()) {
    x += dx;
    y += dy;
    segments.push(i % 2 ? [x, y] : [x - dx, y, x, y - dy, x, y]);
  }
  return { x: at, y: 0, segments };
};

test('shared charstrings draw what they drew, and are never larger', () => {
  fc.assert(
    fc.property(font, ([shapes, glyphs]) => {
      const plain = glyphs.map(([parts, width]) =>
        writeCharstring(
          parts.map((p, i) => contour(shapes[p % shapes.length]!, i * 40)),
          width,
        ),
      );
      const { charstrings, global, local } = shareSubroutines(plain);
      charstrings.forEach((c, i) => {
        const [is, was] = [readCharstring(c, { local, global }, `${i}`), readCharstring(plain[i]!, { local: [], global: [] }, `${i}`)];
        expect(is).toEqual(was);
      });
      const size = (all: readonly Uint8Array[]) => all.reduce((n, b) => n + b.length, 0);
      expect(size(charstrings) + size(global) + size(local)).toBeLessThanOrEqual(size(plain));
    }),
    { numRuns: 200 },
  );
});

test('many alike glyphs shrink to a call each; the same input gives the same output', () => {
  const outline = contour(
    [
      [100, 20],
      [50, 200],
      [-90, 30],
      [-20, -120],
    ],
    80,
  );
  const plain = Array.from({ length: 300 }, (_, i) =>
    writeCharstring(
      [
        outline,
        contour(
          [
            [i + 1, 7],
            [30, 40],
          ],
          i,
        ),
      ],
      undefined,
    ),
  );
  const { charstrings, global, local } = shareSubroutines(plain);
  expect(charstrings.reduce((n, b) => n + b.length, 0)).toBeLessThan(0.75 * plain.reduce((n, b) => n + b.length, 0));
  expect(global.length + local.length).toBeGreaterThan(0);
  expect(shareSubroutines(plain)).toEqual({ charstrings, global, local });
});

test('nothing shared leaves everything as it was; calls never go too deep', () => {
  expect(shareSubroutines([])).toEqual({ charstrings: [], global: [], local: [] });
  const one = writeCharstring(
    [
      contour(
        [
          [5, 6],
          [7, 8],
        ],
        0,
      ),
    ],
    300,
  );
  expect(shareSubroutines([one])).toEqual({ charstrings: [one], global: [], local: [] });
  // Each glyph is the last one and a little more: the deepest nesting there can be.
  const nested = Array.from({ length: 60 }, (_, i) =>
    writeCharstring(
      Array.from({ length: i + 1 }, (_, k) =>
        contour(
          [
            [k + 1, 3],
            [9, k * 2 + 5],
          ],
          k * 30,
        ),
      ),
      undefined,
    ),
  );
  const { charstrings, global, local } = shareSubroutines(nested);
  charstrings.forEach((c, i) => {
    expect(readCharstring(c, { local, global }, `${i}`).contours).toHaveLength(i + 1);
  });
});
