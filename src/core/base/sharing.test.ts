import { sharing } from './sharing';

test('what is equal is the earlier one; what differs is new, with its equal parts shared', () => {
  const before = { a: { x: 1, y: [1, 2] }, b: [{ n: 1 }, { n: 2 }], c: new Uint8Array([1, 2]), d: undefined };
  const copy = structuredClone(before);
  expect(sharing(before, copy)).toBe(before);
  const other = sharing(before, { ...structuredClone(before), b: [{ n: 1 }, { n: 3 }] });
  expect(other).toEqual({ ...before, b: [{ n: 1 }, { n: 3 }] });
  expect([other.a === before.a, other.b === before.b, other.b[0] === before.b[0], other.c === before.c]).toEqual([
    true,
    false,
    true,
    true,
  ]);
});

test('a field of any name stays a field', () => {
  const odd = JSON.parse('{"__proto__":{"n":1},"constructor":2}') as object;
  const made = sharing({}, { odd }).odd;
  expect(Object.keys(made)).toEqual(['__proto__', 'constructor']);
  expect(Object.keys(sharing(JSON.parse('{"__proto__":{"n":2}}'), odd))).toEqual(['__proto__', 'constructor']);
});

test.each<[string, unknown, unknown]>([
  ['a field more', { a: 1 }, { a: 1, b: undefined }],
  ['a field less', { a: 1, b: undefined }, { a: 1 }],
  ['an item more', [1], [1, undefined]],
  ['an item less', [1, 2], [1]],
  ['a list for fields', {}, []],
  ['other bytes', new Uint8Array([1]), new Uint8Array([2])],
  ['numbers of another kind', new Uint8Array([1, 0]), new Uint16Array([1])],
  ['0 and −0, which are written otherwise', [0], [-0]],
  ['nothing for a record', { a: {} }, { a: null }],
])('%s is told apart', (_, before, after) => {
  const made = sharing(before, after);
  expect(made).not.toBe(before);
  expect(made).toEqual(after);
});
