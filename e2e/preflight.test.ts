import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key, Origin, type WebElement } from 'selenium-webdriver';
import { readyDemo } from '../demo/ready';
import { writeProjectFile } from '../src/core/formats/project/projectFile';
import { reverseContour } from '../src/core/geometry/contour';
import { nestingDepths } from '../src/core/geometry/winding';
import type { Drawing, Glyph, Project } from '../src/core/project/model';
import { pairKey } from '../src/core/project/pairs';
import { glyphNamed } from '../src/core/project/queries';
import { withChanged } from '../src/core/testing/change';
import { planted, randomOf } from '../src/core/testing/plantedFaults';
import { until } from './browser';
import { sharedDemoBench } from './demoBench';

/** Faults planted in the demo, found in the stage, stepped through, mended, accepted, undone. */
const { opened, script, go } = sharedDemoBench();
const folder = mkdtempSync(join(tmpdir(), 'wendril-preflight-'));
const file = join(folder, 'Faulty.wendril');

function faulty(): Project {
  let p = readyDemo();
  const [light] = p.masters.map((m) => m.id) as [string];
  const random = randomOf(7);
  const inAll = (name: string, change: (d: Drawing, g: Glyph) => Partial<Drawing>) => {
    const g = glyphNamed(p, name)!;
    const drawings = Object.fromEntries(Object.entries(g.drawings).map(([m, d]) => [m, { ...d, ...change(d, g) }]));
    p = { ...p, glyphs: { ...p.glyphs, [g.id]: { ...g, drawings } } };
  };
  p = planted(p, glyphNamed(p, 'H')!, 'outlines/doubled', random)!.project;
  p = planted(p, glyphNamed(p, 'E')!, 'outlines/open', random)!.project;
  inAll('o', (d) => ({
    contours: d.contours.map((c, i) => (nestingDepths(d.contours)[i] === 1 ? reverseContour(c) : c)),
  }));
  p = planted(p, glyphNamed(p, 'O')!, 'outlines/extreme', random)!.project;
  p = withChanged(p, 'x', light, (d) => ({
    contours: d.contours.map((c, i) =>
      i === 0 ? { ...c, points: [...c.points, { x: 3, y: 4, type: 'line' as const }] } : c,
    ),
  }));
  inAll('z', () => ({ contours: [] }));
  const first = p.groups.find((g) => g.side === 'first' && g.members.length > 2)!;
  const second = p.groups.find((g) => g.side === 'second' && g.members.length > 2)!;
  return {
    ...p,
    family: { ...p.family, name: 'Faulty' },
    masters: p.masters.map((m, i) =>
      i > 0
        ? m
        : {
            ...m,
            kerning: {
              ...m.kerning,
              [pairKey({ kind: 'glyph', id: first.members[1]! }, { kind: 'group', id: second.id })]: 130,
              [pairKey({ kind: 'group', id: first.id }, { kind: 'glyph', id: second.members[1]! })]: -170,
            },
          },
    ),
  };
}

const status = () => opened().t.text('[data-testid="preflight-status"]');
/** Waits until the check has looked at everything. */
const looked = () =>
  until(
    'the check to be whole',
    async () => /glyphs\.( \d+ accepted)?$/.test((await status()).replace(/\s+/g, ' ')),
    60,
  );
/** What each kind counts, by its heading. */
const kinds = () =>
  script<Record<string, number>>(
    `document.querySelector('[data-testid="findings"]')?.scrollTo(0, 0);
    return Object.fromEntries([...document.querySelectorAll('[data-testid="findings"] [aria-expanded]')].map((b) => {
      const [, title, count] = b.children.length > 3 ? [0, b.children[2].innerText, b.children[3].innerText] : [0, '', 0];
      return [title, Number(count)];
    }))`,
  );
const reason = () => opened().t.text('[data-testid="finding-reason"]');
const choose = (text: string) =>
  until(`the finding “${text}”`, () =>
    script<boolean>(
      `document.querySelector('[data-testid="findings"]')?.scrollTo(0, 0);
      const row = [...document.querySelectorAll('[data-testid="findings"] [aria-pressed]')].find((b) => b.innerText.includes(arguments[0]));
      row?.click();
      return row !== undefined`,
      text,
    ),
  );
/** Shows one family of findings, so that its list is short. */
const only = async (family: string) => opened().t.pick('What is shown', family);

beforeAll(async () => {
  writeFileSync(file, writeProjectFile(faulty()));
  const { t, server } = opened();
  await t.driver.get(server.url);
  await (await t.find('[data-testid="open-file"]')).sendKeys(file);
  await t.find('[data-testid="galley-line"]');
  await t.saved();
  await t.driver.get((await t.driver.getCurrentUrl()).replace(/(\/p\/[^/]+)\/.*$/, '$1/preflight'));
  await looked();
});

