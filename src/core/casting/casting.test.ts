import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { buildStarter } from '../../../demo/starter';
import { movePoints } from '../drawing/edits';
import { styleNames } from '../fontfacts/names';
import { codePageBits, unicodeRangeBits } from '../fontfacts/unicodeRanges';
import { signedArea } from '../geometry/contour';
import { areaUnder, asCubic, boundsOf } from '../geometry/curve';
import { closedContour } from '../geometry/testShapes';
import { readCff } from '../opentype/cffRead';
import { cmap } from '../opentype/cmap';
import { readGlyphs } from '../opentype/glyf';
import { head } from '../opentype/head';
import { hhea } from '../opentype/hhea';
import { hmtx } from '../opentype/hmtx';
import { name } from '../opentype/name';
import { FS_SELECTION, os2 } from '../opentype/os2';
import { post } from '../opentype/post';
import { readSfnt, tableOf } from '../opentype/sfnt';
import { createProject } from '../project/create';
import type { Drawing, Glyph, Project } from '../project/model';
import { pairKey } from '../project/pairs';
import { glyphNamed } from '../project/queries';
import { CastCache } from './cache';
import { checkFont } from './checks';
import { type CastFont, castFont } from './font';
import { type Flavour, undrawnCharacters } from './plan';
import { glyfCurves } from './shape';

const folder = mkdtempSync(join(tmpdir(), 'wendril-cast-'));
const demo = buildStarter();

function cast(
  project: Project,
  flavour: Flavour,
  options: { keepOverlaps?: boolean; blanks?: boolean; cache?: CastCache; master?: string } = {},
): CastFont {
  const result = castFont(project, { flavour, place: { master: 'm1' }, ...options });
  if (!result.ok) throw new Error(result.reason);
  return result.value;
}

/** The OpenType sanitizer, as browsers run it on every web font. */
function sanitized(font: CastFont, label: string): string {
  const path = join(folder, label);
  writeFileSync(path, font.bytes);
  const run = spawnSync('ots-sanitize', [path], { encoding: 'utf8' });
  if (run.error) throw run.error;
  return `${run.status} ${run.stderr.trim()} ${run.stdout.trim()}`.replace(/\s+/g, ' ').trim();
}
const CLEAN = '0 File sanitized successfully!';

function shaped(
  font: CastFont,
  text: string,
  ...features: string[]
): { gid: number; name: string; advance: number; path: string }[] {
  const path = join(folder, 'shape.font');
  writeFileSync(path, font.bytes);
  return JSON.parse(
    execFileSync(process.execPath, ['scripts/shape.mjs', path, text, ...features], { encoding: 'utf8' }),
  );
}

const withDrawing = (p: Project, glyph: Glyph, change: Partial<Drawing>): Project => ({
  ...p,
  glyphs: { ...p.glyphs, [glyph.id]: { ...glyph, drawings: { m1: { ...glyph.drawings.m1!, ...change } } } },
});

/** The demo with kerning by pair, group and exception, a composite, and a glyph beyond the first plane. */
function rich(): Project {
  const id = (n: string) => glyphNamed(demo, n)!.id;
  const g = (kind: 'glyph' | 'group', name: string) => ({ kind, id: name });
  const key = pairKey;
  let p: Project = {
    ...demo,
    groups: [
      { id: 'k1', side: 'first', name: 'V', members: [id('V'), id('W'), id('Y')] },
      { id: 'k2', side: 'second', name: 'o', members: [id('o'), id('e'), id('c')] },
      { id: 'k3', side: 'first', name: 'r', members: [id('r')] },
    ],
    masters: [
      {
        ...demo.masters[0]!,
        kerning: {
          [key(g('group', 'k1'), g('group', 'k2'))]: -40,
          [key(g('group', 'k3'), g('group', 'k2'))]: -9,
          [key(g('glyph', id('Y')), g('group', 'k2'))]: -60,
          [key(g('group', 'k1'), g('glyph', id('c')))]: -35,
          [key(g('glyph', id('W')), g('glyph', id('e')))]: -22,
          [key(g('glyph', id('L')), g('glyph', id('T')))]: -50,
        },
      },
    ],
  };
  p = withDrawing(p, glyphNamed(p, 'eacute')!, {
    advance: 548,
    components: [
      { glyph: id('e'), transform: [1, 0, 0, 1, 0, 0] },
      { glyph: id('comma'), transform: [1, 0, 0, 1, 170, 680] },
    ],
  });
  const oslash = glyphNamed(p, 'Oslash')!;
  p = withDrawing(p, oslash, {
    advance: 736,
    components: [
      { glyph: id('O'), transform: [1, 0, 0, 1, 0, 0] },
      { glyph: id('hyphen'), transform: [1.9, 0, 0, 1, -20, 80] },
    ],
  });
  const train = glyphNamed(p, 'arrowright')!;
  return { ...p, glyphs: { ...p.glyphs, [train.id]: { ...train, name: 'u1F682', unicodes: [0x1f682] } } };
}

