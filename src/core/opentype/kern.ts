import { Reader } from './binary';

/** Pairs of the old `kern` table (horizontal, format 0), in the form of OpenType or of Apple; first -> second -> value. */
export function readKernTable(bytes: Uint8Array): Map<number, Map<number, number>> {
  const from = new Reader(bytes, 'kern');
  const apple = from.uint16() === 1;
  if (apple) from.seek(4);
  const count = apple ? from.uint32() : from.uint16();
  const out = new Map<number, Map<number, number>>();
  let start = from.at;
  for (let i = 0; i < count && start + 6 <= bytes.length; i++) {
    from.seek(start);
    if (!apple) from.uint16();
    const length = apple ? from.uint32() : from.uint16();
    const coverage = from.uint16();
    if (apple) from.uint16();
    const format = apple ? coverage & 255 : coverage >> 8;
    const plain = apple ? (coverage & 0xe000) === 0 : (coverage & 7) === 1;
    if (format === 0 && plain) readPairs(from, out);
    // A long table's length does not fit in 16 bits; there is none after it then.
    if (length === 0) break;
    start += length;
  }
  return out;
}

function readPairs(from: Reader, out: Map<number, Map<number, number>>): void {
  const pairs = from.uint16();
  from.seek(from.at + 6);
  for (let k = 0; k < pairs; k++) {
    const first = from.uint16();
    const second = from.uint16();
    const row = out.get(first) ?? new Map<number, number>();
    out.set(first, row);
    row.set(second, (row.get(second) ?? 0) + from.int16());
  }
}
