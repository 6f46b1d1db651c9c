import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildUnspaced } from '../../../../demo/family';
import { buildStarter } from '../../../../demo/starter';
import { mutated } from '../../../../fuzz/mutate';
import { refused } from '../../base/result';
import { castFont } from '../../casting/font';
import { undrawnCharacters } from '../../casting/plan';
import { movePoints } from '../../drawing/edits';
import { type Contour, curvesOf, signedArea } from '../../geometry/contour';
import { boundsOf } from '../../geometry/curve';
import { Writer } from '../../opentype/binary';
import { readSfnt, writeSfnt } from '../../opentype/sfnt';
import { fromWoff, toWoff } from '../../opentype/woff';
import { emptyDrawing } from '../../project/create';
import { addGlyphs } from '../../project/glyphEdits';
import { groupsByGlyph } from '../../project/kerningLookup';
import type { Drawing, Master, Project } from '../../project/model';
import { drawingsOf, flattened } from '../../project/outline';
import { pairKey } from '../../project/pairs';
import { defaultMaster, glyphForCodePoint, glyphNamed } from '../../project/queries';
import { instanceAt } from '../../variation/instance';
import { openAny, unpackedFont } from '../openFile';
import type { FontProject } from './projectFromFont';

/** A variable font of an installed package, unpacked outside Jest, which cannot load the unpacker. */
function variableFont(part: string): Uint8Array {
  const code = `import { readFileSync } from 'node:fs'; import { decompress } from 'woff2-encoder'; process.stdout.write(await decompress(readFileSync(process.argv[1])));`;
  return execFileSync(
    process.execPath,
    [
      '--input-type=module',
      '-e',
      code,
      `node_modules/@fontsource-variable/source-sans-3/files/source-sans-3-${part}-wght-normal.woff2`,
    ],
    {
      maxBuffer: 1 << 26,
    },
  );
}

/** The starter with a composite, kerning in groups with an exception, and names. */
function source(): Project {
  const p = buildStarter();
  const [a, n, acute] = ['a', 'n', 'eacute'].map((name) => glyphNamed(p, name)!);
  return {
    ...p,
    glyphs: {
      ...p.glyphs,
      [acute!.id]: {
        ...acute!,
        drawings: {
          m1: {
            ...emptyDrawing(548),
            components: [
              { glyph: a!.id, transform: [1, 0, 0, 1, 10, 0] },
              { glyph: n!.id, transform: [0.5, 0, 0, 0.5, 120, 300] },
            ],
          },
        },
      },
    },
    groups: [
      { id: 'k1', side: 'first', name: 'T', members: ['T', 'Z'].map((g) => glyphNamed(p, g)!.id) },
      { id: 'k2', side: 'second', name: 'o', members: ['o', 'c', 'e'].map((g) => glyphNamed(p, g)!.id) },
    ],
    masters: [
      {
        ...p.masters[0]!,
        kerning: {
          [pairKey({ kind: 'group', id: 'k1' }, { kind: 'group', id: 'k2' })]: -60,
          [pairKey({ kind: 'glyph', id: glyphNamed(p, 'T')!.id }, { kind: 'glyph', id: glyphNamed(p, 'c')!.id })]: -44,
          [pairKey({ kind: 'glyph', id: glyphNamed(p, 'A')!.id }, { kind: 'glyph', id: glyphNamed(p, 'V')!.id })]: -70,
        },
      },
    ],
  };
}

const project = source();
const cast = (p: Project, flavour: 'ttf' | 'otf') => {
  const font = castFont(p, { flavour, place: { master: defaultMaster(p).id }, keepOverlaps: true });
  if (!font.ok) throw new Error(font.reason);
  return font.value.bytes;
};
const opened = async (bytes: Uint8Array, label = 'font'): Promise<FontProject> => {
  const read = await openAny(bytes, label);
  if (!read.ok) throw new Error(read.reason);
  return read.value;
};
const area = (contours: readonly Contour[]) => contours.reduce((sum, c) => sum + signedArea(c), 0);

