import { mkdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { specimenPage } from '../demo/specimen';
import { openBrowser, pointer, startServer, tester, until } from './browser';

/** Takes the pictures of every main view from the demo: npm run screenshots. */
const folder = 'docs/screenshots';
mkdirSync(folder, { recursive: true });
const server = await startServer();
const browser = await openBrowser();
const { driver } = browser;
const t = tester(browser);
const [width, height] = await driver.executeScript<[number, number]>('return [outerWidth - innerWidth, outerHeight - innerHeight]');
await driver
  .manage()
  .window()
  .setRect({ width: 1280 + width, height: 800 + height });

const settle = () => new Promise((r) => setTimeout(r, 700));
const take = async (name: string) => {
  await settle();
  writeFileSync(`${folder}/${name}.png`, Buffer.from(await driver.takeScreenshot(), 'base64'));
};
const go = async (address: string) => {
  await driver.get(`${server.url}/p/velmarrow/${address}`);
  await until('the galley', async () => Number(await t.attribute('[data-testid="galley-line"]', 'data-glyphs')) > 0);
};

try {
  await driver.get(server.url);
  await t.find('a[href="/p/velmarrow/draw"]');
  await take('start');
  await go('plan');
  await take('plan');
  await go('case?glyph=g');
  await take('case');
  await go('draw?glyph=a');
  const canvas = await t.find('[data-testid="draw-canvas"]');
  const [scale, originX, originY] = ((await t.attribute('[data-testid="draw-canvas"]', 'data-view')) ?? '').split(' ').map(Number) as [number, number, number];
  await pointer(driver, canvas).click(originX + 262 * scale, originY - 531 * scale);
  await take('draw');
  await go('fit?glyph=a');
  await take('fit');
  await go('cast');
  await t.press('Cast 3 files');
  await t.find('[data-testid="test-page"]');
  await take('cast');
  await go('draw?glyph=R');
  await driver.executeScript('localStorage.setItem("wendril-light", "dark")');
  await go('draw?glyph=R');
  await t.press('Waterfall of sizes');
  await take('waterfall-dark');
  const page = join(tmpdir(), 'velmarrow-specimen.html');
  writeFileSync(page, specimenPage());
  await driver.get(`file://${page}`);
  await driver.executeAsyncScript('document.fonts.ready.then(arguments[0])');
  await take('family');
} finally {
  await browser.quit();
  server.stop();
}
