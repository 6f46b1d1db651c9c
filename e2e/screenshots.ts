import { mkdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readyDemo } from '../demo/ready';
import { reweighProofPage } from '../demo/reweighProof';
import { specimenPage } from '../demo/specimen';
import { castFont } from '../src/core/casting/font';
import { renameFont } from '../src/core/fontnames/rename';
import { readSfnt } from '../src/core/opentype/sfnt';
import { openBrowser, pointer, startServer, tester, until } from './browser';

/** Takes the pictures of every main view from the demo: npm run screenshots. */
const folder = 'docs/screenshots';
mkdirSync(folder, { recursive: true });
mkdirSync('docs/proofs', { recursive: true });
const server = await startServer();
const browser = await openBrowser();
const { driver } = browser;
const t = tester(browser);
const [width, height] = await driver.executeScript<[number, number]>(
  'return [outerWidth - innerWidth, outerHeight - innerHeight]',
);
await driver
  .manage()
  .window()
  .setRect({ width: 1280 + width, height: 800 + height });

/** Two fonts of the demo whose names contradict each other. */
function confusedFonts(): string[] {
  return (['m1', 'm3'] as const).map((master) => {
    const font = castFont(readyDemo(), { flavour: 'otf', place: { master } });
    if (!font.ok) throw new Error(font.reason);
    const named =
      master === 'm1'
        ? font.value.bytes
        : renameFont(readSfnt(font.value.bytes), {
            family: 'Velmarrow Sans',
            style: 'Bold',
            weightClass: 400,
            postScriptName: 'VelmarrowSans-Regular',
          }).bytes;
    const file = join(tmpdir(), `VelmarrowSans-${master === 'm1' ? 'Regular' : 'Bold'}.otf`);
    writeFileSync(file, named);
    return file;
  });
}

const settle = () => new Promise((r) => setTimeout(r, 700));
const take = async (name: string) => {
  await settle();
  writeFileSync(`${folder}/${name}.png`, Buffer.from(await driver.takeScreenshot(), 'base64'));
};
const go = async (address: string) => {
  await driver.get(`${server.url}/p/velmarrow/${address}`);
  await until('the galley', async () => Number(await t.attribute('[data-testid="galley-line"]', 'data-glyphs')) > 0);
};

/** A scanned sheet of pen lettering, made straight and cut into its letters. */
async function scanSheet(): Promise<void> {
  await go('case');
  await t.press('Get a sheet…');
  await t.find('[aria-label="Dots to the inch"]');
  await t.press('Scan');
  await until('the sheet', async () => (await driver.findElements({ css: '[data-testid="sheet"]' }))[0], 30);
  const lines = await driver.findElements({ css: '[role="dialog"] input[type="text"]' });
  for (const [i, text] of ['abcdefghi', 'jklmnopqr', 'stuvwxyz'].entries()) await lines[i]!.sendKeys(text);
  await take('sheet');
  await t.press('Put behind 26');
  await until('the sheet to go', async () => (await driver.findElements({ css: '[role="dialog"]' })).length === 0);
  const undo = await t.find('button[aria-label="Undo"]');
  while (await undo.isEnabled()) await undo.click();
}

