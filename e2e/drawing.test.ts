import { Key } from 'selenium-webdriver';
import { type Contour, contourBounds, curvesOf, isOnCurve, signedArea } from '../src/core/geometry/contour';
import { boundsOf, nearestOn, pointAt } from '../src/core/geometry/curve';
import { windingAt } from '../src/core/geometry/winding';
import { pointer, until } from './browser';
import { type DemoBench, sharedDemoBench } from './demoBench';

const { opened, go, details, undoAll, view, value, number } = sharedDemoBench();
let browser: DemoBench['browser'];
let t: DemoBench['t'];
beforeAll(() => {
  ({ browser, t } = opened());
});

/** The contours on the bench, as a copy of all of them gives them. */
const drawn = async (): Promise<Contour[]> => {
  const text = await browser.driver.executeScript<string>(
    `const data = new DataTransfer();
     window.dispatchEvent(new ClipboardEvent('copy', { clipboardData: data, cancelable: true }));
     return data.getData('text/x-wendril-outline');`,
  );
  return text ? (JSON.parse(text) as Contour[]) : [];
};
const when = (what: string, probe: (contours: Contour[]) => boolean) =>
  until(what, async () => {
    const now = await drawn();
    return probe(now) ? now : undefined;
  });
const hand = async () => {
  const v = await view();
  const p = pointer(browser.driver, await t.find('[data-testid="draw-canvas"]'));
  return {
    click: (x: number, y: number) => p.click(v.px(x), v.py(y)),
    drag: (x0: number, y0: number, x1: number, y1: number) => p.drag(v.px(x0), v.py(y0), v.px(x1), v.py(y1)),
    /** A drag with a key held. */
    async held(key: string, x0: number, y0: number, x1: number, y1: number) {
      await browser.driver.actions().keyDown(key).perform();
      await p.drag(v.px(x0), v.py(y0), v.px(x1), v.py(y1));
      await browser.driver.actions().keyUp(key).perform();
    },
    async heldClick(key: string, x: number, y: number) {
      await browser.driver.actions().keyDown(key).perform();
      await p.click(v.px(x), v.py(y));
      await browser.driver.actions().keyUp(key).perform();
    },
  };
};
const near = (a: number, b: number, within = 2) => Math.abs(a - b) <= within;
const boxOf = (contours: readonly Contour[]) => boundsOf(contours.flatMap((c) => [...curvesOf(c)]));
const empty = async (glyph: string) => {
  await go(`draw?glyph=${glyph}`);
  await t.find('[data-testid="draw-canvas"]');
  await t.press('Shape');
};

test('the pen draws an l by four corners and a u’s bowl by pulled curves', async () => {
  await empty('space');
  await t.keys('2');
  const h = await hand();
  for (const [x, y] of [
    [60, 0],
    [140, 0],
    [140, 700],
    [60, 700],
    [60, 0],
  ] as const)
    await h.click(x, y);
  const [stem] = await when('a closed stem', (c) => c.length === 1 && c[0]!.closed);
  const box = contourBounds(stem!);
  expect(stem!.points).toHaveLength(4);
  expect([near(box.xMin, 60), near(box.xMax, 140), near(box.yMin, 0), near(box.yMax, 700)]).toEqual([
    true,
    true,
    true,
    true,
  ]);
  await h.click(200, 500);
  await h.drag(300, 0, 400, 0);
  await t.keys(Key.ESCAPE);
  const open = (await when('an open bowl', (c) => c.length === 2))[1]!;
  expect(open.closed).toBe(false);
  expect(open.points.map((p) => p.type)).toEqual(['line', 'off', 'off', 'curve']);
  expect(open.points[3]!.smooth).toBe(true);
  await undoAll();
});

