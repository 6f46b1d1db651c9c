import { zipSync } from 'fflate';
import { attempt, refused } from '../../base/result';
import { pairSides } from '../../project/pairs';
import { glyphNamed } from '../../project/queries';
import { packZip, textFile, unpackZip } from '../fileTree';
import { projectFromFiles } from '../project/projectFile';
import { writePlist } from './plist';
import { imageToPixels } from './projectFromUfo';

/** A small UFO of another program's making, by file. */
function ufo(version: 2 | 3, more: Record<string, string> = {}): Map<string, Uint8Array> {
  const glyph = (name: string, hex: string, body: string) =>
    `<?xml version="1.0" encoding="UTF-8"?>\n<glyph name="${name}" format="${version === 2 ? 1 : 2}"><advance width="600"/><unicode hex="${hex}"/>${body}</glyph>`;
  const files: Record<string, string> = {
    'metainfo.plist': writePlist({ creator: 'org.example', formatVersion: version }),
    'fontinfo.plist': writePlist({
      familyName: 'Orde',
      styleName: 'Book',
      unitsPerEm: 1000,
      xHeight: 510,
      capHeight: 690,
      ascender: 740,
      descender: -210,
      italicAngle: -8,
      versionMajor: 2,
      versionMinor: 14,
      openTypeHeadCreated: '2026/04/12 08:30:00',
      openTypeOS2WinAscent: 900,
      postscriptBlueValues: [-14, 0, 510, 522, 690, 701],
      note: 'kept',
    }),
    'groups.plist': writePlist(
      version === 2
        ? { '@left_o': ['o', 'e'], '@right_o': ['o'], figures: ['one'] }
        : { 'public.kern1.o': ['o', 'e'], 'public.kern2.o': ['o'], figures: ['one'] },
    ),
    'kerning.plist': writePlist(
      version === 2
        ? { '@left_o': { '@right_o': -12, e: 3 }, o: { gone: 9 } }
        : { 'public.kern1.o': { 'public.kern2.o': -12, e: 3 }, o: { gone: 9 } },
    ),
    'features.fea': 'feature kern { } kern;',
    'lib.plist': writePlist({
      'public.glyphOrder': ['e', 'o', 'nothing'],
      'public.skipExportGlyphs': ['e'],
      'public.postscriptNames': { o: 'uni006F' },
      'public.openTypeCategories': { e: 'base' },
      'com.example.tool': { seen: true },
    }),
    'glyphs/contents.plist': writePlist({ o: 'o.glif', e: 'e.glif' }),
    'glyphs/o.glif': glyph(
      'o',
      '006F',
      '<outline><contour><point x="0" y="0" type="line"/><point x="9" y="0" type="line"/><point x="9" y="9" type="line"/></contour></outline>',
    ),
    'glyphs/e.glif': glyph('e', '0065', '<outline><component base="o" xOffset="5"/></outline>'),
    ...more,
  };
  return new Map(Object.entries(files).map(([p, t]) => [`Orde.ufo/${p}`, textFile(t)]));
}

const open = (files: Map<string, Uint8Array>) => {
  const read = projectFromFiles(files, 'Orde.ufo');
  if (!read.ok) throw new Error(read.reason);
  return read.value;
};

