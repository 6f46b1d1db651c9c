import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import { ellipse, rectangle } from '../drawing/shapes';
import { type Contour, curvesOf, reverseContour } from '../geometry/contour';
import { readCff } from '../opentype/cffRead';
import { readGlyphs } from '../opentype/glyf';
import { head } from '../opentype/head';
import { readSfnt } from '../opentype/sfnt';
import { drawingsOf } from '../project/outline';
import { glyphNamed } from '../project/queries';
import { castFont } from './font';
import { cffShape } from './shape';
import { BOTTOM_EDGE, type Stem, standardWidth, stemHints, TOP_EDGE } from './stems';

const hints = (...contours: Contour[]) => stemHints(contours.map(curvesOf), 1000);
const demo = readyDemo();
const stemsOf = (name: string, master: string) =>
  cffShape(glyphNamed(demo, name)!.drawings[master]!, drawingsOf(demo, master), {
    keepOverlaps: false,
    unitsPerEm: 1000,
  }).stems;

test('an upright bar is a stem across and two edges up', () => {
  expect(hints(rectangle(80, 0, 170, 700))).toEqual({
    horizontal: [
      [21, BOTTOM_EDGE],
      [700, TOP_EDGE],
    ],
    vertical: [[80, 90]],
  });
});

test('an H has its bar and both stems; what lies between them is no stem', () => {
  const h: Contour = {
    closed: true,
    points: [
      [0, 0],
      [90, 0],
      [90, 300],
      [400, 300],
      [400, 0],
      [490, 0],
      [490, 700],
      [400, 700],
      [400, 380],
      [90, 380],
      [90, 700],
      [0, 700],
    ].map(([x, y]) => ({ x: x!, y: y!, type: 'line' })),
  };
  expect(hints(h).vertical).toEqual([
    [0, 90],
    [400, 90],
  ]);
  expect(hints(h).horizontal).toEqual([
    [21, BOTTOM_EDGE],
    [300, 80],
    [700, TOP_EDGE],
  ]);
});

test('a ring has its two walls each way, from its extremes', () => {
  const ring = [ellipse(40, -10, 500, 510), reverseContour(ellipse(130, 70, 410, 430))];
  expect(hints(...ring)).toEqual({
    horizontal: [
      [-10, 80],
      [430, 80],
    ],
    vertical: [
      [40, 90],
      [410, 90],
    ],
  });
});

test('stems never overlap, rise, and lie within the outline', () => {
  const bar = fc.tuple(
    fc.integer({ min: 0, max: 900 }),
    fc.integer({ min: 0, max: 900 }),
    fc.integer({ min: 10, max: 300 }),
    fc.integer({ min: 10, max: 300 }),
  );
  fc.assert(
    fc.property(fc.array(bar, { minLength: 1, maxLength: 40 }), (bars) => {
      const found = hints(...bars.map(([x, y, w, h]) => rectangle(x, y, x + w, y + h)));
      for (const stems of [found.horizontal, found.vertical]) {
        const spans = stems.map(
          ([edge, width]: Stem) => [Math.min(edge, edge + width), Math.max(edge, edge + width)] as const,
        );
        expect(stems.length).toBeLessThanOrEqual(20);
        spans.forEach(([low], i) => {
          if (i > 0) expect(low).toBeGreaterThan(spans[i - 1]![1]);
        });
      }
    }),
  );
});

test('letters of the demo have the stems they are drawn with', () => {
  const upright = (name: string, master: string) => stemsOf(name, master).vertical.map(([, width]) => width);
  expect(upright('n', 'm1')).toEqual([84, 84]);
  expect(upright('m', 'm1')).toHaveLength(3);
  expect(stemsOf('E', 'm1').horizontal.filter(([, w]) => w > 0)).toHaveLength(3);
  expect(stemsOf('e', 'm1').horizontal.filter(([, w]) => w > 0)).toHaveLength(3);
  // The heavy master's are heavier.
  expect(upright('n', 'm3')[0]).toBeGreaterThan(upright('n', 'm1')[0]! * 1.4);
  expect(standardWidth(['n', 'h', 'i', 'u', 'm'].map((name) => stemsOf(name, 'm1').vertical))).toBe(84);
});

test('hints reach the font, and outlines read back the same', () => {
  const cast = castFont(demo, { flavour: 'otf', place: { master: 'm1' } });
  if (!cast.ok) throw new Error(cast.reason);
  const cff = readCff(readSfnt(cast.value.bytes).tables.get('CFF ')!);
  expect(cff.hints).toBeGreaterThan(1000);
});

test('with overlaps kept, TrueType fonts of all masters agree point for point', () => {
  const shapes = demo.masters.map((m) => {
    const cast = castFont(demo, { flavour: 'ttf', place: { master: m.id }, keepOverlaps: true });
    if (!cast.ok) throw new Error(cast.reason);
    const font = readSfnt(cast.value.bytes);
    const { indexToLocFormat } = head.read(font.tables.get('head')!);
    const glyphs = readGlyphs(
      font.tables.get('glyf')!,
      font.tables.get('loca')!,
      indexToLocFormat,
      cast.value.glyphIds.length,
    );
    return glyphs.map((g) =>
      g.kind === 'simple' ? g.contours.map((c) => c.map((p) => (p.on ? 'o' : '.')).join('')) : g.kind,
    );
  });
  for (const other of shapes.slice(1)) expect(other).toEqual(shapes[0]);
});
