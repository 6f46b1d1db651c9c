import fc from 'fast-check';
import { widthValues } from './widths';

/** Bytes that all written widths take together. */
function cost(advances: readonly number[], defaultWidthX: number, nominal: number): number {
  return advances
    .filter((a) => a !== defaultWidthX)
    .reduce((sum, a) => sum + (Math.abs(a - nominal) <= 107 ? 1 : Math.abs(a - nominal) <= 1131 ? 2 : 3), 0);
}

const advances = fc.array(fc.oneof(fc.integer({ min: 200, max: 900 }), fc.constantFrom(0, 500, 560, 2400)), {
  maxLength: 60,
});

test('no other nominal width that reaches a glyph from below would write the widths in fewer bytes', () => {
  fc.assert(
    fc.property(advances, (all) => {
      const { defaultWidthX, nominalWidthX } = widthValues(all);
      const spent = cost(all, defaultWidthX, nominalWidthX);
      for (const nominal of [0, ...all.map((a) => a + 107)])
        expect(spent).toBeLessThanOrEqual(cost(all, defaultWidthX, nominal));
    }),
  );
});

test('the most frequent advance is understood, the least of several; nothing needs nothing', () => {
  expect(widthValues([500, 560, 560, 300]).defaultWidthX).toBe(560);
  expect(widthValues([500, 300]).defaultWidthX).toBe(300);
  expect(widthValues([])).toEqual({ defaultWidthX: 0, nominalWidthX: 0 });
  expect(widthValues([640, 640, 700])).toEqual({ defaultWidthX: 640, nominalWidthX: 807 });
});
