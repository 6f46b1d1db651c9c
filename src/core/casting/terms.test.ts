import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import { cmap } from '../opentype/cmap';
import { name } from '../opentype/name';
import { os2 } from '../opentype/os2';
import { readSfnt, tableOf } from '../opentype/sfnt';
import type { CastTerms, Project } from '../project/model';
import { setStyleName } from '../project/styleNameEdits';
import { shapedByHarfBuzz } from '../testing/shaping';
import { checkFont } from './checks';
import { castOutputs, type Format, PLAIN_TERMS, plannedFiles } from './outputs';
import { subsetOf } from './subset';
import { thingsOf } from './things';
import { unicodeRange, webParts } from './webParts';

const demo = readyDemo();
const main = [{ master: 'm1' }];

async function cast(terms: Partial<CastTerms>, formats: Format[] = ['otf'], of: Project = demo) {
  const made = await castOutputs(of, { formats, things: main, terms: { ...PLAIN_TERMS, ...terms } });
  if (!made.ok) throw new Error(made.reason);
  return made.value;
}
const one = async (terms: Partial<CastTerms>, formats: Format[] = ['otf'], of: Project = demo) => {
  const [file] = await cast(terms, formats, of);
  const font = readSfnt(file!.font.bytes);
  return {
    ...file!,
    table: (tag: string) => tableOf(font, tag),
    has: (tag: string) => font.tables.has(tag),
    characters: cmap.read(tableOf(font, 'cmap')),
    names: file!.font.glyphIds.map((g) => of.glyphs[g]?.name ?? '.notdef'),
  };
};
const text = (codes: Iterable<number>) => [...codes].map((c) => String.fromCodePoint(c)).join('');

test('a font of a list has its characters, what rules make of them, and nothing else', async () => {
  const settings = { ...demo.settings, lists: [{ name: 'Few', text: 'a b c f i É 1' }] };
  const few = await one({ glyphs: { list: 'Few' } }, ['otf'], { ...demo, settings });
  const plain = await one({});
  expect(text([...few.characters.keys()].sort((a, b) => a - b)).trim()).toBe('1abcfi\u00a0É');
  // Ligatures and small capitals of what there is come along; those of what there is not do not.
  expect(few.names).toContain('f_i');
  expect(few.names).toContain('a.sc');
  expect(few.names).not.toContain('d.sc');
  expect(few.names).not.toContain('d');
  // Rules that name what is left out say nothing of it.
  expect(few.font.notes.filter((n) => n.place?.table === 'GSUB')).toEqual([]);
  expect(few.bytes.length).toBeLessThan(plain.bytes.length / 3);
  expect(checkFont(few.bytes).filter((c) => c.severity !== 'fine')).toEqual([]);
  const [own, whole] = shapedByHarfBuzz([
    { bytes: few.bytes, texts: ['fiÉab'] },
    { bytes: plain.bytes, texts: ['fiÉab'] },
  ]);
  expect(own![0]!.map((g) => [few.names[g.gid], g.x])).toEqual(whole![0]!.map((g) => [plain.names[g.gid], g.x]));
});

test('a font of languages writes them, and says so of a language that is not known', async () => {
  const polish = await one({ glyphs: { languages: ['pl'] } });
  for (const c of 'zażółćgęśląjaźń0123456789.,„”') expect(polish.characters.has(c.codePointAt(0)!)).toBe(true);
  expect(polish.characters.has('ř'.codePointAt(0)!)).toBe(false);
  const none = await castOutputs(demo, {
    formats: ['otf'],
    things: main,
    terms: { ...PLAIN_TERMS, glyphs: { languages: ['xx'] } },
  });
  expect(none).toMatchObject({ ok: false, reason: 'No language is known as “xx”.' });
  const gone = await plannedFiles(demo, {
    formats: ['otf'],
    things: main,
    terms: { ...PLAIN_TERMS, glyphs: { list: 'Gone' } },
  });
  expect(gone).toMatchObject({ ok: false, reason: 'The project has no list “Gone” any more.' });
});

test('whatever characters are kept, text of them is set as in the whole font', () => {
  const letters = [...new Set(Object.values(demo.glyphs).flatMap((g) => g.unicodes))].filter((c) => c > 0x20);
  fc.assert(
    fc.property(fc.shuffledSubarray(letters, { minLength: 3, maxLength: 40 }), (codes) => {
      const own = subsetOf(demo, { codes: new Set(codes), names: new Set() });
      const cast = Object.values(own.glyphs).filter((g) => g.cast);
      const has = new Set(cast.flatMap((g) => g.unicodes));
      const wanted = codes.filter((c) => Object.values(demo.glyphs).some((g) => g.cast && g.unicodes.includes(c)));
      expect(wanted.filter((c) => !has.has(c))).toEqual([]);
      expect([...has].filter((c) => !codes.includes(c) && c !== 0x20 && c !== 0xa0)).toEqual([]);
    }),
    { numRuns: 12 },
  );
});

test('features that are left out are not in the font, their lines and all others are', async () => {
  const sections = [
    {
      id: 'x',
      title: 'Own',
      text: 'feature ss01 {\n lookup shared { sub a by b; } shared;\n} ss01;\nfeature ss02 { lookup shared; sub o by e; } ss02;',
      options: {},
    },
  ];
  const own = { ...demo, features: { ...demo.features, sections } };
  const fonts = await Promise.all(
    [[], ['ss01'], ['ss02'], ['kern']].map((without) => one(without.length > 0 ? { without } : {}, ['otf'], own)),
  );
  const set = shapedByHarfBuzz(
    fonts.flatMap(({ bytes }) =>
      [['ss01=1'], ['ss02=1']].map((features) => ({ bytes, texts: ['ao', 'AV'], features })),
    ),
  ).map((lines, i) => lines[0]!.map((g) => fonts[i >> 1]!.names[g.gid]).join(''));
  expect(set).toEqual(['bo', 'be', 'ao', 'be', 'bo', 'ao', 'bo', 'be']);
  const kerned = shapedByHarfBuzz(fonts.map(({ bytes }) => ({ bytes, texts: ['AV'] }))).map(([l]) => l![0]!.advance);
  const width = demo.glyphs[fonts[0]!.font.glyphIds[fonts[0]!.names.indexOf('A')]!]!.drawings.m1!.advance;
  expect(kerned[0]).toBeLessThan(width);
  expect(kerned[3]).toBe(width);
  expect(fonts.flatMap((f) => f.font.notes.map((n) => n.reason)).filter((n) => n.includes('line'))).toEqual([]);
});

