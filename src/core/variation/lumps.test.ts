import { readyDemo } from '../../../demo/ready';
import type { Drawing, Project } from '../project/model';
import { drawingOf, glyphNamed, glyphsInOrder } from '../project/queries';
import { lumpsOf } from './lumps';
import { addWaypoint } from './waypointEdits';

const demo = readyDemo();
const n = glyphNamed(demo, 'n')!;
const withDrawing = (p: Project, master: string, change: (d: Drawing) => Drawing): Project => {
  const glyph = p.glyphs[n.id]!;
  const drawings = { ...glyph.drawings, [master]: change(drawingOf(glyph, master)) };
  return { ...p, glyphs: { ...p.glyphs, [n.id]: { ...glyph, drawings } } };
};
/** All that stands right of a line moves: the stem at the left of it grows, the white at its right with it. */
const wider =
  (from: number, to: number, by: number) =>
  (d: Drawing): Drawing => ({
    ...d,
    contours: d.contours.map((c) => ({
      ...c,
      points: c.points.map((p) => (p.x > from && p.x < to ? { ...p, x: p.x + by } : p)),
    })),
  });

test('the demo has no lump, nor has a family of two masters', () => {
  const found = glyphsInOrder(demo).filter((g) => lumpsOf(demo, g).length > 0);
  expect(found.map((g) => g.name)).toEqual([]);
  const two = { ...demo, masters: demo.masters.filter((m) => m.id === 'm1' || m.id === 'm3') };
  expect(lumpsOf(withDrawing(two, 'm1', wider(90, 220, 60)), n)).toEqual([]);
});

test('a stem that swells in a master between is found with its width, its place and the masters about it', () => {
  // The left stem of the Regular made heavier than that of the Heavy.
  const [light, heavy] = ['m2', 'm3'].map((m) => demo.masters.findIndex((x) => x.id === m));
  const swollen = withDrawing(demo, 'm1', wider(100, 200, 130));
  const lumps = lumpsOf(swollen, swollen.glyphs[n.id]!);
  const ink = lumps.find((l) => l.of === 'ink')!;
  expect(ink.units).toBeGreaterThan(4);
  expect(ink.between.includes(light!) && ink.between.includes(heavy!)).toBe(true);
  expect(ink.place.wdth).toBe(100);
  // What grows into the white closes it.
  expect(lumps.some((l) => l.of === 'white' && l.units < 0)).toBe(true);
});

test('a waypoint that closes a counter is found at its own place, a small correction is left alone', () => {
  const place = { wght: 620, wdth: 100 };
  const made = addWaypoint(demo, { glyph: n.id, place });
  if (!made.ok) throw new Error(made.reason);
  const closed = (by: number): Project => {
    const glyph = made.project.glyphs[n.id]!;
    const [w] = glyph.waypoints;
    const next = { ...glyph, waypoints: [{ ...w!, drawing: wider(150, 330, by)(w!.drawing) }] };
    return { ...made.project, glyphs: { ...made.project.glyphs, [n.id]: next } };
  };
  const large = closed(90);
  const [white] = lumpsOf(large, large.glyphs[n.id]!).filter((l) => l.of === 'white' && l.units < 0);
  expect(white!.place).toEqual(place);
  expect(white!.units).toBeLessThan(-20);
  const small = closed(3);
  expect(lumpsOf(small, small.glyphs[n.id]!)).toEqual([]);
});
