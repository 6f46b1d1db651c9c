import { type Browser, openBrowser, startServer, tester, until } from './browser';

/**
 * Random work in Chromium, held against a model: sides are set, taken back and done again, while the page is loaded anew, the
 * browser killed, a second tab opened and the disk full. `npm run soak [minutes] [seed]`; ends with an error where what is opened
 * is not what was done. At a kill at most the last gesture may be lost.
 */

const MINUTES = Number(process.argv[2] ?? 60);
const SEED = Number(process.argv[3] ?? 1);
const GLYPHS = ['n', 'o', 'H', 'O'] as const;
const SIDES = ['Left', 'Right'] as const;

type Place = `${(typeof GLYPHS)[number]} ${(typeof SIDES)[number]}`;
type Values = Readonly<Record<Place, string>>;
/** What was done and what was taken back, as the history holds it: the states before each step, and after. */
type Model = { readonly past: readonly Values[]; readonly now: Values; readonly future: readonly Values[] };

/** A generator of numbers from 0 to 1 (mulberry32, public domain). */
function random(seed: number): () => number {
  let a = seed;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const next = random(SEED);
const among = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)]!;
const counts = {
  gestures: 0,
  undone: 0,
  'done again': 0,
  'loaded anew': 0,
  kills: 0,
  'gestures lost at kills': 0,
  'second tabs': 0,
  'full disks': 0,
};

const server = await startServer();
let browser: Browser = await openBrowser();
let t = tester(browser);
let glyph: (typeof GLYPHS)[number] = 'n';

const value = (label: string) =>
  browser.driver.executeScript<string>(
    `const l = [...document.querySelectorAll('label')].find((l) => l.innerText.trim() === arguments[0]);
    return (l && document.getElementById(l.htmlFor))?.value ?? '';`,
    label,
  );

async function show(wanted: typeof glyph): Promise<void> {
  glyph = wanted;
  await browser.driver.get(`${server.url}/p/velmarrow/fit?glyph=${wanted}`);
  await until(
    `the sides of ${wanted}`,
    async () => (await value('Left')) !== '' && t.text('[data-testid="save-state"]'),
    60,
  );
}

async function values(): Promise<Values> {
  const found: Partial<Record<Place, string>> = {};
  for (const g of GLYPHS) {
    await show(g);
    for (const side of SIDES) found[`${g} ${side}`] = await value(side);
  }
  return found as Values;
}

const same = (a: Values, b: Values): boolean => (Object.keys(a) as Place[]).every((k) => a[k] === b[k]);

function fail(what: string, found: Values, wanted: Values): never {
  console.error(`${what}\nfound  ${JSON.stringify(found)}\nwanted ${JSON.stringify(wanted)}\nseed ${SEED}`, counts);
  process.exit(1);
}

/** Waits until the sides that are shown are those of the model. */
async function settles(m: Model): Promise<void> {
  const wanted = SIDES.map((side) => m.now[`${glyph} ${side}`]).join(' ');
  let shown = '';
  await until('', async () => {
    shown = (await Promise.all(SIDES.map(value))).join(' ');
    return shown === wanted;
  }).catch(async () => {
    console.error(
      `${glyph} is shown with ${shown}; ${wanted} was set. Seed ${SEED}\n${told.slice(-12).join('\n')}`,
      counts,
    );
    process.exit(1);
  });
}

/** The bench shows what a step that is taken back, or done again, changed. */
function went(from: Model, to: Model): Model {
  const changed = (Object.keys(from.now) as Place[]).find((k) => from.now[k] !== to.now[k])!;
  glyph = changed.split(' ')[0] as typeof glyph;
  return to;
}

/** The newest gestures, for whoever has to find out what went wrong. */
const told: string[] = [];

