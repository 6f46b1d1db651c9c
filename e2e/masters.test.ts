import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { readyDemo } from '../demo/ready';
import { buildStarter } from '../demo/starter';
import { castFont } from '../src/core/casting/font';
import { writeProjectFile } from '../src/core/formats/project/projectFile';
import { isOnCurve, reverseContour, withStart } from '../src/core/geometry/contour';
import type { Drawing, Project } from '../src/core/project/model';
import { glyphNamed } from '../src/core/project/queries';
import { planted, smoothPoints } from '../src/core/testing/plantedKink';
import { kinksOf, looksAt, placesBetween } from '../src/core/variation/kinks';
import { type Browser, type tester, until } from './browser';
import { sharedDemoBench } from './demoBench';

const { opened, script, go, load, undoAll } = sharedDemoBench();
let browser: Browser;
let t: ReturnType<typeof tester>;
beforeAll(() => {
  ({ browser, t } = opened());
});
const masters = () =>
  script<string[]>(
    `return [...document.querySelectorAll('[data-testid="plane-master"]')].map((m) => m.getAttribute('aria-label'))`,
  );

/** Types the weight of the new master. */
async function newWeight(weight: string): Promise<void> {
  const [field] = await browser.driver.findElements({
    css: 'aside section:has([aria-label="Name of the new master"]) input[inputmode="decimal"]',
  });
  await script('arguments[0].scrollIntoView({ block: "nearest" })', field);
  await field!.click();
  await browser.driver
    .actions()
    .keyDown(Key.CONTROL)
    .sendKeys('a')
    .keyUp(Key.CONTROL)
    .sendKeys(weight, Key.ENTER)
    .perform();
}

test('masters stand on the plane; one is added between them, moved by keys, made away with, and all of it undone', async () => {
  await go('masters');
  await until('six masters', async () => (await masters()).length === 6);
  await t.fill('Name of the new master', 'Middle', true);
  await newWeight('600');
  await t.press('Add the master');
  await until('seven', async () => (await masters()).some((m) => m === 'Master Middle'));
  await until('its chip', async () => (await t.text('body')).includes('7 masters'));
  await script(`document.querySelector('[data-testid="plane-master"][aria-label="Master Middle"]').focus()`);
  await browser.driver.actions().keyDown(Key.SHIFT).sendKeys(Key.ARROW_LEFT, Key.ARROW_LEFT).keyUp(Key.SHIFT).perform();
  await until('moved by twenty', () =>
    script<boolean>(`return [...document.querySelectorAll('aside input[inputmode="decimal"]')][0].value === '580'`),
  );
  await t.press('Take it away');
  await until('six again', async () => (await masters()).length === 6);
  await t.saved();
  await undoAll();
  await until('as before', async () => (await masters()).length === 6);
});

test('an instance is looked at in the galley; a film goes between two masters and is stopped', async () => {
  await load('masters');
  await until('the plane', async () => (await masters()).length === 6);
  const width = async () => Number(await t.attribute('[data-testid="galley-line"]', 'data-width'));
  await until('a line', async () => (await width()) > 0);
  const regular = await width();
  await script(
    `[...document.querySelectorAll('aside button')].find((b) => b.innerText.trim() === 'Narrow Bold').click()`,
  );
  await until('the place in the galley', async () =>
    /the family at weight 700, width 75/.test(await t.text('[data-testid="galley-place"]')),
  );
  await until('set there', async () => Math.abs((await width()) - regular) > 50);
  const bold = await width();
  await browser.driver.actions().sendKeys('f').perform();
  await until('another width', async () => Math.abs((await width()) - bold) > 100);
  await t.press('Stop the film');
  await until('the instance again', async () => Math.abs((await width()) - bold) < 1);
  await go('draw');
  await until('the master again', async () =>
    /the font as it would be cast now/.test(await t.text('[data-testid="galley-place"]')),
  );
});

