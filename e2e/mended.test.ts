import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { readyDemo } from '../demo/ready';
import { castFont } from '../src/core/casting/font';
import { type Browser, pointer, storedGlyph, type tester, until } from './browser';
import { sharedDemoBench } from './demoBench';

const { opened, go, load, details, value, undoAll, view } = sharedDemoBench();
let browser: Browser;
let t: ReturnType<typeof tester>;
beforeAll(() => {
  ({ browser, t } = opened());
});
const blur = () => browser.driver.executeScript('document.activeElement?.blur()');
const stored = async (name: string) => (await storedGlyph(browser.driver, 'velmarrow', name))!;
/** Contours as they are stored: three numbers for a point. */
type Drawn = { contours: { p: number[] }[] };
const pointsIn = async (name: string) =>
  Object.values((await stored(name)).drawings).map((d) => (d as unknown as Drawn).contours[0]!.p.length / 3);

test('every stage holds at every size, and at twice the size: nothing is wider than the window', async () => {
  const [dw, dh] = await browser.driver.executeScript<[number, number]>(
    'return [outerWidth - innerWidth, outerHeight - innerHeight]',
  );
  const window = browser.driver.manage().window();
  for (const stage of ['plan', 'case', 'draw', 'compose', 'fit', 'kern', 'cast']) {
    await go(`${stage}?glyph=a`);
    // The last two are 1920 x 1080 and 1280 x 800 with everything twice as large.
    for (const [width, height] of [
      [1024, 700],
      [1280, 800],
      [1920, 1080],
      [960, 540],
      [640, 400],
    ] as const) {
      await window.setRect({ width: width + dw, height: height + dh });
      const [inner, wide, cut] = await browser.driver.executeScript<[number, number, string[]]>(
        `const cut = [...document.querySelectorAll('header button, nav a, [aria-label="Galley"] button, aside')].filter((e) => {
          const b = e.getBoundingClientRect();
          return b.width > 0 && (b.right > innerWidth + 1 || b.left < -1);
        }).map((e) => e.getAttribute('aria-label') ?? e.textContent);
        return [innerWidth, document.documentElement.scrollWidth, cut];`,
      );
      expect([stage, width, wide <= inner, width >= 960 ? cut : []]).toEqual([stage, width, true, []]);
    }
  }
  await window.setRect({ width: 1280 + dw, height: 800 + dh });
});

test('draw: a point goes from all masters that agree, or from this one only; takes stay whatever is undone', async () => {
  await go('draw?glyph=o');
  await t.press('Takes');
  await t.press('Keep a take');
  await until(
    'the take',
    async () => (await browser.driver.findElements({ css: '[data-testid="take"]' })).length === 1,
  );
  await t.press('Shape');
  const before = await pointsIn('o');
  await blur();
  await t.keys(Key.HOME, Key.DELETE);
  // What is stored follows the journal after a while.
  const after = await until('a point fewer in all masters', async () => {
    const now = await pointsIn('o');
    return now.every((n, i) => n < before[i]!) && now;
  });
  await t.pick('Changes reach', 'this master');
  await blur();
  await t.keys(Key.HOME, Key.DELETE);
  await until('a point fewer in one master', async () => {
    const alone = await pointsIn('o');
    return alone.filter((n, i) => n !== after[i]).length === 1;
  });
  await undoAll();
  await t.pick(
    'Changes reach',
    /drawings, places here/.test(await t.text('[data-testid="reach"]')) ? 'this master' : '6 drawings, places here',
  );
  await t.press('Takes');
  expect(await browser.driver.findElements({ css: '[data-testid="take"]' })).toHaveLength(1);
});

