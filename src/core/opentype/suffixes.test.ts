import fc from 'fast-check';
import { addTo } from '../base/grouping';
import { repeats, sharedLengths, suffixOrder } from './suffixes';

const text = fc.array(fc.nat(3), { maxLength: 60 }).map((list) => Int32Array.from(list));
const from = (t: Int32Array, at: number) => [...t.subarray(at)];
const before = (a: readonly number[], b: readonly number[]): number => {
  for (let i = 0; i < Math.min(a.length, b.length); i++) if (a[i] !== b[i]) return a[i]! - b[i]!;
  return a.length - b.length;
};

test('suffixes come in order, and what neighbours share is counted', () => {
  fc.assert(
    fc.property(text, (t) => {
      const order = suffixOrder(t);
      const sorted = Array.from(t, (_, i) => i).sort((a, b) => before(from(t, a), from(t, b)));
      expect([...order]).toEqual(sorted);
      const shared = sharedLengths(t, order);
      sorted.forEach((at, i) => {
        if (i === 0) return;
        const [a, b] = [from(t, sorted[i - 1]!), from(t, at)];
        const same = a.findIndex((v, k) => v !== b[k]);
        expect(shared[i]).toBe(same < 0 ? a.length : same);
      });
    }),
  );
});

/** Every stretch that repeats and would repeat less often if it were longer at either end, the long way. */
function maximalRepeats(t: Int32Array): Map<string, number> {
  const places = new Map<string, number[]>();
  for (let at = 0; at < t.length; at++)
    for (let length = 1; at + length <= t.length; length++) {
      const key = from(t, at).slice(0, length).join();
      addTo(places, key, at);
    }
  const out = new Map<string, number>();
  for (const [key, list] of places) {
    const length = key.split(',').length;
    // The ends of the text differ from everything.
    const left = new Set(list.map((at) => (at === 0 ? `start ${at}` : t[at - 1])));
    const right = new Set(list.map((at) => (at + length === t.length ? `end ${at}` : t[at + length])));
    const starts = list.includes(0);
    if (list.length > 1 && (left.size > 1 || starts) && right.size > 1) out.set(key, list.length);
  }
  return out;
}

test('all maximal repeats are found, with how often they stand', () => {
  fc.assert(
    fc.property(text, (t) => {
      const { list } = repeats(t, () => true);
      const found = new Map(list.map(({ at, length, count }) => [from(t, at).slice(0, length).join(), count]));
      expect(found.size).toBe(list.length);
      expect([...found].sort()).toEqual([...maximalRepeats(t)].sort());
    }),
  );
});

test('at every place the repeats that begin there are chained from the longest down', () => {
  fc.assert(
    fc.property(text, (t) => {
      const { list, deepest, shorter } = repeats(t, ({ length }) => length > 1);
      for (let at = 0; at < t.length; at++) {
        const chain: string[] = [];
        for (let c = deepest[at]!; c >= 0; c = shorter[c]!)
          chain.push(from(t, list[c]!.at).slice(0, list[c]!.length).join());
        const here = list
          .map((r) => from(t, r.at).slice(0, r.length))
          .filter((stretch) => stretch.every((v, k) => t[at + k] === v));
        const expected = here.sort((a, b) => b.length - a.length).map((s) => s.join());
        expect(chain).toEqual(expected);
      }
    }),
  );
});

test('texts without any repeat, and of one letter only', () => {
  expect(repeats(Int32Array.of(), () => true).list).toEqual([]);
  expect(repeats(Int32Array.of(5, 3, 9, 1), () => true).list).toEqual([]);
  expect(
    repeats(new Int32Array(6), () => true)
      .list.map((r) => [r.length, r.count])
      .sort(),
  ).toEqual([
    [1, 6],
    [2, 5],
    [3, 4],
    [4, 3],
    [5, 2],
  ]);
});
