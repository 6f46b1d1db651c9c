import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { until } from './browser';
import { sharedDemoBench } from './demoBench';

/** Scripts: written with completion, looked at before they are run, taken in part, undone, lost by nothing. */
const { opened, script, go, details, number, undoAll } = sharedDemoBench();

const changes = () => script<number>(`return document.querySelectorAll('[data-testid="script-changes"] li').length`);
const came = () => script<string>(`return document.querySelector('[data-testid="script-came"]')?.innerText ?? ''`);
const written = () =>
  script<string>(`return [...document.querySelectorAll('.cm-line')].map((l) => l.innerText).join('\\n')`);
const alert = () =>
  script<string>(`return document.querySelector('main [role="alert"], [role="alert"]')?.innerText ?? ''`);
const misfits = () =>
  script<string>(`return document.querySelector('[data-testid="script-misfits"]')?.innerText ?? ''`);
const editor = () => opened().t.find('[aria-label="The script"]');
const write = async (text: string) => {
  const field = await editor();
  await field.click();
  await field.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.DELETE);
  // As text that is pasted: brackets are not closed by the editor meanwhile.
  await script(`document.execCommand('insertText', false, arguments[0])`, text);
};

test('a script is written with completion, faults stand at their lines, and a reload loses nothing', async () => {
  const { t } = opened();
  await go('scripts');
  await t.press('New');
  await until(
    'its form',
    async () => (await t.attribute('[aria-label="Name of the script"]', 'value')) === 'My script',
  );
  await write('font.');
  await (await editor()).sendKeys('unit');
  await until('completion', () =>
    script<boolean>(
      `return [...document.querySelectorAll('.cm-tooltip-autocomplete li')].some((l) => /unitsPerEm/.test(l.innerText))`,
    ),
  );
  await until('what it says of it', () =>
    script<boolean>(
      `return /Font units to the em/.test(document.querySelector('.cm-completionInfo')?.innerText ?? '')`,
    ),
  );
  await (await editor()).sendKeys(Key.ENTER);
  await until('it to be written', async () => (await written()) === 'font.unitsPerEm');
  // Every edit is offered, also of stages that were not opened yet.
  await write('edits.');
  await (await editor()).sendKeys('derive');
  await until('an edit', () =>
    script<boolean>(
      `return [...document.querySelectorAll('.cm-tooltip-autocomplete li')].some((l) => /deriveSet/.test(l.innerText))`,
    ),
  );
  await (await editor()).sendKeys(Key.ESCAPE);
  await write("edits.deriveSet({ set: 'keys' });\nedits.derive({});");
  await until('the name that there is not', async () => /Line 2 .*'derive' does not exist/.test(await misfits()), 60);
  await write('const a = 1;\nconst b = ;\n');
  await until('the fault', async () => /Line 2: It cannot be read/.test(await alert()));
  // What cannot be by its type is told before anything is run; a thing's own members are offered for it.
  await write("const d = font.glyph('n').drawing();\nd.left = 'wide';\nd");
  await until('what does not fit', async () => /Line 2 may not do what is meant/.test(await misfits()), 60);
  await (await editor()).sendKeys(Key.chord(Key.CONTROL, Key.END), '.a');
  await until('the members of a drawing', () =>
    script<boolean>(
      `const names = [...document.querySelectorAll('.cm-tooltip-autocomplete li')].map((l) => l.innerText);
      return names.some((n) => /^advance/.test(n)) && !names.some((n) => /axes/.test(n));`,
    ),
  );
  await (await editor()).sendKeys(Key.ESCAPE, Key.chord(Key.CONTROL, 'a'), Key.DELETE, 'font.glyph(');
  await until('the call', () =>
    script<boolean>(
      `return [...document.querySelectorAll('.cm-tooltip')].some((l) => /which: string/.test(l.innerText))`,
    ),
  );
  await write(
    "const { by } = ask({ by: { label: 'Wider by', number: 8, least: 1, most: 40 } });\nfor (const g of chosen.slice(0, 40)) for (const m of masters) g.drawing(m).advance += by;\nsay('done by', by);",
  );
  await until('what it asks for', async () => /Wider by/.test(await details()));
  await opened().browser.driver.navigate().refresh();
  await until('it to be as it was', async () => /Wider by/.test(await written()), 30);
  expect(await t.attribute('[aria-label="Name of the script"]', 'value')).toBe('My script');
});

