import { takeProject } from './tabLock';

/** Tabs of a browser that has no locks, as over plain http from another machine. */
beforeAll(() => {
  Object.assign(globalThis, { navigator: {}, window: { addEventListener: () => {} } });
});

let next = 0;
const name = () => `p${next++}`;

test('one tab has a project; the next looks on until it lets go', async () => {
  const id = name();
  const first = await takeProject(id);
  expect(first.mine).toBe(true);
  const second = await takeProject(id);
  if (second.mine) throw new Error('two tabs have it');
  const freed = second.freed.then(() => 'freed');
  first.release();
  expect(await freed).toBe('freed');
  second.release();
  const third = await takeProject(id);
  expect(third.mine).toBe(true);
  third.release();
});

test('of tabs that come at once one has it; another project is another matter', async () => {
  const id = name();
  const all = await Promise.all([takeProject(id), takeProject(id), takeProject(id), takeProject(name())]);
  for (const lock of all) lock.release();
  expect(all.slice(0, 3).filter((l) => l.mine)).toHaveLength(1);
  expect(all[3]!.mine).toBe(true);
});