test.each(['ttf', 'otf'] as const)('a font we cast comes back as it was: %s', async (flavour) => {
  const { project: back } = await opened(cast(project, flavour), `Velmarrow.${flavour}`);
  expect(back.family).toMatchObject({
    name: 'Velmarrow Sans',
    designer: 'The Velmarrow drawing office',
    vendor: 'VLMR',
  });
  expect(back.masters[0]).toMatchObject({
    name: 'Regular',
    zones: { ascender: { position: 742 }, descender: { position: -204 } },
  });
  expect(back.masters[0]!.verticalMetrics.typoAscender).toBeGreaterThan(742);
  expect(back.masters[0]!.zones.xHeight.position).toBe(520);
  expect(back.created).toBe(project.created);
  const out = undrawnCharacters(project);
  for (const g of Object.values(project.glyphs).filter((o) => !out.has(o.id))) {
    const read = glyphNamed(back, g.name)!;
    expect([g.name, read.unicodes]).toEqual([g.name, [...g.unicodes]]);
    const [was, is] = [g.drawings.m1!, read.drawings.m1!];
    expect([g.name, is.advance]).toEqual([g.name, was.advance]);
    if (g.name === 'eacute') continue;
    expect([g.name, is.contours.length]).toEqual([g.name, was.contours.length]);
    expect(Math.abs(area(is.contours) - area(was.contours))).toBeLessThan(flavour === 'otf' ? 1 : 900);
    for (const c of is.contours)
      expect(c.points.some((p) => p.type === (flavour === 'otf' ? 'qcurve' : 'curve'))).toBe(false);
  }
  const acute = glyphNamed(back, 'eacute')!.drawings.m1!;
  if (flavour === 'ttf')
    expect(acute.components.map((c) => [back.glyphs[c.glyph]!.name, c.transform])).toEqual([
      ['a', [1, 0, 0, 1, 10, 0]],
      ['n', [0.5, 0, 0, 0.5, 120, 300]],
    ]);
  else expect(acute.contours).toHaveLength(3);
  const again = cast(back, flavour);
  const same = readSfnt(again).tables;
  for (const tag of flavour === 'ttf' ? ['glyf', 'loca', 'hmtx', 'cmap', 'GPOS'] : ['hmtx', 'cmap', 'GPOS']) {
    expect([
      tag,
      Buffer.compare(Buffer.from(same.get(tag)!), Buffer.from(readSfnt(cast(project, flavour)).tables.get(tag)!)),
    ]).toEqual([tag, 0]);
  }
});

test('kerning comes back as groups and exceptions', async () => {
  const { project: back } = await opened(cast(project, 'ttf'));
  const id = (name: string) => glyphNamed(back, name)!.id;
  const group = (side: 'first' | 'second', member: string) =>
    back.groups.find((g) => g.side === side && g.members.includes(id(member)))!;
  expect(
    group('first', 'T')
      .members.map((m) => back.glyphs[m]!.name)
      .sort(),
  ).toEqual(['T', 'Z']);
  expect(
    group('second', 'o')
      .members.map((m) => back.glyphs[m]!.name)
      .sort(),
  ).toEqual(['c', 'e', 'o']);
  const { kerning } = back.masters[0]!;
  expect(
    kerning[pairKey({ kind: 'group', id: group('first', 'T').id }, { kind: 'group', id: group('second', 'o').id })],
  ).toBe(-60);
  expect(kerning[pairKey({ kind: 'glyph', id: id('T') }, { kind: 'glyph', id: id('c') })]).toBe(-44);
  expect(kerning[pairKey({ kind: 'glyph', id: id('A') }, { kind: 'glyph', id: id('V') })]).toBe(-70);
  expect(Object.keys(kerning)).toHaveLength(3);
});

test('web fonts and collections are unpacked; what is no font is refused in one sentence', async () => {
  const ttf = cast(project, 'ttf');
  const drawn = project.glyphOrder.length - undrawnCharacters(project).size;
  const woff = toWoff(ttf);
  expect(woff.length).toBeLessThan(ttf.length);
  expect(Buffer.compare(Buffer.from(fromWoff(woff)), Buffer.from(ttf))).toBe(0);
  expect((await opened(woff)).project.glyphOrder).toHaveLength(drawn);
  const collection = new Writer()
    .tag('ttcf')
    .uint32(0x00010000)
    .uint32(2)
    .uint32(20)
    .uint32(20)
    .raw(rebased(ttf, 20))
    .toBytes();
  const second = await openAny(collection, 'both.ttc', { face: 1 });
  expect(second).toMatchObject({
    ok: true,
    value: { notes: expect.arrayContaining(['Face 2 of 2 of the collection was opened.']) },
  });
  expect(await openAny(collection, 'both.ttc', { face: 2 })).toEqual(
    refused('both.ttc holds 2 faces; there is no face 3.'),
  );
  expect(await unpackedFont(collection, 'both.ttc')).toMatchObject({ ok: true, value: { format: 'collection' } });
  expect(await openAny(woff.subarray(0, 900), 'short.woff')).toMatchObject(
    refused(
      expect.stringMatching(/^short\.woff: The \S+ table should end at byte \d+, but the file ends at byte 900\.$/),
    ),
  );
  const bare = writeSfnt(0x00010000, new Map([['head', readSfnt(ttf).tables.get('head')!]]));
  expect(await openAny(bare, 'bare.ttf')).toEqual(refused('bare.ttf: The font has no maxp table.'));
});

