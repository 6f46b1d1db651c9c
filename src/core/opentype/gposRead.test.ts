import fc from 'fast-check';
import { Writer } from './binary';
import { cmap } from './cmap';
import { GPOS_EXTENSION, type KernInput, kernLookups, writeGpos } from './gpos';
import { readKerning } from './gposRead';
import { readKernTable } from './kern';
import { writeLayout } from './layout/lists';
import { post } from './post';
import { readIndexMap, regionScalar } from './variations';

const GLYPHS = 24;

/** Groups that share no glyph, as a project has them, and pairs of every kind with values other than 0. */
const input: fc.Arbitrary<KernInput> = fc
  .record({
    first: fc.array(fc.integer({ min: 0, max: 4 }), { minLength: GLYPHS, maxLength: GLYPHS }),
    second: fc.array(fc.integer({ min: 0, max: 4 }), { minLength: GLYPHS, maxLength: GLYPHS }),
    pairs: fc.array(
      fc.tuple(
        fc.boolean(),
        fc.nat(GLYPHS - 1),
        fc.boolean(),
        fc.nat(GLYPHS - 1),
        fc.integer({ min: -200, max: 200 }).filter((v) => v !== 0),
      ),
      { maxLength: 40 },
    ),
  })
  .map(({ first, second, pairs }) => {
    const groups = (of: readonly number[]) =>
      [0, 1, 2, 3].map((g) => of.flatMap((v, glyph) => (v === g ? [glyph] : [])));
    const side = (single: boolean, n: number) => (single ? { glyph: n } : { group: n % 4 });
    const unique = new Map(
      pairs.map(([a, x, b, y, value]) => [
        JSON.stringify([side(a, x), side(b, y)]),
        { first: side(a, x), second: side(b, y), value },
      ]),
    );
    return { firstGroups: groups(first), secondGroups: groups(second), pairs: [...unique.values()] };
  });

/** What a pair of glyphs gets: glyph and glyph first, then glyph and group, group and glyph, group and group. */
function valueFor({ firstGroups, secondGroups, pairs }: KernInput, a: number, b: number): number {
  const is = (
    side: { glyph: number } | { group: number },
    groups: readonly (readonly number[])[],
    glyph: number,
    single: boolean,
  ) =>
    single
      ? 'glyph' in side && side.glyph === glyph
      : 'group' in side && (groups[side.group]?.includes(glyph) ?? false);
  for (const [x, y] of [
    [true, true],
    [true, false],
    [false, true],
    [false, false],
  ] as const) {
    const pair = pairs.find((p) => is(p.first, firstGroups, a, x) && is(p.second, secondGroups, b, y));
    if (pair) return pair.value;
  }
  return 0;
}

test('kerning that is written is read back with the same value for every pair', () => {
  fc.assert(
    fc.property(input, (kern) => {
      const bytes = writeGpos([{ tag: 'kern', lookups: kernLookups(kern) }], ['latn']);
      const read = bytes ? readKerning(bytes, GLYPHS) : { firstGroups: [], secondGroups: [], pairs: [], aside: [] };
      for (let a = 0; a < GLYPHS; a++)
        for (let b = 0; b < GLYPHS; b++) expect([a, b, valueFor(read, a, b)]).toEqual([a, b, valueFor(kern, a, b)]);
      expect(read.aside).toEqual([]);
    }),
    { numRuns: 60 },
  );
});

/** A table in which each script kerns by lookups of its own. */
const bySystems = (lookups: ReturnType<typeof kernLookups>, systems: Readonly<Record<string, readonly number[]>>) =>
  writeLayout(
    {
      scripts: Object.keys(systems).map((tag, i) => ({ tag, usual: { features: [i] }, languages: [] })),
      features: Object.values(systems).map((of) => ({ tag: 'kern', lookups: of })),
      lookups,
    },
    GPOS_EXTENSION,
  );

