import { unzlibSync, zlibSync } from 'fflate';
import { refuse } from '../base/result';
import { Reader, Writer } from './binary';
import { checksumOf, readSfnt, withoutAdjustment, writeSfnt } from './sfnt';

export const WOFF_SIGNATURE = 0x774f4646;

/** No font is taken to unpack to more than this. */
const MOST_BYTES = 256 * 1024 * 1024;

/** The font file inside a WOFF 1.0 file (W3C, "WOFF File Format 1.0"); its metadata and private data are left out. */
export function fromWoff(bytes: Uint8Array): Uint8Array {
  const from = new Reader(bytes, 'WOFF header');
  if (from.uint32() !== WOFF_SIGNATURE) refuse('This is not a WOFF file.');
  const flavour = from.uint32();
  from.seek(12);
  const count = from.uint16();
  const tables = new Map<string, Uint8Array>();
  let total = 0;
  for (let i = 0; i < count; i++) {
    from.seek(44 + i * 20);
    const tag = from.tag();
    const offset = from.uint32();
    const packed = from.uint32();
    const length = from.uint32();
    total += length;
    if (offset + packed > bytes.length)
      refuse(`The ${tag} table should end at byte ${offset + packed}, but the file ends at byte ${bytes.length}.`);
    if (packed > length || total > MOST_BYTES)
      refuse(`The ${tag} table says it unpacks to ${length} bytes, which cannot be.`);
    tables.set(tag, unpacked(bytes.subarray(offset, offset + packed), length, tag));
  }
  return writeSfnt(flavour, tables, { keepAdjustment: true });
}

function unpacked(bytes: Uint8Array, length: number, tag: string): Uint8Array {
  if (bytes.length === length) return bytes;
  let out: Uint8Array | undefined;
  try {
    out = unzlibSync(bytes, { out: new Uint8Array(length) });
  } catch {
    out = undefined;
  }
  return out?.length === length ? out : refuse(`The ${tag} table is packed in a damaged way.`);
}

/** A font file as WOFF 1.0: every table packed by itself where that makes it smaller. */
export function toWoff(font: Uint8Array): Uint8Array {
  const { version, tables } = readSfnt(font);
  const tags = [...tables.keys()].sort();
  const packed = tags.map((tag) => {
    const plain = tables.get(tag)!;
    const small = zlibSync(plain, { level: 9 });
    return { tag, plain, bytes: small.length < plain.length ? small : plain };
  });
  const padded = (n: number) => (n + 3) & ~3;
  const sfntSize = 12 + tags.length * 16 + packed.reduce((sum, p) => sum + padded(p.plain.length), 0);
  const size = 44 + tags.length * 20 + packed.reduce((sum, p) => sum + padded(p.bytes.length), 0);
  const revision = tables.get('head');
  const out = new Writer(size);
  out.uint32(WOFF_SIGNATURE).uint32(version).uint32(size).uint16(tags.length).uint16(0).uint32(sfntSize);
  // The version of the file is the font's own revision.
  out.raw(revision && revision.length >= 8 ? revision.subarray(4, 8) : [0, 1, 0, 0]);
  for (let i = 0; i < 5; i++) out.uint32(0);
  let offset = 44 + tags.length * 20;
  for (const p of packed) {
    out
      .tag(p.tag)
      .uint32(offset)
      .uint32(p.bytes.length)
      .uint32(p.plain.length)
      .uint32(checksumOf(p.tag === 'head' ? withoutAdjustment(p.plain) : p.plain));
    offset += padded(p.bytes.length);
  }
  for (const p of packed) out.raw(p.bytes).pad(4);
  return out.toBytes();
}
