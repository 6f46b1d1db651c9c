import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { largeProject } from '../bench/largeProject';
import { writeProjectFile } from '../src/core/formats/project/projectFile';
import { pointer, storedGlyph, until } from './browser';
import { type DemoBench, sharedDemoBench } from './demoBench';

const { opened, go, load, check, details, undoAll, view, value } = sharedDemoBench();
const folder = mkdtempSync(join(tmpdir(), 'wendril-work-'));
let server: DemoBench['server'];
let browser: DemoBench['browser'];
let t: DemoBench['t'];
beforeAll(() => {
  ({ server, browser, t } = opened());
});

test('a pasted picture is moved and scaled in proportion, then locked and removed; undo brings it back', async () => {
  const { driver } = browser;
  await go('draw?glyph=eacute');
  await t.find('[data-testid="draw-canvas"]');
  await driver.executeScript(`
    const canvas = document.createElement('canvas');
    canvas.width = 300; canvas.height = 400;
    const c = canvas.getContext('2d');
    c.fillRect(40, 40, 220, 320);
    canvas.toBlob((blob) => {
      const data = new DataTransfer();
      data.items.add(new File([blob], 'note.png', { type: 'image/png' }));
      window.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data }));
    });`);
  await t.button('Lock note.png');
  const canvas = await t.find('[data-testid="draw-canvas"]');
  const v = await view();
  const hand = pointer(driver, canvas);
  // The picture stands from descender to ascender at the left edge: 946 units tall, 709.5 wide.
  const height = 742 + 204;
  const width = (height * 300) / 400;
  await hand.drag(v.px(300), v.py(300), v.px(350), v.py(300));
  await hand.drag(v.px(50 + width), v.py(742), v.px(50 + width / 2), v.py(742 - height / 2));
  await t.saved();
  // The records follow when the hand has rested.
  const transform = await until('the picture in its record', async () => {
    const backdrops = (await storedGlyph(driver, 'velmarrow', 'eacute'))?.drawings.m1?.backdrops;
    const placed = (backdrops as { transform: number[] }[] | undefined)?.[0]?.transform;
    return placed && placed[0]! / (width / 300) < 0.9 ? placed : undefined;
  });
  expect(transform[0]! / (width / 300)).toBeCloseTo(0.5, 1);
  expect(transform[0]).toBeCloseTo(-transform[3]!, 6);
  expect(Math.abs(transform[4]! - 50)).toBeLessThan(4);
  await t.press('Remove note.png');
  await until('the picture to go', async () => (await details()).includes('Drop or paste a picture'));
  await t.press('Undo');
  await t.button('Lock note.png');
  await undoAll();
  await until('no picture', async () => (await details()).includes('Drop or paste a picture'));
});

test('fitting by keys: left, right, both, bigger steps; the other glyphs stay', async () => {
  await go('fit?glyph=a');
  await until('the sides', async () => (await value('Left')) === '38');
  await t.keys(Key.ARROW_RIGHT, Key.ARROW_RIGHT);
  await until('left 40', async () => (await value('Left')) === '40');
  await t.chord(Key.SHIFT, Key.ARROW_LEFT);
  await until('left 30', async () => (await value('Left')) === '30');
  await t.chord(Key.ALT, Key.ARROW_RIGHT);
  await until('right 66', async () => (await value('Right')) === '66');
  await t.keys(Key.ARROW_UP);
  await until('both', async () => (await value('Left')) === '31' && (await value('Right')) === '67');
  expect(await value('Advance')).toBe('488');
  await t.fill('Left', '31+7', true);
  await until('a typed step', async () => (await value('Left')) === '38');
  await undoAll();
  await until('the old sides', async () => (await value('Left')) === '38' && (await value('Right')) === '65');
});

test('my lines: typed, glyphs put in by name, spaced evenly', async () => {
  await go('fit?glyph=n');
  await t.press('My lines');
  await t.fill('Lines to fit in', 'non');
  await until('the spacing button', async () => (await details()).includes('Add to 2 glyphs'));
  await t.fill('Find a glyph to put in', 'amp');
  await t.press('Put in ampersand');
  await until('three glyphs', async () => (await details()).includes('Add to 3 glyphs'));
  await t.fill('To both sides add', '4', true);
  await t.press('Add to 3 glyphs');
  await until('n to be wider', async () => (await value('Left')) === '76');
  await undoAll();
});

test('a glyph dropped into a control string makes it a line of one’s own', async () => {
  const { driver } = browser;
  await load('fit?glyph=n');
  const { id } = (await storedGlyph(driver, 'velmarrow', 'ampersand'))!;
  await driver.executeScript(
    `const data = new DataTransfer();
     data.setData('application/x-wendril-glyph', arguments[1]);
     const box = arguments[0].getBoundingClientRect();
     arguments[0].dispatchEvent(new DragEvent('drop', { dataTransfer: data, clientX: box.left + 30, clientY: box.top + 90, bubbles: true, cancelable: true }));`,
    await t.find('[data-testid="fit-canvas"]'),
    id,
  );
  await until('the line', async () =>
    (
      await driver.executeScript<string>(
        'return document.querySelector(\'[aria-label="Lines to fit in"]\')?.value ?? ""',
      )
    ).startsWith('&nn'),
  );
  await undoAll();
});

