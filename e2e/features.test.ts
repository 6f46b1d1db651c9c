import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { readyDemo } from '../demo/ready';
import { castFont } from '../src/core/casting/font';
import { type Browser, type tester, until } from './browser';
import { sharedDemoBench } from './demoBench';

const { opened, go, undoAll } = sharedDemoBench();
let browser: Browser;
let t: ReturnType<typeof tester>;
beforeAll(() => {
  ({ browser, t } = opened());
});

const folder = mkdtempSync(join(tmpdir(), 'wendril-features-'));
/** Runs in the page with the card of a section as its first argument. */
const inCard = <T>(title: string, code: string): Promise<T> =>
  browser.driver.executeScript<T>(
    `const card = [...document.querySelectorAll('[data-testid="section"]')].find((c) => c.getAttribute('aria-label') === arguments[0]); ${code}`,
    title,
  );
const openText = (title: string) =>
  inCard(
    title,
    `card.scrollIntoView({ block: 'nearest' }); [...card.querySelectorAll('button')].find((b) => /Text and trial/.test(b.innerText)).click()`,
  );
const trial = (title: string) =>
  inCard<string[]>(
    title,
    `return [...card.querySelectorAll('[data-testid="trial-line"]')].map((l) => l.getAttribute('aria-label'))`,
  );
const write = async (title: string, text: string) => {
  await until('the editor', () => inCard<boolean>(title, `return card?.querySelector('.cm-content') !== null`));
  await inCard(title, `card.querySelector('.cm-content').focus()`);
  await browser.driver.actions().keyDown(Key.CONTROL).sendKeys('a').keyUp(Key.CONTROL).perform();
  await browser.driver.actions().sendKeys(text).perform();
};

test('rules are shown in letters and tried; one written by hand is told its fault at its line, mended, and works', async () => {
  await go('features');
  await until('the rules in letters', async () => /5 ligatures/.test(await t.text('[data-testid="sections"]')));
  await openText('Ligatures');
  await until('both lines', async () => (await trial('Ligatures')).length === 2);
  await until('without and with', async () => {
    const [without, withIt] = await trial('Ligatures');
    return /^Without: f f i /.test(without!) && /^With: f_f_i /.test(withIt!);
  });
  await openText('Ligatures');
  await t.press('A section');
  await until('the new section', () => inCard<boolean>('My rules', 'return card !== undefined'));
  await openText('My rules');
  // Brackets and indentation are the writer's own here: the editor closes none by itself.
  await write('My rules', "feature calt {sub [a e]' [n r] by ae.zz;} calt;");
  await until('the fault, at its line', () =>
    inCard<boolean>('My rules', `return /Line 1: Glyph ae\\.zz is not in the project/.test(card.innerText)`),
  );
  await write('My rules', "feature calt {sub a' [n r] by a.ss01;} calt;");
  await until('no fault', () => inCard<boolean>('My rules', `return !/Line 1/.test(card.innerText)`));
  await until('the rule at work in its context only', async () => {
    const [without, withIt] = await trial('My rules');
    return /^Without: a n$/.test(without ?? '') && /^With: a\.ss01 n$/.test(withIt ?? '');
  });
  // A rule of one language is tried in it.
  await write('My rules', 'feature locl {script latn; language TRK; sub a by a.ss01;} locl;');
  const withIt = async () => (await trial('My rules'))[1];
  await until('the language of the rule', async () => (await withIt()) === 'With: a.ss01');
  await t.pick('Language of the trial', 'No language in particular');
  await until('text of no language', async () => (await withIt()) === 'With: a');
  // A class is renamed wherever it stands; what a lookup did leads to its line.
  await write(
    'My rules',
    '@Round = [c e]; lookup rounds {sub @Round by o;} rounds; feature ss06 {lookup rounds;} ss06;',
  );
  await until('the rule by a class', async () => (await withIt()) === 'With: o o');
  await browser.driver.actions().keyDown(Key.CONTROL).sendKeys(Key.HOME).keyUp(Key.CONTROL).perform();
  await until('the class under the cursor', () =>
    inCard<boolean>('My rules', `return /class of My rules, line 1, used in 1 place/.test(card.innerText)`),
  );
  await t.press('Rename…');
  await t.fill('New name of @Round', '@Bowls');
  await t.press('Rename in 2 places');
  await until('the new name in both places', () =>
    inCard<boolean>(
      'My rules',
      `return /^@Bowls = .*sub @Bowls by/.test(card.querySelector('.cm-content').innerText) && /@Bowls/.test(card.querySelector('section').innerText)`,
    ),
  );
  await t.press('Explain');
  await until('what the lookup did', () =>
    inCard<boolean>(
      'My rules',
      `const way = [...card.querySelectorAll('ol button')].find((b) => b.innerText === 'My rules, line 1 (rounds)'); way?.click(); return way !== undefined`,
    ),
  );
  await until('the line that did it', () =>
    inCard<boolean>('My rules', `return card.querySelector('.cm-editor').classList.contains('cm-focused')`),
  );
  await t.saved();
  await undoAll();
});