test('draw: while a take is tried, an edit asks first; pictures of the sheet: a guide is dragged', async () => {
  await go('draw?glyph=o');
  await t.press('Takes');
  if ((await browser.driver.findElements({ css: '[data-testid="take"]' })).length === 0) await t.press('Keep a take');
  await t.press('Shape');
  await blur();
  await t.keys(Key.HOME, Key.ARROW_RIGHT);
  await until('the step', async () => (await t.find('button[aria-label="Undo"]')).isEnabled());
  await t.press('Takes');
  await t.press('Try');
  await until('the take shown', async () => (await details()).includes('Stop trying'));
  await blur();
  await t.keys(Key.HOME, Key.ARROW_RIGHT);
  await until('the question', async () => (await t.text('[role="dialog"]')).includes('only being tried'));
  await t.press('Back to the drawing');
  await t.gone('[role="dialog"]');
  await until('trying ended', async () => !(await details()).includes('Stop trying'));
  await undoAll();
  await t.press('Parts');
  await t.press('Level');
  const height = async () => Number(await (await t.find('[data-testid="guide"] input')).getAttribute('value'));
  const y = await height();
  const { px, py } = await view();
  const hand = pointer(browser.driver, await t.find('[data-testid="draw-canvas"]'));
  await hand.drag(px(-60), py(y), px(-60), py(y) - 40);
  await until('the guide moved', async () => (await height()) > y + 20);
  expect(Number.isInteger(await height())).toBe(true);
  await undoAll();
});

test('case: Shift takes all between, a copy stands beside its glyph, an unclear word is asked about', async () => {
  await go('case?glyph=a');
  await t.click('[data-glyph="b"]');
  const e = await t.find('[data-glyph="e"]');
  await browser.driver.actions().keyDown(Key.SHIFT).click(e).keyUp(Key.SHIFT).perform();
  await until('four glyphs', async () => (await details()).startsWith('4 glyphs'));
  await t.fill('Glyphs to add', 'tonecomb');
  await until('the question', async () => (await details()).includes('a glyph of this name'));
  await t.press('A name');
  await t.press('Add');
  await until('the new glyph', async () => (await details()).startsWith('tonecomb'));
  await t.find('[data-glyph="tonecomb"][aria-pressed="true"]');
  await go('case?glyph=n');
  await t.click('[data-glyph="n"]');
  await t.chord(Key.CONTROL, 'd');
  await t.press('Make the copy');
  await until('the copy', async () => (await details()).startsWith('n.alt'));
  await until(
    'the copy stored with its masters',
    async () => Object.keys((await stored('n.alt'))?.drawings ?? {}).length === 6,
  );
  await undoAll();
});

test('plan: words are typed in peace, a metric is set outright and left to the rule, a new em asks', async () => {
  await go('plan');
  await t.fill('Master', 'Bold Italic', true);
  await until('what the name says', async () => (await details()).includes('linked as Bold Italic'));
  await t.press('Set −10°').catch(() => t.press('Set -10°'));
  await until('the angle', async () => !(await details()).includes('the angle is 0'));
  await t.fill('Weight class', '350', true);
  await t.find('[data-fact="weightClass"][data-own="true"]');
  await t.press('Weight class by rule again');
  await t.find('[data-fact="weightClass"][data-own="false"]');
  await t.fill('Units per em', '2000', true);
  await t.press('Scale everything');
  await until('lines of twice the height', async () =>
    /1,?040/.test((await t.attribute('[data-zone="xHeight"] text:nth-of-type(2)', 'textContent')) ?? ''),
  );
  await undoAll();
});

test('what reaches every drawing is worked out beside the page: it can be stopped, and is one step', async () => {
  const { driver } = opened().browser;
  const em = () => value('Units per em');
  const undo = () => t.attribute('button[aria-label="Undo"]', 'data-tip');
  await go('plan');
  await until('the em', async () => (await em()) === '1000');
  // The work takes its time.
  await driver.executeScript(`
    const post = Worker.prototype.postMessage;
    window.realPost = post;
    Worker.prototype.postMessage = function (...said) {
      if (said[0]?.path?.[0] === 'edit') setTimeout(() => post.apply(this, said), 5000);
      else post.apply(this, said);
    };`);
  await t.fill('Units per em', '2048', true);
  await t.press('Scale everything');
  await until('the word', async () => /Working on 665 glyphs in 6 masters/.test(await t.text('body')));
  await t.press('Stop');
  await until('it gone', async () => !/Working on/.test(await t.text('body')));
  expect(await em()).toBe('1000');
  expect(await undo()).toBe('Nothing to undo');
  await driver.executeScript('Worker.prototype.postMessage = window.realPost;');
  await t.fill('Units per em', '2048', true);
  await t.press('Scale everything');
  await until('it done', async () => /Scaled everything to 2048/.test((await undo()) ?? ''), 60);
  expect(await em()).toBe('2048');
  await t.saved();
  // So many changes in one step come back from storage, too.
  await go('plan');
  await until('the em', async () => (await em()) === '2048');
  await t.press('Undo');
  await until('the em as it was', async () => (await em()) === '1000');
  await undoAll();
});

