import { Key } from 'selenium-webdriver';
import { type Browser, pointer, storedGlyph, type tester, until } from './browser';
import { sharedDemoBench } from './demoBench';

const { opened, go, load, undoAll, view } = sharedDemoBench();
let browser: Browser;
let t: ReturnType<typeof tester>;
beforeAll(() => {
  ({ browser, t } = opened());
});
const rows = () =>
  browser.driver.executeScript<string[]>(
    'return [...document.querySelectorAll("[data-testid=language]")].map((e) => e.innerText.replace(/\\s+/g, " "))',
  );

test('a language is found; what lacks is put together or added in one step; the rest is told', async () => {
  await go('plan');
  await t.press('Languages');
  await t.find('[data-testid="next-step"]');
  await t.fill('Find a language', 'Polish');
  await until('Polish alone', async () => (await rows()).length === 1);
  expect((await rows())[0]).toMatch(/^Polish polski 4\d million readers · Poland, .* all letters|complete/);
  await t.fill('Find a language', 'yoruba');
  await until('what Yoruba lacks', async () => /^Yoruba .*\d+ missing/.test((await rows())[0] ?? ''));
  const row = await t.find('[data-testid="language"]');
  await browser.driver.executeScript(
    'arguments[0].querySelectorAll("button").forEach((b) => /^Add \\d+$/.test(b.innerText) && b.click())',
    row,
  );
  await until('what was done, said', async () =>
    /Put \d+ letters together, made \d+ marks? (or|and) dotless letters?/.test(await t.text('body')),
  );
  // n with a grave accent stands of n and the grave, in all masters; the dot below is made of a dot.
  const made = await until('the letter stored', () => storedGlyph(browser.driver, 'velmarrow', 'uni01F9'));
  const drawings = Object.values(made.drawings) as { components: unknown[] }[];
  expect(drawings.map((d) => d.components.length)).toEqual([2, 2, 2, 2, 2, 2]);
  await until('all letters', async () => /complete|all letters/.test((await rows())[0] ?? ''));
  await t.press('Aim at Yoruba');
  await t.fill('Find a language', ' ');
  await t.press('Aimed at');
  await until(
    'the language aimed at',
    async () => (await rows()).length === 1 && (await rows())[0]!.startsWith('Yoruba'),
  );
  await undoAll();
  await until('none aimed at', async () => (await rows()).length === 0);
});

test('a list is pasted and kept with the project; what it lacks is added; sets tell what is drawn', async () => {
  await go('plan');
  await t.press('Sets and lists');
  const sets = () =>
    browser.driver.executeScript<string[]>(
      'return [...document.querySelectorAll("[data-testid=set]")].map((e) => e.innerText.replace(/\\s+/g, " "))',
    );
  await until('the sets', async () => (await sets()).some((s) => s === 'Basic Latin all 95 drawn'));
  expect((await sets()).filter((s) => s.startsWith('Windows 125'))).toHaveLength(9);
  await t.fill('Characters of a list', 'Orde ⇧ /orde.logo\nU+0200–U+0100');
  await until('the line that cannot be read', async () =>
    /Line 2: U\+0200–U\+0100 is not a range/.test(await t.text('body')),
  );
  await t.fill('Name of the list', 'Plaques');
  await t.press('Keep the list');
  await until('the list', async () => (await sets())[0]!.startsWith('Plaques 4 of 6 drawn'));
  await t.press('Add 2');
  await until('both there', async () => /2 glyphs are there, not drawn yet/.test((await sets())[0]!));
  await go('plan');
  await t.press('Sets and lists');
  await until('the list after a reload', async () => (await sets())[0]?.startsWith('Plaques 4 of 6 drawn'));
  await undoAll();
  await until('no list', async () => !(await sets())[0]!.startsWith('Plaques'));
});

test('an anchor is dragged on the sheet; the letters put together there follow in that master', async () => {
  await go('draw?glyph=e');
  await t.press('Parts');
  const anchors = () =>
    browser.driver.executeScript<string[][]>(
      'return [...document.querySelectorAll("[data-testid=anchor]")].map((r) => [...r.querySelectorAll("input")].map((i) => i.value))',
    );
  await until('the anchors', async () => (await anchors()).some(([name]) => name === 'top'));
  const [, x, y] = (await anchors()).find(([name]) => name === 'top')!.map(Number) as [number, number, number];
  const { px, py } = await view();
  const hand = pointer(browser.driver, await t.find('[data-testid="draw-canvas"]'));
  await hand.drag(px(x), py(y), px(x), py(y + 90));
  await until('the anchor higher', async () => Number((await anchors()).find(([name]) => name === 'top')![2]) > y + 60);
  const up = Number((await anchors()).find(([name]) => name === 'top')![2]) - y;
  expect(up).toBeGreaterThan(60);
  await t.fill('Name of a new anchor', 'centre', true);
  await until('a new anchor', async () => (await anchors()).some(([name]) => name === 'centre'));
  await t.press('Take the anchor centre away, in all masters');
  await until('none', async () => !(await anchors()).some(([name]) => name === 'centre'));
  await undoAll();
  await until('what followed, told', async () =>
    /Undone: Moved the anchor top in e, Regular; \d+ letters follow/.test(await t.text('body')),
  );
  await until('where it was', async () => Number((await anchors()).find(([name]) => name === 'top')![2]) === y);
});

