import fc from 'fast-check';
import { buildStarter } from '../../../demo/starter';
import { alignPoints, movePointsAlone, setHandle } from '../drawing/arrange';
import { addOutlineBackdrop } from '../drawing/backdrops';
import { addComponent, drawOut } from '../drawing/components';
import {
  addContour,
  deletePoints,
  directByNesting,
  insertPoint,
  movePoints,
  orderContour,
  resizePoints,
  reverseContours,
  setSmooth,
  setStartPoint,
  toggleSegment,
} from '../drawing/edits';
import { cutAtPoint } from '../drawing/ends';
import { glidePoint } from '../drawing/glide';
import { addGuide } from '../drawing/guides';
import { type PointKey, pointKey } from '../drawing/points';
import { ellipse } from '../drawing/shapes';
import { workStrokes } from '../drawing/strokes';
import { keepTake } from '../drawing/takes';
import { addTracking, setSides } from '../fitting/sides';
import { changesOf, withChanges } from './changes';
import type { Outcome, DrawingPlace as Place } from './edit';
import { addGlyphs, removeGlyphs, setFamily, setGlyphNames, setZone } from './edits';
import { EMPTY_HISTORY, recorded, redo, undo } from './history';
import { replacing } from './lineage';
import type { Project } from './model';
import { projectSchema } from './model';
import { applyPatch, isEmptyPatch, patchBetween } from './patch';

type Step = (p: Project) => Outcome;

const demo = buildStarter();
const at = fc.constantFrom(...demo.glyphOrder).map((glyph) => ({ glyph, master: 'm1' }));
const key = fc.tuple(fc.integer({ min: 0, max: 2 }), fc.integer({ min: 0, max: 14 })).map(([c, p]) => pointKey(c, p));
const keys = fc.array(key, { minLength: 1, maxLength: 6 });
const number = fc.integer({ min: -200, max: 700 });

/** Any edit there is, with arguments that may well be refused. */
/** Edits of the drawing bench, each with numbers that come as they come. */
const benchSteps: readonly ((a: Place, points: PointKey[], x: number, y: number) => Step)[] = [
  (a, points, x, y) => (p) => movePointsAlone(p, { at: a, points, dx: x, dy: y }),
  (a, points, x, y) => (p) => glidePoint(p, { at: a, point: points[0] ?? '0:0', x, y }),
  (a, points, x) => (p) => setHandle(p, { at: a, handle: points[0] ?? '0:1', length: Math.abs(x), angle: x }),
  (a, points) => (p) => cutAtPoint(p, { at: a, point: points[0] ?? '0:0' }),
  (a, points) => (p) => alignPoints(p, { at: a, points, to: 'left' }),
  (a, _, x, y) => (p) => addComponent(p, { at: a, glyph: 'g6', transform: [1, 0, 0, 1, x, y] }),
  (a) => (p) => drawOut(p, { at: a, indices: [0] }),
  (a, _, x, y) => (p) => addGuide(p, { at: a, whole: x > 0, guide: { x, y, angle: x } }),
  (a, _, x) => (p) => keepTake(p, { at: a, date: '2026-01-01T00:00:00Z', name: `Take ${x}` }),
  (a) => (p) => addOutlineBackdrop(p, { at: a, outline: { kind: 'copy', contours: [] } }),
  (a) => (p) => orderContour(p, { at: a, from: 0, to: 1 }),
  (a, _, x) => (p) =>
    workStrokes(p, {
      at: a,
      contours: [],
      work: { kind: 'frame', margin: Math.abs(x), wall: 10, radius: 0, reversed: x > 0 },
    }),
];