test('a font is laid beside and measured; the guide opens at the stage; a pair is typed', async () => {
  const font = castFont(readyDemo(), { flavour: 'otf', place: { master: 'm3' } });
  if (!font.ok) throw new Error(font.reason);
  const file = join(tmpdir(), 'Beside.otf');
  writeFileSync(file, font.value.bytes);
  await go('fit?glyph=n');
  await (await t.find('[data-testid="beside-file"]')).sendKeys(file);
  const rows = await until(
    'numbers beside',
    async () => {
      const found = await browser.driver.findElements({ css: '[data-testid="beside"] tbody tr' });
      return found.length > 0 && found;
    },
    30,
  );
  const stem = (await rows[3]!.getText()).match(/\d+/g)!.map(Number);
  expect(stem[1]!).toBeGreaterThan(stem[0]! * 1.3);
  await t.press('Beside');
  await until(
    'both lines',
    async () => (await browser.driver.findElements({ css: '[data-testid="beside-lines"] svg' })).length >= 6,
  );
  await t.press('Control strings');
  await blur();
  await t.keys(Key.F1);
  await until('the chapter', async () => (await t.text('[data-testid="guide"] h2')) === 'Fit');
  await t.fill('Search the guide', 'blade');
  await until('another chapter', async () => (await t.text('[data-testid="guide"]')).includes('Blade'));
  await t.keys(Key.ESCAPE);
  await t.gone('[role="dialog"]');
  await go('kern');
  await t.chord(Key.CONTROL, 'k');
  await (await t.find('[cmdk-input]')).sendKeys('V', Key.ENTER);
  await until('V as the first letter', async () =>
    (await t.attribute('[data-testid="kern-picture"]', 'aria-label'))?.startsWith('V and'),
  );
  await t.chord(Key.CONTROL, 'k');
  await (await t.find('[cmdk-input]')).sendKeys('To', Key.ENTER);
  await until('the pair', async () =>
    (await t.attribute('[data-testid="kern-picture"]', 'aria-label'))?.startsWith('T and o'),
  );
  await t.fill('Go to a pair', 'Vo', true);
  await until('the pair', async () =>
    (await t.attribute('[data-testid="kern-picture"]', 'aria-label'))?.startsWith('V and o'),
  );
});

test('case: key-caps of A to Z are framed copies of one width in all masters, in six gestures', async () => {
  await go('case?glyph=A');
  await t.click('[data-glyph="A"]');
  await browser.driver
    .actions()
    .keyDown(Key.SHIFT)
    .click(await t.find('[data-glyph="Z"]'))
    .keyUp(Key.SHIFT)
    .perform();
  await t.press('Edges…');
  await t.find('[data-testid="edges-made"]');
  await until('what else would change', async () =>
    /\d+ more glyphs are built on these/.test(await t.text('[role="dialog"]')),
  );
  await t.click('[role="radio"][value="copies"]');
  await t.fill('Least width', '1100', true);
  await t.press('The frame is all');
  await until('nothing else would change', async () => !/built on these/.test(await t.text('[role="dialog"]')));
  await t.press('Make 26 copies');
  await until('the copies chosen', async () => /^26 glyphs/.test(await details()));
  await until('the copies stored', async () => (await stored('Z.key')) !== null);
  for (const name of ['A', 'Z']) {
    const drawings = Object.values((await stored(`${name}.key`)).drawings) as unknown as (Drawn & {
      advance: number;
    })[];
    expect(drawings.map((d) => d.advance)).toEqual(drawings.map(() => 1100));
    const own = Object.values((await stored(name)).drawings) as unknown as Drawn[];
    expect(drawings.map((d) => d.contours.length)).toEqual(own.map((d) => d.contours.length + 2));
  }
  await undoAll();
});

