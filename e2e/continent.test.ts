import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readyDemo } from '../demo/ready';
import { writeProjectFile } from '../src/core/formats/project/projectFile';
import { nameForCodePoint } from '../src/core/project/glyphNames';
import { alphabetOf } from '../src/core/testing/alphabet';
import { pointer, until } from './browser';
import { sharedDemoBench } from './demoBench';

const { opened, view } = sharedDemoBench();

/** The alphabet, figures, and nine spacing accents with the comma, in one master. */
function beginning() {
  const demo = readyDemo();
  const plain = alphabetOf(demo, '.,’´`ˆ˜¨˚ˇ˘¸˙˛');
  return {
    ...plain,
    family: { ...plain.family, name: 'Orde Plain' },
    masters: plain.masters.filter((m) => m.id === 'm1'),
    instances: [],
    axes: [],
    settings: { ...plain.settings, languages: [], lists: [] },
    glyphs: Object.fromEntries(
      Object.entries(plain.glyphs).map(([id, g]) => [id, { ...g, drawings: { m1: g.drawings.m1! } }]),
    ),
  };
}

test('from the alphabet and its accents to Polish, Czech, Turkish and Vietnamese, counted in gestures', async () => {
  const { server, browser, t } = opened();
  const { driver } = browser;
  let gestures = 0;
  const press = (text: string) => {
    gestures++;
    return t.press(text);
  };
  const fill = (label: string, text: string, enter = false) => {
    gestures++;
    return t.fill(label, text, enter);
  };
  const file = join(mkdtempSync(join(tmpdir(), 'wendril-continent-')), 'plain.wendril');
  writeFileSync(file, writeProjectFile(beginning()));
  const began = Date.now();
  await driver.get(server.url);
  await (await t.find('[data-testid="open-file"]')).sendKeys(file);
  await until('the project', async () => /\/p\/[^/]+\//.test(await driver.getCurrentUrl()));
  const base = /(.*\/p\/[^/]+)\//.exec(await driver.getCurrentUrl())![1]!;
  await driver.get(`${base}/plan`);
  await press('Languages');
  for (const language of ['Polish', 'Czech', 'Turkish', 'Vietnamese']) {
    await fill('Find a language', language);
    await t.find(`[aria-label="Aim at ${language}"]`);
    await press(`Aim at ${language}`);
  }
  await driver.get(`${base}/compose`);
  await t.find('[data-testid="composed"]');
  await until('the work in its order', async () =>
    /Make \d/.test(await t.text('[aria-label="The work in its order"]')),
  );
  const count = async (what: string) => {
    const all = await driver.executeScript<string[]>(
      'return [...document.querySelectorAll("main button[aria-pressed]")].map((b) => b.innerText)',
    );
    return Number(all.find((b) => b.endsWith(what))?.split(' ')[0] ?? -1);
  };
  await until('what can be built', async () => (await count('can be built')) > 40);
  const can = await count('can be built');
  await press(`Build all ${can}`);
  await until('all built', async () => (await count('are built')) >= can);
  // What is left waits for two marks that are drawn: the hook above, and the horn.
  const left = await count('are not possible yet');
  expect(left).toBeGreaterThan(20);
  await driver.get(`${base}/case`);
  await fill('Glyphs to add', 'U+0309 U+031B łŁđĐ');
  await press('Add');
  // The next page is another one: it would ask whether to leave what is not stored yet.
  await t.saved();
  const draw = async (name: string, part: string | undefined, [x0, y0, x1, y1]: readonly number[]) => {
    await driver.get(`${base}/draw?glyph=${name}`);
    await t.find('[data-testid="draw-canvas"]');
    if (part) {
      await press('Parts');
      await fill('Glyph to place', part, true);
    }
    await press('Box');
    const v = await view();
    const hand = pointer(driver, await t.find('[data-testid="draw-canvas"]'));
    gestures++;
    await hand.drag(v.px(x0!), v.py(y0!), v.px(x1!), v.py(y1!));
    await until(`${name} drawn`, async () =>
      driver.executeScript<boolean>('return document.querySelector(\'button[aria-label="Undo"]\')?.disabled === false'),
    );
    await t.saved();
  };
  await draw(nameForCodePoint(0x309), undefined, [150, 570, 230, 700]);
  await draw(nameForCodePoint(0x31b), undefined, [250, 440, 330, 560]);
  await draw('lslash', 'l', [20, 300, 220, 360]);
  await draw('Lslash', 'L', [20, 300, 220, 360]);
  await draw('dcroat', 'd', [250, 590, 430, 640]);
  await draw('Dcroat', 'D', [20, 330, 260, 390]);
  await driver.get(`${base}/compose`);
  await until('the horn and the hook on letters', async () => (await count('can be built')) > 20);
  await press(`Build all ${await count('can be built')}`);
  await until(
    'nothing left',
    async () => (await count('can be built')) === 0 && (await count('are not possible yet')) === 0,
  );
  await driver.get(`${base}/plan`);
  await press('Languages');
  await press('Aimed at');
  const rows = () =>
    driver.executeScript<string[]>(
      'return [...document.querySelectorAll("[data-testid=language]")].map((e) => e.innerText.replace(/\\s+/g, " "))',
    );
  await until('all four written', async () => {
    const all = await rows();
    return all.length === 4 && all.every((r) => /complete|all letters/.test(r));
  });
  const seconds = Math.round((Date.now() - began) / 1000);
  process.stdout.write(`alphabet to four languages: ${gestures} gestures, ${seconds} s by script\n`);
  expect(gestures).toBeLessThan(50);
});
