import { findIn } from './find';

const TEXTS = [
  { id: 'f1', text: '@a = [a.sc b];\nfeature smcp {\n  sub a by a.sc;\n} smcp;' },
  { id: 'f2', text: 'feature liga { sub f a by f_a; } liga;' },
];

test('a name is found as a whole name, with its line; parts of names when asked', () => {
  const { places, count, whole } = findIn(TEXTS, 'a');
  expect([count, whole]).toEqual([2, true]);
  expect(places[0]).toEqual({ id: 'f1', from: 36, to: 37, line: 3, before: 'sub ', found: 'a', after: ' by a.sc;' });
  expect(places[1]).toMatchObject({ id: 'f2', line: 1 });
  const parts = findIn(TEXTS, 'a', true);
  expect([parts.count, parts.whole]).toEqual([10, false]);
});

test('what is no whole name anywhere is found in parts; nothing finds nothing; long lists are counted', () => {
  expect(findIn(TEXTS, 'sub f a').places.map((p) => p.id)).toEqual(['f2']);
  expect(findIn(TEXTS, 'A').count).toBe(0);
  expect(findIn(TEXTS, '').places).toEqual([]);
  const many = findIn([{ id: 'x', text: 'a\n'.repeat(1000) }], 'a');
  expect([many.count, many.places.length, many.places[399]!.line]).toEqual([1000, 400, 400]);
});
