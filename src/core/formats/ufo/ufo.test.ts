import fc from 'fast-check';
import { buildStarter } from '../../../../demo/starter';
import { attempt, refused } from '../../base/result';
import { closedContour } from '../../geometry/testShapes';
import { checkedProject } from '../../project/checked';
import { isCharacter } from '../../project/limits';
import type { Project } from '../../project/model';
import { pairKey } from '../../project/pairs';
import { defaultMaster, glyphNamed } from '../../project/queries';
import { readDesignspace, writeDesignspace } from '../designspace/designspace';
import { packZip, textFile, unpackZip, userNameToFileName } from '../fileTree';
import { pictureSize } from '../pictures';
import { projectFiles, projectFromFiles, readProjectFile, writeProjectFile } from '../project/projectFile';
import { type Glif, readGlif, writeGlif } from './glif';
import { base64ToBytes, bytesToBase64, readPlist, writePlist } from './plist';
import { readUfo, writeUfo } from './ufo';
import { ufoOfMaster } from './ufoFromProject';

/** A one-pixel PNG. */
const PNG = base64ToBytes(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
)!;

const plainText = fc.string({ maxLength: 12, unit: fc.constantFrom(...'aĄ&<>"\' ]:Z') });
const plistValue = fc.letrec((tie) => ({
  value: fc.oneof(
    { depthSize: 'small' },
    plainText,
    fc.integer(),
    fc.double({ min: -1e5, max: 1e5, noNaN: true }).map((v) => Math.round(v * 1000) / 1000 || 0),
    fc.boolean(),
    fc.uint8Array({ maxLength: 9 }),
    fc.array(tie('value'), { maxLength: 4 }),
    fc.dictionary(plainText, tie('value'), { maxKeys: 4 }),
  ),
})).value;

test('property lists come back as they were', () => {
  fc.assert(fc.property(plistValue, (v) => expect(readPlist(writePlist(v as never), 'x.plist')).toEqual(v)));
  expect(readPlist('<plist><dict><key>d</key><date>2026-04-12T08:00:00Z</date></dict></plist>', 'x')).toEqual({
    d: { $date: '2026-04-12T08:00:00Z' },
  });
  expect(writePlist({ d: { $date: '2026-04-12T08:00:00Z' } })).toContain('<date>2026-04-12T08:00:00Z</date>');
  fc.assert(fc.property(fc.uint8Array({ maxLength: 40 }), (b) => expect(base64ToBytes(bytesToBase64(b))).toEqual(b)));
});

const glif = fc.record({
  contours: fc.array(closedContour, { maxLength: 3 }),
  advance: fc.integer({ min: 1, max: 2000 }),
  unicodes: fc.uniqueArray(fc.integer({ min: 0x20, max: 0x1ffff }).filter(isCharacter), { maxLength: 3 }),
  anchors: fc.array(
    fc
      .record({ name: plainText, x: fc.integer(), y: fc.integer() })
      .map((a) => ({ ...a, x: a.x % 5000 || 0, y: a.y % 5000 || 0 })),
    { maxLength: 2 },
  ),
  lib: fc.option(fc.dictionary(plainText, plistValue, { minKeys: 1, maxKeys: 3 }), { nil: undefined }),
});

test('GLIF files come back as they were, with and without what the fast scan cannot read', () => {
  fc.assert(
    fc.property(glif, (g) => {
      const whole: Glif = {
        name: 'a&b',
        components: [{ base: 'n', transform: [0.5, 0, 0, 0.5, 10, -3.25] }],
        guides: [{ x: 1, y: 2, angle: 30, name: 'g' }],
        ...(g as Pick<Glif, 'contours'>),
        ...g,
      } as Glif;
      const clean = { ...whole, lib: g.lib as never };
      const text = writeGlif(clean);
      const read = readGlif(text, 'a.glif');
      expect({ ...read, lib: read.lib ?? undefined }).toEqual({ ...clean });
      const plain = writeGlif({ ...clean, name: 'ab', anchors: [], lib: undefined });
      expect(readGlif(plain.replace('<outline>', '<!-- drawn --><outline>'), 'a.glif')).toEqual(
        readGlif(plain, 'a.glif'),
      );
    }),
  );
});

