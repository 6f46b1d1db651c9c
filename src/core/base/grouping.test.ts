import fc from 'fast-check';
import { addTo } from './grouping';

test('things are listed under their keys, all of them, in their order', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.constantFrom('a', 'b', 'c'), fc.nat())), (pairs) => {
      const lists = new Map<string, number[]>();
      for (const [key, item] of pairs) addTo(lists, key, item);
      expect([...lists.keys()]).toEqual([...new Set(pairs.map(([key]) => key))]);
      for (const [key, list] of lists) expect(list).toEqual(pairs.filter(([k]) => k === key).map(([, item]) => item));
    }),
  );
});
