import fc from 'fast-check';
import { buildStarter } from '../../../demo/starter';
import { transformContour } from '../geometry/contour';
import type { Project } from '../project/model';
import { glyphNamed, leanOf } from '../project/queries';
import { setSides, sidesOf } from './sides';

const upright = buildStarter();
const [master] = upright.masters;

/** The project with every drawing leaning by an angle about half the x-height, and its masters saying so. */
function leaning(degrees: number): Project {
  const leaned = { ...master!, italicAngle: -degrees };
  const { lean, pivot } = leanOf(leaned);
  const glyphs = Object.fromEntries(
    Object.entries(upright.glyphs).map(([id, g]) => {
      const drawing = g.drawings[master!.id]!;
      const contours = drawing.contours.map((c) => transformContour(c, [1, 0, lean, 1, -lean * pivot, 0]));
      return [id, { ...g, drawings: { [master!.id]: { ...drawing, contours } } }];
    }),
  );
  return { ...upright, masters: [leaned], glyphs };
}

const names = ['n', 'o', 'H'].filter((n) => glyphNamed(upright, n)?.drawings[master!.id]?.contours.length);

test('sides of slanted letters are those of the upright ones', () => {
  expect(names.length).toBeGreaterThan(1);
  fc.assert(
    fc.property(fc.integer({ min: -20, max: 25 }), fc.constantFrom(...names), (degrees, name) => {
      const slanted = leaning(degrees);
      const [own, plain] = [slanted, upright].map((p) => sidesOf(p, glyphNamed(p, name)!, master!.id));
      expect(own!.advance).toBe(plain!.advance);
      if (!('left' in own!) || !('left' in plain!)) throw new Error(`${name} is not drawn`);
      expect(own.left).toBeCloseTo(plain.left, 4);
      expect(own.right).toBeCloseTo(plain.right, 4);
    }),
    { numRuns: 40 },
  );
});

test('sides that are set along the slant are then measured so', () => {
  const slanted = leaning(12);
  const [name] = names;
  const glyph = glyphNamed(slanted, name!)!;
  const done = setSides(slanted, { at: { glyph: glyph.id, master: master!.id }, left: 31, right: -7 });
  if (!done.ok) throw new Error(done.reason);
  const now = sidesOf(done.project, done.project.glyphs[glyph.id]!, master!.id);
  expect(now).toMatchObject({ left: 31, right: -7 });
});