const anyStep: fc.Arbitrary<Step> = fc.oneof(
  fc
    .tuple(fc.constantFrom(...benchSteps), at, keys, number, number)
    .map(([make, a, points, x, y]) => make(a, points, x, y)),
  fc.tuple(at, keys, number, number).map(
    ([a, points, dx, dy]): Step =>
      (p) =>
        movePoints(p, { at: a, points, dx, dy }),
  ),
  fc.tuple(at, keys, number).map(
    ([a, points, width]): Step =>
      (p) =>
        resizePoints(p, { at: a, points, width }),
  ),
  fc.tuple(at, keys).map(
    ([a, points]): Step =>
      (p) =>
        deletePoints(p, { at: a, points }),
  ),
  fc.tuple(at, keys, fc.boolean()).map(
    ([a, points, smooth]): Step =>
      (p) =>
        setSmooth(p, { at: a, points, smooth }),
  ),
  fc.tuple(at, number, number).map(
    ([a, x, y]): Step =>
      (p) =>
        insertPoint(p, { at: a, x, y, within: 90 }),
  ),
  fc.tuple(at, number, number).map(
    ([a, x, y]): Step =>
      (p) =>
        toggleSegment(p, { at: a, x, y, within: 90 }),
  ),
  fc.tuple(at, number).map(
    ([a, size]): Step =>
      (p) =>
        addContour(p, { at: a, contour: ellipse(0, 0, Math.abs(size) + 10, 100), what: 'an oval' }),
  ),
  fc.tuple(at, fc.integer({ min: 0, max: 2 })).map(
    ([a, c]): Step =>
      (p) =>
        reverseContours(p, { at: a, contours: [c] }),
  ),
  fc.tuple(at, key).map(
    ([a, point]): Step =>
      (p) =>
        setStartPoint(p, { at: a, point }),
  ),
  at.map(
    (a): Step =>
      (p) =>
        directByNesting(p, { at: a }),
  ),
  fc.tuple(at, number).map(
    ([a, left]): Step =>
      (p) =>
        setSides(p, { at: a, left }),
  ),
  fc.tuple(at, number).map(
    ([a, advance]): Step =>
      (p) =>
        setSides(p, { at: a, advance }),
  ),
  number.map(
    (value): Step =>
      (p) =>
        addTracking(p, { glyphs: p.glyphOrder.slice(0, 5), master: 'm1', value }),
  ),
  fc
    .tuple(
      fc.constantFrom('xHeight', 'capHeight', 'descender') as fc.Arbitrary<'xHeight' | 'capHeight' | 'descender'>,
      number,
    )
    .map(
      ([zone, position]): Step =>
        (p) =>
          setZone(p, { master: 'm1', zone, change: { position } }),
    ),
  fc.string({ maxLength: 8 }).map(
    (name): Step =>
      (p) =>
        setFamily(p, { name }),
  ),
  fc.integer({ min: 0x100, max: 0x180 }).map(
    (code): Step =>
      (p) =>
        addGlyphs(p, {
          requests: [{ name: `uni${code.toString(16).toUpperCase().padStart(4, '0')}`, unicodes: [code] }],
        }),
  ),
  fc.nat({ max: 80 }).map(
    (n): Step =>
      (p) =>
        removeGlyphs(p, { ids: [p.glyphOrder[n % p.glyphOrder.length]!] }),
  ),
  fc.tuple(fc.nat({ max: 80 }), fc.constantFrom('alpha', 'beta', 'n.alt')).map(
    ([n, name]): Step =>
      (p) =>
        setGlyphNames(p, { id: p.glyphOrder[n % p.glyphOrder.length]!, name, unicodes: [] }),
  ),
);

test('any sequence of edits undone gives the identical project; done again, the identical result', () => {
  fc.assert(
    fc.property(fc.array(anyStep, { minLength: 1, maxLength: 25 }), (steps) => {
      let project = demo;
      let history = EMPTY_HISTORY;
      for (const step of steps) {
        const outcome = step(project);
        if (!outcome.ok) {
          expect(outcome.reason).toMatch(/\.$/);
          continue;
        }
        expect(outcome.sentence.length).toBeGreaterThan(5);
        history = recorded(history, project, outcome.project, outcome.sentence);
        project = outcome.project;
      }
      const end = project;
      let back = { project, history };
      for (let s = undo(back.project, back.history); s; s = undo(s.project, s.history)) back = s;
      expect(back.project).toEqual(demo);
      expect(back.project.glyphs.g5).toBe(demo.glyphs.g5);
      for (let s = redo(back.project, back.history); s; s = redo(s.project, s.history)) back = s;
      expect(back.project).toEqual(end);
    }),
    { numRuns: 120 },
  );
});

