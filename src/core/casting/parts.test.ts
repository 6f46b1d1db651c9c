import fc from 'fast-check';
import { buildStarter } from '../../../demo/starter';
import { movePoints } from '../drawing/edits';
import { postScriptSafe, styleNames } from '../fontfacts/names';
import type { Master, Project } from '../project/model';
import { drawingsOf } from '../project/outline';
import { glyphNamed } from '../project/queries';
import { CastCache } from './cache';
import { alignmentZones, lineMetrics } from './metrics';
import { cffShape } from './shape';

const demo = buildStarter();
const master = demo.masters[0]!;
const position = fc.integer({ min: -300, max: 900 });
const overshoot = fc.integer({ min: -20, max: 20 });

test('alignment zones rise, stay apart and are no more than seven pairs, whatever the zones', () => {
  const zone = fc.record({ position, overshoot });
  fc.assert(
    fc.property(fc.array(zone, { minLength: 5, maxLength: 12 }), (zones) => {
      const named = zones.map((z, i) => ({ ...z, name: String(i) }));
      const [baseline, xHeight, capHeight, ascender, descender, ...own] = named as [never, never, never, never, never];
      const m: Master = { ...master, zones: { baseline, xHeight, capHeight, ascender, descender, own } };
      const { blueValues, otherBlues } = alignmentZones(m);
      expect(blueValues.length % 2).toBe(0);
      expect(blueValues.length).toBeLessThanOrEqual(14);
      blueValues.forEach((v, i) => {
        if (i > 0) expect(v).toBeGreaterThanOrEqual(blueValues[i - 1]!);
      });
      for (let i = 2; i < blueValues.length; i += 2) expect(blueValues[i]! - blueValues[i - 1]!).toBeGreaterThan(3);
      expect(otherBlues[0]!).toBeLessThanOrEqual(otherBlues[1]!);
    }),
  );
  expect(alignmentZones(master)).toEqual({
    blueValues: [-11, 0, 520, 531, 700, 711, 742, 752],
    otherBlues: [-212, -204],
  });
});

test('line metrics follow the zones, cover every glyph, and take what is overridden', () => {
  const box = { xMin: 0, yMin: -260, xMax: 900, yMax: 990 };
  // Accents at 990 are not clipped, and lines of text keep clear of them.
  expect(lineMetrics(master, box, 1000)).toEqual({
    typoAscender: 990,
    typoDescender: -260,
    typoLineGap: 0,
    hheaAscender: 990,
    hheaDescender: -260,
    hheaLineGap: 0,
    winAscent: 990,
    winDescent: 260,
  });
  // An ornament as tall as a page does not tear lines apart; within the zones they stay where they are.
  expect(lineMetrics(master, { ...box, yMax: 3000, yMin: -100 }, 1000)).toMatchObject({
    typoAscender: 1042,
    typoDescender: -204,
    winAscent: 3000,
  });
  const over = lineMetrics(
    { ...master, verticalMetrics: { typoAscender: 800, typoLineGap: 90, winDescent: 240 } },
    box,
    1000,
  );
  expect(over).toMatchObject({
    typoAscender: 800,
    typoLineGap: 90,
    hheaAscender: 800,
    hheaLineGap: 90,
    winAscent: 990,
    winDescent: 240,
  });
});

test('names said by the source win over the rule', () => {
  const info = {
    postscriptFontName: 'Orde-Text',
    openTypeOS2WeightClass: 350,
    openTypeNamePreferredFamilyName: 'Orde',
    openTypeNamePreferredSubfamilyName: 'Text',
    styleMapFamilyName: 'Orde Text',
    styleMapStyleName: 'bold',
    openTypeNameVersion: 'Version 2.5',
  };
  expect(styleNames(demo, { ...master, info })).toMatchObject({
    family: 'Orde',
    style: 'Text',
    postScriptName: 'Orde-Text',
    weightClass: 350,
    linkedFamily: 'Orde Text',
    linkedStyle: 'Bold',
    version: 'Version 2.5',
    macStyle: 1,
  });
  expect(postScriptSafe('Żurawka (Sans) [1]%')).toBe('ZurawkaSans1');
  fc.assert(fc.property(fc.string(), (text) => expect(postScriptSafe(text)).toMatch(/^[!-~]{0,63}$/)));
});

test('a cached composite is made anew when a base of a base changes, and only then', () => {
  const part = (name: string, base: string): Project['glyphs'] => {
    const g = glyphNamed(demo, name)!;
    return {
      [g.id]: {
        ...g,
        drawings: {
          m1: {
            ...g.drawings.m1!,
            contours: [],
            components: [{ glyph: glyphNamed(demo, base)!.id, transform: [1, 0, 0, 1, 5, 0] }],
          },
        },
      },
    };
  };
  const p: Project = { ...demo, glyphs: { ...demo.glyphs, ...part('eacute', 'ntilde'), ...part('ntilde', 'n') } };
  const cache = new CastCache();
  const shape = (q: Project) =>
    cache.cffShape(q.glyphs[glyphNamed(q, 'eacute')!.id]!.drawings.m1!, drawingsOf(q, 'm1'), {
      keepOverlaps: true,
      unitsPerEm: 1000,
    });
  const first = shape(p);
  expect(shape({ ...p, texts: { ...p.texts, galley: 'x' } })).toBe(first);
  const moved = movePoints(p, { at: { glyph: glyphNamed(p, 'n')!.id, master: 'm1' }, points: ['0:0'], dx: -9, dy: 0 });
  if (!moved.ok) throw new Error(moved.reason);
  const second = shape(moved.project);
  expect(second).not.toBe(first);
  expect(second).toEqual(
    cffShape(moved.project.glyphs[glyphNamed(p, 'eacute')!.id]!.drawings.m1!, drawingsOf(moved.project, 'm1'), {
      keepOverlaps: true,
      unitsPerEm: 1000,
    }),
  );
  const elsewhere = movePoints(p, {
    at: { glyph: glyphNamed(p, 'o')!.id, master: 'm1' },
    points: ['0:0'],
    dx: 4,
    dy: 0,
  });
  if (!elsewhere.ok) throw new Error(elsewhere.reason);
  expect(
    cache.cffShape(p.glyphs[glyphNamed(p, 'eacute')!.id]!.drawings.m1!, drawingsOf(elsewhere.project, 'm1'), {
      keepOverlaps: true,
      unitsPerEm: 1000,
    }).box,
  ).toEqual(first.box);
});
