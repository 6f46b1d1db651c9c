import fc from 'fast-check';
import { Writer } from './binary';
import { SFNT_TRUETYPE, tableSizes, writeSfnt } from './sfnt';
import { jointNames, readStat, type Style, writeStat } from './stat';

const numbers = fc.integer({ min: -4000, max: 4000 });
const place = (most: number) =>
  fc.record({ axis: fc.nat(2), numbers: fc.array(numbers, { minLength: 1, maxLength: most }) });
const value = fc.record({
  nameID: fc.integer({ min: 256, max: 900 }),
  flags: fc.constantFrom(0, 1, 2, 3),
  places: fc.oneof(
    place(3).map((p) => [p]),
    fc.tuple(place(1), place(1)).filter(([a, b]) => a.axis !== b.axis),
  ),
});
const style = fc.array(value, { maxLength: 8 }).map(
  (values): Style => ({
    axes: ['wght', 'wdth', 'ital'].map((tag, ordering) => ({ tag, nameID: 256 + ordering, ordering })),
    values,
    elidedFallbackNameID: 2,
  }),
);

test('named places that are written are read: those of one axis with ranges and links, those of several by their names', () => {
  fc.assert(
    fc.property(style, (given) => {
      const bytes = writeStat(given);
      const single = given.values.filter((v) => v.places.length === 1);
      expect(readStat(bytes)).toEqual(
        single.map(({ nameID, flags, places: [p] }) => {
          const [own, second, third] = p!.numbers;
          return {
            tag: given.axes[p!.axis]!.tag,
            nameID,
            value: own,
            ...(third === undefined ? {} : { minimum: second, maximum: third }),
            ...(third === undefined && second !== undefined ? { linked: second } : {}),
            elidable: (flags & 2) !== 0,
            older: (flags & 1) !== 0,
          };
        }),
      );
      expect(jointNames(bytes)).toEqual(given.values.filter((v) => v.places.length > 1).map((v) => v.nameID));
    }),
  );
});

test('a table that is cut short is refused by name, wherever it is cut', () => {
  const whole = writeStat({
    axes: [{ tag: 'wght', nameID: 256, ordering: 0 }],
    values: [
      { nameID: 257, flags: 0, places: [{ axis: 0, numbers: [400, 300, 500] }] },
      {
        nameID: 258,
        flags: 0,
        places: [
          { axis: 0, numbers: [1] },
          { axis: 0, numbers: [2] },
        ],
      },
    ],
    elidedFallbackNameID: 2,
  });
  for (let length = 0; length < 30; length++) {
    expect(() => readStat(whole.slice(0, length))).toThrow(/STAT/);
    expect(() => jointNames(whole.slice(0, length))).toThrow(/STAT/);
  }
});

test('sizes of tables are told by their tags', () => {
  const tables = new Map([
    ['head', new Uint8Array(54)],
    ['name', new Writer().uint16(0).toBytes()],
    ['glyf', new Uint8Array(7)],
  ]);
  expect(tableSizes(writeSfnt(SFNT_TRUETYPE, tables))).toEqual({ head: 54, name: 2, glyf: 7 });
});
