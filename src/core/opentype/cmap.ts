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
  let last = -1;
  for (let i = 0; i < count; i++) {
    const end = from.seek(at(0, i)).uint16();
    const start = from.seek(at(1, i)).uint16();
    const delta = from.seek(at(2, i)).uint16();
    const rangeAt = at(3, i);
    const range = from.seek(rangeAt).uint16();
    // A character belongs to the first segment that reaches it; so no two are ever gone through twice.
    for (let code = Math.max(start, last + 1); code <= end && code < 0xffff; code++) {
      let glyph = (code + delta) & 0xffff;
      if (range !== 0) {
        glyph = from.seek(rangeAt + range + 2 * (code - start)).uint16();
        if (glyph !== 0) glyph = (glyph + delta) & 0xffff;
      }
      if (glyph !== 0) map.set(code, glyph);
    }
    last = Math.max(last, end);
  }
  return map;
}

/** Format 12 (runs of glyphs) and 13 (many characters to one glyph). */
function readGroups(from: Reader, many: boolean): Map<number, number> {
  const base = from.at;
  const count = from.seek(base + 12).uint32();
  const map = new Map<number, number>();
  let last = -1;
  for (let i = 0; i < count; i++) {
    const start = from.uint32();
    const end = from.uint32();
    const glyph = from.uint32();
    if (end < start || end > 0x10ffff || start <= last)
      refuse(`The cmap table has a damaged group ${i + 1} (${start} to ${end}).`);
    last = end;
    for (let code = start; code <= end; code++) map.set(code, many ? glyph : glyph + code - start);
  }
  return map;
}

/** Format 0 (bytes), 6 and 10 (one dense run). */
function readDense(from: Reader, format: number): Map<number, number> {
  const base = from.at;
  const wide = format === 10;
  const first = format === 0 ? 0 : wide ? from.seek(base + 12).uint32() : from.seek(base + 6).uint16();
  const count = format === 0 ? 256 : wide ? from.uint32() : from.uint16();
  if (format === 0) from.seek(base + 6);
  if (count > 0x10ffff || first + count > 0x110000) refuse(`The cmap table has a damaged run of ${count} characters.`);
  const map = new Map<number, number>();
  for (let i = 0; i < count; i++) {
    const glyph = format === 0 ? from.uint8() : from.uint16();
    if (glyph !== 0) map.set(first + i, glyph);
  }
  return map;
}

const READABLE = [12, 10, 4, 6, 13, 0];

function readSubtable(from: Reader, format: number): Map<number, number> {
  if (format === 4) return readFormat4(from);
  return format === 12 || format === 13 ? readGroups(from, format === 13) : readDense(from, format);
}

/** A glyph wanted for a character followed by a variation selector; none stands for the character's usual glyph. */
export type Variation = { code: number; selector: number; glyph: number | undefined };

/** Format 14: variation sequences. */
function readVariations(from: Reader): Variation[] {
  const base = from.at;
  const count = from.seek(base + 6).uint32();
  const out: Variation[] = [];
  for (let i = 0; i < count; i++) {
    const selector = from.seek(base + 10 + i * 11).uint24();
    const usual = from.uint32();
    const own = from.uint32();
    if (usual > 0) {
      const ranges = from.seek(base + usual).uint32();
      for (let k = 0; k < ranges; k++) {
        const start = from.uint24();
        const more = from.uint8();
        for (let c = 0; c <= more; c++) out.push({ code: start + c, selector, glyph: undefined });
      }
    }
    if (own > 0) {
      const mappings = from.seek(base + own).uint32();
      for (let k = 0; k < mappings; k++) out.push({ code: from.uint24(), selector, glyph: from.uint16() });
    }
    if (out.length > 1e6) refuse('The cmap table has more variation sequences than can be.');
  }
  return out;
}

/** Variation sequences; one that stands for the character's usual glyph goes into the list of those. */
function writeFormat14(map: CharacterMap, variations: readonly Variation[]): Uint8Array {
  const selectors = [...new Set(variations.map((v) => v.selector))].sort((a, b) => a - b);
  const head = new Writer();
  const body = new Writer();
  const bodyAt = 10 + selectors.length * 11;
  for (const selector of selectors) {
    const own = new Map(
      variations.filter((v) => v.selector === selector).map((v) => [v.code, v.glyph ?? map.get(v.code)]),
    );
    const codes = [...own.keys()].sort((a, b) => a - b);
    const usual = codes.filter((c) => map.has(c) && own.get(c) === map.get(c));
    const other = codes.filter((c) => own.get(c) !== undefined && !(map.has(c) && own.get(c) === map.get(c)));
    const ranges: { start: number; more: number }[] = [];
    for (const c of usual) {
      const last = ranges[ranges.length - 1];
      if (last && c === last.start + last.more + 1 && last.more < 255) last.more++;
      else ranges.push({ start: c, more: 0 });
    }
    head.uint24(selector).uint32(ranges.length > 0 ? bodyAt + body.length : 0);
    if (ranges.length > 0) body.uint32(ranges.length);
    for (const r of ranges) body.uint24(r.start).uint8(r.more);
    head.uint32(other.length > 0 ? bodyAt + body.length : 0);
    if (other.length > 0) body.uint32(other.length);
    for (const c of other) body.uint24(c).uint16(own.get(c)!);
  }
  return new Writer()
    .uint16(14)
    .uint32(bodyAt + body.length)
    .uint32(selectors.length)
    .raw(head.toBytes())
    .raw(body.toBytes())
    .toBytes();
}