test('a waypoint is given, drawn and seen between the masters, moved and taken away', async () => {
  await go('masters?glyph=o');
  const chips = () =>
    script<number>(`return document.querySelectorAll('[aria-label="Masters"] [role="radio"]').length`);
  await until('six chips', async () => (await chips()) === 6);
  await t.press('Give o a waypoint there');
  await until('the waypoint', async () => /As what lies there without it/.test(await t.text('[aria-label="Details"]')));
  expect(await chips()).toBe(7);
  await t.press('Draw it');
  await until('its drawing', async () => /Waypoint, weight 600, width 100/.test(await t.text('header')));
  await until(
    'the galley there',
    async () => Number(await t.attribute('[data-testid="galley-line"]', 'data-width')) > 0,
  );
  // In this drawing alone: all points go up by the arrow keys.
  await browser.driver.actions().keyDown(Key.CONTROL).sendKeys('a').keyUp(Key.CONTROL).perform();
  await browser.driver.actions().keyDown(Key.SHIFT).sendKeys(Key.ARROW_UP, Key.ARROW_UP).keyUp(Key.SHIFT).perform();
  // The next master is a real one again, and has not changed.
  await browser.driver.actions().sendKeys(']').perform();
  await until('a master', async () => !/Waypoint/.test(await t.text('header')));
  await go('masters?glyph=o');
  await t.find('[data-testid="plane-waypoint"]');
  await script(`document.querySelector('[data-testid="plane-waypoint"]').focus()`);
  await browser.driver.actions().sendKeys(Key.ENTER).perform();
  await until('what it says', async () =>
    /Up to 20 units from what would lie there without it/.test(await t.text('[aria-label="Details"]')),
  );
  await script(`document.querySelector('[data-testid="plane-waypoint"]').focus()`);
  await browser.driver.actions().keyDown(Key.SHIFT).sendKeys(Key.ARROW_LEFT).keyUp(Key.SHIFT).perform();
  await until('moved', () =>
    script<boolean>(
      `return document.querySelector('[data-testid="plane-waypoint"]').getAttribute('aria-label') === 'Waypoint, weight 590, width 100'`,
    ),
  );
  // In Fit it is fitted; where other stages know masters only, a master is shown.
  await script(`document.querySelectorAll('[aria-label="Masters"] [role="radio"]')[6].click()`);
  await until('shown', async () => /Waypoint/.test(await t.text('header')));
  await script(`document.querySelector('a[href$="/fit"], a[href*="/fit?"]').click()`);
  await t.find('[data-testid="fit-canvas"]');
  expect(await t.text('header')).toMatch(/Waypoint/);
  await script(`history.back()`);
  await until('Masters after Fit', async () => /\/masters/.test(await browser.driver.getCurrentUrl()));
  // Within the app, so that the stage is first seen with the waypoint.
  for (const stage of ['plan', 'kern', 'case', 'compose', 'cast']) {
    await script(`document.querySelector('a[href$="/${stage}"], a[href*="/${stage}?"]').click()`);
    await until(`${stage} with a master`, async () => !/Waypoint/.test(await t.text('header')));
    await t.find('[data-testid="galley-line"]');
    await script(`history.back()`);
    await until('Masters again', async () => /\/masters/.test(await browser.driver.getCurrentUrl()));
    await script(`document.querySelectorAll('[aria-label="Masters"] [role="radio"]')[6]?.click()`);
    await until('the waypoint again', async () => /Waypoint/.test(await t.text('header')));
  }
  await go('masters?glyph=o');
  await undoAll();
  await until('none', async () => (await chips()) === 6);
});

