import fc from 'fast-check';
import { folded, unfolded } from './large';

const change = fc.record(
  {
    path: fc.array(fc.oneof(fc.stringMatching(/^[a-z]{1,6}$/), fc.nat(99)), { minLength: 1, maxLength: 4 }),
    before: fc.oneof(fc.integer(), fc.string(), fc.constant(null), fc.array(fc.record({ x: fc.integer() }))),
    after: fc.oneof(fc.integer(), fc.string(), fc.array(fc.double({ noNaN: true, noDefaultInfinity: true }))),
  },
  { requiredKeys: ['path', 'after'] },
);
const plain = (v: unknown) => JSON.parse(JSON.stringify(v));

test('what is folded comes back as it was; short lists are not folded', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(change, { maxLength: 300, size: 'max' }), async (patch) => {
      const record = { sentence: 'all', patch, at: 5 };
      const kept = await folded(record, 'patch');
      expect(kept === record).toBe(
        patch.length <= 80 || patch.some((c) => ['pictures', 'kept'].includes(`${c.path[0]}`)),
      );
      expect(plain(unfolded(structuredClone(kept), 'patch'))).toEqual(plain(record));
    }),
    { numRuns: 40, seed: 3 },
  );
});

test('what holds bytes stays as it is; what was damaged is left for whoever reads it', async () => {
  const bytes = {
    steps: Array.from({ length: 200 }, (_, i) => ({ path: ['pictures', `p${i}`], value: new Uint8Array(3) })),
  };
  expect(await folded(bytes, 'steps')).toBe(bytes);
  for (const wrong of [null, 7, 'text', [], { patchText: ['[1', '[]'] }, { patchText: [4] }, { patchText: 'no' }])
    expect(unfolded(wrong, 'patch')).toBe(wrong);
});

test('a value that is gone stays gone', async () => {
  const patch = Array.from({ length: 100 }, (_, i) => ({
    path: ['glyphs', `g${i}`],
    before: { name: 'a' },
    after: undefined,
  }));
  const back = unfolded(await folded({ patch }, 'patch'), 'patch') as { patch: typeof patch };
  expect(back.patch).toHaveLength(100);
  expect(back.patch.every((c) => c.after === undefined)).toBe(true);
});