test('dots draw an o: two rings of four clicks, extremes level and upright; Alt places a corner', async () => {
  await empty('space');
  await t.keys('3');
  const h = await hand();
  const ring = async (rx: number, ry: number) => {
    for (const [x, y] of [
      [250 + rx, 250],
      [250, 250 + ry],
      [250 - rx, 250],
      [250, 250 - ry],
      [250 + rx, 250],
    ] as const)
      await h.click(x, y);
  };
  await ring(230, 200);
  await ring(150, 140);
  const [outer] = await when('two rings', (c) => c.length === 2 && c.every((r) => r.closed));
  expect(outer!.points.filter(isOnCurve).every((p) => p.smooth)).toBe(true);
  const box = contourBounds(outer!);
  expect([near(box.xMin, 20), near(box.xMax, 480), near(box.yMin, 50), near(box.yMax, 450)]).toEqual([
    true,
    true,
    true,
    true,
  ]);
  // An ellipse's area, within one in a hundred.
  expect(Math.abs(Math.abs(signedArea(outer!)) / (Math.PI * 230 * 200) - 1)).toBeLessThan(0.01);
  // Both rings go one way, so the counter fills: it is said there, with the mend.
  await t.press('Turn it round');
  const mended = await when(
    'a counter',
    (c) => c.length === 2 && Math.sign(signedArea(c[0]!)) !== Math.sign(signedArea(c[1]!)),
  );
  expect(
    windingAt(
      mended.flatMap((c) => [...curvesOf(c)]),
      250,
      250,
    ),
  ).toBe(0);
  await undoAll();
  await h.click(100, 0);
  await h.heldClick(Key.ALT, 300, 0);
  await h.click(300, 300);
  await t.keys(Key.ENTER);
  const [path] = await when('an open path', (c) => c.length === 1 && c[0]!.points.filter(isOnCurve).length === 3);
  expect(path!.points.filter(isOnCurve)[1]!.smooth).toBeUndefined();
  await undoAll();
});

test('ovals and boxes come in the typed size by a click; the box moves, scales and turns them', async () => {
  await empty('space');
  await t.keys('5');
  await t.fill('Width', '120', true);
  await t.fill('Height', '300', true);
  const h = await hand();
  await h.click(200, 300);
  const [bar] = await when('a bar of 120 by 300', (c) => c.length === 1);
  const box = contourBounds(bar!);
  expect([box.xMax - box.xMin, box.yMax - box.yMin]).toEqual([120, 300]);
  await t.press('Select');
  await t.keys(Key.ESCAPE, '7');
  await h.drag(box.xMax, (box.yMin + box.yMax) / 2, box.xMax + 80, (box.yMin + box.yMax) / 2);
  const wide = contourBounds((await when('a wider bar', (c) => contourBounds(c[0]!).xMax > box.xMax + 60))[0]!);
  expect(wide.xMin).toBe(box.xMin);
  expect(near(wide.xMax - wide.xMin, 200, 3)).toBe(true);
  await t.keys('r');
  const again = contourBounds((await when('wider still', (c) => contourBounds(c[0]!).xMax > wide.xMax + 60))[0]!);
  expect(near((again.xMax - again.xMin) / (wide.xMax - wide.xMin), (wide.xMax - wide.xMin) / 120, 0.01)).toBe(true);
  await undoAll();
});

test('points: Alt leaves the handles, Ctrl glides, Escape undoes a running drag', async () => {
  await go('draw?glyph=o');
  const before = await when('an o', (c) => c.length === 2);
  const outer = before[0]!;
  const right = outer.points.filter(isOnCurve).reduce((a, b) => (b.x > a.x ? b : a));
  const h = await hand();
  await t.press('Select');
  await h.held(Key.CONTROL, right.x, right.y, right.x - 4, right.y + 60);
  const glided = await when('a glided point', (c) =>
    c[0]!.points.some((p) => isOnCurve(p) && near(p.y, right.y + 60, 8) && p.x < right.x),
  );
  for (const c of curvesOf(glided[0]!))
    for (const k of [0.2, 0.5, 0.8])
      expect(Math.min(...curvesOf(outer).map((b) => nearestOn(b, ...pointAt(c, k)).distance))).toBeLessThan(0.6);
  await undoAll();
  await t.keys(Key.ESCAPE);
  await h.held(Key.ALT, right.x, right.y, right.x + 30, right.y + 30);
  const apart = (
    await when('a point moved alone', (c) => c[0]!.points.some((p) => near(p.x, right.x + 30, 3) && isOnCurve(p)))
  )[0]!;
  const at = outer.points.indexOf(right);
  const n = outer.points.length;
  expect(apart.points[(at + 1) % n]).toEqual(outer.points[(at + 1) % n]);
  await undoAll();
  expect(await drawn()).toEqual(before);
});