test('a glyph gives way to another over part of an axis, up to a limit that is dragged on the strip', async () => {
  await go('masters?glyph=dollar');
  await t.find('[aria-label="The glyph that takes its place"]');
  await script(
    `document.querySelector('[aria-label="The glyph that takes its place"]').scrollIntoView({ block: 'nearest' })`,
  );
  await t.fill('The glyph that takes its place', 'S', true);
  await until('the jump', async () =>
    /At weight 600 the advance (stays|jumps by [+-]?\d+)/.test(await t.text('[aria-label="Details"]')),
  );
  const limit = () =>
    script<string>(`return document.querySelector('[data-testid="limit"]').getAttribute('aria-valuetext')`);
  expect(await limit()).toBe('Weight 600');
  const box = await script<{ x: number; y: number }>(
    `const l = document.querySelector('[data-testid="limit"] rect'); l.scrollIntoView({ block: 'nearest' });
     const b = l.getBoundingClientRect(); return { x: Math.round(b.x + b.width / 2), y: Math.round(b.y + b.height / 2) }`,
  );
  await browser.driver
    .actions({ async: true })
    .move({ x: box.x, y: box.y })
    .press()
    .move({ x: box.x + 60, y: box.y, duration: 120 })
    .release()
    .perform();
  await until('dragged', async () => Number((await limit()).split(' ')[1]) > 620);
  await script(`document.querySelector('[data-testid="limit"]').focus()`);
  const before = Number((await limit()).split(' ')[1]);
  await browser.driver.actions().sendKeys(Key.ARROW_RIGHT).perform();
  await until('one more', async () => Number((await limit()).split(' ')[1]) === before + 1);
  await t.fill('A word on the strip', 'no', true);
  await until('nine lines', () =>
    script<boolean>(`return document.querySelectorAll('[data-testid="strip"] [role="button"]').length === 9`),
  );
  await undoAll();
  await until('none', () => script<boolean>(`return document.querySelector('[data-testid="limit"]') === null`));
});

test('a master comes from a font file: what matches is told, then it stands on the axis; a file that is none is said', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'wendril-taken-'));
  const cast = castFont(readyDemo(), { flavour: 'otf', place: { master: 'm3' } });
  if (!cast.ok) throw new Error(cast.reason);
  const [font, text] = [join(folder, 'Heavy.otf'), join(folder, 'none.otf')];
  writeFileSync(font, cast.value.bytes);
  writeFileSync(text, 'no font at all');
  await go('masters');
  await t.pick('What the new master is made from', 'another project or font');
  const input = await t.find('[data-testid="master-file"]');
  await input.sendKeys(text);
  await until('what is wrong', async () => /none\.otf/.test(await t.text('[aria-label="Details"] [role="alert"]')), 30);
  await input.sendKeys(font);
  await until(
    'what matches',
    async () => /Velmarrow Sans, .+: \d{3} glyphs known, \d{3} by name/.test(await t.text('[data-testid="taken"]')),
    30,
  );
  await t.fill('Name of the new master', 'Taken', true);
  await newWeight('700');
  await t.press('Add the master');
  await until('it stands there', async () => (await masters()).includes('Master Taken'));
  await undoAll();
  await until('six again', async () => (await masters()).length === 6);
});

test('an axis tells what a change does before it is done; its map is dragged; instances follow their stems', async () => {
  await go('masters');
  await t.fill('Maximum of Weight', '650', true);
  const draft = () => t.text('[data-testid="axis-draft"]');
  await until('what it does', async () => /Heavy, Narrow Heavy would lie beyond its ends/.test(await draft()));
  await t.press('Leave it');
  await until('as before', () =>
    script<boolean>(
      `const l = [...document.querySelectorAll('label')].find((x) => x.innerText === 'Maximum of Weight'); return (document.getElementById(l?.htmlFor) ?? document.querySelector('[aria-label="Maximum of Weight"]')).value === '800'`,
    ),
  );
  await t.press('Map, names, stops');
  await t.find('[data-testid="map-point"]');
  await script(
    `const p = document.querySelectorAll('[data-testid="map-point"]')[1]; p.scrollIntoView({ block: 'nearest' }); p.focus()`,
  );
  await browser.driver.actions().keyDown(Key.SHIFT).sendKeys(Key.ARROW_UP, Key.ARROW_UP).keyUp(Key.SHIFT).perform();
  await until('other numbers', async () => /Fonts would have Regular at 383\.3 \(400 now\)/.test(await draft()));
  await t.press('Change Weight');
  await until('done', () => script<boolean>(`return document.querySelector('[data-testid="axis-draft"]') === null`));
  await undoAll();
  await t.pick('How weights are spaced', 'stems by even steps');
  await until('stems', async () => /Medium\s*4\d\d\s*stem \d+/.test(await t.text('[aria-label="Details"]')));
});

