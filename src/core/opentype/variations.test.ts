import fc from 'fast-check';
import { attempt } from '../base/result';
import { Reader, Writer } from './binary';
import { readAvar, readFvar } from './fvar';
import { readStat } from './stat';
import {
  itemDelta,
  readGdefStore,
  readHvar,
  readIndexMap,
  readItemStore,
  readMvar,
  regionScalar,
  variationAt,
} from './variations';

const f2dot14 = (v: number) => Math.round(v * 16384) & 0xffff;
const fixed = (v: number) => Math.round(v * 65536) >>> 0;

type Axis = readonly [start: number, peak: number, end: number];

/** An item variation store: regions per axis, and sets of rows with the number of their columns that are wide. */
function store(
  regions: readonly (readonly Axis[])[],
  data: readonly { regions: number[]; rows: number[][]; wide: number; long?: boolean }[],
): Uint8Array {
  const list = new Writer().uint16(regions[0]?.length ?? 0).uint16(regions.length);
  for (const region of regions)
    for (const [a, b, c] of region) list.uint16(f2dot14(a)).uint16(f2dot14(b)).uint16(f2dot14(c));
  const sets = data.map(({ regions: used, rows, wide, long }) => {
    const out = new Writer()
      .uint16(rows.length)
      .uint16(wide | (long ? 0x8000 : 0))
      .uint16(used.length);
    for (const r of used) out.uint16(r);
    for (const row of rows)
      row.forEach((v, k) => {
        if (k < wide) long ? out.uint32(v >>> 0) : out.uint16(v & 0xffff);
        else if (long) out.uint16(v & 0xffff);
        else out.uint8(v & 0xff);
      });
    return out.toBytes();
  });
  const header = 8 + sets.length * 4;
  const out = new Writer().uint16(1).uint32(header).uint16(sets.length);
  let at = header + list.length;
  for (const s of sets) {
    out.uint32(at);
    at += s.length;
  }
  out.raw(list.toBytes());
  for (const s of sets) out.raw(s);
  return out.toBytes();
}

const WEIGHT: readonly (readonly Axis[])[] = [[[0, 1, 1]], [[-1, -1, 0]], [[0, 0.5, 1]]];

test('a region applies from nothing at its ends to all at its peak', () => {
  const at = (region: readonly Axis[], ...place: number[]) => regionScalar(region, place);
  expect([0, 0.25, 0.5, 0.75, 1].map((v) => at([[0, 0.5, 1]], v))).toEqual([0, 0.5, 1, 0.5, 0]);
  expect(
    at(
      [
        [0, 1, 1],
        [0, 1, 1],
      ],
      0.5,
      0.5,
    ),
  ).toBe(0.25);
  // An axis without a peak, and one whose ends lie on both sides of the default, has no say.
  expect(
    at(
      [
        [0, 0, 0],
        [0, 1, 1],
      ],
      -1,
      1,
    ),
  ).toBe(1);
  expect(at([[-1, 0.5, 1]], 0.1)).toBe(1);
});

test('differences come back in bytes, words and long words', () => {
  const byte = fc.integer({ min: -128, max: 127 });
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.integer({ min: -30000, max: 30000 }), byte, byte), { minLength: 1, maxLength: 20 }),
      fc.boolean(),
      (rows, long) => {
        const read = readItemStore(
          store(WEIGHT, [{ regions: [0, 1, 2], rows: rows.map((r) => [...r]), wide: 1, long }]),
          'HVAR',
        );
        expect(read.data[0]!.rows).toEqual(rows);
        rows.forEach(([first, second, third], i) => {
          expect(itemDelta(read, 0, i, [1])).toBe(first);
          expect(itemDelta(read, 0, i, [-1])).toBe(second);
          expect(itemDelta(read, 0, i, [0.5])).toBeCloseTo(first / 2 + third, 9);
          expect(itemDelta(read, 0, i, [0])).toBe(0);
        });
        expect(itemDelta(read, 0, rows.length, [1])).toBe(0);
        expect(itemDelta(read, 3, 0, [1])).toBe(0);
      },
    ),
  );
});

