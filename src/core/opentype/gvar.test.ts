import fc from 'fast-check';
import { attempt } from '../base/result';
import { Writer } from './binary';
import { pointDeltas, readGvar } from './gvar';

/** One set of differences as a test states it: at the peak of the only axis, for all points or for some. */
type Stated = { peak: number; range?: [number, number]; points?: number[]; dx: number[]; dy: number[] };

const f2dot14 = (v: number) => Math.round(v * 16384) & 0xffff;

/** Packed differences: runs of nothing, of bytes and of words, as they come. */
function packedDeltas(values: readonly number[]): number[] {
  const kindOf = (v: number) => (v === 0 ? 0x80 : v >= -128 && v <= 127 ? 0 : 0x40);
  const out: number[] = [];
  for (let i = 0; i < values.length; ) {
    const kind = kindOf(values[i]!);
    let run = 1;
    while (run < 64 && i + run < values.length && kindOf(values[i + run]!) === kind) run++;
    out.push(kind | (run - 1));
    for (const v of values.slice(i, i + run))
      if (kind === 0) out.push(v & 255);
      else if (kind === 0x40) out.push((v >> 8) & 255, v & 255);
    i += run;
  }
  return out;
}

/** Packed point numbers, rising; far steps as words. */
function packedPoints(points: readonly number[]): number[] {
  const out = points.length < 128 ? [points.length] : [0x80 | (points.length >> 8), points.length & 255];
  let last = 0;
  for (const p of points) {
    const step = p - last;
    if (step > 255) out.push(0x80, step >> 8, step & 255);
    else out.push(0, step);
    last = p;
  }
  return out;
}

/** A gvar table of one axis; `common` are point numbers shared by sets that name none of their own. */
function gvarTable(
  glyphs: readonly (readonly Stated[])[],
  { common, long = false }: { common?: number[]; long?: boolean } = {},
): Uint8Array {
  const records = glyphs.map((sets) => {
    if (sets.length === 0) return new Uint8Array();
    const bodies = sets.map((s) => [
      ...(s.points ? packedPoints(s.points) : common ? [] : [0]),
      ...packedDeltas(s.dx),
      ...packedDeltas(s.dy),
    ]);
    const head = new Writer();
    sets.forEach((s, i) => {
      head
        .uint16(bodies[i]!.length)
        .uint16(0x8000 | (s.range ? 0x4000 : 0) | (s.points || !common ? 0x2000 : 0))
        .uint16(f2dot14(s.peak));
      if (s.range) head.uint16(f2dot14(s.range[0])).uint16(f2dot14(s.range[1]));
    });
    const out = new Writer()
      .uint16(sets.length | (common ? 0x8000 : 0))
      .uint16(4 + head.length)
      .raw(head.toBytes());
    if (common) out.raw(packedPoints(common));
    for (const b of bodies) out.raw(b);
    return out.pad(2).toBytes();
  });
  const ends = [0, ...records.map((_, i) => records.slice(0, i + 1).reduce((sum, r) => sum + r.length, 0))];
  const dataAt = 20 + ends.length * (long ? 4 : 2);
  const out = new Writer()
    .uint16(1)
    .uint16(0)
    .uint16(1)
    .uint16(0)
    .uint32(dataAt)
    .uint16(glyphs.length)
    .uint16(long ? 1 : 0)
    .uint32(dataAt);
  for (const e of ends)
    if (long) out.uint32(e);
    else out.uint16(e / 2);
  for (const r of records) out.raw(r);
  return out.toBytes();
}

const word = fc.integer({ min: -3000, max: 3000 });
const sparse = fc.oneof(fc.constant(0), fc.integer({ min: -128, max: 127 }), word);

test('differences for all points come back, in bytes, words and runs of nothing', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(sparse, sparse), { minLength: 1, maxLength: 200 }), fc.boolean(), (deltas, long) => {
      const stated: Stated = { peak: 1, dx: deltas.map((d) => d[0]), dy: deltas.map((d) => d[1]) };
      const read = readGvar(gvarTable([[], [stated]], { long }), 2);
      expect(read(0, deltas.length)).toEqual([]);
      expect(read(1, deltas.length)).toEqual([
        { region: [[0, 1, 1]], points: undefined, dx: stated.dx, dy: stated.dy },
      ]);
    }),
  );
});

