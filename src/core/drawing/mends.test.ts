import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import { type Affine, affineFrom, factsOf } from '../geometry/affine';
import { contourBounds, curvesOf, signedArea } from '../geometry/contour';
import { square } from '../geometry/testShapes';
import { windingAt } from '../geometry/winding';
import type { Outcome } from '../project/edit';
import type { Drawing, Project } from '../project/model';
import { drawingOf, glyphNamed } from '../project/queries';
import { agreeingMasters, sameStructure } from '../project/structure';
import { setBetween } from './arrange';
import { addBackdrop, levelBackdrop } from './backdrops';
import { addComponent, setComponent } from './components';
import { addContour, deletePoints, insertPoint, movePoints, orderContour, reverseContours } from './edits';
import { between } from './gauge';
import { lineAngle } from './guides';
import { type PointKey, pointKey, pointOf } from './points';
import { combineContours, cutContours } from './shapeEdits';
import { copiedStretches, cutStretches } from './stretches';

const demo = readyDemo();
const done = (outcome: Outcome): Project => {
  if (!outcome.ok) throw new Error(outcome.reason);
  return outcome.project;
};
const id = (name: string) => glyphNamed(demo, name)!.id;
const inMaster = (project: Project, name: string, master = 'm1'): Drawing =>
  drawingOf(glyphNamed(project, name)!, master);
const everywhere = (name: string) => {
  const glyph = glyphNamed(demo, name)!;
  return { glyph: glyph.id, master: 'm1', also: agreeingMasters(demo, glyph, 'm1') };
};
const drawingsIn = (project: Project, name: string) => project.masters.map((m) => inMaster(project, name, m.id));

describe('all masters that agree', () => {
  test('points come and go in all of them at the same place of the same curve, and they go on agreeing', () => {
    const at = everywhere('o');
    expect(at.also).toHaveLength(demo.masters.length - 1);
    const count = inMaster(demo, 'o').contours[0]!.points.length;
    const top = inMaster(demo, 'o').contours[0]!.points.find((p) => p.type !== 'off')!;
    const added = done(insertPoint(demo, { at, x: top.x + 60, y: top.y, within: 80 }));
    expect(drawingsIn(added, 'o').map((d) => d.contours[0]!.points.length)).toEqual(demo.masters.map(() => count + 3));
    expect(sameStructure(drawingsIn(added, 'o'))).toBe(true);
    const gone = done(deletePoints(added, { at, points: ['0:0'] }));
    expect(sameStructure(drawingsIn(gone, 'o'))).toBe(true);
    // In each master the shape is its own.
    expect(new Set(drawingsIn(added, 'o').map((d) => contourBounds(d.contours[0]!).xMax)).size).toBeGreaterThan(1);
  });

  test('a cut goes through the same places, parts are placed, contours turned and ordered in all', () => {
    const at = everywhere('H');
    const box = contourBounds(inMaster(demo, 'H').contours[0]!);
    const y = box.yMin + (box.yMax - box.yMin) * 0.2;
    const cut = done(cutContours(demo, { at, from: [box.xMin - 50, y], to: [box.xMax + 50, y] }));
    const pieces = drawingsIn(cut, 'H').map((d) => d.contours.length);
    expect(new Set(pieces).size).toBe(1);
    expect(pieces[0]).toBeGreaterThan(1);
    expect(sameStructure(drawingsIn(cut, 'H'))).toBe(true);
    drawingsIn(cut, 'H').forEach((d, i) => {
      const area = (all: Drawing) => all.contours.reduce((sum, c) => sum + signedArea(c), 0);
      expect(area(d)).toBeCloseTo(area(inMaster(demo, 'H', demo.masters[i]!.id)), 0);
    });
    const placed = done(addComponent(cut, { at, glyph: id('period') }));
    expect(drawingsIn(placed, 'H').every((d) => d.components.length === 1)).toBe(true);
    const turned = done(reverseContours(placed, { at, contours: [0] }));
    const ordered = done(orderContour(turned, { at, from: 0, to: 1 }));
    expect(sameStructure(drawingsIn(ordered, 'H'))).toBe(true);
  });

  test('what one master refuses is done in none, and what would part the masters is refused', () => {
    const at = everywhere('o');
    const gone = deletePoints(demo, { at: { ...at, also: ['nowhere'] }, points: ['0:0'] });
    expect(gone).toMatchObject({ ok: false });
    const moved = done(movePoints(demo, { at, points: ['0:0'], dx: 3, dy: 0 }));
    drawingsIn(moved, 'o').forEach((d, i) => {
      const was = inMaster(demo, 'o', demo.masters[i]!.id).contours[0]!.points[0]!;
      expect(d.contours[0]!.points[0]!.x).toBe(was.x + 3);
    });
  });
});