test('maps of items in all sizes, the last entry standing for the rest', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(3), fc.nat(200)), { minLength: 1, maxLength: 40 }),
      fc.constantFrom(0, 1),
      fc.constantFrom(2, 3, 4),
      (entries, format, size) => {
        const innerBits = 8;
        const out = new Writer().uint8(format).uint8(((size - 1) << 4) | (innerBits - 1));
        if (format === 0) out.uint16(entries.length);
        else out.uint32(entries.length);
        for (const [outer, inner] of entries) {
          const v = outer * 256 + inner;
          for (let s = size - 1; s >= 0; s--) out.uint8(Math.floor(v / 256 ** s) & 255);
        }
        const map = readIndexMap(out.toBytes(), 'HVAR');
        expect(entries.map((_, i) => map(i))).toEqual(entries);
        expect(map(9999)).toEqual(entries[entries.length - 1]);
        expect(readIndexMap(undefined, 'HVAR')(77)).toEqual([0, 77]);
      },
    ),
  );
});

test('advances and metrics vary by HVAR and MVAR', () => {
  const items = store(WEIGHT, [{ regions: [0], rows: [[30], [-12]], wide: 0 }]);
  const hvar = readHvar(new Writer().uint16(1).uint16(0).uint32(20).uint32(0).uint32(0).uint32(0).raw(items).toBytes());
  expect([hvar.advance(0, [1]), hvar.advance(1, [0.5]), hvar.advance(2, [1])]).toEqual([30, -6, 0]);
  const mvar = readMvar(
    new Writer()
      .uint16(1)
      .uint16(0)
      .uint16(0)
      .uint16(8)
      .uint16(2)
      .uint16(28)
      .tag('xhgt')
      .uint16(0)
      .uint16(1)
      .tag('cpht')
      .uint16(0)
      .uint16(0)
      .raw(items)
      .toBytes(),
  );
  expect([mvar.of('xhgt', [1]), mvar.of('cpht', [0.5]), mvar.of('unds', [1])]).toEqual([-12, 15, 0]);
});

test('values of GPOS find their differences through GDEF', () => {
  const items = store(WEIGHT, [{ regions: [0], rows: [[40]], wide: 0 }]);
  const gdef = new Writer()
    .uint16(1)
    .uint16(3)
    .uint16(0)
    .uint16(0)
    .uint16(0)
    .uint16(0)
    .uint16(0)
    .uint32(18)
    .raw(items)
    .toBytes();
  const found = readGdefStore(gdef)!;
  const deltas = (outer: number, inner: number) => [0, 1].map((v) => itemDelta(found, outer, inner, [v]));
  const parent = new Reader(
    new Writer().uint16(0).uint16(0).uint16(0).uint16(0x8000).uint16(4).uint16(12).uint16(3).uint16(1).toBytes(),
    'GPOS',
  );
  expect(variationAt(parent, 2, deltas)).toEqual([0, 40]);
  // A table for sizes in pixels is not one for axes.
  expect(variationAt(parent, 8, deltas)).toBeUndefined();
  expect(readGdefStore(gdef.map((b, i) => (i === 3 ? 2 : b)))).toBeUndefined();
});

