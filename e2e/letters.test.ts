import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { readyDemo } from '../demo/ready';
import { buildStarter } from '../demo/starter';
import { writeProjectFile } from '../src/core/formats/project/projectFile';
import type { Project } from '../src/core/project/model';
import { removeGlyphs } from '../src/core/project/removal';
import { storedGlyph, until } from './browser';
import { sharedDemoBench } from './demoBench';

/** New stems for a master, and sets of glyphs made from others: seen, changed, taken, undone. */
const { opened, script, go, details, number } = sharedDemoBench();

const stored = async (name: string) =>
  until(
    `${name} to be stored`,
    async () => (await storedGlyph(opened().browser.driver, 'velmarrow', name)) ?? undefined,
  );
/** What is stored of a letter in a master. */
const drawn = async (name: string, master = 'm1') => JSON.stringify((await stored(name)).drawings[master]);
const tiles = () => script<number>(`return document.querySelectorAll('[data-testid="reweighed"]').length`);
const said = (css: string) => script<string>(`return document.querySelector('${css}')?.innerText ?? ''`);
let addressOfProject = '';
/** Opens a project of its own: the alphabet of one master without another. */
async function openStarter(project = buildStarter()): Promise<void> {
  const { t, server, browser } = opened();
  const file = join(mkdtempSync(join(tmpdir(), 'wendril-letters-')), 'Single.wendril');
  writeFileSync(file, writeProjectFile(project));
  await browser.driver.get(server.url);
  await (await t.find('[data-testid="open-file"]')).sendKeys(file);
  addressOfProject = await until('the case', async () => {
    const at = await browser.driver.getCurrentUrl();
    return /\/case/.test(at) && at.replace(/\/case.*/, '/case');
  });
}
const undoReady = () => script<boolean>(`return !document.querySelector('button[aria-label="Undo"]').disabled`);
const items = (state: string) =>
  script<number>(`return document.querySelectorAll('[data-testid="set-item"][data-state="${state}"]').length`);

test('stems are changed on a rail or by number, seen on letters and in the galley, left, and taken in one step', async () => {
  const { t, undoAll } = opened();
  await go('draw?glyph=dotlessi');
  const before = await drawn('dotlessi');
  const sides = async () => (await number('Left')) + (await number('Right'));
  const white = await sides();
  expect(white).toBeGreaterThan(40);
  await t.chord(Key.SHIFT, 'w');
  await t.find('[role="dialog"]');
  await until('letters to be shown', async () => (await tiles()) >= 40);
  const galley = () =>
    script<string>(
      `const c = document.querySelector('[data-testid="galley-line"] canvas, canvas[data-testid="galley-line"]'); return c ? c.toDataURL().slice(-4000) : ''`,
    );
  const was = await galley();
  await t.fill('Vertical to be', '140', true);
  // The level ones keep their share of the upright ones.
  await until('the other stem to follow', () =>
    script<boolean>(`return [...document.querySelectorAll('[role="dialog"] input')].some((i) => i.value === '122')`),
  );
  await until('the galley to show it', async () => was === '' || (await galley()) !== was, 60);
  // Left, it leaves nothing behind.
  await t.keys(Key.ESCAPE);
  await t.gone('[role="dialog"]');
  expect(await undoReady()).toBe(false);
  await t.chord(Key.SHIFT, 'w');
  await until('letters to be shown again', async () => (await tiles()) >= 40);
  await t.fill('Vertical to be', '140', true);
  await t.click('[data-testid="reweighed"][title="Press to leave o as it is"]');
  await t.click('[aria-label="n heavier than the others"]');
  await until('n to say so', async () => /n \+2/.test(await said('[role="dialog"]')));
  const button = await until('the button', () =>
    script<string | null>(
      `return [...document.querySelectorAll('[role="dialog"] button')].map((b) => b.innerText.trim()).find((x) => /^Reweight \\d+ glyphs$/.test(x)) ?? null`,
    ),
  );
  const o = await drawn('o');
  await t.press(button!);
  await t.gone('[role="dialog"]');
  await t.saved();
  await until('the new stem to be stored', async () => (await drawn('dotlessi')) !== before, 60);
  // The advance stays: what the stem gains, some 56 units, its sides lose.
  const lost = white - (await sides());
  expect(lost).toBeGreaterThan(46);
  expect(lost).toBeLessThan(66);
  expect(await drawn('o')).toBe(o);
  await undoAll();
  await t.saved();
  await until('the old stem to be back', async () => (await drawn('dotlessi')) === before, 60);
});

