import { Reader, Writer } from './binary';

/** Up to which size in pixels per em what is done: bit 0 grid-fit, 1 grey, 2 and 3 the same for symmetric smoothing. */
export type GaspRange = { rangeMaxPPEM: number; rangeGaspBehavior: number };

/** Grid-fitting and smoothing by size (OpenType, “gasp”). */
export const gasp = {
  tag: 'gasp',
  write(ranges: readonly GaspRange[]): Uint8Array {
    const out = new Writer().uint16(1).uint16(ranges.length);
    for (const r of ranges) out.uint16(r.rangeMaxPPEM).uint16(r.rangeGaspBehavior);
    return out.toBytes();
  },
  read(bytes: Uint8Array): GaspRange[] {
    const from = new Reader(bytes, 'gasp');
    from.seek(2);
    return Array.from({ length: from.uint16() }, () => ({
      rangeMaxPPEM: from.uint16(),
      rangeGaspBehavior: from.uint16(),
    }));
  },
};
