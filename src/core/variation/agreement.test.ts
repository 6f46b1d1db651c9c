import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import {
  type Contour,
  contourBounds,
  insertPoint,
  isOnCurve,
  type Point,
  reverseContour,
  sameBuild,
  segmentsOf,
  signedArea,
  withStart,
} from '../geometry/contour';
import type { Drawing, Glyph, Project } from '../project/model';
import { glyphNamed, glyphsInOrder } from '../project/queries';
import { sameStructure } from '../project/structure';
import { agreementOf, agrees, type FaultKind } from './agreement';
import { aligned } from './alignment';
import { cheapestAssignment } from './assignment';
import { mendAgreement, mendedGlyph } from './mending';

/** Agreement of masters: broken at random in one master of the demo, every break is found and mended. */
const demo = readyDemo();
const [main, light, heavy] = ['m1', 'm2', 'm3'] as const;
const withDrawing = (glyph: Glyph, master: string, drawing: Drawing): Glyph => ({
  ...glyph,
  drawings: { ...glyph.drawings, [master]: drawing },
});
const withGlyph = (glyph: Glyph, project = demo): Project => ({
  ...project,
  glyphs: { ...project.glyphs, [glyph.id]: glyph },
});
const kinds = (glyph: Glyph): FaultKind[] => agreementOf(withGlyph(glyph), glyph).map((f) => f.kind);
const changed = (name: string, master: string, change: (d: Drawing) => Drawing): Glyph => {
  const glyph = glyphNamed(demo, name)!;
  return withDrawing(glyph, master, change(glyph.drawings[master]!));
};
const inContour =
  (index: number, change: (c: Contour) => Contour) =>
  (d: Drawing): Drawing => ({
    ...d,
    contours: d.contours.map((c, i) => (i === index ? change(c) : c)),
  });
const nextStart = (c: Contour, step: number): Contour => {
  const on = c.points.flatMap((p, i) => (isOnCurve(p) ? [i] : []));
  return withStart(c, on[step % on.length]!);
};

test('all masters of the demo agree, without a suspicion', () => {
  for (const glyph of glyphsInOrder(demo)) expect([glyph.name, agreementOf(demo, glyph)]).toEqual([glyph.name, []]);
});

test('each kind of break is told by its kind, its contour and its place, of the master that has it', () => {
  expect(
    agreementOf(
      withGlyph(changed('o', heavy, inContour(0, reverseContour))),
      changed('o', heavy, inContour(0, reverseContour)),
    ),
  ).toEqual([
    {
      kind: 'direction',
      at: { master: heavy },
      contour: 1,
      suspicion: true,
      reason: expect.stringMatching(/^Contour 1: it runs the other way in /),
    },
  ]);
  const turned = changed(
    'n',
    light,
    inContour(0, (c) => nextStart(c, 3)),
  );
  expect(agreementOf(withGlyph(turned), turned)[0]!.reason).toMatch(
    /^Contour 1: it starts at the .+ in Regular and at the .+ in Light\.$/,
  );
  const swapped = changed('o', heavy, (d) => ({ ...d, contours: [...d.contours].reverse() }));
  expect(kinds(swapped)).toEqual(['order']);
  expect(agreementOf(withGlyph(swapped), swapped)[0]!.reason).toMatch(/Contours 1 and 2 of .+ are exchanged/);
  expect(kinds(changed('o', heavy, (d) => ({ ...d, contours: d.contours.slice(1) })))).toEqual(['contours']);
  expect(
    kinds(
      changed(
        'o',
        heavy,
        inContour(1, (c) => ({ ...c, closed: false })),
      ),
    ),
  ).toEqual(['open']);
  expect(kinds(changed('aacute', heavy, (d) => ({ ...d, components: d.components.slice(1) })))).toEqual(['components']);
  expect(kinds(changed('a', heavy, (d) => ({ ...d, anchors: d.anchors.slice(1) })))).toEqual(['anchors']);
  const more = (c: Contour) => insertPoint(c, segmentsOf(c)[1]!, 0, 0.4).contour;
  expect(kinds(changed('n', heavy, inContour(0, more)))).toEqual(['points']);
  expect(
    agrees(
      withGlyph(changed('a', heavy, (d) => ({ ...d, anchors: [] }))),
      changed('a', heavy, (d) => ({ ...d, anchors: [] })),
    ),
  ).toBe(true);
});

