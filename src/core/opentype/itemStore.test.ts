import fc from 'fast-check';
import { anyRegion } from '../testing/regions';
import { DeltaStore, type RegionDelta, writeIndexMap, writeItemStore } from './itemStore';
import { writeAdvancesVary, writeMvar } from './metricsVary';
import { type AxisRegion, itemDelta, readHvar, readIndexMap, readItemStore, readMvar } from './variations';

const AXES = 2;
const size = fc.oneof(
  fc.integer({ min: -120, max: 120 }),
  fc.integer({ min: -9000, max: 9000 }),
  fc.integer({ min: -90_000, max: 90_000 }),
);
const distinct = fc.uniqueArray(anyRegion, { selector: (r) => JSON.stringify(r), minLength: 1, maxLength: 4 });
const rows = distinct.chain((regions) =>
  fc.array(
    fc
      .array(fc.oneof(fc.constant(0), size), { minLength: regions.length, maxLength: regions.length })
      .map((deltas) => regions.map((r, k): RegionDelta => ({ region: r, delta: deltas[k]! }))),
    { minLength: 1, maxLength: 40 },
  ),
);
const places = [
  [0, 0],
  [1, 0],
  [-0.5, 0.25],
  [0.75, 1],
  [1, -1],
];
/** What a row comes to at a place, by its regions alone. */
const sum = (row: readonly RegionDelta[], place: readonly number[]): number =>
  itemDelta(
    { regions: row.map((d) => d.region), data: [{ regions: row.map((_, k) => k), rows: [row.map((d) => d.delta)] }] },
    0,
    0,
    place,
  );

test('a store as it was given is read back', () => {
  fc.assert(
    fc.property(rows, (list) => {
      const regions = list[0]!.map((d) => d.region);
      const data = [{ regions: regions.map((_, k) => k), rows: list.map((r) => r.map((d) => d.delta)) }];
      const read = readItemStore(writeItemStore({ regions, data }, AXES), 'x');
      expect(read.regions).toEqual(regions);
      list.forEach((row, inner) => {
        for (const place of places) expect(itemDelta(read, 0, inner, place)).toBeCloseTo(sum(row, place), 6);
      });
    }),
  );
});

test('rows that are collected come to what they were, each once, in whatever order they came', () => {
  fc.assert(
    fc.property(rows, (list) => {
      const made = (order: readonly (readonly RegionDelta[])[]) => {
        const store = new DeltaStore(AXES);
        const keys = order.map((r) => store.add(r));
        return { keys, ...store.finished() };
      };
      const { keys, bytes, at } = made(list);
      const read = readItemStore(bytes, 'x');
      list.forEach((row, i) => {
        const key = keys[i];
        if (key === undefined) {
          expect(row.every((d) => d.delta === 0)).toBe(true);
          return;
        }
        const { outer, inner } = at(key);
        for (const place of places) expect(itemDelta(read, outer, inner, place)).toBeCloseTo(sum(row, place), 6);
      });
      const stored = read.data.reduce((n, d) => n + d.rows.length, 0);
      expect(stored).toBe(new Set(keys.filter((k) => k !== undefined)).size);
    }),
    { numRuns: 60 },
  );
});

test('sets are joined where that saves bytes and kept apart where it costs', () => {
  const store = new DeltaStore(AXES);
  const [a, b]: [AxisRegion, AxisRegion] = [
    [
      [0, 1, 1],
      [0, 0, 0],
    ],
    [
      [0, 0, 0],
      [0, 1, 1],
    ],
  ];
  store.add([{ region: a, delta: 5 }]);
  store.add([{ region: b, delta: 7 }]);
  expect(readItemStore(store.finished().bytes, 'x').data).toHaveLength(1);
  const many = new DeltaStore(AXES);
  for (let i = 1; i < 120; i++) {
    many.add([{ region: a, delta: i }]);
    many.add([{ region: b, delta: 300 + i }]);
  }
  expect(readItemStore(many.finished().bytes, 'x').data).toHaveLength(2);
});

test('a map leads from glyphs to rows; what repeats at its end is written once', () => {
  const index = fc.record({ outer: fc.integer({ min: 0, max: 300 }), inner: fc.integer({ min: 0, max: 5000 }) });
  fc.assert(
    fc.property(fc.array(index, { minLength: 1, maxLength: 50 }), fc.integer({ min: 0, max: 20 }), (list, more) => {
      const all = [...list, ...Array.from({ length: more }, () => list.at(-1)!)];
      const bytes = writeIndexMap(all);
      const map = readIndexMap(bytes, 'x');
      all.forEach(({ outer, inner }, i) => {
        expect(map(i)).toEqual([outer, inner]);
      });
      expect(bytes.length).toBeLessThanOrEqual(writeIndexMap(list).length);
    }),
  );
});

test('advances and metrics of the font vary by what was said, and nothing is written where nothing does', () => {
  fc.assert(
    fc.property(rows, (list) => {
      const { advance } = readHvar(writeAdvancesVary('HVAR', list, AXES));
      list.forEach((row, glyph) => {
        for (const place of places) expect(advance(glyph, place)).toBeCloseTo(sum(row, place), 6);
      });
      const tags = ['xhgt', 'cpht', 'hasc', 'undo'].slice(0, list.length);
      const bytes = writeMvar(new Map(tags.map((t, i) => [t, list[i]!])), AXES);
      const moves = tags.some((_, i) => list[i]!.some((d) => d.delta !== 0));
      expect(bytes !== undefined).toBe(moves);
      if (!bytes) return;
      const metric = readMvar(bytes);
      tags.forEach((t, i) => {
        for (const place of places) expect(metric.of(t, place)).toBeCloseTo(sum(list[i]!, place), 6);
      });
    }),
    { numRuns: 60 },
  );
});
