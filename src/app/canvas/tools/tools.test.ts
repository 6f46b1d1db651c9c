import { buildStarter } from '../../../../demo/starter';
import type { Gauge } from '../../../core/drawing/gauge';
import { type PointKey, pointKey } from '../../../core/drawing/points';
import { curvesOf, signedArea } from '../../../core/geometry/contour';
import type { Outcome } from '../../../core/project/edit';
import type { Project } from '../../../core/project/model';
import { glyphNamed } from '../../../core/project/queries';
import { fitted, toFontX, toFontY, toPxX, toPxY, zoomAt } from '../view';
import { bladeTool } from './blade';
import { dotsTool } from './dots';
import { gaugeTool } from './gauge';
import { penTool } from './pen';
import { selectTool } from './select';
import { shapeTool } from './shape';
import { type Hand, straightened, type Tool, type Workplace } from './tool';
import { transformTool } from './transform';

/** A bench in memory: what a tool previews and records can be looked at. */
function bench(glyphName: string) {
  let settled = buildStarter();
  let project = settled;
  const glyph = glyphNamed(settled, glyphName)!.id;
  let selection: ReadonlySet<PointKey> = new Set();
  const sentences: string[] = [];
  let parts: readonly number[] = [];
  let gauges: readonly Gauge[] = [];
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
    settled: () => settled.glyphs[glyph]!.drawings.m1!,
    parts: () => parts,
    chooseParts: (p) => {
      parts = p;
    },
    anchorsShown: () => false,
    levelling: () => undefined,
    setLevelling: () => {},
    gauges: () => gauges,
    layGauges: (g) => {
      gauges = g;
    },
    typedSize: () => ({ width: 120, height: 80 }),
    remember: () => {},
  };
  return {
    place,
    sentences,
    gauges: () => gauges,
    parts: () => parts,
    settled: () => settled.glyphs[glyph]!.drawings.m1!,
    selection: () => selection,
  };
}

const hand = (x: number, y: number, more: Partial<Hand> = {}): Hand => ({
  x,
  y,
  shift: false,
  alt: false,
  mod: false,
  clicks: 1,
  reach: 8,
  ...more,
});
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
  // On the grid of whole units, so that the shape moves by less than half of one.
  expect(Math.abs(signedArea(b.settled().contours[0]!) / area - 1)).toBeLessThan(1e-3);
  for (const p of b.settled().contours[0]!.points) expect(Number.isInteger(p.x) && Number.isInteger(p.y)).toBe(true);
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
  expect(contour.points.map((p) => p.type)).toEqual([
    'curve',
    'line',
    'off',
    'off',
    'curve',
    'off',
    'off',
    'curve',
    'off',
    'off',
  ]);
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