test('open contours, GLIF 1 anchors, notes and pictures are read', () => {
  const open = readGlif(
    '<glyph name="a" format="2"><outline><contour><point x="0" y="0" type="move"/><point x="9" y="9" type="line"/></contour></outline><image fileName="p.png" xOffset="5"/><note>\n soft \n</note></glyph>',
    'a.glif',
  );
  expect(open.contours[0]).toMatchObject({ closed: false, points: [{ type: 'line' }, { type: 'line' }] });
  expect(open.note).toBe('soft');
  expect(open.image).toEqual({ fileName: 'p.png', transform: [1, 0, 0, 1, 5, 0], color: undefined });
  expect(writeGlif(open)).toContain('type="move"');
  const old = readGlif(
    '<glyph name="a" format="1"><outline><contour><point x="3" y="4" type="move" name="top"/></contour></outline></glyph>',
    'a.glif',
  );
  expect(old).toMatchObject({ contours: [], anchors: [{ name: 'top', x: 3, y: 4 }] });
});

test('faults in a GLIF name the file and the line', () => {
  const fault = (body: string) => {
    const r = attempt(() =>
      readGlif(`<?xml version="1.0"?>\n<glyph name="a" format="2">\n${body}\n</glyph>`, 'glyphs/a.glif'),
    );
    return r.ok ? '' : r.reason;
  };
  expect(fault('<advance width="wide"/>')).toBe(
    'glyphs/a.glif, line 3: width="wide" of <advance> is not a number that fits.',
  );
  expect(fault('<outline>\n<contour>\n<point x="1e99" y="0"/></contour></outline>')).toMatch(/line 5: x="1e99"/);
  expect(fault('<outline><contour><point x="0" y="0" type="wavy"/></contour></outline>')).toMatch(
    /“wavy” is not a point type/,
  );
  expect(fault('<outline><contour>')).toMatch(/glyphs\/a.glif, line \d+/);
  expect(fault('<unicode hex="zz"/>')).toMatch(/not a code point/);
  expect(attempt(() => readGlif('<!DOCTYPE x [<!ENTITY b "bomb">]><glyph name="&b;"/>', 'a.glif'))).toMatchObject({
    ok: false,
  });
});

/** The demo with something of everything the formats carry. */
function rich(): Project {
  const p = buildStarter();
  const n = glyphNamed(p, 'n')!;
  const acute = glyphNamed(p, 'eacute')!;
  const group = { id: 'k1', side: 'first' as const, name: 'n_right', members: [n.id, glyphNamed(p, 'h')!.id] };
  const o = glyphNamed(p, 'o')!;
  return {
    ...p,
    groups: [group],
    pictures: { 'sheet.png': { name: 'sheet.png', type: 'image/png', width: 1, height: 1, bytes: PNG } },
    features: {
      ...p.features,
      sections: [
        { id: 'features', title: 'features.fea', options: {}, text: 'feature liga { sub f f by f_f; } liga;' },
      ],
      classes: { figures: ['one', 'two'] },
    },
    kept: { 'notes/readme.txt': textFile('kept') },
    masters: [
      {
        ...p.masters[0]!,
        kerning: {
          [pairKey({ kind: 'group', id: 'k1' }, { kind: 'glyph', id: o.id })]: -14,
          [pairKey({ kind: 'glyph', id: o.id }, { kind: 'glyph', id: n.id })]: 6,
        },
        lib: { 'com.example.unknown': { deep: [1, 'two', true] } },
      },
    ],
    glyphs: {
      ...p.glyphs,
      [n.id]: {
        ...n,
        status: 'done',
        note: 'shoulder lifted',
        drawings: {
          m1: {
            ...n.drawings.m1!,
            anchors: [{ name: 'top', x: 273, y: 531 }],
            guides: [{ x: 0, y: 250, angle: 12 }],
            backdrops: [
              {
                id: 'b1',
                picture: 'sheet.png',
                transform: [0.5, 0, 0, -0.5, 20, 700],
                strength: 0.4,
                locked: true,
                visible: true,
              },
            ],
            lib: { 'com.example.point': 'kept' },
          },
        },
      },
      [acute.id]: {
        ...acute,
        cast: false,
        follows: { left: [{ glyph: n.id, side: 'left', offset: 4 }], right: [] },
        drawings: { m1: { ...acute.drawings.m1!, components: [{ glyph: n.id, transform: [1, 0, 0, 1, 12, 0] }] } },
      },
    },
  };
}