test('every planted fault is found, the worst first, and the rail counts them', async () => {
  const { t } = opened();
  expect(await status()).toMatch(/errors?, \d+ to look at, \d+ notes/);
  await only('Outlines');
  const outlines = await kinds();
  expect(outlines).toMatchObject({
    'Open contours': 1,
    'Contours that run the wrong way': 1,
    'Extremes without a point': 1,
  });
  expect(
    await script<string>(
      `return [...document.querySelectorAll('[data-testid="findings"] [aria-expanded]')].sort((a, b) => a.getBoundingClientRect().top - b.getBoundingClientRect().top)[0].innerText`,
    ),
  ).toMatch(/Open contours/);
  expect(await kinds()).toHaveProperty(['Points on top of each other']);
  await only('Masters');
  expect(await kinds()).toHaveProperty(['Masters that disagree'], 1);
  await only('Characters');
  expect(await kinds()).toHaveProperty(['Characters without a drawing'], 1);
  await only('Kerning');
  expect(Object.keys(await kinds())).toContain('Values that contradict each other');
  expect(Number(await t.text('[data-testid="preflight-count"]'))).toBeGreaterThan(6);
  await only('Everything');
});

test('one steps through them with the keys, sees why they matter, and mends with Enter; undo brings the fault back', async () => {
  const { t } = opened();
  await only('Outlines');
  await choose('A contour is open');
  expect(await reason()).toMatch(/^A contour is open/);
  await t.press('Why it matters');
  expect(await t.text('[aria-label="The finding"]')).toMatch(/fills closed contours only/);
  await until(
    'the mend to be drawn',
    async () => (await t.driver.findElements(By.css('[aria-label="Ways to mend it"] svg'))).length > 0,
  );
  await t.keys(Key.ARROW_DOWN);
  await until('the next finding', async () => !/^A contour is open/.test(await reason()));
  await t.keys(Key.ARROW_UP);
  await until('the finding before', async () => /^A contour is open/.test(await reason()));
  await t.keys(Key.ENTER);
  await until('the contour to be closed', async () => !('Open contours' in (await kinds())));
  await t.chord(Key.CONTROL, 'z');
  await until('the fault to be back', async () => 'Open contours' in (await kinds()));
  // The filled counter: mended by its button, and the letter has its counter again.
  await choose('A counter runs the same way');
  await t.press('Reverse it');
  await until('the counter to be open', async () => !('Contours that run the wrong way' in (await kinds())));
});

test('a place can be seen nearer, and a point dragged on the spot', async () => {
  const { t } = opened();
  await only('Outlines');
  await choose('Two points stand at the same place');
  await t.press('Nearer');
  // The upper of the two points that stand at the marked place.
  const marked = () =>
    until('the marked point', () =>
      script<WebElement | null>(
        `const ring = document.querySelector('[aria-label="The finding"] svg circle.pointer-events-none');
        const at = (c) => ['cx', 'cy'].map((k) => Number(c.getAttribute(k)));
        const [x, y] = at(ring);
        return [...document.querySelectorAll('[data-testid="finding-point"]')].filter((c) => Math.hypot(at(c)[0] - x, at(c)[1] - y) < 1).pop() ?? null`,
      ),
    );
  const undone = () => script<boolean>(`return document.querySelector('button[aria-label="Undo"]').disabled`);
  const drag = async (dropped: boolean) => {
    const actions = t.driver
      .actions()
      .move({ origin: await marked() })
      .press();
    actions.move({ origin: Origin.POINTER, x: 30, y: -24 });
    if (dropped) actions.keyDown(Key.ESCAPE).keyUp(Key.ESCAPE);
    await actions.release().perform();
  };
  const steps = await undone();
  await drag(true);
  expect(await undone()).toBe(steps);
  const before = (await kinds())['Points on top of each other'];
  await drag(false);
  await until('the points to stand apart', async () => (await kinds())['Points on top of each other'] !== before);
  await t.chord(Key.CONTROL, 'z');
  await until('the points to be back', async () => (await kinds())['Points on top of each other'] === before);
});

test('all of a kind are mended at once, seen first, with one undo', async () => {
  const { t } = opened();
  await only('Outlines');
  const title = 'Points on top of each other';
  const before = (await kinds())[title];
  await script(
    `const head = [...document.querySelectorAll('[data-testid="findings"] [aria-expanded]')].find((b) => b.innerText.includes(arguments[0]));
    head.parentElement.querySelectorAll('button')[1].click()`,
    title,
  );
  await until(
    'the letters to be shown',
    async () => (await t.driver.findElements(By.css('[aria-label="Letters as they would be"] li'))).length > 1,
    60,
  );
  await t.press('Mend them');
  await until('the kind to be gone', async () => !(title in (await kinds())), 60);
  await t.chord(Key.CONTROL, 'z');
  await until('all to be back', async () => (await kinds())[title] === before, 60);
});