test('a point caught by the x-height lands on it, and its handle takes a length and an angle', async () => {
  await empty('space');
  await t.keys('5');
  const h = await hand();
  await h.drag(100, 0, 200, 300);
  await when('a box', (c) => c.length === 1);
  await t.press('Select');
  await t.keys(Key.ESCAPE);
  await h.drag(100, 300, 100, 517);
  await when('a corner on the x-height', (c) => c[0]!.points.some((p) => p.y === 520));
  await undoAll();
  await go('draw?glyph=o');
  const [outer] = await when('an o', (c) => c.length === 2);
  const handle = outer!.points.find((p) => !isOnCurve(p))!;
  await (await hand()).click(handle.x, handle.y);
  await until('a handle in the details', async () => (await details()).includes('Angle °'));
  await t.fill('Length', '100', true);
  await until('its length', async () => (await value('Length')) === '100');
  await undoAll();
});

test('the gauge measures n’s stems and counter, and goes on measuring', async () => {
  await go('draw?glyph=n');
  const [n] = await when('an n', (c) => c.length === 1);
  await t.keys('8');
  const h = await hand();
  await h.click(-40, 200);
  expect(await t.text('[data-testid="hints"]')).toContain('a level gauge right across');
  // Numbers are painted: the shape tells what they are; the details tell distances of chosen points.
  await t.press('Select');
  const low = n!.points.filter((p) => p.y === 0).sort((a, b) => a.x - b.x);
  await h.click(low[0]!.x, 0);
  await h.heldClick(Key.SHIFT, low[1]!.x, 0);
  await until('the distance of two points', async () => near(await number('Distance'), low[1]!.x - low[0]!.x, 0.1));
  await t.keys('8', Key.ESCAPE, '1');
});

test('a take is kept by its key, compared, tried and brought back', async () => {
  await go('draw?glyph=e');
  const before = await when('an e', (c) => c.length > 0);
  const canvas = await t.find('[data-testid="draw-canvas"]');
  await canvas.click();
  await t.keys(Key.ESCAPE, 't');
  await t.press('Takes');
  await t.find('[data-testid="take"]');
  await t.press('Shape');
  await t.keys(Key.ESCAPE);
  await t.chord(Key.CONTROL, 'a');
  await t.keys(Key.ARROW_UP);
  await when('a moved e', (c) => boxOf(c).yMax === boxOf(before).yMax + 1);
  await t.press('Takes');
  await t.press('Try');
  await when('the take in its place', (c) => boxOf(c).yMax === boxOf(before).yMax);
  await t.press('Stop trying');
  await when('the drawing again', (c) => boxOf(c).yMax === boxOf(before).yMax + 1);
  await t.press('Bring back');
  await when('the take brought back', (c) => boxOf(c).yMax === boxOf(before).yMax);
  expect(await browser.driver.findElements({ css: '[data-testid="take"]' })).toHaveLength(2);
  await undoAll();
  await t.press('Shape');
});