test('a set is looked at with drafts, some of it made, its numbers changed, what was made brought up to date', async () => {
  const { t, undoAll, browser } = opened();
  await go('compose');
  await t.press('Sets');
  await until('small capitals', async () => (await items('made')) >= 10 && (await items('drawn')) > 100, 60);
  await t.press('Fractions 3 of 19');
  await until('fractions', async () => (await items('can')) === 16, 60);
  const third = await t.find('[data-testid="set-item"][aria-label^="onethird"]');
  await third.click();
  expect(await details()).toMatch(/one\.numr and fraction and three\.dnom in a row, as parts\./);
  await t.keys(Key.ENTER);
  await until('one to be made', async () => (await items('made')) === 1 && (await items('can')) === 15, 60);
  await t.press('Make 15');
  await until('the rest to be made', async () => (await items('made')) === 16 && (await items('can')) === 0, 60);
  expect(await drawn('onethird', 'm3')).toMatch(/fraction|g\d+/);
  await t.press('Figures in rings 0 of 21');
  await until('rings', async () => (await items('can')) === 21, 60);
  await t.press('Make 21');
  await until('rings to be made', async () => (await items('made')) === 21, 90);
  // One of them has numbers of its own: it alone is out of date.
  await t.click('[data-testid="set-item"][aria-label^="uni24EA"]');
  await t.fill('Wide, beside that', '90', true);
  await until('one to be out of date', async () => (await items('changed')) === 1, 60);
  await t.press('As the set has it');
  await until('it to be as it was', async () => (await items('made')) === 21, 60);
  await t.press('Sets');
  await t.press('Fractions all');
  await t.press('Figures in rings all');
  await until('rings again', async () => (await items('made')) === 21, 60);
  await t.fill('Strokes, of text', '75', true);
  await until('what was made to be out of date', async () => (await items('changed')) === 21, 60);
  await t.press('Bring 21 up to date');
  await until('it to follow', async () => (await items('made')) === 21, 90);
  await undoAll();
  await until('rings to be gone', async () => (await items('can')) === 21, 60);
  expect(await browser.driver.findElements(By.css('[role="alert"]'))).toHaveLength(0);
});

test('small capitals are made of an alphabet, one of them from another letter, fitted by their own controls, and set in text', async () => {
  const { t, browser } = opened();
  await openStarter();
  const here = (stage: string) => browser.driver.get(new URL(stage, addressOfProject).href);
  await here('compose');
  await t.find('[data-testid="letters"]');
  await t.keys('s');
  await until('small capitals', async () => (await items('can')) >= 26, 60);
  await until('drafts', () =>
    script<boolean>(
      `return [...document.querySelectorAll('[data-state="can"]')].every((b) => b.querySelector('svg path'))`,
    ),
  );
  await t.click('[data-testid="set-item"][aria-label^="q.sc"]');
  await t.fill('Glyph it comes from', 'O', true);
  await until('it to be told', async () => /Scaled from O/.test(await details()));
  await t.click('[data-testid="set-item"][aria-label^="q.sc"]');
  await t.pick('How it comes', 'Drawn by hand');
  await until('it to be left to the hand', async () => (await items('hand')) === 1, 60);
  await t.press('As the set has it');
  await until('it to come back', async () => (await items('hand')) === 0, 60);
  await script(`document.querySelector('[aria-label="Sets"] button').click()`);
  await script(`[...document.querySelectorAll('button')].find((b) => /^Make \\d+$/.test(b.innerText)).click()`);
  await until('all to be made', async () => (await items('made')) >= 26 && (await items('can')) === 0, 90);
  // The controls are set in Fit; the others follow by a press.
  await here('fit?glyph=h.sc');
  for (const side of ['Left', 'Right']) await t.fill(side, '95', true);
  await t.saved();
  await here('compose');
  await t.find('[data-testid="letters"]');
  await t.keys('s');
  await t.find('[data-testid="set-item"]');
  await t.press('Fit the others');
  await until('it to be said', async () => /fitted \d+ glyphs by its own controls/.test(await said('body')), 60);
  await until('they are still what the set made', async () => (await items('corrected')) === 0, 60);
  await here('fit?glyph=n.sc');
  await until('n to stand as h does', async () => Math.abs((await number('Left')) - 95) <= 3);
});

