import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key, Origin } from 'selenium-webdriver';
import { largeProject } from '../bench/largeProject';
import { readyDemo } from '../demo/ready';
import { packZip } from '../src/core/formats/fileTree';
import { projectFiles, writeProjectFile } from '../src/core/formats/project/projectFile';
import { pointer, until } from './browser';
import { type DemoBench, sharedDemoBench } from './demoBench';

const { opened, go, details, undoAll, view } = sharedDemoBench();
const folder = mkdtempSync(join(tmpdir(), 'wendril-e2e-'));
let server: DemoBench['server'];
let browser: DemoBench['browser'];
let t: DemoBench['t'];
beforeAll(() => {
  ({ server, browser, t } = opened());
});

test('the demo is there; its name stands in its own letters; a click in the galley goes to the letter', async () => {
  expect(await t.attribute('a[href="/p/velmarrow/draw"] svg', 'aria-label')).toBe('Velmarrow Sans');
  await t.click('a[href="/p/velmarrow/draw"]');
  const canvas = await t.find('[data-testid="galley-line"]');
  await until('the galley', async () => Number(await canvas.getAttribute('data-glyphs')) > 50);
  const rect = await canvas.getRect();
  await browser.driver
    .actions()
    .move({ x: Math.round(rect.x) + 38, y: Math.round(rect.y + rect.height / 2) })
    .click()
    .perform();
  await until('the letter G', async () => /glyph=G$/.test(await browser.driver.getCurrentUrl()));
  expect(await details()).toMatch(/^G\n/);
});

test('points: drag, sweep, double click, keys; zoom to the pointer and pan', async () => {
  const { driver } = browser;
  await go('draw?glyph=n');
  const canvas = await t.find('[data-testid="draw-canvas"]');
  const hand = pointer(driver, canvas);
  const v = await view();
  await hand.drag(v.px(72), v.py(0), v.px(92), v.py(30));
  await until('the moved point', async () => /x\ny\n|Corner point/.test(await details()));
  const x = Number(
    await driver.executeScript(
      'return [...document.querySelectorAll("label")].find((l) => l.textContent === "x").nextElementSibling.value',
    ),
  );
  expect(Math.abs(x - 92)).toBeLessThanOrEqual(2);
  await undoAll();
  await hand.drag(v.px(40), v.py(-60), v.px(520), v.py(40));
  expect(await details()).toMatch(/^4 points on one contour/);
  await t.keys(Key.DELETE);
  await until('points to go', async () => /^n\n/.test(await details()));
  await undoAll();
  await hand.doubleClick(v.px(114), v.py(0));
  await until('a point on the foot of the stem', async () => /Corner point/.test(await details()));
  await undoAll();
  expect(await details()).toMatch(/^n\n/);

  const before = await view();
  const rect = await canvas.getRect();
  await driver.executeScript(
    'arguments[0].dispatchEvent(new WheelEvent("wheel", { deltaY: -300, ctrlKey: true, clientX: arguments[1], clientY: arguments[2], bubbles: true, cancelable: true }))',
    canvas,
    rect.x + 400,
    rect.y + 300,
  );
  const zoomed = await until('the zoom', async () => ((await view()).scale > before.scale * 1.5 ? view() : undefined));
  expect((400 - zoomed.originX) / zoomed.scale).toBeCloseTo((400 - before.originX) / before.scale, 0);
  await driver
    .actions()
    .keyDown(Key.SPACE)
    .move({ origin: Origin.VIEWPORT, x: 700, y: 400 })
    .press()
    .move({ origin: Origin.VIEWPORT, x: 740, y: 400 })
    .release()
    .keyUp(Key.SPACE)
    .perform();
  await until('the pan', async () => Math.abs((await view()).originX - zoomed.originX - 40) < 2);
  await t.keys('0');
  await until('the fit', async () => Math.abs((await view()).scale - before.scale) < 1e-6);
});