test('a part is placed, dragged, and turned into outlines; a circle of parts is refused with its chain', async () => {
  await empty('space');
  await t.press('Parts');
  await t.fill('Glyph to place', 'o', true);
  await until('the part in the list', async () => (await details()).includes('edit'));
  const h = await hand();
  await h.drag(80, 260, 180, 300);
  await until('its place', async () => near(await number('x'), 100, 2) && near(await number('y'), 40, 2));
  await t.press('Turn into outlines');
  const out = await when('outlines', (c) => c.length === 2);
  expect(near(boxOf(out).xMin, 100 + 45, 20)).toBe(true);
  await undoAll();
  await t.fill('Glyph to place', 'space', true);
  await until('the refusal', async () => (await t.text('body')).includes('space cannot be a part of itself'));
  await go('draw?glyph=a');
  await t.press('Parts');
  await t.fill('Glyph to place', 'adieresis', true);
  await until('the chain', async () => (await t.text('body')).includes('a → adieresis → a would never end'));
  await t.press('Shape');
});

test('a stem drawn as a line becomes a stroke; letters go hollow and get frames, shown before they are done', async () => {
  await empty('space');
  await t.keys('2');
  const h = await hand();
  await h.click(200, 0);
  await h.click(200, 500);
  await t.keys(Key.ESCAPE, '1');
  await when('a line', (c) => c.length === 1);
  await t.press('Stroke…');
  await t.fill('Width', '80', true);
  await t.press('flat');
  await t.press('Do it');
  const [stroke] = await when('a stroke', (c) => c.length === 1 && c[0]!.closed);
  const box = contourBounds(stroke!);
  expect([near(box.xMax - box.xMin, 80, 1), near(box.yMax - box.yMin, 500)]).toEqual([true, true]);
  await undoAll();
  await go('draw?glyph=H');
  const before = await when('an H', (c) => c.length > 0);
  await t.press('Hollow…');
  await when('a hollow H shown', (c) => c.length > before.length);
  await t.press('Leave');
  await when('the H as it was', (c) => JSON.stringify(c) === JSON.stringify(before));
  await t.press('Frame…');
  await t.press('Do it');
  await when('a frame', (c) => c.length === before.length + 2);
  await undoAll();
});

test('words keep the glyph company, masters and guides stand with it', async () => {
  await go('draw?glyph=n');
  await (await t.find('[aria-label="Words around the glyph"]')).sendKeys('hamburg');
  await t.press('Behind');
  await t.press('Heavy behind');
  await until('the Heavy behind', async () => (await details()).includes('Heavy'));
  await t.press('Parts');
  await t.press('Upright');
  await t.find('[data-testid="guide"]');
  await t.press('Undo');
  await t.gone('[data-testid="guide"]');
  await undoAll();
  await (await t.find('[aria-label="Words around the glyph"]')).sendKeys(Key.chord(Key.CONTROL, 'a'), Key.DELETE);
  await t.press('Shape');
});

test('a sheet is scanned; its letters go behind their glyphs, and one is traced', async () => {
  await go('case');
  await t.press('Get a sheet…');
  await t.press('150');
  await t.press('Scan');
  await until('the sheet', async () => (await browser.driver.findElements({ css: '[data-testid="sheet"]' }))[0], 30);
  const lines = await browser.driver.findElements({ css: '[role="dialog"] input[type="text"]' });
  for (const [i, text] of ['abcdefghi', 'jklmnopqr', 'stuvwxyz'].entries()) await lines[i]!.sendKeys(text);
  await t.press('Put behind 26');
  await t.gone('[role="dialog"]');
  await go('draw?glyph=g');
  const before = await when('a g', (c) => c.length > 0);
  await t.press('Behind');
  await t.press('Trace…');
  await until('a count of points', async () => /\d+ points/.test(await t.text('[data-testid="trace-result"]')), 20);
  await t.press('Take the outline');
  const traced = await when('the traced g', (c) => c.length >= 2 && JSON.stringify(c) !== JSON.stringify(before));
  // It stands where the sheet's g stands: on the same lines, about as large, with its counters.
  const box = boxOf(traced);
  expect([near(box.yMax, 520, 45), near(box.yMin, boxOf(before).yMin, 60)]).toEqual([true, true]);
  expect(traced.some((c) => signedArea(c) < 0)).toBe(true);
  expect(traced.reduce((n, c) => n + c.points.length, 0)).toBeLessThan(100);
  await undoAll();
  await t.press('Shape');
});
