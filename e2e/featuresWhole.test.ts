import { Key } from 'selenium-webdriver';
import { type Browser, type tester, until } from './browser';
import { sharedDemoBench } from './demoBench';

/** What the stage of features does over all sections at once. */

const { opened, script, undoAll, load } = sharedDemoBench();
let browser: Browser;
let t: ReturnType<typeof tester>;
beforeAll(() => {
  ({ browser, t } = opened());
});

const inCard = <T>(title: string, code: string): Promise<T> =>
  script<T>(
    `const card = [...document.querySelectorAll('[data-testid="section"]')].find((c) => c.getAttribute('aria-label') === arguments[0]); ${code}`,
    title,
  );
const pressIn = (title: string, label: string) =>
  inCard(title, `[...card.querySelectorAll('button')].find((b) => b.innerText.trim() === '${label}').click()`);
const openText = async (title: string) => {
  await inCard(title, `card.scrollIntoView({ block: 'nearest' })`);
  await pressIn(title, 'Text and trial');
  await until('the editor', () => inCard<boolean>(title, `return card?.querySelector('.cm-content') !== null`));
};
const editor = (title: string) => inCard<string>(title, `return card.querySelector('.cm-content').innerText`);
const write = async (title: string, text: string) => {
  await inCard(title, `card.querySelector('.cm-content').focus()`);
  await browser.driver.actions().keyDown(Key.CONTROL).sendKeys('a').keyUp(Key.CONTROL).perform();
  await browser.driver.actions().sendKeys(text).perform();
};
const newSection = async (text: string) => {
  await t.press('A section');
  await until('the new section', () => inCard<boolean>('My rules', 'return card !== undefined'));
  await openText('My rules');
  await write('My rules', text);
};
const shown = async () => {
  await load('features');
  await until('the sections', () => inCard<boolean>('Fractions', 'return card !== undefined'));
};
const key = (...keys: string[]) =>
  browser.driver
    .actions()
    .sendKeys(...keys)
    .perform();

test('one trial sets a text in two settings, keeps them with the project, and explains the second', async () => {
  await shown();
  await key('t');
  await t.fill('Text of the trial of all rules', 'missi 07:45', true);
  const lines = () =>
    script<string[]>(
      `return [...document.querySelectorAll('[aria-label="Trial of all rules"] [data-testid="trial-line"]')].map((l) => l.getAttribute('aria-label'))`,
    );
  const plain = 'm i s s i space zero seven colon four five';
  await until('two lines alike', async () => String(await lines()) === `Above: ${plain},Below: ${plain}`);
  await (await t.find('[aria-label="Features and language of the line below"]')).click();
  for (const tag of ['hist', 'hlig', 'ss04'])
    await script(
      `[...document.querySelectorAll('[aria-label="Features of the line below"] label')].find((l) => l.innerText.includes(arguments[0])).querySelector('input').click()`,
      tag,
    );
  await until(
    'the second line otherwise',
    async () => (await lines())[1] === 'Below: m i longs_longs i space zero seven colon.case four five',
  );
  await key(Key.ESCAPE);
  await until('the menu closed', () =>
    script<boolean>(`return document.querySelector('[aria-label="Features of the line below"]') === null`),
  );
  await t.saved();
  await browser.driver.navigate().refresh();
  await until(
    'the trial after a reload',
    async () => {
      if ((await lines()).length === 0)
        await script(`document.querySelector('[aria-label="Trial of all rules"] [aria-expanded="false"]')?.click()`);
      return /longs_longs/.test((await lines())[1] ?? '');
    },
    30,
  );
  await until('the rules in letters', async () => /5 ligatures/.test(await t.text('[data-testid="sections"]')));
  await script(
    `[...document.querySelectorAll('[aria-label="Trial of all rules"] button')].find((b) => b.innerText === 'Explain').click()`,
  );
  await until('what did it', async () =>
    /Long s of earlier spelling/.test(await t.text('[aria-label="What each lookup did"]')),
  );
  // Small capitals are off in this line, and their letters stand in it.
  await until('what did nothing', async () =>
    /smcp is off in this line; text uses it only when asked/.test(
      (await t.text('[aria-label="Rules that did nothing here"]')).replace(/\s+/g, ' '),
    ),
  );
  await undoAll();
});

test('a name is found in all sections, and a press goes to its place', async () => {
  await shown();
  await key('f');
  await key('longs_i');
  await until('one place', async () => /1 place/.test(await t.text('nav[aria-label="Sections"]')));
  await script(`document.querySelector('nav[aria-label="Sections"] ol button').click()`);
  await until('the editor at its place', () =>
    script<boolean>(
      `return getSelection().toString() === 'longs_i' && document.activeElement.classList.contains('cm-content')`,
    ),
  );
  await t.fill('Find in all rules', 'zzz', true);
  await until('nowhere', async () => /Nowhere in the rules/.test(await t.text('nav[aria-label="Sections"]')));
});

