import { gdefWithStore, readGdef, writeGdef } from './gdef';
import { DeltaStore } from './itemStore';
import { itemDelta, readGdefStore } from './variations';

const classes = new Map([
  [1, 1],
  [2, 3],
  [3, 2],
]);
const store = (() => {
  const made = new DeltaStore(1);
  made.add([{ region: [[0, 1, 1]], delta: 40 }]);
  return made.finished().bytes;
})();

test.each([
  ['1.0', { classes, carets: new Map([[3, [250]]]) }],
  ['1.2', { classes, carets: new Map([[3, [250]]]), markSets: [[2]] }],
])('a table of version %s keeps what it says when a store is put behind it', (_, said) => {
  const whole = gdefWithStore(writeGdef(said), store)!;
  expect(readGdef(whole)).toEqual({ classes, carets: new Map([[3, [250]]]) });
  expect(itemDelta(readGdefStore(whole)!, 0, 0, [0.5])).toBe(20);
});

test('carets that vary lead into the store; a table that has one, and bytes that are none, are left', () => {
  const own = writeGdef({
    classes,
    carets: new Map([[3, [{ x: 250, device: { kind: 'variation', outer: 0, inner: 0 } }]]]),
    store,
  });
  expect(readGdef(own).carets).toEqual(new Map([[3, [250]]]));
  expect(itemDelta(readGdefStore(own)!, 0, 0, [1])).toBe(40);
  expect(gdefWithStore(own, store)).toBeUndefined();
  expect(gdefWithStore(new Uint8Array(4), store)).toBeUndefined();
});
