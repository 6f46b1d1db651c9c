import fc from 'fast-check';
import { attempt, refused } from '../base/result';
import { cmap } from './cmap';
import { head } from './head';
import { hhea } from './hhea';
import { hmtx } from './hmtx';
import { maxp } from './maxp';
import { type NameRecord, name } from './name';
import { os2 } from './os2';
import { post } from './post';
import { checksumOf, readSfnt, SFNT_TRUETYPE, writeSfnt } from './sfnt';
import { int16, uint16, uint32 } from './testShapes';

const numbers = (count: number) => fc.array(uint16, { minLength: count, maxLength: count });

test('head, hhea and OS/2 come back byte for byte', () => {
  const cases = [
    { table: head, size: 54 },
    { table: hhea as unknown as typeof head, size: 36 },
    { table: os2 as unknown as typeof head, size: 96, start: [0, 4] },
  ];
  for (const { table, size, start = [] } of cases) {
    fc.assert(
      fc.property(fc.uint8Array({ minLength: size, maxLength: size }), (raw) => {
        const bytes = raw.map((b, i) => start[i] ?? b);
        if (table === head) bytes.fill(0, 20, 36);
        if ((table as unknown) === os2) for (let i = 58; i < 62; i++) bytes[i] = 65 + (bytes[i]! % 26);
        expect([...table.write(table.read(bytes))]).toEqual([...bytes]);
      }),
      { numRuns: 40 },
    );
  }
});

test('maxp in both versions', () => {
  expect(maxp.read(maxp.write({ version: maxp.VERSION_CFF, numGlyphs: 77 }))).toEqual({
    version: maxp.VERSION_CFF,
    numGlyphs: 77,
  });
  fc.assert(
    fc.property(numbers(14), (n) => {
      const bytes = new Uint8Array(32);
      const view = new DataView(bytes.buffer);
      view.setUint32(0, maxp.VERSION_TRUETYPE);
      n.forEach((v, i) => {
        view.setUint16(4 + i * 2, v);
      });
      expect([...maxp.write(maxp.read(bytes))]).toEqual([...bytes]);
    }),
  );
});

test('hmtx writes a run of equal advances once and reads them back', () => {
  fc.assert(
    fc.property(
      fc.array(fc.record({ advanceWidth: fc.integer({ min: 0, max: 3 }), lsb: int16 }), {
        minLength: 1,
        maxLength: 30,
      }),
      (metrics) => {
        const count = hmtx.count(metrics);
        const bytes = hmtx.write(metrics);
        expect(bytes.length).toBe(count * 4 + (metrics.length - count) * 2);
        expect(hmtx.read(bytes, count, metrics.length)).toEqual(metrics);
      },
    ),
  );
});

test('cmap leads every code point to its glyph, within and beyond the first plane', () => {
  const map = fc.array(
    fc.tuple(
      fc.oneof(
        fc.integer({ min: 1, max: 0x2ff }),
        fc.integer({ min: 0xff00, max: 0xfffe }),
        fc.integer({ min: 0x10000, max: 0x10ffff }),
      ),
      fc.integer({ min: 1, max: 65000 }),
    ),
    { minLength: 1, maxLength: 80 },
  );
  fc.assert(
    fc.property(map, (entries) => {
      const wanted = new Map(entries);
      expect([...cmap.read(cmap.write(wanted))].sort()).toEqual([...wanted].sort());
    }),
  );
});

test('name keeps every record, equal strings stored once', () => {
  const record = fc.record({
    platformID: fc.constant(3),
    encodingID: fc.constant(1),
    languageID: fc.constantFrom(0x409, 0x407),
    nameID: fc.integer({ min: 0, max: 25 }),
    value: fc.constantFrom('Velmarrow', 'Żurawka', 'Île-aux-Merles', ''),
  });
  fc.assert(
    fc.property(fc.uniqueArray(record, { selector: (r: NameRecord) => `${r.languageID} ${r.nameID}` }), (records) => {
      const read = name.read(name.write(records));
      expect(new Set(read.map((r) => JSON.stringify(r)))).toEqual(new Set(records.map((r) => JSON.stringify(r))));
    }),
  );
});

test('post carries glyph names for TrueType and none for CFF', () => {
  const base = {
    italicAngle: -9.5,
    underlinePosition: -100,
    underlineThickness: 50,
    isFixedPitch: 0,
    minMemType42: 0,
    maxMemType42: 0,
    minMemType1: 0,
    maxMemType1: 0,
  };
  const glyphNames = ['.notdef', 'space', 'a', 'f_f_i'];
  expect(post.read(post.write({ ...base, version: 0x00020000, glyphNames }))).toEqual({
    ...base,
    version: 0x00020000,
    glyphNames,
  });
  expect(post.write({ ...base, version: 0x00030000, glyphNames })).toHaveLength(32);
});

test('a font file adds up and gives its tables back', () => {
  fc.assert(
    fc.property(
      fc.uint8Array({ minLength: 0, maxLength: 50 }),
      fc.uint8Array({ minLength: 1, maxLength: 9 }),
      uint32,
      (a, b, seed) => {
        const headTable = new Uint8Array(54).fill(seed & 255);
        headTable.fill(0, 8, 12);
        const file = writeSfnt(
          SFNT_TRUETYPE,
          new Map([
            ['head', headTable],
            ['glyf', a],
            ['loca', b],
          ]),
        );
        expect(checksumOf(file)).toBe(0xb1b0afba);
        const { tables } = readSfnt(file);
        expect([...tables.keys()]).toEqual(['glyf', 'head', 'loca']);
        expect([...tables.get('glyf')!]).toEqual([...a]);
        expect([...tables.get('loca')!]).toEqual([...b]);
      },
    ),
  );
});

test('what is no font, or is cut short, is refused with a sentence', () => {
  const refusal = (bytes: Uint8Array) => {
    const r = attempt(() => readSfnt(bytes));
    return r.ok ? '' : r.reason;
  };
  expect(refusal(new Uint8Array(0))).toMatch(/not an OpenType/);
  expect(refusal(new TextEncoder().encode('<!doctype html> hello'))).toMatch(/not an OpenType/);
  const file = writeSfnt(
    SFNT_TRUETYPE,
    new Map([
      ['head', new Uint8Array(54)],
      ['glyf', new Uint8Array(400)],
    ]),
  );
  expect(refusal(file.slice(0, 300))).toMatch(/table should end at byte \d+, but the file ends at byte 300/);
  expect(attempt(() => hhea.read(new Uint8Array(10)))).toMatchObject(
    refused(expect.stringContaining('hhea table ends at byte 10')),
  );
});
