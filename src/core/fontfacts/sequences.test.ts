import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { buildStarter } from '../../../demo/starter';
import { castFont } from '../casting/font';
import { openAny } from '../formats/openFile';
import { cmap, isSymbol, type Variation } from '../opentype/cmap';
import { os2 } from '../opentype/os2';
import { readSfnt } from '../opentype/sfnt';
import type { Project } from '../project/model';
import { defaultMaster, glyphNamed } from '../project/queries';
import { SEQUENCES, sequencesLib, variationSequences } from './sequences';

const starter = buildStarter();
const folder = mkdtempSync(join(tmpdir(), 'wendril-sequences-'));
const cast = (p: Project) => {
  const font = castFont(p, { flavour: 'otf', place: { master: defaultMaster(p).id } });
  if (!font.ok) throw new Error(font.reason);
  return font.value.bytes;
};
const withSequences = (table: Record<string, Record<string, string>>): Project => ({
  ...starter,
  masters: starter.masters.map((m) => ({ ...m, lib: { ...m.lib, [SEQUENCES]: table } })),
});
const shaped = (bytes: Uint8Array, text: string): string[] => {
  const path = join(folder, 'font.otf');
  writeFileSync(path, bytes);
  return (
    JSON.parse(execFileSync(process.execPath, ['scripts/shape.mjs', path, text], { encoding: 'utf8' })) as {
      name: string;
    }[]
  ).map((g) => g.name);
};

test('a character with a selector is set as its own glyph, by HarfBuzz too', () => {
  // The a with the first selector looks like an o here; with the second it is the usual a.
  const bytes = cast(withSequences({ FE00: { '0061': 'o' }, FE01: { '0061': 'a' } }));
  const usual = shaped(bytes, 'ao');
  expect(shaped(bytes, 'a\ufe00')).toEqual([usual[1]]);
  expect(shaped(bytes, 'a\ufe01')).toEqual([usual[0]]);
  expect(shaped(bytes, 'a')).toEqual([usual[0]]);
});

test('sequences go from a font into a project and out again', async () => {
  const table = { FE00: { '0061': 'o', '006E': 'h' }, E0100: { '0041': 'A' } };
  const read = await openAny(cast(withSequences(table)), 'font.otf');
  if (!read.ok) throw new Error(read.reason);
  expect(read.value.notes.join()).toMatch(/3 variation sequences are kept with the font/);
  expect(defaultMaster(read.value.project).lib![SEQUENCES]).toEqual(table);
  expect(cmap.variations(readSfnt(cast(read.value.project)).tables.get('cmap')!)).toHaveLength(3);
});

test('what is no sequence, or names a glyph that is not cast, is passed over', () => {
  const odd = { ...withSequences({ FE00: { '0061': 'o', zz: 'o', '0062': 'nothing' }, selector: { '0061': 'o' } }) };
  const index = new Map(starter.glyphOrder.map((id, i) => [starter.glyphs[id]!.name, i]));
  expect(variationSequences(odd, () => index)).toEqual([{ code: 0x61, selector: 0xfe00, glyph: index.get('o') }]);
  // Nothing is looked up where there is nothing to find.
  expect(
    variationSequences(starter, () => {
      throw new Error('asked');
    }),
  ).toEqual([]);
});

test('any sequences come back from the table; those of the usual glyph are told as such', () => {
  const code = fc.integer({ min: 0x20, max: 0x3ff });
  const sequence = fc.record({
    code,
    selector: fc.constantFrom(0xfe00, 0xfe01, 0xe0100),
    glyph: fc.integer({ min: 1, max: 50 }),
  });
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.tuple(code, fc.integer({ min: 1, max: 50 })), {
        selector: ([c]) => c,
        minLength: 1,
        maxLength: 80,
      }),
      fc.uniqueArray(sequence, { selector: (v) => `${v.code} ${v.selector}`, maxLength: 60 }),
      (pairs, variations) => {
        const map = new Map(pairs);
        const bytes = cmap.write(map, variations);
        expect([...cmap.read(bytes)].sort((a, b) => a[0] - b[0])).toEqual([...map].sort((a, b) => a[0] - b[0]));
        const key = (v: Variation) => `${v.selector} ${v.code} ${v.glyph ?? map.get(v.code)}`;
        expect(cmap.variations(bytes).map(key).sort()).toEqual(variations.map(key).sort());
        for (const v of cmap.variations(bytes))
          expect(v.glyph === undefined).toBe(
            variations.some((w) => w.code === v.code && w.selector === v.selector && map.get(v.code) === w.glyph),
          );
        const names = Array.from({ length: 51 }, (_, i) => `g${i}`);
        const lib = sequencesLib(cmap.variations(bytes), map, names)[SEQUENCES] as
          | Record<string, Record<string, string>>
          | undefined;
        expect(Object.values(lib ?? {}).reduce((n, row) => n + Object.keys(row).length, 0)).toBe(variations.length);
      },
    ),
    { numRuns: 80 },
  );
});

test('a font of symbols says so, and keeps its characters where they are', async () => {
  const [n, o] = ['n', 'o'].map((name) => glyphNamed(starter, name)!);
  const coded = (unicodes: Record<string, number[]>): Project => ({
    ...starter,
    glyphs: Object.fromEntries(
      Object.values(starter.glyphs).map((g) => [g.id, { ...g, unicodes: unicodes[g.id] ?? [] }]),
    ),
  });
  const symbols = coded({ [n!.id]: [0xf021], [o!.id]: [0xf041] });
  const tables = readSfnt(cast(symbols)).tables;
  expect(os2.read(tables.get('OS/2')!).ulCodePageRange1! >>> 0).toBe(0x80000000);
  const map = tables.get('cmap')!;
  const view = new DataView(map.buffer, map.byteOffset);
  const encodings = Array.from({ length: view.getUint16(2) }, (_, i) => [
    view.getUint16(4 + i * 8),
    view.getUint16(6 + i * 8),
  ]);
  expect(encodings).toEqual([
    [0, 3],
    [3, 0],
  ]);
  expect(cmap.read(map).has(0xf021)).toBe(true);
  // Opened again, the plain places below are told too; cast again it is the same kind of font.
  const back = await openAny(cast(symbols), 'symbols.otf');
  if (!back.ok) throw new Error(back.reason);
  expect(isSymbol(cmap.read(readSfnt(cast(back.value.project)).tables.get('cmap')!))).toBe(true);
  expect(
    isSymbol(
      new Map([
        [0xf021, 1],
        [0x41, 2],
      ]),
    ),
  ).toBe(false);
  expect(isSymbol(new Map([[0x21, 1]]))).toBe(false);
});