/** A project by names, without what depends on the run: ids and the folder it was read from. */
function comparable(p: Project) {
  const name = (id: string) => p.glyphs[id]?.name ?? p.groups.find((g) => g.id === id)?.name ?? id;
  const readable = (key: string) =>
    key
      .split(' ')
      .map((s) => name(s.split(':')[1]!))
      .join(' ');
  return {
    family: p.family,
    created: p.created,
    em: p.unitsPerEm,
    texts: p.texts,
    settings: p.settings,
    features: p.features.sections.map((s) => s.text),
    classes: p.features.classes,
    groups: p.groups.map((g) => [g.side, g.name, g.members.map(name)]),
    kept: Object.keys(p.kept),
    masters: p.masters.map((m) => ({
      name: m.name,
      zones: m.zones,
      metrics: m.verticalMetrics,
      stems: m.stems,
      kerning: Object.fromEntries(Object.entries(m.kerning).map(([k, v]) => [readable(k), v])),
      unknown: m.lib?.['com.example.unknown'],
    })),
    glyphs: p.glyphOrder.map((id) => {
      const { id: _, drawings, follows, ...rest } = p.glyphs[id]!;
      return {
        ...rest,
        follows: {
          left: follows.left.map((f) => ({ ...f, glyph: name(f.glyph) })),
          right: follows.right.map((f) => ({ ...f, glyph: name(f.glyph) })),
        },
        drawings: Object.values(drawings).map((d) => ({
          ...d,
          components: d.components.map((c) => ({ ...c, glyph: name(c.glyph) })),
          backdrops: d.backdrops.map((b) => ({ ...b, picture: [...p.pictures[b.picture]!.bytes] })),
        })),
      };
    }),
  };
}

test('a project goes into its file and comes back whole, twice', () => {
  const project = rich();
  const bytes = writeProjectFile(project);
  const first = readProjectFile(bytes, 'velmarrow.wendril');
  if (!first.ok) throw new Error(first.reason);
  expect(comparable(first.value)).toEqual(comparable(project));
  const again = writeProjectFile(first.value);
  const second = readProjectFile(again, 'velmarrow.wendril');
  if (!second.ok) throw new Error(second.reason);
  expect(comparable(second.value)).toEqual(comparable(project));
  // From here on the file is the same to the byte.
  expect(writeProjectFile(second.value)).toEqual(again);
});

test('a UFO keeps its layers, data and unknown files', () => {
  const files = new Map(projectFiles(rich()));
  const folder = [...files.keys()].find((k) => k.endsWith('metainfo.plist'))!.replace('/metainfo.plist', '');
  files.set(
    `${folder}/layercontents.plist`,
    textFile(
      writePlist([
        ['public.default', 'glyphs'],
        ['sketch', 'glyphs.sketch'],
      ]),
    ),
  );
  files.set(`${folder}/glyphs.sketch/contents.plist`, textFile(writePlist({})));
  files.set(`${folder}/data/org.example/x.bin`, Uint8Array.of(1, 2, 3));
  const read = projectFromFiles(files, 'velmarrow');
  if (!read.ok) throw new Error(read.reason);
  const written = projectFiles(read.value);
  for (const path of ['layercontents.plist', 'glyphs.sketch/contents.plist', 'data/org.example/x.bin'])
    expect(written.get(`${folder}/${path}`)).toEqual(files.get(`${folder}/${path}`));
  const ufo = readUfo(
    new Map([...written].filter(([p]) => p.startsWith(`${folder}/`)).map(([p, b]) => [p.slice(folder.length + 1), b])),
    'x.ufo',
  );
  if (!ufo.ok) throw new Error(ufo.reason);
  expect(writeUfo(ufo.value).get('glyphs/contents.plist')).toEqual(written.get(`${folder}/glyphs/contents.plist`));
});

