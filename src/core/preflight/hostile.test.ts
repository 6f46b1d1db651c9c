import fc from 'fast-check';
import { buildStarter } from '../../../demo/starter';
import '../allEdits';
import type { Contour, Point, PointType } from '../geometry/contour';
import { runEdit } from '../project/edit';
import { type Drawing, drawingSchema, type Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { withChanged } from '../testing/change';
import { judgeKinds } from './judged';
import { KINDS } from './kinds';
import { Preflight } from './preflight';

/** Whatever a source holds, the check comes to an end, says only what can be shown, and mends lead to sound drawings or are refused. */
const asked = judgeKinds(buildStarter(), { kinds: Object.fromEntries(KINDS.map((k) => [k.kind, { on: true }])) });
if (!asked.ok) throw new Error(asked.reason);
const starter: Project = asked.project;
const [master] = starter.masters;
const n = glyphNamed(starter, 'n')!;

const coordinate = fc.oneof(
  fc.integer({ min: -20, max: 600 }),
  fc.constantFrom(0, 0, 100, 100, 500, -1_000_000, 1_000_000, 0.5, 1e-9),
);
const point = (types: readonly PointType[]): fc.Arbitrary<Point> =>
  fc.record({ x: coordinate, y: coordinate, type: fc.constantFrom(...types), smooth: fc.boolean() });

/** Runs of lines and curves that readers let through, open and closed, with points that fall together. */
const soundContour: fc.Arbitrary<Contour> = fc
  .tuple(
    fc.boolean(),
    fc.array(
      fc.tuple(
        fc.constantFrom('line', 'curve', 'qcurve'),
        fc.array(point(['off']), { minLength: 2, maxLength: 2 }),
        point(['line']),
      ),
      {
        minLength: 1,
        maxLength: 7,
      },
    ),
  )
  .map(([closed, segments]) => {
    const points = segments.flatMap(([type, offs, on], i): Point[] => {
      const end: Point = { ...on, type: (i === 0 && !closed ? 'line' : type) as PointType };
      return end.type === 'line' ? [end] : [...offs, end];
    });
    // A closed contour may begin with the handles of its closing segment; an open one begins on the outline.
    return { closed, points };
  });
/** Whatever fits the schema, sense or not. */
const anyContour: fc.Arbitrary<Contour> = fc.oneof(
  { weight: 3, arbitrary: soundContour },
  {
    weight: 1,
    arbitrary: fc.record({
      closed: fc.boolean(),
      points: fc.array(point(['line', 'curve', 'qcurve', 'off']), { maxLength: 9 }),
    }),
  },
);

const withContours = (contours: readonly Contour[]): Project =>
  withChanged(starter, 'n', master!.id, () => ({ contours }));

test('any outlines are looked through, and every finding has a sentence and places that can be shown', () => {
  const preflight = new Preflight();
  fc.assert(
    fc.property(fc.array(anyContour, { maxLength: 4 }), (contours) => {
      const project = withContours(contours);
      for (const f of preflight.glyphFindings(project, n.id)) {
        expect(f.reason).toMatch(/\.$/);
        expect(f.reason).not.toMatch(/NaN|undefined|Infinity/);
        for (const s of f.spots) expect([Number.isFinite(s.x), Number.isFinite(s.y)]).toEqual([true, true]);
        if (f.contour !== undefined) expect(f.contour).toBeLessThan(Math.max(1, contours.length));
        for (const m of f.mends) expect(m.title.length).toBeGreaterThan(2);
      }
    }),
    { numRuns: 300 },
  );
});

test('any mend of any outlines leads to a sound drawing or to a refusal in a sentence, and touches nothing else', () => {
  const preflight = new Preflight();
  fc.assert(
    fc.property(fc.array(soundContour, { minLength: 1, maxLength: 3 }), fc.nat(), (contours, which) => {
      const project = withContours(contours);
      const mends = preflight
        .glyphFindings(project, n.id)
        .flatMap((f) => (f.kind.startsWith('outlines/') ? f.mends : []));
      if (mends.length === 0) return;
      const mend = mends[which % mends.length]!;
      const done = runEdit(project, mend.edit, mend.args);
      if (!done.ok) {
        expect(done.reason).toMatch(/\.$/);
        return;
      }
      const drawing: Drawing = done.project.glyphs[n.id]!.drawings[master!.id]!;
      expect(drawingSchema.safeParse(drawing).success).toBe(true);
      expect({ ...drawing, contours: [] }).toEqual({ ...project.glyphs[n.id]!.drawings[master!.id]!, contours: [] });
      for (const id of project.glyphOrder) if (id !== n.id) expect(done.project.glyphs[id]).toBe(project.glyphs[id]);
      // The check of what came of it ends, too.
      preflight.glyphFindings(done.project, n.id);
    }),
    { numRuns: 300 },
  );
});

test('an empty project, one without masters’ drawings, and one of glyphs that are gone are looked through', () => {
  const empty: Project = { ...starter, glyphs: {}, glyphOrder: [] };
  expect(new Preflight().check(empty).every((f) => f.reason !== '')).toBe(true);
  const bare: Project = {
    ...starter,
    glyphs: Object.fromEntries(Object.entries(starter.glyphs).map(([k, g]) => [k, { ...g, drawings: {} }])),
  };
  expect(new Preflight().check(bare).filter((f) => f.kind === 'characters/empty')).toHaveLength(1);
  const holes: Project = { ...starter, glyphOrder: [...starter.glyphOrder, 'nobody'] };
  expect(new Preflight().check(holes).length).toBeGreaterThan(0);
});

test('glyphs that use each other twice and twice again do not hang the check', () => {
  const letters = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'];
  let p = starter;
  for (const [i, name] of letters.slice(1).entries()) {
    const part = { glyph: glyphNamed(starter, letters[i]!)!.id, transform: [1, 0, 0, 1, 0, 0] as const };
    p = withChanged(p, name, master!.id, () => ({ contours: [], components: [part, part] }));
  }
  const begun = Date.now();
  const found = new Preflight().check(p);
  expect(found.some((f) => f.kind === 'parts/endless' && /more parts than can be drawn/.test(f.reason))).toBe(true);
  expect(Date.now() - begun).toBeLessThan(60_000);
});