test('a cut given to a terminal that faces the other way stays on its side: an angle is that of a line', () => {
  const contour = {
    closed: false,
    points: [0, 1].map((i) => ({ x: 100 - 70 * i, y: 100 - 65 * i, type: 'line' as const })),
  };
  const at = { glyph: id('space'), master: 'm1' };
  const project = done(addContour(demo, { at, contour, what: 'a terminal' }));
  const given = done(setBetween(project, { at, from: '0:0', to: '0:1', angle: 30, distance: 50 }));
  const d = inMaster(given, 'space');
  const [p, q] = [pointOf(d, '0:0')!, pointOf(d, '0:1')!];
  expect(lineAngle(between(p, q).angle)).toBeCloseTo(30, 1);
  expect(between(p, q).distance).toBeCloseTo(50, 1);
  // The point that moved lies below the other, as it did.
  expect(q.y).toBeLessThan(p.y);
  expect(p).toMatchObject({ x: 100, y: 100 });
});

test('uniting a chosen outer contour keeps the counters in it', () => {
  const at = { glyph: id('O'), master: 'm1' };
  const bar = square(0, 300, 60);
  const project = done(addContour(demo, { at, contour: bar, what: 'a bar' }));
  const O = inMaster(project, 'O');
  const outer = O.contours.findIndex(
    (c) => Math.abs(signedArea(c)) === Math.max(...O.contours.map((k) => Math.abs(signedArea(k)))),
  );
  const united = inMaster(done(combineContours(project, { at, contours: [outer], operation: 'unite' })), 'O');
  const box = contourBounds(O.contours[outer]!);
  const middle = [(box.xMin + box.xMax) / 2, (box.yMin + box.yMax) / 2] as const;
  expect(
    windingAt(
      united.contours.flatMap((c) => [...curvesOf(c)]),
      ...middle,
    ),
  ).toBe(0);
});

test('a part’s numbers hold its whole transform, and a size of nothing is refused', () => {
  const n = (a: number, b: number) => fc.integer({ min: a * 1000, max: b * 1000 }).map((v) => v / 1000);
  fc.assert(
    fc.property(n(-3, 3), n(-3, 3), n(-3, 3), n(-3, 3), (a, b, c, d) => {
      const t: Affine = [a, b, c, d, 12, -7];
      fc.pre(Math.abs(a * d - b * c) > 1e-2 && Math.hypot(a, b) > 1e-2);
      for (const [i, v] of affineFrom(factsOf(t)).entries()) expect(v).toBeCloseTo(t[i]!, 4);
    }),
  );
  const at = { glyph: id('H'), master: 'm1' };
  const placed = done(addComponent(demo, { at, glyph: id('period'), transform: [1, 0, 0.3, 1, 0, 0] }));
  expect(setComponent(placed, { at, index: 0, change: { transform: [0, 0, 0.3, 1, 0, 0] } })).toMatchObject({
    ok: false,
  });
});