test('a contradiction of kerning is shown as the pair, with each of its values', async () => {
  const { t } = opened();
  await only('Kerning');
  await choose('So with');
  const drawn = (where: string) =>
    script<number>(
      `return document.querySelectorAll('[aria-label="The finding"] ' + arguments[0] + ' svg path').length`,
      where,
    );
  await until('the ways to mend it', async () => (await drawn('[aria-label="Ways to mend it"]')) === 4);
  // Two letters, large, and two in each way.
  expect(await drawn('')).toBe(6);
  const before = (await kinds())['Values that contradict each other']!;
  const said = await reason();
  // The list of families lets go of the keys.
  await t.keys(Key.ESCAPE);
  await t.keys(Key.ENTER);
  await until('the pair to have a value of its own', async () => (await reason()) !== said);
  expect((await kinds())['Values that contradict each other']).toBeLessThanOrEqual(before);
  await t.press('Undo');
  await until(
    'the contradiction to be back',
    async () => (await kinds())['Values that contradict each other'] === before,
  );
});

test('what is meant is accepted with a reason, counted, shown on request and brought back', async () => {
  const { t } = opened();
  await only('Masters');
  await choose('x');
  await t.keys('a');
  const field = await t.find('[aria-label="Why it is meant"]');
  await field.sendKeys('Drawn apart on purpose', Key.ENTER);
  await until('the finding to be accepted', async () => /1 accepted/.test(await status()));
  expect(Object.keys(await kinds())).not.toContain('Masters that disagree');
  await t.press('1 accepted');
  expect(await t.text('[aria-label="The finding"]')).toMatch(/Drawn apart on purpose/);
  await t.press('Bring it back');
  await until('nothing to be accepted', async () => !/accepted/.test(await status()));
  await until('the finding to stand again', async () => 'Masters that disagree' in (await kinds()));
});

test('what is looked for is the project’s choice', async () => {
  const { t } = opened();
  await only('Everything');
  await t.press('Measures');
  await script(`document.querySelectorAll('details').forEach((d) => { d.open = true })`);
  await script(
    `[...document.querySelectorAll('[role="dialog"] label')].find((l) => l.innerText === 'Open contours').click()`,
  );
  await t.keys(Key.ESCAPE);
  await only('Outlines');
  await until('open contours to be left alone', async () => !('Open contours' in (await kinds())));
  await t.press('Undo');
  await until('open contours to be looked for again', async () => 'Open contours' in (await kinds()));
});

test('glyphs tell how far they are; Draw marks the place; Cast says what stands in the way and asks for what lacks', async () => {
  const { t } = opened();
  await t.press('By glyph');
  expect(await t.text('[data-testid="by-glyph"]')).toMatch(
    /665 glyphs: \d+ drawn with nothing found, \d+ with findings, 1 not drawn/,
  );
  await t.pick('Which glyphs', 'Not drawn');
  await t.press('Findings');
  await only('Outlines');
  await choose('A contour is open');
  await t.press('Open in Draw');
  await t.find('[data-testid="draw-canvas"]');
  const mark = await t.find('[data-testid="finding-mark"]');
  expect(await mark.getAttribute('title')).toMatch(/open/);
  await script(`[...document.querySelectorAll('nav a')].find((a) => a.innerText.trim() === 'Cast').click()`);
  const standing = await t.find('[data-testid="standing"]');
  expect(await standing.getText()).toMatch(/Stands in the way/);
  const label = await until('the licence to be asked for', () =>
    script<boolean>(
      `return [...document.querySelectorAll('[data-testid="standing"] label')].some((l) => l.innerText.startsWith('Licence'))`,
    ),
  );
  expect(label).toBe(true);
  const licence = await t.find('[data-testid="standing"] label input');
  await licence.sendKeys('Made up for this test.', Key.ENTER);
  await until('it to be kept', () =>
    script<boolean>(
      `return ![...document.querySelectorAll('[data-testid="standing"] label')].some((l) => l.innerText.startsWith('Licence'))`,
    ),
  );
});

test('the demo opens to findings of its own without an error in the browser', async () => {
  await go('preflight');
  await looked();
  expect(await status()).not.toMatch(/error/);
  const logs = await opened().t.driver.manage().logs().get('browser');
  expect(logs.filter((l) => l.level.name === 'SEVERE').map((l) => l.message)).toEqual([]);
});
