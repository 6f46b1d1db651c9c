import { By } from 'selenium-webdriver';
import { type Browser, openBrowser, startServer, tester, until } from './browser';

export type DemoBench = {
  server: Awaited<ReturnType<typeof startServer>>;
  browser: Browser;
  t: ReturnType<typeof tester>;
  /** What code in the page gives. */
  script<T>(code: string, ...given: unknown[]): Promise<T>;
  /** Turns to a stage of the demo as a link does; what was chosen there before stays chosen. */
  go(address: string): Promise<void>;
  /** Loads a stage of the demo anew. */
  load(address: string): Promise<void>;
  /** Presses the check with this label. */
  check(label: string): Promise<unknown>;
  /** The text of the details column. */
  details(): Promise<string>;
  /** What the number field with this label shows. */
  value(label: string): Promise<string>;
  /** The number in the field with this label, once it shows one. */
  number(label: string): Promise<number>;
  /** Takes back every step of the history. */
  undoAll(): Promise<void>;
  /** Where font units lie on the drawing canvas. */
  view(): Promise<{ scale: number; originX: number; originY: number; px(x: number): number; py(y: number): number }>;
  close(): Promise<void>;
};

/** Opens a bench for a whole test file and closes it at the end; the gestures are there as soon as a test runs. */
export function sharedDemoBench() {
  jest.setTimeout(120_000);
  let bench: DemoBench;
  beforeAll(async () => {
    bench = await openDemoBench();
  });
  afterAll(() => bench?.close());
  return {
    opened: () => bench,
    script: <T>(code: string, ...given: unknown[]) => bench.script<T>(code, ...given),
    go: (address: string) => bench.go(address),
    load: (address: string) => bench.load(address),
    check: (label: string) => bench.check(label),
    details: () => bench.details(),
    value: (label: string) => bench.value(label),
    number: (label: string) => bench.number(label),
    undoAll: () => bench.undoAll(),
    view: () => bench.view(),
  };
}

/** As a link does; false where the demo is not open: a page that is loaded anew checks and casts all of it once more. */
const TURN = `
  if (!location.pathname.startsWith('/p/velmarrow/')) return false;
  history.pushState({ key: String(Math.random()), idx: (history.state?.idx ?? 0) + 1 }, '', arguments[0]);
  dispatchEvent(new PopStateEvent('popstate'));
  return true;`;

/** A server and a browser with the demo stored, and the gestures that most tests share. */
export async function openDemoBench(): Promise<DemoBench> {
  const server = await startServer();
  const browser = await openBrowser();
  const { driver } = browser;
  const t = tester(browser);
  const close = async () => {
    await browser.quit();
    server.stop();
  };
  await driver.get(server.url);
  try {
    const demo = By.css('a[href="/p/velmarrow/draw"]');
    await until('the demo', async () => (await driver.findElements(demo))[0], 90);
  } catch (reason) {
    // Left open, it would keep the tests from ending.
    await close();
    throw reason;
  }
  const load = async (address: string) => {
    // A page left in the middle of saving is a test of its own.
    await until('what was done to be saved', () =>
      driver.executeScript<boolean>(
        `return !document.querySelector('[data-testid="save-state"][data-state="saving"]')`,
      ),
    );
    await driver.get(`${server.url}/p/velmarrow/${address}`);
    await t.find('[data-testid="galley-line"]');
  };
  const value = (label: string) =>
    driver.executeScript<string>(
      `return [...document.querySelectorAll("label")].find((l) => l.textContent === arguments[0])?.nextElementSibling?.value ?? ""`,
      label,
    );
  return {
    server,
    browser,
    t,
    script: <T>(code: string, ...given: unknown[]): Promise<T> => driver.executeScript<T>(code, ...given),
    async go(address) {
      const turned = await driver.executeScript<boolean>(TURN, `/p/velmarrow/${address}`);
      if (!turned) return load(address);
      await t.find('[data-testid="galley-line"]');
    },
    load,
    check: (label) =>
      until(`the check “${label}”`, () =>
        driver.executeScript<boolean>(
          `const l = [...document.querySelectorAll('label')].find((l) => l.textContent.trim() === arguments[0]); l?.click(); return l !== undefined`,
          label,
        ),
      ),
    details: () => t.text('[aria-label="Details"]'),
    value,
    number: async (label) =>
      Number((await until(`${label} to be shown`, async () => (await value(label)) || undefined)).replace('−', '-')),
    async undoAll() {
      await t.find('button[aria-label="Undo"]');
      await driver.executeAsyncScript(
        `const done = arguments[arguments.length - 1];
        const step = () => {
          const undo = document.querySelector('button[aria-label="Undo"]');
          if (undo.disabled) return done();
          undo.click();
          setTimeout(step);
        };
        step();`,
      );
    },
    async view() {
      const text = await until(
        'the canvas to be painted',
        async () => (await t.attribute('[data-testid="draw-canvas"]', 'data-view')) || undefined,
      );
      const [scale, originX, originY] = text.split(' ').map(Number) as [number, number, number];
      return { scale, originX, originY, px: (x) => originX + x * scale, py: (y) => originY - y * scale };
    },
    close,
  };
}