test('scripts with lookups of their own: a pair has its value once, that of Latin text first, and others are counted', () => {
  const lookup = (...pairs: [number, number, number][]) =>
    kernLookups({
      firstGroups: [],
      secondGroups: [],
      pairs: pairs.map(([first, second, value]) => ({ first: { glyph: first }, second: { glyph: second }, value })),
    });
  const lookups = [
    // Of no script; of Latin, alike in one pair and otherwise in another; of Latin too; of Hebrew.
    ...lookup([1, 2, -50], [3, 4, -30], [5, 6, 7]),
    ...lookup([1, 2, -50], [3, 4, -44]),
    ...lookup([1, 2, -3]),
    ...lookup([9, 8, 12]),
  ];
  const bytes = bySystems(lookups, { DFLT: [0], hebr: [3], latn: [1, 2] });
  const read = readKerning(bytes, GLYPHS);
  const told = (a: number, b: number) => valueFor(read, a, b);
  expect([told(1, 2), told(3, 4), told(5, 6), told(9, 8)]).toEqual([-53, -44, 7, 12]);
  expect(read.aside).toEqual(['what 2 pairs are kerned by in another script or language only']);
});

test('values that vary are held against each other at every place', () => {
  const varying = (inner: number) =>
    kernLookups({
      firstGroups: [],
      secondGroups: [],
      pairs: [
        {
          first: { glyph: 1 },
          second: { glyph: 2 },
          value: { units: -50, device: { kind: 'variation', outer: 0, inner } },
        },
      ],
    });
  const asideOf = (inner: number) => {
    const bytes = bySystems([...varying(0), ...varying(inner)], { DFLT: [0], latn: [1] });
    const read = readKerning(bytes, GLYPHS, (_, i) => [0, i === 2 ? -9 : 20]);
    expect(read.pairs.map((p) => p.varied)).toEqual([[-50, inner === 2 ? -59 : -30]]);
    return read.aside;
  };
  // Two items of the store that say the same, and one that says otherwise away from the default.
  expect(asideOf(1)).toEqual([]);
  expect(asideOf(2)).toEqual(['what one pair is kerned by in another script or language only']);
});

test('a matrix of groups too large for one subtable is spread over several', () => {
  const n = 190;
  const groups = Array.from({ length: n }, (_, i) => [i]);
  const pairs = groups.flatMap((_, i) =>
    groups.map((_, k) => ({ first: { group: i }, second: { group: k }, value: ((i * 7 + k * 3) % 90) - 45 || 1 })),
  );
  const bytes = writeGpos(
    [{ tag: 'kern', lookups: kernLookups({ firstGroups: groups, secondGroups: groups, pairs }) }],
    [],
  )!;
  expect(bytes.length).toBeGreaterThan(65536);
  const read = readKerning(bytes, n);
  const value = new Map(
    read.pairs.map((p) => [
      'group' in p.first && 'group' in p.second
        ? `${read.firstGroups[p.first.group]!.join()} ${read.secondGroups[p.second.group]!.join()}`
        : '',
      p.value,
    ]),
  );
  for (const p of pairs) expect(value.get(`${p.first.group} ${p.second.group}`)).toBe(p.value);
});

test('the old kern table is read in both its forms', () => {
  const pairs = (out: Writer) =>
    out.uint16(2).uint16(0).uint16(0).uint16(0).uint16(5).uint16(6).int16(-30).uint16(5).uint16(9).int16(12).toBytes();
  const windows = pairs(new Writer().uint16(0).uint16(1).uint16(0).uint16(26).uint16(1));
  const apple = pairs(new Writer().uint32(0x00010000).uint32(1).uint32(28).uint16(0).uint16(0));
  for (const bytes of [windows, apple])
    expect([...readKernTable(bytes)].map(([a, row]) => [a, [...row]])).toEqual([
      [
        5,
        [
          [6, -30],
          [9, 12],
        ],
      ],
    ]);
  expect(readKernTable(new Writer().uint16(0).uint16(0).toBytes()).size).toBe(0);
});

