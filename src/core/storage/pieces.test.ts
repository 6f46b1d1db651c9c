import fc from 'fast-check';
import { inPieces } from './pieces';

class Crash extends Error {}

/** A store in memory that can stop working after so many writes. */
function memory() {
  const records = new Map<string, unknown>();
  let left = Number.POSITIVE_INFINITY;
  const write = async (work: () => void) => {
    if (left-- <= 0) throw new Crash();
    work();
  };
  return {
    records,
    die: (after: number) => {
      left = after;
    },
    store: {
      get: async (key: string) => structuredClone(records.get(key)),
      set: (key: string, value: unknown) => write(() => records.set(key, structuredClone(value))),
      remove: (key: string) => write(() => records.delete(key)),
      keys: async () => [...records.keys()],
    },
  };
}

const texts = (n: number, of: string) => Array.from({ length: n }, (_, i) => `${of}${i}`.repeat(9));
const step = (of: string, n = 30) => ({
  position: 3,
  entry: { sentence: of, patchText: texts(n, of) },
  stepsText: texts(n, of),
});

test('a record of much text lies in pieces, each within bounds, and comes back as it was', async () => {
  const { store, records } = memory();
  const parted = inPieces(store, 200);
  await parted.set('log/1', step('a'));
  await parted.set('log/2', step('b', 2));
  await parted.set('meta', { version: 3 });
  expect(records.size).toBeGreaterThan(10);
  for (const value of records.values()) expect(JSON.stringify(value).length).toBeLessThan(400);
  expect(await parted.keys()).toEqual(['log/1', 'log/2', 'meta']);
  for (const one of [parted, inPieces(store, 200), inPieces(parted, 200)]) {
    expect(await one.get('log/1')).toEqual(step('a'));
    expect(await one.get('log/2')).toEqual(step('b', 2));
    expect(await one.get('meta')).toEqual({ version: 3 });
    expect(await one.get('log/3')).toBeUndefined();
  }
  await parted.set('log/1', step('c', 3));
  expect(records.size).toBe(3);
  await inPieces(store, 200).remove('log/1');
  await parted.remove('log/2');
  expect([...records.keys()]).toEqual(['meta']);
});

test('a piece that is gone leaves the record without that list, not with a part of it', async () => {
  const { store, records } = memory();
  const parted = inPieces(store, 200);
  await parted.set('log/1', step('a'));
  records.delete([...records.keys()].find((k) => k !== 'log/1')!);
  const found = (await parted.get('log/1')) as ReturnType<typeof step>;
  expect(found.entry.patchText).toBe('in pieces');
  expect(found.stepsText).toEqual(texts(30, 'a'));
});

test('killed at any write a record is the old one or the new one, and what is left of either goes', async () => {
  const action = fc.record({
    key: fc.constantFrom('a', 'b'),
    size: fc.constantFrom(1, 12, 40),
    removes: fc.boolean(),
    dieAfter: fc.nat(16),
  });
  await fc.assert(
    fc.asyncProperty(fc.array(action, { minLength: 1, maxLength: 12 }), async (actions) => {
      const { store, records, die } = memory();
      let parted = inPieces(store, 300);
      const held = new Map<string, unknown>();
      for (const [i, { key, size, removes, dieAfter }] of actions.entries()) {
        const next = removes ? undefined : step(`s${i}`, size);
        die(dieAfter);
        const ended = await (removes ? parted.remove(key) : parted.set(key, next)).then(
          () => true,
          (error) => {
            if (!(error instanceof Crash)) throw error;
            return false;
          },
        );
        die(Number.POSITIVE_INFINITY);
        if (!ended) parted = inPieces(store, 300);
        const found = await parted.get(key);
        if (ended) expect(found).toEqual(next);
        else expect([held.get(key), next]).toContainEqual(found);
        if (found === undefined) held.delete(key);
        else held.set(key, found);
      }
      for (const [key, value] of held) expect(await parted.get(key)).toEqual(value);
      for (const key of ['a', 'b']) await parted.remove(key);
      await inPieces(store, 300).set('c', {});
      expect([...records.keys()]).toEqual(['c']);
    }),
    { numRuns: 300 },
  );
});

test('a small record is written before the store is asked anything, and stands though pieces cannot be looked for', async () => {
  const { store, records } = memory();
  const asked: string[] = [];
  const parted = inPieces(
    {
      ...store,
      set: (key, value) => {
        asked.push(`set ${key}`);
        return store.set(key, value);
      },
      keys: async () => {
        asked.push('keys');
        throw new Crash();
      },
    },
    200,
  );
  await parted.set('journal/1', { sentence: 'a' });
  expect(asked).toEqual(['set journal/1', 'keys']);
  expect(records.get('journal/1')).toEqual({ sentence: 'a' });
  // What it was in pieces goes the next time, once that can be done.
  await inPieces(store, 200).set('log/1', step('a'));
  await parted.set('log/1', step('b', 1));
  await inPieces(store, 200).set('log/1', step('c', 1));
  expect([...records.keys()].sort()).toEqual(['journal/1', 'log/1']);
});