test('compose: letters show how they stand; chosen ones, then all that can be, are built in one step', async () => {
  await go('compose');
  const states = () =>
    browser.driver.executeScript<Record<string, number>>(
      `const out = {};
      for (const b of document.querySelectorAll('main button[aria-pressed]')) {
        const [, n, what] = /^(\\d+) (.+)$/.exec(b.innerText) ?? [];
        if (n) out[what] = Number(n);
      }
      return out;`,
    );
  await until(
    'how letters stand',
    async () => (await states())['can be built'] !== undefined && (await states())['are built']! > 150,
  );
  const before = await states();
  const cell = await t.find('[data-testid="composed"][data-state="can"]');
  await cell.click();
  const field = (label: string) => t.attribute(`[aria-label="${label}"]`, 'value');
  await until('its recipe', async () => (await field('Base')) !== '' && /comb$/.test((await field('Part 1')) ?? ''));
  await t.press('Build it');
  await until('one more built', async () => (await states())['are built'] === before['are built']! + 1);
  await t.press(`Build all ${before['can be built']! - 1}`);
  await until(
    'all built',
    async () => (await states())['are built'] === before['are built']! + before['can be built']!,
  );
  await (await t.find('[data-testid="composed"][data-state="not"]')).click();
  await until('why it is not possible', async () =>
    /It is not possible yet\. \S+ is not drawn yet/.test((await t.text('[aria-label="Details"]')).replace(/\s+/g, ' ')),
  );
  await undoAll();
  await until('as it was', async () => (await states())['are built'] === before['are built']);
});

test('compose: a table walked by keys; a letter taken apart, made anew, and put together by a recipe of one’s own', async () => {
  await go('compose');
  const heading = () => t.text('[aria-label="Details"] h2');
  const keys = (...pressed: string[]) =>
    browser.driver
      .actions()
      .sendKeys(...pressed)
      .perform();
  await t.press('Bases by marks');
  const cell = await t.find('[aria-label^="Á is built"]');
  await cell.click();
  await until('the letter', async () => (await heading()) === 'Aacute');
  await keys(Key.ARROW_DOWN);
  await until('the next base with that mark', async () => (await heading()) === 'Cacute');
  await keys(Key.ARROW_UP);
  await browser.driver.actions().keyDown(Key.SHIFT).sendKeys(Key.ARROW_DOWN).keyUp(Key.SHIFT).perform();
  await until('all between', async () => /^\d+ letters$/.test(await heading()));
  await (await t.find('[aria-label^="Á is built"]')).click();
  await t.press('Take apart');
  await until('outlines', async () => /It is drawn by hand/.test(await t.text('[aria-label="Details"]')));
  await t.saved();
  await t.press('Make it anew by the recipe');
  await until('parts again', async () => /It is built/.test(await t.text('[aria-label="Details"]')));
  await t.fill('Part 1', 'gravecomb');
  await t.press('Keep this recipe');
  await until('another recipe', async () =>
    /not as its recipe would have it/.test(
      (await (await t.find('[aria-label^="Á is built"]')).getAttribute('aria-label')) ?? '',
    ),
  );
  await t.press('Make it anew by the recipe');
  await until('as the recipe says', async () => {
    const { drawings } = await storedGlyph(browser.driver, 'velmarrow', 'Aacute').then((g) => g!);
    const grave = await storedGlyph(browser.driver, 'velmarrow', 'gravecomb').then((g) => g!);
    return Object.values(drawings).every((d) => JSON.stringify(d.components).includes(grave.id));
  });
  await t.press('Back to that of its character');
  await undoAll();
});

test('names are found and replaced, shown before; what goes tells what becomes of the rest; what changed is asked for', async () => {
  await load('case?glyph=a');
  await t.find('[data-glyph="a"]');
  await browser.driver.actions().keyDown(Key.CONTROL).sendKeys('a').keyUp(Key.CONTROL).perform();
  await t.press('Names…');
  await t.fill('Find', '.ss0');
  await t.fill('Put in place', '.alt');
  const changes = () => t.text('[aria-label="Names that change"]');
  await until('the preview', async () => /a\.ss01\s*→\s*a\.alt1/.test(await changes()));
  await t.fill('Put in place', '!');
  await until('why not', async () => /role|name/i.test(await t.text('[role="dialog"] [role="alert"]')));
  await t.fill('Put in place', '.alt');
  await t.press('Rename 3 glyphs');
  await (await t.find('[aria-label="And of them"]')).click();
  await (await browser.driver.findElement({ xpath: '//*[@role="option"][contains(., "changed today")]' })).click();
  await until('the three that changed', async () => /3 shown/.test(await t.text('body')));
  await t.find('[data-glyph="a.alt1"]');
  await load('case?glyph=acutecomb');
  await t.press('Remove');
  await until('what becomes of it', async () => /lose a part|keep their look/.test(await t.text('[role="dialog"]')));
  await t.press('Keep');
  await undoAll();
});