test('one master agrees with itself; waypoints are asked too', () => {
  const one = { ...demo, masters: demo.masters.slice(0, 1) };
  const broken = changed('o', heavy, inContour(0, reverseContour));
  expect(agreementOf(withGlyph(broken, one), broken)).toEqual([]);
  const o = glyphNamed(demo, 'o')!;
  const waypoint = { place: { wght: 600 }, drawing: { ...o.drawings.m1!, contours: [] } };
  const withOne = { ...o, waypoints: [waypoint] };
  expect(agreementOf(withGlyph(withOne), withOne)).toEqual([
    expect.objectContaining({ kind: 'contours', at: { waypoint: 0 } }),
  ]);
});

/** Breaks that a machine can mend. */
type Break = { contour: number; how: 'reverse' | 'start' | 'insert' | 'shuffle'; by: number };
function broken(d: Drawing, { contour, how, by }: Break): Drawing {
  const index = contour % d.contours.length;
  if (how === 'shuffle') return { ...d, contours: [...d.contours.slice(index), ...d.contours.slice(0, index)] };
  return inContour(index, (c) => {
    if (how === 'reverse') return reverseContour(c);
    if (how === 'start') return nextStart(c, 1 + (by % 7));
    const segments = segmentsOf(c);
    return insertPoint(c, segments[by % segments.length]!, 0, 0.25 + (by % 50) / 100).contour;
  })(d);
}

const LETTERS = 'a b e g n o s B S R eight ampersand percent section i'.split(' ').filter((n) => glyphNamed(demo, n));

test('contours shuffled, turned, started elsewhere, with points more in one master: all of it is found, and mended to the same shapes', () => {
  const oneBreak = fc.record({
    contour: fc.nat(5),
    how: fc.constantFrom('reverse', 'start', 'insert', 'shuffle') as fc.Arbitrary<Break['how']>,
    by: fc.nat(99),
  });
  const mended: string[] = [];
  fc.assert(
    fc.property(
      fc.constantFrom(...LETTERS),
      fc.constantFrom(light, heavy),
      fc.array(oneBreak, { minLength: 1, maxLength: 4 }),
      (name, master, list) => {
        const glyph = glyphNamed(demo, name)!;
        const d = list.reduce(broken, glyph.drawings[master]!);
        const own = withDrawing(glyph, master, d);
        const project = withGlyph(own);
        const same =
          sameStructure([glyph.drawings[main]!, d]) &&
          d.contours.every((c, i) => samePlaces(c, glyph.drawings[master]!.contours[i]!));
        // What undoes itself, as turning twice, is no break.
        if (same) return;
        expect([name, list, agreementOf(project, own).length > 0]).toEqual([name, list, true]);
        const found = mendedGlyph(project, own);
        expect([name, list, found.left]).toEqual([name, list, []]);
        expect(sameStructure(demo.masters.map((m) => found.glyph.drawings[m.id]!))).toBe(true);
        for (const m of demo.masters) {
          const area = (drawing: Drawing) => drawing.contours.reduce((sum, c) => sum + signedArea(c), 0);
          expect(Math.abs(area(found.glyph.drawings[m.id]!) - area(glyph.drawings[m.id]!))).toBeLessThan(2);
        }
        mended.push(name);
      },
    ),
    { numRuns: 250, seed: 9 },
  );
  expect(mended.length).toBeGreaterThan(150);
});

const samePlaces = (a: Contour, b: Contour): boolean =>
  sameBuild(a, b) && a.points.every((p, i) => p.x === b.points[i]!.x && p.y === b.points[i]!.y);

test('components that differ are drawn out in all masters, or put in one order', () => {
  const apart = changed('aacute', heavy, (d) => ({ ...d, components: [...d.components].reverse() }));
  const ordered = mendedGlyph(withGlyph(apart), apart);
  expect([ordered.done, ordered.left]).toEqual([['components put in one order'], []]);
  const a = glyphNamed(demo, 'a')!;
  const drawn = changed('aacute', heavy, (d) => ({
    ...d,
    components: d.components.slice(1),
    contours: a.drawings[heavy]!.contours,
  }));
  const out = mendedGlyph(withGlyph(drawn), drawn);
  expect(out.done).toContain('components drawn out');
  expect(out.left).toEqual([]);
  expect(out.glyph.drawings.m1!.components).toEqual([]);
});