test('masters: chips and keys switch them, each keeps its own drawing, one file is cast for each', async () => {
  const { driver } = browser;
  writeFileSync(join(folder, 'two.wendril'), writeProjectFile(largeProject(60, 2)));
  await driver.get(server.url);
  await (await t.find('[data-testid="open-file"]')).sendKeys(join(folder, 'two.wendril'));
  await t.find('[data-testid="case"]');
  await t.chord(Key.ALT, '3');
  await t.find('[data-testid="draw-canvas"]');
  const advance = async () => Number(/advance ([\d.]+)/.exec(await details())?.[1]);
  const first = await advance();
  await t.keys(']');
  await until('the second master', async () => (await t.text('header')).includes('Master 2 · weight 500'));
  expect(await advance()).toBeGreaterThan(first);
  // Enter applies the number and gives the keys back, so that the next one is the bench's.
  await t.fill('Advance', '900', true);
  await t.keys('[');
  await until('the first master', async () => (await advance()) === first);
  await t.chord(Key.ALT, '0');
  await t.button('Cast 3 files');
  for (const row of await driver.findElements({ css: 'aside label' }))
    if (['Master 2'].includes((await row.getText()).trim())) await row.click();
  await t.press('Cast 6 files');
  await until('six files', async () => (await driver.findElements({ css: '[data-file]' })).length === 6, 60);
  for (const style of ['Regular', 'Master2']) await t.find(`[data-file="VelmarrowSans-${style}.otf"]`);
});

test('casting can be cancelled: nothing is made, and the next casting is whole', async () => {
  const { driver } = browser;
  writeFileSync(join(folder, 'large.wendril'), writeProjectFile(largeProject(1500)));
  await driver.get(server.url);
  await (await t.find('[data-testid="open-file"]')).sendKeys(join(folder, 'large.wendril'));
  await t.find('[data-testid="case"]');
  await t.chord(Key.ALT, '0');
  await t.press('Cast 3 files');
  await t.press('Cancel');
  await until('the end', async () =>
    (await driver.findElement({ css: 'body' }).getText()).includes('Casting was cancelled; nothing was made.'),
  );
  expect(await driver.findElements({ css: '[data-file]' })).toHaveLength(0);
  for (const row of await driver.findElements({ css: 'aside label' }))
    if ((await row.getText()).trim() === 'WOFF2') await row.click();
  await t.press('Cast 2 files');
  await until('two files', async () => (await driver.findElements({ css: '[data-file]' })).length === 2, 60);
});

test('a zone of one’s own is added, dragged with the others and shown while drawing', async () => {
  await go('plan');
  await t.fill('Name of a new zone', 'small-cap height');
  await t.press('Add zone');
  await until('the zone', async () => (await value('small-cap height')) === '260');
  await t.fill('small-cap height', '545', true);
  await t.find('[data-zone="own 0"]');
  await t.press('Remove small-cap height');
  await t.gone('[data-zone="own 0"]');
  await undoAll();
});

test('a proof is a PDF with the very font in it, of the sections that are chosen', async () => {
  await go('cast');
  await t.press('Cast 3 files');
  await t.find('[data-testid="test-page"]');
  await t.press('Printable proof (PDF)…');
  for (const section of ['Glyphs', 'Languages', 'Spacing', 'Kerning', 'Marks', 'Text']) await check(section);
  await t.press('Proof of VelmarrowSans-Regular.woff2');
  const pdf = await t.downloaded('VelmarrowSans-Regular proof.pdf');
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
  const whole = readFileSync(join(browser.downloads, 'VelmarrowSans-Regular proof.pdf'));
  expect(whole.includes('%%EOF')).toBe(true);
  expect(whole.includes('FontFile2')).toBe(true);
  expect(whole.toString('latin1').match(/\/Type \/Page\b/g)).toHaveLength(1);
});

test('a crash in the middle of writing: what was journalled is there after the reload', async () => {
  const { driver } = browser;
  await go('fit?glyph=o');
  await until('the sides', async () => (await value('Left')) === '44');
  // Everything after the journal entry fails, as if the tab had died there.
  await driver.executeScript(`
    const put = IDBObjectStore.prototype.put;
    IDBObjectStore.prototype.put = function (v, key) {
      if (String(key).includes('/log/')) return put.call(this, v, key);
      window.refused = (window.refused ?? 0) + 1;
      throw new DOMException('gone', 'AbortError');
    };`);
  await t.fill('Left', '61', true);
  await t.saved();
  await until('the records to be tried', () => driver.executeScript<boolean>('return window.refused > 0'));
  await driver.navigate().refresh();
  await driver
    .switchTo()
    .alert()
    .accept()
    .catch(() => {});
  await until('the journalled change', async () => (await value('Left')) === '61');
  await undoAll();
  await until('the old side', async () => (await value('Left')) === '44');
  await t.saved();
});
