import { Key } from 'selenium-webdriver';
import { pointer, until } from './browser';
import { type DemoBench, sharedDemoBench } from './demoBench';

const { opened, go, load, details, undoAll, value, number, script } = sharedDemoBench();
let browser: DemoBench['browser'];
let t: DemoBench['t'];
beforeAll(() => {
  ({ browser, t } = opened());
});

const says = (what: string, text: string) => until(what, async () => (await details()).includes(text));
const shows = (name: string) => until(`${name} in the details`, async () => (await details()).startsWith(`${name}\n`));
/** Nothing has the keys, so that they go to the stage. */
const free = () => browser.driver.executeScript('document.activeElement?.blur()');

test('fit: the controls of an alphabet are set by keys alone, one, five and ten units at a time', async () => {
  for (const [name, keys] of [
    ['n', { left: 3, right: 2 }],
    ['o', { left: 5, right: -1 }],
    ['H', { left: 10, right: 10 }],
    ['O', { left: -2, right: 5 }],
  ] as const) {
    await go(`fit?glyph=${name}`);
    await shows(name);
    const [left, right] = [await number('Left'), await number('Right')];
    await free();
    const step = async (side: 'left' | 'right', by: number) => {
      const held: string[] = side === 'right' ? [Key.ALT] : [];
      let rest = Math.abs(by);
      for (const [size, modifier] of [
        [10, Key.SHIFT],
        [5, Key.CONTROL],
        [1, ''],
      ] as const) {
        for (; rest >= size; rest -= size)
          await t.chord([...held, ...(modifier ? [modifier] : [])], by > 0 ? Key.ARROW_RIGHT : Key.ARROW_LEFT);
      }
    };
    await step('left', keys.left);
    await step('right', keys.right);
    await until(
      `the sides of ${name}`,
      async () => (await number('Left')) === left + keys.left && (await number('Right')) === right + keys.right,
    );
    // Both sides together.
    await t.keys(Key.ARROW_UP);
    await until(
      'both a unit more',
      async () => (await number('Left')) === left + keys.left + 1 && (await number('Right')) === right + keys.right + 1,
    );
    // One against the other: the letter moves within its width.
    await t.chord(Key.ALT, Key.ARROW_UP);
    await until(
      'a unit to the right',
      async () => (await number('Left')) === left + keys.left + 2 && (await number('Right')) === right + keys.right,
    );
  }
  await undoAll();
});

test('fit: both sides follow another glyph mirrored; a side is copied across and to other glyphs', async () => {
  await load('fit?glyph=s');
  await shows('s');
  await t.press('Bind both sides, or many glyphs…');
  await t.press('mirrored');
  await t.fill('Glyph to follow', 'z');
  await t.press('Follow');
  await says('both rules', 'follows z, right');
  await says('both rules', 'follows z, left');
  const [left, right] = [await number('Left'), await number('Right')];
  await go('fit?glyph=z');
  await shows('z');
  expect([await number('Left'), await number('Right')]).toEqual([right, left]);
  await t.press('Left → right');
  await until('both sides alike', async () => (await number('Right')) === right);
  await says('what follows is late', 'as their rules say');
  await t.press('To other glyphs…');
  await t.fill('Glyphs to copy to', 'x adieresis nothing');
  await t.press('Copy');
  await until('what there is no glyph of', async () =>
    (await browser.driver.findElement({ css: 'body' }).getText()).includes('There is no glyph “nothing”'),
  );
  await t.fill('Glyphs to copy to', 'x k');
  await t.press('both');
  await t.press('Copy');
  await go('fit?glyph=x');
  await shows('x');
  await until('the copied sides', async () => (await number('Left')) === right && (await number('Right')) === right);
  await undoAll();
});

test('fit: a figure of another width is pointed out in its master, and gets that of the others', async () => {
  await go('fit?glyph=three');
  await shows('three');
  const width = await number('Advance');
  await t.fill('Advance', String(width + 40), true);
  await says('what differs', `three not ${width} in Regular`);
  await t.press('Give them the width of the others');
  await until(
    'one width',
    async () => (await number('Advance')) === width && !(await details()).includes('share one width'),
  );
  await undoAll();
});

