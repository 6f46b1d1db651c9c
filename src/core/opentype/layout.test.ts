import fc from 'fast-check';
import { attempt } from '../base/result';
import { readMarkAnchors } from './anchorsRead';
import { Reader, Writer } from './binary';
import { readClasses, readCoverage, readLayout } from './layout';

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
      expect(readCoverage(reader(list))).toEqual(sorted);
      const ranges = new Writer().uint16(2).uint16(runs(sorted).length);
      let index = 0;
      for (const [start, end] of runs(sorted)) {
        ranges.uint16(start).uint16(end).uint16(index);
        index += end - start + 1;
      }
      expect(readCoverage(reader(ranges))).toEqual(sorted);
    }),
  );
});

test('classes in both formats', () => {
  fc.assert(
    fc.property(fc.nat(500), fc.array(fc.nat(6), { minLength: 1, maxLength: 60 }), (first, classes) => {
      const dense = new Writer().uint16(1).uint16(first).uint16(classes.length);
      for (const c of classes) dense.uint16(c);
      expect([...readClasses(reader(dense))]).toEqual(classes.map((c, i) => [first + i, c]));
      const ranges = new Writer().uint16(2).uint16(classes.length);
      for (const [i, c] of classes.entries())
        ranges
          .uint16(first + i)
          .uint16(first + i)
          .uint16(c);
      expect([...readClasses(reader(ranges))]).toEqual(classes.map((c, i) => [first + i, c]));
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
    features: [],
    lookups: [],
  });
});

test.each([
  [
    'a coverage of another format',
    () => readCoverage(reader(new Writer().uint16(3).uint16(0))),
    /coverage of the unknown format 3/,
  ],
  [
    'a falling coverage range',
    () => readCoverage(reader(new Writer().uint16(2).uint16(1).uint16(9).uint16(3).uint16(0))),
    /damaged coverage range \(9 to 3\)/,
  ],
  [
    'a falling class range',
    () => readClasses(reader(new Writer().uint16(2).uint16(1).uint16(9).uint16(3).uint16(1))),
    /damaged class range \(9 to 3\)/,
  ],
  [
    'classes of another format',
    () => readClasses(reader(new Writer().uint16(7).uint16(0))),
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
