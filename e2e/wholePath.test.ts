import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { checkFont } from '../src/core/casting/checks';
import { readProjectFile } from '../src/core/formats/project/projectFile';
import { readCff } from '../src/core/opentype/cffRead';
import { cmap } from '../src/core/opentype/cmap';
import { hhea } from '../src/core/opentype/hhea';
import { hmtx } from '../src/core/opentype/hmtx';
import { maxp } from '../src/core/opentype/maxp';
import { readSfnt } from '../src/core/opentype/sfnt';
import { glyphNamed } from '../src/core/project/queries';
import { type Browser, openBrowser, pointer, startServer, tester, until } from './browser';

jest.setTimeout(240_000);

let server: Awaited<ReturnType<typeof startServer>>;
let browser: Browser;
let t: ReturnType<typeof tester>;

beforeAll(async () => {
  server = await startServer();
  browser = await openBrowser();
  t = tester(browser);
});
afterAll(async () => {
  await browser?.quit();
  server?.stop();
});

/** A small grey PNG, as a scanner would hand it over. */
const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAACgAAAA8CAAAAAAx0qc8AAAAJklEQVR4nGNcwEAcYCJS3ajCUYWjCkcVjiocVTiqcFThqEKyFQIAS4QBGCOFcBwAAAAASUVORK5CYII=',
  'base64',
);

const galley = async () => Number(await t.attribute('[data-testid="galley-line"]', 'data-width'));
const address = async () => (await browser.driver.getCurrentUrl()).replace(/\?.*/, '');

