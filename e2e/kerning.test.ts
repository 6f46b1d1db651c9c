import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { codePointsForName } from '../src/core/project/glyphNames';
import { until } from './browser';
import { type DemoBench, sharedDemoBench } from './demoBench';

const { opened, details, undoAll, value, number, load } = sharedDemoBench();
let browser: DemoBench['browser'];
let t: DemoBench['t'];
beforeAll(() => {
  ({ browser, t } = opened());
});

const pairs = () => browser.driver.findElements({ css: '[aria-label="Pairs"] button' });
const says = (what: string, text: string) => until(what, async () => (await details()).includes(text));

test('kern: the queue is worked by keys; a value moves its group; an exception differs and is dissolved', async () => {
  await load('kern');
  const before = await until('the queue', async () => {
    const n = (await pairs()).length;
    return n > 2 && n;
  });
  const first = await (await pairs())[0]!.getText();
  await browser.driver.executeScript('document.activeElement?.blur()');
  await t.keys(Key.ENTER);
  await until(
    'a pair taken',
    async () => (await pairs()).length < before && (await (await pairs())[0]!.getText()) !== first,
  );
  await t.keys('x');
  await until('a pair left for good', async () => (await pairs()).length < before - 1);
  const now = (await pairs()).length;
  await t.press('1 left for good');
  await until('the one that was left', async () => (await pairs()).length === 1);
  await t.press('Take it up again');
  await until('the queue with it', async () => (await pairs()).length === now + 1);
  await t.press('Pairs');
  await t.fill('Filter the pairs', 'T group · o group');
  await t.press('T group · o group');
  const value0 = await number('Value');
  expect(await t.text('[aria-label="What else moves"]')).toMatch(/Moves with it: \d+ pairs/);
  await browser.driver.executeScript('document.activeElement?.blur()');
  await t.keys(Key.ARROW_LEFT);
  await until('five units tighter', async () => (await number('Value')) === value0 - 5);
  await t.press('T e');
  await until('the same value for another member', async () => (await number('Value')) === value0 - 5);
  await t.press('Make an exception');
  await t.fill('Value', '-20', true);
  await says('an exception', 'An exception: this pair alone');
  await t.press('Dissolve the exception');
  await until('the groups’ value again', async () => (await number('Value')) === value0 - 5);
  await t.fill('Glyph for the first group', 'Y', true);
  for (const more of await browser.driver.findElements({ css: 'aside button' }))
    if (/^and \d+ more$/.test(await more.getText())) await more.click();
  await until(
    'Y in the group',
    async () =>
      (await browser.driver.findElements({ css: '[aria-label="Take Y out of the first group"]' })).length === 1,
  );
  await t.saved();
  await load('kern');
  await undoAll();
});

test('kern: a word list is stepped through, the map opens a pair, a proposal is worked out and stopped or taken', async () => {
  await load('kern');
  const before = await until('the queue', async () => (await pairs()).length);
  await t.press('Words');
  const file = join(mkdtempSync(join(tmpdir(), 'wendril-words-')), 'words.txt');
  writeFileSync(file, '# places\nTo\nAVA # tight\n');
  await (await t.find('[data-testid="word-list"]')).sendKeys(file);
  await until('the first line', async () => (await t.text('[data-testid="kern"]')).includes('1 of 2'));
  expect(await pairs()).toHaveLength(1);
  await browser.driver.executeScript('document.activeElement?.blur()');
  await t.keys('n');
  await until('two pairs of AVA', async () => (await pairs()).length === 2);
  // The way back by the key, and on from the last pair of a line to the next.
  await t.chord(Key.SHIFT, 'n');
  await until('the first line again', async () => (await pairs()).length === 1);
  await t.keys('s');
  await until('the second line again', async () => (await pairs()).length === 2);
  await t.press('Galley');
  await until('the pairs of the galley', async () => (await pairs()).length > 20);
  await t.press('Map');
  await (await t.find('[aria-label^="T with o,"]')).click();
  await says('the pair of the map', 'T group first, o group second');
  // Arrow keys walk over the map; Enter opens the pair.
  await t.press('Map');
  const map = await t.find('[data-testid="kern-map"]');
  await map.sendKeys(Key.ARROW_DOWN, Key.ARROW_RIGHT, Key.ARROW_DOWN);
  const walked = await until(
    'a pair of groups',
    async () => (await t.text('[data-testid="kern-map-at"]')) || undefined,
  );
  await map.sendKeys(Key.ENTER);
  const [, first, second] = /^(\S+) with (\S+), /.exec(walked)!;
  await says('the pair that was walked to', `\n${first} ${second} ·`);
  await t.press('Propose…');
  await t.press('Work it out');
  await until(
    'the proposal',
    async () => /values on the step of 5/.test(await t.text('[data-testid="kern-proposal"]')),
    60,
  );
  const ticks = await browser.driver.findElements({ css: '[aria-label="Proposed values"] [role="checkbox"]' });
  expect(ticks.length).toBeGreaterThan(5);
  await ticks[0]!.click();
  await t.press('Take over');
  await t.gone('[role="dialog"]');
  await load('kern');
  await until('a shorter queue', async () => (await pairs()).length < before);
  await undoAll();
});

