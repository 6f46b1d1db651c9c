import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import { refused } from '../base/result';
import { readProjectFile, writeProjectFile } from '../formats/project/projectFile';
import { type Contour, curvesOf, isOnCurve, segmentsOf, signedArea } from '../geometry/contour';
import { nearestOn, pointAt } from '../geometry/curve';
import type { Outcome } from '../project/edit';
import type { Drawing, Project } from '../project/model';
import { drawingOf, glyphNamed, masterOf } from '../project/queries';
import {
  alignPoints,
  distributePoints,
  handleOf,
  moveHandle,
  movePointsAlone,
  ownerOf,
  setBetween,
  setHandle,
} from './arrange';
import { addOutlineBackdrop, backdropContours, outlineName, removeBackdrop } from './backdrops';
import { addComponent, drawOut, makeComponent, moveComponents, removeComponents, setComponent } from './components';
import { addContour, orderContour } from './edits';
import { cutAtPoint, joinEnds, looseEnd, looseEndNear } from './ends';
import { between, stretchesAlong } from './gauge';
import { GLIDE_WITHIN, glided, glidePoint } from './glide';
import { addGuide, guidesFor, guideThrough, moveGuideTo, removeGuide, setGuide } from './guides';
import { type PointKey, pointKey, pointOf } from './points';
import { rectangle } from './shapes';
import { catchesFor, snapped } from './snapping';
import { keepTake, olderTakes, removeOlderTakes, removeTake, renameTake, restoreTake, takesOf } from './takes';

const demo = readyDemo();
const at = (name: string, master = 'm1') => ({ glyph: glyphNamed(demo, name)!.id, master });
const done = (outcome: Outcome): Project => {
  if (!outcome.ok) throw new Error(outcome.reason);
  return outcome.project;
};
const drawingIn = (project: Project, name: string, master = 'm1'): Drawing =>
  drawingOf(glyphNamed(project, name)!, master);

describe('gliding', () => {
  test('a smooth point slides along its curve and the shape stays within half a unit, in all letters', () => {
    let slid = 0;
    for (const name of [...'aegosS8'].map((c) => (c === '8' ? 'eight' : c))) {
      for (const contour of drawingIn(demo, name).contours) {
        const before = curvesOf(contour);
        contour.points.forEach((p, i) => {
          if (!isOnCurve(p) || !p.smooth) return;
          const next = segmentsOf(contour).find((s) => s.from === i)!;
          const goal = pointAt(next.curves[0]!, 0.3);
          const after = glided(contour, i, ...goal);
          if (!after) return;
          slid++;
          expect(after.points.map((q) => q.type)).toEqual(contour.points.map((q) => q.type));
          for (const c of curvesOf(after))
            for (let k = 0; k <= 8; k++)
              expect(Math.min(...before.map((b) => nearestOn(b, ...pointAt(c, k / 8)).distance))).toBeLessThan(
                GLIDE_WITHIN + 0.05,
              );
          expect(Math.abs(signedArea(after) - signedArea(contour))).toBeLessThan(GLIDE_WITHIN * 900);
        });
      }
    }
    expect(slid).toBeGreaterThan(20);
  });

  test('corners between lines do not glide, nor do handles; a point in a straight side does', () => {
    const square = rectangle(0, 0, 100, 100);
    expect(glided(square, 1, 60, 0)).toBeUndefined();
    const split: Contour = {
      closed: true,
      points: [...square.points.slice(0, 1), { x: 50, y: 0, type: 'line' }, ...square.points.slice(1)],
    };
    expect(glided(split, 1, 70, 3)?.points[1]).toMatchObject({ x: 70, y: 0 });
    const off = drawingIn(demo, 'o').contours[0]!.points.findIndex((p) => p.type === 'off');
    expect(glidePoint(demo, { at: at('o'), point: pointKey(0, off), x: 0, y: 0 })).toMatchObject({ ok: false });
  });
});