test('every stage has one main part and one heading, names for all controls and lists, edges of fields and words that can be seen', async () => {
  // Without notices of what was done before.
  await load('plan');
  for (const stage of [
    'plan',
    'case?glyph=a',
    'draw?glyph=a',
    'compose',
    'fit?glyph=n',
    'kern',
    'features',
    'masters',
    'scripts',
    'preflight',
    'cast',
  ]) {
    await go(stage);
    // What a finding shows stands in its middle.
    if (stage === 'preflight') await t.find('[aria-label="Findings"]');
    else await until('the details', async () => (await details()) !== '');
    const found = await browser.driver.executeScript(AUDIT);
    expect({ stage, found }).toEqual({ stage, found: { main: 1, headings: 1, unnamed: [], edges: [], words: [] } });
  }
});

/** In the page: controls and lists without a name, fields whose edge has less than 3:1, words with less than 4.5:1. */
const AUDIT = `
  const channels = (c) => c.match(/[\\d.]+/g).map(Number);
  const light = (c) => {
    const [r, g, b] = channels(c).map((v) => (v / 255 <= 0.03928 ? v / 255 / 12.92 : ((v / 255 + 0.055) / 1.055) ** 2.4));
    return 0.2126 * r + 0.7152 * g + 0.0722 * b;
  };
  const ratio = (a, b) => (Math.max(light(a), light(b)) + 0.05) / (Math.min(light(a), light(b)) + 0.05);
  const ground = (e) => {
    for (let n = e; n; n = n.parentElement) {
      const c = getComputedStyle(n).backgroundColor;
      if ((channels(c)[3] ?? 1) === 1) return c;
    }
    return 'rgb(255, 255, 255)';
  };
  const seen = (e) => e.getBoundingClientRect().width > 0 && !e.closest('[aria-hidden=true]');
  const all = (css) => [...document.querySelectorAll(css)].filter(seen);
  const labelled = (e) => e.getAttribute('aria-label') || e.getAttribute('aria-labelledby');
  const name = (e) => labelled(e) || [...(e.labels ?? [])].map((l) => l.textContent).join('') || e.textContent.trim();
  const told = (e) => e.outerHTML.slice(0, 90);
  const controls = all('button, a[href], input, textarea, [role=slider], [role=radio], [role=checkbox], [role=combobox]');
  const lists = all('ul, ol, table, nav, aside, canvas, [role=radiogroup], [role=toolbar], [role=tablist], [role=listbox], [role=img]');
  return {
    main: document.querySelectorAll('main').length,
    headings: document.querySelectorAll('h1').length,
    unnamed: [...controls.filter((e) => !name(e)), ...lists.filter((e) => !labelled(e))].map(told),
    edges: all('input, textarea, [role=combobox], [role=checkbox], [role=radio]')
      .filter((e) => {
        const { borderTopColor, backgroundColor } = getComputedStyle(e);
        const around = ground(e.parentElement);
        const filled = (channels(backgroundColor)[3] ?? 1) === 1 ? ratio(backgroundColor, around) : 1;
        return Math.max(ratio(borderTopColor, around), filled) < 3;
      })
      .map(told),
    words: all('p, span, label, button, a, h1, h2, h3, td, th, li')
      .filter((e) => [...e.childNodes].some((n) => n.nodeType === 3 && n.textContent.trim()))
      .filter((e) => !e.closest(':disabled, [aria-disabled=true]') && ratio(getComputedStyle(e).color, ground(e)) < 4.5)
      .map(told),
  };`;