test('kern: in a text even values are taken pair after pair as fast as the key is pressed', async () => {
  await load('kern');
  await t.press('Words');
  await t.press('Galley');
  await until('the pairs of the galley', async () => (await pairs()).length > 20);
  const ODD = 133;
  const choose = async (i: number) => (await pairs())[i]!.click();
  const told = () =>
    until('what is even', async () => /controls of this master say (−?\d+)/.exec(await details())?.[1]);
  // One by one, what is taken before it is told is what would have been told.
  await choose(0);
  await t.fill('Value', String(ODD), true);
  const said = await told();
  await choose(1);
  await told();
  const first = (await pairs())[0]!;
  await browser.driver.executeScript('arguments[0].click(); document.activeElement?.blur();', first);
  await t.keys(Key.ENTER);
  await until('the first taken', async () => (await first.getText()).endsWith(said));
  // And as many as are asked for at once.
  for (const i of [0, 1, 2]) {
    await choose(i);
    await t.fill('Value', String(ODD), true);
  }
  const odd = async () => {
    const notes = await Promise.all((await pairs()).slice(0, 3).map((p) => p.getText()));
    return notes.filter((n) => n.endsWith(String(ODD))).length;
  };
  expect(await odd()).toBe(3);
  await choose(0);
  await browser.driver.executeScript('document.activeElement?.blur()');
  await t.keys(Key.ENTER, Key.ENTER, Key.ENTER);
  await until('none of them to be odd', async () => (await odd()) === 0);
  await t.saved();
  await undoAll();
});

test('kern: pairs of the queue are taken, and the cast file has their advances', async () => {
  await load('kern');
  await browser.driver.executeScript('document.activeElement?.blur()');
  await t.keys('[');
  await until('the light master', async () => (await t.text('header')).includes('Light · weight 300'));
  const many = Math.min(10, await until('its queue', async () => (await pairs()).length));
  expect(many).toBeGreaterThan(1);
  const taken: { first: string; second: string; value: number }[] = [];
  for (let i = 0; i < many; i++) {
    const text = await (await pairs())[0]!.getText();
    const [, first, second, value] = /^(\S+) (\S+)\s+\S+ → (\S+)$/.exec(text.replace('\n', ' ')) ?? [];
    taken.push({ first: first!, second: second!, value: Number(value!.replace('−', '-')) });
    await t.keys(Key.ENTER);
    await until('the next pair', async () => (await (await pairs())[0]?.getText()) !== text);
  }
  await t.chord(Key.ALT, '0');
  await t.press('Cast 3 files');
  await (
    await until(
      'the file',
      async () => (await browser.driver.findElements({ css: '[data-file="VelmarrowSans-Light.otf"] button' }))[0],
      60,
    )
  ).click();
  await t.downloaded('VelmarrowSans-Light.otf');
  const code = (name: string) => String.fromCodePoint(codePointsForName(name)[0]!);
  const text = taken.map(({ first, second }) => code(first) + code(second)).join('\n');
  const shaped = (feature: string) =>
    JSON.parse(
      execFileSync(
        process.execPath,
        [
          'scripts/shape.mjs',
          join(browser.downloads, 'VelmarrowSans-Light.otf'),
          text,
          feature,
          'liga=0',
          '--advances',
        ],
        { encoding: 'utf8' },
      ),
    ) as number[];
  const [on, off] = [shaped('kern=1'), shaped('kern=0')];
  // The later of two pairs with the same groups sets both.
  expect(taken.map((_, i) => on[i * 3]! - off[i * 3]!)).toEqual(taken.map(({ value }) => value));
  await load('kern');
  await undoAll();
});

test('kern: groups are found by shapes and taken; a glyph is dropped into another group; holes and collisions are listed', async () => {
  await load('kern');
  await t.press('Groups…');
  await t.press('Look for groups');
  const list = await until('proposed groups', async () => {
    const found = await browser.driver.findElements({ css: '[aria-label="Proposed groups"] li' });
    return found.length > 5 && found;
  });
  for (const item of list.slice(1)) await (await item.findElement({ css: '[role="checkbox"]' })).click();
  const name = (await list[0]!.findElement({ css: 'b' }).getText()).trim();
  await t.press('Take 1 group');
  await t.gone('[role="dialog"]');
  expect(name).not.toBe('');
  await t.press('Pairs');
  await t.fill('Filter the pairs', 'T group · o group');
  await t.press('T group · o group');
  await until('the group', async () => (await details()).includes('First: T group'));
  // Tbar is dragged from the first group of T into the second group of o.
  const drop = `
    const [from, to] = [document.querySelector('[aria-label="Take Tbar out of the first group"]').closest('li'), document.querySelector('[aria-label^="The second group"]')];
    const data = new DataTransfer();
    from.dispatchEvent(new DragEvent('dragstart', { dataTransfer: data, bubbles: true }));
    to.dispatchEvent(new DragEvent('dragover', { dataTransfer: data, bubbles: true, cancelable: true }));
    to.dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));`;
  await browser.driver.executeScript(drop);
  for (const more of await browser.driver.findElements({ css: 'aside button' }))
    if (/^and \d+ more$/.test(await more.getText())) await more.click();
  await until(
    'Tbar in the second group',
    async () =>
      (await browser.driver.findElements({ css: '[aria-label="Take Tbar out of the second group"]' })).length === 1,
  );
  await t.press('Collisions');
  await t.press('Holes');
  await until('holes', async () => (await t.text('[aria-label="Pairs"]')).includes('too open'), 60);
  await t.press('Touching');
  // Kerned as an o after T, Tbar runs into it; taken back, nothing touches.
  await until('T and Tbar', async () => (await t.text('[aria-label="Pairs"]')).includes('T Tbar'), 60);
  await t.press('Undo');
  await until('nothing touches', async () => (await t.text('[aria-label="Pairs"]')).includes('No pair'), 60);
  await load('kern');
  await undoAll();
});

