import { castFont } from '../casting/font';
import { square } from '../geometry/testShapes';
import { createProject, emptyDrawing } from './create';
import type { Component, Glyph, Project } from './model';
import { contoursDrawnOut, cycleFrom, drawingsOf, flattened, MOST_DRAWN_OUT } from './outline';

/** Twenty-six glyphs, each built twice of the one before: 67 million contours in the last, from one drawn square. */
function doubled(): Project {
  const base = createProject({ family: 'Orde', masterName: 'Regular', created: 0 });
  const used = (glyph: string): Component => ({ glyph, transform: [1, 0, 0, 1, 10, 0] });
  const made = Array.from({ length: 27 }, (_, i): Glyph => {
    const drawing = emptyDrawing(600);
    const drawn = i === 0 ? { ...drawing, contours: [square(0, 0, 100)] } : drawing;
    const components = i === 0 ? [] : [used(`d${i - 1}`), used(`d${i - 1}`)];
    return {
      ...base.glyphs[base.glyphOrder[0]!]!,
      id: `d${i}`,
      name: `doubled${i}`,
      unicodes: [],
      drawings: { m1: { ...drawn, components } },
    };
  });
  return {
    ...base,
    glyphOrder: [...base.glyphOrder, ...made.map((g) => g.id)],
    glyphs: { ...base.glyphs, ...Object.fromEntries(made.map((g) => [g.id, g])) },
  };
}

test('parts that double and double are counted, not drawn out; a font of them is refused by the glyph', () => {
  const project = doubled();
  const source = drawingsOf(project, 'm1');
  expect(contoursDrawnOut(source('d10')!, source)).toBe(1024);
  expect(contoursDrawnOut(source('d26')!, source)).toBeGreaterThan(MOST_DRAWN_OUT);
  expect(flattened(source('d10')!, source)).toHaveLength(1024);
  expect(flattened(source('d26')!, source).length).toBeLessThanOrEqual(MOST_DRAWN_OUT);
  expect(cycleFrom('d26', source)).toBeUndefined();
  expect(castFont(project, { flavour: 'ttf', place: { master: 'm1' } })).toMatchObject({
    ok: false,
    reason: expect.stringMatching(/^The glyph “doubled15” is built of [\d,]+ contours, more than a font can hold\.$/),
  });
});

test('to look at, a font is made without the glyphs that cannot be: they stand blank and are named', () => {
  const project = doubled();
  const o = project.glyphs.d0!;
  // As a defect would leave it: a contour without its points.
  const broken = {
    ...o,
    id: 'bad',
    name: 'broken',
    drawings: { m1: { ...o.drawings.m1!, contours: [{ closed: true }] as never } },
  };
  const damaged = {
    ...project,
    glyphOrder: [...project.glyphOrder, 'bad'],
    glyphs: { ...project.glyphs, bad: broken },
  };
  const font = castFont(damaged, { flavour: 'otf', place: { master: 'm1' }, leaveOut: true });
  if (!font.ok) throw new Error(font.reason);
  const left = font.value.notes.filter((n) => n.severity === 'error');
  expect(left.map((n) => n.place?.glyph)).toEqual([
    ...Array.from({ length: 12 }, (_, i) => `doubled${i + 15}`),
    'broken',
  ]);
  expect(left.at(-1)!.reason).toMatch(/^The glyph “broken” cannot be made: /);
  expect(font.value.glyphIds).toHaveLength(damaged.glyphOrder.length);
  const sound = { ...project, glyphOrder: project.glyphOrder.slice(0, 12) };
  const [plain, looked] = [false, true].map((leaveOut) =>
    castFont(sound, { flavour: 'otf', place: { master: 'm1' }, leaveOut }),
  );
  expect(looked).toEqual(plain);
});
