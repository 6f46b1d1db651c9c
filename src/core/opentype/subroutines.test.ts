import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import { cffShape } from '../casting/shape';
import { drawingsOf } from '../project/outline';
import { type CffContour, writeCharstring } from './charstring';
import { readCharstring } from './charstringRead';
import { shareSubroutines } from './subroutines';

/** Outlines made of few shapes, so that much is shared; some have a width of their own. */
const shape = fc.array(fc.tuple(fc.integer({ min: -300, max: 300 }), fc.integer({ min: -300, max: 300 })), {
  minLength: 2,
  maxLength: 9,
});
const font = fc.tuple(
  fc.array(shape, { minLength: 1, maxLength: 4 }),
  fc.array(
    fc.tuple(
      fc.array(fc.nat(3), { maxLength: 5 }),
      fc.option(fc.integer({ min: -500, max: 2000 }), { nil: undefined }),
    ),
    { maxLength: 30 },
  ),
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
        const [is, was] = [
          readCharstring(c, { local, global }, `${i}`),
          readCharstring(plain[i]!, { local: [], global: [] }, `${i}`),
        ];
        expect(is).toEqual(was);
      });
      const size = (all: readonly Uint8Array[]) => all.reduce((n, b) => n + b.length, 0);
      expect(size(charstrings) + size(global) + size(local)).toBeLessThanOrEqual(size(plain));
    }),
    { numRuns: 200 },
  );
});

/** Follows a charstring as a strict reader does: every subroutine returns or ends the glyph, at most ten deep, 48 numbers waiting. */
function follow(
  bytes: Uint8Array,
  { global, local }: { global: readonly Uint8Array[]; local: readonly Uint8Array[] },
  depth: number,
  stack: number[],
): boolean {
  const bias = (list: readonly unknown[]) => (list.length < 1240 ? 107 : 1131);
  expect(depth).toBeLessThanOrEqual(10);
  for (let i = 0; i < bytes.length; ) {
    const b = bytes[i++]!;
    if (b === 28) {
      stack.push((((bytes[i]! << 8) | bytes[i + 1]!) << 16) >> 16);
      i += 2;
    } else if (b >= 247 && b < 255)
      stack.push(b < 251 ? (b - 247) * 256 + bytes[i++]! + 108 : -(b - 251) * 256 - bytes[i++]! - 108);
    else if (b >= 32) stack.push(b - 139);
    else if (b === 29 || b === 10) {
      const list = b === 29 ? global : local;
      const called = list[stack.pop()! + bias(list)];
      expect(called).toBeDefined();
      if (follow(called!, { global, local }, depth + 1, stack)) return true;
    } else if (b === 11) {
      expect(i).toBe(bytes.length);
      return false;
    } else if (b === 14) return true;
    else stack.length = 0;
    expect(stack.length).toBeLessThanOrEqual(48);
  }
  throw new Error('neither a return nor an end');
}

test('a strict reader finds every return and every end, in the whole demo', () => {
  const demo = readyDemo();
  for (const master of ['m3']) {
    const bodies = demo.glyphOrder.map(
      (id) =>
        cffShape(demo.glyphs[id]!.drawings[master]!, drawingsOf(demo, master), { keepOverlaps: true, unitsPerEm: 1000 })
          .body,
    );
    const shared = shareSubroutines(bodies);
    expect(shared.global.length).toBeGreaterThan(50);
    expect(Math.abs(shared.global.length - shared.local.length)).toBeLessThanOrEqual(1);
    for (const c of shared.charstrings) expect(follow(c, shared, 0, [])).toBe(true);
  }
});

test('long runs leave room on the stack for the calls within them', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.integer({ min: -9, max: 9 }), fc.integer({ min: -9, max: 9 })), {
        minLength: 60,
        maxLength: 120,
      }),
      fc.array(fc.nat(50), { minLength: 3, maxLength: 12 }),
      (steps, cuts) => {
        // The same long line from different places on, so that what repeats begins and ends anywhere in a run.
        const plain = cuts.map((cut) => {
          let [x, y] = [0, 0];
          const segments = steps.slice(cut).map(([dx, dy]) => {
            x += dx;
            y += dy;
            return [x, y];
          });
          return writeCharstring([{ x: 0, y: 0, segments }], undefined);
        });
        const shared = shareSubroutines(plain);
        shared.charstrings.forEach((c, i) => {
          expect(follow(c, shared, 0, [])).toBe(true);
          expect(readCharstring(c, shared, 'line')).toEqual(
            readCharstring(plain[i]!, { local: [], global: [] }, 'line'),
          );
        });
      },
    ),
    { numRuns: 25, seed: 8 },
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

test('one shape set thousands of times is shared within bounds, and draws what it drew', () => {
  // Without a bound the candidates, each a little longer than the one before, would cost billions of steps.
  const plain = Array.from({ length: 15 }, (_, k) =>
    writeCharstring(
      Array.from({ length: 2 ** k }, (_, i) =>
        contour(
          [
            [100, 0],
            [0, 100],
          ],
          10 * (i % 11),
        ),
      ),
      undefined,
    ),
  );
  const { charstrings, global, local } = shareSubroutines(plain);
  const size = (all: readonly Uint8Array[]) => all.reduce((n, b) => n + b.length, 0);
  expect(size(charstrings) + size(global) + size(local)).toBeLessThan(size(plain) / 4);
  for (const i of [0, 3, 9, 12])
    expect(readCharstring(charstrings[i]!, { local, global }, `${i}`)).toEqual(
      readCharstring(plain[i]!, { local: [], global: [] }, `${i}`),
    );
});
