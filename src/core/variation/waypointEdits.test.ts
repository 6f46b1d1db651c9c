import { readyDemo } from '../../../demo/ready';
import { deletePoints, movePoints } from '../drawing/edits';
import { setSides } from '../fitting/sides';
import { readProjectFile, writeProjectFile } from '../formats/project/projectFile';
import type { Contour } from '../geometry/contour';
import { drawingsAt } from '../project/drawingsAt';
import type { Outcome } from '../project/edit';
import type { Glyph, Project } from '../project/model';
import { drawingsOf, flattened } from '../project/outline';
import { drawingOf, glyphNamed, masterOf } from '../project/queries';
import { agreeingMasters } from '../project/structure';
import { isWaypointId, waypointId, waypointPlace } from '../project/waypoints';
import { agreementOf } from './agreement';
import { addMaster, makeDefault, moveMaster, removeAxis } from './familyEdits';
import { addWaypoint, moveWaypoint, removeWaypoint, waypointSays } from './waypointEdits';

const demo = readyDemo();
const o = glyphNamed(demo, 'o')!;
const PLACE = { wght: 600, wdth: 100 };
const ID = waypointId(PLACE);
const done = (outcome: Outcome): Project => {
  if (!outcome.ok) throw new Error(outcome.reason);
  return outcome.project;
};
const why = (outcome: Outcome): string | undefined => (outcome.ok ? undefined : outcome.reason);
const of = (p: Project) => p.glyphs[o.id]!;
const at = (p: Project, wght: number) => drawingsAt(p, { wght, wdth: 100 })(o.id)!;
const withOne = done(addWaypoint(demo, { glyph: o.id, place: { wght: 600 } }));

/** The farthest that two outlines of one structure lie apart. */
const apart = (a: readonly Contour[], b: readonly Contour[]): number =>
  Math.max(
    ...a.flatMap((c, i) => c.points.map((p, k) => Math.hypot(p.x - b[i]!.points[k]!.x, p.y - b[i]!.points[k]!.y))),
  );

test('a waypoint begins as what lies there, and says nothing until it is drawn', () => {
  expect(of(withOne).waypoints.map((w) => w.place)).toEqual([PLACE]);
  for (const wght of [450, 600, 700])
    expect(apart(at(demo, wght).contours, at(withOne, wght).contours)).toBeLessThan(0.01);
  expect(waypointSays(withOne, of(withOne), ID).most).toBeLessThan(0.01);
  expect(masterOf(withOne, ID)!.name).toBe('Waypoint, weight 600, width 100');
  // Between lines of two masters lie the lines at the waypoint.
  const [x3, x6, x8] = ['m1', ID, 'm3'].map((m) => masterOf(withOne, m)!.zones.xHeight.position);
  expect((x6! - x3!) * (x8! - x6!)).toBeGreaterThanOrEqual(0);
  expect(waypointPlace(ID)).toEqual(PLACE);
  expect([isWaypointId('m1'), waypointPlace('m1'), waypointPlace('at nonsense')]).toEqual([
    false,
    undefined,
    undefined,
  ]);
});

test('edits of drawings work on a waypoint as on a master, and nothing is kept under its id', () => {
  const moved = done(movePoints(withOne, { at: { glyph: o.id, master: ID }, points: ['0:0', '0:1'], dx: 30, dy: -10 }));
  expect(Object.keys(of(moved).drawings)).toEqual(Object.keys(o.drawings));
  const [before, after] = [of(withOne), of(moved)].map((g) => drawingOf(g, ID).contours[0]!.points);
  expect([after![0]!.x - before![0]!.x, after![0]!.y - before![0]!.y]).toEqual([30, -10]);
  expect(waypointSays(moved, of(moved), ID).most).toBeCloseTo(Math.hypot(30, 10), 2);
  expect(drawingOf(of(moved), 'm1')).toBe(drawingOf(o, 'm1'));
  const wider = done(
    setSides(moved, { at: { glyph: o.id, master: ID }, advance: drawingOf(of(moved), ID).advance + 20 }),
  );
  expect(waypointSays(wider, of(wider), ID).advance).toBeCloseTo(20, 6);
  const opened = readProjectFile(writeProjectFile(wider), 'demo.wendril');
  // Of an anchor its role is told by its name.
  const plain = (g: Glyph) =>
    g.waypoints.map((w) => ({
      ...w,
      drawing: { ...w.drawing, anchors: w.drawing.anchors.map(({ role: _, ...n }) => n) },
    }));
  expect(opened.ok && plain(of(opened.value))).toEqual(plain(of(wider)));
});

