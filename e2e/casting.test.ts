import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import { Key } from 'selenium-webdriver';
import { cmap } from '../src/core/opentype/cmap';
import { name } from '../src/core/opentype/name';
import { os2 } from '../src/core/opentype/os2';
import { readSfnt, tableOf } from '../src/core/opentype/sfnt';
import { type Browser, type tester, until } from './browser';
import { sharedDemoBench } from './demoBench';

/** Fonts on terms of their own, and where they are tried: names, subsets, what changed since, a page of somebody’s. */
const { opened, script, load, check } = sharedDemoBench();
let browser: Browser;
let t: ReturnType<typeof tester>;
beforeAll(() => {
  ({ browser, t } = opened());
});
const cast = () =>
  until('the button that casts', () =>
    script<boolean>(
      `const b = [...document.querySelectorAll('main button, button')].find((b) => /^Cast (again|\\d+ files?)/.test(b.innerText.trim())); b?.click(); return b !== undefined`,
    ),
  );
const files = (count: number) =>
  until(`${count} files`, async () => (await browser.driver.findElements({ css: '[data-file]' })).length === count, 60);
const font = (file: string) => {
  const read = readSfnt(new Uint8Array(readFileSync(join(browser.downloads, file))));
  return (tag: string) => tableOf(read, tag);
};

test('names are seen and set before anything is made; terms hold in the file; the list remembers them', async () => {
  await load('cast');
  await check('TrueType');
  await check('WOFF2');
  await t.press('names');
  await t.fill('PostScript name of Velmarrow Sans Regular', 'Velmarrow-Bench', true);
  await until('the file of that name', async () => (await t.text('tbody')).includes('Velmarrow-Bench.otf'));
  await t.press('Further terms');
  await t.pick('What documents may do with the font', 'Print and preview');
  await check('Hints in OpenType files');
  await check('As a symbol font');
  await t.fill('Name of the casting list', 'Signs', true);
  await until('the list', async () => (await t.text('[aria-label="Casting list"]')).includes('Signs'));
  await cast();
  await files(1);
  await t.press('Download');
  await t.downloaded('Velmarrow-Bench.otf');
  const table = font('Velmarrow-Bench.otf');
  expect(os2.read(table('OS/2')).fsType).toBe(4);
  expect([...cmap.read(table('cmap')).keys()].every((c) => c >= 0xf000)).toBe(true);
  expect(name.read(table('name')).find((r) => r.nameID === 6)?.value).toBe('Velmarrow-Bench');
  expect(await t.text('article[data-file]')).toMatch(/not reached in it/);
  await t.pick('Casting list', 'For the desk');
  await t.pick('Casting list', 'Signs');
  expect(await script<boolean>(`return document.querySelector('tbody') === null`)).toBe(true);
});

test('two of one name are said before casting', async () => {
  await load('cast');
  await t.pick('Casting list', 'For the desk');
  const open = (row: string) =>
    script(
      `[...document.querySelectorAll('tbody tr')].find((r) => r.cells[0].innerText.startsWith(arguments[0])).querySelector('button').click()`,
      row,
    );
  await open('VelmarrowSans-Light');
  await t.fill('PostScript name of Velmarrow Sans Light', 'VelmarrowSans-Bold', true);
  await until('the warning', async () =>
    /both have the PostScript name “VelmarrowSans-Bold”/.test(await t.text('tbody')),
  );
  await t.fill('PostScript name of Velmarrow Sans Light', Key.BACK_SPACE, true);
  await until('its own name again', async () => (await t.text('tbody')).includes('VelmarrowSans-Light.otf'));
});

test('what changed since the casting before is told in words, and sizes beside it', async () => {
  await load('cast');
  await cast();
  await files(3);
  await load('fit?glyph=o');
  await t.fill('Left', '51', true);
  await t.saved();
  await load('cast');
  await until('what changed', async () =>
    /glyphs? drawn or spaced anew: .*\bo\b/.test(await t.text('[aria-label="Since the last casting"]')),
  );
  expect(await t.text('[aria-label="Castings"]')).toMatch(/1\.000/);
  await cast();
  await files(3);
  expect(await t.text('[aria-label="Sizes of tables"]')).toMatch(
    /(as in|more than in|less than in) the casting before/,
  );
  await load('fit?glyph=o');
  await t.press('Undo');
});

