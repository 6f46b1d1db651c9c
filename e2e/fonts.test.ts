import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { buildStarter } from '../demo/starter';
import { castFont } from '../src/core/casting/font';
import { readFontFacts } from '../src/core/fontnames/facts';
import { readSfnt, writeSfnt } from '../src/core/opentype/sfnt';
import { until } from './browser';
import { sharedDemoBench } from './demoBench';

const { opened, details } = sharedDemoBench();
const folder = mkdtempSync(join(tmpdir(), 'wendril-fonts-'));

const cast = (flavour: 'ttf' | 'otf') => {
  const font = castFont(buildStarter(), { flavour, master: 'm1' });
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
  await until('its glyphs', async () => /of 76 drawn/.test(await t.text('main, body')));
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
  await until('the refusal', async () => /letter\.otf: This is not an OpenType or TrueType font file/.test(await t.text('body')));
  await until('the card', async () => /now Velmarrow Sans Regular · weight 400/.test(await t.text('[data-testid="font-card"]')));
  const [family, style] = await browser.driver.findElements({ css: 'main input[type="text"]' });
  await family!.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Hamborn');
  await style!.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Bold');
  await until('the rule', async () => /Hamborn Bold\s+links as Hamborn Bold/.test(await t.text('[data-testid="font-card"]')));
  await t.press('Download the font');
  const done = await t.downloaded('Velmarrow.otf');
  expect(readFontFacts(readSfnt(new Uint8Array(done)))).toMatchObject({ family: 'Hamborn', style: 'Bold', postScriptName: 'Hamborn-Bold', weightClass: 700, isBold: true });
});
