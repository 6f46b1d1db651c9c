import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { castFont } from '../src/core/casting/font';
import { projectGround, sectionTexts } from '../src/core/features/ground';
import { sidesOf } from '../src/core/fitting/sides';
import { readProjectFile, writeProjectFile } from '../src/core/formats/project/projectFile';
import type { Contour } from '../src/core/geometry/contour';
import { curvesOf, signedArea } from '../src/core/geometry/contour';
import { extremes } from '../src/core/geometry/curve';
import { removeOverlaps } from '../src/core/geometry/overlaps';
import { blendedDrawing } from '../src/core/project/blending';
import { kerningOf } from '../src/core/project/kerningLookup';
import { flattened } from '../src/core/project/outline';
import { glyphForCodePoint, glyphNamed } from '../src/core/project/queries';
import { sameStructure } from '../src/core/project/structure';
import { masterWeights, normalised, variationModel } from '../src/core/project/variationModel';
import { buildDemo, buildUnspaced } from './family';
import { FOLLOWS } from './follows';
import { LANGUAGES } from './languages';
import { FIGURES } from './sets';
import { fitByModel, kernByModel, type Spacing, withSides } from './spacing';
import spacing from './spacing.json';

const demo = buildDemo();
const glyphs = Object.values(demo.glyphs);
const drawn = glyphs.filter((g) => g.drawings.m1!.contours.length > 0);
const glyph = (name: string) => glyphNamed(demo, name) ?? fail(name);
const fail = (name: string): never => {
  throw new Error(`${name} is not in the family`);
};

test('the committed project file is what the code makes', () => {
  const committed = readFileSync('public/demo/velmarrow-sans.wendril');
  expect(Buffer.compare(committed, writeProjectFile(demo))).toBe(0);
  const opened = readProjectFile(committed, 'velmarrow-sans.wendril');
  if (!opened.ok) throw new Error(opened.reason);
  expect(opened.value.masters.map((m) => m.name)).toEqual([
    'Light',
    'Regular',
    'Heavy',
    'Narrow Light',
    'Narrow',
    'Narrow Heavy',
  ]);
  expect(opened.value.instances).toEqual(demo.instances);
  expect(Object.keys(opened.value.glyphs)).toHaveLength(glyphs.length);
});

test('every letter of the languages of Europe is there, small and capital', () => {
  expect(Object.keys(LANGUAGES).length).toBeGreaterThanOrEqual(40);
  const missing = Object.entries(LANGUAGES).flatMap(([language, letters]) =>
    [...letters.replace(/ /g, '').normalize('NFC')]
      .flatMap((c) => [c, ...(c === 'ĸ' || c === 'ß' ? [] : [...c.toUpperCase()])])
      .flatMap((c) => (glyphForCodePoint(demo, c.codePointAt(0)!) ? [] : [`${language} ${c}`])),
  );
  expect(missing).toEqual([]);
  const scenario = 'Velmarrow Light Railway Griffin Halt Hamborn & Orde 07:45 – 18:30 → ↗ ẞ “” ‹› €£¥$¢ ½';
  for (const c of scenario.replace(/ /g, ''))
    expect(
      flattened(glyphForCodePoint(demo, c.codePointAt(0)!)!.drawings.m1!, (id) => demo.glyphs[id]?.drawings.m1).length,
    ).toBeGreaterThan(0);
});

test('all masters agree in contours, points, smoothness, components and anchors', () => {
  for (const g of glyphs) {
    const drawings = demo.masters.map((m) => g.drawings[m.id]!);
    expect(`${g.name} ${sameStructure(drawings)}`).toBe(`${g.name} true`);
    const facts = drawings.map((d) =>
      JSON.stringify([d.contours.map((c) => c.points.map((p) => p.smooth ?? false)), d.anchors.map((a) => a.name)]),
    );
    expect(`${g.name} ${new Set(facts).size}`).toBe(`${g.name} 1`);
  }
});

test('curves have points at their extremes, directions are right, overlaps can be removed, in every master', () => {
  const inside: string[] = [];
  for (const g of drawn) {
    for (const { id, name } of demo.masters) {
      const { contours } = g.drawings[id]!;
      const where = `${g.name} ${name}`;
      for (const contour of contours) {
        for (const c of curvesOf(contour)) {
          // Extremes within a curve lie next to its ends only where a terminal's curve ends just beyond one.
          for (const axis of [0, 1] as const)
            for (const t of extremes(c, axis)) if (t > 0.3 && t < 0.7) inside.push(`${where}: ${c.map(Math.round)}`);
        }
      }
      expect(`${where} ${Math.max(...contours.map(signedArea)) > 0}`).toBe(`${where} true`);
      expect(`${where} ${removeOverlaps(contours).failed}`).toBe(`${where} false`);
    }
  }
  expect(inside).toEqual([]);
});

/** Where a smooth point is not: its turn, beyond what rounding its neighbours to whole units can do. */
function kinks(contours: readonly Contour[]): string[] {
  return contours.flatMap(({ points }, c) =>
    points.flatMap((p, i) => {
      if (!p.smooth) return [];
      const a = points[(i - 1 + points.length) % points.length]!;
      const b = points[(i + 1) % points.length]!;
      const [ax, ay, bx, by] = [p.x - a.x, p.y - a.y, b.x - p.x, b.y - p.y];
      const turn = Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by));
      const slack = 1.1 / Math.hypot(ax, ay) + 1.1 / Math.hypot(bx, by) + 0.006;
      return turn > slack ? [`contour ${c}, point ${i}: ${((turn * 180) / Math.PI).toFixed(1)}°`] : [];
    }),
  );
}

