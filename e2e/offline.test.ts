import { readFileSync, writeFileSync } from 'node:fs';
import { type Browser, openBrowser, startServer, tester, until } from './browser';

/** The app without its server: whole after the first load, every stage, also those that were never opened; a newer one comes in when it is asked for. */
jest.setTimeout(120_000);

const WORKER = 'dist/offline.js';
const built = readFileSync(WORKER, 'utf8');
let server: Awaited<ReturnType<typeof startServer>>;
let browser: Browser;
let t: ReturnType<typeof tester>;
const script = <T>(code: string) => browser.driver.executeScript<T>(code);

beforeAll(async () => {
  server = await startServer();
  browser = await openBrowser();
  t = tester(browser);
  await browser.driver.get(server.url);
  await t.find('a[href="/p/velmarrow/draw"]');
  await browser.driver.get(`${server.url}/p/velmarrow/draw?glyph=n`);
  await until('all of it to be kept', () => script<boolean>('return !!navigator.serviceWorker.controller'), 60);
});
afterAll(async () => {
  writeFileSync(WORKER, built);
  await browser?.quit();
  server?.stop();
});

test('a newer version waits until a page takes it; then the page goes on with it', async () => {
  const active = () => script<string>('return navigator.serviceWorker.controller?.state ?? ""');
  writeFileSync(WORKER, `${built}\n// newer`);
  await browser.driver.navigate().refresh();
  await t.find('[data-testid="draw-canvas"]');
  await until(
    'the newer one to be told',
    async () => /newer version of Wendril is ready/.test(await t.text('body')),
    60,
  );
  await script('window.before = true');
  await t.press('Take it now');
  await until('the page to be loaded anew', async () => !(await script<boolean>('return window.before === true')), 30);
  await t.find('[data-testid="draw-canvas"]');
  await until('the newer one', async () => (await active()) === 'activated');
  expect(await t.text('body')).not.toMatch(/newer version/);
});

test('with the server gone an unvisited stage opens, an address too, and the font is set as it would be cast', async () => {
  server.stop();
  await until('the server to be gone', () =>
    fetch(server.url).then(
      () => false,
      () => true,
    ),
  );
  // By the rail, in the page that is open: a part of the app that was never loaded.
  await script(`document.querySelector('a[href*="/p/velmarrow/scripts"]').click()`);
  await until('scripts', async () => /Clean-up chain/.test(await t.text('main')), 30);
  // By their addresses, loaded anew.
  for (const stage of ['kern', 'compose', 'preflight', 'cast']) {
    await browser.driver.get(`${server.url}/p/velmarrow/${stage}`);
    await until(stage, async () => (await t.text('main')).length > 200, 30);
  }
  await until('the fonts that are made', () =>
    script<boolean>(
      `return [...document.querySelectorAll('button')].some((b) => /^Cast/.test(b.innerText) && !b.disabled)`,
    ),
  );
  await browser.driver.get(`${server.url}/p/velmarrow/draw?glyph=n`);
  await until('the galley', async () => (await t.attribute('[data-testid="galley-line"]', 'data-width')) !== '', 60);
  await browser.driver.get(`${server.url}/`);
  await t.find('a[href="/p/velmarrow/draw"]');
});
