import { spawn } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Builder, By, type WebDriver, type WebElement } from 'selenium-webdriver';
import { Options, ServiceBuilder } from 'selenium-webdriver/chrome.js';

/** Starts the built server on a free port; resolves once it says its address. */
export async function startServer(): Promise<{ url: string; stop: () => void }> {
  const server = spawn(process.execPath, ['build/server.mjs'], { env: { ...process.env, PORT: '0' } });
  const url = await new Promise<string>((resolve, reject) => {
    server.stdout.on('data', (chunk: Buffer) => {
      const match = /http:\/\/localhost:\d+/.exec(chunk.toString());
      if (match) resolve(match[0]);
    });
    server.stderr.on('data', (chunk: Buffer) => reject(new Error(chunk.toString())));
  });
  return { url, stop: () => server.kill() };
}

export type Browser = {
  driver: WebDriver;
  downloads: string;
  /** Where it keeps what pages store. */
  profile: string;
  quit: () => Promise<void>;
  /** Ends it at once, as a computer that is switched off. */
  kill: () => Promise<void>;
};

/** Headless Chromium with a profile, a fresh one where none is given, and its own download folder. */
export async function openBrowser(profile = mkdtempSync(join(tmpdir(), 'wendril-profile-'))): Promise<Browser> {
  const downloads = mkdtempSync(join(tmpdir(), 'wendril-downloads-'));
  const options = new Options();
  options.setBinaryPath('/usr/bin/chromium');
  options.addArguments(
    '--headless',
    '--no-sandbox',
    '--disable-gpu',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--disable-quic',
    `--user-data-dir=${profile}`,
    '--window-size=1280,800',
  );
  options.setUserPreferences({ 'download.default_directory': downloads, 'download.prompt_for_download': false });
  const service = new ServiceBuilder('/usr/bin/chromedriver');
  const driver = await new Builder().forBrowser('chrome').setChromeOptions(options).setChromeService(service).build();
  await driver.manage().setTimeouts({ implicit: 0, script: 20_000 });
  await driver.manage().window().setRect({ width: 1280, height: 940 });
  const kill = async () => {
    process.kill(Number((await driver.getCapabilities()).get('goog:processID')), 'SIGKILL');
    await driver.quit().catch(() => {});
  };
  return { driver, downloads, profile, quit: () => driver.quit(), kill };
}

/** Waits until `probe` gives something; says what was waited for when it does not. */
export async function until<T>(
  what: string,
  probe: () => Promise<T | undefined | false | null>,
  seconds = 30,
): Promise<T> {
  const end = Date.now() + seconds * 1000;
  let last: unknown;
  while (Date.now() < end) {
    try {
      const value = await probe();
      if (value) return value;
    } catch (error) {
      last = error;
    }
    await new Promise((r) => setTimeout(r, 60));
  }
  throw new Error(`Waited ${seconds} s for ${what}.${last ? ` Last: ${String(last)}` : ''}`);
}

const isStale = (reason: unknown): boolean => reason instanceof Error && reason.name === 'StaleElementReferenceError';