test('a preview changes nothing and shows what would; half of it is taken; undo takes it back', async () => {
  const { t } = opened();
  await until('what it asks for', async () => /Wider by/.test(await details()));
  await t.fill('Wider by', '20', true);
  await t.press('Preview');
  await until('the glyphs before and after', async () => (await changes()) > 20, 60);
  expect(await came()).toMatch(/done by 20/);
  expect(await came()).toMatch(/wide \d+ → \d+/);
  expect(await script<boolean>(`return document.querySelector('button[aria-label="Undo"]').disabled`)).toBe(true);
  await script(`document.querySelector('[aria-label="Take b"]').click()`);
  await t.press('Take what is ticked');
  await until('the step', () =>
    script<boolean>(`return !document.querySelector('button[aria-label="Undo"]').disabled`),
  );
  await t.saved();
  const advance = async (name: string) => {
    await go(`fit?glyph=${name}`);
    return until('its advance', async () => (await number('Advance')) || undefined);
  };
  const [a, b] = [await advance('a'), await advance('b')];
  await undoAll();
  expect([await advance('a'), await advance('b')]).toEqual([a - 20, b]);
});

test('what changes beside glyphs is told as values before it is taken', async () => {
  const { t } = opened();
  await go('scripts');
  const was = await until('what was written', async () => /Wider by/.test(await written()) && written());
  await write(
    "for (const m of masters.slice(0, 2)) edits.setPair({ master: m, first: { kind: 'glyph', id: font.glyph('H') }, second: { kind: 'glyph', id: font.glyph('O') }, value: -33 });",
  );
  await t.press('Preview');
  await until('the values', async () =>
    /Light: H O\s+–\s+−33\s+Regular: H O\s+–\s+−33/.test(
      await script<string>(`return document.querySelector('[data-testid="script-values"]')?.innerText ?? ''`),
    ),
  );
  await write(was);
});

test('a script is kept with the project, found in the palette with those that come with Wendril, and stopped when it does not end', async () => {
  const { t } = opened();
  await go('scripts');
  await t.press('Keep it');
  await until('it to be kept', async () => !/not kept with the project yet/.test(await t.text('main')));
  // It has a key, and stands in the palette by its name.
  await t.pick('Key that runs it', 'Alt Shift 3');
  await t.chord([Key.ALT, Key.SHIFT], '3');
  // The notice goes by itself; what Undo takes back stays.
  await until(
    'it to have run',
    async () =>
      /Undo: Script “My script”: \d+ glyphs changed/.test(
        (await t.attribute('button[aria-label="Undo"]', 'data-tip')) ?? '',
      ),
    60,
  );
  await t.press('Undo');
  await t.chord(Key.CONTROL, 'k');
  await t.keys('my script');
  await until('it in the palette', () =>
    script<boolean>(
      `return [...document.querySelectorAll('[role="option"]')].some((o) => o.innerText === 'My script')`,
    ),
  );
  await t.keys(Key.ESCAPE);
  await write('for (;;) {}');
  await t.press('Run');
  await t.press('Stop');
  await t.gone('[role="progressbar"]');
  expect(
    await script<boolean>(
      `return [...document.querySelectorAll('button')].some((b) => b.innerText === 'Preview' && !b.disabled)`,
    ),
  ).toBe(true);
  await t.press('Back to what was kept');
  await until('it to be as it was kept', async () => /Wider by/.test(await written()));
  await t.chord(Key.CONTROL, 'k');
  await t.keys('clean-up');
  await until('it in the palette', () =>
    script<boolean>(
      `return [...document.querySelectorAll('[role="option"]')].some((o) => /Script: Clean-up chain/.test(o.innerText))`,
    ),
  );
  await t.keys(Key.ENTER);
  await until('it to be open', async () => /^Clean-up chain/.test(await details()));
  await t.press('Stems over all masters');
  await t.press('Preview');
  await until(
    'a chart and a table',
    () =>
      script<boolean>(
        `return !!document.querySelector('[data-testid="reports"] figure svg') && !!document.querySelector('[data-testid="reports"] table')`,
      ),
    60,
  );
  expect(await came()).toMatch(/It changes nothing\./);
  await undoAll();
  await t.saved();
});

test('a script is opened by its address', async () => {
  await opened().browser.driver.get(`${opened().server.url}/p/velmarrow/scripts?script=proofTexts`);
  await until('the script', async () => /^Spacing and kerning proofs/.test(await details()));
});

test('a file is brought in; what it does wrong is told with its line, and nothing is changed', async () => {
  const { t } = opened();
  const file = join(mkdtempSync(join(tmpdir(), 'wendril-script-')), 'broken.js');
  writeFileSync(file, "font.glyph('n').drawing().advance = 5;\nfont.glyph('nobody');\n");
  await (await t.find('[data-testid="open-script"]')).sendKeys(file);
  await until(
    'it to be open',
    async () => (await t.attribute('[aria-label="Name of the script"]', 'value')) === 'broken',
  );
  await t.press('Run');
  await until('its fault', async () => /Line 2: There is no glyph “nobody”\./.test(await alert()), 30);
  expect(await script<boolean>(`return document.querySelector('button[aria-label="Undo"]').disabled`)).toBe(true);
  await t.press('Remove');
  await until('it to be gone', async () => !/broken/.test(await t.text('[aria-label="Of this project"]')));
});
