import { readyDemo } from '../../../demo/ready';
import type { Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { addWaypoint } from '../variation/waypointEdits';
import { spacingFaults } from './spacingAt';

const demo = readyDemo();
const medium = demo.instances.findIndex((i) => i.name === 'Medium');

/** The demo with a waypoint of a glyph at an instance, whose sides are wider by some units. */
function widened(glyph: string, by: number): Project {
  const id = glyphNamed(demo, glyph)!.id;
  const made = addWaypoint(demo, { glyph: id, place: demo.instances[medium]!.place });
  if (!made.ok) throw new Error(made.reason);
  const own = made.project.glyphs[id]!;
  const [w] = own.waypoints;
  const drawing = {
    ...w!.drawing,
    advance: w!.drawing.advance + 2 * by,
    contours: w!.drawing.contours.map((c) => ({ ...c, points: c.points.map((p) => ({ ...p, x: p.x + by })) })),
  };
  return { ...made.project, glyphs: { ...made.project.glyphs, [id]: { ...own, waypoints: [{ ...w!, drawing }] } } };
}

test('at no instance of the demo are figures uneven or sides off what they follow', () => {
  for (const i of demo.instances.keys()) expect([i, spacingFaults(demo, i)]).toEqual([i, []]);
  expect(spacingFaults(demo, 99)).toEqual([]);
});

test('a figure that is wider at an instance alone is told there, and at no other', () => {
  const project = widened('three', 9);
  expect(spacingFaults(project, medium)).toEqual([
    expect.stringMatching(/^In Medium figures are not all \d+ wide: three\.$/),
  ]);
  expect(
    spacingFaults(
      project,
      demo.instances.findIndex((i) => i.name === 'Regular'),
    ),
  ).toEqual([]);
});

test('a side that is off what it follows at an instance is told; one that a master has off already is not', () => {
  const source = glyphNamed(demo, 'n')!;
  const followers = Object.values(demo.glyphs).filter((g) =>
    Object.values(g.follows).some((list) => list.some((f) => f.glyph === source.id)),
  );
  expect(followers.length).toBeGreaterThan(0);
  const [told] = spacingFaults(widened('n', 12), medium);
  expect(told).toMatch(/^In Medium sides are off what they follow: /);
  expect(followers.some((g) => told!.includes(g.name))).toBe(true);
});
