import { writeFileSync } from 'node:fs';
import { openBrowser, pointer, startServer, tester, until } from './browser';

const server = await startServer();
const browser = await openBrowser();
const { driver } = browser;
const t = tester(browser);
const size = async (w: number, h: number) => {
  const [dw, dh] = await driver.executeScript<[number, number]>(
    'return [outerWidth - innerWidth, outerHeight - innerHeight]',
  );
  await driver
    .manage()
    .window()
    .setRect({ width: w + dw, height: h + dh });
};
await size(1280, 800);
await driver.get(server.url);
await t.find('a[href="/p/velmarrow/draw"]');
const go = async (a: string) => {
  await driver.get(`${server.url}/p/velmarrow/${a}`);
  await until('galley', async () => Number(await t.attribute('[data-testid="galley-line"]', 'data-glyphs')) > 0, 30);
  await new Promise((r) => setTimeout(r, 600));
};
const shot = async (n: string) => {
  await new Promise((r) => setTimeout(r, 300));
  writeFileSync(`/tmp/shots/${n}.png`, Buffer.from(await driver.takeScreenshot(), 'base64'));
};
const steps = await import(process.argv[2]!);
try {
  await steps.default({ go, shot, t, driver, size, pointer, until, server });
} catch (e) {
  console.log('ERR', String(e).slice(0, 300));
  await shot('error');
}
await driver.quit();
server.stop();
