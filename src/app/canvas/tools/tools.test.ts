import { buildStarter } from '../../../../demo/starter';
import type { PointKey } from '../../../core/drawing/points';
import { curvesOf, signedArea } from '../../../core/geometry/contour';
import { areaUnder } from '../../../core/geometry/curve';
import type { Outcome } from '../../../core/project/edit';
import type { Project } from '../../../core/project/model';
import { glyphNamed } from '../../../core/project/queries';
import { fitted, toFontX, toFontY, toPxX, toPxY, zoomAt } from '../view';
import { bladeTool } from './blade';
import { penTool } from './pen';
import { selectTool } from './select';
import { shapeTool } from './shape';
import { type Hand, straightened, type Tool, type Workplace } from './tool';

/** A bench in memory: what a tool previews and records can be looked at. */
function bench(glyphName: string) {
  let settled = buildStarter();
  let project = settled;
  const glyph = glyphNamed(settled, glyphName)!.id;
  let selection: ReadonlySet<PointKey> = new Set();
  const sentences: string[] = [];
  const take = (edit: (p: Project) => Outcome) => edit(settled);
  const place: Workplace = {
    project: () => project,
    master: () => project.masters[0]!,
    at: () => ({ glyph, master: 'm1' }),
    drawing: () => project.glyphs[glyph]!.drawings.m1!,
    selection: () => selection,
    select: (s) => {
      selection = s;
    },
    preview: (edit) => {
      const o = take(edit);
      project = o.ok ? o.project : settled;
    },
    commit: (edit) => {
      const o = take(edit);
      project = settled = o.ok ? o.project : settled;
      if (o.ok) sentences.push(o.sentence);
      return o.ok;
    },
    cancel: () => {
      project = settled;
    },
    repaint: () => {},
  };
  return { place, sentences, settled: () => settled.glyphs[glyph]!.drawings.m1!, selection: () => selection };
}

const hand = (x: number, y: number, more: Partial<Hand> = {}): Hand => ({ x, y, shift: false, alt: false, mod: false, clicks: 1, reach: 8, ...more });
const drag = (tool: Tool, from: [number, number], to: [number, number], more: Partial<Hand> = {}) => {
  tool.down(hand(...from, more));
  tool.move(hand((from[0] + to[0]) / 2, (from[1] + to[1]) / 2, more));
  tool.move(hand(...to, more));
  tool.up(hand(...to, more));
};
const click = (tool: Tool, x: number, y: number, more: Partial<Hand> = {}) => {
  tool.down(hand(x, y, more));
  tool.up(hand(x, y, more));
};

test('select: a click chooses, Shift adds, a sweep gathers, a drag moves as one step', () => {
  const b = bench('n');
  const tool = selectTool(b.place);
  const first = b.settled().contours[0]!.points[0]!;
  click(tool, first.x + 2, first.y - 1);
  expect([...b.selection()]).toEqual(['0:0']);
  click(tool, 156, 0, { shift: true });
  expect(b.selection().size).toBe(2);
  drag(tool, [first.x, first.y], [first.x + 20, first.y + 7]);
  expect(b.settled().contours[0]!.points[0]).toMatchObject({ x: first.x + 20, y: first.y + 7 });
  expect(b.sentences).toEqual(['Moved 2 points in n, Regular']);
  drag(tool, [-50, -60], [600, 80]);
  expect(b.selection().size).toBe(4);
  tool.key('Escape', { shift: false, alt: false, mod: false });
  expect(b.selection().size).toBe(0);
});

test('select: Shift keeps to an axis, keys nudge, C and Delete work on the selection', () => {
  const b = bench('n');
  const tool = selectTool(b.place);
  const first = b.settled().contours[0]!.points[0]!;
  click(tool, first.x, first.y);
  drag(tool, [first.x, first.y], [first.x + 40, first.y + 9], { shift: false });
  const none = { shift: false, alt: false, mod: false };
  tool.key('ArrowUp', { ...none, shift: true });
  tool.key('ArrowLeft', none);
  expect(b.settled().contours[0]!.points[0]).toMatchObject({ x: first.x + 39, y: first.y + 19 });
  const count = b.settled().contours[0]!.points.length;
  tool.key('Delete', none);
  expect(b.settled().contours[0]!.points).toHaveLength(count - 1);
  expect(straightened(0, 0, 50, 9)).toEqual([50, 0]);
  expect(straightened(0, 0, 40, 50)).toEqual([45, 45]);
});