/** The demo in two masters, without what sets and ligatures make of it. */
function bareFamily(): Project {
  const demo = readyDemo();
  const two: Project = {
    ...demo,
    masters: demo.masters.slice(0, 2),
    settings: { ...demo.settings, deriving: {}, recipes: [] },
  };
  const made = /\.(sc|onum)$|^f_f_i$/;
  const bare = removeGlyphs(two, { ids: two.glyphOrder.filter((id) => made.test(two.glyphs[id]!.name)) });
  if (!bare.ok) throw new Error(bare.reason);
  return bare.project;
}

test('small capitals with accents, old-style figures of parts and a ligature with carets stand in text through the rules', async () => {
  const { t, browser } = opened();
  await openStarter(bareFamily());
  const here = (stage: string) => browser.driver.get(new URL(stage, addressOfProject).href);
  await here('compose');
  await t.find('[data-testid="letters"]');
  await t.keys('s');
  const makeAll = async (set: string) => {
    await script(
      `[...document.querySelectorAll('[aria-label="Sets"] button')].find((b) => b.innerText.startsWith(arguments[0])).click()`,
      set,
    );
    await until(`${set} that can be made`, async () => (await items('can')) > 0, 60);
    await script(`[...document.querySelectorAll('button')].find((b) => /^Make \\d+$/.test(b.innerText)).click()`);
    await until(`${set} to be made`, async () => (await items('can')) === 0, 120);
  };
  await makeAll('Small capitals');
  await makeAll('Old-style figures');
  await script(
    `[...document.querySelectorAll('[aria-label="Sets"] button')].find((b) => b.innerText.startsWith('Ligatures')).click()`,
  );
  const field = await t.fill('Letters of a ligature', 'ffi');
  await field.sendKeys(Key.ENTER);
  await until('the ligature', async () => /Made the ligature f_f_i/.test(await said('body')), 60);
  await t.saved();
  // HarfBuzz sets them in the font as it is cast now.
  await here('scripts');
  await t.press('New');
  await (await t.find('[aria-label="The script"]')).click();
  await t.chord(Key.CONTROL, 'a');
  await script(
    `document.execCommand('insertText', false, arguments[0])`,
    `for (const m of masters) say(font.shape('éß', m, ['smcp']).map((g) => g.glyph.name).join(), font.shape('3', m, ['onum'])[0].glyph, font.shape('ffi', m).map((g) => g.glyph.name).join());
say(font.glyph('three.onum').parts, font.glyph('eacute.sc').parts, font.glyph('f_f_i').drawing().anchors.map((a) => a.name).filter((n) => /caret/.test(n)));`,
  );
  await t.press('Preview');
  await until('what it tells', async () => /caret_2/.test(await said('[data-testid="reports"]')), 60);
  const told = (await said('[data-testid="reports"]')).split('\n').filter(Boolean);
  expect(told.slice(0, 2)).toEqual([
    'eacute.sc,germandbls.sc three.onum f_f_i',
    'eacute.sc,germandbls.sc three.onum f_f_i',
  ]);
  expect(told[2]).toMatch(/^\["three"\] \["e\.sc","acutecomb\S*"\] \["caret_1","caret_2"\]$/);
});