test('Plan lays the masters side by side, and sets a line in all of them in one step', async () => {
  await go('plan');
  await t.find('[aria-label="Plan shows"]');
  await script(
    `[...document.querySelectorAll('[aria-label="Plan shows"] button')].find((b) => b.innerText.trim() === 'Masters').click()`,
  );
  await t.find('[data-testid="beside-row"]');
  const heights = () =>
    script<string[]>(`return [...document.querySelectorAll('[aria-label^="x-height, "]')].map((f) => f.value)`);
  expect(await heights()).toEqual(['516', '520', '532', '516', '520', '532']);
  await t.fill('x-height, Light', '518', true);
  await until('one', async () => (await heights()).join() === '518,520,532,516,520,532');
  await t.press('All masters');
  await t.fill('x-height, Light', '521', true);
  await until('all', async () => (await heights()).every((h) => h === '521'));
  await undoAll();
  await until('as before', async () => (await heights()).join() === '516,520,532,516,520,532');
});

/** The demo with four glyphs that do not agree: two by their start, one by a direction, one past mending; and one that kinks. */
function broken(): Project {
  let project = readyDemo();
  const change = (name: string, master: string, by: (d: Drawing) => Drawing) => {
    const glyph = glyphNamed(project, name)!;
    const drawings = { ...glyph.drawings, [master]: by(glyph.drawings[master]!) };
    project = { ...project, glyphs: { ...project.glyphs, [glyph.id]: { ...glyph, drawings } } };
  };
  change('n', 'm3', (d) => {
    const [c, ...rest] = d.contours;
    const on = c!.points.flatMap((p, i) => (isOnCurve(p) ? [i] : []));
    return { ...d, contours: [withStart(c!, on[5]!), ...rest] };
  });
  change('T', 'm3', (d) => ({ ...d, contours: d.contours.map((c) => withStart(c, 3)) }));
  change('e', 'm2', (d) => ({ ...d, contours: d.contours.map((c, i) => (i === 1 ? reverseContour(c) : c)) }));
  change('S', 'm3', (d) => ({ ...d, contours: [] }));
  const c = glyphNamed(project, 'c')!;
  // Points of the c that kink when they are moved so, the first of them.
  const looks = looksAt(project, placesBetween(project));
  const kinked = smoothPoints(c.drawings.m3!)
    .map((at) => planted(c, 'm3', at, 18))
    .find((g) => kinksOf(project, g, looks).some((k) => k.slide !== undefined))!;
  return { ...project, glyphs: { ...project.glyphs, [c.id]: kinked } };
}

test('masters that do not agree are shown, told apart in words, and mended; what is past mending is named', async () => {
  const file = join(mkdtempSync(join(tmpdir(), 'wendril-masters-')), 'Broken.wendril');
  writeFileSync(file, writeProjectFile(broken()));
  await browser.driver.get(opened().server.url);
  await (await t.find('[data-testid="open-file"]')).sendKeys(file);
  await until('the case', async () => /\/case/.test(await browser.driver.getCurrentUrl()), 30);
  await browser.driver.get((await browser.driver.getCurrentUrl()).replace(/\/case.*/, '/masters'));
  await t.press('Agreement');
  await until('four glyphs', async () => /4 glyphs of 665 differ/.test(await t.text('[data-testid="agreement"]')), 30);
  await script(`[...document.querySelectorAll('ol button')].find((b) => b.innerText.startsWith('n')).click()`);
  await until('the words', async () =>
    /Contour 1: it starts at the .+ in Regular and at the .+ in Heavy/.test(
      await t.text('[aria-label="What differs"]'),
    ),
  );
  await t.press('Mend all that can be');
  await until('one left', async () => /1 glyph of 665 differs/.test(await t.text('[data-testid="agreement"]')));
  expect(await t.text('[aria-label="What differs"]')).toMatch(/Heavy has no contour, Regular one\./);
  await browser.driver.actions().keyDown(Key.CONTROL).sendKeys('z').keyUp(Key.CONTROL).perform();
  await until('all again', async () => /4 glyphs of 665 differ/.test(await t.text('[data-testid="agreement"]')));
  const between = () => t.text('[data-testid="between"]');
  await browser.driver.actions().sendKeys('b').perform();
  await until(
    'a kink, and a loop',
    async () =>
      /^Between the masters smooth points of 1 glyph break and outlines of 1 glyph cross\.$/.test(await between()),
    30,
  );
  const said = await t.text('[aria-label="What goes wrong with T"]');
  expect(said).toMatch(/Contour 1 crosses itself, a loop of \d+ units/);
  await t.press('Mend all that slide');
  await until('no kink', async () => /^Between the masters outlines of 1 glyph cross\.$/.test(await between()), 30);
});

