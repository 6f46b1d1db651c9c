import { Reader, Writer } from './binary';

export type NameRecord = { platformID: number; encodingID: number; languageID: number; nameID: number; value: string };

/** nameID values by what they hold. */
export const NAME_ID = {
  copyright: 0,
  family: 1,
  subfamily: 2,
  uniqueID: 3,
  full: 4,
  version: 5,
  postScript: 6,
  trademark: 7,
  manufacturer: 8,
  designer: 9,
  description: 10,
  vendorURL: 11,
  designerURL: 12,
  licence: 13,
  licenceURL: 14,
  typographicFamily: 16,
  typographicSubfamily: 17,
  compatibleFull: 18,
  sampleText: 19,
  wwsFamily: 21,
  wwsSubfamily: 22,
  variationsPrefix: 25,
} as const;

const isWide = (r: { platformID: number }) => r.platformID === 3 || r.platformID === 0;

function encode(record: NameRecord): number[] {
  const out: number[] = [];
  for (let i = 0; i < record.value.length; i++) {
    const code = record.value.charCodeAt(i);
    if (isWide(record)) out.push(code >> 8, code & 255);
    // Strings of other platforms are kept byte by byte as they were read.
    else out.push(code < 256 ? code : 63);
  }
  return out;
}

/** Naming table, version 0; equal strings are stored once. */
export const name = {
  tag: 'name',
  write(records: readonly NameRecord[]): Uint8Array {
    const sorted = [...records].sort(
      (a, b) =>
        a.platformID - b.platformID ||
        a.encodingID - b.encodingID ||
        a.languageID - b.languageID ||
        a.nameID - b.nameID,
    );
    const storage = new Writer();
    const offsets = new Map<string, number>();
    const out = new Writer()
      .uint16(0)
      .uint16(sorted.length)
      .uint16(6 + sorted.length * 12);
    for (const r of sorted) {
      const bytes = encode(r);
      const key = bytes.join();
      let offset = offsets.get(key);
      if (offset === undefined) {
        offset = storage.length;
        storage.raw(bytes);
        offsets.set(key, offset);
      }
      out
        .uint16(r.platformID)
        .uint16(r.encodingID)
        .uint16(r.languageID)
        .uint16(r.nameID)
        .uint16(bytes.length)
        .uint16(offset);
    }
    return out.raw(storage.toBytes()).toBytes();
  },
  read(bytes: Uint8Array): NameRecord[] {
    const from = new Reader(bytes, 'name');
    from.seek(2);
    const count = from.uint16();
    const storage = from.uint16();
    const records: NameRecord[] = [];
    for (let i = 0; i < count; i++) {
      from.seek(6 + i * 12);
      const record = {
        platformID: from.uint16(),
        encodingID: from.uint16(),
        languageID: from.uint16(),
        nameID: from.uint16(),
        value: '',
      };
      const length = from.uint16();
      const raw = from.seek(storage + from.uint16()).raw(length);
      for (let k = 0; k < length; k += isWide(record) ? 2 : 1) {
        record.value += String.fromCharCode(isWide(record) ? (raw[k]! << 8) | (raw[k + 1] ?? 0) : raw[k]!);
      }
      records.push(record);
    }
    return records;
  },
};