/** A font whose table offsets count from further on. */
function rebased(font: Uint8Array, by: number): Uint8Array {
  const out = font.slice();
  const view = new DataView(out.buffer);
  for (let i = 0; i < view.getUint16(4); i++) view.setUint32(12 + i * 16 + 8, view.getUint32(12 + i * 16 + 8) + by);
  return out;
}

test('layout that cannot be edited is carried while the order of glyphs stays', async () => {
  const { tables, version } = readSfnt(cast(project, 'ttf'));
  const gsub = new Writer()
    .uint16(1)
    .uint16(0)
    .uint16(10)
    .uint16(12)
    .uint16(14)
    .uint16(0)
    .uint16(0)
    .uint16(0)
    .toBytes();
  const { project: back, notes } = await opened(writeSfnt(version, new Map([...tables, ['GSUB', gsub]])));
  expect(notes.join(' ')).toMatch(/carried as they are/);
  expect(readSfnt(cast(back, 'otf')).tables.get('GSUB')).toEqual(gsub);
  const moved = movePoints(back, {
    at: { glyph: glyphNamed(back, 'n')!.id, master: 'm1' },
    points: ['0:0'],
    dx: 5,
    dy: 0,
  });
  if (!moved.ok) throw new Error(moved.reason);
  expect(readSfnt(cast(moved.project, 'ttf')).tables.has('GSUB')).toBe(true);
  const fewer = { ...back, glyphOrder: back.glyphOrder.slice(0, -1) };
  expect(readSfnt(cast(fewer, 'ttf')).tables.has('GSUB')).toBe(false);
  const notesOf = (p: Project) => {
    const font = castFont(p, { flavour: 'ttf', place: { master: 'm1' } });
    if (!font.ok) throw new Error(font.reason);
    return font.value.notes.map((n) => n.reason).join(' ');
  };
  expect(notesOf(back)).not.toMatch(/left out/i);
  expect(notesOf(fewer)).toMatch(/GSUB/);
  // Glyphs that follow behind are none of the table's; a mark would have to be told as one.
  const added = addGlyphs(back, {
    requests: [
      { name: 'Omega', unicodes: [0x3a9] },
      { name: 'dotbelowcomb', unicodes: [0x323] },
    ],
  });
  if (!added.ok) throw new Error(added.reason);
  const letters = (category?: 'mark'): Project => ({
    ...added.project,
    glyphs: Object.fromEntries(
      Object.entries(added.project.glyphs).map(([id, g]) => {
        if (g.name !== 'Omega' && g.name !== 'dotbelowcomb') return [id, g];
        const { contours } = glyphNamed(back, 'o')!.drawings.m1!;
        const drawings = { m1: { ...g.drawings.m1!, advance: 500, contours } };
        return [id, { ...g, drawings, ...(g.name === 'dotbelowcomb' && category ? { category } : {}) }];
      }),
    ),
  });
  expect(readSfnt(cast(letters(), 'ttf')).tables.get('GSUB')).toEqual(gsub);
  expect(notesOf(letters())).not.toMatch(/left out/i);
  expect(readSfnt(cast(letters('mark'), 'ttf')).tables.has('GSUB')).toBe(false);
  expect(notesOf(letters('mark'))).toMatch(/Left out since marks were added: .*\(GSUB\)/);
});

