import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import { signedArea } from '../geometry/contour';
import type { Drawing, Glyph, Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { planted, smoothPoints } from '../testing/plantedKink';
import { brokenGlyphs } from './between';
import { kinksOf, looksAt, mendKinks, placesBetween, withoutKinks } from './kinks';

const demo = readyDemo();
const looks = looksAt(demo, placesBetween(demo));
const withGlyph = (glyph: Glyph): Project => ({ ...demo, glyphs: { ...demo.glyphs, [glyph.id]: glyph } });

test('no smooth point of the demo breaks between its masters', () => {
  expect(brokenGlyphs(demo).map((k) => demo.glyphs[k.glyph]!.name)).toEqual([]);
});

test('a kink is found where it was planted and not elsewhere, worst where it is worst, and mended by sliding', () => {
  const letters = ['o', 'e', 'c', 's', 'a', 'S', 'eight', 'ampersand'];
  let [found, slid] = [0, 0];
  fc.assert(
    fc.property(fc.constantFrom(...letters), fc.nat(99), fc.constantFrom(18, 26, -22), (name, n, by) => {
      const points = smoothPoints(glyphNamed(demo, name)!.drawings.m3!);
      const at = points[n % points.length]!;
      const glyph = planted(glyphNamed(demo, name)!, 'm3', at, by);
      const project = withGlyph(glyph);
      const kinks = kinksOf(project, glyph, looks);
      for (const k of kinks) expect([name, k.contour, k.point]).toEqual([name, ...at]);
      if (kinks.length === 0) return;
      found++;
      expect(kinks[0]!.degrees).toBeGreaterThan(2);
      const mended = withoutKinks(project, glyph, looks);
      expect(mended.mended + mended.left).toBe(1);
      if (mended.left > 0) return;
      slid++;
      expect(kinksOf(withGlyph(mended.glyph), mended.glyph, looks)).toEqual([]);
      // Sliding along the tangent hardly changes the shape.
      const area = (d: Drawing) => Math.abs(d.contours.reduce((sum, c) => sum + signedArea(c), 0));
      for (const m of demo.masters) {
        const [was, is] = [area(glyph.drawings[m.id]!), area(mended.glyph.drawings[m.id]!)];
        expect(Math.abs(was - is) / was).toBeLessThan(0.02);
      }
    }),
    { numRuns: 160, seed: 4 },
  );
  expect(found).toBeGreaterThan(60);
  expect(slid).toBeGreaterThan(20);
});

test('mending is one edit; nothing to mend, and one master, say so', () => {
  const glyph = ['o', 'e', 'c', 's', 'a', 'S']
    .flatMap((name) =>
      smoothPoints(glyphNamed(demo, name)!.drawings.m3!).map((at) => planted(glyphNamed(demo, name)!, 'm3', at, 18)),
    )
    .find((g) => kinksOf(withGlyph(g), g, looks).some((k) => k.slide !== undefined))!;
  const done = mendKinks(withGlyph(glyph), { glyphs: [glyph.id] });
  expect(done.ok && done.sentence).toMatch(/^Mended 1 kink/);
  expect(brokenGlyphs(done.ok ? done.project : demo)).toEqual([]);
  expect(mendKinks(demo, { glyphs: [glyph.id] })).toMatchObject({
    ok: false,
    reason: 'No smooth point of these glyphs breaks between the masters.',
  });
  const one = { ...demo, masters: demo.masters.slice(0, 1) };
  expect(brokenGlyphs(one)).toEqual([]);
  expect(mendKinks(one, { glyphs: [glyph.id] })).toMatchObject({ ok: false });
});
