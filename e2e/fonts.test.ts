import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { buildStarter } from '../demo/starter';
import { castFont } from '../src/core/casting/font';
import { readFontFacts } from '../src/core/fontnames/facts';
import { renameFont } from '../src/core/fontnames/rename';
import { unpackZip } from '../src/core/formats/fileTree';
import { readSfnt, writeSfnt } from '../src/core/opentype/sfnt';
import { until } from './browser';
import { sharedDemoBench } from './demoBench';

const { opened, details } = sharedDemoBench();
const folder = mkdtempSync(join(tmpdir(), 'wendril-fonts-'));

const cast = (flavour: 'ttf' | 'otf') => {
  const font = castFont(buildStarter(), { flavour, place: { master: 'm1' } });
  if (!font.ok) throw new Error(font.reason);
  return font.value.bytes;
};

test('a font is opened as a project, with a word about what came in otherwise', async () => {
  const { server, browser, t } = opened();
  const { version, tables } = readSfnt(cast('ttf'));
  const file = join(folder, 'Orde.ttf');
  writeFileSync(file, writeSfnt(version, new Map([...tables, ['fpgm', Uint8Array.from([0xb0, 0])]])));
  await browser.driver.get(server.url);
  await (await t.find('[data-testid="open-file"]')).sendKeys(file);
  await until('the remarks', async () => /TrueType instructions were left aside/.test(await t.text('[role="dialog"]')));
  await t.press('To its case');
  await until('the case', async () => /\/case/.test(await browser.driver.getCurrentUrl()));
  await until('its glyphs', async () => /(\d+) of \1 drawn/.test(await t.text('main, body')));
  await browser.driver.get((await browser.driver.getCurrentUrl()).replace(/\/case.*/, '/draw?glyph=n'));
  await until('the letter', async () => /advance 546/.test(await details()));
});

test('names of finished fonts: contradictions are told, the family is typed once, the file comes out renamed', async () => {
  const { server, browser, t } = opened();
  const file = join(folder, 'Velmarrow.otf');
  const letter = join(folder, 'letter.otf');
  writeFileSync(file, cast('otf'));
  writeFileSync(letter, 'Dear Sir, this is no font.');
  await browser.driver.get(`${server.url}/names`);
  await (await t.find('[data-testid="open-fonts"]')).sendKeys(`${file}\n${letter}`);
  await until('the refusal', async () =>
    /letter\.otf: This is not an OpenType or TrueType font file/.test(await t.text('body')),
  );
  await until('the card', async () =>
    /Velmarrow Sans\s+Regular\s+Velmarrow Sans Regular\s+VelmarrowSans-Regular\s+–\s+400\s+5\s+upright\s+Version 1\.000/.test(
      await t.text('[data-testid="names-table"]'),
    ),
  );
  const [family, style] = await browser.driver.findElements({ css: 'main input[type="text"]' });
  await family!.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Hamborn');
  await style!.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Bold');
  await until('the rule', async () =>
    /Hamborn Bold\s+links as Hamborn Bold/.test(await t.text('[data-testid="font-card"]')),
  );
  await t.press('Download the font');
  const done = await t.downloaded('Velmarrow.otf');
  expect(readFontFacts(readSfnt(new Uint8Array(done)))).toMatchObject({
    family: 'Hamborn',
    style: 'Bold',
    postScriptName: 'Hamborn-Bold',
    weightClass: 700,
    isBold: true,
  });
});