/** The pages of one browser, in a tester's words. */
export function tester({ driver, downloads }: Browser) {
  const find = (css: string) => until(css, async () => (await driver.findElements(By.css(css)))[0]);
  const button = (text: string) =>
    until(`the button “${text}”`, () =>
      driver.executeScript<WebElement | null>(
        `return [...document.querySelectorAll('button')].find(
          (b) =>
            (b.getAttribute('aria-label') === arguments[0] || b.innerText.replace(/\\s+/g, ' ').trim() === arguments[0]) &&
            b.checkVisibility({ visibilityProperty: true, opacityProperty: true }) && b.getClientRects().length > 0,
        ) ?? null;`,
        text,
      ),
    );
  const click = async (target: WebElement) => {
    await driver.executeScript('arguments[0].scrollIntoView({ block: "nearest" })', target);
    // What still moves (a notice that comes in) would be clicked where it was; what is gone by then is not waited for.
    let gone: unknown;
    await until(
      'it to stand still',
      () =>
        driver
          .executeScript<boolean>(
            `return !document.getAnimations().some(
              (a) => a.playState === 'running' && a.effect?.getTiming().iterations !== Infinity && a.effect?.target?.contains(arguments[0]),
            );`,
            target,
          )
          .catch((reason) => {
            if (!isStale(reason)) throw reason;
            gone = reason;
            return true;
          }),
      5,
    );
    if (gone) throw gone;
    await target.click();
  };
  /** Finds and clicks; what the page has put another in the place of meanwhile is found again. */
  const clickFound = async (look: () => Promise<WebElement>): Promise<WebElement> => {
    for (let tries = 1; ; tries++) {
      try {
        const target = await look();
        await click(target);
        return target;
      } catch (reason) {
        if (!isStale(reason) || tries === 5) throw reason;
      }
    }
  };
  return {
    driver,
    find,
    button,
    press: (text: string) => clickFound(() => button(text)),
    click: (css: string) => clickFound(() => find(css)),
    text: async (css: string) => (await find(css)).getText(),
    attribute: async (css: string, name: string) => (await find(css)).getAttribute(name),
    /** Types into the field with this label, in place of what is there. */
    async fill(label: string, value: string, enter = false) {
      const look = () =>
        until(`the field “${label}”`, async () => {
          const found = await driver.executeScript<WebElement | null>(
            `const label = [...document.querySelectorAll('label')].find((l) => l.innerText.trim() === arguments[0]);
            const id = label?.getAttribute('for');
            return (id ? document.getElementById(id) : label?.querySelector('input, textarea')) ?? null;`,
            label,
          );
          return found ?? (await driver.findElements(By.css(`[aria-label="${label}"]`)))[0];
        });
      const field = await clickFound(look);
      await field.sendKeys('\uE009a\uE000', value, ...(enter ? ['\uE007'] : []));
      return field;
    },
    /** Chooses from a list that opens. */
    async pick(label: string, option: string) {
      await clickFound(() => find(`[aria-label="${label}"]`));
      const wanted = await until(`the choice “${option}”`, async () => {
        for (const o of await driver.findElements(By.css('[role="option"]')))
          if ((await o.getText()).trim() === option) return o;
        return undefined;
      });
      await wanted.click();
      // While its list is still going, the list has the keys.
      await until('the list to go', () =>
        wanted.isDisplayed().then(
          (shown) => !shown,
          () => true,
        ),
      );
    },
    /** Presses keys with nothing focused. */
    async keys(...keys: string[]) {
      await driver
        .actions()
        .sendKeys(...keys)
        .perform();
    },
    /** Holds a key while others are pressed. */
    async chord(held: string | string[], key: string) {
      const all = Array.isArray(held) ? held : [held];
      const actions = driver.actions();
      for (const h of all) actions.keyDown(h);
      actions.sendKeys(key);
      for (const h of all) actions.keyUp(h);
      await actions.perform();
    },
    /** Waits for the project to say that everything is stored. */
    saved: () =>
      until(
        'the project to be saved',
        async () => (await (await find('[data-testid="save-state"]')).getAttribute('data-state')) === 'saved',
      ),
    /** The bytes of a downloaded file, once it is whole. */
    downloaded: (name: string) =>
      until(`the download ${name}`, async () => {
        if (!readdirSync(downloads).includes(name)) return undefined;
        const bytes = readFileSync(join(downloads, name));
        return bytes.length > 0 ? bytes : undefined;
      }),
    gone: (css: string) => until(`${css} to go`, async () => (await driver.findElements(By.css(css))).length === 0),
  };
}

/** A pointer over a canvas in CSS pixels from its top left corner, as a hand would move it. */
export function pointer(driver: WebDriver, canvas: WebElement) {
  const at = async (x: number, y: number) => {
    const rect = await canvas.getRect();
    return { x: Math.round(rect.x + x), y: Math.round(rect.y + y), duration: 30 };
  };
  return {
    async click(x: number, y: number) {
      await driver
        .actions()
        .move(await at(x, y))
        .press()
        .release()
        .perform();
      // Two clicks in one place within the double click time would be one double click.
      await driver.actions().pause(20).perform();
    },
    async doubleClick(x: number, y: number) {
      await driver
        .actions()
        .move(await at(x, y))
        .press()
        .release()
        .press()
        .release()
        .perform();
    },
    async drag(x0: number, y0: number, x1: number, y1: number) {
      await driver
        .actions()
        .move(await at(x0, y0))
        .press()
        .move(await at((x0 + x1) / 2, (y0 + y1) / 2))
        .move(await at(x1, y1))
        .release()
        .perform();
    },
  };
}

/** A glyph as it lies in the browser's storage: in its segment, not in the journal. */
export const storedGlyph = (driver: WebDriver, projectId: string, name: string) =>
  driver.executeAsyncScript<{ id: string; drawings: Record<string, Record<string, unknown>> } | null>(
    `const done = arguments[arguments.length - 1];
    const request = indexedDB.open('wendril-' + arguments[0]);
    request.onsuccess = () => {
      const all = request.result.transaction('records').objectStore('records').getAll();
      all.onsuccess = () => {
        const lists = all.result.filter((r) => typeof r === 'string' && r.startsWith('[{')).map((r) => JSON.parse(r));
        done(lists.flat().find((g) => g.name === arguments[1]) ?? null);
      };
    };`.replace('arguments[1]', JSON.stringify(name)),
    projectId,
  );
