import '../allEdits';
import { buildStarter } from '../../../demo/starter';
import { type Contour, contourFromCurves, curvesOf, signedArea } from '../geometry/contour';
import { windingAt } from '../geometry/winding';
import { runEdit } from '../project/edit';
import type { Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { withChanged } from '../testing/change';
import { selfCrossings } from './crossings';
import { Preflight } from './preflight';

const starter = buildStarter();
const [master] = starter.masters;
const preflight = new Preflight();
const line = (...places: readonly (readonly [number, number])[]): Contour => ({
  closed: true,
  points: places.map(([x, y]) => ({ x, y, type: 'line' })),
});

/** A box whose upper right corner is tied into a loop of 20 units. */
const tied = line([0, 0], [400, 0], [400, 420], [420, 420], [420, 400], [0, 400]);
const withLetter = (contours: readonly Contour[]): Project =>
  withChanged(starter, 'n', master!.id, () => ({ contours, components: [] }));
const found = (p: Project) =>
  preflight.glyphFindings(p, glyphNamed(p, 'n')!.id).filter((f) => f.kind === 'outlines/crossing');
const letter = (p: Project): readonly Contour[] => glyphNamed(p, 'n')!.drawings[master!.id]!.contours;

test('a loop at a corner is found where it crosses, with its size', () => {
  expect(selfCrossings(tied).map(({ x, y }) => [x, y])).toEqual([[400, 400]]);
  const [loop, ...more] = found(withLetter([tied]));
  expect(more).toEqual([]);
  expect(loop!.spots).toEqual([{ x: 400, y: 400 }]);
  expect(loop!.reason).toMatch(/20 units across/);
  expect(loop!.mends.map((m) => m.title)).toEqual([
    'Take the loop out',
    'Make the loop one smooth point',
    'Unite both parts',
  ]);
});

test('its ways to part it: the loop out, one smooth point, both parts united; the rest stays where it was', () => {
  const project = withLetter([tied, line([40, 40], [40, 200], [200, 200], [200, 40])]);
  const [loop] = found(project);
  const done = loop!.mends.map((m) => {
    const after = runEdit(project, m.edit, m.args);
    if (!after.ok) throw new Error(after.reason);
    expect(found(after.project)).toEqual([]);
    // The counter beside is the very same.
    expect(letter(after.project)).toContain(letter(project)[1]);
    return letter(after.project).filter((c) => c !== letter(project)[1]);
  });
  const [out, merged, united] = done;
  expect(out!.map(signedArea)).toEqual([160_000]);
  expect(out![0]!.points.map((p) => [p.x, p.y])).toEqual(
    expect.arrayContaining([
      [0, 0],
      [400, 0],
      [400, 400],
      [0, 400],
    ]),
  );
  expect(merged).toHaveLength(1);
  expect(merged![0]!.points.filter((p) => p.type !== 'off').length).toBeLessThan(tied.points.length - 1);
  // United, what was inked is inked: the box, and the loop beside it.
  const curves = united!.flatMap((c) => [...curvesOf(c)]);
  expect([
    windingAt(curves, 200, 200) !== 0,
    windingAt(curves, 415, 415) !== 0,
    windingAt(curves, 500, 100) !== 0,
  ]).toEqual([true, true, false]);
});

test('strokes drawn across each other in one go, and the counters that come of it, are meant', () => {
  // A ribbon that passes over itself, as a letter drawn with overlaps does.
  const ribbon = line(
    [0, 0],
    [400, 0],
    [400, 60],
    [60, 60],
    [60, 340],
    [340, 340],
    [340, -100],
    [400, -100],
    [400, 400],
    [0, 400],
  );
  expect(selfCrossings(ribbon).length).toBeGreaterThan(0);
  expect(found(withLetter([ribbon]))).toEqual([]);
});

test('a figure of eight turns inside out', () => {
  const eight = line([0, 0], [300, 300], [300, 0], [0, 300]);
  expect(found(withLetter([eight]))).toHaveLength(1);
});

test('where only some masters have the loop, it is left to the hand', () => {
  const second = { ...master!, id: 'm2', name: 'Bold', place: {} };
  const n = glyphNamed(starter, 'n')!;
  const plain = line([0, 0], [400, 0], [400, 380], [420, 380], [420, 400], [0, 400]);
  const d = n.drawings[master!.id]!;
  const family: Project = {
    ...starter,
    masters: [master!, second],
    glyphs: {
      ...Object.fromEntries(
        Object.entries(starter.glyphs).map(([k, g]) => [
          k,
          { ...g, drawings: { ...g.drawings, m2: g.drawings[master!.id]! } },
        ]),
      ),
      [n.id]: {
        ...n,
        drawings: {
          [master!.id]: { ...d, contours: [tied], components: [] },
          m2: { ...d, contours: [plain], components: [] },
        },
      },
    },
  };
  const [loop] = found(family);
  expect(loop!.masters).toEqual([master!.id]);
  expect(loop!.mends).toEqual([]);
});

test('a ring of curves does not cross itself', () => {
  expect(
    selfCrossings(
      contourFromCurves(
        [
          [0, 0, 0, 55, 45, 100, 100, 100],
          [100, 100, 155, 100, 200, 55, 200, 0],
          [200, 0, 200, -55, 155, -100, 100, -100],
          [100, -100, 45, -100, 0, -55, 0, 0],
        ],
        true,
      ),
    ),
  ).toEqual([]);
});
