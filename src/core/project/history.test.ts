import fc from 'fast-check';
import { buildStarter } from '../../../demo/starter';
import { addContour, deletePoints, directByNesting, insertPoint, movePoints, resizePoints, reverseContours, setSmooth, setStartPoint, toggleSegment } from '../drawing/edits';
import { pointKey } from '../drawing/points';
import { ellipse } from '../drawing/shapes';
import { addTracking, setSides } from '../fitting/sides';
import type { Outcome } from './edit';
import { addGlyphs, removeGlyphs, setFamily, setGlyphNames, setZone } from './edits';
import { EMPTY_HISTORY, recorded, redo, undo } from './history';
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
const anyStep: fc.Arbitrary<Step> = fc.oneof(
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
  fc.tuple(fc.constantFrom('xHeight', 'capHeight', 'descender') as fc.Arbitrary<'xHeight' | 'capHeight' | 'descender'>, number).map(
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
        addGlyphs(p, { requests: [{ name: `uni${code.toString(16).toUpperCase().padStart(4, '0')}`, unicodes: [code] }] }),
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
});