test('mending is one edit for many glyphs; what a machine cannot mend is named and left whole', () => {
  const n = changed(
    'n',
    heavy,
    inContour(0, (c) => nextStart(c, 2)),
  );
  const o = changed('o', heavy, (d) => ({ ...d, contours: d.contours.slice(1) }));
  const project = withGlyph(n, withGlyph(o));
  const done = mendAgreement(project, { glyphs: [n.id, o.id] });
  if (!done.ok) throw new Error(done.reason);
  expect(done.sentence).toBe('Brought 1 glyph to agree; o must be mended by hand');
  expect(done.project.glyphs[o.id]).toBe(o);
  expect(agreementOf(done.project, done.project.glyphs[n.id]!)).toEqual([]);
  expect(mendAgreement(done.project, { glyphs: [o.id] })).toMatchObject({
    ok: false,
    reason: 'Nothing could be mended: o must be mended by hand.',
  });
  expect(mendAgreement(demo, { glyphs: [n.id] })).toMatchObject({ ok: false, reason: 'These glyphs agree already.' });
});

test('the cheapest assignment is as cheap as the best of all orders', () => {
  const orders = (n: number): number[][] =>
    n === 0
      ? [[]]
      : orders(n - 1).flatMap((o) => Array.from({ length: n }, (_, i) => [...o.slice(0, i), n - 1, ...o.slice(i)]));
  fc.assert(
    fc.property(
      fc
        .integer({ min: 1, max: 5 })
        .chain((n) => fc.array(fc.array(fc.nat(50), { minLength: n, maxLength: n }), { minLength: n, maxLength: n })),
      (costs) => {
        const total = (order: readonly number[]) => order.reduce((sum, c, r) => sum + costs[r]![c]!, 0);
        const found = cheapestAssignment(costs);
        expect([...found].sort()).toEqual(costs.map((_, i) => i));
        expect(total(found)).toBe(Math.min(...orders(costs.length).map(total)));
      },
    ),
    { numRuns: 200, seed: 1 },
  );
});

/** A rounded box of quadratics whose corners are drawn by so many pieces, some points between them implied only. */
function rounded(size: number, pieces: number): Contour {
  const points: Point[] = [];
  const corners = [
    [size, 0, 0],
    [size, size, 1],
    [0, size, 2],
    [0, 0, 3],
  ] as const;
  for (const [x, y, turn] of corners) {
    const [cx, cy, r] = [x === 0 ? 40 : x - 40, y === 0 ? 40 : y - 40, 40];
    const at = (share: number) => ((turn - 1) * 90 + share * 90) * (Math.PI / 180);
    points.push({ x: cx + r * Math.cos(at(0)), y: cy + r * Math.sin(at(0)), type: 'line' });
    for (let i = 0; i < pieces; i++) {
      const middle = at((i + 0.5) / pieces);
      const out = r / Math.cos(Math.PI / 4 / pieces);
      points.push({ x: cx + out * Math.cos(middle), y: cy + out * Math.sin(middle), type: 'off' });
    }
    points.push({ x: cx + r * Math.cos(at(1)), y: cy + r * Math.sin(at(1)), type: 'qcurve' });
  }
  return { closed: true, points };
}

test('runs of quadratics of other lengths are brought to agree, implied points and all; shapes stay', () => {
  for (const [one, two] of [
    [1, 2],
    [3, 2],
    [4, 1],
  ] as const) {
    const [a, b] = [rounded(300, one), rounded(420, two)];
    const pair = aligned(a, b);
    if (!pair) throw new Error('not aligned');
    expect(sameBuild(...pair)).toBe(true);
    for (const [before, after] of [
      [a, pair[0]],
      [b, pair[1]],
    ] as const) {
      expect(Math.abs(signedArea(after) - signedArea(before))).toBeLessThan(0.5);
      const [p, q] = [contourBounds(before), contourBounds(after)];
      for (const key of ['xMin', 'xMax', 'yMin', 'yMax'] as const) expect(q[key]).toBeCloseTo(p[key], 1);
    }
    // Half way they are a rounded box of the size between.
    const middle = pair[0].points.map((p, i) => ({
      ...p,
      x: (p.x + pair[1].points[i]!.x) / 2,
      y: (p.y + pair[1].points[i]!.y) / 2,
    }));
    expect(Math.abs(signedArea({ closed: true, points: middle }) - signedArea(rounded(360, 4)))).toBeLessThan(400);
  }
});

test('quadratics beside lines stay quadratics; beside cubics all are cubics', () => {
  const flat: Contour = {
    closed: true,
    points: rounded(300, 1)
      .points.filter((p) => p.type !== 'off')
      .map((p) => ({ ...p, type: 'line' })),
  };
  const [line, quad] = aligned(flat, rounded(300, 1))!;
  expect(new Set(line.points.map((p) => p.type))).toEqual(new Set(['line', 'qcurve', 'off']));
  expect(sameBuild(line, quad)).toBe(true);
  expect(signedArea(line)).toBeCloseTo(signedArea(flat), 3);
});