test('a counter filled by a wrong direction is pointed out and put right in one step', async () => {
  await go('draw?glyph=o');
  await t.press('Reverse contour 2');
  await t.press('Set directions by nesting');
  await until('the warning to go', async () => !/wrong way/.test(await details()));
  expect(await details()).toMatch(/clockwise/);
  await undoAll();
});

test('the browser’s Back comes back to a stage and to the letter that was worked on there', async () => {
  const { driver } = browser;
  const at = (address: RegExp) => until(String(address), async () => address.test(await driver.getCurrentUrl()));
  await go('draw?glyph=o');
  await t.click('a[href^="/p/velmarrow/fit"]');
  await at(/\/fit\?glyph=o$/);
  await t.chord(Key.CONTROL, 'k');
  await (await t.find('[cmdk-input]')).sendKeys('&', Key.ENTER);
  await at(/\/fit\?glyph=ampersand$/);
  await driver.navigate().back();
  await at(/\/fit\?glyph=o$/);
  await until('o', async () => /^o\n/.test(await details()));
  await driver.navigate().back();
  await at(/\/draw\?glyph=o$/);
  await until('o', async () => /^o\n/.test(await details()));
  await driver.navigate().forward();
  await driver.navigate().forward();
  await at(/\/fit\?glyph=ampersand$/);
  await until('the ampersand', async () => /^ampersand\n/.test(await details()));
});

test('the palette finds glyphs by character, name and code point, and runs commands', async () => {
  await go('draw?glyph=n');
  for (const [typed, name] of [
    ['&', 'ampersand'],
    ['U+0061', 'a'],
    ['germ', 'germandbls'],
  ] as const) {
    await t.chord(Key.CONTROL, 'k');
    await (await t.find('[cmdk-input]')).sendKeys(typed, Key.ENTER);
    await until(name, async () => (await browser.driver.getCurrentUrl()).endsWith(`glyph=${name}`));
  }
  await t.chord(Key.CONTROL, 'k');
  await (await t.find('[cmdk-input]')).sendKeys('dark bench', Key.ENTER);
  await t.find('html[data-bench="dark"]');
  await t.chord(Key.CONTROL, 'k');
  await (await t.find('[cmdk-input]')).sendKeys('light bench', Key.ENTER);
  await t.find('html[data-bench="light"]');
  // A tool and a dialog of another stage are commands as well.
  await go('fit?glyph=n');
  await t.chord(Key.CONTROL, 'k');
  await (await t.find('[cmdk-input]')).sendKeys('tidy', Key.ENTER);
  await until('the tidying dialog', async () => /Tidy/.test(await t.text('[role="dialog"] h2')));
  await t.keys(Key.ESCAPE);
  await t.gone('[role="dialog"]');
  await t.keys('?');
  const sheet = await t.text('[role="dialog"]');
  // What the stages’ own commands say stands there, in their words: Fit against the other side, Kern's next line.
  expect(sheet).toMatch(/Alt ?↑|Alt ?\+? ?↑/);
  expect(sheet).toMatch(/\bN\b[\s\S]*[Nn]ext line|[Nn]ext line[\s\S]*\bN\b/);
  await t.keys(Key.ESCAPE);
  await t.gone('[role="dialog"]');
});

test('arrows on a focused slider are the slider’s: nothing of the font moves', async () => {
  await go('fit?glyph=n');
  const sides = () => t.attribute('[data-testid="fit-canvas"]', 'data-right');
  const before = await sides();
  const slider = await t.find(
    '[aria-label="Size of the galley"][role="slider"], [aria-label="Size of the galley"] [role="slider"]',
  );
  await browser.driver.executeScript('arguments[0].focus()', slider);
  const size = Number(await slider.getAttribute('aria-valuenow'));
  await t.keys(Key.ARROW_RIGHT, Key.ARROW_RIGHT);
  await until('a larger galley', async () => Number(await slider.getAttribute('aria-valuenow')) > size);
  expect(await sides()).toBe(before);
  // Escape lets the control go; then the keys are the stage’s.
  await t.keys(Key.ESCAPE, Key.ARROW_RIGHT);
  await until('the side to move', async () => (await sides()) !== before);
  await undoAll();
});