test('what changes structure in all masters changes it in waypoints too; in one alone it is told where', () => {
  expect(agreeingMasters(withOne, of(withOne), 'm1')).toContain(ID);
  const also = agreeingMasters(withOne, of(withOne), 'm1');
  const fewer = done(deletePoints(withOne, { at: { glyph: o.id, master: 'm1', also }, points: ['0:0'] }));
  expect(agreementOf(fewer, of(fewer))).toEqual([]);
  expect(drawingOf(of(fewer), ID).contours[0]!.points).toHaveLength(
    drawingOf(of(fewer), 'm1').contours[0]!.points.length,
  );
  const alone = done(deletePoints(withOne, { at: { glyph: o.id, master: ID }, points: ['0:0'] }));
  expect(agreementOf(alone, of(alone)).length).toBeGreaterThan(0);
});

test('parts of a glyph stand at its waypoint as they lie between their own masters', () => {
  const composed = glyphNamed(demo, 'odieresis')!;
  const p = done(addWaypoint(demo, { glyph: composed.id, place: PLACE }));
  const source = drawingsOf(p, ID);
  const outline = flattened(source(composed.id)!, source);
  const plain = drawingsAt(demo, PLACE);
  const wanted = flattened(plain(composed.id)!, plain);
  expect(outline.length).toBeGreaterThan(3);
  expect(apart(outline, wanted)).toBeLessThan(0.01);
});

test('waypoints are moved and taken away; where one cannot stand is said', () => {
  expect(why(addWaypoint(demo, { glyph: o.id, place: { wght: 800 } }))).toBe(
    'Heavy stands at weight 800, width 100: draw it there.',
  );
  expect(why(addWaypoint(withOne, { glyph: o.id, place: PLACE }))).toMatch(/has a waypoint at weight 600/);
  expect(why(addWaypoint(demo, { glyph: o.id, place: { wght: 900 } }))).toMatch(/does not reach so far/);
  const torn = {
    ...demo,
    glyphs: { ...demo.glyphs, [o.id]: { ...o, drawings: { ...o.drawings, m3: { ...o.drawings.m3!, contours: [] } } } },
  };
  expect(why(addWaypoint(torn, { glyph: o.id, place: PLACE }))).toMatch(/as long as they do not agree/);
  const moved = done(moveWaypoint(withOne, { glyph: o.id, from: PLACE, to: { wght: 500 } }));
  expect(of(moved).waypoints.map((w) => w.place)).toEqual([{ wght: 500, wdth: 100 }]);
  expect(why(moveWaypoint(moved, { glyph: o.id, from: PLACE, to: { wght: 500 } }))).toMatch(
    /no waypoint there any more/,
  );
  expect(of(done(removeWaypoint(withOne, { glyph: o.id, place: PLACE })))).toEqual({ ...o, waypoints: [] });
});

test('masters, axes and defaults mind waypoints', () => {
  const drawn = done(movePoints(withOne, { at: { glyph: o.id, master: ID }, points: ['0:0'], dx: 40, dy: 0 }));
  // A master at the place of a waypoint takes its drawing over.
  const master = done(addMaster(drawn, { name: 'Semi', place: PLACE }));
  expect(of(master).waypoints).toEqual([]);
  const id = master.masters.at(-1)!.id;
  expect(drawingOf(of(master), id).contours[0]!.points[0]!.x).toBeCloseTo(
    drawingOf(of(drawn), ID).contours[0]!.points[0]!.x,
    2,
  );
  expect(why(moveMaster(drawn, { master: 'm3', place: { wght: 600 } }))).toMatch(/o has a waypoint at weight 600/);
  const narrow = done(addWaypoint(withOne, { glyph: o.id, place: { wght: 600, wdth: 85 } }));
  const wide = { ...narrow, masters: narrow.masters.filter((m) => m.place.wdth !== 75) };
  expect(why(removeAxis(wide, { tag: 'wdth' }))).toMatch(/a waypoint of o would stand where another drawing stands/);
  const partial = {
    ...withOne,
    glyphs: {
      ...withOne.glyphs,
      [o.id]: { ...of(withOne), waypoints: [{ ...of(withOne).waypoints[0]!, place: { wght: 600 } }] },
    },
  };
  expect(of(done(makeDefault(partial, { master: 'm4' }))).waypoints[0]!.place).toEqual(PLACE);
});
