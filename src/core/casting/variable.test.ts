import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readyDemo } from '../../../demo/ready';
import { openAny } from '../formats/openFile';
import { signedArea } from '../geometry/contour';
import { isEmptyBox } from '../geometry/curve';
import { name } from '../opentype/name';
import { readSfnt, tableOf } from '../opentype/sfnt';
import { readStat } from '../opentype/stat';
import { drawingsAt } from '../project/drawingsAt';
import type { Drawing, Project } from '../project/model';
import { drawingBounds, flattened } from '../project/outline';
import { toUser, wholePlace } from '../project/places';
import { glyphNamed } from '../project/queries';
import { shapedByHarfBuzz } from '../testing/shaping';
import { setHandover } from '../variation/handovers';
import { addWaypoint } from '../variation/waypointEdits';
import { checkFont } from './checks';
import { castFont } from './font';
import { castOutputs } from './outputs';
import { distinctThings, namesOfThing, thingsOf, varyingDesign } from './things';

const demo = readyDemo();
const folder = mkdtempSync(join(tmpdir(), 'wendril-variable-'));
const done = (o: { ok: boolean; project?: Project; reason?: string }): Project => {
  if (!o.ok) throw new Error(o.reason);
  return o.project!;
};
const id = (glyph: string) => glyphNamed(demo, glyph)!.id;

/**
 * The demo with a waypoint of e that is wider than what lies there, an egrave that scales its e in one master, so that it is drawn out, and
 * a dollar that gives way to the cent from 600 on.
 */
function family(): Project {
  const begun = done(addWaypoint(demo, { glyph: id('e'), place: { wght: 600, wdth: 100 } }));
  const e = begun.glyphs[id('e')]!;
  const [w] = e.waypoints;
  const drawing: Drawing = {
    ...w!.drawing,
    advance: w!.drawing.advance + 40,
    contours: w!.drawing.contours.map((c) => ({ ...c, points: c.points.map((p) => ({ ...p, x: p.x * 1.08 })) })),
  };
  const egrave = begun.glyphs[id('egrave')]!;
  const bold = egrave.drawings.m3!;
  const components = bold.components.map((c) =>
    c.glyph === e.id ? { ...c, transform: [1.02, 0, 0, 1, c.transform[4], c.transform[5]] as const } : c,
  );
  const drawings = { ...egrave.drawings, m3: { ...bold, components } };
  const glyphs = {
    ...begun.glyphs,
    [e.id]: { ...e, waypoints: [{ ...w!, drawing }] },
    [egrave.id]: { ...egrave, drawings },
  };
  const drawn = { ...begun, glyphs };
  return done(
    setHandover(drawn, { glyph: id('dollar'), handover: { axis: 'wght', from: 600, to: 800, glyph: id('cent') } }),
  );
}

const project = family();
const bytesOf = (options: Partial<Parameters<typeof castFont>[1]> = {}, of = project): Uint8Array => {
  const font = castFont(of, { flavour: 'ttf', place: { master: 'm1' }, variable: true, ...options });
  if (!font.ok) throw new Error(font.reason);
  return font.value.bytes;
};
const variable = bytesOf();
const PLACES = [
  { wght: 300, wdth: 100 },
  { wght: 400, wdth: 100 },
  { wght: 800, wdth: 75 },
  { wght: 500, wdth: 87.5 },
  { wght: 333, wdth: 79 },
  { wght: 655, wdth: 96 },
];

const cubic = bytesOf({ flavour: 'otf' });

test.each([
  ['ttf', variable],
  ['otf', cubic],
] as const)(
  'the sanitizer accepts a font that varies as %s, and the same project gives the same bytes',
  (flavour, bytes) => {
    const path = join(folder, `family.${flavour}`);
    writeFileSync(path, bytes);
    const run = spawnSync('ots-sanitize', [path], { encoding: 'utf8' });
    expect(`${run.status} ${run.stderr}${run.stdout}`.trim()).toBe('0 File sanitized successfully!');
    expect(Buffer.compare(bytesOf({ flavour }), bytes)).toBe(0);
    expect(checkFont(bytes).filter((c) => c.severity !== 'fine')).toEqual([]);
  },
);