test('oval and box: Shift evens, Alt grows from the centre, a click draws one of the typed size', () => {
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
  expect(b.settled().contours[2]!.points.map((p) => [p.x, p.y])).toEqual([
    [240, 260],
    [360, 260],
    [360, 340],
    [240, 340],
  ]);
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

const points = (b: ReturnType<typeof bench>, c = 0) => b.settled().contours[c]!.points;
const withBox = (b: ReturnType<typeof bench>) => {
  drag(shapeTool(b.place, 'box'), [0, 0], [100, 200]);
  return b;
};

test('dots: a smooth curve goes through them; a dot is turned, moved and taken back; the first closes', () => {
  const b = bench('arrowright');
  const tool = dotsTool(b.place);
  for (const [x, y] of [
    [0, 0],
    [100, 100],
    [0, 200],
  ] as const)
    click(tool, x, y);
  expect(points(b).map((p) => p.type)).toEqual(['line', 'off', 'off', 'curve', 'off', 'off', 'curve']);
  expect(points(b)[3]).toMatchObject({ x: 100, y: 100, smooth: true });
  // The middle dot lies beyond both others: its handles are upright.
  expect([points(b)[2]!.x, points(b)[4]!.x]).toEqual([100, 100]);
  click(tool, 101, 99);
  expect(points(b)[3]!.smooth).toBeUndefined();
  drag(tool, [0, 200], [10, 240]);
  expect(points(b)[points(b).length - 1]).toMatchObject({ x: 10, y: 240 });
  click(tool, 300, 300);
  tool.key('Backspace', { shift: false, alt: false, mod: false });
  expect(points(b).filter((p) => p.type !== 'off')).toHaveLength(3);
  click(tool, 0, 0);
  expect(b.settled().contours).toHaveLength(1);
  expect(b.settled().contours[0]!.closed).toBe(true);
  click(tool, 500, 500);
  expect(b.settled().contours).toHaveLength(2);
  tool.leave();
});

test('select: Alt leaves the handles, Ctrl glides, a handle is made like the other or parted from it', () => {
  const b = bench('arrowright');
  drag(shapeTool(b.place, 'oval'), [0, 0], [200, 200]);
  const select = selectTool(b.place);
  b.place.select(new Set());
  drag(select, [200, 100], [200, 140], { mod: true });
  const glided = points(b).find((p) => p.type !== 'off')!;
  expect(glided.y).toBeGreaterThan(110);
  expect(Math.abs(Math.hypot(glided.x - 100, glided.y - 100) - 100)).toBeLessThan(0.6);
  expect(signedArea(b.settled().contours[0]!)).toBeCloseTo(Math.PI * 10000, -2);
  const top = points(b).findIndex((p) => p.type !== 'off' && p.y === 200);
  const before = points(b);
  b.place.select(new Set());
  drag(select, [before[top]!.x, 200], [before[top]!.x + 30, 230], { alt: true });
  expect(points(b)[top - 1]).toEqual(before[top - 1]);
  expect(points(b)[top]!.smooth).toBeUndefined();
  const left = points(b).findIndex((p) => p.type !== 'off' && p.x === 0);
  const handle = points(b)[left + 1]!;
  b.place.select(new Set());
  drag(select, [handle.x, handle.y], [handle.x - 20, handle.y], { alt: true });
  expect(points(b)[left - 1]!.x).toBeCloseTo(20, 0);
  expect(b.sentences.slice(-1)).toEqual([expect.stringMatching(/^Moved a handle/)]);
});

test('select: whole contours are copied with Alt, a loose end dropped on another joins it', () => {
  const b = withBox(bench('arrowright'));
  const select = selectTool(b.place);
  drag(select, [0, 0], [300, 0], { alt: true });
  expect(b.settled().contours).toHaveLength(2);
  expect(points(b, 1).map((p) => p.x)).toEqual([300, 400, 400, 300]);
  expect([...b.selection()]).toEqual(['1:0', '1:1', '1:2', '1:3']);
  const open = bench('arrowright');
  const pen = penTool(open.place);
  for (const [x, y] of [
    [0, 0],
    [100, 0],
    [100, 100],
  ] as const)
    click(pen, x, y);
  pen.key('Escape', { shift: false, alt: false, mod: false });
  drag(selectTool(open.place), [100, 100], [2, 3]);
  expect(open.settled().contours[0]).toMatchObject({ closed: true });
  expect(points(open)).toHaveLength(2);
});

test('select: points catch on the lines of the metrics and say so; F holds it off', () => {
  const b = withBox(bench('arrowright'));
  const select = selectTool(b.place);
  const xHeight = b.place.master().zones.xHeight.position;
  b.place.select(new Set());
  select.down(hand(0, 200));
  select.move(hand(0, xHeight - 3));
  expect(select.label?.()?.text).toContain('x-height');
  select.up(hand(0, xHeight - 3));
  expect(points(b)[3]!.y).toBe(xHeight);
  drag(select, [0, xHeight], [0, xHeight - 3], { free: true });
  expect(points(b)[3]!.y).toBe(xHeight - 3);
});

test('the transform box scales from sides, corners and the centre, slants, turns and copies', () => {
  const done: unknown[] = [];
  const b = withBox(bench('arrowright'));
  const tool = transformTool({ ...b.place, remember: (d) => done.push(d) });
  tool.paint({
    context: new Proxy({}, { get: () => () => {}, set: () => true }) as CanvasRenderingContext2D,
    width: 100,
    height: 100,
    view: { scale: 1, originX: 0, originY: 0 },
    inks: {} as never,
  });
  const box = () => [
    Math.min(...points(b).map((p) => p.x)),
    Math.min(...points(b).map((p) => p.y)),
    Math.max(...points(b).map((p) => p.x)),
    Math.max(...points(b).map((p) => p.y)),
  ];
  drag(tool, [100, 100], [150, 100]);
  expect(box()).toEqual([0, 0, 150, 200]);
  drag(tool, [150, 200], [225, 250], { shift: true });
  expect(box()).toEqual([0, 0, 225, 300]);
  drag(tool, [225, 150], [200, 150], { alt: true });
  expect(box()).toEqual([25, 0, 200, 300]);
  drag(tool, [100, 150], [110, 140]);
  expect(box()).toEqual([35, -10, 210, 290]);
  drag(tool, [122.5, 290], [162.5, 290], { mod: true });
  expect(points(b).map((p) => p.y)).toEqual([-10, -10, 290, 290]);
  expect(points(b)[3]!.x).toBeGreaterThan(60);
  tool.key('d', { shift: false, alt: false, mod: false });
  const before = b.settled().contours[0];
  drag(tool, [120, 100], [420, 100]);
  expect(b.settled().contours).toHaveLength(2);
  expect(b.settled().contours[0]).toEqual(before);
  expect(done).toHaveLength(6);
});

test('gauges are laid by click and drag, moved, and taken away', () => {
  const b = withBox(bench('arrowright'));
  const tool = gaugeTool(b.place);
  click(tool, 50, 100);
  expect(b.gauges()).toHaveLength(1);
  expect(b.gauges()[0]).toMatchObject({ y0: 100, y1: 100 });
  click(tool, 300, 400, { alt: true });
  expect(b.gauges()[1]).toMatchObject({ x0: 300, x1: 300 });
  drag(tool, [500, 500], [560, 580]);
  expect(b.gauges()[2]).toMatchObject({ x0: 500, y0: 500, x1: 560, y1: 580 });
  drag(tool, [530, 540], [540, 545]);
  expect(b.gauges()[2]).toMatchObject({ x0: 510, y0: 505 });
  tool.key('Delete', { shift: false, alt: false, mod: false });
  expect(b.gauges()).toHaveLength(2);
  tool.key('Escape', { shift: false, alt: false, mod: false });
  expect(b.gauges()).toEqual([]);
});

test('select: a side of an outline and a part land on the grid, wherever the hand took them; a held key lets them lie between', () => {
  const b = bench('n');
  const tool = selectTool(b.place);
  const [first, second] = b.settled().contours[0]!.points;
  const mid = [(first!.x + second!.x) / 2 + 0.37, (first!.y + second!.y) / 2 + 0.21] as const;
  drag(tool, [...mid], [mid[0] + 17.3, mid[1] + 4.6]);
  for (const p of b.settled().contours[0]!.points.filter((q) => q.type !== 'off'))
    expect(Number.isInteger(p.x) && Number.isInteger(p.y)).toBe(true);
  expect(b.settled().contours[0]!.points[0]!.x).toBe(first!.x + 17);
  const again = [mid[0] + 17.3, mid[1] + 4.6] as const;
  drag(tool, [...again], [again[0] + 20.5, again[1]], { free: true });
  expect(b.settled().contours[0]!.points[0]!.x % 1).not.toBe(0);
});

test('select: Tab goes from point to handle to point, and with none chosen it is none of the tool’s', () => {
  const b = bench('o');
  const tool = selectTool(b.place);
  const none = { shift: false, alt: false, mod: false };
  expect(tool.key('Tab', none)).toBe(false);
  expect(tool.key('Home', none)).toBe(true);
  const all = b.settled().contours.flatMap((c, i) => c.points.map((_, k) => pointKey(i, k)));
  for (const key of all.slice(1, 5)) {
    tool.key('Tab', none);
    expect([...b.selection()]).toEqual([key]);
  }
  tool.key('Tab', { ...none, shift: true });
  expect([...b.selection()]).toEqual([all[3]]);
});

test('pen: a handle is broken off with Alt; Backspace takes the last point back, and the contour with its only one', () => {
  const b = bench('space');
  const tool = penTool(b.place);
  click(tool, 0, 0);
  tool.down(hand(200, 0));
  tool.move(hand(260, 0));
  tool.move(hand(200, 90, { alt: true }));
  tool.up(hand(200, 90, { alt: true }));
  const [, , into, corner] = b.settled().contours[0]!.points;
  expect(into).toMatchObject({ x: 140, y: 0, type: 'off' });
  expect(corner!.smooth).toBeUndefined();
  click(tool, 400, 300);
  const before = b.settled().contours[0]!.points;
  // The handle that leaves went where the hand went.
  expect(before[4]).toMatchObject({ x: 200, y: 90 });
  const none = { shift: false, alt: false, mod: false };
  expect(tool.key('Backspace', none)).toBe(true);
  expect(b.settled().contours[0]!.points).toHaveLength(4);
  click(tool, 400, 300);
  expect(b.settled().contours[0]!.points).toEqual(before);
  for (let i = 0; i < 3; i++) tool.key('Backspace', none);
  expect(b.settled().contours).toHaveLength(0);
  expect(tool.key('Backspace', none)).toBe(false);
});