test('select: double click adds a point on the outline, then turns it', () => {
  const b = bench('o');
  const tool = selectTool(b.place);
  const area = signedArea(b.settled().contours[0]!);
  const [curve] = curvesOf(b.settled().contours[0]!);
  const mid = [
    0.125 * curve![0]! + 0.375 * curve![2]! + 0.375 * curve![4]! + 0.125 * curve![6]!,
    0.125 * curve![1]! + 0.375 * curve![3]! + 0.375 * curve![5]! + 0.125 * curve![7]!,
  ] as const;
  click(tool, mid[0], mid[1], { clicks: 2 });
  expect(b.settled().contours[0]!.points).toHaveLength(15);
  expect(signedArea(b.settled().contours[0]!)).toBeCloseTo(area, 3);
  expect(b.selection().size).toBe(1);
  click(tool, mid[0], mid[1], { clicks: 2 });
  const [key] = [...b.selection()];
  expect(b.settled().contours[0]!.points[Number(key!.split(':')[1])]!.smooth).toBeUndefined();
});

test('pen: clicks make corners, drags make curves, the start closes', () => {
  const b = bench('arrowright');
  const tool = penTool(b.place);
  click(tool, 100, 0);
  click(tool, 400, 0);
  drag(tool, [400, 300], [400, 380]);
  drag(tool, [250, 450], [170, 450]);
  expect(b.settled().contours[0]!.closed).toBe(false);
  click(tool, 101, 1);
  const contour = b.settled().contours[0]!;
  expect(contour.closed).toBe(true);
  expect(contour.points.map((p) => p.type)).toEqual(['curve', 'line', 'off', 'off', 'curve', 'off', 'off', 'curve', 'off', 'off']);
  expect(contour.points[4]).toMatchObject({ x: 400, y: 300, smooth: true });
  expect(contour.points[5]).toMatchObject({ x: 400, y: 380 });
  expect(contour.points[6]).toMatchObject({ x: 330, y: 450 });
  expect(b.sentences).toHaveLength(5);
  expect(b.sentences[4]).toBe('Closed a contour in arrowright, Regular');
});

test('pen: a loose end is taken up again, from its start too', () => {
  const b = bench('arrowright');
  const tool = penTool(b.place);
  click(tool, 0, 0);
  click(tool, 100, 0);
  tool.key('Escape', { shift: false, alt: false, mod: false });
  click(tool, 0, 0);
  click(tool, 0, 100);
  expect(b.settled().contours).toHaveLength(1);
  expect(b.settled().contours[0]!.points.map((p) => [p.x, p.y])).toEqual([
    [100, 0],
    [0, 0],
    [0, 100],
  ]);
  tool.key('Escape', { shift: false, alt: false, mod: false });
  click(tool, 500, 500);
  expect(b.settled().contours).toHaveLength(2);
});

test('oval and box: Shift evens, Alt grows from the centre, a click draws nothing', () => {
  const b = bench('arrowright');
  const oval = shapeTool(b.place, 'oval');
  drag(oval, [0, 0], [200, 90], { shift: true });
  expect(signedArea(b.settled().contours[0]!)).toBeCloseTo(Math.PI * 100 * 100, -2);
  expect(b.selection().size).toBe(4);
  const box = shapeTool(b.place, 'box');
  drag(box, [100, 100], [150, 120], { alt: true });
  expect(b.settled().contours[1]!.points.map((p) => [p.x, p.y])).toEqual([
    [50, 80],
    [150, 80],
    [150, 120],
    [50, 120],
  ]);
  click(box, 300, 300);
  expect(b.settled().contours).toHaveLength(2);
  expect(curvesOf(b.settled().contours[1]!).reduce((s, c) => s + areaUnder(c), 0)).toBe(4000);
});

test('the view: zooming keeps the place under the pointer, fitting shows all', () => {
  const v = fitted({ xMin: 0, yMin: -200, xMax: 600, yMax: 800 }, 900, 600);
  expect(toPxX(v, 300)).toBeCloseTo(450, 6);
  expect(toPxY(v, 300)).toBeCloseTo(300, 6);
  expect(toPxY(v, 800)).toBeGreaterThan(0);
  const z = zoomAt(v, 7.3, 123, 456);
  expect(toFontX(z, 123)).toBeCloseTo(toFontX(v, 123), 6);
  expect(toFontY(z, 456)).toBeCloseTo(toFontY(v, 456), 6);
  expect(zoomAt(v, 1e9, 0, 0).scale).toBe(200);
});

test('the blade cuts what a line passes through, from edge to edge; Escape and a miss cut nothing', () => {
  const { place, sentences, settled } = bench('n');
  const blade = bladeTool(place);
  const before = settled();
  drag(blade, [40, 100], [220, 104], { shift: true });
  expect(sentences.at(-1)).toMatch(/^Cut the outline in n/);
  expect(settled().contours.length).toBe(before.contours.length + 1);
  const area = (d: typeof before) => d.contours.reduce((sum, c) => sum + signedArea(c), 0);
  expect(area(settled())).toBeCloseTo(area(before), 1);
  const once = settled();
  blade.down(hand(40, 300));
  blade.move(hand(220, 300));
  expect(blade.key('Escape', { shift: false, alt: false, mod: false })).toBe(true);
  blade.up(hand(220, 300));
  drag(blade, [40, 900], [220, 900]);
  expect(settled()).toBe(once);
  expect(sentences).toHaveLength(1);
});
