import fc from 'fast-check';
import { attempt } from '../base/result';
import { readSfnt, SFNT_TRUETYPE, writeSfnt } from './sfnt';
import { fromWoff, toWoff } from './woff';

const tables = fc.dictionary(
  fc.constantFrom('cmap', 'glyf', 'name', 'prep', 'OS/2', 'post'),
  fc.uint8Array({ minLength: 1, maxLength: 600 }),
  {
    minKeys: 1,
    noNullPrototype: true,
  },
);
const head = Uint8Array.from({ length: 54 }, (_, i) =>
  i === 5 ? 7 : i === 12 ? 0x5f : i === 13 ? 0x0f : i === 14 ? 0x3c : i === 15 ? 0xf5 : 0,
);
const font = (more: Record<string, Uint8Array> = {}) =>
  writeSfnt(SFNT_TRUETYPE, new Map([['head', head], ...Object.entries(more)]));
const at = (bytes: Uint8Array, place: number) => new DataView(bytes.buffer, bytes.byteOffset).getUint32(place);

test('every table comes back byte for byte, and the whole file does', () => {
  fc.assert(
    fc.property(tables, (more) => {
      const plain = font(more);
      const packed = toWoff(plain);
      const back = fromWoff(packed);
      expect(Buffer.compare(Buffer.from(back), Buffer.from(plain))).toBe(0);
      for (const [tag, bytes] of readSfnt(plain).tables)
        expect([...readSfnt(back).tables.get(tag)!]).toEqual([...bytes]);
    }),
    { numRuns: 60 },
  );
});

test('the header says how long the file is, packed and unpacked, and which version', () => {
  const plain = font({ cmap: new Uint8Array(4000), name: Uint8Array.of(1, 2, 3) });
  const packed = toWoff(plain);
  expect(at(packed, 8)).toBe(packed.length);
  expect(at(packed, 16)).toBe(plain.length);
  expect(packed.length % 4).toBe(0);
  // Zeros pack well; three bytes do not and stand as they are.
  expect(packed.length).toBeLessThan(600);
  expect([...packed.subarray(20, 24)]).toEqual([...head.subarray(4, 8)]);
  expect(packed.subarray(24, 44).every((b) => b === 0)).toBe(true);
});

describe('damage', () => {
  const packed = toWoff(font({ cmap: new Uint8Array(4000) }));
  const entry = (tag: string) => {
    for (let place = 44; ; place += 20)
      if (String.fromCharCode(...packed.subarray(place, place + 4)) === tag) return place;
  };
  const changed = (place: number, value: number) => {
    const out = packed.slice();
    new DataView(out.buffer).setUint32(place, value);
    return out;
  };
  test.each([
    ['another signature', changed(0, 0x774f4632), /not a WOFF file/],
    [
      'a table beyond the end',
      changed(entry('cmap') + 4, 1 << 20),
      /The cmap table should end at byte \d+, but the file ends at byte \d+/,
    ],
    [
      'a table that grows when packed',
      changed(entry('cmap') + 12, 3),
      /The cmap table says it unpacks to 3 bytes, which cannot be/,
    ],
    [
      'a table that unpacks to more than any font',
      changed(entry('cmap') + 12, 0x7fffffff),
      /unpacks to 2147483647 bytes, which cannot be/,
    ],
    ['a wrong length', changed(entry('cmap') + 12, 5000), /The cmap table is packed in a damaged way/],
    ['a file cut short', packed.slice(0, 70), /./],
  ])('%s is refused', (_, bytes, reason) => {
    const result = attempt(() => fromWoff(bytes));
    expect(result.ok ? 'accepted' : result.reason).toMatch(reason);
  });
});
