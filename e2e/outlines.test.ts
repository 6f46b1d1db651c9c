import { readSvg } from '../src/core/formats/svg/svgRead';
import { type Contour, curvesOf } from '../src/core/geometry/contour';
import { boundsOf } from '../src/core/geometry/curve';
import { windingAt } from '../src/core/geometry/winding';
import { pointer, until } from './browser';
import { type DemoBench, sharedDemoBench } from './demoBench';

const { opened, go, details, undoAll, view } = sharedDemoBench();
let browser: DemoBench['browser'];
let t: DemoBench['t'];
beforeAll(() => {
  ({ browser, t } = opened());
});

/** What a copy of the page puts on the clipboard, by type. */
const copied = (kind: 'copy' | 'cut') =>
  browser.driver.executeScript<Record<string, string>>(
    `const data = new DataTransfer();
     window.dispatchEvent(new ClipboardEvent('${kind}', { clipboardData: data, cancelable: true }));
     return Object.fromEntries([...data.types].map((type) => [type, data.getData(type)]));`,
  );
const paste = (data: Record<string, string>) =>
  browser.driver.executeScript(
    `const data = new DataTransfer();
     for (const [type, text] of Object.entries(arguments[0])) data.setData(type, text);
     window.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data }));`,
    data,
  );
const contours = (n: number) =>
  until(`${n} contours`, async () => (await details()).includes(`${n} contour${n === 1 ? '' : 's'}\n`));

test('outlines are copied out of one glyph and pasted into another, exactly and as a picture', async () => {
  await go('draw?glyph=o');
  await t.find('[data-testid="draw-canvas"]');
  const o = await copied('copy');
  expect(o['text/plain']).toMatch(
    /^<svg xmlns="http:\/\/www.w3.org\/2000\/svg" viewBox="0 -742 576 946"><path d="M[^"]+Z"\/><\/svg>$/,
  );
  const exact = JSON.parse(o['text/x-wendril-outline']!) as Contour[];
  expect(exact).toHaveLength(2);

  await go('draw?glyph=space');
  await until('an empty drawing', async () => (await details()).includes('Nothing drawn yet'));
  await paste(o);
  await contours(2);
  expect(JSON.parse((await copied('copy'))['text/x-wendril-outline']!)).toEqual(exact);
  await undoAll();

  await paste({ 'text/plain': o['text/plain']! });
  await contours(2);
  const again = JSON.parse((await copied('copy'))['text/x-wendril-outline']!) as Contour[];
  expect(again.map((c) => boundsOf(curvesOf(c)))).toEqual(exact.map((c) => boundsOf(curvesOf(c))));
  await copied('cut');
  await until('nothing drawn', async () => (await details()).includes('Nothing drawn yet'));
  await paste({ 'text/plain': 'M10 10h50v50z' });
  await contours(1);
  await undoAll();
  await paste({ 'text/plain': 'M10 10h50v' });
  await until('a sentence about the path', async () =>
    (await t.text('body')).includes('The path has path data that cannot be read'),
  );
});

test('contours are put in another order by keys on their grips, and undo brings the order back', async () => {
  await go('draw?glyph=o');
  await t.find('[data-testid="draw-canvas"]');
  await contours(2);
  const order = async () =>
    (JSON.parse((await copied('copy'))['text/x-wendril-outline']!) as Contour[]).map((c) => boundsOf(curvesOf(c)).xMin);
  const before = await order();
  const grip = await t.find('[aria-label="Contour 2: another place in the order"]');
  await browser.driver.executeScript('arguments[0].scrollIntoView({ block: "center" }); arguments[0].focus()', grip);
  // Taken up, moved by an arrow that is not the drawing's, put down.
  for (const key of [' ', '\uE013', ' ']) {
    await t.keys(key);
    await browser.driver.sleep(250);
  }
  await until('the other order', async () => (await order()).join() === [...before].reverse().join());
  await undoAll();
  expect(await order()).toEqual(before);
});

