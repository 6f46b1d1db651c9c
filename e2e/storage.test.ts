import { Key } from 'selenium-webdriver';
import { until } from './browser';
import { type DemoBench, sharedDemoBench } from './demoBench';

const { opened, load, value, number, undoAll } = sharedDemoBench();
let server: DemoBench['server'];
let browser: DemoBench['browser'];
let t: DemoBench['t'];
beforeAll(() => {
  ({ server, browser, t } = opened());
});

const page = () => browser.driver.findElement({ css: 'body' }).getText();
const right = (by: number) => t.keys(...Array.from({ length: by }, () => Key.ARROW_RIGHT));
/** Lets every write to the browser's storage fail as if the disk were full, or work again. */
const disk = (full: boolean) =>
  browser.driver.executeScript(`
    window.realPut ??= IDBObjectStore.prototype.put;
    IDBObjectStore.prototype.put = ${full}
      ? () => { throw new DOMException('full', 'QuotaExceededError'); }
      : window.realPut;`);

test('redo after a reload never revives what a new edit has put aside', async () => {
  await load('fit?glyph=n');
  const start = await number('Left');
  for (let i = 0; i < 5; i++) {
    await right(1);
    // Keys in a row join into one step; a rest parts them.
    await new Promise((r) => setTimeout(r, 1600));
  }
  await until('five steps', async () => (await number('Left')) === start + 5);
  await t.saved();
  await load('fit?glyph=n');
  for (let i = 0; i < 3; i++) await t.press('Undo');
  await until('three undone', async () => (await number('Left')) === start + 2);
  await t.fill('Right', '99', true);
  await t.saved();
  await load('fit?glyph=n');
  await until('the new edit', async () => (await value('Right')) === '99');
  const redo = await t.find('button[aria-label="Redo"]');
  expect(await redo.isEnabled()).toBe(false);
  expect(await number('Left')).toBe(start + 2);
  await undoAll();
  await until('the start', async () => (await number('Left')) === start);
});

test('a full disk: what waits is counted, kept, and written by itself; leaving asks', async () => {
  await load('fit?glyph=n');
  const start = await number('Left');
  await disk(true);
  await right(1);
  await until('the sign', async () => /Not saved \(1\): The browser’s storage is full\./.test(await page()));
  await t.click('a[title="To the start page"]');
  await until('the question', async () => (await t.text('[role="dialog"]')).includes('Not everything is stored'));
  await t.press('Stay');
  await t.gone('[role="dialog"]');
  await t.press('Not saved (1): The browser’s storage is full.');
  await until('the way to make room', async () => /History of this project/.test(await t.text('[role="dialog"]')));
  await t.keys(Key.ESCAPE);
  await t.gone('[role="dialog"]');
  await disk(false);
  await t.saved();
  await load('fit?glyph=n');
  await until('the change', async () => (await number('Left')) === start + 1);
  await undoAll();
});

test('a project is not removed under another tab; removed, it lies in the bin and comes back', async () => {
  const { driver } = browser;
  await load('draw?glyph=n');
  const first = await driver.getWindowHandle();
  await driver.switchTo().newWindow('tab');
  await driver.get(server.url);
  await t.press('Remove Velmarrow Sans');
  await t.press('Remove');
  await until('the refusal', async () => /It is open in another tab/.test(await page()));
  await driver.close();
  await driver.switchTo().window(first);
  await driver.get(server.url);
  await t.press('Remove Velmarrow Sans');
  await t.press('Remove');
  await until('the bin', async () => /In the bin\s+Velmarrow Sans[\s\S]*kept for 30 days/.test(await page()));
  await t.press('Bring back');
  await t.find('a[href="/p/velmarrow/draw"]');
});

test('a project whose records are gone under it is stored anew, whole', async () => {
  const { driver } = browser;
  await load('fit?glyph=o');
  await until('the sides', async () => (await value('Left')) || undefined);
  await driver.executeAsyncScript(`
    const done = arguments[arguments.length - 1];
    const request = indexedDB.open('wendril-velmarrow');
    request.onsuccess = () => {
      const cleared = request.result.transaction('records', 'readwrite').objectStore('records').clear();
      cleared.onsuccess = () => done();
    };`);
  await t.fill('Left', '71', true);
  await t.saved();
  await load('fit?glyph=o');
  await until('the change', async () => (await value('Left')) === '71');
  expect((await driver.findElements({ css: '[aria-label="What could not be read"]' })).length).toBe(0);
  await undoAll();
});

test('a damaged record: the rest opens, what is lost is said, and comes back as last stored', async () => {
  const { driver } = browser;
  await load('fit?glyph=o');
  const start = await number('Left');
  await t.fill('Left', String(start + 9), true);
  await t.saved();
  await new Promise((r) => setTimeout(r, 2500));
  await driver.get(`${server.url}/names`);
  await driver.executeAsyncScript(`
    const done = arguments[arguments.length - 1];
    const request = indexedDB.open('wendril-velmarrow');
    request.onsuccess = () => {
      const work = request.result.transaction('records', 'readwrite');
      work.oncomplete = () => { request.result.close(); done(); };
      const store = work.objectStore('records');
      store.openCursor().onsuccess = (e) => {
        const cursor = e.target.result;
        if (!cursor) return;
        const { value, key } = cursor;
        if (/\\/glyphs\\/\\d/.test(key) && typeof value === 'string' && value.includes('"name":"o"'))
          cursor.update(value.replace('"name":"o"', '"name":7'));
        cursor.continue();
      };
    };`);
  await load('fit?glyph=n');
  await until('what was lost', async () => /part of its record could not be read/.test(await page()));
  expect(Number(await until('n as ever', async () => (await value('Left')) || undefined))).toBeGreaterThan(0);
  await t.press('Bring its last good state back');
  await until('the word', async () => /as last stored/.test(await page()));
  await t.saved();
  await load('fit?glyph=o');
  await until('o as it was', async () => (await number('Left')) === start + 9);
  await undoAll();
});

