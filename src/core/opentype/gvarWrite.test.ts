import fc from 'fast-check';
import { anyRegion } from '../testing/regions';
import { readAvar, readFvar, writeAvar, writeFvar } from './fvar';
import { pointDeltas, readGvar } from './gvar';
import { type VaryingGlyph, writeGvar } from './gvarWrite';
import { pointsToKeep } from './inferred';
import type { AxisRegion } from './variations';

const AXES = 2;
const step = fc.oneof(fc.constant(0), fc.integer({ min: -60, max: 60 }), fc.integer({ min: -4000, max: 4000 }));
const at = fc.integer({ min: -500, max: 1500 });

/** A glyph of contours with its phantom points, and what it varies by. */
const glyph: fc.Arbitrary<VaryingGlyph> = fc
  .tuple(
    fc.array(fc.integer({ min: 2, max: 9 }), { maxLength: 3 }),
    fc.uniqueArray(anyRegion, { selector: (r) => JSON.stringify(r), minLength: 1, maxLength: 3 }),
  )
  .chain(([contours, regions]) => {
    const points = contours.reduce((sum, n) => sum + n, 0) + 4;
    const list = <T>(of: fc.Arbitrary<T>) => fc.array(of, { minLength: points, maxLength: points });
    let last = -1;
    const stops = contours.map((n) => (last += n));
    return fc
      .tuple(list(at), list(at), fc.tuple(...regions.map(() => fc.tuple(list(step), list(step), fc.boolean()))))
      .map(
        ([xs, ys, moves]): VaryingGlyph => ({
          xs,
          ys,
          ends: stops,
          // Many points move alike, as they do in letters.
          deltas: regions.map((r, k) => {
            const [dx, dy, even] = moves[k]!;
            return { region: r, dx: even ? dx.map((_, i) => dx[i < 6 ? 0 : i]!) : dx, dy };
          }),
        }),
      );
  });
const places = [
  [1, 0],
  [0.5, 0.5],
  [-1, 1],
  [0.3, 0],
];

/** What a glyph’s points move by at a place, by its regions alone. */
const moved = (g: VaryingGlyph, place: readonly number[]) =>
  pointDeltas(
    g.deltas.map((d) => ({ ...d, points: undefined })),
    place,
    g.xs,
    g.ys,
    [...g.ends, ...[1, 2, 3, 4].map((k) => (g.ends.at(-1) ?? -1) + k)],
  );

test('what is written is read back within half a unit for each region, whatever points are left to be inferred', () => {
  fc.assert(
    fc.property(fc.array(fc.option(glyph, { nil: undefined }), { minLength: 1, maxLength: 6 }), (list) => {
      const read = readGvar(writeGvar(list, AXES), list.length);
      list.forEach((g, i) => {
        if (!g) {
          expect(read(i, 4)).toEqual([]);
          return;
        }
        const stops = [...g.ends, ...[1, 2, 3, 4].map((k) => (g.ends.at(-1) ?? -1) + k)];
        for (const place of places) {
          const [want, have] = [moved(g, place), pointDeltas(read(i, g.xs.length), place, g.xs, g.ys, stops)];
          for (let p = 0; p < g.xs.length; p++) {
            expect(Math.abs(have.dx[p]! - want.dx[p]!)).toBeLessThanOrEqual(0.5 * g.deltas.length + 1e-6);
            expect(Math.abs(have.dy[p]! - want.dy[p]!)).toBeLessThanOrEqual(0.5 * g.deltas.length + 1e-6);
          }
        }
      });
    }),
    { numRuns: 150 },
  );
});

