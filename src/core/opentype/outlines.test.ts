import fc from 'fast-check';
import { attempt, refused } from '../base/result';
import { writeCff } from './cff';
import { readCff, standardSid } from './cffRead';
import { type CffContour, writeCharstring } from './charstring';
import { readCharstring } from './charstringRead';
import { joinGlyphs, readGlyphs, writeCompositeGlyph, writeSimpleGlyph } from './glyf';
import { coordinate } from './testShapes';

const NONE = { local: [], global: [] };

/** Steps that are often level, upright or repeated, so that every operator is met. */
const step = fc.oneof(coordinate, fc.constant(0), fc.integer({ min: -120, max: 120 }));
const contour: fc.Arbitrary<CffContour> = fc
  .tuple(
    coordinate,
    coordinate,
    fc.array(fc.oneof(fc.array(step, { minLength: 2, maxLength: 2 }), fc.array(step, { minLength: 6, maxLength: 6 })), {
      maxLength: 24,
    }),
  )
  .map(([x, y, deltas]) => {
    let px = x;
    let py = y;
    const clamp = (v: number) => Math.max(-9000, Math.min(9000, v));
    const segments = deltas.map((d) => {
      const segment: number[] = [];
      for (let i = 0; i < d.length; i += 2) {
        px = clamp(px + Math.trunc(d[i]! / 5));
        py = clamp(py + Math.trunc(d[i + 1]! / 5));
        segment.push(px, py);
      }
      return segment;
    });
    return { x, y, segments };
  });

test('charstrings draw what was written', () => {
  fc.assert(
    fc.property(fc.array(contour, { maxLength: 4 }), fc.option(coordinate, { nil: undefined }), (contours, width) => {
      const drawn = readCharstring(writeCharstring(contours, width), NONE, 'test');
      expect(drawn.contours).toEqual(contours);
      expect(drawn.width).toBe(width);
    }),
    { numRuns: 300 },
  );
});

test('level and upright runs take the short operators', () => {
  const box: CffContour = {
    x: 0,
    y: 0,
    segments: [
      [100, 0],
      [100, 50],
      [0, 50],
    ],
  };
  // hmoveto 0, one hlineto with three arguments, endchar.
  expect(writeCharstring([box], undefined)).toHaveLength(1 + 1 + 3 + 1 + 1);
});

test('damaged charstrings are refused, never run on', () => {
  const fault = (bytes: number[], local: Uint8Array[] = []) => {
    const r = attempt(() => readCharstring(Uint8Array.from(bytes), { local, global: [] }, 'glyph x'));
    return r.ok ? '' : r.reason;
  };
  const callsItself = Uint8Array.of(139 - 107, 10);
  expect(fault([139 - 107, 10], [callsItself])).toMatch(/glyph x calls subroutines more than 10 deep/);
  expect(fault([139, 10])).toMatch(/subroutine that is not there/);
  expect(fault([139, 139, 5])).toMatch(/before it moves/);
  expect(fault([28, 1])).toMatch(/cut short/);
});

test('a CFF table gives back names, widths and outlines', () => {
  const info = {
    postScriptName: 'Test-Regular',
    fullName: 'Test Regular',
    familyName: 'Test',
    weight: 'Regular',
    version: '1.0',
    notice: '',
    unitsPerEm: 2048,
    fontBBox: [0, -200, 900, 800] as const,
    blueValues: [-10, 0, 500, 510],
    otherBlues: [-210, -200],
    stdHW: 70,
    stdVW: 84,
    defaultWidthX: 500,
    nominalWidthX: 560,
  };
  const box: CffContour = {
    x: 10,
    y: 0,
    segments: [
      [110, 0],
      [110, 50, 90, 90, 60, 120],
    ],
  };
  const table = writeCff(
    info,
    ['.notdef', 'a', 'f_i'],
    [writeCharstring([], undefined), writeCharstring([box], 40), writeCharstring([box, box], undefined)],
  );
  const read = readCff(table);
  expect(read.glyphNames).toEqual(['.notdef', 'a', 'f_i']);
  expect(read.glyphs.map((g) => g.advance)).toEqual([500, 600, 500]);
  expect(read.glyphs[1]!.drawn.contours).toEqual([box]);
  expect(read.glyphs[2]!.drawn.contours).toHaveLength(2);
});

