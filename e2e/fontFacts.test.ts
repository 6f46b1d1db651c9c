import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By } from 'selenium-webdriver';
import { buildStarter } from '../demo/starter';
import { castFont } from '../src/core/casting/font';
import { name } from '../src/core/opentype/name';
import { readSfnt, tableOf, writeSfnt } from '../src/core/opentype/sfnt';
import { until } from './browser';
import { sharedDemoBench } from './demoBench';

const { opened, go, check, script, undoAll } = sharedDemoBench();

const isChecked = (label: string) =>
  script<boolean>(
    `return [...document.querySelectorAll('label')].find((l) => l.innerText.trim() === arguments[0])
      .parentElement.querySelector('[role="checkbox"]').getAttribute('aria-checked') === 'true';`,
    label,
  );

test('kerning holds across marks, or stops at them; coordinates are whole or keep their fractions; both are undone', async () => {
  const { t, browser } = opened();
  await go('kern');
  await until('the bar', async () => (await isChecked('Across marks')) === true);
  await check('Across marks');
  await until('it off', async () => (await isChecked('Across marks')) === false);
  await t.saved();
  await browser.driver.navigate().refresh();
  await until('it off after a reload', async () => (await isChecked('Across marks')) === false);
  await go('plan');
  const coordinates = () => t.text('[aria-label="Coordinates"]');
  expect(await coordinates()).toBe('Whole units');
  await t.pick('Coordinates', 'With fractions');
  await until('fractions', async () => (await coordinates()) === 'With fractions');
  await undoAll();
  await until('whole units again', async () => (await coordinates()) === 'Whole units');
  await go('kern');
  await until('pairs across marks again', async () => (await isChecked('Across marks')) === true);
});

test('a finished font is opened: what does not come along is told once, and a family that is renamed is so in every name', async () => {
  const { t, browser, server } = opened();
  const starter = buildStarter();
  const info = {
    ...starter.masters[0]!.info,
    postscriptFontName: 'VelmarrowSans-Book',
    openTypeNameUniqueID: 'The office: Velmarrow Sans Book',
  };
  const made = castFont(
    { ...starter, masters: [{ ...starter.masters[0]!, info }] },
    { flavour: 'ttf', place: { master: 'm1' } },
  );
  if (!made.ok) throw new Error(made.reason);
  const font = readSfnt(made.value.bytes);
  const tables = new Map(font.tables).set('DSIG', Uint8Array.of(0, 0, 0, 1)).set('XYZW', Uint8Array.of(1));
  const file = join(mkdtempSync(join(tmpdir(), 'wendril-e2e-font-')), 'Book.ttf');
  writeFileSync(file, writeSfnt(font.version, tables));
  await browser.driver.get(server.url);
  await (await browser.driver.findElement(By.css('input[type="file"]'))).sendKeys(file);
  const dialog = await until('what came in otherwise', async () => {
    const text = await t.text('[role="dialog"]');
    return /is opened/.test(text) && text;
  });
  expect(dialog.match(/Left aside: .*\(DSIG\); .*\(XYZW\)\./g)).toHaveLength(1);
  await t.press('To its case');
  const address = await until('it open', async () => {
    const url = await browser.driver.getCurrentUrl();
    return /\/p\/[^/]+\/case/.test(url) && url;
  });
  await browser.driver.get(address.replace('/case', '/plan'));
  await t.fill('Family', 'Orde Grotesk', true);
  await t.saved();
  await browser.driver.get(address.replace('/case', '/cast'));
  await until('the name of the file', async () => (await t.text('main')).includes('OrdeGrotesk-Book'), 60);
  expect(name.read(tableOf(font, 'name')).some((n) => n.value === 'VelmarrowSans-Book')).toBe(true);
});
