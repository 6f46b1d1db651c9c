import type { Reader, Writer } from '../binary';
import { Writer as Bytes } from '../binary';
import type { Codec } from './codec';

/**
 * A device table (OpenType, "Device and VariationIndex Tables"): differences at pixel sizes, or which item of the variation
 * store a value varies by.
 */
export type Device =
  | { kind: 'sizes'; startSize: number; deltas: readonly number[] }
  | { kind: 'variation'; outer: number; inner: number };

const VARIATION_INDEX = 0x8000;
/** Is the device table at the reader's place one of the variation store? */
export function isVariation(from: Reader): boolean {
  from.uint32();
  return from.uint16() === VARIATION_INDEX;
}

/** Bits of one delta in formats 1 to 3. */
const bitsOf = (format: number): number => 1 << format;

export const device: Codec<Device> = {
  read(from) {
    const [a, b, format] = [from.uint16(), from.uint16(), from.uint16()];
    if (format === VARIATION_INDEX) return { kind: 'variation', outer: a, inner: b };
    if (format < 1 || format > 3 || b < a) return { kind: 'sizes', startSize: a, deltas: [] };
    const bits = bitsOf(format);
    const deltas: number[] = [];
    let word = 0;
    for (let i = 0; i <= b - a; i++) {
      const within = (i * bits) % 16;
      if (within === 0) word = from.uint16();
      const raw = (word >> (16 - bits - within)) & ((1 << bits) - 1);
      deltas.push(raw >= 1 << (bits - 1) ? raw - (1 << bits) : raw);
    }
    return { kind: 'sizes', startSize: a, deltas };
  },

  write(value) {
    const out = new Bytes();
    if (value.kind === 'variation')
      return out.uint16(value.outer).uint16(value.inner).uint16(VARIATION_INDEX).toBytes();
    const { startSize, deltas } = value;
    const fits = (bits: number) => deltas.every((d) => d >= -(1 << (bits - 1)) && d < 1 << (bits - 1));
    const format = fits(2) ? 1 : fits(4) ? 2 : 3;
    out
      .uint16(startSize)
      .uint16(startSize + deltas.length - 1)
      .uint16(format);
    const bits = bitsOf(format);
    const perWord = 16 / bits;
    for (let i = 0; i < deltas.length; i += perWord) {
      let word = 0;
      for (let k = 0; k < perWord; k++) word |= ((deltas[i + k] ?? 0) & ((1 << bits) - 1)) << (16 - bits * (k + 1));
      out.uint16(word & 0xffff);
    }
    return out.toBytes();
  },
};

/** The fields of a value record in the order of their bits (OpenType, "Value Record"). */
export const VALUE_FIELDS = ['xPlacement', 'yPlacement', 'xAdvance', 'yAdvance'] as const;
export type ValueField = (typeof VALUE_FIELDS)[number];
/** Numbers by field; offsets of device tables by field, from the table that the record belongs to. */
export type ValueRecord = Partial<Record<ValueField, number>> & { devices?: Partial<Record<ValueField, number>> };

/** The bit of a field in a value format; its device table's is four higher. */
export const valueBit = (field: ValueField): number => 1 << VALUE_FIELDS.indexOf(field);

/** Value records of one format: read and written field by field. */
export function valueRecords(format: number): {
  read(from: Reader): ValueRecord;
  write(out: Writer, value: ValueRecord): void;
  /** Bytes of one record. */
  size: number;
} {
  const plain = VALUE_FIELDS.filter((f) => format & valueBit(f));
  const devices = VALUE_FIELDS.filter((f) => format & (valueBit(f) << 4));
  return {
    size: 2 * (plain.length + devices.length),
    read(from) {
      const record: ValueRecord = {};
      for (const field of plain) record[field] = from.int16();
      for (const field of devices) {
        const offset = from.uint16();
        if (offset !== 0) record.devices = { ...record.devices, [field]: offset };
      }
      return record;
    },
    write(out, value) {
      for (const field of plain) out.int16(value[field] ?? 0);
      for (const field of devices) out.uint16(value.devices?.[field] ?? 0);
    },
  };
}