test.each([
  ['ttf', variable],
  ['otf', cubic],
] as const)(
  'read back as %s, it is the family: each glyph at each place within a unit, a waypoint’s too',
  async (flavour, bytes) => {
    const opened = await openAny(bytes, `family.${flavour}`, {});
    if (!opened.ok) throw new Error(opened.reason);
    const back = opened.value.project;
    expect(back.axes.map((a) => [a.tag, a.minimum, a.default, a.maximum])).toEqual(
      project.axes.map((a) => [a.tag, a.minimum, a.default, a.maximum]),
    );
    expect(back.instances.map((i) => i.name)).toEqual(project.instances.map((i) => i.name));
    for (const place of PLACES) {
      const [ours, theirs] = [drawingsAt(project, place), drawingsAt(back, place)];
      // Every other glyph, and those that vary in a way of their own.
      const some = Object.values(project.glyphs).filter((g, i) => i % 2 === 0 || g.waypoints.length > 0);
      for (const g of some) {
        const twin = glyphNamed(back, g.productionName ?? g.name) ?? glyphNamed(back, g.name);
        const [a, b] = [ours(g.id)!, twin && theirs(twin.id)!];
        if (!b) throw new Error(`${g.name} is missing`);
        const where = `${g.name} ${JSON.stringify(place)}`;
        expect([where, Math.abs(a.advance - b.advance) <= 1]).toEqual([where, true]);
        const [p, q] = [drawingBounds(a, ours), drawingBounds(b, theirs)];
        if (isEmptyBox(p)) continue;
        const far = Math.max(...(['xMin', 'xMax', 'yMin', 'yMax'] as const).map((k) => Math.abs(p[k] - q[k])));
        expect([where, far <= 1.6]).toEqual([where, true]);
        const area = (d: Drawing, source: typeof ours) =>
          Math.abs(flattened(d, source).reduce((sum, c) => sum + signedArea(c), 0));
        const round = 2 * (p.xMax - p.xMin + p.yMax - p.yMin);
        expect([where, Math.abs(area(a, ours) - area(b, theirs)) / round <= 0.8]).toEqual([where, true]);
      }
    }
  },
);

test('HarfBuzz sets it at each place as the font of that place: kerning, marks, carets’ letters, and who gives way', () => {
  const letters = 'AVTWLYFPaeorvyfkn$0147.,-';
  const texts = [
    ...[...letters].map((a) => [...letters].map((b) => a + b).join(' ')),
    ...[...'aeounAEO'].map((a) => `${a}\u0301${a}\u0308\u0301${a}\u0328${a}\u0327${a}\u0302\u0301`),
    'ffi fl e$x',
  ];
  const cases = PLACES.flatMap((place) => {
    const still = castFont(project, { flavour: 'ttf', place: { design: place, name: 'At' }, keepOverlaps: true });
    if (!still.ok) throw new Error(still.reason);
    const axes = Object.fromEntries(
      project.axes.map((a) => [a.tag, toUser(a, wholePlace(project.axes, place)[a.tag]!)]),
    );
    return [
      { bytes: variable, texts, axes },
      { bytes: still.value.bytes, texts },
    ];
  });
  const out = shapedByHarfBuzz(cases);
  PLACES.forEach((place, k) => {
    const [varying, still] = [out[2 * k]!, out[2 * k + 1]!];
    texts.forEach((text, t) => {
      const [a, b] = [varying[t]!, still[t]!];
      expect([text, a.length]).toEqual([text, b.length]);
      a.forEach((g, i) => {
        const h = b[i]!;
        // A glyph that gives way is another one here, and drawn as that one there.
        if (g.gid !== h.gid) expect([text, text[i] === '$' || text.includes('$')]).toEqual([text, true]);
        const off = Math.max(Math.abs(g.advance - h.advance), Math.abs(g.y - h.y));
        expect([text, JSON.stringify(place), off <= 1]).toEqual([text, JSON.stringify(place), true]);
      });
    });
  });
});