test('a section is tidied, cut in two at the cursor and joined again', async () => {
  await shown();
  await newSection('feature ss05 {sub a by b;} ss05;feature ss06 {sub c by d;} ss06;');
  await pressIn('My rules', 'Tidy the text');
  await until('one statement a line', async () =>
    /feature ss05 \{\n\s+sub a by b;\n\} ss05;\nfeature ss06/.test(await editor('My rules')),
  );
  await inCard('My rules', `card.querySelector('.cm-content').focus()`);
  await browser.driver.actions().keyDown(Key.CONTROL).sendKeys(Key.END).keyUp(Key.CONTROL).perform();
  await pressIn('My rules', 'Cut in two at the cursor');
  await until('two sections', () =>
    inCard<boolean>('My rules, second part', `return /ss06/.test(card?.innerText ?? '')`),
  );
  await pressIn('My rules', 'Join with the next');
  await until('one again', () => inCard<boolean>('My rules, second part', 'return card === undefined'));
  await until('both features in it', () => inCard<boolean>('My rules', `return /ss05 ss06/.test(card.innerText)`));
  await undoAll();
});

test('a language that loses all other features is asked about, and declared by a press', async () => {
  await shown();
  await newSection('feature locl {script latn; language TRK; sub i by dotlessi;} locl;');
  await until('the question', async () => /Text in TRK \(latn\) has no/.test(await t.text('aside')));
  await t.press('Declare it');
  await until('the languages, declared', () =>
    inCard<boolean>('Languages', `return /3 language systems/.test(card?.innerText ?? '')`),
  );
  await until('the question answered', async () => !/Text in TRK/.test(await t.text('aside')));
  await undoAll();
});

test('a text of very many letters is coloured where it is in sight, folds, and tells its faults at its end', async () => {
  await shown();
  const many = Array.from({ length: 3000 }, (_, i) => `# what a program wrote of glyph ${i}`);
  await newSection('#');
  await inCard(
    'My rules',
    `const [from, all] = [card.querySelector('.cm-content'), new DataTransfer()];
    all.setData('text/plain', ${JSON.stringify(['', ...many, 'feature ss09 {', '  sub n by o;', '} ss09;', ''].join('\n'))});
    from.dispatchEvent(new ClipboardEvent('paste', { clipboardData: all, bubbles: true, cancelable: true }));`,
  );
  const looks = (look: string) =>
    inCard<string[]>('My rules', `return [...card.querySelectorAll('.cm-content .${look}')].map((e) => e.innerText)`);
  const go = async (to: string) => {
    await inCard('My rules', `card.querySelector('.cm-content').focus()`);
    await browser.driver.actions().keyDown(Key.CONTROL).sendKeys(to).keyUp(Key.CONTROL).perform();
  };
  await go(Key.HOME);
  await until('comments alone, in their colour', async () => {
    const [comments, words] = await Promise.all([looks('italic'), looks('font-semibold')]);
    return comments.length > 5 && words.length === 0;
  });
  await go(Key.END);
  await until('words in their colour', async () => {
    const words = await looks('font-semibold');
    return ['feature', 'sub', 'by'].every((w) => words.includes(w));
  });
  await until('what folds', () =>
    inCard<boolean>('My rules', `return card.querySelector('[title="Fold line"]') !== null`),
  );
  // A gutter keeps a hidden sign that only gives it its width.
  const pressed = async (sign: string) =>
    t.click(
      `[data-testid="section"][aria-label="My rules"] .cm-gutterElement:not([style*="hidden"]) [title="${sign}"]`,
    );
  await pressed('Fold line');
  await until('the rule folded', async () => !(await editor('My rules')).includes('sub n by o'));
  await pressed('Unfold line');
  await until('the rule again', async () => (await editor('My rules')).includes('sub n by o'));
  await go(Key.END);
  await key('x');
  await until('its fault, at its line', () => inCard<boolean>('My rules', `return /Line 3005/.test(card.innerText)`));
  await t.saved();
  await undoAll();
});

test('what writes itself fits its column in a small window, buttons and all', async () => {
  await shown();
  const { driver } = browser;
  const before = await driver.manage().window().getRect();
  await driver.manage().window().setRect({ width: 1024, height: 840 });
  try {
    await inCard('Accents take the place of dots', `card.querySelector('[aria-label^="Take "]').click()`);
    const offered = `document.querySelector('[aria-label="Rules that write themselves"]')`;
    await until('what is offered', () =>
      script<boolean>(`return /Accents take the place of dots/.test(${offered}?.innerText ?? '')`),
    );
    const over = await script<number[]>(
      `const edge = ${offered}.getBoundingClientRect().right;
      return [...${offered}.querySelectorAll('li *')].map((e) => e.getBoundingClientRect().right - edge).filter((d) => d > 0.5);`,
    );
    expect(over).toEqual([]);
  } finally {
    await driver.manage().window().setRect(before);
  }
  await t.saved();
  await undoAll();
});
