import { Writer } from '../binary';

/**
 * A table of which parts lie behind it: numbers are written in order, parts as 16-bit offsets to where they come to lie. Equal
 * parts are written once. Undefined parts are offset 0.
 */
export class Packed {
  private readonly fields: (number | { part: Uint8Array | undefined })[] = [];

  /** A 16-bit number, signed or not. */
  number(...values: readonly number[]): this {
    this.fields.push(...values.map((v) => v & 0xffff));
    return this;
  }

  part(...parts: readonly (Uint8Array | undefined)[]): this {
    this.fields.push(...parts.map((part) => ({ part })));
    return this;
  }

  /** How long the table with all of its parts would be. */
  get size(): number {
    return this.toBytes().length;
  }

  /** Undefined where a part lies farther than an offset reaches. */
  fitted(): Uint8Array | undefined {
    const { bytes, farthest } = this.packed();
    return farthest > 0xffff ? undefined : bytes;
  }

  toBytes(): Uint8Array {
    return this.packed().bytes;
  }

  private packed(): { bytes: Uint8Array; farthest: number } {
    const places = new Map<string, number>();
    const behind: Uint8Array[] = [];
    let at = this.fields.length * 2;
    let farthest = 0;
    const out = new Writer();
    for (const f of this.fields) {
      if (typeof f === 'number') {
        out.uint16(f);
        continue;
      }
      if (!f.part) {
        out.uint16(0);
        continue;
      }
      const key = keyOf(f.part);
      let place = places.get(key);
      if (place === undefined) {
        place = at;
        places.set(key, place);
        behind.push(f.part);
        at += f.part.length;
      }
      farthest = Math.max(farthest, place);
      out.uint16(place & 0xffff);
    }
    for (const part of behind) out.raw(part);
    return { bytes: out.toBytes(), farthest };
  }
}

/** Bytes as text, to find equal ones by. */
const keyOf = (bytes: Uint8Array): string => {
  let key = '';
  for (let i = 0; i < bytes.length; i += 8192) key += String.fromCharCode(...bytes.subarray(i, i + 8192));
  return key;
};