test('fit: a rule is made for every glyph built on a letter; circles are refused with their chain', async () => {
  await go('fit?glyph=v');
  await shows('v');
  await t.press('Bind the left side');
  await t.fill('Glyph to follow', 'o');
  await t.pick('For which glyphs', 'for every glyph built on o');
  await says('which they are', 'oslash');
  await t.press('Follow');
  await go('fit?glyph=oslash');
  await shows('oslash');
  await says('its rule', 'follows o, left');
  await go('fit?glyph=o');
  await shows('o');
  await t.press('Bind the left side');
  await t.fill('Glyph to follow', 'oslash');
  await t.press('Follow');
  await until('the chain', async () =>
    /circle: o left → oslash left → o left/.test(await browser.driver.findElement({ css: 'body' }).getText()),
  );
  await go('fit?glyph=o');
  await undoAll();
});

test('fit: a pattern of one’s own stands with any glyph; letters start with a share of their counter', async () => {
  await go('fit?glyph=v');
  await shows('v');
  await t.press('My lines');
  await t.fill('Lines to fit in', 'n_n');
  await until('two glyphs in the line', async () => (await details()).includes('Add to 2 glyphs'));
  await go('fit?glyph=H');
  await shows('H');
  await t.press('My lines');
  await until('H in the slot', async () => (await details()).includes('Add to 2 glyphs'));
  const counter = Number(/Counter\n(\d+)/.exec(await details())?.[1]);
  await t.fill('Start at % of counter', '25', true);
  await t.press(`Start with ${Math.round(counter / 4)} and ${Math.round(counter / 4)}`);
  await until('a quarter of the counter', async () => (await number('Left')) === Math.round(counter / 4));
  await undoAll();
});

test('fit: the starting line is moved by the hand, edges where they are nearer', async () => {
  await go('fit?glyph=H');
  await shows('H');
  const canvas = await t.find('[data-testid="fit-canvas"]');
  const place = async (what: string) => Number(await canvas.getAttribute(`data-${what}`));
  const [start, right, baseline] = [await place('start'), await place('right'), await place('baseline')];
  expect(start).toBeGreaterThan(right + 5);
  const before = await number('Right');
  await pointer(browser.driver, canvas).drag(start, baseline - 20, start + 12, baseline - 20);
  await until('a greater share', async () => (await number('Start at % of counter')) > 60);
  expect(await number('Right')).toBe(before);
  await pointer(browser.driver, canvas).drag(right, baseline - 20, right + 6, baseline - 20);
  await until('a wider side', async () => (await number('Right')) > before);
  await undoAll();
  await until('half again', async () => (await number('Start at % of counter')) === 50);
});