describe('ends', () => {
  const open = (...places: [number, number][]): Contour => ({
    closed: false,
    points: places.map(([x, y]) => ({ x, y, type: 'line' })),
  });
  const withContours = (...contours: Contour[]) =>
    contours.reduce((p, contour) => done(addContour(p, { at: at('space'), contour, what: 'a line' })), demo);
  const space = at('space');

  test('dropped on another end, two contours become one whichever ends they are', () => {
    const project = withContours(open([0, 0], [10, 0]), open([50, 0], [60, 0], [70, 5]));
    for (const [from, to, places] of [
      ['0:1', '1:0', [0, 50, 60, 70]],
      ['0:0', '1:0', [10, 50, 60, 70]],
      ['0:1', '1:2', [0, 70, 60, 50]],
      ['0:0', '1:2', [10, 70, 60, 50]],
    ] as const) {
      const joined = drawingIn(done(joinEnds(project, { at: space, from, to })), 'space').contours;
      expect(joined).toHaveLength(1);
      expect(joined[0]!.points.map((p) => p.x)).toEqual(places);
      expect(joined[0]!.closed).toBe(false);
    }
    expect(looseEndNear(drawingIn(project, 'space'), 52, 1, 5, '0:1')).toBe('1:0');
    expect(looseEndNear(drawingIn(project, 'space'), 52, 1, 5, '1:0')).toBeUndefined();
  });

  test('an end dropped on its own other end closes the contour', () => {
    const project = withContours(open([0, 0], [100, 0], [100, 80], [3, 4]));
    const closed = drawingIn(done(joinEnds(project, { at: space, from: '0:3', to: '0:0' })), 'space').contours[0]!;
    expect(closed.closed).toBe(true);
    expect(closed.points.map((p) => [p.x, p.y])).toEqual([
      [0, 0],
      [100, 0],
      [100, 80],
    ]);
    expect(joinEnds(project, { at: space, from: '0:1', to: '0:0' })).toMatchObject({ ok: false });
  });

  test('cut at a point, a letter opens there and is the same again when its ends are joined', () => {
    const o = drawingIn(demo, 'o').contours[0]!;
    const cut = done(
      cutAtPoint(demo, {
        at: at('o'),
        point: pointKey(
          0,
          o.points.findIndex((p, i) => i > 0 && isOnCurve(p)),
        ),
      }),
    );
    const open = drawingIn(cut, 'o').contours[0]!;
    expect(open.closed).toBe(false);
    expect(looseEnd(drawingIn(cut, 'o'), pointKey(0, open.points.length - 1))).toBe('last');
    const again = drawingIn(
      done(joinEnds(cut, { at: at('o'), from: pointKey(0, open.points.length - 1), to: '0:0' })),
      'o',
    ).contours[0]!;
    expect(signedArea(again)).toBeCloseTo(signedArea(o), 6);
    expect(again.points).toHaveLength(o.points.length);
    const twice = done(cutAtPoint(cut, { at: at('o'), point: pointKey(0, 3) }));
    expect(drawingIn(twice, 'o').contours).toHaveLength(3);
    expect(cutAtPoint(cut, { at: at('o'), point: '0:0' })).toMatchObject({ ok: false });
  });
});