test('from one weight to nine: an axis, two masters at its ends, a row of instances; and back again by Undo', async () => {
  const file = join(mkdtempSync(join(tmpdir(), 'wendril-masters-')), 'Single.wendril');
  writeFileSync(file, writeProjectFile(buildStarter()));
  await browser.driver.get(opened().server.url);
  await (await t.find('[data-testid="open-file"]')).sendKeys(file);
  await until('the case', async () => /\/case/.test(await browser.driver.getCurrentUrl()), 30);
  await browser.driver.get((await browser.driver.getCurrentUrl()).replace(/\/case.*/, '/masters'));
  await until('one master', async () => /1 master\b/.test(await t.text('[aria-label="Details"]')));
  // One master has nothing to agree with, and nothing between.
  await browser.driver.actions().sendKeys('b').perform();
  await until('nothing between', async () => /One master has nothing between\./.test(await t.text('main')));
  await browser.driver.actions().sendKeys('p').perform();
  await t.press('Weight');
  const added = async (name: string, weight: string) => {
    await t.fill('Name of the new master', name, true);
    await newWeight(weight);
    await t.press('Add the master');
    await until(name, async () => (await masters()).includes(`Master ${name}`));
  };
  await added('Thin', '100');
  await added('Black', '900');
  await t.press('Add all weights');
  await until('nine instances', async () => /9 instances/.test(await t.text('[aria-label="Details"]')));
  const names = await script<string[]>(
    `return [...document.querySelectorAll('aside li button[aria-pressed]')].map((b) => b.innerText.trim())`,
  );
  expect(names).toEqual([
    'Thin',
    'Extra Light',
    'Light',
    'Regular',
    'Medium',
    'Semibold',
    'Bold',
    'Extra Bold',
    'Black',
  ]);
  await t.press('Add all weights');
  await until('a word that they are there', async () =>
    /There are instances of these names or at these places already\./.test(await t.text('body')),
  );
  await browser.driver.actions().sendKeys('b').perform();
  await until(
    'copies agree',
    async () =>
      /Between the masters no smooth point breaks, no outlines cross, no stem swells and no counter closes\./.test(
        await t.text('[data-testid="between"]'),
      ),
    30,
  );
  await t.saved();
  await undoAll();
  await until('one master again', async () =>
    /1 master\b[\s\S]*0 axes · 0 instances/.test(await t.text('[aria-label="Details"]')),
  );
});

test('an italic is begun from the roman and opened as a project of its own', async () => {
  await go('masters');
  await t.find('[data-testid="plane-master"]');
  await t.fill('Angle, degrees', '12', true);
  await t.press('Begin the italic');
  await until('it is made', async () => /Go to the italic/.test(await t.text('[data-testid="italic-made"]')), 60);
  await t.click('[data-testid="italic-made"] a');
  await until('the italic', async () => /Italic · weight 400 · width 100/.test(await t.text('header')), 30);
  await until('its line', async () => Number(await t.attribute('[data-testid="galley-line"]', 'data-glyphs')) > 0, 30);
  const chips = await script<string[]>(
    `return [...document.querySelectorAll('[aria-label="Masters"] [role="radio"]')].map((c) => c.getAttribute('aria-label'))`,
  );
  expect(chips).toEqual([
    'Light Italic',
    'Italic',
    'Heavy Italic',
    'Narrow Light Italic',
    'Narrow Italic',
    'Narrow Heavy Italic',
  ]);
});
