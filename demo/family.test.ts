import { readFileSync } from 'node:fs';
import { sidesOf } from '../src/core/fitting/sides';
import { readProjectFile, writeProjectFile } from '../src/core/formats/projectFile';
import { curvesOf, signedArea } from '../src/core/geometry/contour';
import { extremes } from '../src/core/geometry/curve';
import { removeOverlaps } from '../src/core/geometry/overlaps';
import { glyphForCodePoint } from '../src/core/project/queries';
import { buildDemo } from './family';

const demo = buildDemo();
const drawn = Object.values(demo.glyphs).filter((g) => g.drawings.m1!.contours.length > 0);

test('the committed project file is what the code makes', () => {
  const committed = readFileSync('public/demo/velmarrow-sans.wendril');
  expect(Buffer.compare(committed, writeProjectFile(demo))).toBe(0);
  expect(readProjectFile(committed, 'velmarrow-sans.wendril').ok).toBe(true);
});

test('every sign of the scenario is drawn', () => {
  for (const c of 'Velmarrow Light Railway Griffin Halt Hamborn & Orde 07:45 – 18:30'.replace(/ /g, '')) {
    expect(glyphForCodePoint(demo, c.codePointAt(0)!)?.drawings.m1?.contours.length).toBeGreaterThan(0);
  }
});

test('curves have points at their extremes, directions are right, overlaps can be removed', () => {
  for (const g of drawn) {
    const { contours } = g.drawings.m1!;
    for (const contour of contours) {
      for (const c of curvesOf(contour)) {
        // Extremes within a curve lie next to its ends only where a terminal's curve ends just beyond one.
        for (const axis of [0, 1] as const) for (const t of extremes(c, axis)) expect(`${g.name} ${t < 0.25 || t > 0.75}`).toBe(`${g.name} true`);
      }
    }
    expect(`${g.name} ${signedArea(contours[0]!) > 0}`).toBe(`${g.name} true`);
    expect(`${g.name} ${removeOverlaps(contours).failed}`).toBe(`${g.name} false`);
  }
});

test('figures share one width; straight sides have more room than round ones', () => {
  const sides = (name: string) => sidesOf(demo, drawn.find((g) => g.name === name)!, 'm1') as { left: number; right: number; advance: number };
  const widths = 'zero one two three four five six seven eight nine'.split(' ').map((n) => sides(n).advance);
  expect(new Set(widths).size).toBe(1);
  expect(sides('n').left).toBeGreaterThan(sides('o').left);
  expect(sides('H').left).toBeGreaterThan(sides('O').left);
  expect(sides('o').left).toBe(sides('o').right);
});