test('of a contour that moves as one, one point is told; of one that stays, none; of one that is stretched, its ends', () => {
  const xs = [0, 50, 100, 100, 50, 0];
  const ys = [0, 0, 0, 80, 80, 80];
  const kept = (dx: number[], dy: number[]) => pointsToKeep({ xs, ys, ends: [5], dx, dy });
  const none = xs.map(() => 0);
  expect(kept(none, none)).toEqual([]);
  expect(
    kept(
      xs.map(() => 7),
      none,
    ),
  ).toHaveLength(1);
  // Twice as wide: the points between lie where they are inferred to.
  expect(
    kept(
      xs.map((x) => x),
      none,
    ).length,
  ).toBeLessThanOrEqual(4);
  expect(kept([0, 30, 0, 0, 0, 0], none)).toContain(1);
});

test('told points cost no more than all of them, and equal ones of several regions are written once', () => {
  const xs = Array.from({ length: 40 }, (_, i) => i * 10);
  const square = { xs: [...xs, 0, 500, 0, 0], ys: [...xs.map((x) => x % 70), 0, 0, 0, 0], ends: [39] };
  const at = (peak: number): AxisRegion => [
    [0, peak, 1],
    [0, 0, 0],
  ];
  const dx = square.xs.map((_, i) => (i === 7 ? 30 : 0));
  const one = writeGvar([{ ...square, deltas: [{ region: at(1), dx, dy: dx }] }], AXES).length;
  const two = writeGvar(
    [
      {
        ...square,
        deltas: [
          { region: at(1), dx, dy: dx },
          { region: at(0.5), dx, dy: dx },
        ],
      },
    ],
    AXES,
  ).length;
  const dense = square.xs.map((_, i) => (i * 37) % 91);
  const all = writeGvar([{ ...square, deltas: [{ region: at(1), dx: dense, dy: dense }] }], AXES).length;
  expect(one).toBeLessThan(all);
  expect(two - one).toBeLessThan(40);
});

test('axes, instances and maps are read back', () => {
  const axes = [
    { tag: 'wght', minimum: 100, default: 400, maximum: 900, hidden: false, nameID: 256 },
    { tag: 'GRAD', minimum: -1, default: 0, maximum: 1.5, hidden: true, nameID: 257 },
  ];
  const instances = [
    { nameID: 258, postScriptNameID: 259, place: [400, 0] },
    { nameID: 260, postScriptNameID: 261, place: [650.5, -0.5] },
  ];
  expect(readFvar(writeFvar(axes, instances))).toEqual({ axes, instances });
  const plain = instances.map((i) => ({ ...i, postScriptNameID: undefined }));
  expect(readFvar(writeFvar(axes, plain)).instances).toEqual(plain);
  const straight: [number, number][] = [
    [-1, -1],
    [0, 0],
    [1, 1],
  ];
  expect(writeAvar([straight, straight])).toBeUndefined();
  const bent: [number, number][] = [
    [-1, -1],
    [0, 0],
    [0.5, 0.25],
    [1, 1],
  ];
  expect(readAvar(writeAvar([bent, straight])!, 2)).toEqual([bent, straight]);
});

test('a record is never larger than one that tells every point of every set', () => {
  const runs = (values: readonly number[]): number => {
    // The plainest packing that there is: a row of words for every 64.
    const rows = Math.ceil(values.length / 64);
    return rows + values.length * 2;
  };
  fc.assert(
    fc.property(fc.array(glyph, { minLength: 1, maxLength: 3 }), (glyphs) => {
      const bytes = writeGvar(glyphs, AXES);
      const plain = glyphs.reduce((sum, g) => {
        const moving = g.deltas.filter((d) => d.dx.some((v) => v !== 0) || d.dy.some((v) => v !== 0));
        // Header, then for each set its size, its index, its peak and ends, its points and its differences.
        const sets = moving.reduce((n, d) => n + 4 + AXES * 6 + 1 + runs(d.dx) + runs(d.dy), 0);
        return sum + (moving.length === 0 ? 0 : 4 + sets + 1);
      }, 0);
      const head = 20 + (glyphs.length + 1) * 4 + 3 * glyphs.length * AXES * 2;
      expect(bytes.length).toBeLessThanOrEqual(head + plain);
    }),
  );
});