test('a variable font comes in as masters whose instances are the font’s own', async () => {
  const { project: vf, notes } = await opened(variableFont('latin'), 'variable.ttf');
  expect(vf.axes).toHaveLength(1);
  expect(vf.axes[0]).toMatchObject({ tag: 'wght', minimum: 200, maximum: 900 });
  expect(vf.masters.length).toBeGreaterThanOrEqual(3);
  expect(notes.join(' ')).not.toMatch(/default in every master/);
  // At every master, blending gives that master.
  for (const m of vf.masters) {
    const { project: at, stuck } = instanceAt(vf, m.place, 'x');
    expect(stuck).toEqual([]);
    for (const name of ['a', 'g', 'ampersand', 'S']) {
      const [is, was] = [Object.values(glyphNamed(at, name)!.drawings)[0]!, glyphNamed(vf, name)!.drawings[m.id]!];
      expect(is.advance).toBeCloseTo(was.advance, 6);
      const places = (contours: readonly Contour[]) =>
        contours.map((c) => c.points.map((p) => [Math.round(p.x * 1e4), Math.round(p.y * 1e4)]));
      expect(places(is.contours)).toEqual(places(was.contours));
    }
  }
  // Stems grow with the weight, so the masters are not one and the same.
  const wide = vf.masters.map((m) => area(glyphNamed(vf, 'n')!.drawings[m.id]!.contours));
  expect(Math.max(...wide) / Math.min(...wide)).toBeGreaterThan(1.5);
  const bounds = boundsOf(curvesOf(glyphNamed(vf, 'H')!.drawings.m1!.contours[0]!));
  expect(bounds.yMax).toBeGreaterThan(600);
});

test('a CFF2 font of the demo’s six masters gives the demo’s own instances, within rounding', async () => {
  // Built by an independent library from the demo's masters as they are drawn, before they are spaced; a few letters of it.
  const { project: vf } = await opened(
    new Uint8Array(readFileSync('src/core/formats/font/fixtures/velmarrow-cff2.otf')),
    'velmarrow-cff2.otf',
  );
  expect(vf.masters).toHaveLength(6);
  const demo = buildUnspaced();
  for (const [wght, wdth] of [
    [300, 75],
    [350, 90],
    [600, 75],
    [700, 100],
  ] as const) {
    const [is, was] = [instanceAt(vf, { wght, wdth }, 'x').project, instanceAt(demo, { wght, wdth }, 'x').project];
    for (const name of ['a', 'e', 'g', 'n', 'ampersand']) {
      const [a, b] = [is, was].map((p) => Object.values(glyphNamed(p, name)!.drawings)[0]!) as [Drawing, Drawing];
      expect(Math.abs(a.advance - b.advance)).toBeLessThanOrEqual(1);
      const [boxA, boxB] = [a, b].map((d) => boundsOf(d.contours.flatMap(curvesOf)));
      for (const side of ['xMin', 'yMin', 'xMax', 'yMax'] as const)
        expect(Math.abs(boxA![side] - boxB![side])).toBeLessThanOrEqual(1);
      expect(Math.abs(area(a.contours) / area(b.contours) - 1)).toBeLessThan(0.01);
    }
    expect(is.masters[0]!.zones.xHeight.position).toBeCloseTo(was.masters[0]!.zones.xHeight.position, 0);
  }
});

test('damaged fonts of all kinds give one sentence or a sound project, never anything else', async () => {
  const ttf = cast(project, 'ttf');
  const seeds = [
    ['font.ttf', ttf],
    ['font.otf', cast(project, 'otf')],
    ['font.woff', toWoff(ttf)],
    ['variable.ttf', variableFont('greek')],
  ] as const;
  let refused = 0;
  for (let seed = 1; seed <= 400; seed++) {
    const [name, bytes] = seeds[seed % seeds.length]!;
    const read = await openAny(mutated(bytes, seed), name);
    if (!read.ok) {
      refused++;
      expect(read.reason.startsWith(name)).toBe(true);
    }
  }
  expect(refused).toBeGreaterThan(100);
  expect(refused).toBeLessThan(400);
});