try {
  await driver.get(server.url);
  await t.find('a[href="/p/velmarrow/draw"]');
  await take('start');
  await go('plan');
  await take('plan');
  await t.press('Languages');
  await t.find('[data-testid="language"]');
  await take('languages');
  await go('compose?glyph=a');
  await t.find('[data-testid="composed"][data-state="can"]');
  await take('compose');
  await go('masters?glyph=a');
  await t.find('[data-testid="strip"]');
  await take('masters');
  await go('preflight');
  await until('the findings', async () => /glyphs\.$/.test(await t.text('[data-testid="preflight-status"]')), 60);
  await t.driver.executeScript(
    `[...document.querySelectorAll('[data-testid="findings"] [aria-pressed]')].find((b) => b.innerText.includes('An upright stem'))?.click()`,
  );
  await take('preflight');
  await go('case?glyph=g');
  await take('case');
  await go('draw?glyph=a');
  const canvas = await t.find('[data-testid="draw-canvas"]');
  const [scale, originX, originY] = ((await t.attribute('[data-testid="draw-canvas"]', 'data-view')) ?? '')
    .split(' ')
    .map(Number) as [number, number, number];
  await pointer(driver, canvas).click(originX + 262 * scale, originY - 531 * scale);
  await take('draw');
  await t.chord('\uE008', 'w');
  await until('letters', async () => (await driver.findElements({ css: '[data-testid="reweighed"]' })).length > 12, 30);
  await t.press('Heavy 162/122');
  await until('the heavier letters', async () => /No room/.test(await t.text('[role="dialog"]')), 30);
  await new Promise((r) => setTimeout(r, 3000));
  await take('reweight');
  await go('compose');
  await t.press('Sets');
  await t.find('[data-testid="set-item"][data-state="made"] svg');
  await take('sets');
  await scanSheet();
  await go('fit?glyph=a');
  await take('fit');
  await go('kern');
  await until('the queue', async () => (await driver.findElements({ css: '[aria-label="Pairs"] button' })).length > 2);
  await take('kern');
  await go('features');
  await until('the rules in letters', async () => /5 ligatures/.test(await t.text('[data-testid="sections"]')));
  await driver.executeScript(
    `const card = [...document.querySelectorAll('[data-testid="section"]')].find((c) => c.getAttribute('aria-label') === 'Ligatures');
    [...card.querySelectorAll('button')].find((b) => /Text and trial/.test(b.innerText)).click();
    const box = document.querySelector('[data-testid="sections"]');
    box.scrollTop += card.getBoundingClientRect().top - box.getBoundingClientRect().top - 10;`,
  );
  await until('the trial', async () => (await driver.findElements({ css: '[data-testid="trial-line"]' })).length === 2);
  await take('features');
  await go('cast');
  await t.press('Cast 3 files');
  await t.find('[data-testid="test-page"]');
  await take('cast');
  await t.pick('Casting list', 'As one font');
  await t.press('Cast again');
  await until('the variable font', async () => /Variable\.woff2/.test(await t.text('main')), 60);
  const bench = await driver.getWindowHandle();
  await t.press('Open it');
  const visited = await until('the page', async () => (await driver.getAllWindowHandles()).find((h) => h !== bench));
  await driver.switchTo().window(visited);
  await t.find('[data-state="here"]');
  await take('visitor');
  await driver.close();
  await driver.switchTo().window(bench);
  await go('draw?glyph=R');
  await driver.executeScript('localStorage.setItem("wendril-light", "dark")');
  await go('draw?glyph=R');
  await t.press('Waterfall of sizes');
  await take('waterfall-dark');
  await driver.executeScript('localStorage.setItem("wendril-light", "light")');
  await driver.get(`${server.url}/names`);
  await (await t.find('[data-testid="open-fonts"]')).sendKeys(confusedFonts().join('\n'));
  await until('both fonts', async () => (await driver.findElements({ css: '[data-testid="font-card"]' })).length === 2);
  await take('names');
  await go('scripts');
  await t.press('Sides rounded to even values');
  await t.find('[data-testid="script-asks"]');
  await t.fill('Round to', '5', true);
  await t.press('Preview');
  await t.find('[data-testid="script-changes"] li');
  await take('scripts');
  const page = join(tmpdir(), 'velmarrow-specimen.html');
  writeFileSync(page, specimenPage());
  await driver.get(`file://${page}`);
  await driver.executeAsyncScript('document.fonts.ready.then(arguments[0])');
  await settle();
  writeFileSync('docs/proofs/family.png', Buffer.from(await driver.takeScreenshot(), 'base64'));
  const proof = join(tmpdir(), 'velmarrow-reweighted.html');
  writeFileSync(proof, reweighProofPage());
  await driver.get(`file://${proof}`);
  await settle();
  writeFileSync('docs/proofs/reweighted.png', Buffer.from(await driver.takeScreenshot(), 'base64'));
} finally {
  await browser.quit();
  server.stop();
}