async function gesture(m: Model): Promise<Model> {
  counts.gestures++;
  const kind = next();
  if (kind < 0.2 && m.past.length > 0) {
    counts.undone++;
    told.push(`undo ${glyph} ${await t.attribute('button[aria-label="Undo"]', 'data-tip')}`);
    await t.press('Undo');
    return went(m, { past: m.past.slice(0, -1), now: m.past[m.past.length - 1]!, future: [m.now, ...m.future] });
  }
  if (kind < 0.3 && m.future.length > 0) {
    counts['done again']++;
    told.push('redo');
    await t.press('Redo');
    return went(m, { past: [...m.past, m.now], now: m.future[0]!, future: m.future.slice(1) });
  }
  const side = among(SIDES);
  let to = m.now[`${glyph} ${side}`];
  while (to === m.now[`${glyph} ${side}`]) to = String(20 + Math.floor(next() * 120));
  told.push(`${glyph} ${side} ${to}`);
  await t.fill(side, to, true);
  return { past: [...m.past, m.now], now: { ...m.now, [`${glyph} ${side}`]: to }, future: [] };
}

const disk = (full: boolean) =>
  browser.driver.executeScript(
    `window.realPut ??= IDBObjectStore.prototype.put;
    IDBObjectStore.prototype.put = ${full} ? () => { throw new DOMException('full', 'QuotaExceededError'); } : window.realPut;`,
  );

async function killed(before: Model, m: Model): Promise<Model> {
  counts.kills++;
  told.push('kill');
  await browser.kill();
  browser = await openBrowser(browser.profile);
  t = tester(browser);
  const found = await values();
  if (same(found, m.now)) return m;
  counts['gestures lost at kills']++;
  if (!same(found, before.now)) fail('After a kill', found, m.now);
  return before;
}

async function secondTab(m: Model): Promise<void> {
  counts['second tabs']++;
  told.push('second tab');
  const { driver } = browser;
  const first = await driver.getWindowHandle();
  await t.saved();
  await driver.switchTo().newWindow('tab');
  await driver.get(`${server.url}/p/velmarrow/fit?glyph=${glyph}`);
  await until('the word', async () => /Looking only/.test(await t.text('body')));
  await settles(m);
  await driver.close();
  await driver.switchTo().window(first);
}

await browser.driver.get(server.url);
await t.find('a[href="/p/velmarrow/draw"]');
const start = await values();
let model: Model = { past: [], now: start, future: [] };
const began = Date.now();
const left = () => MINUTES * 60_000 - (Date.now() - began);
while (left() > 0) {
  let before = model;
  for (let i = 1 + Math.floor(next() * 6); i > 0; i--) {
    before = model;
    model = await gesture(model);
    await settles(model);
  }
  const event = next();
  if (event < 0.35) model = await killed(before, model);
  else if (event < 0.55) {
    counts['loaded anew']++;
    told.push('loaded anew');
    await t.saved();
    const found = await values();
    if (!same(found, model.now)) fail('After a reload', found, model.now);
  } else if (event < 0.65) await secondTab(model);
  else if (event < 0.75) {
    counts['full disks']++;
    told.push('full disk');
    await t.saved();
    await disk(true);
    model = await gesture(model);
    await settles(model);
    await until('the sign', async () => /Not saved/.test(await t.text('body')));
    await disk(false);
    await t.saved();
  } else await show(among(GLYPHS));
  if (counts.kills % 10 === 0) console.log(`${Math.round((Date.now() - began) / 1000)} s`, JSON.stringify(counts));
}
await t.saved();
const end = await values();
if (!same(end, model.now)) fail('At the end', end, model.now);
for (let i = model.past.length; i > 0; i--) {
  await until('undo to be there', () =>
    browser.driver.executeScript<boolean>(`return !document.querySelector('button[aria-label="Undo"]').disabled`),
  );
  await t.press('Undo');
}
await t.saved();
const back = await values();
if (!same(back, start)) fail('All taken back', back, start);
console.table(counts);
console.log(`${model.past.length} steps were taken back to the start.`);
await browser.quit();
server.stop();
process.exit(0);