test('two masters on an axis are read from a designspace, in its order; the default is found through the axis map', () => {
  const one = projectFiles(buildStarter());
  const files = new Map<string, Uint8Array>();
  for (const [p, b] of one) {
    if (!p.includes('.ufo/')) continue;
    files.set(p.replace(/^[^/]+/, 'Light.ufo'), b);
    files.set(p.replace(/^[^/]+/, 'Bold.ufo'), b);
  }
  expect(one.has('VelmarrowSans-Regular.ufo/metainfo.plist')).toBe(true);
  const space = {
    axes: [
      {
        tag: 'wght',
        name: 'Weight',
        minimum: 300,
        default: 300,
        maximum: 700,
        hidden: false,
        map: [
          [300, 20],
          [700, 120],
        ] as [number, number][],
        labels: { en: 'Weight' },
      },
    ],
    sources: [
      { filename: 'Bold.ufo', name: 'b', styleName: 'Bold', layer: undefined, location: { Weight: 120 } },
      { filename: 'Light.ufo', name: 'l', styleName: 'Light', layer: undefined, location: { Weight: 20 } },
    ],
    instances: [{ name: 'x', styleName: 'Medium', filename: undefined, location: { Weight: 70 } }],
    rules: [],
    lib: { 'com.example.kept': 4 },
  };
  expect(readDesignspace(writeDesignspace(space), 'x.designspace')).toEqual(space);
  files.set('x.designspace', textFile(writeDesignspace(space)));
  const read = projectFromFiles(files, 'x.designspace');
  if (!read.ok) throw new Error(read.reason);
  expect(read.value.masters.map((m) => [m.name, m.place.wght])).toEqual([
    ['Bold', 120],
    ['Light', 20],
  ]);
  expect(defaultMaster(read.value).name).toBe('Light');
  expect(read.value.axes[0]).toMatchObject({
    tag: 'wght',
    map: [
      [300, 20],
      [700, 120],
    ],
  });
  expect(read.value.lib).toEqual({ 'com.example.kept': 4 });
  expect(Object.keys(glyphNamed(read.value, 'n')!.drawings)).toHaveLength(2);
});

test('a designspace with what Wendril does not model is written back to the letter while nothing in it changes', () => {
  const text = `<?xml version='1.0' encoding='UTF-8'?>
<designspace format="5.0">
  <axes><axis tag="wght" name="Weight" minimum="300" maximum="700" default="300"><labels ordering="0"><label uservalue="300" name="Light"/></labels></axis></axes>
  <rules><rule name="fold"><conditionset><condition name="Weight" minimum="500"/></conditionset><sub name="n" with="o"/></rule></rules>
  <sources>
    <source filename="Light.ufo" name="l" stylename="Light"/>
    <source filename="Light.ufo" layer="middle" name="m"><location><dimension name="Weight" xvalue="500"/></location></source>
    <source filename="Bold.ufo" name="b" stylename="Bold"><location><dimension name="Weight" xvalue="700"/></location></source>
  </sources>
  <variable-fonts><variable-font name="VF"><axis-subsets><axis-subset name="Weight"/></axis-subsets></variable-font></variable-fonts>
  <instances><instance name="x" stylename="Medium" familyname="Orde"><location><dimension name="Weight" xvalue="500"/></location></instance></instances>
</designspace>`;
  const files = new Map<string, Uint8Array>([
    ['Orde.designspace', textFile(text)],
    ['notes/fold.txt', textFile('folded')],
  ]);
  for (const [p, b] of projectFiles(buildStarter()))
    if (p.includes('.ufo/')) for (const name of ['Light.ufo', 'Bold.ufo']) files.set(p.replace(/^[^/]+/, name), b);
  const missing = projectFromFiles(files, 'Orde');
  expect(missing).toEqual(refused('Light.ufo has no layer “middle”.'));
  files.set(
    'Light.ufo/layercontents.plist',
    textFile(
      writePlist([
        ['public.default', 'glyphs'],
        ['middle', 'glyphs.middle'],
      ]),
    ),
  );
  files.set('Light.ufo/glyphs.middle/contents.plist', textFile(writePlist({ n: 'n.glif' })));
  files.set('Light.ufo/glyphs.middle/n.glif', files.get('Light.ufo/glyphs/n.glif')!);
  const read = projectFromFiles(files, 'Orde');
  if (!read.ok) throw new Error(read.reason);
  const [waypoint] = glyphNamed(read.value, 'n')!.waypoints;
  expect(waypoint!.place).toEqual({ wght: 500 });
  expect(waypoint!.drawing.contours).toEqual(glyphNamed(read.value, 'n')!.drawings.m1!.contours);
  expect(read.value.axes[0]!.stops).toEqual([{ name: 'Light', value: 300, elidable: false, older: false }]);
  const written = projectFiles(read.value);
  for (const path of [...files.keys()].filter((p) => p.startsWith('Light.ufo/glyphs')))
    expect([path, new TextDecoder().decode(written.get(path))]).toEqual([
      path,
      new TextDecoder().decode(files.get(path)),
    ]);
  expect(new TextDecoder().decode(written.get('Orde.designspace'))).toBe(text);
  expect(written.get('notes/fold.txt')).toEqual(files.get('notes/fold.txt'));
  const moved: Project = {
    ...read.value,
    masters: read.value.masters.map((m, i) => (i === 0 ? m : { ...m, place: { wght: 650 } })),
  };
  const changed = new TextDecoder().decode(projectFiles(moved).get('Orde.designspace'));
  expect(changed).toContain('xvalue="650"');
  // What is not modelled comes along even then.
  expect(changed.replace(/\s*\n\s*/g, '')).toContain(
    '<rules><rule name="fold"><conditionset><condition name="Weight" minimum="500"/></conditionset><sub name="n" with="o"/></rule></rules>',
  );
  expect(changed).toContain('familyname="Orde"');
  expect(changed).toContain('<source filename="Light.ufo" layer="middle" name="m">');
  expect(changed).toContain('<variable-fonts>');
  const renamed: Project = {
    ...read.value,
    masters: read.value.masters.map((m, i) => (i === 0 ? m : { ...m, name: 'Heavy' })),
  };
  const again = projectFromFiles(projectFiles(renamed), 'Orde');
  expect(again.ok && again.value.masters.map((m) => m.name)).toEqual(['Light', 'Heavy']);
});