describe.each(['otf', 'ttf'] as const)('%s', (flavour) => {
  test('passes the sanitizer and our own checks', () => {
    for (const [label, project] of [
      ['demo', demo],
      ['rich', rich()],
      ['new', createProject({ family: 'Orde', characters: [0x61], created: 0 })],
    ] as const) {
      const font = cast(project, flavour);
      expect(sanitized(font, `${label}.${flavour}`)).toBe(CLEAN);
      expect(checkFont(font.bytes).filter((c) => c.severity !== 'fine')).toEqual([]);
    }
  });

  test('reads back to the same outlines, widths and code points', () => {
    const font = cast(demo, flavour, { keepOverlaps: true });
    const { tables } = readSfnt(font.bytes);
    const sfnt = { version: 0, tables };
    const metrics = hmtx.read(
      tableOf(sfnt, 'hmtx'),
      hhea.read(tableOf(sfnt, 'hhea')).numberOfHMetrics,
      font.glyphIds.length,
    );
    const map = cmap.read(tableOf(sfnt, 'cmap'));
    const areas = areasOf(font, flavour);
    font.glyphIds.forEach((id, gid) => {
      const glyph = demo.glyphs[id]!;
      const drawing = glyph.drawings.m1!;
      expect(metrics[gid]!.advanceWidth).toBe(Math.round(drawing.advance));
      for (const code of glyph.unicodes) expect(map.get(code)).toBe(gid);
      const wanted = drawing.contours.reduce((sum, c) => sum + signedArea(c), 0);
      // Whole coordinates and quadratics within half a unit change a letter's area by less than a hundredth of a percent of the em square.
      expect(Math.abs(Math.abs(areas[gid]!) - Math.abs(wanted))).toBeLessThan(900);
    });
    const out = undrawnCharacters(demo);
    const codes = new Set(Object.values(demo.glyphs).flatMap((g) => (out.has(g.id) ? [] : g.unicodes)));
    expect(out.size).toBeGreaterThan(0);
    expect(map.size).toBe(codes.size);
  });

  test('HarfBuzz shapes it as intended, kerning by pair, group and exception', () => {
    const font = cast(rich(), flavour, { blanks: true });
    const advance = (text: string, ...features: string[]) => shaped(font, text, ...features)[0]!.advance;
    const kern = (text: string) => advance(text) - advance(text, 'kern=0');
    expect(kern('Vo')).toBe(-40);
    expect(kern('Wo')).toBe(-40);
    expect(kern('Yo')).toBe(-60);
    expect(kern('Vc')).toBe(-35);
    expect(kern('We')).toBe(-22);
    expect(kern('LT')).toBe(-50);
    expect(kern('ro')).toBe(-9);
    expect(kern('on')).toBe(0);
    expect(shaped(font, 'é\u{1f682}').map((g) => font.glyphIds[g.gid])).toEqual([
      glyphNamed(demo, 'eacute')!.id,
      glyphNamed(demo, 'arrowright')!.id,
    ]);
  });

  test('the same project gives the same bytes, with a warm cache too; one edit recompiles one glyph', () => {
    const cache = new CastCache();
    const first = cast(demo, flavour, { cache });
    expect(cast(buildStarter(), flavour).bytes).toEqual(first.bytes);
    expect(cast(demo, flavour, { cache }).bytes).toEqual(first.bytes);
    const n = glyphNamed(demo, 'n')!;
    const moved = movePoints(demo, { at: { glyph: n.id, master: 'm1' }, points: ['0:0'], dx: 7, dy: 0 });
    if (!moved.ok) throw new Error(moved.reason);
    const warm = cast(moved.project, flavour, { cache });
    expect(warm.bytes).toEqual(cast(moved.project, flavour).bytes);
    expect(warm.bytes).not.toEqual(first.bytes);
  });
});

/** Signed area of every glyph as the font's bytes draw it. */
function areasOf(font: CastFont, flavour: Flavour): number[] {
  const { tables } = readSfnt(font.bytes);
  const sum = (contours: readonly (readonly (readonly number[])[])[]) =>
    contours.reduce((total, curves) => total + curves.reduce((t, c) => t + areaOfCurve(c), 0), 0);
  if (flavour === 'otf') {
    return readCff(tables.get('CFF ')!).glyphs.map(({ drawn }) =>
      sum(
        drawn.contours.map((c) => {
          let x = c.x;
          let y = c.y;
          const curves = c.segments.map((s) => {
            const curve = [x, y, ...s];
            x = s[s.length - 2]!;
            y = s[s.length - 1]!;
            return curve;
          });
          return [...curves, [x, y, c.x, c.y]];
        }),
      ),
    );
  }
  const { indexToLocFormat } = head.read(tables.get('head')!);
  return readGlyphs(tables.get('glyf')!, tables.get('loca')!, indexToLocFormat, font.glyphIds.length).map((g) =>
    g.kind === 'simple' ? sum(g.contours.map((c) => [...glyfCurves(c)])) : 0,
  );
}

