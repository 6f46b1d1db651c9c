import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { until } from './browser';
import { type DemoBench, sharedDemoBench } from './demoBench';

const { opened, go, details, undoAll, value } = sharedDemoBench();
let browser: DemoBench['browser'];
let t: DemoBench['t'];
beforeAll(() => {
  ({ browser, t } = opened());
});

const pairs = () => browser.driver.findElements({ css: '[aria-label="Pairs"] button' });
const says = (what: string, text: string) => until(what, async () => (await details()).includes(text));

test('fit: a side is bound to another, falls out of date, and is updated; a proposal is taken', async () => {
  await go('fit?glyph=t');
  await t.press('Bind the left side');
  await t.fill('Glyph to follow', 'n');
  await t.fill('And add', '-30', true);
  await t.press('Follow');
  await says('the rule as a sentence', 'follows n, left, −30');
  const bound = Number(await value('Left'));
  await go('fit?glyph=n');
  await until('n in the details', async () => (await details()).startsWith('n\n'));
  await until('what it follows', async () => Number(await value('Left')) === bound + 30);
  await t.fill('Left', '100', true);
  await says('the count of what is out of date', 'as their rules say');
  await t.press('Update all');
  await until('nothing out of date', async () => !(await details()).includes('as their rules say'));
  await go('fit?glyph=t');
  await until('the followed side', async () => (await value('Left')) === '70');
  expect(await details()).toContain('White of its controls');
  await t.press('Propose…');
  await until('proposals', async () => (await browser.driver.findElements({ css: '[aria-label="Proposed sides"] li' })).length > 3);
  await until('the button that fits', async () => {
    for (const b of await browser.driver.findElements({ css: '[role="dialog"] button' })) if (/^Fit \d+ glyphs$/.test(await b.getText())) return b;
    return undefined;
  }).then((b) => b.click());
  await t.gone('[role="dialog"]');
  expect(await value('Left')).toBe('70');
  await go('fit?glyph=t');
  await undoAll();
});

test('fit: a line in all masters; a step is made in every one of them', async () => {
  await go('fit?glyph=s');
  await until('s in the details', async () => (await details()).startsWith('s\n'));
  const left = Number(await value('Left'));
  await t.press('All masters');
  await browser.driver.executeScript('document.activeElement?.blur()');
  await t.keys(']');
  const next = await until('the next master', async () => {
    const now = Number(await value('Left'));
    return now !== left && now;
  });
  await t.keys('[');
  await until('the first master', async () => Number(await value('Left')) === left);
  await until('the box', async () => (await browser.driver.findElements({ css: 'label input[type="checkbox"]' }))[0]).then((box) => box.click());
  await browser.driver.executeScript('document.activeElement?.blur()');
  await t.keys(Key.ARROW_RIGHT, Key.ARROW_RIGHT);
  await until('two units more', async () => Number(await value('Left')) === left + 2);
  await t.keys(']');
  await until('two units more there too', async () => Number(await value('Left')) === next + 2);
  await t.keys('[');
  await undoAll();
});

test('kern: the queue is worked by keys; a value moves its group; an exception differs and is dissolved', async () => {
  await go('kern');
  const before = await until('the queue', async () => {
    const n = (await pairs()).length;
    return n > 10 && n;
  });
  const first = await (await pairs())[0]!.getText();
  await browser.driver.executeScript('document.activeElement?.blur()');
  await t.keys(Key.ENTER);
  await until('a pair taken', async () => (await pairs()).length < before && (await (await pairs())[0]!.getText()) !== first);
  await t.keys('x');
  await until('a pair left for good', async () => (await pairs()).length < before - 1);
  await t.press('Pairs');
  await t.fill('Filter the pairs', 'T group · o group');
  const pair = await until('the pair', async () => {
    for (const p of await pairs()) if ((await p.getText()).startsWith('T group · o group')) return p;
    return undefined;
  });
  await pair.click();
  const value0 = Number((await value('Value')).replace('−', '-'));
  expect(await t.text('[aria-label="What else moves"]')).toMatch(/Moves with it: \d+ pairs/);
  await browser.driver.executeScript('document.activeElement?.blur()');
  await t.keys(Key.ARROW_LEFT);
  await until('five units tighter', async () => Number((await value('Value')).replace('−', '-')) === value0 - 5);
  await t.press('T e');
  await until('the same value for another member', async () => Number((await value('Value')).replace('−', '-')) === value0 - 5);
  await t.press('Make an exception');
  await t.fill('Value', '-20', true);
  await says('an exception', 'An exception: this pair alone');
  await t.press('Dissolve the exception');
  await until('the groups’ value again', async () => Number((await value('Value')).replace('−', '-')) === value0 - 5);
  await t.fill('Glyph for the first group', 'Y', true);
  await until('Y in the group', async () => (await browser.driver.findElements({ css: '[aria-label="Take Y out of the first group"]' })).length === 1);
  await t.saved();
  await go('kern');
  await undoAll();
});

test('kern: a word list is stepped through, the map opens a pair, a proposal is worked out and stopped or taken', async () => {
  await go('kern');
  const before = await until('the queue', async () => (await pairs()).length);
  await t.press('Words');
  const file = join(mkdtempSync(join(tmpdir(), 'wendril-words-')), 'words.txt');
  writeFileSync(file, '# places\nTo\nAVA # tight\n');
  await (await t.find('[data-testid="word-list"]')).sendKeys(file);
  await until('the first line', async () => (await t.text('[data-testid="kern"]')).includes('1 of 2'));
  expect(await pairs()).toHaveLength(1);
  await t.press('The next line');
  await until('two pairs of AVA', async () => (await pairs()).length === 2);
  await t.press('Touching');
  await until('what touches', async () => (await t.text('[aria-label="Pairs"]')).includes('Aogonek j'), 60);
  await t.press('Map');
  await (await t.find('[aria-label^="T with o,"]')).click();
  await says('the pair of the map', 'T group first, o group second');
  await t.press('Propose…');
  await t.press('Work it out');
  await until('the proposal', async () => /\d+ values for/.test(await t.text('[data-testid="kern-proposal"]')), 60);
  await t.press('Take over');
  await t.gone('[role="dialog"]');
  await go('kern');
  // What the groups hide of single pairs may still stray; most of the queue is even now.
  await until('a shorter queue', async () => (await pairs()).length < before * 0.6);
  await undoAll();
});