test('kern: the table is sorted, filtered, changed and cleared row by row; the step is the project’s', async () => {
  await load('kern');
  await t.press('Pairs');
  const rows = () => browser.driver.findElements({ css: '[aria-label="Pairs"] li' });
  await until('rows', async () => (await rows()).length > 10);
  const values = () =>
    browser.driver.executeScript<number[]>(
      `return [...document.querySelectorAll('[aria-label="Pairs"] li input')].slice(0, 8).map((i) => Math.abs(Number(i.value.replace('−', '-'))))`,
    );
  expect(await values()).toEqual([...(await values())].sort((a, b) => b - a));
  await t.press('Value');
  await until('the smallest first', async () => (await values())[0]! < 6);
  await t.fill('Filter the pairs', 'A group · W group');
  await until('one row', async () => (await rows()).length === 1);
  await t.fill('Value of A group with W group', '-61', true);
  await until('the value in the details', async () => (await value('Value')) === '−61');
  await t.fill('Step', '7', true);
  await t.press('A group · W group');
  await browser.driver.executeScript('document.activeElement?.blur()');
  await t.keys(Key.ARROW_LEFT);
  await until('a step of seven', async () => (await value('Value')) === '−68');
  await t.press('Take A group with W group away');
  await until('no row', async () => (await rows()).length === 0);
  await undoAll();
  await until('the row again', async () => (await rows()).length === 1);
});

test('a drag of the second letter is as long as the hand moves, however many steps it takes', async () => {
  await load('kern');
  await until('the queue', async () => (await pairs()).length > 1);
  const picture = await t.find('[data-testid="kern-picture"]');
  const value = async () =>
    Number(/kerned by (-?\d+)/.exec((await picture.getAttribute('aria-label')) ?? '')?.[1] ?? Number.NaN);
  // The words under the picture arrive later and take of its height: hands begin when it stands still.
  let stood = '';
  const still = async () => {
    const { width, height } = await picture.getRect();
    const now = `${width} ${height} ${await picture.getAttribute('aria-label')}`;
    const same = now === stood;
    stood = now;
    if (!same) await browser.driver.sleep(400);
    return same;
  };
  await until('a picture that stands still', still);
  const before = await value();
  for (const steps of [1, 4, 20]) {
    await until('a picture that stands still', still);
    // Units to a pixel as the picture stands now, from its own attributes.
    const [x, y, scale] = await browser.driver.executeScript<[number, number, number]>(
      `const box = arguments[0].getBoundingClientRect();
       const { width, height } = arguments[0].viewBox.baseVal;
       return [Math.round(box.x + box.width / 2), Math.round(box.y + box.height / 2),
         Math.max(width / box.width, height / box.height)];`,
      picture,
    );
    const actions = browser.driver.actions().move({ x, y, duration: 0 }).press();
    for (let i = 1; i <= steps; i++) actions.move({ x: x - Math.round((20 * i) / steps), y, duration: 15 });
    await actions.release().perform();
    const wanted = Math.round(before - 20 * scale);
    await until(`${wanted}, after ${steps} steps`, async () => Math.abs((await value()) - wanted) <= 1);
    await undoAll();
    await until('the value of before', async () => (await value()) === before);
  }
});

test('Escape in a number field leaves the number as it was; Enter gives the keys back', async () => {
  await load('fit?glyph=n');
  const left = await t.fill('Left', '333');
  await left.sendKeys(Key.ESCAPE);
  expect(await t.attribute('[aria-label="Undo"]', 'disabled')).not.toBeNull();
  const was = Number(await left.getAttribute('value'));
  expect(was).not.toBe(333);
  await t.fill('Left', '(60+8)/2*2', true);
  await until('68 on the left', async () => (await left.getAttribute('value')) === '68');
  await t.keys(Key.ARROW_RIGHT);
  await until('69 on the left', async () => (await left.getAttribute('value')) === '69');
  await undoAll();
  await until('the side of before', async () => Number(await left.getAttribute('value')) === was);
});