test('a page of somebody’s loads the font that varies, moves it and says what is missing', async () => {
  await load('cast');
  await t.pick('Casting list', 'As one font');
  await cast();
  await files(2);
  await t.press('Open it');
  const { driver } = browser;
  const own = await driver.getWindowHandle();
  const other = await until('the page', async () => (await driver.getAllWindowHandles()).find((h) => h !== own), 30);
  await driver.switchTo().window(other);
  await until('the font', () => script<boolean>(`return document.querySelector('[data-state="here"]') !== null`), 30);
  expect(await script(`return origin`)).toBe('null');
  const width = (value: number) =>
    script<number>(
      `const s = document.querySelector('[data-axis="wght"]'); s.value = arguments[0]; s.oninput();
       const e = document.getElementById('text'); e.style.display = 'inline-block'; e.style.whiteSpace = 'nowrap';
       e.textContent = 'Hamborn'; e.oninput(); return e.getBoundingClientRect().width`,
      value,
    );
  const widths = [await width(300), await width(550), await width(800)];
  expect(widths[1]!).toBeGreaterThan(widths[0]! + 2);
  expect(widths[2]!).toBeGreaterThan(widths[1]! + 2);
  // A feature is as text has it, on, off, and as text has it again.
  const states = [];
  for (let i = 0; i < 4; i++)
    states.push(
      await script<string>(
        `const box = document.querySelector('[data-tag="smcp"]'); ${i > 0 ? 'box.click();' : ''}
         return document.documentElement.style.getPropertyValue('--features') + ' ' + box.indeterminate + ' ' + box.checked`,
      ),
    );
  expect(states).toEqual(['normal true false', '"smcp" 1 false true', '"smcp" 0 false false', 'normal true false']);
  await script(`const e = document.getElementById('text'); e.textContent = 'Ω ק'; e.oninput()`);
  expect(await t.text('#lacking')).toMatch(/Not in this font, set in another: .*ק/);
  await driver.close();
  await driver.switchTo().window(own);
  await t.press('As one file');
  const html = (await t.downloaded('Velmarrow Sans page.html')).toString();
  expect(html).toMatch(/src: url\("data:font\/woff2;base64,/);
  expect(html).not.toMatch(/https?:/);
});

test('web fonts come in parts with their ranges; the zip has them and the style sheet', async () => {
  await load('cast');
  await check('OpenType');
  await check('TrueType');
  await check('Web fonts in parts, by script');
  await cast();
  await until('the parts', async () => (await browser.driver.findElements({ css: '[data-file]' })).length >= 2, 60);
  expect(await t.text('[data-testid="style-sheet"]')).toMatch(/unicode-range: U\+0020-007E/);
  await t.press('All as a zip');
  const zip = unzipSync(new Uint8Array(await t.downloaded('Velmarrow Sans fonts.zip')));
  expect(Object.keys(zip).map((f) => f.replace(/^.*-(?=latin\.)/, ''))).toEqual(
    expect.arrayContaining(['latin.woff2', 'fonts.css', 'How to install.txt']),
  );
});

test('a family name that is too long for older programs is told, and a shorter one taken by a press', async () => {
  await load('cast');
  await t.pick('Casting list', 'For the desk');
  const row = async () =>
    script<string>(
      `return [...document.querySelectorAll('tbody tr')].find((r) => r.cells[0].innerText.includes('NarrowMedium'))?.innerText ?? ''`,
    );
  await script(
    `[...document.querySelectorAll('tbody tr')].find((r) => r.cells[0].innerText.includes('NarrowMedium')).querySelector('button').click()`,
  );
  await t.fill('Family of four of Velmarrow Sans Narrow Medium', 'Velmarrow Sans Condensed Extra Light', true);
  await until('what is wrong', async () =>
    /has 36 characters; programs that know four styles show 31/.test(await row()),
  );
  await t.press('take “Velmarrow Sans Cn Extra Light”');
  await until('the shorter one', async () => /Velmarrow Sans Cn Extra Light: Regular/.test(await row()));
  await t.fill('Family of four of Velmarrow Sans Narrow Medium', Key.BACK_SPACE, true);
  await until('by rule again', async () => /Velmarrow Sans Narrow Medium: Regular/.test(await row()));
});

test('handovers work before other rules or after them, as is chosen for the family', async () => {
  await load('masters?glyph=dollar');
  await t.fill('The glyph that takes its place', 'cent');
  await t.press('Hand over');
  await t.press('after them');
  await until('told', async () =>
    /it gives way in what they leave \(rclt\)/.test(await t.text('[aria-label="Details"]')),
  );
  await t.press('before other rules');
  await until('told', async () => /see the glyph that stands in \(rvrn\)/.test(await t.text('[aria-label="Details"]')));
  await t.press('Take the handover to cent away');
});

test('at twice the size nothing of Cast lies beside the window', async () => {
  const { driver } = browser;
  await load('cast');
  await t.find('main table');
  await driver.manage().window().setRect({ width: 760, height: 620 });
  const beside = () =>
    script<string[]>(
      `const box = document.querySelector('table').closest('.overflow-y-auto');
       return [...(box.scrollWidth > box.clientWidth + 1 ? ['the column ' + box.scrollWidth + ' of ' + box.clientWidth] : []),
         ...[...document.querySelectorAll('tbody td')].filter((c) => c.offsetParent && c.getBoundingClientRect().width < 40).map((c) => c.innerText)]`,
    );
  expect(await beside()).toEqual([]);
  await t.press('names');
  expect(await beside()).toEqual([]);
  await driver.manage().window().setRect({ width: 1280, height: 940 });
});
