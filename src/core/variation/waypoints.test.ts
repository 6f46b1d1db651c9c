import { readyDemo } from '../../../demo/ready';
import { blendedDrawing } from '../project/blending';
import type { Drawing, Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { instanceAt } from './instance';

const demo = readyDemo();
const o = glyphNamed(demo, 'o')!;
/** The o of the Regular, wider by some units to the right of its middle. */
const widened = (d: Drawing, by: number): Drawing => ({
  ...d,
  advance: d.advance + by,
  contours: d.contours.map((c) => ({ ...c, points: c.points.map((p) => ({ ...p, x: p.x > 280 ? p.x + by : p.x })) })),
});
const middle: Readonly<Record<string, number>> = { ...demo.masters[0]!.place, wght: 600 };
const [plain] = instanceAt(demo, middle, 'x').project.masters;
const at = (p: Project, wght: number) => {
  const { project, stuck } = instanceAt(p, { ...middle, wght }, 'x');
  expect(stuck).toEqual([]);
  return Object.values(glyphNamed(project, 'o')!.drawings)[0]!;
};

test('a waypoint has its say at its place and fades to the masters beside it', () => {
  const usual = at(demo, 600);
  const own = {
    ...demo,
    glyphs: { ...demo.glyphs, [o.id]: { ...o, waypoints: [{ place: middle, drawing: widened(usual, 40) }] } },
  };
  expect(plain).toBeDefined();
  expect(at(own, 600).advance).toBeCloseTo(usual.advance + 40, 6);
  for (const m of demo.masters.filter((x) => x.place.wdth === middle.wdth)) {
    const [before, after] = [at(demo, m.place.wght!), at(own, m.place.wght!)];
    expect(after.advance).toBeCloseTo(before.advance, 6);
  }
  const between = at(own, 500).advance - at(demo, 500).advance;
  expect(between).toBeGreaterThan(5);
  expect(between).toBeLessThan(40);
  // Other glyphs do not know of it.
  const n = (p: Project) => Object.values(glyphNamed(instanceAt(p, middle, 'x').project, 'n')!.drawings)[0]!.advance;
  expect(n(own)).toBe(n(demo));
});

test('a waypoint that does not agree with its masters holds its glyph at the default', () => {
  const broken = {
    ...demo,
    glyphs: {
      ...demo.glyphs,
      [o.id]: {
        ...o,
        waypoints: [{ place: middle, drawing: { ...o.drawings.m1!, contours: o.drawings.m1!.contours.slice(1) } }],
      },
    },
  };
  const { project, stuck } = instanceAt(broken, middle, 'x');
  expect(stuck).toEqual(['o']);
  expect(Object.values(glyphNamed(project, 'o')!.drawings)[0]).toBe(o.drawings.m1);
  expect(blendedDrawing([o.drawings.m1!], [1]).advance).toBe(o.drawings.m1!.advance);
});