test('no smooth point is a kink at any place between the masters', () => {
  const model = variationModel(demo.masters.map((m) => normalised(demo.axes, m.place)));
  const found: string[] = [];
  for (const wght of [300, 350, 400, 500, 600, 700, 800]) {
    for (const wdth of [75, 80, 87.5, 100]) {
      const weights = masterWeights(model, normalised(demo.axes, { wght, wdth }));
      for (const g of drawn) {
        const { contours } = blendedDrawing(
          demo.masters.map((m) => g.drawings[m.id]!),
          weights,
        );
        for (const kink of kinks(contours)) found.push(`${g.name} at ${wght}/${wdth}: ${kink}`);
      }
    }
  }
  expect(found).toEqual([]);
});

test('figures share one width; round sides have less room than straight ones; sides follow those they are bound to', () => {
  for (const { id } of demo.masters) {
    const sides = (name: string) => sidesOf(demo, glyph(name), id) as { left: number; right: number; advance: number };
    expect(new Set(FIGURES.map((n) => sides(n).advance)).size).toBe(1);
    expect(new Set(['dollar', 'Euro', 'plus', 'equal', 'zero'].map((n) => sides(n).advance)).size).toBe(1);
    expect(sides('n').left).toBeGreaterThan(sides('o').left);
    expect(sides('H').left).toBeGreaterThan(sides('O').left);
    for (const [name, side, of, ofSide] of FOLLOWS)
      expect(`${id} ${name} ${side} ${sides(name)[side]}`).toBe(`${id} ${name} ${side} ${sides(of)[ofSide]}`);
  }
});

test('every master is kerned, in the same pairs, and closes what stands open', () => {
  const keys = demo.masters.map((m) => Object.keys(m.kerning).join());
  expect(new Set(keys).size).toBe(1);
  for (const m of demo.masters) {
    expect(kerningOf(demo, m, glyph('A').id, glyph('V').id)?.value).toBeLessThan(-10);
    expect(m.kerning['group:k1-T group:k2-o']).toBeLessThan(-20);
    expect(m.kerning['group:k1-r group:k2-period']).toBeLessThan(-10);
  }
});

test('the spacing that is shipped is what the tool makes of the drawings', () => {
  const drawn = buildUnspaced();
  const regular = { ...drawn, masters: drawn.masters.filter((m) => m.id === 'm1') };
  expect(fitByModel(regular).m1).toEqual((spacing as unknown as Spacing).sides.m1);
  const kerned = kernByModel(withSides(regular, { m1: (spacing as unknown as Spacing).sides.m1! })).m1!;
  const shipped = demo.masters.find((m) => m.id === 'm1')!.kerning;
  // To the step that kerning is proposed in.
  for (const key of ['group:k1-A group:k2-W', 'group:k1-T group:k2-o'])
    expect([key, Math.abs(kerned[key]! - shipped[key]!) <= 5]).toEqual([key, true]);
});

test('every group member, rule and recipe names a glyph of the family', () => {
  for (const group of demo.groups) for (const id of group.members) expect(demo.glyphs[id]?.name).toBeDefined();
  const words = sectionTexts(demo.features.sections, projectGround(demo, 'm1')).flatMap((s) =>
    [...s.text.replace(/"[^"]*"/g, '').matchAll(/\[([^\]]+)\]/g)].flatMap((m) => m[1]!.split(/[\s-]+/)),
  );
  expect(words.length).toBeGreaterThan(200);
  expect(words.filter((w) => !glyphNamed(demo, w))).toEqual([]);
  for (const g of glyphs) for (const c of g.drawings.m1!.components) expect(demo.glyphs[c.glyph]).toBeDefined();
});

test('earlier spelling, raised colons and room between capitals are set by the shaper as the rules say', () => {
  const font = castFont(demo, { flavour: 'otf', place: { master: 'm1' } });
  if (!font.ok) throw new Error(font.reason);
  const lines: readonly (readonly [text: string, features: string[], row: string])[] = [
    ['suns', ['hist'], 'longs u n s'],
    ['misfit', ['hist', 'liga=0'], 'm i s f i t'],
    ['missi', ['hist', 'hlig'], 'm i longs_longs i'],
    ['stil', ['hist', 'hlig'], 'longs_t i l'],
    ['suns', [], 's u n s'],
    ['07:45', ['ss04'], 'zero seven colon.case four five'],
    ['a:5', ['ss04'], 'a colon five'],
    ['gay', ['salt'], 'g.ss02 a.ss01 y.ss03'],
    ['HAM', ['cpsp'], 'H A M'],
    ['HAM', [], 'H A M'],
  ];
  const shaped = JSON.parse(
    execFileSync(process.execPath, ['scripts/shape-many.mjs'], {
      input: JSON.stringify(
        lines.map(([text, features]) => ({
          font: Buffer.from(font.value.bytes).toString('base64'),
          texts: [text],
          features,
        })),
      ),
      encoding: 'utf8',
    }),
  ) as { gid: number; advance: number }[][][];
  const name = (gid: number) => demo.glyphs[font.value.glyphIds[gid]!]!.name;
  expect(shaped.map(([line]) => line!.map((g) => name(g.gid)).join(' '))).toEqual(lines.map(([, , row]) => row));
  const [spaced, plain] = shaped.slice(-2).map(([line]) => line!.reduce((sum, g) => sum + g.advance, 0));
  expect(spaced! - plain!).toBe(30);
});