test('every edit leaves a project that its schema accepts', () => {
  fc.assert(
    fc.property(fc.array(anyStep, { minLength: 1, maxLength: 12 }), (steps) => {
      const end = steps.reduce((p, step) => {
        const outcome = step(p);
        return outcome.ok ? outcome.project : p;
      }, demo);
      expect(projectSchema.safeParse(end).error).toBeUndefined();
    }),
    { numRuns: 25 },
  );
});

test('patches lead there and back, and say what differs', () => {
  const outcome = movePoints(demo, { at: { glyph: 'g40', master: 'm1' }, points: ['0:0'], dx: 5, dy: 0 });
  if (!outcome.ok) throw new Error(outcome.reason);
  const patch = patchBetween(demo, outcome.project);
  expect(patch.glyphs.map((g) => g.id)).toEqual(['g40']);
  expect(patch.parts).toEqual([]);
  expect(applyPatch(demo, patch)).toEqual(outcome.project);
  expect(applyPatch(outcome.project, patch, 'backwards')).toEqual(demo);
  expect(isEmptyPatch(patchBetween(demo, demo))).toBe(true);
  // A copy elsewhere is sent the one drawing that is new, and keeps the others as they are.
  const changes = changesOf(patch);
  expect(changes.glyphs).toEqual([
    { id: 'g40', fields: {}, drawings: { m1: outcome.project.glyphs.g40!.drawings.m1 } },
  ]);
  const copy = withChanges(demo, changes);
  expect(copy).toEqual(outcome.project);
  expect(copy.glyphs.g40!.drawings.m2).toBe(demo.glyphs.g40!.drawings.m2);
});

test('a copy elsewhere follows glyphs that come, go, lose a drawing, and parts that change', () => {
  const { m2: _, ...fewer } = demo.glyphs.g40!.drawings;
  const { g41: gone, ...rest } = demo.glyphs;
  const next: Project = {
    ...demo,
    glyphs: {
      ...rest,
      g40: { ...demo.glyphs.g40!, drawings: fewer },
      new1: { ...gone!, id: 'new1', name: 'new1', unicodes: [] },
    },
    glyphOrder: [...demo.glyphOrder.filter((id) => id !== 'g41'), 'new1'],
    unitsPerEm: 2000,
  };
  const copy = withChanges(demo, changesOf(patchBetween(demo, next)));
  expect(copy).toEqual(next);
  expect(Object.keys(copy.glyphs)).toHaveLength(Object.keys(demo.glyphs).length);
  // What a copy does not have cannot be changed in it.
  expect(
    withChanges(
      { ...demo, glyphs: {} },
      changesOf(patchBetween(demo, { ...demo, glyphs: replacing(demo.glyphs, { ...demo.glyphs.g40!, note: 'seen' }) })),
    ).glyphs,
  ).toEqual({});
});

test('a glyph replaced leaves the others where they are, in their order', () => {
  const names = Object.keys(demo.glyphs);
  let { glyphs } = demo;
  for (const id of ['g40', 'g9', 'g40', 'g41']) {
    const before = glyphs;
    glyphs = replacing(glyphs, { ...glyphs[id]!, note: `${id} again` });
    expect(before[id]).not.toBe(glyphs[id]);
    expect(Object.keys(glyphs)).toEqual(names);
  }
  for (const id of names) if (!['g40', 'g9', 'g41'].includes(id)) expect(glyphs[id]).toBe(demo.glyphs[id]);
  const more = replacing(glyphs, { ...glyphs.g40!, id: 'more' });
  expect(Object.keys(more)).toEqual([...names, 'more']);
  expect(Object.keys(replacing(more, { ...more.g9! }))).toEqual([...names, 'more']);
});
