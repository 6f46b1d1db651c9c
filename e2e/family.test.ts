import { type Browser, type tester, until } from './browser';
import { sharedDemoBench } from './demoBench';

/** What is seen of a family while one letter of it is worked on: another place, the partner, a blend. */
const { opened, script, check, undoAll, load } = sharedDemoBench();
let browser: Browser;
let t: ReturnType<typeof tester>;
beforeAll(() => {
  ({ browser, t } = opened());
});
const line = (what: string) => async () => Number(await t.attribute('[data-testid="galley-line"]', what));
const pressed = (text: string) =>
  script<boolean>(
    `const b = [...document.querySelectorAll('aside button')].find((b) => b.innerText.trim() === arguments[0]);
     b?.scrollIntoView({ block: 'center' }); b?.click(); return b !== undefined`,
    text,
  );
const to = (stage: string) => script(`document.querySelector('nav a[href*="/${stage}"]').click()`);

test('a place is kept in sight in the galley, in Fit and in Kern, until it is let go', async () => {
  await load('masters');
  await until('an instance', () => pressed('Narrow Bold'));
  await until('its button', () => pressed('Keep Narrow Bold'));
  await until('a second line', async () => (await line('data-second')()) > 0);
  const [first, second] = [await line('data-width')(), await line('data-second')()];
  expect(first).toBe(second);
  await to('fit');
  // Elsewhere the first line is the master that is worked on again.
  await until(
    'the master and the place',
    async () => (await line('data-width')()) > (await line('data-second')()) + 100,
  );
  await until('told in numbers', async () =>
    /^At weight 700, width 75: left [\d.]+, right [\d.]+, advance \d+/.test(
      await t.text('[data-testid="sides-in-sight"]'),
    ),
  );
  await to('kern');
  await until(
    'words there',
    async () => Number(await t.attribute('[data-testid="kern-words-in-sight"]', 'data-width')) > 0,
  );
  expect(await t.attribute('[data-testid="kern-words-in-sight"]', 'aria-label')).toBe(
    await t.attribute('[data-testid="kern-words"]', 'aria-label'),
  );
  await script(`document.querySelector('[aria-label="Let this place go"]').click()`);
  await until('gone', async () => (await t.attribute('[data-testid="galley-line"]', 'data-second')) === '');
  expect(await script<number>(`return document.querySelectorAll('[data-testid="watched"]').length`)).toBe(0);
});

test('one key goes to the same letter of the partner and back; both are set in one galley', async () => {
  await load('draw?glyph=g');
  await script(`document.querySelector('[role="radio"][aria-label="Heavy"]').click()`);
  await until('the heavy', () =>
    script<boolean>(`return document.querySelector('[role="radio"][aria-label="Heavy"]').ariaChecked === 'true'`),
  );
  await browser.driver.actions().sendKeys('y').perform();
  await until('the italic', async () =>
    (await browser.driver.getCurrentUrl()).includes('/p/velmarrow-italic/draw?glyph=g'),
  );
  await until('its heavy', () =>
    script<boolean>(
      `return document.querySelector('[role="radio"][aria-label="Heavy Italic"]')?.ariaChecked === 'true'`,
    ),
  );
  await until('a line in italic', async () => (await line('data-glyphs')()) > 0);
  await browser.driver.actions().sendKeys('y').perform();
  await until('the roman again', async () =>
    (await browser.driver.getCurrentUrl()).includes('/p/velmarrow/draw?glyph=g'),
  );
  await until('in the heavy', () =>
    script<boolean>(`return document.querySelector('[role="radio"][aria-label="Heavy"]')?.ariaChecked === 'true'`),
  );
  await to('masters');
  await until('what is told of it', async () =>
    /359 glyphs there, 665 here/.test(await t.text('[data-testid="partner-told"]')),
  );
  await script(`document.querySelector('[aria-label="A line of the galley"]').click()`);
  await until('its line', async () => (await line('data-partner')()) > 0);
  await script(`document.querySelector('[aria-label="A line of the galley"]').click()`);
  await until('one line', async () => (await t.attribute('[data-testid="galley-line"]', 'data-partner')) === '');
});

test('both are cast together, the partner in the masters at the same places', async () => {
  await load('cast');
  for (const label of ['TrueType', 'WOFF2', 'Velmarrow Sans Italic too']) await check(label);
  await until('the button', () =>
    script<boolean>(
      `const b = [...document.querySelectorAll('main button')].find((b) => /^Cast 1 file and the partner/.test(b.innerText)); b?.click(); return b !== undefined`,
    ),
  );
  const files = () =>
    script<string[]>(`return [...document.querySelectorAll('[data-file]')].map((f) => f.dataset.file)`);
  await until('two files', async () => (await files()).length === 2, 60);
  expect(await files()).toEqual(['VelmarrowSans-Regular.otf', 'VelmarrowSans-Italic.otf']);
  expect(await t.text('body')).not.toMatch(/✕/);
});