test('kerning of a variable font is that of each master, pair by pair', async () => {
  const bytes = variableFont('latin');
  const { project: vf } = await opened(bytes, 'variable.ttf');
  const path = join(mkdtempSync(join(tmpdir(), 'wendril-varied-')), 'variable.ttf');
  writeFileSync(path, bytes);
  const letters = [...'ATVYLPRFKoaevwyrt.,-'];
  const pairs = letters.flatMap((a) => letters.map((b) => [a, b] as const));
  const shaped = (weight: number, kern: number) => {
    // A character without ink keeps the pairs apart.
    const text = pairs.map(([a, b]) => `${a}${b}`).join('\u200c');
    return JSON.parse(
      execFileSync(process.execPath, ['scripts/shape.mjs', path, text, `kern=${kern}`, `@wght=${weight}`], {
        encoding: 'utf8',
        maxBuffer: 1 << 26,
      }),
    ) as {
      name: string;
      advance: number;
    }[];
  };
  let varying = 0;
  for (const m of vf.masters.filter((one) => [200, 400, 900].includes(one.place.wght!))) {
    const [on, off] = [shaped(m.place.wght!, 1), shaped(m.place.wght!, 0)];
    for (const [a, b] of pairs) {
      const [first, second] = [a, b].map((c) => glyphForCodePoint(vf, c.codePointAt(0)!)!);
      const at = on.findIndex((g, i) => g.name === first!.name && on[i + 1]?.name === second!.name);
      if (at < 0) continue;
      const value = kerningOf(vf, m, first!.id, second!.id);
      expect([m.name, a, b, value]).toEqual([m.name, a, b, on[at]!.advance - off[at]!.advance]);
      if (value !== kerningOf(vf, vf.masters[0]!, first!.id, second!.id)) varying++;
    }
  }
  expect(varying).toBeGreaterThan(20);
});

/** The value of a pair by the order of lookup: glyphs before groups, the first side's glyph before the second's. */
function kerningOf(project: Project, master: Master, first: string, second: string): number {
  const [a, b] = [groupsByGlyph(project).first.get(first), groupsByGlyph(project).second.get(second)];
  const sides = (glyph: string, group: { id: string } | undefined) => [
    { kind: 'glyph' as const, id: glyph },
    ...(group ? [{ kind: 'group' as const, id: group.id }] : []),
  ];
  for (const x of sides(first, a))
    for (const y of sides(second, b))
      if (master.kerning[pairKey(x, y)] !== undefined) return master.kerning[pairKey(x, y)]!;
  return 0;
}

test('a part is drawn by its points, whatever side bearing it has as a glyph of its own', async () => {
  const { version, tables } = readSfnt(cast(source(), 'ttf'));
  const whole = await opened(writeSfnt(version, tables));
  const composite = Object.values(whole.project.glyphs).find((g) => g.drawings.m1!.components.length > 0)!;
  const base = whole.project.glyphOrder.indexOf(composite.drawings.m1!.components[0]!.glyph);
  const metrics = tables.get('hmtx')!.slice();
  const view = new DataView(metrics.buffer);
  // All records are long ones up to this glyph; its bearing says it stands 9 units further right than its points.
  view.setInt16(base * 4 + 2, view.getInt16(base * 4 + 2) + 9);
  const { project: back } = await opened(writeSfnt(version, new Map([...tables, ['hmtx', metrics]])));
  const bounds = (p: Project, id: string) =>
    boundsOf(flattened(p.glyphs[id]!.drawings.m1!, drawingsOf(p, 'm1')).flatMap((c) => [...curvesOf(c)]));
  const id = back.glyphOrder[base]!;
  expect(bounds(back, id).xMin).toBeCloseTo(bounds(whole.project, id).xMin + 9, 6);
  expect(bounds(back, composite.id)).toEqual(bounds(whole.project, composite.id));
});

test('names that only spell code points are said; the font’s own go into the files again', async () => {
  const named = (names: Readonly<Record<string, string>>) => ({
    ...project,
    glyphs: Object.fromEntries(
      Object.entries(project.glyphs).map(([id, g]) => [id, { ...g, name: names[g.name] ?? g.name }]),
    ),
  });
  const { project: read, notes } = await opened(cast(named({ n: 'uni006E', o: 'glyph00042' }), 'otf'));
  expect(glyphNamed(read, 'n')).toMatchObject({ unicodes: [0x6e], productionName: 'uni006E' });
  expect(glyphNamed(read, 'o')).toMatchObject({ unicodes: [0x6f], productionName: 'glyph00042' });
  expect(glyphNamed(read, 'p')!.productionName).toBeUndefined();
  expect(notes.join(' ')).toMatch(/2 glyphs are called by character/);
  const again = await opened(cast(read, 'otf'));
  expect(glyphNamed(again.project, 'n')).toMatchObject({ productionName: 'uni006E' });
});
