import fc from 'fast-check';
import { attempt } from '../base/result';
import { readMarkAnchors } from './anchorsRead';
import { Reader, Writer } from './binary';
import { classDef } from './layout/classDef';
import { coverage } from './layout/coverage';
import { type LayoutLists, readLayout, writeLayout } from './layout/lists';
import { type Device, device, VALUE_FIELDS, type ValueRecord, valueBit, valueRecords } from './layout/values';

const reader = (out: Writer) => new Reader(out.toBytes(), 'GPOS');

/** Runs of numbers that follow one another. */
const runs = (sorted: readonly number[]): [number, number][] =>
  sorted.reduce((list: [number, number][], g) => {
    const last = list[list.length - 1];
    if (last && last[1] === g - 1) last[1] = g;
    else list.push([g, g]);
    return list;
  }, []);

test('coverage in both formats gives the glyphs in order', () => {
  fc.assert(
    fc.property(fc.uniqueArray(fc.nat(3000), { maxLength: 80 }), (glyphs) => {
      const sorted = [...glyphs].sort((a, b) => a - b);
      const list = new Writer().uint16(1).uint16(sorted.length);
      for (const g of sorted) list.uint16(g);
      expect(coverage.read(reader(list))).toEqual(sorted);
      const ranges = new Writer().uint16(2).uint16(runs(sorted).length);
      let index = 0;
      for (const [start, end] of runs(sorted)) {
        ranges.uint16(start).uint16(end).uint16(index);
        index += end - start + 1;
      }
      expect(coverage.read(reader(ranges))).toEqual(sorted);
    }),
  );
});

test('classes in both formats', () => {
  fc.assert(
    fc.property(fc.nat(500), fc.array(fc.nat(6), { minLength: 1, maxLength: 60 }), (first, classes) => {
      const dense = new Writer().uint16(1).uint16(first).uint16(classes.length);
      for (const c of classes) dense.uint16(c);
      expect([...classDef.read(reader(dense))]).toEqual(classes.map((c, i) => [first + i, c]));
      const ranges = new Writer().uint16(2).uint16(classes.length);
      for (const [i, c] of classes.entries())
        ranges
          .uint16(first + i)
          .uint16(first + i)
          .uint16(c);
      expect([...classDef.read(reader(ranges))]).toEqual(classes.map((c, i) => [first + i, c]));
    }),
  );
});

/** A GPOS table of one lookup under one feature. */
function gpos(feature: string, type: number, subtable: Uint8Array, { extension = false } = {}): Uint8Array {
  const inner = extension ? new Writer().uint16(1).uint16(type).uint32(8).raw(subtable).toBytes() : subtable;
  const out = new Writer().uint16(1).uint16(0).uint16(10).uint16(12).uint16(26);
  out.uint16(0);
  // The feature list: one feature with lookup 0.
  out.uint16(1).tag(feature).uint16(8).uint16(0).uint16(1).uint16(0);
  // The lookup list.
  out
    .uint16(1)
    .uint16(4)
    .uint16(extension ? 9 : type)
    .uint16(0)
    .uint16(1)
    .uint16(8)
    .raw(inner);
  return out.toBytes();
}

/** Marks 20 and 21 of two classes, on glyph 5; as MarkBasePos. */
function markToBase(): Uint8Array {
  const anchor = (x: number, y: number) => new Writer().uint16(1).int16(x).int16(y).toBytes();
  const markCoverage = new Writer().uint16(1).uint16(2).uint16(20).uint16(21).toBytes();
  const baseCoverage = new Writer().uint16(1).uint16(1).uint16(5).toBytes();
  const marks = new Writer()
    .uint16(2)
    .uint16(0)
    .uint16(10)
    .uint16(1)
    .uint16(16)
    .raw(anchor(100, 500))
    .raw(anchor(90, -10))
    .toBytes();
  const bases = new Writer().uint16(1).uint16(6).uint16(0).raw(anchor(250, 520)).toBytes();
  const at = 12;
  return new Writer()
    .uint16(1)
    .uint16(at)
    .uint16(at + markCoverage.length)
    .uint16(2)
    .uint16(at + markCoverage.length + baseCoverage.length)
    .uint16(at + markCoverage.length + baseCoverage.length + marks.length)
    .raw(markCoverage)
    .raw(baseCoverage)
    .raw(marks)
    .raw(bases)
    .toBytes();
}

test('marks and what they sit on are told, by extension too; an anchor that is not there is none', () => {
  for (const extension of [false, true]) {
    expect(readMarkAnchors(gpos('mark', 4, markToBase(), { extension }))).toEqual([
      { glyph: 20, kind: '0.0.0', x: 100, y: 500, mark: true },
      { glyph: 21, kind: '0.0.1', x: 90, y: -10, mark: true },
      { glyph: 5, kind: '0.0.0', x: 250, y: 520, mark: false },
    ]);
  }
  // Another feature's lookups are not mark positioning.
  expect(readMarkAnchors(gpos('curs', 4, markToBase()))).toEqual([]);
});

test('features and their lookups', () => {
  const layout = readLayout(gpos('mark', 4, markToBase()), 'GPOS', 9);
  expect(layout.features).toEqual([{ tag: 'mark', lookups: [0] }]);
  expect(layout.lookups.map((l) => [l.type, l.subtables.length])).toEqual([[4, 1]]);
  expect(readLayout(new Writer().uint16(1).uint16(0).uint16(0).uint16(0).uint16(0).toBytes(), 'GSUB', 7)).toEqual({
    scripts: [],
    features: [],
    lookups: [],
  });
});