test.each([2, 3] as const)('UFO %i: names, order, metrics, date, groups and kerning', (version) => {
  const p = open(ufo(version));
  expect(p.family).toMatchObject({ name: 'Orde', versionMajor: 2, versionMinor: 14 });
  expect(p.glyphOrder.map((id) => p.glyphs[id]!.name)).toEqual(['e', 'o']);
  expect(p.created).toBe(Date.UTC(2026, 3, 12, 8, 30) / 1000);
  const [m] = p.masters;
  expect(m).toMatchObject({ name: 'Book', italicAngle: -8, verticalMetrics: { winAscent: 900 } });
  expect(m!.zones).toMatchObject({
    baseline: { overshoot: -14 },
    xHeight: { position: 510, overshoot: 12 },
    capHeight: { position: 690, overshoot: 11 },
    descender: { position: -210 },
  });
  expect(m!.info).toMatchObject({ note: 'kept' });
  expect(m!.lib).toMatchObject({ 'com.example.tool': { seen: true } });
  expect(glyphNamed(p, 'e')).toMatchObject({ cast: false, category: 'base' });
  expect(glyphNamed(p, 'o')).toMatchObject({ cast: true, productionName: 'uni006F' });
  const o = glyphNamed(p, 'o')!.id;
  const e = glyphNamed(p, 'e')!.id;
  expect(p.groups.map((g) => [g.side, g.members])).toEqual([
    ['first', [o, e]],
    ['second', [o]],
  ]);
  expect(p.features.classes).toEqual({ figures: ['one'] });
  // A pair with a glyph that is not there names nothing.
  const values = Object.entries(m!.kerning).map(([key, v]) => [pairSides(key)!.map((s) => s.kind), v]);
  expect(values).toEqual([
    [['group', 'group'], -12],
    [['group', 'glyph'], 3],
  ]);
  expect(p.features.sections[0]!.text).toBe('feature kern { } kern;');
  expect(glyphNamed(p, 'e')!.drawings.m1!.components).toEqual([{ glyph: o, transform: [1, 0, 0, 1, 5, 0] }]);
});

test('other versions are refused; a glyph of another name than it is listed by opens, and that is told', () => {
  const reason = (more: Record<string, string>) => {
    const r = projectFromFiles(ufo(3, more), 'Orde.ufo');
    return r.ok ? '' : r.reason;
  };
  expect(reason({ 'metainfo.plist': writePlist({ formatVersion: 9 }) })).toBe(
    'Orde.ufo says it is UFO 9; UFO 2 and 3 can be read.',
  );
  const told: string[] = [];
  const listed = ufo(3, { 'glyphs/contents.plist': writePlist({ oo: 'o.glif' }) });
  const read = projectFromFiles(listed, 'Orde.ufo', { tell: (fault) => told.push(fault) });
  expect(read.ok && Object.values(read.value.glyphs).map((g) => g.name)).toEqual(['oo']);
  expect(told).toEqual(['Orde.ufo/glyphs/o.glif names its glyph “o”, but contents.plist calls it “oo”.']);
  expect(reason({ 'kerning.plist': writePlist({ a: { b: 'wide' } }) })).toMatch(/the pair “a”, “b” has no number/);
  expect(reason({ 'groups.plist': writePlist({ g: 'a' }) })).toMatch(/the group “g” is not a list/);
});

test('a picture’s place is turned between the two origins and back', () => {
  const t = [0.5, 0.1, -0.2, 0.6, 12, -30] as const;
  const back = imageToPixels(imageToPixels(t, 400), 400);
  back.forEach((v, i) => {
    expect(v).toBeCloseTo(t[i]!, 9);
  });
});

test('a zip that would grow beyond measure is refused before it is unpacked', () => {
  const honest = packZip(new Map([['a.txt', new Uint8Array(1000)]]));
  expect(unpackZip(honest, 'x.zip').get('a.txt')).toHaveLength(1000);
  const bomb = zipSync({ 'a.txt': new Uint8Array(1000) });
  // The central directory claims 2 GB for the one file.
  const at = bomb.length - 22 - (46 + 5);
  new DataView(bomb.buffer, bomb.byteOffset).setUint32(at + 24, 0x7fffffff, true);
  expect(attempt(() => unpackZip(bomb, 'x.zip'))).toMatchObject(refused('x.zip would unpack to more than 1 GB.'));
  // 100 MB of nothing packs a thousandfold; ten of them do not make it a project.
  const nothing = zipSync({ 'a.txt': new Uint8Array(100 * 1024 * 1024) });
  expect(attempt(() => unpackZip(nothing, 'x.zip'))).toMatchObject(
    refused('x.zip would unpack to more than 200 times its size: it is not a project that anyone drew.'),
  );
});