test('chosen contours are taken out of the others, and overlaps become one outline', async () => {
  await go('draw?glyph=o');
  const canvas = await t.find('[data-testid="draw-canvas"]');
  await contours(2);
  await t.press('Box');
  const v = await view();
  const hand = pointer(browser.driver, canvas);
  await hand.drag(v.px(200), v.py(-60), v.px(380), v.py(120));
  await contours(3);
  await t.press('Select');
  await t.press('Unite');
  await contours(2);
  await t.press('Undo');
  await contours(3);
  await t.press('Remove overlap');
  await contours(2);
  await t.press('Undo');
  await contours(3);
  // The list chooses whole contours.
  await t.click('[aria-label="Contours"] li:nth-child(3) button:nth-of-type(2)');
  await t.press('Subtract');
  await contours(1);
  const [cut] = JSON.parse((await copied('copy'))['text/x-wendril-outline']!) as Contour[];
  expect(boundsOf(curvesOf(cut!)).yMin).toBeGreaterThan(-12);
  expect(windingAt(curvesOf(cut!), 288, 30)).toBe(0);
  expect(windingAt(curvesOf(cut!), 70, 250)).not.toBe(0);
  await undoAll();
  await contours(2);
});

test('the blade, taken by its key, cuts a stroke in two', async () => {
  await go('draw?glyph=l');
  const canvas = await t.find('[data-testid="draw-canvas"]');
  await contours(1);
  const v = await view();
  await canvas.click();
  await t.keys('6');
  await until('the blade in the hand', async () =>
    (await t.button('Blade')).getAttribute('aria-pressed').then((pressed) => pressed === 'true'),
  );
  await pointer(browser.driver, canvas).drag(v.px(20), v.py(400), v.px(220), v.py(400));
  await contours(2);
  const pieces = JSON.parse((await copied('copy'))['text/x-wendril-outline']!) as Contour[];
  const [upper, lower] = pieces.map((c) => boundsOf(curvesOf(c))).sort((a, b) => b.yMin - a.yMin);
  expect(upper!.yMin).toBe(lower!.yMax);
  expect(Math.abs(upper!.yMin - 400)).toBeLessThan(3);
  await undoAll();
  await contours(1);
});

test('what is drawn is transformed by numbers about a chosen place, again and again', async () => {
  await go('draw?glyph=o');
  await contours(2);
  const box = async () =>
    boundsOf(
      (JSON.parse((await copied('copy'))['text/x-wendril-outline']!) as Contour[]).flatMap((c) => [...curvesOf(c)]),
    );
  const before = await box();
  await t.press('bottom left');
  await t.fill('Height %', '50', true);
  await t.press('Do it');
  await until(
    'half the height',
    async () => Math.abs((await box()).yMax - (before.yMin + (before.yMax - before.yMin) / 2)) < 0.01,
  );
  await t.press('Do it');
  const after = await until('a quarter of it', async () => {
    const now = await box();
    return Math.abs(now.yMax - now.yMin - (before.yMax - before.yMin) / 4) < 0.01 && now;
  });
  expect([after.xMin, after.xMax, after.yMin]).toEqual([before.xMin, before.xMax, before.yMin]);
  await t.press('A copy');
  await contours(4);
  await undoAll();
  await contours(2);
  expect(await box()).toEqual(before);
});