test.each([
  [
    'a coverage of another format',
    () => coverage.read(reader(new Writer().uint16(3).uint16(0))),
    /coverage of the unknown format 3/,
  ],
  [
    'a falling coverage range',
    () => coverage.read(reader(new Writer().uint16(2).uint16(1).uint16(9).uint16(3).uint16(0))),
    /damaged coverage range \(9 to 3\)/,
  ],
  [
    'a falling class range',
    () => classDef.read(reader(new Writer().uint16(2).uint16(1).uint16(9).uint16(3).uint16(1))),
    /damaged class range \(9 to 3\)/,
  ],
  [
    'classes of another format',
    () => classDef.read(reader(new Writer().uint16(7).uint16(0))),
    /classes of the unknown format 7/,
  ],
  [
    'an offset beyond the end',
    () => readLayout(new Writer().uint16(1).uint16(0).uint16(10).uint16(900).uint16(12).uint16(0).toBytes(), 'GPOS', 9),
    /places a part at byte 900 of 12/,
  ],
  [
    'an extension that leads to an extension',
    () => readLayout(gpos('kern', 9, new Writer().uint16(1).uint16(9).uint32(8).uint16(0).toBytes()), 'GPOS', 9),
    /extension that leads to an extension/,
  ],
])('%s is refused', (_, read, reason) => {
  const result = attempt<unknown>(read);
  expect(result.ok ? 'accepted' : result.reason).toMatch(reason);
});

test('coverage, classes, devices and values come back as they were written', () => {
  const again = <T>(codec: { read(from: Reader): T; write(v: T): Uint8Array }, value: T) =>
    codec.read(new Reader(codec.write(value), 'GPOS'));
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.nat(4000), { maxLength: 90 }),
      fc.array(fc.nat(3), { maxLength: 90 }),
      (ids, kinds) => {
        const sorted = [...ids].sort((a, b) => a - b);
        expect(again(coverage, sorted)).toEqual(sorted);
        const classes = new Map(sorted.flatMap((g, i) => ((kinds[i] ?? 0) > 0 ? [[g, kinds[i]!] as const] : [])));
        expect(new Map([...again(classDef, classes)].filter(([, c]) => c !== 0))).toEqual(classes);
      },
    ),
  );
  const deltas = fc.constantFrom(1, 7, 100).chain((n) => fc.array(fc.integer({ min: -n, max: n }), { minLength: 1 }));
  fc.assert(
    fc.property(fc.nat(90), deltas, (startSize, list) => {
      const value: Device = { kind: 'sizes', startSize, deltas: list };
      expect(again(device, value)).toEqual(value);
    }),
  );
  expect(again(device, { kind: 'variation', outer: 2, inner: 700 })).toEqual({
    kind: 'variation',
    outer: 2,
    inner: 700,
  });
  fc.assert(
    fc.property(
      fc.nat(255),
      fc.array(fc.integer({ min: -900, max: 900 }), { minLength: 8, maxLength: 8 }),
      (format, n) => {
        const record: ValueRecord = {};
        for (const [i, field] of VALUE_FIELDS.entries()) {
          if (format & valueBit(field)) record[field] = n[i]!;
          if (format & (valueBit(field) << 4)) record.devices = { ...record.devices, [field]: Math.abs(n[i + 4]!) + 1 };
        }
        const { read, write, size } = valueRecords(format);
        const out = new Writer();
        write(out, record);
        expect(out.toBytes().length).toBe(size);
        expect(read(reader(out))).toEqual(record);
      },
    ),
  );
});

test('scripts, languages, features and lookups come back as they were written, whatever their size', () => {
  const tag = fc.constantFrom('latn', 'grek', 'DFLT', 'kern', 'mark', 'PLK ', 'TRK ');
  const system = fc.record(
    { required: fc.nat(3), features: fc.array(fc.nat(3), { maxLength: 4 }) },
    { requiredKeys: ['features'] },
  );
  const lists: fc.Arbitrary<LayoutLists<Uint8Array>> = fc.record({
    scripts: fc.array(
      fc.record(
        { tag, usual: system, languages: fc.array(fc.record({ tag, system }), { maxLength: 3 }) },
        { requiredKeys: ['tag', 'languages'] },
      ),
      { maxLength: 3 },
    ),
    features: fc.array(fc.record({ tag, lookups: fc.array(fc.nat(5), { maxLength: 4 }) }), {
      minLength: 1,
      maxLength: 4,
    }),
    lookups: fc.array(
      fc.record(
        {
          type: fc.constantFrom(1, 2, 4, 8),
          flag: fc.constantFrom(0, 8, 0x200),
          markFilteringSet: fc.nat(4),
          subtables: fc.array(
            fc.tuple(fc.nat(255), fc.constantFrom(10, 400, 20_000)).map(([v, n]) => new Uint8Array(n).fill(v)),
            { maxLength: 4 },
          ),
        },
        { requiredKeys: ['type', 'flag', 'subtables'] },
      ),
      { maxLength: 5 },
    ),
  });
  fc.assert(
    fc.property(lists, (wanted) => {
      const bytes = writeLayout(wanted, 9);
      const found = readLayout(bytes, 'GPOS', 9);
      expect(found.scripts).toEqual(wanted.scripts);
      expect(found.features).toEqual(wanted.features);
      found.lookups.forEach((l, i) => {
        const own = wanted.lookups[i]!;
        const flag = own.flag | (own.markFilteringSet === undefined ? 0 : 0x10);
        expect([l.flag, l.markFilteringSet]).toEqual([flag, own.markFilteringSet]);
        if (own.subtables.length > 0) expect(l.type).toBe(own.type);
        l.subtables.forEach((s, k) => {
          const sub = own.subtables[k]!;
          expect(Buffer.compare(s.bytes.subarray(0, sub.length), sub)).toBe(0);
        });
      });
      expect(found.lookups).toHaveLength(wanted.lookups.length);
    }),
    { numRuns: 100 },
  );
});
