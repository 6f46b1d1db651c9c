import { readyDemo } from '../../../demo/ready';
import type { Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { waypointId } from '../project/waypoints';
import { addWaypoint } from '../variation/waypointEdits';
import { profileOf } from './profile';
import { addTracking, setSides, sidesOf } from './sides';

const demo = readyDemo();
const PLACE = { wght: 600, wdth: 100 };
const AT = waypointId(PLACE);
const done = (o: { ok: boolean; project?: Project; reason?: string }): Project => {
  if (!o.ok) throw new Error(o.reason);
  return o.project!;
};
const [n, o] = ['n', 'o'].map((name) => glyphNamed(demo, name)!.id);
const project = done(addWaypoint(demo, { glyph: n!, place: PLACE }));

test('the sides of a waypoint are set, and reach what lies between', () => {
  const wider = done(setSides(project, { at: { glyph: n!, master: AT }, left: 90, right: 88 }));
  expect(sidesOf(wider, wider.glyphs[n!]!, AT)).toMatchObject({ left: 90, right: 88 });
  expect(wider.glyphs[n!]!.drawings).toEqual(project.glyphs[n!]!.drawings);
  const half = waypointId({ wght: 500, wdth: 100 });
  const [before, after] = [project, wider].map((p) => sidesOf(p, p.glyphs[n!]!, half) as { left: number });
  expect(after!.left).toBeGreaterThan(before!.left + 5);
});

test('letters without a waypoint stand there as they lie between, and keep their sides', () => {
  const there = sidesOf(project, project.glyphs[o!]!, AT) as { left: number; advance: number };
  const ends = ['m1', 'm3'].map((m) => sidesOf(project, project.glyphs[o!]!, m) as { left: number; advance: number });
  expect(there.left).toBeLessThan(Math.max(...ends.map((s) => s.left)));
  expect(there.left).toBeGreaterThan(Math.min(...ends.map((s) => s.left)));
  expect(profileOf(project, o!, AT).advance).toBeCloseTo(there.advance, 6);
  const refusal = setSides(project, { at: { glyph: o!, master: AT }, left: 10 });
  expect(refusal.ok ? 'set' : refusal.reason).toBe('o has no waypoint there; its sides are set in the masters.');
  const even = addTracking(project, { glyphs: [n!, o!], master: AT, value: 4 });
  expect(even.ok).toBe(false);
  expect(addTracking(project, { glyphs: [n!], master: AT, value: 4 }).ok).toBe(true);
});