const point = fc.record({ x: coordinate, y: coordinate, on: fc.boolean() });

test('glyf records: points, flags and runs come back', () => {
  fc.assert(
    fc.property(
      fc.array(fc.array(point, { minLength: 3, maxLength: 12 }), { maxLength: 4 }),
      fc.boolean(),
      (contours, overlaps) => {
        const box = { xMin: -9000, yMin: -9000, xMax: 9000, yMax: 9000 };
        const { glyf, loca, indexToLocFormat } = joinGlyphs([
          new Uint8Array(0),
          writeSimpleGlyph(contours, box, overlaps),
        ]);
        const [empty, glyph] = readGlyphs(glyf, loca, indexToLocFormat, 2);
        expect(empty).toMatchObject({ kind: 'simple', contours: [] });
        expect(glyph).toMatchObject({ kind: 'simple', contours });
      },
    ),
  );
});

test('composites keep their offsets and scales; long tables take long offsets', () => {
  const components = [
    { glyph: 3, dx: 5, dy: -7, scale: [1, 0, 0, 1] as const, useMyMetrics: true },
    { glyph: 9, dx: 500, dy: 0, scale: [0.5, 0, 0, 0.5] as const, useMyMetrics: false },
    { glyph: 2, dx: 0, dy: 0, scale: [-1, 0, 0, 1.25] as const, useMyMetrics: false },
    { glyph: 2, dx: 1, dy: 2, scale: [0.5, 0.25, -0.25, 0.5] as const, useMyMetrics: false },
  ];
  const record = writeCompositeGlyph(components, { xMin: 0, yMin: 0, xMax: 1, yMax: 1 }, false);
  const { glyf, loca, indexToLocFormat } = joinGlyphs([record]);
  expect(readGlyphs(glyf, loca, indexToLocFormat, 1)[0]).toMatchObject({ kind: 'composite', components });
  expect(joinGlyphs([new Uint8Array(70000), new Uint8Array(70000)]).indexToLocFormat).toBe(1);
  expect(attempt(() => readGlyphs(new Uint8Array(4), Uint8Array.of(0, 0, 0, 200), 0, 1))).toMatchObject(
    refused(expect.stringContaining('outside the glyf table')),
  );
});

test('contours whose ends fall are refused with table, glyph and place', () => {
  const record = writeSimpleGlyph(
    [0, 100].map((x) => [
      { x, y: 0, on: true },
      { x: x + 50, y: 0, on: true },
      { x, y: 50, on: true },
    ]),
    { xMin: 0, yMin: 0, xMax: 150, yMax: 50 },
    false,
  );
  const { glyf, loca, indexToLocFormat } = joinGlyphs([record]);
  new DataView(glyf.buffer).setUint16(10, 400);
  const read = attempt(() => readGlyphs(glyf, loca, indexToLocFormat, 1));
  expect(read).toEqual(refused('The glyf (glyph 0) table has contours whose last points do not rise, at byte 10.'));
});

test('fractions come back to the nearest 65,536th, wherever along the outline they lie', () => {
  const real = fc.double({ min: -2000, max: 2000, noNaN: true });
  const point = fc.array(real, { minLength: 2, maxLength: 2 });
  const curve = fc.array(real, { minLength: 6, maxLength: 6 });
  fc.assert(
    fc.property(
      fc.tuple(real, real, fc.array(fc.oneof(point, curve), { minLength: 1, maxLength: 60 })),
      ([x, y, segments]) => {
        const [back] = readCharstring(writeCharstring([{ x, y, segments }], undefined), NONE, 'test').contours;
        const all = [x, y, ...segments.flat()];
        const read = [back!.x, back!.y, ...back!.segments.flat()];
        expect(read).toHaveLength(all.length);
        expect(Math.max(...read.map((v, i) => Math.abs(v - all[i]!)))).toBeLessThanOrEqual(1 / 65536);
      },
    ),
    { numRuns: 60, seed: 3 },
  );
});