describe('stretches of contours', () => {
  const at = { glyph: id('space'), master: 'm1' };
  const box = square(0, 0, 100);
  const project = done(addContour(demo, { at, contour: box, what: 'a box' }));
  const own = (p: Project) => inMaster(p, 'space').contours;
  const copied = (keys: PointKey[]) => copiedStretches(inMaster(project, 'space'), keys);

  test('points that follow each other take what lies between them, round the start too; others the whole contour', () => {
    expect(copied(['0:0', '0:1'])).toMatchObject([
      {
        closed: false,
        points: [
          { x: 0, y: 0 },
          { x: 100, y: 0 },
        ],
      },
    ]);
    expect(copied(['0:3', '0:0'])).toMatchObject([
      {
        closed: false,
        points: [
          { x: 0, y: 100 },
          { x: 0, y: 0 },
        ],
      },
    ]);
    expect(copied(['0:0', '0:2'])).toEqual([box]);
    expect(copied([0, 1, 2, 3].map((i) => pointKey(0, i)))).toEqual([box]);
    const o = inMaster(demo, 'o');
    const [a, b] = o.contours[0]!.points.flatMap((p, i) => (p.type === 'off' ? [] : [i]));
    const [stretch] = copiedStretches(o, [pointKey(0, a!), pointKey(0, b!)]);
    expect(curvesOf(stretch!)).toEqual([curvesOf(o.contours[0]!)[0]]);
  });

  test('cut out, the contour opens; what was cut and what is left together are what was', () => {
    const left = own(done(cutStretches(project, { at, points: ['0:0', '0:1'] })));
    expect(left).toMatchObject([
      {
        closed: false,
        points: [
          { x: 100, y: 0 },
          { x: 100, y: 100 },
          { x: 0, y: 100 },
          { x: 0, y: 0 },
        ],
      },
    ]);
    expect(own(done(cutStretches(project, { at, points: ['0:0'] })))).toEqual([]);
    const opened = done(addContour(demo, { at, contour: { ...box, closed: false }, what: 'three sides' }));
    const halves = own(done(cutStretches(opened, { at, points: ['0:1', '0:2'] })));
    expect(halves.map((c) => c.points.map((p) => [p.x, p.y]))).toEqual([
      [
        [0, 0],
        [100, 0],
      ],
      [
        [100, 100],
        [0, 100],
      ],
    ]);
  });
});

test('a blade through a point leaves no crumb, along an edge no sliver, and only chosen contours are cut', () => {
  const at = { glyph: id('space'), master: 'm1' };
  const two = [square(0, 0, 100), square(200, 0, 100)].reduce(
    (p, contour) => done(addContour(p, { at, contour, what: 'a box' })),
    demo,
  );
  const halves = inMaster(done(cutContours(two, { at, from: [-20, -19.6], to: [120, 120.3], contours: [0] })), 'space');
  expect(halves.contours.map((c) => c.points.length).sort()).toEqual([3, 3, 4]);
  for (const p of halves.contours.flatMap((c) => c.points)) expect([0, 100, 200, 300]).toContain(p.x);
  const grazed = cutContours(two, { at, from: [-20, 0.4], to: [320, 0.5] });
  expect(grazed.ok ? inMaster(grazed.project, 'space').contours.length : 2).toBe(2);
});

test('a picture is set by its own baseline and x-height, wherever they lie on it', () => {
  const at = { glyph: id('n'), master: 'm1' };
  const picture = {
    name: 'sheet.png',
    bytes: new Uint8Array([1]),
    type: 'image/png' as const,
    width: 400,
    height: 300,
  };
  const backdrop = {
    id: 'b1',
    picture: 'p',
    transform: [1.7, 0.1, 0.1, -1.7, 33, 612] as Affine,
    strength: 1,
    locked: false,
    visible: true,
  };
  const project = done(addBackdrop(demo, { at, key: 'p', picture, backdrop }));
  const { zones } = demo.masters.find((m) => m.id === 'm1')!;
  const set = done(levelBackdrop(project, { at, id: 'b1', base: 120, line: 560, zone: 'xHeight' }));
  const [, b, , d, , f] = inMaster(set, 'n').backdrops[0]!.transform;
  const [, b0, , d0, , f0] = backdrop.transform;
  // Any place of the picture that lay at one height lies at one height now.
  const heightOf = (u: number, before: number) => {
    const v = (before - f0 - b0 * u) / d0;
    return b * u + d * v + f;
  };
  for (const u of [0, 150]) {
    expect(heightOf(u, 120)).toBeCloseTo(zones.baseline.position, 3);
    expect(heightOf(u, 560)).toBeCloseTo(zones.xHeight.position, 2);
  }
  expect(levelBackdrop(project, { at, id: 'b1', base: 560, line: 120, zone: 'xHeight' })).toMatchObject({ ok: false });
});