test('differences for some points, their own or shared ones, near and far', () => {
  fc.assert(
    fc.property(fc.uniqueArray(fc.nat(900), { minLength: 1, maxLength: 150 }), fc.boolean(), (numbers, shared) => {
      const points = [...numbers].sort((a, b) => a - b);
      const stated: Stated = {
        peak: -0.5,
        range: [-1, -0.25],
        ...(shared ? {} : { points }),
        dx: points.map((p) => p - 400),
        dy: points.map(() => 7),
      };
      const read = readGvar(gvarTable([[stated, stated]], shared ? { common: points } : {}), 1)(0, 901);
      expect(read).toHaveLength(2);
      for (const set of read)
        expect(set).toEqual({ region: [[-1, -0.5, -0.25]], points, dx: stated.dx, dy: stated.dy });
    }),
  );
});

test('points that are left out move with their neighbours', () => {
  // A contour of x = 0, 10, 20, 30, 40; the first moves by 10, the one at 20 by 30.
  const xs = [0, 10, 20, 30, 40];
  const ys = [0, 0, 0, 0, 0];
  const set = { region: [[0, 1, 1]] as const, points: [0, 2], dx: [10, 30], dy: [0, 0] };
  const at = (place: number) => [...pointDeltas([set], [place], xs, ys, [4]).dx];
  // Halfway between in place is halfway between in movement; beyond the last it moves along with it.
  expect(at(1)).toEqual([10, 20, 30, 30, 30]);
  expect(at(0.5)).toEqual([5, 10, 15, 15, 15]);
  expect(at(0)).toEqual([0, 0, 0, 0, 0]);
  // A contour with no moved point stays.
  expect([...pointDeltas([set], [1], [...xs, 5, 6], [...ys, 0, 0], [4, 6]).dx].slice(5)).toEqual([0, 0]);
});

test('two neighbours in one place move those between only when they agree', () => {
  const moved = (second: number) => [
    ...pointDeltas(
      [{ region: [[0, 1, 1]], points: [0, 2], dx: [8, second], dy: [0, 0] }],
      [1],
      [50, 70, 50],
      [0, 0, 0],
      [2],
    ).dx,
  ];
  expect(moved(8)).toEqual([8, 8, 8]);
  expect(moved(4)).toEqual([8, 0, 4]);
});

test('inferred movement lies between that of the neighbours, and all sets add up', () => {
  const coordinates = fc.array(fc.integer({ min: -500, max: 500 }), { minLength: 3, maxLength: 12 });
  fc.assert(
    fc.property(coordinates, word, word, (xs, a, b) => {
      const set = { region: [[0, 1, 1]] as const, points: [0, xs.length - 1], dx: [a, b], dy: [0, 0] };
      const { dx } = pointDeltas(
        [set],
        [1],
        xs,
        xs.map(() => 0),
        [xs.length - 1],
      );
      const inside = [...dx].every((v) => v >= Math.min(a, b) - 1e-9 && v <= Math.max(a, b) + 1e-9);
      // Neighbours in one place that disagree leave the points between where they are.
      expect(inside || xs[0] === xs[xs.length - 1]).toBe(true);
      const twice = pointDeltas(
        [set, set],
        [1],
        xs,
        xs.map(() => 0),
        [xs.length - 1],
      ).dx;
      expect([...twice]).toEqual([...dx].map((v) => v * 2));
    }),
  );
});

test.each([
  [
    'more glyphs than the font has',
    () => readGvar(gvarTable([[], [], []]), 2),
    /speaks of 3 glyphs, but the font has 2/,
  ],
  [
    'a point that is not there',
    () => readGvar(gvarTable([[{ peak: 1, points: [9], dx: [1], dy: [1] }]]), 1)(0, 5),
    /moves point 9 of 5/,
  ],
  [
    'a glyph beyond the end',
    () => readGvar(gvarTable([[{ peak: 1, dx: [1, 2], dy: [3, 4] }]], { long: true }).slice(0, -4), 1)(0, 2),
    /places glyph 0 beyond its end/,
  ],
  ['an end too early', () => readGvar(gvarTable([[]]).slice(0, 14), 1), /gvar/],
])('%s is refused', (_, read, reason) => {
  const result = attempt<unknown>(read);
  expect(result.ok ? 'accepted' : result.reason).toMatch(reason);
});
