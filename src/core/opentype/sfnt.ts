import { refuse } from '../base/result';
import { Reader, Writer } from './binary';

export const SFNT_TRUETYPE = 0x00010000;
export const SFNT_CFF = 0x4f54544f;

/** Sum of a table's big-endian 32-bit words, the last padded with zeros (OpenType, "Calculating checksums"). */
export function checksumOf(bytes: Uint8Array): number {
  let sum = 0;
  const whole = bytes.length & ~3;
  for (let i = 0; i < whole; i += 4) {
    sum = (sum + ((bytes[i]! << 24) | (bytes[i + 1]! << 16) | (bytes[i + 2]! << 8) | bytes[i + 3]!)) | 0;
  }
  for (let i = whole; i < bytes.length; i++) sum = (sum + (bytes[i]! << (24 - 8 * (i - whole)))) | 0;
  return sum >>> 0;
}

/** The head table as its checksum counts it: without the adjustment of the whole file's. */
export function withoutAdjustment(head: Uint8Array): Uint8Array {
  const out = new Uint8Array(head);
  if (out.length >= 12) out.fill(0, 8, 12);
  return out;
}

/**
 * Joins tables into a font file: sorted directory, padded tables, checksums, `head.checksumAdjustment` (left as it is where
 * a file is only put together again).
 */
export function writeSfnt(
  version: number,
  tables: ReadonlyMap<string, Uint8Array>,
  { keepAdjustment = false } = {},
): Uint8Array {
  if (tables.size === 0) refuse('A font file needs at least one table.');
  const tags = [...tables.keys()].sort();
  const count = tags.length;
  const power = 2 ** Math.floor(Math.log2(count));
  const out = new Writer();
  out
    .uint32(version)
    .uint16(count)
    .uint16(power * 16)
    .uint16(Math.log2(power))
    .uint16((count - power) * 16);
  let offset = 12 + count * 16;
  let headAt = -1;
  for (const tag of tags) {
    const bytes = tables.get(tag)!;
    if (tag === 'head') headAt = offset;
    out
      .tag(tag)
      .uint32(checksumOf(tag === 'head' ? withoutAdjustment(bytes) : bytes))
      .uint32(offset)
      .uint32(bytes.length);
    offset += (bytes.length + 3) & ~3;
  }
  for (const tag of tags) out.raw(tables.get(tag)!).pad(4);
  const file = out.toBytes();
  if (headAt >= 0 && !keepAdjustment) {
    new DataView(file.buffer).setUint32(headAt + 8, 0);
    new DataView(file.buffer).setUint32(headAt + 8, (0xb1b0afba - checksumOf(file)) >>> 0);
  }
  return file;
}

export type Sfnt = { version: number; tables: Map<string, Uint8Array> };

const COLLECTION = 0x74746366;
const MOST_FACES = 1000;

/** Where each face of a collection begins; a plain font file is one face at the beginning. */
export function faceOffsets(bytes: Uint8Array): number[] {
  const from = new Reader(bytes, 'font directory');
  if (bytes.length < 12 || from.uint32() !== COLLECTION) return [0];
  const count = from.seek(8).uint32();
  if (count === 0 || count > MOST_FACES) refuse(`The font collection says it holds ${count} faces.`);
  return Array.from({ length: count }, () => from.uint32());
}

/** Bytes of each table of a font, by tag in their order. */
export const tableSizes = (bytes: Uint8Array): Record<string, number> =>
  Object.fromEntries([...readSfnt(bytes).tables].map(([tag, table]) => [tag, table.length]));

/** The tables of a font file, as views into its bytes. Refuses what is not a font or is cut short. */
export function readSfnt(bytes: Uint8Array, start = 0): Sfnt {
  const from = new Reader(bytes, 'font directory');
  const version = bytes.length >= start + 12 ? from.seek(start).uint32() : 0;
  if (version !== SFNT_TRUETYPE && version !== SFNT_CFF && version !== 0x74727565) {
    refuse('This is not an OpenType or TrueType font file.');
  }
  const count = from.uint16();
  const tables = new Map<string, Uint8Array>();
  for (let i = 0; i < count; i++) {
    from.seek(start + 12 + i * 16);
    const tag = from.tag();
    from.uint32();
    const offset = from.uint32();
    const length = from.uint32();
    if (offset + length > bytes.length) {
      refuse(`The ${tag} table should end at byte ${offset + length}, but the file ends at byte ${bytes.length}.`);
    }
    tables.set(tag, bytes.subarray(offset, offset + length));
  }
  return { version, tables };
}

/** A table that must be there. */
export function tableOf(font: Sfnt, tag: string): Uint8Array {
  return font.tables.get(tag) ?? refuse(`The font has no ${tag} table.`);
}