describe('handles and arrangement', () => {
  const o = drawingIn(demo, 'o');
  const handle = pointKey(
    0,
    o.contours[0]!.points.findIndex((p) => p.type === 'off'),
  );
  const owner = ownerOf(o, handle)!;

  test('a handle has a length and an angle, and takes others; the smooth point stays smooth', () => {
    const now = handleOf(o, handle)!;
    const project = done(setHandle(demo, { at: at('o'), handle, length: now.distance * 2, angle: now.angle + 10 }));
    const after = handleOf(drawingIn(project, 'o'), handle)!;
    expect(after.distance).toBeCloseTo(now.distance * 2, 1);
    expect(after.angle).toBeCloseTo(now.angle + 10, 1);
    const d = drawingIn(project, 'o');
    const twin = d.contours[0]!.points.map((_, i) => pointKey(0, i)).find(
      (k) => k !== handle && ownerOf(d, k) === owner,
    )!;
    expect(Math.abs(Math.abs(handleOf(d, twin)!.angle - after.angle) - 180)).toBeLessThan(0.1);
    expect(setHandle(demo, { at: at('o'), handle: owner, length: 5 })).toMatchObject({ ok: false });
  });

  test('free parts the handles, equal mirrors them', () => {
    const p = pointOf(o, owner)!;
    const free = drawingIn(done(moveHandle(demo, { at: at('o'), handle, x: p.x + 30, y: p.y + 40, how: 'free' })), 'o');
    expect(pointOf(free, owner)!.smooth).toBeUndefined();
    const twin = o.contours[0]!.points.map((_, i) => pointKey(0, i)).find(
      (k) => k !== handle && ownerOf(o, k) === owner,
    )!;
    expect(pointOf(free, twin)).toEqual(pointOf(o, twin));
    const equal = drawingIn(
      done(moveHandle(demo, { at: at('o'), handle, x: p.x + 30, y: p.y + 40, how: 'equal' })),
      'o',
    );
    expect(pointOf(equal, twin)).toMatchObject({ x: p.x - 30, y: p.y - 40 });
  });

  test('a point moved alone leaves its handles; out of line it becomes a corner', () => {
    const moved = drawingIn(done(movePointsAlone(demo, { at: at('o'), points: [owner], dx: 7, dy: 9 })), 'o');
    expect(pointOf(moved, handle)).toEqual(pointOf(o, handle));
    expect(pointOf(moved, owner)!.smooth).toBeUndefined();
  });

  test('points are aligned and spaced; what is too few is refused', () => {
    const H = drawingIn(demo, 'H');
    const keys = H.contours[0]!.points.slice(0, 4).map((_, i) => pointKey(0, i));
    const xs = keys.map((k) => pointOf(H, k)!.x);
    for (const [to, axis, value] of [
      ['left', 'x', Math.min(...xs)],
      ['right', 'x', Math.max(...xs)],
      // Between two whole units lies none: the middle is on the grid.
      ['centre', 'x', Math.round((Math.min(...xs) + Math.max(...xs)) / 2)],
      ['top', 'y', Math.max(...keys.map((k) => pointOf(H, k)!.y))],
    ] as const) {
      const d = drawingIn(done(alignPoints(demo, { at: at('H'), points: keys, to })), 'H');
      for (const k of keys) expect(pointOf(d, k)![axis]).toBeCloseTo(value, 2);
    }
    const project = done(
      addContour(demo, {
        at: at('space'),
        contour: { closed: false, points: [0, 10, 70, 100].map((x) => ({ x, y: 0, type: 'line' as const })) },
        what: 'dots',
      }),
    );
    const spread = drawingIn(
      done(distributePoints(project, { at: at('space'), points: ['0:0', '0:1', '0:2', '0:3'], axis: 'x' })),
      'space',
    );
    expect(spread.contours[0]!.points.map((p) => Math.round(p.x * 10) / 10)).toEqual([0, 33, 67, 100]);
    expect(alignPoints(demo, { at: at('H'), points: ['0:0'], to: 'top' })).toMatchObject({ ok: false });
    expect(distributePoints(demo, { at: at('H'), points: ['0:0', '0:1'], axis: 'x' })).toMatchObject({ ok: false });
  });

  test('a terminal’s length and angle are copied to another pair of points', () => {
    const c = drawingIn(demo, 'c').contours[0]!.points;
    const now = between(c[0]!, c[3]!);
    const d = drawingIn(
      done(setBetween(demo, { at: at('H'), from: '0:0', to: '0:1', distance: now.distance, angle: now.angle })),
      'H',
    ).contours[0]!.points;
    expect(between(d[0]!, d[1]!).distance).toBeCloseTo(now.distance, 1);
    expect(between(d[0]!, d[1]!).angle).toBeCloseTo(now.angle, 1);
  });

  test('contours change places in their order', () => {
    const before = drawingIn(demo, 'g').contours;
    const after = drawingIn(done(orderContour(demo, { at: at('g'), from: 0, to: 1 })), 'g').contours;
    expect([after[0], after[1]]).toEqual([before[1], before[0]]);
    expect(orderContour(demo, { at: at('g'), from: 0, to: 0 })).toMatchObject({ ok: false });
  });
});

