import { refuse } from '../base/result';
import { Reader, Writer } from './binary';

/** Code point to glyph index. */
export type CharacterMap = ReadonlyMap<number, number>;

/** Runs of code points whose glyph indices rise with them. */
type Run = { start: number; end: number; glyph: number };

function runsOf(map: CharacterMap, last: number): Run[] {
  const runs: Run[] = [];
  for (const code of [...map.keys()].filter((c) => c <= last).sort((a, b) => a - b)) {
    const glyph = map.get(code)!;
    const run = runs[runs.length - 1];
    if (run && code === run.end + 1 && glyph === run.glyph + (code - run.start)) run.end = code;
    else runs.push({ start: code, end: code, glyph });
  }
  return runs;
}

/** Segment mapping to delta values: the Basic Multilingual Plane. */
function writeFormat4(map: CharacterMap): Uint8Array {
  const runs = [...runsOf(map, 0xfffe), { start: 0xffff, end: 0xffff, glyph: 0 }];
  const count = runs.length;
  const power = 2 ** Math.floor(Math.log2(count));
  const out = new Writer();
  out
    .uint16(4)
    .uint16(16 + count * 8)
    .uint16(0);
  out
    .uint16(count * 2)
    .uint16(power * 2)
    .uint16(Math.log2(power))
    .uint16((count - power) * 2);
  for (const r of runs) out.uint16(r.end);
  out.uint16(0);
  for (const r of runs) out.uint16(r.start);
  for (const r of runs) out.uint16(r.start === 0xffff ? 1 : (r.glyph - r.start) & 0xffff);
  for (const _ of runs) out.uint16(0);
  return out.toBytes();
}

/** Segmented coverage: all of Unicode. */
function writeFormat12(map: CharacterMap): Uint8Array {
  const runs = runsOf(map, 0x10ffff);
  const out = new Writer();
  out
    .uint16(12)
    .uint16(0)
    .uint32(16 + runs.length * 12)
    .uint32(0)
    .uint32(runs.length);
  for (const r of runs) out.uint32(r.start).uint32(r.end).uint32(r.glyph);
  return out.toBytes();
}

function readFormat4(from: Reader): Map<number, number> {
  const base = from.at;
  const count = from.seek(base + 6).uint16() / 2;
  const at = (array: number, i: number) => base + 14 + array * count * 2 + (array > 0 ? 2 : 0) + i * 2;
  const map = new Map<number, number>();
  for (let i = 0; i < count; i++) {
    const end = from.seek(at(0, i)).uint16();
    const start = from.seek(at(1, i)).uint16();
    const delta = from.seek(at(2, i)).uint16();
    const rangeAt = at(3, i);
    const range = from.seek(rangeAt).uint16();
    for (let code = start; code <= end && code < 0xffff; code++) {
      let glyph = (code + delta) & 0xffff;
      if (range !== 0) {
        glyph = from.seek(rangeAt + range + 2 * (code - start)).uint16();
        if (glyph !== 0) glyph = (glyph + delta) & 0xffff;
      }
      if (glyph !== 0) map.set(code, glyph);
    }
  }
  return map;
}

function readFormat12(from: Reader): Map<number, number> {
  const base = from.at;
  const count = from.seek(base + 12).uint32();
  const map = new Map<number, number>();
  for (let i = 0; i < count; i++) {
    const start = from.uint32();
    const end = from.uint32();
    const glyph = from.uint32();
    if (end < start || end > 0x10ffff) refuse(`The cmap table has a damaged group ${i + 1} (${start} to ${end}).`);
    for (let code = start; code <= end; code++) map.set(code, glyph + code - start);
  }
  return map;
}

/** Character to glyph index mapping: format 4 for everyone, format 12 where code points pass U+FFFF. */
export const cmap = {
  tag: 'cmap',
  write(map: CharacterMap): Uint8Array {
    const beyond = [...map.keys()].some((c) => c > 0xffff);
    const bmp = writeFormat4(map);
    const full = beyond ? writeFormat12(map) : undefined;
    const records = full
      ? [
          [0, 3, 0],
          [0, 4, 1],
          [3, 1, 0],
          [3, 10, 1],
        ]
      : [
          [0, 3, 0],
          [3, 1, 0],
        ];
    const header = 4 + records.length * 8;
    const out = new Writer().uint16(0).uint16(records.length);
    for (const [platform, encoding, table] of records) {
      out
        .uint16(platform!)
        .uint16(encoding!)
        .uint32(table === 0 ? header : header + bmp.length);
    }
    out.raw(bmp);
    if (full) out.raw(full);
    return out.toBytes();
  },
  /** The best Unicode map of the table. */
  read(bytes: Uint8Array): Map<number, number> {
    const from = new Reader(bytes, 'cmap');
    from.seek(2);
    const count = from.uint16();
    const found: { rank: number; offset: number; format: number }[] = [];
    for (let i = 0; i < count; i++) {
      const platform = from.seek(4 + i * 8).uint16();
      const encoding = from.uint16();
      const offset = from.uint32();
      const format = from.seek(offset).uint16();
      const unicode = platform === 0 ? encoding !== 5 : platform === 3 && (encoding === 1 || encoding === 10 || encoding === 0);
      if (unicode && (format === 4 || format === 12)) found.push({ rank: format, offset, format });
    }
    const best = found.sort((a, b) => b.rank - a.rank)[0];
    if (!best) return new Map();
    from.seek(best.offset);
    return best.format === 12 ? readFormat12(from) : readFormat4(from);
  },
};