describe('bad sources get one sentence', () => {
  const files = () => new Map(projectFiles(buildStarter()));
  const folder = () => [...files().keys()].find((k) => k.endsWith('metainfo.plist'))!.split('/')[0]!;
  const reason = (tree: Map<string, Uint8Array>) => {
    const r = projectFromFiles(tree, 'x.wendril');
    return r.ok ? '' : r.reason;
  };
  /** What is wrong with single glyphs is told; the rest opens. */
  const opened = (tree: Map<string, Uint8Array>) => {
    const faults: string[] = [];
    const r = projectFromFiles(tree, 'x.wendril', { tell: (fault) => faults.push(fault) });
    if (!r.ok) throw new Error(r.reason);
    return { faults, project: r.value };
  };
  test('a missing glyph file', () => {
    const tree = files();
    tree.delete(`${folder()}/glyphs/n.glif`);
    const { faults, project } = opened(tree);
    expect(faults).toEqual([`${folder()}/glyphs/n.glif is missing; contents.plist lists it for the glyph “n”.`]);
    expect(glyphNamed(project, 'n')).toMatchObject({ note: faults[0] });
    expect(glyphNamed(project, 'n')!.drawings.m1!.contours).toEqual([]);
    expect(glyphNamed(project, 'o')!.drawings.m1!.contours).not.toEqual([]);
  });
  test('a cyclic component', () => {
    const tree = files();
    const glyph = (name: string, base: string) =>
      textFile(
        `<?xml version="1.0"?><glyph name="${name}" format="2"><outline><component base="${base}"/></outline></glyph>`,
      );
    tree.set(`${folder()}/glyphs/n.glif`, glyph('n', 'o'));
    tree.set(`${folder()}/glyphs/o.glif`, glyph('o', 'n'));
    const { faults, project } = opened(tree);
    expect(faults.join()).toMatch(/^\S+: components run in a circle: (n → o → n|o → n → o); the last is left out\.$/);
    const parts = ['n', 'o'].flatMap((name) => glyphNamed(project, name)!.drawings.m1!.components);
    expect(parts).toHaveLength(1);
  });
  test('numbers the document does not allow', () => {
    const tree = files();
    tree.set(
      `${folder()}/glyphs/n.glif`,
      textFile(
        '<?xml version="1.0"?><glyph name="n" format="2"><outline><component base="o" xScale="200000"/></outline></glyph>',
      ),
    );
    const read = projectFromFiles(tree, 'x.wendril');
    if (!read.ok) throw new Error(read.reason);
    expect(checkedProject(read.value, 'x.wendril')).toMatchObject(
      refused(expect.stringMatching(/^x\.wendril: the glyph “n”, drawings\.m1\.components/)),
    );
    const good = projectFromFiles(files(), 'x.wendril');
    expect(good.ok && checkedProject(good.value, 'x.wendril').ok).toBe(true);
  });
  test('a path out of the UFO, a missing source, nothing to open', () => {
    const tree = files();
    tree.set(`${folder()}/glyphs/contents.plist`, textFile(writePlist({ a: '../../secret' })));
    expect(reason(tree)).toMatch(/the file name for “a” is not a plain file name/);
    expect(
      reason(
        new Map([
          ['a.designspace', textFile('<designspace><sources><source filename="No.ufo"/></sources></designspace>')],
        ]),
      ),
    ).toMatch(/lists the source “No.ufo”, which is missing/);
    expect(reason(new Map([['a.txt', textFile('hello')]]))).toBe('x.wendril holds neither a designspace nor a UFO.');
  });
  test('zips that are none, cut short, or point outside', () => {
    const r = (bytes: Uint8Array) => {
      const result = readProjectFile(bytes, 'x.wendril');
      return result.ok ? '' : result.reason;
    };
    expect(r(textFile('not a zip, only words that go on'))).toBe('x.wendril is not a zip file.');
    const good = writeProjectFile(buildStarter());
    expect(r(good.slice(0, good.length / 2))).toBe('x.wendril is a damaged or incomplete zip file.');
    expect(r(packZip(new Map([['../evil.designspace', textFile('x')]])))).toMatch(/points outside it/);
    for (let cut = 25; cut < good.length; cut += 2711) expect(r(good.slice(0, cut))).toMatch(/^x\.wendril /);
  });
});