describe('the gauge', () => {
  test('stems and counters of n and o along a level line, ink told from white', () => {
    const n = stretchesAlong(drawingIn(demo, 'n').contours, { x0: -100, y0: 200, x1: 900, y1: 200 });
    expect(n.map((s) => s.ink)).toEqual([true, false, true]);
    expect(n[0]!.length).toBeCloseTo(n[2]!.length, 0);
    const o = stretchesAlong(drawingIn(demo, 'o').contours, { x0: 288, y0: -300, x1: 288, y1: 900 });
    expect(o.map((s) => s.ink)).toEqual([true, false, true]);
    expect(stretchesAlong(drawingIn(demo, 'o').contours, { x0: 0, y0: 900, x1: 500, y1: 900 })).toEqual([]);
  });

  test('turned any way, a bar’s stretch is its width by the angle; edges inside ink part nothing', () => {
    fc.assert(
      fc.property(fc.integer({ min: -70, max: 70 }), (degrees) => {
        const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
        const found = stretchesAlong([rectangle(0, -2000, 80, 2000), rectangle(40, -2000, 120, 2000)], {
          x0: 60 - c * 900,
          y0: -s * 900,
          x1: 60 + c * 900,
          y1: s * 900,
        });
        expect(found).toHaveLength(1);
        expect(found[0]!.length).toBeCloseTo(120 / c, 4);
      }),
    );
  });
});

describe('parts', () => {
  test('a part is placed, moved, exchanged, taken away, and drawn out again to the very same ink', () => {
    const placed = done(
      addComponent(demo, { at: at('space'), glyph: at('o').glyph, transform: [-1, 0, 0, 1, 300, 0] }),
    );
    const moved = done(moveComponents(placed, { at: at('space'), indices: [0], dx: 10, dy: -5 }));
    expect(drawingIn(moved, 'space').components[0]!.transform).toEqual([-1, 0, 0, 1, 310, -5]);
    const other = done(setComponent(moved, { at: at('space'), index: 0, change: { glyph: at('n').glyph } }));
    expect(drawingIn(other, 'space').components[0]!.glyph).toBe(at('n').glyph);
    const out = drawingIn(done(drawOut(moved, { at: at('space'), indices: [0] })), 'space');
    expect(out.components).toEqual([]);
    const area = (d: Drawing) => d.contours.reduce((sum, c) => sum + signedArea(c), 0);
    expect(area(out)).toBeCloseTo(area(drawingIn(demo, 'o')), 3);
    expect(drawingIn(done(removeComponents(moved, { at: at('space'), indices: [0] })), 'space').components).toEqual([]);
  });

  test('a part that would lead back is refused with the chain named', () => {
    const once = done(addComponent(demo, { at: at('n'), glyph: at('o').glyph }));
    const twice = done(addComponent(once, { at: at('o'), glyph: at('space').glyph }));
    expect(addComponent(twice, { at: at('space'), glyph: at('n').glyph })).toEqual(
      refused('n cannot be a part of space: space → n → o → space would never end.'),
    );
    expect(addComponent(demo, { at: at('n'), glyph: at('n').glyph })).toMatchObject(
      refused('n cannot be a part of itself.'),
    );
    expect(setComponent(twice, { at: at('o'), index: 0, change: { glyph: at('n').glyph } })).toMatchObject({
      ok: false,
    });
  });

  test('made of chosen contours in every master; editing the part changes its users', () => {
    const project = done(makeComponent(demo, { at: at('i'), contours: [1], name: '_dot' }));
    const part = glyphNamed(project, '_dot')!;
    expect(part.cast).toBe(false);
    for (const m of demo.masters) {
      const [before, after] = [drawingIn(demo, 'i', m.id), drawingIn(project, 'i', m.id)];
      expect(after.contours).toEqual([before.contours[0]]);
      expect(after.components).toEqual([{ glyph: part.id, transform: [1, 0, 0, 1, 0, 0] }]);
      expect(drawingOf(part, m.id).contours).toEqual([before.contours[1]]);
    }
    expect(makeComponent(demo, { at: at('i'), contours: [1], name: 'o' })).toMatchObject({ ok: false });
    expect(makeComponent(demo, { at: at('i'), contours: [], name: '_x' })).toMatchObject({ ok: false });
  });
});