test('a Heavy is reweighted from the Regular into a master of its own, corrected in two letters, and stands between', async () => {
  const { t, browser } = opened();
  await openStarter();
  const here = (stage: string) => browser.driver.get(new URL(stage, addressOfProject).href);
  await here('draw?glyph=n');
  await t.find('[data-testid="galley-line"]');
  await t.chord(Key.SHIFT, 'w');
  await until('letters to be shown', async () => (await tiles()) >= 20, 60);
  await t.fill('Vertical to be', '150', true);
  await t.pick('Goes to', 'a new master');
  await t.fill('Name of the new master', 'Heavy');
  await t.press('Add the master');
  await t.gone('[role="dialog"]');
  await until('the heavy to be worked on', () =>
    script<boolean>(
      `return document.querySelector('[aria-label="Masters"] [aria-checked="true"]')?.getAttribute('aria-label') === 'Heavy'`,
    ),
  );
  await t.saved();
  const left = async (name: string, master: string) => {
    await here(`draw?glyph=${name}`);
    await t.find('[data-testid="galley-line"]');
    await script(`document.querySelector('[aria-label="Masters"] [aria-label="${master}"]').click()`);
    return until('its left side', async () => (await number('Left')) || undefined);
  };
  for (const name of ['n', 'o']) {
    const regular = await left(name, 'Regular');
    const heavy = await left(name, 'Heavy');
    expect(heavy).toBeLessThan(regular);
    await t.chord(Key.CONTROL, 'a');
    for (let i = 0; i < 3; i++) await t.keys(Key.ARROW_RIGHT);
    await t.saved();
    expect(await left(name, 'Heavy')).toBe(heavy + 3);
    expect(await left(name, 'Regular')).toBe(regular);
  }
  await here('masters');
  await t.find('[data-testid="plane-master"]');
  await t.keys('b');
  await until(
    'all agree and nothing breaks between',
    async () => /Between the masters no smooth point breaks/.test(await t.text('[data-testid="between"]')),
    60,
  );
});

test('a ligature of one’s own is made of parts with a caret, and its reason is told where letters touch', async () => {
  const { t, undoAll } = opened();
  await go('compose');
  await t.find('[data-testid="letters"]');
  await t.keys('s');
  await script(
    `[...document.querySelectorAll('[aria-label="Sets"] button')].find((b) => b.innerText.startsWith('Ligatures')).click()`,
  );
  await until('ligatures', async () => (await items('drawn')) >= 5, 60);
  const field = await t.fill('Letters of a ligature', 'tj');
  await field.sendKeys(Key.ENTER);
  expect(await drawn('t_j')).toMatch(/caret_1/);
  await undoAll();
});

test('another form is named for what it is for, and begins blank where that is wished', async () => {
  const { t, undoAll } = opened();
  await go('draw?glyph=a');
  await t.chord(Key.CONTROL, 'k');
  await t.keys('copy of');
  await until('the palette', () => script<boolean>(`return document.querySelectorAll('[role="option"]').length > 0`));
  await t.keys(Key.ENTER);
  await until('the dialog', async () => /A copy of a/.test(await said('[role="dialog"]')));
  await t.pick('What the form is for', 'a stylistic set');
  expect(
    await script<string>(
      `return [...document.querySelectorAll('[role="dialog"] input[type=text]')].map((i) => i.value).join()`,
    ),
  ).toBe('a.ss02');
  await opened().check('Begins blank, of the same width');
  await t.press('Make the copy');
  expect((await drawn('a.ss02')).length).toBeLessThan((await drawn('a')).length / 2);
  await undoAll();
});