test('axes, named instances, bends and named values', () => {
  const axis =
    (tag: string, low: number, middle: number, high: number, hidden: boolean, nameID: number) => (out: Writer) =>
      out
        .tag(tag)
        .uint32(fixed(low))
        .uint32(fixed(middle))
        .uint32(fixed(high))
        .uint16(hidden ? 1 : 0)
        .uint16(nameID);
  const fvar = new Writer().uint16(1).uint16(0).uint16(16).uint16(2).uint16(2).uint16(20).uint16(1).uint16(14);
  axis('wght', 200, 400, 900, false, 256)(fvar);
  axis('opsz', 8, 12, 72, true, 257)(fvar);
  fvar.uint16(258).uint16(0).uint32(fixed(700)).uint32(fixed(12.5)).uint16(259);
  expect(readFvar(fvar.toBytes())).toEqual({
    axes: [
      { tag: 'wght', minimum: 200, default: 400, maximum: 900, hidden: false, nameID: 256 },
      { tag: 'opsz', minimum: 8, default: 12, maximum: 72, hidden: true, nameID: 257 },
    ],
    instances: [{ nameID: 258, postScriptNameID: 259, place: [700, 12.5] }],
  });
  const avar = new Writer().uint16(1).uint16(0).uint16(0).uint16(1).uint16(3);
  for (const v of [-1, -1, 0, 0, 1, 0.75]) avar.uint16(f2dot14(v));
  expect(readAvar(avar.toBytes(), 2)).toEqual([
    [
      [-1, -1],
      [0, 0],
      [1, 0.75],
    ],
  ]);

  const stat = new Writer().uint16(1).uint16(1).uint16(8).uint16(1).uint32(20).uint16(3).uint32(28).uint16(2);
  stat.tag('wght').uint16(256).uint16(0);
  stat.uint16(6).uint16(18).uint16(38);
  stat.uint16(1).uint16(0).uint16(2).uint16(260).uint32(fixed(400));
  stat.uint16(2).uint16(0).uint16(0).uint16(261).uint32(fixed(700)).uint32(fixed(650)).uint32(fixed(750));
  stat.uint16(3).uint16(0).uint16(1).uint16(262).uint32(fixed(300)).uint32(fixed(600));
  expect(readStat(stat.toBytes())).toEqual([
    { tag: 'wght', nameID: 260, value: 400, elidable: true, older: false },
    { tag: 'wght', nameID: 261, value: 700, minimum: 650, maximum: 750, elidable: false, older: false },
    { tag: 'wght', nameID: 262, value: 300, linked: 600, elidable: false, older: true },
  ]);

  // Two axes in records longer than today's; each value says which one it is of.
  const two = new Writer().uint16(1).uint16(2).uint16(10).uint16(2).uint32(20).uint16(2).uint32(40).uint16(2);
  two.tag('wght').uint16(256).uint16(0).uint16(0xffff).tag('wdth').uint16(257).uint16(1).uint16(0xffff);
  two.uint16(4).uint16(16);
  two.uint16(1).uint16(1).uint16(0).uint16(263).uint32(fixed(75));
  two.uint16(1).uint16(0).uint16(0).uint16(264).uint32(fixed(900));
  expect(readStat(two.toBytes())).toEqual([
    { tag: 'wdth', nameID: 263, value: 75, elidable: false, older: false },
    { tag: 'wght', nameID: 264, value: 900, elidable: false, older: false },
  ]);
});

test.each([
  [
    'a store of more rows than bytes',
    () =>
      readItemStore(
        store(WEIGHT, [{ regions: [0], rows: [[1]], wide: 0 }]).map((b, i) => (i === 34 ? 0xff : b)),
        'HVAR',
      ),
    /says it has \d+ rows/,
  ],
  [
    'a map of more entries than bytes',
    () => readIndexMap(Uint8Array.of(1, 0x30, 0xff, 0xff, 0xff, 0xff), 'HVAR'),
    /map of 4294967295 entries/,
  ],
  [
    'an axis whose default lies outside',
    () =>
      readFvar(
        new Writer()
          .uint16(1)
          .uint16(0)
          .uint16(16)
          .uint16(2)
          .uint16(1)
          .uint16(20)
          .uint16(0)
          .uint16(8)
          .tag('wght')
          .uint32(fixed(5))
          .uint32(fixed(1))
          .uint32(fixed(9))
          .uint16(0)
          .uint16(256)
          .toBytes(),
      ),
    /default of wght outside its range/,
  ],
  [
    'axis records too short',
    () =>
      readStat(
        new Writer()
          .uint16(1)
          .uint16(1)
          .uint16(4)
          .uint16(1)
          .uint32(20)
          .uint16(0)
          .uint32(0)
          .uint16(2)
          .uint32(0)
          .toBytes(),
      ),
    /axis records of 4 bytes/,
  ],
])('%s is refused', (_, read, reason) => {
  const result = attempt<unknown>(read);
  expect(result.ok ? 'accepted' : result.reason).toMatch(reason);
});