test('zips are the same whenever they are made; file names follow the standard’s rule', () => {
  const files = new Map([
    ['b', textFile('2')],
    ['a', textFile('1')],
  ]);
  expect(packZip(files)).toEqual(packZip(new Map([...files].reverse())));
  expect([...unpackZip(packZip(files), 'x').keys()].sort()).toEqual(['a', 'b']);
  const taken = new Set<string>();
  expect(['a', 'A', 'AE', '.notdef', 'con', 'a:b', 'a?b'].map((n) => userNameToFileName(n, taken, '.glif'))).toEqual([
    'a.glif',
    'A_.glif',
    'A_E_.glif',
    '_notdef.glif',
    '_con.glif',
    'a_b.glif',
    'a_b000000000000001.glif',
  ]);
});

test('pictures are known by their headers', () => {
  expect(pictureSize(PNG)).toEqual({ type: 'image/png', width: 1, height: 1 });
  expect(pictureSize(Uint8Array.of(0xff, 0xd8, 0xff, 0xc0, 0, 11, 8, 0, 20, 0, 30, 1, 1, 0x11, 0))).toEqual({
    type: 'image/jpeg',
    width: 30,
    height: 20,
  });
  expect(pictureSize(PNG.slice(0, 20))).toBeUndefined();
  expect(pictureSize(textFile('GIF89a and so on, not a picture we read'))).toBeUndefined();
});

test('layers, data and pictures go along under another name and into another kind of file', () => {
  const files = new Map(projectFiles(rich()));
  const folder = [...files.keys()].find((k) => k.endsWith('metainfo.plist'))!.replace('/metainfo.plist', '');
  const layers = textFile(
    writePlist([
      ['public.default', 'glyphs'],
      ['sketch', 'glyphs.sketch'],
    ]),
  );
  const kept = new Map([
    ['layercontents.plist', layers],
    ['glyphs.sketch/contents.plist', textFile(writePlist({}))],
    ['data/org.example/x.bin', Uint8Array.of(1, 2, 3)],
    ['images/sheet.png', PNG],
  ]);
  for (const [path, bytes] of kept) files.set(`${folder}/${path}`, bytes);
  const read = projectFromFiles(files, 'velmarrow');
  if (!read.ok) throw new Error(read.reason);
  const through = readProjectFile(writeProjectFile(read.value), 'velmarrow.wendril');
  if (!through.ok) throw new Error(through.reason);
  for (const project of [read.value, through.value]) {
    const renamed = writeUfo(ufoOfMaster(project, defaultMaster(project), 'Quite-Another.ufo'));
    for (const [path, bytes] of kept) expect([path, renamed.get(path)]).toEqual([path, bytes]);
  }
});
