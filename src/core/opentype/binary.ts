import { refuse } from '../base/result';

/** Grows as it is written; big-endian, as OpenType wants. */
export class Writer {
  private bytes: Uint8Array;
  private view: DataView;
  length = 0;

  /** `expected` bytes are set aside at once; more is found as needed. */
  constructor(expected = 256) {
    this.bytes = new Uint8Array(expected);
    this.view = new DataView(this.bytes.buffer);
  }

  private room(count: number): number {
    const at = this.length;
    this.length += count;
    if (this.length > this.bytes.length) {
      const grown = new Uint8Array(Math.max(this.length, this.bytes.length * 2));
      grown.set(this.bytes);
      this.bytes = grown;
      this.view = new DataView(grown.buffer);
    }
    return at;
  }
  uint8(v: number): this {
    const at = this.room(1);
    this.view.setUint8(at, v);
    return this;
  }
  int8(v: number): this {
    const at = this.room(1);
    this.view.setInt8(at, v);
    return this;
  }
  uint16(v: number): this {
    const at = this.room(2);
    this.view.setUint16(at, v);
    return this;
  }
  int16(v: number): this {
    const at = this.room(2);
    this.view.setInt16(at, v);
    return this;
  }
  uint24(v: number): this {
    return this.uint8((v >>> 16) & 255).uint16(v & 0xffff);
  }
  uint32(v: number): this {
    const at = this.room(4);
    this.view.setUint32(at, v);
    return this;
  }
  /** A signed 64-bit count of seconds; exact up to 2^53. */
  longDateTime(v: number): this {
    return this.uint32(Math.floor(v / 2 ** 32)).uint32(v >>> 0);
  }
  /** 16.16 fixed point. */
  fixed(v: number): this {
    const at = this.room(4);
    this.view.setInt32(at, Math.round(v * 65536));
    return this;
  }
  /** 2.14 fixed point. */
  f2dot14(v: number): this {
    return this.int16(Math.round(v * 16384));
  }
  tag(text: string): this {
    for (let i = 0; i < 4; i++) this.uint8(text.charCodeAt(i));
    return this;
  }
  raw(bytes: ArrayLike<number>): this {
    const at = this.room(bytes.length);
    this.bytes.set(bytes, at);
    return this;
  }
  pad(multiple: number): this {
    while (this.length % multiple) this.uint8(0);
    return this;
  }
  /** Overwrites two bytes at a place written before. */
  patchUint16(at: number, v: number): void {
    this.view.setUint16(at, v);
  }
  /** Begins again with the same memory. */
  reset(): this {
    this.length = 0;
    return this;
  }
  toBytes(): Uint8Array {
    return this.bytes.slice(0, this.length);
  }
}

/** Reads big-endian values; every read is checked and a short table is refused by name and offset. */
export class Reader {
  private readonly view: DataView;
  at = 0;

  constructor(
    readonly bytes: Uint8Array,
    readonly name: string,
  ) {
    this.view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  }
  private take(count: number): number {
    const at = this.at;
    if (at < 0 || at + count > this.bytes.length) {
      refuse(`The ${this.name} table ends at byte ${this.bytes.length}, but a value is expected at byte ${at}.`);
    }
    this.at = at + count;
    return at;
  }
  uint8 = () => this.view.getUint8(this.take(1));
  int8 = () => this.view.getInt8(this.take(1));
  uint16 = () => this.view.getUint16(this.take(2));
  int16 = () => this.view.getInt16(this.take(2));
  uint24 = () => this.uint8() * 65536 + this.uint16();
  uint32 = () => this.view.getUint32(this.take(4));
  longDateTime = () => this.uint32() * 2 ** 32 + this.uint32();
  fixed = () => this.view.getInt32(this.take(4)) / 65536;
  f2dot14 = () => this.int16() / 16384;
  tag = () => String.fromCharCode(this.uint8(), this.uint8(), this.uint8(), this.uint8());
  raw(count: number): Uint8Array {
    const at = this.take(count);
    return this.bytes.subarray(at, at + count);
  }
  /** Moves to an offset; reads there are checked as always. */
  seek(offset: number): this {
    this.at = offset;
    return this;
  }
}
