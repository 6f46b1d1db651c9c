/**
 * A table of which parts lie behind it: numbers are written in order, parts as 16-bit offsets to where they come to lie. Equal
 * parts are written once. Undefined parts are offset 0.
 */
export class Packed {
  private readonly fields: (number | { part: Uint8Array | undefined })[] = [];
  private hasParts = false;

  /** A 16-bit number, signed or not. */
  number(...values: readonly number[]): this {
    for (const v of values) this.fields.push(v & 0xffff);
    return this;
  }

  part(...parts: readonly (Uint8Array | undefined)[]): this {
    for (const part of parts) this.fields.push({ part });
    this.hasParts = true;
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
    if (!this.hasParts) {
      const bytes = new Uint8Array(this.fields.length * 2);
      (this.fields as number[]).forEach((v, i) => {
        bytes[2 * i] = v >> 8;
        bytes[2 * i + 1] = v;
      });
      return { bytes, farthest: 0 };
    }
    const places = new Map<Uint8Array | string, number>();
    const behind: Uint8Array[] = [];
    const head = this.fields.length * 2;
    let end = head;
    let farthest = 0;
    const offsets = this.fields.map((f) => {
      if (typeof f === 'number') return f;
      if (!f.part) return 0;
      const key = f.part.length <= LONGEST_SHARED ? keyOf(f.part) : f.part;
      let place = places.get(key);
      if (place === undefined) {
        place = end;
        places.set(key, place);
        behind.push(f.part);
        end += f.part.length;
      }
      if (place > farthest) farthest = place;
      return place & 0xffff;
    });
    const bytes = new Uint8Array(end);
    offsets.forEach((v, i) => {
      bytes[2 * i] = v >> 8;
      bytes[2 * i + 1] = v & 0xff;
    });
    let at = head;
    for (const part of behind) {
      bytes.set(part, at);
      at += part.length;
    }
    return { bytes, farthest };
  }
}

/** Longer parts are hardly ever equal; they are not compared. */
const LONGEST_SHARED = 1024;

/** Bytes as text, to find equal ones by. */
const keyOf = (bytes: Uint8Array): string => String.fromCharCode.apply(null, bytes as unknown as number[]);