test('metrics lines are dragged on the diagram; a wrong order is refused with a reason', async () => {
  await go('plan');
  const line = await t.find('[data-zone="xHeight"] circle');
  await browser.driver
    .actions()
    .move({ origin: line })
    .press()
    .move({ origin: Origin.POINTER, x: 0, y: -12 })
    .move({ origin: Origin.POINTER, x: 0, y: -12 })
    .release()
    .perform();
  const value = async () =>
    Number(
      await browser.driver.executeScript(
        'return [...document.querySelectorAll("label")].find((l) => l.textContent === "x-height").nextElementSibling.value',
      ),
    );
  const dragged = await until('the line to move', async () => ((await value()) > 520 ? value() : undefined));
  expect(dragged).toBeLessThan(640);
  await t.fill('x-height', '900', true);
  await until('the refusal', async () =>
    (await browser.driver.findElement({ css: 'body' }).getText()).includes(
      'The cap height must lie above the x-height.',
    ),
  );
  expect(await value()).toBe(dragged);
  await undoAll();
  await until('the old line', async () => (await value()) === 520);
});

test('a metrics line is dragged past one of the project’s own that lies close above it', async () => {
  await go('plan');
  await t.fill('Name of a new zone', 'small capitals', true);
  await t.fill('small capitals', '542', true);
  const height = async (label: string) =>
    Number(
      await browser.driver.executeScript(
        'return [...document.querySelectorAll("label")].find((l) => l.textContent === arguments[0])?.nextElementSibling?.value',
        label,
      ),
    );
  await until('the line', async () => (await height('small capitals')) === 542);
  const line = await t.find('[data-zone="xHeight"] circle');
  const actions = browser.driver.actions().move({ origin: line }).press();
  for (let i = 0; i < 4; i++) actions.move({ origin: Origin.POINTER, x: 0, y: -6 });
  await actions.release().perform();
  await until('the x-height beyond it', async () => (await height('x-height')) > 545);
  expect(await height('small capitals')).toBe(542);
  await undoAll();
});

test('a second tab is told so and cannot change anything; it may go on when the first is closed', async () => {
  const { driver } = browser;
  await go('draw?glyph=n');
  const first = await driver.getWindowHandle();
  await driver.switchTo().newWindow('tab');
  await go('fit?glyph=n');
  await until('the notice', async () =>
    (await driver.findElement({ css: 'body' }).getText()).includes('open in another tab'),
  );
  await t.fill('Left', '99', true);
  await until('the refusal', async () =>
    (await driver.findElement({ css: 'body' }).getText()).includes('it can be changed only there'),
  );
  expect(await (await t.find('button[aria-label="Undo"]')).isEnabled()).toBe(false);
  const second = await driver.getWindowHandle();
  await driver.switchTo().window(first);
  await driver.close();
  await driver.switchTo().window(second);
  await until(
    'the project to be free',
    async () => !(await driver.findElement({ css: 'body' }).getText()).includes('open in another tab'),
  );
  await t.fill('Left', '99', true);
  await t.saved();
  await undoAll();
  await t.saved();
});