test('the family is blended with another project along an axis of its own; Undo takes it back', async () => {
  await load('masters');
  await until('the way in', () => pressed('Choose the font…'));
  await t.pick('A project of this browser', 'Velmarrow Sans Italic');
  await until(
    'what matches',
    async () => /Velmarrow Sans, Italic: 359 glyphs known, 359 by name/.test(await t.text('[data-testid="taken"]')),
    60,
  );
  await until('blended', () => pressed('Blend with it'));
  await until('a seventh master', async () => (await t.text('body')).includes('7 masters'));
  expect(await t.text('body')).toMatch(/3 axes/);
  await t.saved();
  await undoAll();
  await until('as before', async () => (await t.text('body')).includes('6 masters'));
});

test('an axis of single values keeps what lies on each apart', async () => {
  await load('masters');
  await until('its map and names', () =>
    script<boolean>(
      `const b = [...document.querySelectorAll('aside button')].filter((b) => /Map, names, stops/.test(b.innerText))[1]; b?.click(); return b !== undefined`,
    ),
  );
  await until('the field', () =>
    script<boolean>(`return document.querySelector('[aria-label="Single values of Width"]') !== null`),
  );
  await t.fill('Single values of Width', '75, 90', true);
  await script(`document.activeElement.blur()`);
  await until('refused in words', async () => /100 is not among them/.test(await t.text('body')));
  await t.fill('Single values of Width', '75 100', true);
  await script(`document.activeElement.blur()`);
  await until('taken', () =>
    script<boolean>(`return document.querySelector('[aria-label="Single values of Width"]').value === '75, 100'`),
  );
  await t.saved();
  await undoAll();
});

test('the family is cast as one font that varies and as an instance; the test page moves along its axes', async () => {
  await load('cast');
  await t.pick('Casting list', 'As one font');
  for (const label of ['TrueType', 'Narrow Bold']) await check(label);
  await script(
    `const all = [...document.querySelectorAll('aside section')].find((s) => s.querySelector('h3')?.textContent === 'Masters');
     [...all.querySelectorAll('label')].find((l) => l.textContent.trim() === 'Regular').click()`,
  );
  await until('the button', () =>
    script<boolean>(
      `const b = [...document.querySelectorAll('main button')].find((b) => b.innerText === 'Cast 3 files'); b?.click(); return b !== undefined`,
    ),
  );
  const files = () =>
    script<string[]>(`return [...document.querySelectorAll('[data-file]')].map((f) => f.dataset.file)`);
  await until('three files', async () => (await files()).length === 3, 60);
  expect(await files()).toEqual([
    'VelmarrowSans-Regular.woff2',
    'VelmarrowSans-NarrowBold.woff2',
    'VelmarrowSans-Variable.woff2',
  ]);
  expect(await t.text('main')).not.toMatch(/✕/);
  expect(await t.text('[data-testid="style-sheet"]')).toMatch(
    /font-family: 'Velmarrow Sans Variable';[^}]*font-weight: 300 800;\s*font-stretch: 75% 100%;/,
  );
  /** How wide the browser sets a word in the font of the test page, as it stands there. */
  const width = () =>
    script<number>(
      `const page = document.querySelector('[data-testid="test-page"]');
       if (!page) return 0;
       const { fontFamily, fontVariationSettings } = getComputedStyle(page.querySelector('textarea'));
       const span = document.createElement('span');
       Object.assign(span.style, { fontFamily, fontVariationSettings, fontSize: '1000px', position: 'absolute', whiteSpace: 'nowrap' });
       span.textContent = 'n';
       document.body.append(span);
       const { width } = span.getBoundingClientRect();
       span.remove();
       return width;`,
    );
  await until('the variable font', async () => Math.abs((await width()) - 546) < 0.6);
  await t.pick('Instance of the test page', 'Narrow Heavy');
  await until('another width', async () => Math.abs((await width()) - 546) > 20);
  const narrow = await width();
  await script(`document.querySelector('[data-testid="test-axes"] [role="slider"][aria-label="Weight"]').focus()`);
  await browser.driver.actions().sendKeys('\uE011').perform();
  await until('lighter', async () => Math.abs((await width()) - narrow) > 20);
  expect(await t.text('[data-testid="test-axes"]')).toMatch(/Narrow Light/);
});