const areaOfCurve = (c: readonly number[]) => areaUnder(asCubic(c));

test('outlines of any shape survive the sanitizer', () => {
  fc.assert(
    fc.property(fc.array(closedContour, { minLength: 1, maxLength: 4 }), (contours) => {
      const p = withDrawing(demo, glyphNamed(demo, 'n')!, { contours });
      for (const flavour of ['otf', 'ttf'] as const)
        expect(sanitized(cast(p, flavour, { keepOverlaps: true }), `any.${flavour}`)).toBe(CLEAN);
    }),
    { numRuns: 12 },
  );
});

test('bounding boxes are exact: no smaller and no larger than the curves', () => {
  const font = cast(demo, 'ttf', { keepOverlaps: true });
  const { tables } = readSfnt(font.bytes);
  const records = readGlyphs(
    tables.get('glyf')!,
    tables.get('loca')!,
    head.read(tables.get('head')!).indexToLocFormat,
    font.glyphIds.length,
  );
  for (const record of records) {
    if (record.kind !== 'simple' || record.contours.length === 0) continue;
    const box = boundsOf(record.contours.flatMap((c) => [...glyfCurves(c)]));
    expect(record.box).toEqual({
      xMin: Math.floor(box.xMin),
      yMin: Math.floor(box.yMin),
      xMax: Math.ceil(box.xMax),
      yMax: Math.ceil(box.yMax),
    });
  }
});

test('components stay components in TrueType, unless parts overlap', () => {
  const font = cast(rich(), 'ttf');
  const { tables } = readSfnt(font.bytes);
  const records = readGlyphs(
    tables.get('glyf')!,
    tables.get('loca')!,
    head.read(tables.get('head')!).indexToLocFormat,
    font.glyphIds.length,
  );
  const of = (n: string) => records[font.glyphIds.indexOf(glyphNamed(demo, n)!.id)]!;
  expect(of('eacute')).toMatchObject({
    kind: 'composite',
    components: [
      { dx: 0, dy: 0 },
      { dx: 170, dy: 680 },
    ],
  });
  expect(of('Oslash')).toMatchObject({ kind: 'simple' });
  const kept = cast(rich(), 'ttf', { keepOverlaps: true });
  const keptTables = readSfnt(kept.bytes).tables;
  const keptRecords = readGlyphs(
    keptTables.get('glyf')!,
    keptTables.get('loca')!,
    head.read(keptTables.get('head')!).indexToLocFormat,
    kept.glyphIds.length,
  );
  expect(keptRecords[kept.glyphIds.indexOf(glyphNamed(demo, 'Oslash')!.id)]).toMatchObject({ kind: 'composite' });
});

test('overlaps are removed unless kept: m is drawn of two parts', () => {
  const m = glyphNamed(demo, 'm')!;
  const contours = (keepOverlaps: boolean) => {
    const font = cast(demo, 'otf', { keepOverlaps });
    return readCff(readSfnt(font.bytes).tables.get('CFF ')!).glyphs[font.glyphIds.indexOf(m.id)]!.drawn.contours.length;
  };
  expect(contours(true)).toBe(2);
  expect(contours(false)).toBe(1);
});

test('characters that no master has drawn are left out and named, or stand as blanks where one wants them', () => {
  const out = [...undrawnCharacters(demo)].map((id) => demo.glyphs[id]!);
  expect(out.map((g) => g.name)).not.toContain('space');
  const font = cast(demo, 'otf');
  expect(font.glyphIds).not.toEqual(expect.arrayContaining(out.map((g) => g.id)));
  const note = font.notes.find((n) => n.reason.startsWith('Not drawn yet'))!;
  for (const g of out) expect(note.reason).toContain(String.fromCodePoint(g.unicodes[0]!));
  const blanks = cast(demo, 'otf', { blanks: true });
  expect(blanks.glyphIds.length).toBe(font.glyphIds.length + out.length);
  expect(blanks.notes.some((n) => n.reason.startsWith('Not drawn yet'))).toBe(false);
});

test('quadratics are within half a unit, and the figure is told', () => {
  const font = cast(demo, 'ttf');
  expect(font.quadraticError).toBeGreaterThan(0.1);
  expect(font.quadraticError).toBeLessThanOrEqual(0.5);
});

