import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readMarkAnchors } from './anchorsRead';
import { Reader } from './binary';
import { GLYPH_CLASS, writeGdef } from './gdef';
import { writeGpos } from './gpos';
import { classDef } from './layout/classDef';
import { ligatureMarkLookup, markLookup } from './markPos';

const anchorsAt = (glyphs: readonly number[]) =>
  new Map(glyphs.map((g) => [g, { x: (g * 7) % 900, y: 40 - (g % 300) }]));

test('marks on thousands of bases go into several subtables, and every anchor is read back', () => {
  const bases = anchorsAt(Array.from({ length: 9001 }, (_, i) => i + 10));
  const marks = anchorsAt([2, 5, 7]);
  const [lookup, ...more] = markLookup('base', marks, bases);
  expect(more).toEqual([]);
  expect(lookup!.subtables).toHaveLength(3);
  for (const sub of lookup!.subtables) expect(sub.length).toBeLessThan(65536);
  const gpos = writeGpos([{ tag: 'mark', lookups: [lookup!] }], ['latn'])!;
  const found = readMarkAnchors(gpos, undefined);
  for (const mark of [true, false]) {
    const read = new Map(found.filter((a) => a.mark === mark).map((a) => [a.glyph, { x: a.x, y: a.y }]));
    expect(read).toEqual(new Map([...(mark ? marks : bases)]));
  }
});

test('where either side is empty there is no lookup, and no table of nothing', () => {
  expect(markLookup('base', new Map(), anchorsAt([1]))).toEqual([]);
  expect(markLookup('mark', anchorsAt([1]), new Map())).toEqual([]);
  expect(writeGpos([{ tag: 'mark', lookups: [] }], ['latn'])).toBeUndefined();
  expect(markLookup('mark', anchorsAt([1]), anchorsAt([2]))[0]!.type).toBe(6);
});

test('glyph classes are what was given; carets rise; a set of marks is a coverage of its own', () => {
  const classes = new Map<number, number>([
    [1, GLYPH_CLASS.base],
    [2, GLYPH_CLASS.mark],
    [3, GLYPH_CLASS.mark],
    [9, GLYPH_CLASS.ligature],
  ]);
  const from = new Reader(writeGdef({ classes }), 'GDEF');
  expect([from.uint16(), from.uint16()]).toEqual([1, 0]);
  expect(classDef.read(new Reader(from.bytes.subarray(from.uint16()), 'GDEF'))).toEqual(classes);
  expect([from.uint16(), from.uint16(), from.uint16()]).toEqual([0, 0, 0]);
  const bytes = writeGdef({ classes, carets: new Map([[9, [400, 210]]]), markSets: [[3, 2], [3]] });
  const path = join(mkdtempSync(join(tmpdir(), 'wendril-gdef-')), 'gdef.bin');
  writeFileSync(path, bytes);
  const read = `
from fontTools.ttLib import newTable, TTFont
import json, sys
font = TTFont(); font.setGlyphOrder(['g%d' % i for i in range(20)])
table = newTable('GDEF'); table.decompile(open(sys.argv[1], 'rb').read(), font); t = table.table
print(json.dumps({
  'version': t.Version,
  'classes': t.GlyphClassDef.classDefs,
  'carets': {g: [c.Coordinate for c in l.CaretValue] for g, l in zip(t.LigCaretList.Coverage.glyphs, t.LigCaretList.LigGlyph)},
  'sets': [c.glyphs for c in t.MarkGlyphSetsDef.Coverage],
}))`;
  expect(JSON.parse(execFileSync('/usr/bin/python3', ['-c', read, path], { encoding: 'utf8' }))).toEqual({
    version: 0x10002,
    classes: { g1: 1, g2: 3, g3: 3, g9: 2 },
    carets: { g9: [210, 400] },
    sets: [['g2', 'g3'], ['g3']],
  });
});

test('marks on parts of ligatures are read back part by part', () => {
  const marks = anchorsAt([2, 5]);
  const parts = new Map([
    [30, [{ x: 100, y: 700 }, undefined, { x: 480, y: 690 }]],
    [
      12,
      [
        { x: 90, y: 500 },
        { x: 300, y: 510 },
      ],
    ],
  ]);
  const [lookup] = ligatureMarkLookup(marks, parts);
  expect(lookup!.type).toBe(5);
  const found = readMarkAnchors(writeGpos([{ tag: 'mark', lookups: [lookup!] }], ['latn'])!);
  expect(found.filter((a) => a.mark).map((a) => a.glyph)).toEqual([2, 5]);
  expect(found.filter((a) => !a.mark).map(({ glyph, part, x, y }) => [glyph, part, x, y])).toEqual([
    [12, 1, 90, 500],
    [12, 2, 300, 510],
    [30, 1, 100, 700],
    [30, 3, 480, 690],
  ]);
  expect(ligatureMarkLookup(marks, new Map())).toEqual([]);
});