test('an SVG picture is filled where the browser fills it', async () => {
  const shapes = `
    <g transform="translate(40 30) rotate(12)"><rect x="60" y="40" width="300" height="180" rx="70" ry="40"/></g>
    <path fill-rule="evenodd" d="M500 100a150 150 0 1 0 300 0 150 100 30 0 1 -300 0zm60 20l180-40 20 90z"/>
    <g transform="matrix(.8 .3 -.2 1.1 100 300)"><path d="m100 100c50-150 250-150 300 0s-50 250 0 300q-80 60-160 0t-140-20z"/><ellipse cx="500" cy="200" rx="40%" ry="30"/></g>
    <defs><path id="leaf" d="M0 0C40-60 120-60 160 0 120 60 40 60 0 0Z"/></defs>
    <use href="#leaf" x="100" y="850" transform="skewX(-20)"/><use href="#leaf" transform="translate(700 800) scale(-1 2)"/>
    <svg x="600" y="600" width="300" height="120" viewBox="-10 -10 40 40"><circle r="9" cx="10" cy="10"/><polygon points="0,0 30 0 0,30"/></svg>`;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="1000" height="1000" viewBox="0 0 1000 1000">${shapes}</svg>`;
  const read = readSvg(svg, 'shapes.svg', { unitsPerEm: 1000, top: 1000, bottom: 0 });
  if (!read.ok) throw new Error(read.reason);
  const places = Array.from(
    { length: 40 * 40 },
    (_, i) => [12.5 + (i % 40) * 25, 12.5 + Math.floor(i / 40) * 25] as const,
  );
  await browser.driver.get('about:blank');
  const filled = await browser.driver.executeScript<boolean[]>(
    `document.body.innerHTML = arguments[0];
     const svg = document.querySelector('svg');
     const all = [...svg.querySelectorAll('path, rect, circle, ellipse, polygon, use')].filter((e) => !e.closest('defs'));
     const leaf = document.getElementById('leaf');
     const home = svg.getScreenCTM().inverse();
     return arguments[1].map(([x, y]) => all.some((e) => {
       const shift = e.localName === 'use' ? [e.x.baseVal.value, e.y.baseVal.value] : [0, 0];
       const p = new DOMPoint(x, y).matrixTransform(home.multiply(e.getScreenCTM()).inverse());
       return (e.localName === 'use' ? leaf : e).isPointInFill(new DOMPoint(p.x - shift[0], p.y - shift[1]));
     }));`,
    svg,
    places,
  );
  const ours = places.map(([x, y]) => read.value.contours.some((c) => windingAt(curvesOf(c), x, 1000 - y) !== 0));
  // The even-odd path is two contours; its hole is inside both.
  const curves = read.value.contours.map(curvesOf);
  const counted = places.map(
    ([x, y], i) => ours[i] && curves.reduce((sum, c) => sum + windingAt(c, x, 1000 - y), 0) !== 0,
  );
  const differing = places.filter((_, i) => filled[i] !== counted[i]);
  expect(filled.filter(Boolean).length).toBeGreaterThan(300);
  // A place may lie on an edge.
  expect(differing.length).toBeLessThanOrEqual(2);
});

test('tidying is proposed with points and deviation, over one glyph or all, and is one step to undo', async () => {
  const { driver } = browser;
  await driver.get(`${opened().server.url}/`);
  await go('draw?glyph=o');
  await contours(2);
  const before = JSON.parse((await copied('copy'))['text/x-wendril-outline']!) as Contour[];
  await t.press('Tidy…');
  await t.press('Fewer points');
  await until('nothing to do', async () =>
    (await t.text('[role="dialog"]')).includes('There is nothing to tidy that way.'),
  );
  await t.press('Round');
  await t.fill('Grid (units)', '20', true);
  const proposal = await until('the proposal', async () => {
    const text = await t.text('[data-testid="tidy-proposal"]');
    return /^o\s+(\d+) → \1 points · at most \d+\.\d\d units off/m.test(text) ? text : undefined;
  });
  // Six masters agree and are tidied together.
  expect(Number(/(\d+) → /.exec(proposal)![1])).toBe(6 * before.reduce((sum, c) => sum + c.points.length, 0));
  await t.press('Tidy');
  await t.gone('[role="dialog"]');
  const after = JSON.parse((await copied('copy'))['text/x-wendril-outline']!) as Contour[];
  expect(after.flatMap((c) => c.points).every((p) => p.x % 20 === 0 && p.y % 20 === 0)).toBe(true);
  await t.press('Undo');
  await until(
    'the old outline',
    async () => (await copied('copy'))['text/x-wendril-outline'] === JSON.stringify(before),
  );

  await t.press('Tidy…');
  await t.press('Align handles');
  const all = await until(
    'the choice of glyphs',
    async () => (await driver.findElements({ css: '[aria-label="Glyphs"] [role="radio"]' }))[1],
  );
  await all.click();
  await until('proposals for many', async () => /Tidy \d\d+ glyphs/.test(await t.text('[role="dialog"]')), 60);
  await t.press('Leave as it is');
  await t.gone('[role="dialog"]');
  expect((await copied('copy'))['text/x-wendril-outline']).toBe(JSON.stringify(before));
});
