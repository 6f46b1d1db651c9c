import fc from 'fast-check';
import { Reader } from './binary';
import { OP } from './cff';
import { type Blended, type BlendedContour, type Cff2Info, writeBlendedCharstring, writeCff2 } from './cff2';
import { readCff2 } from './cff2Read';
import { readDict, readIndex } from './cffRead';
import { shareSubroutines } from './subroutines';
import { type AxisRegion, regionScalar } from './variations';

const axis = (start: number, peak: number, end: number): AxisRegion => [[start, peak, end]];
const REGIONS: AxisRegion[] = [axis(-1, -1, 0), axis(0, 0.5, 1), axis(0.5, 1, 1)];
const SETS = [
  [0, 2],
  [0, 1, 2],
];
const PLACES = [-1, -0.4, 0, 0.25, 0.5, 0.7, 1];
const info: Cff2Info = {
  unitsPerEm: 1000,
  axisCount: 1,
  regions: REGIONS,
  sets: SETS,
  blueValues: [],
  otherBlues: [],
};

/** A number that stays, or differs in both or all three regions. */
const number = (regions: number): fc.Arbitrary<Blended> =>
  fc.record({
    value: fc.integer({ min: -4000, max: 4000 }),
    deltas: fc.oneof(
      fc.constant([] as number[]),
      fc.array(fc.integer({ min: -1500, max: 1500 }), { minLength: regions, maxLength: regions }),
    ),
  });
const contourOf = (regions: number): fc.Arbitrary<BlendedContour> => {
  const n = number(regions);
  const segment = fc.oneof(fc.tuple(n, n), fc.tuple(n, n, n, n, n, n));
  return fc.record({ x: n, y: n, segments: fc.array(segment, { minLength: 1, maxLength: 8 }) });
};
const glyph = fc
  .constantFrom(0, 1)
  .chain((set) =>
    fc.record({ set: fc.constant(set), contours: fc.array(contourOf(SETS[set]!.length), { maxLength: 3 }) }),
  );

const at = (b: Blended, set: number, place: number): number =>
  b.value + b.deltas.reduce((sum, d, k) => sum + d * regionScalar(REGIONS[SETS[set]![k]!]!, [place]), 0);

test('outlines are read back at every place as they were blended, shared parts and sets of their own too', () => {
  fc.assert(
    fc.property(fc.array(glyph, { minLength: 1, maxLength: 6 }), fc.boolean(), (glyphs, share) => {
      // Each twice, so that something is shared.
      const all = [...glyphs, ...glyphs];
      const plain = all.map((g) => writeBlendedCharstring(g.contours, { set: g.set, regions: SETS[g.set]!.length }));
      const own = share ? shareSubroutines(plain) : { charstrings: plain, global: [], local: [] };
      const ended = (list: readonly Uint8Array[]) => list.map((s) => s.subarray(0, -1));
      const font = readCff2(writeCff2(info, own.charstrings, { global: ended(own.global), local: ended(own.local) }));
      expect([font.count, font.store.regions]).toEqual([all.length, REGIONS]);
      for (const place of PLACES)
        all.forEach((g, i) => {
          const is = font.outline(i, [place]).map((c) => [c.x, c.y, ...c.segments.flat()]);
          const was = g.contours.map((c) => [c.x, c.y, ...c.segments.flat()].map((b) => at(b, g.set, place)));
          expect(is.map((c) => c.length)).toEqual(was.map((c) => c.length));
          const [a, b] = [is.flat(), was.flat()];
          expect(a.findIndex((v, k) => Math.abs(v - b[k]!) > 1e-6)).toBe(-1);
        });
    }),
    { numRuns: 60 },
  );
});

/** The most operands that wait while a charstring without subroutines runs. */
function deepest(bytes: Uint8Array, regions: number): number {
  let [now, most, last] = [0, 0, 0];
  for (let i = 0; i < bytes.length; ) {
    const b = bytes[i++]!;
    if (b >= 32 || b === 28) {
      if (b === 28) last = (((bytes[i++]! << 8) | bytes[i++]!) << 16) >> 16;
      else if (b < 247) last = b - 139;
      else last = b < 251 ? (b - 247) * 256 + bytes[i++]! + 108 : -(b - 251) * 256 - bytes[i++]! - 108;
      now++;
      most = Math.max(most, now);
    } else if (b === 16) now -= 1 + last * regions;
    else now = 0;
  }
  return most;
}

test('no more operands wait than readers hold, however many regions there are', () => {
  for (const regions of [1, 7, 80, 160, 240]) {
    const deltas = Array.from({ length: regions }, (_, k) => k + 1);
    const curve = [1, 2, 4, 8, 16, 32].map((v) => ({ value: v * 100, deltas: deltas.map((d) => d * v) }));
    const contour = {
      x: curve[0]!,
      y: curve[1]!,
      segments: Array.from({ length: 40 }, (_, i) => (i % 3 ? curve : curve.slice(0, 2))),
    };
    const most = deepest(writeBlendedCharstring([contour], { set: 0, regions }), regions);
    expect([regions, most <= 513]).toEqual([regions, true]);
    expect(most).toBeGreaterThan(regions);
  }
});

test('alignment zones and stems are written as steps from one to the next, blended by the first set', () => {
  const n = (value: number, ...deltas: number[]): Blended => ({ value, deltas });
  const bytes = writeCff2(
    {
      ...info,
      unitsPerEm: 2048,
      blueValues: [n(-12), n(0), n(500, -4, 6), n(512, -4, 6)],
      otherBlues: [n(-212), n(-200)],
      stdVW: n(80, -50, 90),
    },
    [new Uint8Array()],
  );
  const from = new Reader(bytes, 'CFF2');
  const top = readDict(from.seek(5).raw(new Reader(bytes, 'CFF2').seek(3).uint16()));
  expect(top.get(OP.FontMatrix)!.map((v) => Math.round(v * 2048 * 1e4) / 1e4)).toEqual([1, 0, 0, 1, 0, 0]);
  const [font] = readIndex(from.seek(top.get(OP.FDArray)![0]!), true);
  const [size, place] = readDict(font!).get(OP.Private)!;
  const own = [...from.seek(place!).raw(size!)].map((b) => (b >= 32 && b < 247 ? b - 139 : b));
  const blend = 23;
  // 500 after 0 takes two bytes; its deltas and their count follow; the last zone is as thick everywhere.
  expect(own.slice(0, own.indexOf(blend) + 3)).toEqual([-12, 12, 248, own[3], -4, 6, 1, blend, 12, OP.BlueValues]);
  expect(own.filter((b) => b === blend)).toHaveLength(2);
  const stems = own.slice(own.lastIndexOf(80));
  expect(stems).toEqual([80, -50, 90, 1, blend, OP.StdVW]);
});