test('character maps of every form are read; symbols are found at their plain places too', () => {
  const table = (platform: number, encoding: number, sub: Uint8Array) =>
    new Writer().uint16(0).uint16(1).uint16(platform).uint16(encoding).uint32(12).raw(sub).toBytes();
  const bytes = new Writer().uint16(0).uint16(262).uint16(0);
  for (let i = 0; i < 256; i++) bytes.uint8(i === 65 ? 7 : 0);
  expect([...cmap.read(table(3, 1, bytes.toBytes()))]).toEqual([[65, 7]]);
  expect([
    ...cmap.read(
      table(0, 3, new Writer().uint16(6).uint16(14).uint16(0).uint16(48).uint16(2).uint16(3).uint16(0).toBytes()),
    ),
  ]).toEqual([[48, 3]]);
  expect([
    ...cmap.read(
      table(
        3,
        10,
        new Writer().uint16(10).uint16(0).uint32(24).uint32(0).uint32(0x1f600).uint32(2).uint16(3).uint16(4).toBytes(),
      ),
    ),
  ]).toEqual([
    [0x1f600, 3],
    [0x1f601, 4],
  ]);
  expect([
    ...cmap.read(
      table(
        3,
        10,
        new Writer()
          .uint16(13)
          .uint16(0)
          .uint32(28)
          .uint32(0)
          .uint32(1)
          .uint32(0x100)
          .uint32(0x102)
          .uint32(9)
          .toBytes(),
      ),
    ),
  ]).toEqual([
    [0x100, 9],
    [0x101, 9],
    [0x102, 9],
  ]);
  const symbol = new Writer().uint16(6).uint16(12).uint16(0).uint16(0xf041).uint16(1).uint16(5).toBytes();
  expect([...cmap.read(table(3, 0, symbol))]).toEqual([
    [0xf041, 5],
    [0x41, 5],
  ]);
  const variations = new Writer()
    .uint16(14)
    .uint32(50)
    .uint32(1)
    .uint24(0xfe00)
    .uint32(21)
    .uint32(29)
    .uint32(1)
    .uint24(0x4e00)
    .uint8(1)
    .uint32(1)
    .uint24(0x30)
    .uint16(8)
    .toBytes();
  expect(cmap.variations(table(0, 5, variations))).toEqual([
    { code: 0x4e00, selector: 0xfe00, glyph: undefined },
    { code: 0x4e01, selector: 0xfe00, glyph: undefined },
    { code: 0x30, selector: 0xfe00, glyph: 8 },
  ]);
  expect(() =>
    cmap.read(
      table(
        3,
        10,
        new Writer().uint16(12).uint16(0).uint32(40).uint32(0).uint32(2).uint32(9).uint32(5).uint32(1).toBytes(),
      ),
    ),
  ).toThrow(/damaged group 1/);
});

test('names of the standard set are told by their number', () => {
  const header = {
    version: 0x00020000,
    italicAngle: 0,
    underlinePosition: 0,
    underlineThickness: 0,
    isFixedPitch: 0,
    minMemType42: 0,
    maxMemType42: 0,
    minMemType1: 0,
    maxMemType1: 0,
  };
  const bytes = new Writer().raw(post.write({ ...header, version: 0x00030000, glyphNames: [] })).toBytes();
  new DataView(bytes.buffer).setUint32(0, 0x00020000);
  const full = new Writer()
    .raw(bytes)
    .uint16(4)
    .uint16(0)
    .uint16(36)
    .uint16(257)
    .uint16(258)
    .uint8(2)
    .raw([0x66, 0x69])
    .toBytes();
  expect(post.read(full).glyphNames).toEqual(['.notdef', 'A', 'dcroat', 'fi']);
});

test('regions are weighed as the specification says, and maps of items repeat their last entry', () => {
  expect(regionScalar([[0, 0.5, 1]], [0.75])).toBe(0.5);
  expect(
    regionScalar(
      [
        [0, 1, 1],
        [0, 0, 0],
      ],
      [0.4, 0.9],
    ),
  ).toBeCloseTo(0.4);
  expect(regionScalar([[-1, 0.5, 1]], [0.1])).toBe(1);
  const map = readIndexMap(new Writer().uint8(0).uint8(0x13).uint16(2).uint16(0x12).uint16(0x25).toBytes(), 'HVAR');
  expect([map(0), map(1), map(9)]).toEqual([
    [1, 2],
    [2, 5],
    [2, 5],
  ]);
});