test('what writes itself becomes one’s own by typing, and is given back; a file is merged, what differs by choice', async () => {
  await go('features');
  await until('the sections', () => inCard<boolean>('Fractions', 'return card !== undefined'));
  await openText('Fractions');
  await write('Fractions', 'feature frac {sub slash by fraction;} frac;');
  await until('by hand', () => inCard<boolean>('Fractions', 'return /by hand/.test(card.innerText)'));
  await until('the way back', () => inCard<boolean>('Fractions', 'return /Let it write itself/.test(card.innerText)'));
  await inCard(
    'Fractions',
    `[...card.querySelectorAll('button')].find((b) => b.innerText === 'Let it write itself').click()`,
  );
  await until('itself again', () =>
    inCard<boolean>(
      'Fractions',
      `return /writes itself/.test(card.innerText) && /fracDenominators/.test(card.querySelector('.cm-content')?.innerText ?? '')`,
    ),
  );
  const file = join(folder, 'more.fea');
  writeFileSync(
    file,
    '@Round = [o c e];\n\n# mine\nfeature ss05 {\n  sub @Round by o;\n} ss05;\n\nfeature ss01 { sub a by o; } ss01;\n\nfeature ss02 { featureNames { name "Level-tailed g"; }; sub g by g.ss02; } ss02;\n',
  );
  await (await t.find('[data-testid="feature-file"]')).sendKeys(file);
  await until('both sides of what differs', async () => {
    const said = await t.text('[role="dialog"]');
    return (
      /The project’s[\s\S]*sub a by a\.ss01[\s\S]*The file’s[\s\S]*sub a by o/.test(said) && /Class @Round/.test(said)
    );
  });
  await browser.driver.executeScript(
    `[...document.querySelectorAll('[role="dialog"] fieldset')].find((f) => /sub a by o/.test(f.innerText)).querySelectorAll('input')[1].click()`,
  );
  await browser.driver.executeScript(
    `[...document.querySelectorAll('[role="dialog"] button')].find((b) => /^Take/.test(b.innerText)).click()`,
  );
  await until('what is new, as a section', () =>
    inCard<boolean>('Stylistic set 5', `return /3 glyphs get another form/.test(card?.innerText ?? '')`),
  );
  await openText('Round a');
  await until('the file’s own text in its place', () =>
    inCard<boolean>('Round a', `return /sub a by o/.test(card.querySelector('.cm-content')?.innerText ?? '')`),
  );
  const wrong = join(folder, 'letter.fea');
  writeFileSync(wrong, 'Dear Sir');
  await (await t.find('[data-testid="feature-file"]')).sendKeys(wrong);
  await until('the refusal', async () =>
    /letter\.fea has no feature, lookup or class in it\./.test(await t.text('body')),
  );
  await undoAll();
});

test('a form is left out of a rule that writes itself by a press, with the keyboard too, and taken back', async () => {
  await go('features');
  const title = 'Small capitals';
  await until('the section', () =>
    inCard<boolean>(title, 'return /Which glyphs take part: all [0-9]+/.test(card?.innerText)'),
  );
  await inCard(title, `[...card.querySelectorAll('button')].find((b) => /Which glyphs/.test(b.innerText)).click()`);
  await inCard(title, `card.querySelectorAll('[aria-label="Glyphs that take part"] button')[1].focus()`);
  await browser.driver.actions().sendKeys(Key.SPACE).perform();
  await until('one is out', () => inCard<boolean>(title, 'return /take part: [0-9]+ of [0-9]+/.test(card.innerText)'));
  const rules = `return [...card.querySelectorAll('[aria-label="Rules in letters"] .sr-only')].map((r) => r.textContent)`;
  await until('the rule is gone', async () => !(await inCard<string[]>(title, rules)).includes('b becomes b.sc'));
  await inCard(title, `[...card.querySelectorAll('button')].find((b) => /^All take part/.test(b.innerText)).click()`);
  await until('all again', () => inCard<boolean>(title, 'return /take part: all [0-9]+/.test(card.innerText)'));
  await until('the rule is back', async () => (await inCard<string[]>(title, rules)).includes('b becomes b.sc'));
  await undoAll();
});

test('the galley sets features, as text would have them or otherwise', async () => {
  await go('features');
  await (await t.find('[aria-label="Features and language of the galley"]')).click();
  await t.find('[aria-label="Features of the galley"]');
  const glyphs = async () => t.attribute('[data-testid="galley-line"]', 'data-glyphs');
  await until('a line set', async () => Number(await glyphs()) > 0);
  const before = await glyphs();
  await browser.driver.executeScript(
    `[...document.querySelectorAll('[aria-label="Features of the galley"] label')].find((l) => /liga/.test(l.innerText)).querySelector('input').click()`,
  );
  // Griffin has a ligature less.
  await until('the letters apart', async () => Number(await glyphs()) > Number(before));
  await until('what is set', async () => /features 1/.test(await t.text('body')));
  await t.fill('Language of the text', 'tr');
  await until('the language too', async () => /features 2/.test(await t.text('body')));
  await t.press('As text would have it');
  await until('as before', async () => (await glyphs()) === before);
});

test('the substitutions of an opened font become rules, and the font works as before', async () => {
  const { server } = opened();
  const font = castFont(readyDemo(), { flavour: 'ttf', place: { master: 'm1' }, keepOverlaps: true, blanks: true });
  if (!font.ok) throw new Error(font.reason);
  const file = join(folder, 'Opened.ttf');
  writeFileSync(file, font.value.bytes);
  await browser.driver.get(server.url);
  await (await t.find('[data-testid="open-file"]')).sendKeys(file);
  await until('the word about them', async () => /in Features they become rules/.test(await t.text('[role="dialog"]')));
  await t.press('To its case');
  await until('the case', async () => /\/case/.test(await browser.driver.getCurrentUrl()));
  await browser.driver.get((await browser.driver.getCurrentUrl()).replace(/\/case.*/, '/features'));
  await t.press('Turn them into rules');
  await until('the rules', async () => /5 ligatures/.test(await t.text('[data-testid="sections"]')));
  expect(await browser.driver.findElements({ css: '[data-testid="sections"] [role="alert"]' })).toEqual([]);
  await t.fill('Text of the galley', 'offi', true);
  await until(
    'o and one ligature',
    async () => (await t.attribute('[data-testid="galley-line"]', 'data-glyphs')) === '2',
  );
});