test('axes, instances and styles are named; a default that says nothing is left out of names', () => {
  const tables = readSfnt(variable);
  const names = new Map(name.read(tableOf(tables, 'name')).map((n) => [n.nameID, n.value] as const));
  const stops = readStat(tableOf(tables, 'STAT')).map((s) => [
    s.tag,
    names.get(s.nameID),
    s.value,
    s.elidable,
    s.linked,
  ]);
  expect(stops).toEqual([
    ['wght', 'Light', 300, false, undefined],
    ['wght', 'Regular', 400, true, 700],
    ['wght', 'Medium', 500, false, undefined],
    ['wght', 'Bold', 700, false, undefined],
    ['wght', 'Heavy', 800, false, undefined],
    ['wdth', 'Narrow', 75, false, undefined],
    ['wdth', 'Normal', 100, true, undefined],
  ]);
  expect([...names.values()]).toEqual(expect.arrayContaining(['Narrow Heavy', 'VelmarrowSans-NarrowHeavy']));
});

test('what does not agree keeps the default’s drawing and is named; without a default nothing is cast', () => {
  const n = glyphNamed(project, 'n')!;
  const cut = {
    ...n.drawings.m2!,
    contours: n.drawings.m2!.contours.map((c) => ({ ...c, points: c.points.slice(0, -1) })),
  };
  const odd = { ...project, glyphs: { ...project.glyphs, [n.id]: { ...n, drawings: { ...n.drawings, m2: cut } } } };
  const font = castFont(odd, { flavour: 'ttf', place: { master: 'm1' }, variable: true });
  expect(font.ok && font.value.notes.map((x) => x.reason).join(' ')).toMatch(
    /One glyph whose masters do not agree keeps the default’s drawing: n\./,
  );
  const away = {
    ...project,
    masters: project.masters.map((m) => ({ ...m, place: { ...m.place, wdth: (m.place.wdth ?? 100) - 5 } })),
  };
  const refusal = castFont(away, { flavour: 'ttf', place: { master: 'm1' }, variable: true });
  expect(refusal.ok ? 'cast' : refusal.reason).toMatch(/No master stands where all axes have their defaults/);
});

test('instances are cast by name with classes and links of their own; a master at an instance is cast once', async () => {
  const all = thingsOf(demo);
  expect([all.masters.length, all.instances.length, all.variable.length]).toEqual([6, 10, 1]);
  const bold = all.instances[demo.instances.findIndex((i) => i.name === 'Bold')]!;
  expect(namesOfThing(demo, bold)).toMatchObject({
    fileName: 'VelmarrowSans-Bold',
    names: { weightClass: 700, linkedFamily: 'Velmarrow Sans', linkedStyle: 'Bold' },
  });
  const regular = all.instances[demo.instances.findIndex((i) => i.name === 'Regular')]!;
  expect(distinctThings(demo, [{ master: 'm1' }, regular])).toEqual([regular]);
  const told: string[] = [];
  const cast = await castOutputs(demo, {
    formats: ['otf', 'ttf'],
    things: [bold, ...all.variable],
    progress: (_, total, now) => told.push(`${total} ${now}`),
  });
  if (!cast.ok) throw new Error(cast.reason);
  expect(cast.value.map((f) => f.fileName)).toEqual([
    'VelmarrowSans-Bold.otf',
    'VelmarrowSans-Bold.ttf',
    'VelmarrowSans-Variable.otf',
    'VelmarrowSans-Variable.ttf',
  ]);
  expect(told[0]).toBe('4 VelmarrowSans-Bold, OTF');
  const twice = await castOutputs(
    { ...demo, instances: demo.instances.map((i) => ({ ...i, fileName: 'Same' })) },
    { formats: ['ttf'], things: all.instances },
  );
  expect(twice.ok ? 'cast' : twice.reason).toMatch(/^Two fonts would be Same\.ttf/);
});

test('an axis of single values makes a font for each, without that axis', () => {
  const axes = demo.axes.map((a) => (a.tag === 'wdth' ? { ...a, discrete: [75, 100] } : a));
  const parted = { ...demo, axes };
  const designs = thingsOf(parted).variable;
  expect(designs).toHaveLength(2);
  const [first, second] = [0, 1].map((i) => varyingDesign(parted, i)!);
  expect([first!.main.name, second!.main.name].sort()).toEqual(['Narrow', 'Regular']);
  expect(first!.project.axes.map((a) => a.tag)).toEqual(['wght']);
  expect(designs.map((d) => namesOfThing(parted, d)!.fileName).sort()).toEqual([
    'VelmarrowSans-NarrowVariable',
    'VelmarrowSans-Variable',
  ]);
  for (const { project: own, main } of [first!, second!]) {
    const font = castFont(own, { flavour: 'ttf', place: { master: main.id }, variable: true });
    expect(font.ok).toBe(true);
  }
});