test('OS/2, head, hhea and post agree with each other and with the master', () => {
  const { tables } = readSfnt(cast(demo, 'ttf').bytes);
  const o = os2.read(tables.get('OS/2')!);
  const h = hhea.read(tables.get('hhea')!);
  const f = head.read(tables.get('head')!);
  expect(o).toMatchObject({
    version: 4,
    usWeightClass: 400,
    usWidthClass: 5,
    achVendID: 'VLMR',
    sxHeight: 520,
    sCapHeight: 700,
    sTypoAscender: h.ascender,
    sTypoDescender: h.descender,
    sTypoLineGap: 0,
    usFirstCharIndex: 0x20,
    usBreakChar: 32,
  });
  expect(h.ascender).toBeGreaterThanOrEqual(742);
  expect(h.descender).toBeLessThanOrEqual(-204);
  expect(h.lineGap).toBe(0);
  expect(o.usWinAscent!).toBeGreaterThanOrEqual(f.yMax);
  expect(o.usWinDescent!).toBeGreaterThanOrEqual(-f.yMin);
  expect(o.fsSelection! & FS_SELECTION.USE_TYPO_METRICS).toBeTruthy();
  expect(o.fsSelection! & FS_SELECTION.REGULAR).toBeTruthy();
  expect(f.created).toBe(demo.created + 2082844800);
  const out = undrawnCharacters(demo);
  const advances = Object.values(demo.glyphs)
    .filter((g) => !out.has(g.id))
    .map((g) => g.drawings.m1!.advance)
    .filter((a) => a > 0);
  expect(o.xAvgCharWidth).toBe(Math.round(advances.reduce((a, b) => a + b, 0) / advances.length));
  expect(post.read(tables.get('post')!).glyphNames).toContain('ampersand');
});

test('Unicode ranges and code pages', () => {
  const latin = Array.from({ length: 94 }, (_, i) => 0x21 + i);
  expect(unicodeRangeBits(latin)).toEqual([1, 0, 0, 0]);
  expect(unicodeRangeBits([0x41, 0xe9, 0x105, 0x411, 0x20ac, 0x1f682])).toEqual([
    1 | 2 | 4 | (1 << 9),
    (1 << 1) | (1 << 25),
    0,
    0,
  ]);
  expect(codePageBits(new Set([...latin, 0xde]))).toEqual([1, 0]);
  expect(codePageBits(new Set([...latin, 0xde, 0x13d, 0x411]))).toEqual([0b111, 0]);
  expect(codePageBits(new Set([0x41]))).toEqual([1, 0]);
});

test('names follow from family and style, and style links hold four members', () => {
  const named = (style: string) => styleNames(demo, { ...demo.masters[0]!, name: style });
  expect(named('Regular')).toMatchObject({
    linkedFamily: 'Velmarrow Sans',
    linkedStyle: 'Regular',
    postScriptName: 'VelmarrowSans-Regular',
    fullName: 'Velmarrow Sans Regular',
    weightClass: 400,
  });
  expect(named('Bold')).toMatchObject({
    linkedFamily: 'Velmarrow Sans',
    linkedStyle: 'Bold',
    weightClass: 700,
    macStyle: 1,
  });
  expect(named('Bold Italic')).toMatchObject({ linkedStyle: 'Bold Italic', macStyle: 3 });
  expect(named('Light Narrow')).toMatchObject({
    linkedFamily: 'Velmarrow Sans Light Narrow',
    linkedStyle: 'Regular',
    weightClass: 300,
    widthClass: 3,
  });
  expect(named('Semi Bold Italic')).toMatchObject({
    linkedFamily: 'Velmarrow Sans Semi Bold',
    linkedStyle: 'Italic',
    weightClass: 600,
  });
  const light: Project = { ...demo, masters: [{ ...demo.masters[0]!, name: 'Light' }] };
  const records = name.read(readSfnt(cast(light, 'otf').bytes).tables.get('name')!);
  const value = (id: number) => records.find((r) => r.nameID === id)?.value;
  expect([value(1), value(2), value(4), value(5), value(6), value(16), value(17)]).toEqual([
    'Velmarrow Sans Light',
    'Regular',
    'Velmarrow Sans Light',
    'Version 1.000',
    'VelmarrowSans-Light',
    'Velmarrow Sans',
    'Light',
  ]);
});

test('the checks find what is wrong with a damaged file', () => {
  const bytes = cast(demo, 'ttf').bytes;
  const failing = (b: Uint8Array) =>
    checkFont(b)
      .filter((c) => c.severity !== 'fine')
      .map((c) => c.title);
  const flipped = bytes.slice();
  flipped[flipped.length - 9]! ^= 0xff;
  expect(failing(flipped)).toContain('Checksum');
  expect(failing(bytes.slice(0, bytes.length - 300))).toEqual(['File']);
});