/** Symbol fonts keep their characters at U+F000; they are also meant for the plain ones below. */
const SYMBOL = 0xf000;

/** Do all characters lie where symbol fonts have them, or at the plain places below? */
export function isSymbol(map: CharacterMap): boolean {
  const codes = [...map.keys()];
  const inSymbols = (c: number) => c >= SYMBOL && c < SYMBOL + 256;
  return codes.some(inSymbols) && codes.every((c) => inSymbols(c) || (c < 256 && map.get(c) === map.get(SYMBOL + c)));
}

/** Character to glyph index mapping: format 4 for everyone, format 12 where code points pass U+FFFF. */
export const cmap = {
  tag: 'cmap',
  /**
   * Subtables for all platforms that are asked today. Characters that all stand at U+F000 to U+F0FF (and perhaps at the
   * plain ones below them too) make a symbol font: its Windows subtable says so. Sequences make a format 14 subtable.
   */
  write(map: CharacterMap, variations: readonly Variation[] = []): Uint8Array {
    const beyond = [...map.keys()].some((c) => c > 0xffff);
    const bmp = writeFormat4(map);
    const full = beyond ? writeFormat12(map) : undefined;
    const sequences = variations.length > 0 ? writeFormat14(map, variations) : undefined;
    const records: [platform: number, encoding: number, table: Uint8Array | undefined][] = [
      [0, 3, bmp],
      [0, 4, full],
      [0, 5, sequences],
      [3, isSymbol(map) ? 0 : 1, bmp],
      [3, 10, full],
    ];
    const present = records.flatMap(([platform, encoding, table]) => (table ? [{ platform, encoding, table }] : []));
    const tables = [...new Set(present.map((r) => r.table))];
    const out = new Writer().uint16(0).uint16(present.length);
    const start = 4 + present.length * 8;
    const offsets = new Map(
      tables.map((t, i) => [t, start + tables.slice(0, i).reduce((sum, one) => sum + one.length, 0)]),
    );
    for (const { platform, encoding, table } of present)
      out.uint16(platform).uint16(encoding).uint32(offsets.get(table)!);
    for (const t of tables) out.raw(t);
    return out.toBytes();
  },
  /** The best Unicode map of the table; a symbol font's is used where it has no other. */
  read(bytes: Uint8Array): Map<number, number> {
    const found = subtablesOf(bytes).flatMap((t) => {
      const unicode =
        (t.platform === 0 && t.encoding !== 5) || (t.platform === 3 && (t.encoding === 1 || t.encoding === 10));
      const symbol = t.platform === 3 && t.encoding === 0;
      const rank = READABLE.indexOf(t.format);
      return rank >= 0 && (unicode || symbol) ? [{ ...t, rank: rank + (symbol ? 100 : 0), symbol }] : [];
    });
    const best = found.sort((a, b) => a.rank - b.rank)[0];
    if (!best) return new Map();
    const map = readSubtable(new Reader(bytes, 'cmap').seek(best.offset), best.format);
    if (!best.symbol) return map;
    for (const [code, glyph] of [...map])
      if (code >= SYMBOL && code < SYMBOL + 256 && !map.has(code - SYMBOL)) map.set(code - SYMBOL, glyph);
    return map;
  },
  /** Variation sequences, where the table has any. */
  variations(bytes: Uint8Array): Variation[] {
    const table = subtablesOf(bytes).find((t) => t.format === 14);
    return table ? readVariations(new Reader(bytes, 'cmap').seek(table.offset)) : [];
  },
};

function subtablesOf(bytes: Uint8Array): { platform: number; encoding: number; offset: number; format: number }[] {
  const from = new Reader(bytes, 'cmap');
  const count = from.seek(2).uint16();
  return Array.from({ length: count }, (_, i) => {
    const platform = from.seek(4 + i * 8).uint16();
    const encoding = from.uint16();
    const offset = from.uint32();
    return { platform, encoding, offset, format: from.seek(offset).uint16() };
  });
}