test('from a new family to a font file that reads back', async () => {
  const { driver } = browser;
  await driver.get(server.url);

  // A new family with three glyphs.
  await t.press('New family');
  await t.fill('Family name', 'Orde Halt');
  await t.click('form [role="radiogroup"] > span:last-of-type [role="radio"]');
  await t.fill('Characters to begin with', 'no');
  await t.press('Start');
  await until('Plan to open', async () => (await address()).endsWith('/plan'));

  // Plan: a metric by number, and an overshoot on the wrong side put right.
  await t.fill('x-height', '520', true);
  await t.fill('x-height overshoot', '-14', true);
  await until(
    'the overshoot to be turned',
    async () =>
      (await (await t.find('[aria-label="Details"]')).getText()).includes('x-height') &&
      (await driver.executeScript(
        'return [...document.querySelectorAll("label")].find((l) => l.textContent === "x-height overshoot").nextElementSibling.value',
      )) === '14',
  );

  // Case: one more glyph by character, another by code point.
  await t.chord(Key.ALT, '2');
  await until('Case to open', async () => (await address()).endsWith('/case'));
  await t.fill('Glyphs to add', 'h U+0131');
  await t.press('Add');
  await t.find('[data-glyph="dotlessi"]');
  await (await t.find('[data-glyph="n"]')).click();
  await t.press('Draw it');

  // Draw: a picture behind, dimmed and locked.
  const canvas = await t.find('[data-testid="draw-canvas"]');
  const picture = join(mkdtempSync(join(tmpdir(), 'wendril-picture-')), 'lettering.png');
  writeFileSync(picture, PNG);
  await (await t.find('[data-testid="picture-file"]')).sendKeys(picture);
  await t.press('Lock lettering.png');
  await t.button('Unlock lettering.png');
  await t.press('Shape');

  // The pen: a stem by four corners, closed on its start; the oval beside it.
  const hand = pointer(driver, canvas);
  await t.press('Pen');
  const corners: [number, number][] = [
    [300, 450],
    [360, 450],
    [360, 220],
    [300, 220],
  ];
  for (const [x, y] of corners) await hand.click(x, y);
  await hand.click(...corners[0]!);
  await until(
    'one closed contour',
    async () =>
      (await t.text('[aria-label="Details"]')).includes('1 contour\n1\ncounter-clockwise') ||
      (await t.text('[aria-label="Details"]')).includes('1 contour'),
  );
  await t.press('Oval');
  await hand.drag(430, 230, 560, 440);
  await until('two contours', async () => (await t.text('[aria-label="Details"]')).includes('2 contours'));
  await t.press('Select');
  await t.keys(Key.ARROW_RIGHT, Key.ARROW_RIGHT);
  await t.saved();

  // A reload in the middle loses nothing.
  await driver.navigate().refresh();
  await until('two contours after the reload', async () =>
    (await t.text('[aria-label="Details"]')).includes('2 contours'),
  );

  // Fit: sides by number, then by key; the galley follows with the real font.
  await t.chord(Key.ALT, '5');
  await t.find('[data-testid="fit-canvas"]');
  await t.fill('Text of the galley', 'nnn');
  await t.fill('Left', '70', true);
  await t.fill('Right', '60', true);
  const before = await until('the galley to be set', async () => (await galley()) || undefined);
  await driver.executeScript('document.activeElement.blur()');
  await t.chord(Key.ALT, Key.ARROW_RIGHT);
  await until('the galley to widen by three units', async () => (await galley()) === before + 3);
  const fitCanvas = await t.find('[data-testid="fit-canvas"]');
  const edge = Number(await fitCanvas.getAttribute('data-right'));
  const baseline = Number(await fitCanvas.getAttribute('data-baseline'));
  await pointer(driver, fitCanvas).drag(edge, baseline - 40, edge + 20, baseline - 40);
  await until('the dragged edge to widen the galley', async () => (await galley()) > before + 3);
  const width = await galley();
  expect(width % 3).toBe(0);

  // Cast: all three formats, the test page from the very bytes, and the downloads.
  await t.chord(Key.ALT, '0');
  await t.press('Cast 3 files');
  await until('three files', async () => (await driver.findElements({ css: '[data-file]' })).length === 3, 60);
  await t.find('[data-testid="test-page"]');
  const measured = await driver.executeScript<number>(`
    const span = document.createElement('span');
    span.style.cssText = 'position:absolute;font:1000px "' + document.querySelector('[data-testid="test-page"]').dataset.family + '"';
    span.textContent = 'nnn';
    document.body.append(span);
    const width = span.getBoundingClientRect().width;
    span.remove();
    return width;`);
  expect(Math.round(measured)).toBe(width);
  for (const download of await driver.findElements({ css: '[data-file] button' })) await download.click();
  for (const format of ['otf', 'ttf', 'woff2']) await t.downloaded(`OrdeHalt-Regular.${format}`);
  await t.press('All as a zip');
  expect((await t.downloaded('Orde Halt fonts.zip')).subarray(0, 2).toString()).toBe('PK');

  const otf = await t.downloaded('OrdeHalt-Regular.otf');
  expect(checkFont(otf).filter((c) => c.severity !== 'fine')).toEqual([]);
  expect(spawnSync('ots-sanitize', [join(browser.downloads, 'OrdeHalt-Regular.otf')]).status).toBe(0);
  expect(spawnSync('ots-sanitize', [join(browser.downloads, 'OrdeHalt-Regular.woff2')]).status).toBe(0);
  const { tables } = readSfnt(otf);
  const gid = cmap.read(tables.get('cmap')!).get(0x6e)!;
  const metrics = hmtx.read(
    tables.get('hmtx')!,
    hhea.read(tables.get('hhea')!).numberOfHMetrics,
    maxp.read(tables.get('maxp')!).numGlyphs,
  );
  expect(metrics[gid]).toMatchObject({ advanceWidth: width / 3, lsb: 70 });
  expect(readCff(tables.get('CFF ')!).glyphs[gid]!.drawn.contours).toHaveLength(2);

  // The project file holds the picture and the drawing.
  await t.chord(Key.CONTROL, 's');
  const read = readProjectFile(await t.downloaded('Orde Halt.wendril'), 'Orde Halt.wendril');
  if (!read.ok) throw new Error(read.reason);
  const n = glyphNamed(read.value, 'n')!.drawings;
  expect(Object.values(n)[0]).toMatchObject({
    contours: [{ closed: true }, { closed: true }],
    backdrops: [{ locked: true }],
  });
  expect(Object.values(read.value.pictures)[0]!.bytes).toEqual(new Uint8Array(PNG));

  // Undo to the start, across the reload, and all the way back again.
  const undo = () => driver.findElement({ css: 'button[aria-label="Undo"]' });
  let steps = 0;
  while (await (await undo()).isEnabled()) {
    await (await undo()).click();
    steps++;
    expect(steps).toBeLessThan(60);
  }
  expect(steps).toBeGreaterThan(14);
  await t.chord(Key.ALT, '2');
  await t.find('[data-glyph="n"]');
  expect(await driver.findElements({ css: '[data-glyph="dotlessi"]' })).toHaveLength(0);
  expect(await t.attribute('[data-glyph="n"]', 'aria-label')).toBe('n, not drawn yet');
  for (let i = 0; i < steps; i++) await t.chord([Key.CONTROL, Key.SHIFT], 'z');
  await t.find('[data-glyph="dotlessi"]');
  expect(await t.attribute('[data-glyph="n"]', 'aria-label')).toBe('n');
  await t.saved();
});
