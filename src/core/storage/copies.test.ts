import { buildStarter } from '../../../demo/starter';
import { setSides } from '../fitting/sides';
import type { Entry } from '../project/history';
import { patchBetween } from '../project/patch';
import { glyphNamed } from '../project/queries';
import { Copies, type Copy, isDue, keptOf, saidOf } from './copies';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
const NOW = 500 * DAY + 10 * HOUR;
const copy = (at: number, more: Partial<Copy> = {}): Copy => ({
  at,
  position: 5,
  glyphs: 60,
  bytes: 1000,
  said: '',
  ...more,
});

test('a copy is due when something was done and an hour has gone, or the clock has gone back', () => {
  expect(isDue([], 0, NOW)).toBe(false);
  expect(isDue([], 1, NOW)).toBe(true);
  expect(isDue([copy(NOW - HOUR)], 5, NOW)).toBe(false);
  expect(isDue([copy(NOW - HOUR)], 6, NOW)).toBe(true);
  expect(isDue([copy(NOW - HOUR + 1)], 6, NOW)).toBe(false);
  // Taken back is done as well.
  expect(isDue([copy(NOW - 2 * HOUR), copy(NOW - 9 * HOUR, { position: 3 })], 3, NOW)).toBe(true);
  expect(isDue([copy(NOW + 40 * DAY)], 6, NOW)).toBe(true);
});

test('of the last day one an hour stays, of the last thirty one a day, and the newest always', () => {
  const quarters = Array.from({ length: 4 * 24 * 40 }, (_, i) => copy(NOW - i * (HOUR / 4)));
  const kept = keptOf(quarters, NOW);
  const ages = kept.map((c) => NOW - c.at);
  expect(ages[0]).toBe(0);
  expect(ages.filter((a) => a < DAY).length).toBe(25);
  expect(kept.length).toBeLessThanOrEqual(25 + 30);
  expect(Math.max(...ages)).toBeLessThanOrEqual(30 * DAY);
  expect(new Set(kept.filter((c) => NOW - c.at >= DAY).map((c) => Math.floor(c.at / DAY))).size).toBe(
    kept.filter((c) => NOW - c.at >= DAY).length,
  );
  expect(keptOf([copy(NOW - 400 * DAY)], NOW)).toHaveLength(1);
  // What is kept once is kept again.
  expect(keptOf(kept, NOW)).toEqual(kept);
});

test('copies take no more than their room, the newest apart', () => {
  const large = [0, 1, 2, 3].map((d) => copy(NOW - d * DAY, { bytes: 60_000_000 }));
  expect(keptOf(large, NOW)).toEqual(large.slice(0, 2));
  expect(keptOf([copy(NOW, { bytes: 900_000_000 }), copy(NOW - DAY)], NOW)).toHaveLength(1);
});

test('what changed is said in few words', () => {
  const before = buildStarter();
  const done = setSides(before, { at: { glyph: glyphNamed(before, 'n')!.id, master: 'm1' }, left: 77 });
  if (!done.ok) throw new Error(done.reason);
  const entry: Entry = { sentence: done.sentence, patch: patchBetween(before, done.project) };
  expect(saidOf(done.project, [])).toBe('The first copy.');
  expect(saidOf(done.project, [entry])).toBe('1 step: n.');
  const of = (path: Entry['patch'][number]['path']): Entry => ({
    sentence: '',
    patch: [{ path, before: 1, after: 2 }],
  });
  const texts = of(['texts', 'galley']);
  const kern = of(['masters', 0, 'kerning', 'x']);
  expect(saidOf(done.project, [entry, texts, kern])).toBe('3 steps: n, kerning, texts.');
});

test('copies are listed newest first, a damaged one hides no other, and what is let go takes its file along', async () => {
  const records = new Map<string, unknown>();
  const copies = new Copies({
    get: async (k) => records.get(k),
    set: async (k, v) => void records.set(k, v),
    remove: async (k) => void records.delete(k),
    keys: async () => [...records.keys()],
  });
  const file = (n: number) => new Uint8Array([n]);
  await copies.add(copy(NOW - 2 * HOUR), file(1), NOW);
  await copies.add(copy(NOW), file(2), NOW);
  await copies.add(copy(NOW + 60_000), file(3), NOW + 60_000);
  records.set('copy/damaged', { at: 'x' });
  // The second of the same hour took the place of the first.
  expect((await copies.list()).map((c) => c.at)).toEqual([NOW + 60_000, NOW - 2 * HOUR]);
  expect(await copies.file(NOW + 60_000)).toEqual(file(3));
  expect(await copies.file(NOW)).toBeUndefined();
  await copies.remove(NOW - 2 * HOUR);
  expect([...records.keys()].sort()).toEqual([`copy/${NOW + 60_000}`, 'copy/damaged', `file/${NOW + 60_000}`]);
});