describe('the fewest bytes', () => {
  /** Bytes of a drawing without its width and end. */
  const bytes = (...segments: number[][]) => writeCharstring([{ x: 0, y: 0, segments }], undefined).length - 3;

  test('a box is one operator, and so is an oval', () => {
    expect(bytes([50, 0], [50, 70], [0, 70])).toBe(4);
    expect(
      bytes([0, 28, 22, 50, 50, 50], [78, 50, 100, 28, 100, 0], [100, -28, 78, -50, 50, -50], [22, -50, 0, -28, 0, 0]),
    ).toBe(17);
  });

  test('a general run takes a level piece along where a new operator would cost more', () => {
    // rlineto with a 0 among its arguments: 6 + 1; three operators would take 4 + 3 more.
    expect(bytes([10, 10], [20, 10], [30, 20])).toBe(7);
    // rlinecurve and rcurveline.
    expect(bytes([10, 10], [20, 30, 40, 50, 60, 61])).toBe(9);
    expect(bytes([20, 30, 40, 50, 60, 61], [70, 80])).toBe(9);
  });

  test('never more than each segment by itself, never more than any way of cutting the run in two', () => {
    fc.assert(
      fc.property(contour, fc.nat(23), ({ x, y, segments }, at) => {
        const size = (from: readonly number[][], startX: number, startY: number) =>
          writeCharstring([{ x: startX, y: startY, segments: from }], undefined).length -
          writeCharstring([{ x: startX, y: startY, segments: [] }], undefined).length;
        const whole = size(segments as number[][], x, y);
        const cut = Math.min(at, segments.length);
        const [head, tail] = [segments.slice(0, cut), segments.slice(cut)] as [number[][], number[][]];
        const end = head.length > 0 ? head[head.length - 1]!.slice(-2) : [x, y];
        expect(whole).toBeLessThanOrEqual(size(head, x, y) + size(tail, end[0]!, end[1]!));
      }),
      { numRuns: 200, seed: 4 },
    );
  });
});

describe('names in a CFF table', () => {
  const info = {
    postScriptName: 'X',
    fullName: 'X',
    familyName: 'X',
    weight: 'X',
    version: '',
    notice: '',
    unitsPerEm: 1000,
    fontBBox: [0, 0, 0, 0],
    blueValues: [],
    otherBlues: [],
    defaultWidthX: 0,
    nominalWidthX: 0,
  } as const;
  const empty = writeCharstring([], undefined);
  const table = (names: readonly string[]) =>
    writeCff(
      info,
      names,
      names.map(() => empty),
    );

  test('any names come back, standard ones or own ones, in any order', () => {
    const word = fc.constantFrom(
      'A',
      'B',
      'C',
      'space',
      'exclam',
      'germandbls',
      'Semibold',
      'own',
      'own.alt',
      'uni1E9E',
      'f_f_i',
      'zcaron',
      'a',
      'b',
      'c',
      'd',
    );
    fc.assert(
      fc.property(fc.uniqueArray(word, { maxLength: 16 }), (names) => {
        const all = ['.notdef', ...names];
        expect(readCff(table(all)).glyphNames).toEqual(all);
      }),
    );
  });

  test('standard names cost no strings', () => {
    const latin = ['.notdef', 'space', ...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'];
    expect(table(latin).length).toBeLessThan(table(latin.map((n) => `${n}.x`)).length - 60);
  });

  test('an accented letter told by two standard codes is drawn of both, the mark moved', () => {
    const box = (x: number, y: number): CffContour => ({
      x,
      y,
      segments: [
        [x + 10, y],
        [x + 10, y + 10],
        [x, y + 10],
      ],
    });
    // adx 30, ady 40, base A (65), mark acute (194), endchar.
    const accented = Uint8Array.of(139 + 30, 139 + 40, 139 + 65, 247, 194 - 108, 14);
    const names = ['.notdef', 'A', 'acute', 'Aacute'];
    const cff = readCff(
      writeCff(info, names, [
        empty,
        writeCharstring([box(0, 0)], undefined),
        writeCharstring([box(5, 50)], undefined),
        accented,
      ]),
    );
    expect(cff.glyphs[3]!.drawn.contours).toEqual([box(0, 0), box(35, 90)]);
  });

  test('codes of the standard encoding', () => {
    expect([32, 65, 126, 127, 161, 177, 181, 194, 208, 225, 251, 255].map(standardSid)).toEqual([
      1, 34, 95, 0, 96, 111, 0, 125, 137, 138, 149, 0,
    ]);
  });
});