test('files of a family are renamed together; any name may be typed, and follows the rule again when emptied', async () => {
  const { server, browser, t } = opened();
  const files = ['Orde-Regular.ttf', 'Orde-Heavy.ttf'].map((name) => join(folder, name));
  for (const file of files) writeFileSync(file, cast('ttf'));
  await browser.driver.get(`${server.url}/names`);
  await (await t.find('[data-testid="open-font-folder"]')).sendKeys(folder);
  await until(
    'the fonts of the folder',
    async () => (await browser.driver.findElements({ css: '[data-testid="font-card"]' })).length >= 2,
  );
  await until('what the files contradict in each other', async () =>
    /Another file has the PostScript name “VelmarrowSans-Regular” too/.test(await t.text('main')),
  );
  const cards = await browser.driver.findElements({ css: '[data-testid="font-card"]' });
  const names = await Promise.all(cards.map(async (c) => (await c.findElement({ css: 'h2' })).getText()));
  for (const [i, name] of names.entries())
    if (!name.startsWith('Orde-'))
      await cards[i]!.findElement({ css: 'button[aria-label^="Take"]' }).then((b) => b.click());
  await until(
    'only the two',
    async () => (await browser.driver.findElements({ css: '[data-testid="font-card"]' })).length === 2,
  );
  const heavy = await until('the heavy', async () => {
    for (const card of await browser.driver.findElements({ css: '[data-testid="font-card"]' }))
      if ((await card.getText()).startsWith('Orde-Heavy')) return card;
    return undefined;
  });
  const style = await heavy.findElement({ css: 'input[type="text"]' });
  await style.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Heavy');
  await (await heavy.findElement({ css: 'button[aria-expanded]' })).click();
  const [full] = await heavy.findElements({ css: '[data-testid="all-names"] input[type="text"]' });
  await until('the full name by rule', async () => (await full!.getAttribute('value')) === 'Velmarrow Sans Heavy');
  await full!.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Velmarrow Sans H');
  await until('the typed name', async () => (await heavy.getText()).includes('Velmarrow Sans H\n'));
  await t.press('Download 2 fonts');
  const zip = unpackZip(new Uint8Array(await t.downloaded('fonts.zip')), 'fonts.zip');
  expect([...zip.keys()].sort()).toEqual(['Orde-Heavy.ttf', 'Orde-Regular.ttf']);
  expect(readFontFacts(readSfnt(zip.get('Orde-Heavy.ttf')!))).toMatchObject({
    style: 'Heavy',
    fullName: 'Velmarrow Sans H',
    weightClass: 800,
    postScriptName: 'VelmarrowSans-Heavy',
  });
  expect(readFontFacts(readSfnt(zip.get('Orde-Regular.ttf')!))).toMatchObject({ style: 'Regular', weightClass: 400 });
});

/** Two fonts in one collection file, each with its own tables. */
function collection(fonts: readonly Uint8Array[]): Uint8Array {
  const header = 12 + fonts.length * 4;
  const starts = fonts.map((_, i) => header + fonts.slice(0, i).reduce((sum, f) => sum + f.length, 0));
  const out = new Uint8Array(header + fonts.reduce((sum, f) => sum + f.length, 0));
  const view = new DataView(out.buffer);
  for (const [i, v] of [0x74746366, 0x00010000, fonts.length, ...starts].entries()) view.setUint32(i * 4, v);
  fonts.forEach((font, i) => {
    out.set(font, starts[i]!);
    for (let k = 0; k < view.getUint16(starts[i]! + 4); k++) {
      const at = starts[i]! + 12 + k * 16 + 8;
      view.setUint32(at, view.getUint32(at) + starts[i]!);
    }
  });
  return out;
}

test('a face of a collection is chosen; an SVG letter opens as a project of one glyph', async () => {
  const { server, browser, t } = opened();
  const renamed = renameFont(readSfnt(cast('ttf')), { family: 'Brückfall', style: 'Bold' }).bytes;
  const file = join(folder, 'Two.ttc');
  writeFileSync(file, collection([cast('ttf'), renamed]));
  await browser.driver.get(server.url);
  await (await t.find('[data-testid="open-file"]')).sendKeys(file);
  await until('the choice', async () => /Two\.ttc holds 2 faces/.test(await t.text('[role="dialog"]')));
  await t.press('Brückfall Bold');
  await until('the remarks', async () =>
    /Face 2 of 2 of the collection was opened/.test(await t.text('[role="dialog"]')),
  );
  await t.press('To its case');
  await until('the family', async () => /Brückfall/.test(await t.text('header')));

  const letter = join(folder, 'ampersand.svg');
  writeFileSync(
    letter,
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 700 1000"><circle cx="350" cy="500" r="300"/><text>no outline</text></svg>',
  );
  await browser.driver.get(server.url);
  await (await t.find('[data-testid="open-file"]')).sendKeys(letter);
  await until('the remarks', async () => /Left out: text \(1\)/.test(await t.text('[role="dialog"]')));
  await t.press('To its case');
  await until('the case', async () => /\/case/.test(await browser.driver.getCurrentUrl()));
  await browser.driver.get((await browser.driver.getCurrentUrl()).replace(/\/case.*/, '/draw?glyph=ampersand'));
  await until('the letter', async () => /advance 700/.test(await details()));
});
