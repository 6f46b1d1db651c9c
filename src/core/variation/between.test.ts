import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import { isOnCurve, withStart } from '../geometry/contour';
import { blendedDrawing } from '../project/blending';
import type { Drawing, Glyph, Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { agreementOf } from './agreement';
import { brokenGlyphs } from './between';
import { drawingsOf, looksAt, placesBetween } from './kinks';
import { mendedGlyph } from './mending';
import { tanglesOf } from './tangles';

const demo = readyDemo();
const looks = looksAt(demo, placesBetween(demo));
const withGlyph = (glyph: Glyph): Project => ({ ...demo, glyphs: { ...demo.glyphs, [glyph.id]: glyph } });

/** A glyph whose first contour starts at another corner in one master: equal in number, wrong in shape. */
function turned(name: string, master: string, by: number): Glyph {
  const glyph = glyphNamed(demo, name)!;
  const d = glyph.drawings[master]!;
  const on = d.contours[0]!.points.flatMap((p, i) => (isOnCurve(p) ? [i] : []));
  const contours = d.contours.map((c, i) => (i === 0 ? withStart(c, on[by % on.length]!) : c));
  return { ...glyph, drawings: { ...glyph.drawings, [master]: { ...d, contours } } };
}

/** Whether a polygon of straight lines crosses itself, by every two of its sides: the plain way. */
function crossesItself(d: Drawing): boolean {
  const p = d.contours[0]!.points;
  const side = (a: number, b: number, c: number) =>
    Math.sign((p[b]!.x - p[a]!.x) * (p[c]!.y - p[a]!.y) - (p[b]!.y - p[a]!.y) * (p[c]!.x - p[a]!.x));
  const n = p.length;
  return p.some((_, i) =>
    p.some((_, j) => {
      const [a, b, c, e] = [i, (i + 1) % n, j, (j + 1) % n];
      return new Set([a, b, c, e]).size === 4 && side(a, b, c) * side(a, b, e) < 0 && side(c, e, a) * side(c, e, b) < 0;
    }),
  );
}

test('a start at another corner is found by the loops it makes between, as a plain search finds them; mended, they are gone', () => {
  let [found, straight] = [0, 0];
  fc.assert(
    fc.property(fc.constantFrom('T', 'E', 'L', 'k', 'z', 'H', 'S', 's'), fc.integer({ min: 1, max: 7 }), (name, by) => {
      const glyph = turned(name, 'm3', by);
      const project = withGlyph(glyph);
      const tangles = tanglesOf(project, glyph, looks);
      const drawings = drawingsOf(project, glyph);
      const lines = drawings.every(
        (d) => d.contours.length === 1 && d.contours[0]!.points.every((p) => p.type === 'line'),
      );
      if (lines) {
        straight++;
        const plain = looks.some((l) => crossesItself(blendedDrawing(drawings, l.weights)));
        expect([name, by, tangles.length > 0]).toEqual([name, by, plain]);
      }
      if (tangles.length === 0) return;
      found++;
      // What crosses between has something for the report of agreement too, and its mend leaves nothing that crosses.
      if (agreementOf(project, glyph).length === 0) return;
      const mended = mendedGlyph(project, glyph).glyph;
      expect([name, by, tanglesOf(withGlyph(mended), mended, looks)]).toEqual([name, by, []]);
    }),
    { numRuns: 60, seed: 11 },
  );
  expect(found).toBeGreaterThan(15);
  expect(straight).toBeGreaterThan(15);
});

test('no outlines of the demo cross between its masters; of several glyphs the worst comes first', () => {
  const [T, E] = [turned('T', 'm3', 3), turned('E', 'm3', 4)];
  const project = { ...demo, glyphs: { ...demo.glyphs, [T.id]: T, [E.id]: E } };
  const told: number[] = [];
  const broken = brokenGlyphs(project, (done) => told.push(done));
  expect(broken.map((b) => demo.glyphs[b.glyph]!.name).sort()).toEqual(['E', 'T']);
  const sizes = broken.map((b) => b.tangles[0]!.units);
  expect(sizes).toEqual([...sizes].sort((a, b) => b - a));
  expect(told.length).toBeGreaterThan(20);
});