test('full storage is said in one sentence, and nothing is lost once there is room', async () => {
  const { driver } = browser;
  await go('fit?glyph=n');
  await driver.executeScript(
    'window.realPut = IDBObjectStore.prototype.put; IDBObjectStore.prototype.put = () => { throw new DOMException("full", "QuotaExceededError"); }',
  );
  await t.fill('Left', '88', true);
  await until('the sentence', async () =>
    (await driver.findElement({ css: 'header' }).getText()).includes('storage is full'),
  );
  await driver.executeScript('IDBObjectStore.prototype.put = window.realPut');
  await t.fill('Right', '55', true);
  await t.saved();
  await driver.navigate().refresh();
  await t.find('[data-testid="galley-line"]');
  const read = (label: string) =>
    driver.executeScript<string>(
      `return [...document.querySelectorAll("label")].find((l) => l.textContent === "${label}").nextElementSibling.value`,
    );
  await until('both changes', async () => (await read('Left')) === '88' && (await read('Right')) === '55');
  await undoAll();
  await t.saved();
});

test('bad files: one sentence each, and the library stays as it was', async () => {
  const { driver } = browser;
  const good = writeProjectFile(readyDemo());
  const missing = new Map(projectFiles(readyDemo()));
  missing.delete('VelmarrowSans-Regular.ufo/glyphs/n.glif');
  const files: [string, Uint8Array, RegExp][] = [
    [
      'letter.wendril',
      new TextEncoder().encode('Dear Sir, this is a letter, not a project.'),
      /letter\.wendril is not a zip file\./,
    ],
    ['empty.ufoz', new Uint8Array(0), /empty\.ufoz is empty\./],
    ['cut.wendril', good.slice(0, good.length - 4000), /cut\.wendril is a damaged or incomplete zip file\./],
    ['missing.wendril', packZip(missing), /n\.glif is missing; contents\.plist lists it for the glyph “n”\./],
  ];
  await driver.get(server.url);
  for (const [name, bytes, sentence] of files) {
    writeFileSync(join(folder, name), bytes);
    await (await t.find('[data-testid="open-file"]')).sendKeys(join(folder, name));
    await until(String(sentence), async () => sentence.test(await driver.findElement({ css: 'body' }).getText()));
  }
  expect(await driver.findElements({ css: 'main li a[href$="/draw"]' })).toHaveLength(2);
  await go('draw?glyph=n');
  await (await t.find('[data-testid="picture-file"]')).sendKeys(join(folder, 'letter.wendril'));
  await until('the refusal', async () =>
    (await driver.findElement({ css: 'body' }).getText()).includes(
      'letter.wendril is not a PNG or JPEG picture that can be read.',
    ),
  );
  await driver.get(`${server.url}/p/nothing/draw`);
  await until('the refusal', async () =>
    (await driver.findElement({ css: 'body' }).getText()).includes('There is no such project in this browser.'),
  );
});

test('3,000 glyphs: the case draws only what is in sight; keys walk; removing tells what refers', async () => {
  const { driver } = browser;
  writeFileSync(join(folder, 'large.wendril'), writeProjectFile(largeProject(3000)));
  await driver.get(server.url);
  await (await t.find('[data-testid="open-file"]')).sendKeys(join(folder, 'large.wendril'));
  await t.find('[data-testid="case"]');
  await t.find('[data-glyph="a"]');
  expect((await driver.findElements({ css: '[data-glyph]' })).length).toBeLessThan(400);
  await driver.executeScript('document.querySelector(\'[data-testid="case"]\').scrollTop = 1e6');
  await until('the last glyphs', async () => (await driver.findElements({ css: '[data-glyph*=".v4"]' })).length > 0);
  await driver.executeScript('document.querySelector(\'[data-testid="case"]\').scrollTop = 0');
  await t.click('[data-glyph="a"]');
  await t.keys(Key.ARROW_RIGHT, Key.ARROW_RIGHT);
  await until('c', async () => /^c\n/.test(await details()));
  await t.keys(Key.DELETE);
  await until('the question', async () => (await t.text('[role="dialog"]')).includes('Remove c?'));
  await driver.findElement({ css: '[role="dialog"] button.text-brick' }).click();
  await t.gone('[data-glyph="c"]');
  await t.press('Undo');
  await t.find('[data-glyph="c"]');
});