test('fit: a side is bound to another, falls out of date, and is updated; a proposal is taken', async () => {
  await load('fit?glyph=t');
  await t.press('Bind the left side');
  await t.fill('Glyph to follow', 'n');
  await t.fill('And add', '-30', true);
  await t.press('Follow');
  await says('the rule as a sentence', 'follows n, left, −30');
  const bound = await number('Left');
  await go('fit?glyph=n');
  await until('n in the details', async () => (await details()).startsWith('n\n'));
  await until('what it follows', async () => (await number('Left')) === bound + 30);
  await t.fill('Left', '100', true);
  await says('the count of what is out of date', 'as their rules say');
  await t.press('Update all');
  await until('nothing out of date', async () => !(await details()).includes('as their rules say'));
  await go('fit?glyph=t');
  await until('the followed side', async () => (await value('Left')) === '70');
  expect(await details()).toContain('White left; controls’');
  await t.press('Propose…');
  await until(
    'proposals',
    async () => (await browser.driver.findElements({ css: '[aria-label="Proposed sides"] li' })).length > 3,
  );
  // Another letter is kept, and proposed no more.
  const named = () =>
    script<string[]>(
      `return [...document.querySelectorAll('[aria-label="Proposed sides"] li [title]')].map((e) => e.title)`,
    );
  const kept = (await named())[0]!;
  const field = await t.fill('Keep as they are', `n o H O ${kept}`);
  await until('it to be kept', async () => !(await named()).includes(kept));
  await field.sendKeys(Key.chord(Key.CONTROL, 'a'), 'n o H O');
  await until('it to be proposed again', async () => (await named()).includes(kept));
  // Letters with the sides that they have and would have: one of them is left as it is.
  const offered = await script<{ name: string; said: string }[]>(
    `return [...document.querySelectorAll('[aria-label="Proposed sides"] li [title]')].map((e) => ({ name: e.title, said: e.innerText.trim() }))`,
  );
  const sidesOf = (i: number) => {
    const [, is, wanted] = /^(\S+) → (\S+) ·/.exec(offered[i]!.said)!.map((n) => Number(n.replace('−', '-')));
    return { is, wanted };
  };
  const differs = offered.findIndex((_, i) => i > 0 && sidesOf(i).is !== sidesOf(i).wanted);
  expect(differs).toBeGreaterThan(0);
  const ticks = await browser.driver.findElements({ css: '[aria-label="Proposed sides"] [role="checkbox"]' });
  await ticks[0]!.click();
  const count = await until('the button that fits', async () => {
    for (const b of await browser.driver.findElements({ css: '[role="dialog"] button' })) {
      const [, n] = /^Fit ([\d,]+) glyphs$/.exec(await b.getText()) ?? [];
      if (n) return b.click().then(() => Number(n.replaceAll(',', '')));
    }
    return undefined;
  });
  expect(count).toBeGreaterThan(10);
  await t.gone('[role="dialog"]');
  expect(await value('Left')).toBe('70');
  await go(`fit?glyph=${offered[0]!.name}`);
  await until('what was left as it is', async () => (await number('Left')) === sidesOf(0).is);
  await go(`fit?glyph=${offered[differs]!.name}`);
  await until('what was fitted', async () => (await number('Left')) === sidesOf(differs).wanted);
  await go('fit?glyph=t');
  await undoAll();
});

test('fit: a line in all masters; a step is made in every one of them', async () => {
  await load('fit?glyph=s');
  await until('s in the details', async () => (await details()).startsWith('s\n'));
  const left = await number('Left');
  await t.press('All masters');
  await browser.driver.executeScript('document.activeElement?.blur()');
  await t.keys(']');
  const next = await until('the next master', async () => {
    const now = await number('Left');
    return now !== left && now;
  });
  await t.keys('[');
  await until('the first master', async () => (await number('Left')) === left);
  await until(
    'the box',
    async () => (await browser.driver.findElements({ css: '[data-testid="fit-together"] [role="checkbox"]' }))[0],
  ).then((box) => box.click());
  await browser.driver.executeScript('document.activeElement?.blur()');
  await t.keys(Key.ARROW_RIGHT, Key.ARROW_RIGHT);
  await until('two units more', async () => (await number('Left')) === left + 2);
  await t.keys(']');
  await until('two units more there too', async () => (await number('Left')) === next + 2);
  await t.keys('[');
  await undoAll();
});

test('forms are offered for a letter that has some; the next in the line is the other form', async () => {
  const { t } = opened();
  const offered = () =>
    script<boolean>(
      `return [...document.querySelectorAll('[aria-label="Lines"] button, [aria-label="Lines"] [role="radio"]')].some((b) => b.innerText === 'Forms')`,
    );
  await go('fit?glyph=n');
  expect(await offered()).toBe(false);
  await go('fit?glyph=a');
  await until('forms', offered);
  await t.press('Forms');
  await until('a', async () => /^a\b/.test(await details()));
  // n a n a.ss01 n: two steps on stands the other form.
  await script(`document.querySelector('[data-testid="fit-canvas"]').focus()`);
  await t.keys(Key.PAGE_DOWN);
  await until('n', async () => /^n\b/.test(await details()));
  await t.keys(Key.PAGE_DOWN);
  await until('the other form', async () => /^a\.ss01\b/.test(await details()));
  expect(await offered()).toBe(true);
});