test('hints, permissions, lines and symbols are as the terms say', async () => {
  const plain = await one({});
  const bare = await one({ unhinted: true });
  expect(bare.table('CFF ').length).toBeLessThan(plain.table('CFF ').length);
  expect(bare.font.glyphIds).toEqual(plain.font.glyphIds);
  for (const [embedding, fsType] of [
    ['free', 0],
    ['edit', 8],
    ['view', 4],
    ['none', 2],
  ] as const)
    expect(os2.read((await one({ embedding })).table('OS/2')).fsType).toBe(fsType);
  const lined = os2.read((await one({ lines: { ascender: 900, descender: -300, gap: 40 } })).table('OS/2'));
  expect([lined.sTypoAscender, lined.sTypoDescender, lined.sTypoLineGap]).toEqual([900, -300, 40]);
  const symbols = await one({ symbol: true });
  expect([...symbols.characters.keys()].every((c) => c >= 0xf020 && c <= 0xf0ff)).toBe(true);
  expect(symbols.said).toEqual([expect.stringContaining('not reached in it')]);
});

test('masters that disagree keep one drawing, or nothing is made, as one chooses', async () => {
  const o = Object.values(demo.glyphs).find((g) => g.name === 'o')!;
  const drawing = o.drawings.m2!;
  const odd: Project = {
    ...demo,
    glyphs: {
      ...demo.glyphs,
      [o.id]: { ...o, drawings: { ...o.drawings, m2: { ...drawing, contours: drawing.contours.slice(1) } } },
    },
  };
  const { variable } = thingsOf(odd);
  const made = await castOutputs(odd, { formats: ['ttf'], things: variable });
  expect(made.ok && made.value[0]!.font.notes.map((n) => n.reason)).toEqual(
    expect.arrayContaining([expect.stringContaining('keeps the default’s drawing: o')]),
  );
  const stopped = await castOutputs(odd, {
    formats: ['ttf'],
    things: variable,
    terms: { ...PLAIN_TERMS, mustAgree: true },
  });
  expect(stopped).toMatchObject({
    ok: false,
    reason: expect.stringMatching(/do not agree in one glyph: o\. Masters, Agreement/),
  });
});

test('web fonts in parts have every character once, each part its own, under ranges that say so', async () => {
  const files = await cast({ parts: true }, ['woff', 'ttf']);
  const parts = webParts(demo);
  expect(files.map((f) => f.fileName).sort()).toEqual(
    [...parts.map((p) => `VelmarrowSans-Regular-${p.name}.woff`), 'VelmarrowSans-Regular.ttf'].sort(),
  );
  const all = Object.values(demo.glyphs).flatMap((g) => (g.cast ? g.unicodes : []));
  const ranges = files
    .flatMap((f) => f.range ?? [])
    .join(', ')
    .split(', ')
    .flatMap((r) => {
      const [from, to = from] = r
        .slice(2)
        .split('-')
        .map((h) => Number.parseInt(h!, 16));
      return Array.from({ length: to! - from! + 1 }, (_, i) => from! + i);
    });
  expect(ranges.sort((a, b) => a - b)).toEqual([...new Set(all)].sort((a, b) => a - b));
  for (const f of files) {
    const has = cmap.read(tableOf(readSfnt(f.font.bytes), 'cmap'));
    const part = parts.find((p) => f.fileName.endsWith(`-${p.name}.woff`));
    if (part)
      expect([
        f.fileName,
        [...part.has.codes].filter((c) => c >= 0x400 && !has.has(c) && all.includes(c)).length <= 200,
      ]).toEqual([f.fileName, true]);
  }
  expect(unicodeRange([0x41, 0x42, 0x43, 0x61])).toBe('U+0041-0043, U+0061');
});

test('names that are set outright stand in the font, and follow again when they are emptied', async () => {
  const set = (of: Project, value: string) => {
    const out = setStyleName(of, { master: 'm1', fact: 'postscriptFontName', value });
    if (!out.ok) throw new Error(out.reason);
    return out.project;
  };
  const ps = async (of: Project) =>
    name.read((await one({}, ['otf'], of)).table('name')).find((r) => r.nameID === 6)!.value;
  const own = set(demo, 'Velmarrow-Own');
  expect(await ps(own)).toBe('Velmarrow-Own');
  expect(await ps(set(own, ''))).toBe(await ps(demo));
  const instance = setStyleName(demo, { instance: 0, fact: 'openTypeNamePreferredSubfamilyName', value: 'Thinnest' });
  const made = instance.ok
    ? await plannedFiles(instance.project, { formats: ['otf'], things: [{ instance: 0 }] })
    : undefined;
  expect(made).toEqual({ ok: true, value: ['VelmarrowSans-Thinnest.otf'] });
  expect(setStyleName(demo, { master: 'm1', fact: 'postscriptFontName', value: 'x'.repeat(64) })).toMatchObject({
    ok: false,
    reason: 'PostScript name has at most 63 characters.',
  });
});