test('a font that varies, opened and cast again, sets text as it did, at every place', async () => {
  const opened = await openAny(variable, 'family.ttf', {});
  if (!opened.ok) throw new Error(opened.reason);
  const back = opened.value.project;
  const main = back.masters.find((m) => back.axes.every((a) => (m.place[a.tag] ?? a.default) === a.default))!;
  const again = castFont(back, { flavour: 'ttf', place: { master: main.id }, variable: true });
  if (!again.ok) throw new Error(again.reason);
  const texts = ['AVATAR Type Wave Yo.', 'a\u0301o\u0308\u0301e\u0328 ffi 1/2', 'To, Ta; LY 1714'];
  const cases = PLACES.slice(2).flatMap((axes) =>
    [variable, again.value.bytes].map((bytes) => ({
      bytes,
      texts,
      axes,
    })),
  );
  const out = shapedByHarfBuzz(cases);
  for (let i = 0; i < out.length; i += 2)
    out[i]!.forEach((line, t) => {
      const twin = out[i + 1]![t]!;
      expect(twin.map((g) => g.gid)).toEqual(line.map((g) => g.gid));
      line.forEach((g, k) => {
        expect(Math.abs(twin[k]!.advance - g.advance)).toBeLessThanOrEqual(1);
        expect(Math.abs(twin[k]!.y - g.y)).toBeLessThanOrEqual(1);
      });
    });
});

test('numbers that vary in rules vary in the font: values, and anchors of rules', () => {
  const text = `feature kern {
  pos T o (wght=300,wdth=100:-30 wght=400,wdth=100:-50 wght=800,wdth=100:-90 wght=600,wdth=75:-20);
} kern;
markClass acutecomb <anchor 0 (wght=400:500 wght=800:540)> @ABOVE;
feature mark {
  pos base n <anchor (wght=300:250 wght=400:270 wght=800:300) (wght=400:540 wght=800:600)> mark @ABOVE;
} mark;`;
  const ruled: Project = {
    ...demo,
    features: { ...demo.features, sections: [{ id: 'f1', title: 'Own', text, options: {} }] },
  };
  const font = castFont(ruled, { flavour: 'ttf', place: { master: 'm1' }, variable: true });
  if (!font.ok) throw new Error(font.reason);
  expect(font.value.notes.filter((n) => n.severity === 'error')).toEqual([]);
  const path = join(folder, 'ruled.ttf');
  writeFileSync(path, font.value.bytes);
  expect(spawnSync('ots-sanitize', [path], { encoding: 'utf8' }).status).toBe(0);
  const texts = ['To', 'n\u0301'];
  const cases = PLACES.flatMap((place) => {
    const still = castFont(ruled, { flavour: 'ttf', place: { design: place, name: 'At' }, keepOverlaps: true });
    if (!still.ok) throw new Error(still.reason);
    return [
      { bytes: font.value.bytes, texts, axes: place },
      { bytes: still.value.bytes, texts },
    ];
  });
  const out = shapedByHarfBuzz(cases);
  const kerned = new Set<number>();
  PLACES.forEach((place, k) => {
    const [varying, still] = [out[2 * k]!, out[2 * k + 1]!];
    texts.forEach((t, i) => {
      varying[i]!.forEach((g, n) => {
        const h = still[i]![n]!;
        const off = Math.max(Math.abs(g.advance - h.advance), Math.abs(g.y - h.y), Math.abs(g.x - h.x));
        expect([t, JSON.stringify(place), off <= 1.01 * (n + 1)]).toEqual([t, JSON.stringify(place), true]);
      });
    });
    kerned.add(varying[0]![0]!.advance);
  });
  expect(kerned.size).toBe(PLACES.length);
});
