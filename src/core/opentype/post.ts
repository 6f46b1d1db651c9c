import { Reader } from './binary';
import { type RecordOf, readFields, writeFields } from './fields';
import standard from './macGlyphNames.json';

const HEADER = [
  ['version', 'uint32'],
  ['italicAngle', 'fixed'],
  ['underlinePosition', 'int16'],
  ['underlineThickness', 'int16'],
  ['isFixedPitch', 'uint32'],
  ['minMemType42', 'uint32'],
  ['maxMemType42', 'uint32'],
  ['minMemType1', 'uint32'],
  ['maxMemType1', 'uint32'],
] as const;

export type Post = RecordOf<typeof HEADER> & { glyphNames: readonly string[] };

/** The glyph names of the standard Macintosh set, by number (OpenType specification, "post"). */
const standardNames = standard.names.split(' ');
const STANDARD_NAMES = standardNames.length;
const standardNumber = new Map(standardNames.map((n, i) => [n, i]));

/** PostScript information: version 2 with glyph names (TrueType, CFF2) or 3 without (CFF carries its own). */
export const post = {
  tag: 'post',
  write(record: Post): Uint8Array {
    const out = writeFields(HEADER, record);
    if (record.version !== 0x00020000) return out.toBytes();
    out.uint16(record.glyphNames.length);
    const own = record.glyphNames.filter((n) => !standardNumber.has(n));
    let next = STANDARD_NAMES;
    for (const n of record.glyphNames) out.uint16(standardNumber.get(n) ?? next++);
    for (const n of own) out.uint8(n.length).raw([...n].map((c) => c.charCodeAt(0)));
    return out.toBytes();
  },
  /** Names by glyph index; a version without names gives none. */
  read(bytes: Uint8Array): Post {
    const from = new Reader(bytes, 'post');
    const header = readFields(HEADER, from);
    if (header.version === 0x00010000) return { ...header, glyphNames: standardNames };
    if (header.version !== 0x00020000) return { ...header, glyphNames: [] };
    const indices = Array.from({ length: from.uint16() }, () => from.uint16());
    const own: string[] = [];
    while (from.at < bytes.length) {
      const length = from.uint8();
      // Some files are padded; a name that would run past the end is no name.
      if (from.at + length > bytes.length) break;
      own.push(String.fromCharCode(...from.raw(length)));
    }
    return { ...header, glyphNames: indices.map((i) => standardNames[i] ?? own[i - STANDARD_NAMES] ?? '') };
  },
};