describe('guides and snapping', () => {
  test('guides of a glyph and of a master are added, turned, moved between and taken away', () => {
    const own = { at: at('n'), whole: false };
    let project = done(addGuide(demo, { ...own, guide: guideThrough(0, 0, 100, 100)! }));
    project = done(addGuide(project, { ...own, whole: true, guide: { x: 0, y: 300, angle: 180, name: 'bars' } }));
    expect(guidesFor(masterOf(project, 'm1')!, drawingIn(project, 'n')).map((g) => g.angle)).toEqual([0, 45]);
    project = done(setGuide(project, { ...own, index: 0, change: { angle: -30 } }));
    expect(drawingIn(project, 'n').guides[0]!.angle).toBe(150);
    project = done(moveGuideTo(project, { at: at('n'), index: 0, toWhole: true }));
    expect([drawingIn(project, 'n').guides.length, masterOf(project, 'm1')!.guides.length]).toEqual([0, 2]);
    project = done(removeGuide(project, { ...own, whole: true, index: 0 }));
    expect(masterOf(project, 'm1')!.guides.map((g) => g.angle)).toEqual([150]);
    expect(removeGuide(project, { ...own, index: 5 })).toMatchObject({ ok: false });
    expect(guideThrough(3, 3, 3, 3)).toBeUndefined();
  });

  test('a place catches on lines, edges, points and slanting guides, and says on which', () => {
    const project = done(
      addGuide(demo, { at: at('n'), whole: false, guide: { x: 0, y: 0, angle: 30, name: 'slant' } }),
    );
    const drawing = drawingIn(project, 'n');
    const catches = catchesFor(masterOf(project, 'm1')!, drawing, new Set());
    const caught = snapped(catches, 200, 523, 8);
    expect(caught).toMatchObject({ x: 200, y: 520, names: ['x-height'] });
    expect(snapped(catches, -5, 300, 8)).toMatchObject({ x: 0, names: ['left edge'] });
    const p = drawing.contours[0]!.points.find(isOnCurve)!;
    expect(snapped(catches, p.x + 2, p.y - 3, 8)).toMatchObject({ x: p.x, y: p.y });
    const slant = snapped(catches, 346.4 - 2, 203, 8);
    expect(slant.names).toEqual(['slant']);
    expect(slant.y / slant.x).toBeCloseTo(Math.tan(Math.PI / 6), 6);
    expect(snapped(catches, 300, 620, 4)).toMatchObject({ x: 300, y: 620, names: [] });
    const key = pointKey(0, drawing.contours[0]!.points.indexOf(p)) as PointKey;
    expect(catchesFor(masterOf(project, 'm1')!, drawing, new Set([key])).length).toBe(catches.length - 2);
  });
});