test('a project whose lock is taken by force is only looked at from then on', async () => {
  const { driver } = browser;
  await load('draw?glyph=n');
  await t.saved();
  await driver.executeScript(
    'navigator.locks.request("wendril-project-velmarrow", { steal: true }, () => new Promise(() => {}))',
  );
  await until('the word', async () => /Looking only/.test(await page()));
  await driver.navigate().refresh();
  await t.find('[data-testid="galley-line"]');
  await t.saved();
});

test('a worker that dies is started anew, and the galley goes on', async () => {
  const { driver } = browser;
  await load('draw?glyph=n');
  const revision = async () => Number(await t.attribute('[data-testid="galley-line"]', 'data-revision'));
  await until('the galley', async () => (await revision()) > 0);
  // The next message to a worker makes it fail as one does that has run out of memory.
  await driver.executeScript(`
    const post = Worker.prototype.postMessage;
    Worker.prototype.postMessage = function () {
      Worker.prototype.postMessage = post;
      this.dispatchEvent(new ErrorEvent('error', { message: 'out of memory', cancelable: true }));
    };`);
  const before = await revision();
  await t.keys(']');
  await until('a new line', async () => (await revision()) > before);
  expect(await t.text('[aria-label="Galley"]')).not.toMatch(/cannot be made/);
});

test('dated copies: kept, looked at beside what is there now, and opened as a project of its own', async () => {
  const { driver } = browser;
  const dialog = () => t.text('[role="dialog"]');
  const open = async () => {
    await t.chord(Key.CONTROL, 'k');
    await t.keys('dated copies');
    await t.keys(Key.ENTER);
    await until('the copies', async () => /Dated copies/.test(await dialog()));
  };
  await load('fit?glyph=n');
  const start = await number('Left');
  await open();
  await t.press('Keep one now');
  await until('one', async () => /The first copy\./.test(await dialog()));
  await t.press('Keep one now');
  await until('the word', async () => /Nothing was changed since the last one/.test(await dialog()));
  await t.press('Close');
  await t.gone('[role="dialog"]');
  await right(1);
  await until('the change', async () => (await number('Left')) === start + 1);
  await t.saved();
  await open();
  await t.press('Look');
  await until('both', async () => /glyphs? differs?/.test(await t.text('section[aria-label="Then and now"]')));
  expect(await t.text('section[aria-label="Then and now"]')).toMatch(/^n$/m);
  await t.press('Open as a new project');
  await until('it open', async () => !/velmarrow\//.test(await driver.getCurrentUrl()));
  const address = (await driver.getCurrentUrl()).replace(/\/case.*/, '/fit?glyph=n');
  await driver.get(address);
  await until('the sides as they were', async () => (await number('Left')) === start);
  await load('fit?glyph=n');
  await undoAll();
});

test('without storage all works until the tab is closed, and that is said', async () => {
  const { driver } = browser;
  const chrome = driver as unknown as {
    sendAndGetDevToolsCommand(name: string, params: object): Promise<unknown>;
  };
  const { identifier } = (await chrome.sendAndGetDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', {
    source: `Object.defineProperty(window, 'indexedDB', { value: undefined });
      Object.defineProperty(window, 'localStorage', { get() { throw new DOMException('no', 'SecurityError'); } });`,
  })) as { identifier: string };
  try {
    await driver.get(server.url);
    await until('the word', async () => /gives Wendril no storage/.test(await page()));
    await t.click('a[href="/p/velmarrow/draw"]');
    await until('the project', async () => /Only in this tab/.test(await page()));
    await t.click('a[href^="/p/velmarrow/fit"]');
    await until('the sides', async () => (await value('Left')) || undefined);
    await t.fill('Right', '99', true);
    await until('the change', async () => (await value('Right')) === '99');
    // It is the same project after the start page, as long as the tab is open.
    await t.click('a[title="To the start page"]');
    await t.click('a[href="/p/velmarrow/draw"]');
    await t.click('a[href^="/p/velmarrow/fit"]');
    await until('the change', async () => (await value('Right')) === '99');
    expect(await page()).toMatch(/Save the project to a file/);
  } finally {
    await chrome.sendAndGetDevToolsCommand('Page.removeScriptToEvaluateOnNewDocument', { identifier });
  }
  await driver.executeScript('window.onbeforeunload = null').catch(() => {});
  await driver.get(server.url).catch(() => {});
  await driver
    .switchTo()
    .alert()
    .then(
      (a) => a.accept(),
      () => {},
    );
  await until('what was stored', async () => /Velmarrow Sans/.test(await page()) && !/no storage/.test(await page()));
});