describe('backdrops and takes', () => {
  test('another master, another glyph and a copy stand behind; what is gone shows nothing', () => {
    const here = at('a');
    let project = done(addOutlineBackdrop(demo, { at: here, outline: { kind: 'master', master: 'm3' } }));
    project = done(addOutlineBackdrop(project, { at: here, outline: { kind: 'glyph', glyph: at('adieresis').glyph } }));
    project = done(
      addOutlineBackdrop(project, { at: here, outline: { kind: 'copy', contours: drawingIn(demo, 'a').contours } }),
    );
    const [master, glyph, copy] = drawingIn(project, 'a').backdrops;
    const shown = (b: typeof master) => backdropContours(project, project.glyphs[here.glyph]!, 'm1', b!);
    expect(shown(master)).toEqual(drawingIn(demo, 'a', 'm3').contours);
    expect(shown(glyph).length).toBeGreaterThan(2);
    expect(shown(copy)).toBe(drawingIn(demo, 'a').contours);
    expect(outlineName(project, project.glyphs[here.glyph], master!.outline!)).toBe('Heavy');
    expect(addOutlineBackdrop(project, { at: here, outline: { kind: 'master', master: 'm3' } })).toMatchObject({
      ok: false,
    });
    expect(addOutlineBackdrop(project, { at: here, outline: { kind: 'glyph', glyph: here.glyph } })).toMatchObject({
      ok: false,
    });
    expect(drawingIn(done(removeBackdrop(project, { at: here, id: copy!.id })), 'a').backdrops).toHaveLength(2);
    expect(shown({ ...master!, outline: { kind: 'take', take: 't99' } })).toEqual([]);
    // They come back out of a project file.
    const back = readProjectFile(writeProjectFile(project), 'x.wendril');
    if (!back.ok) throw new Error(back.reason);
    expect(drawingIn(back.value, 'a').backdrops.map((b) => b.outline?.kind)).toEqual(['master', 'glyph', 'copy']);
    const kept = drawingIn(back.value, 'a').backdrops[1]!.outline;
    expect(kept?.kind === 'glyph' && back.value.glyphs[kept.glyph]?.name).toBe('adieresis');
  });

  test('older takes go in every master, also from behind a drawing; the newest of each stays', () => {
    const here = at('a');
    const two = { glyph: here.glyph, master: 'm2' };
    let project = done(keepTake(demo, { at: here, date: '2026-01-02T10:00:00Z', name: 'first' }));
    project = done(keepTake(project, { at: two, date: '2026-01-02T10:00:00Z', name: 'only one of m2' }));
    expect(removeOlderTakes(project, {})).toMatchObject({ ok: false });
    const [first] = takesOf(project.glyphs[here.glyph]!, 'm1');
    const outline = { kind: 'take' as const, take: first!.id };
    project = done(addOutlineBackdrop(project, { at: here, outline }));
    project = done(addContour(project, { at: here, contour: rectangle(0, 0, 50, 50), what: 'a box' }));
    project = done(keepTake(project, { at: here, date: '2026-01-02T10:05:00Z', name: 'second' }));
    expect(olderTakes(project.glyphs[here.glyph]!)).toEqual([first]);
    const fewer = done(removeOlderTakes(project, {}));
    expect(fewer.glyphs[here.glyph]!.takes.map((t) => t.name).sort()).toEqual(['only one of m2', 'second']);
    const behind = (p: typeof project) => p.glyphs[here.glyph]!.drawings.m1!.backdrops.map((b) => b.outline);
    expect(behind(project)).toContainEqual(outline);
    expect(behind(fewer)).not.toContainEqual(outline);
    expect(renameTake(fewer, { glyph: here.glyph, take: first!.id, name: 'x' })).toMatchObject({ ok: false });
  });

  test('a take is kept, found again, brought back without losing what is there, and thrown away', () => {
    const here = at('a');
    let project = done(keepTake(demo, { at: here, date: '2026-01-02T10:00:00Z' }));
    expect(keepTake(project, { at: here, date: '2026-01-02T10:00:01Z' })).toMatchObject({ ok: false });
    const [take] = takesOf(project.glyphs[here.glyph]!, 'm1');
    project = done(addContour(project, { at: here, contour: rectangle(0, 0, 50, 50), what: 'a box' }));
    const changed = drawingIn(project, 'a').contours;
    project = done(restoreTake(project, { at: here, take: take!.id, date: '2026-01-03T10:00:00Z' }));
    expect(drawingIn(project, 'a').contours).toEqual(drawingIn(demo, 'a').contours);
    const takes = takesOf(project.glyphs[here.glyph]!, 'm1');
    expect(takes.map((t) => t.name)).toEqual(['Before Take 1', 'Take 1']);
    expect(takes[0]!.drawing.contours).toEqual(changed);
    expect(takesOf(project.glyphs[here.glyph]!, 'm2')).toEqual([]);
    project = done(renameTake(project, { glyph: here.glyph, take: take!.id, name: ' Round tail ' }));
    project = done(addOutlineBackdrop(project, { at: here, outline: { kind: 'take', take: take!.id } }));
    expect(drawingIn(project, 'a').backdrops).toHaveLength(1);
    project = done(removeTake(project, { glyph: here.glyph, take: take!.id }));
    expect(drawingIn(project, 'a').backdrops).toEqual([]);
    expect(restoreTake(project, { at: here, take: take!.id, date: '' })).toMatchObject({ ok: false });
    expect(renameTake(project, { glyph: here.glyph, take: takes[0]!.id, name: ' ' })).toMatchObject({ ok: false });
  });
});
