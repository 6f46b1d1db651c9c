import { refuse } from '../base/result';
import { Reader } from './binary';
import { OP, STANDARD_STRINGS } from './cff';
import standard from './cffStandard.json';
import type { CffContour } from './charstring';
import { type Drawn, readCharstring } from './charstringRead';

/** Predefined strings (Adobe Technical Note 5176, appendix A). */
const standardStrings = standard.standardStrings.split(' ');

/** An INDEX of CFF (16-bit count) or CFF2 (32-bit count): its items as views. */
export function readIndex(from: Reader, wide = false): Uint8Array[] {
  const count = wide ? from.uint32() : from.uint16();
  if (count === 0) return [];
  const size = from.uint8();
  if (size < 1 || size > 4) refuse(`The CFF table has an index with offsets of ${size} bytes at byte ${from.at - 1}.`);
  if (count * size > from.bytes.length)
    refuse(`The CFF table has an index of ${count} items, more than fit, at byte ${from.at - 1}.`);
  const offsets = Array.from({ length: count + 1 }, () => {
    let v = 0;
    for (let i = 0; i < size; i++) v = v * 256 + from.uint8();
    return v;
  });
  const base = from.at - 1;
  const items = offsets.slice(1).map((end, i) => {
    const start = offsets[i]!;
    if (end < start) refuse(`The CFF table has an index whose offsets fall at byte ${base}.`);
    return from.seek(base + start).raw(end - start);
  });
  from.seek(base + offsets[count]!);
  return items;
}

/** A dictionary as operator -> operands. */
export function readDict(bytes: Uint8Array): Map<number, number[]> {
  const from = new Reader(bytes, 'CFF dictionary');
  const dict = new Map<number, number[]>();
  let operands: number[] = [];
  while (from.at < bytes.length) {
    const b = from.uint8();
    if (b <= 24) {
      if (operands.length > 520) refuse('A CFF dictionary has more operands than can be.');
      dict.set(b === 12 ? 0x0c00 | from.uint8() : b, operands);
      operands = [];
    } else if (b === 28) operands.push(from.int16());
    else if (b === 29) operands.push(from.uint32() | 0);
    else if (b === 30) operands.push(readReal(from));
    else if (b < 247) operands.push(b - 139);
    else if (b < 251) operands.push((b - 247) * 256 + from.uint8() + 108);
    else operands.push(-(b - 251) * 256 - from.uint8() - 108);
  }
  return dict;
}

function readReal(from: Reader): number {
  let text = '';
  for (;;) {
    const b = from.uint8();
    for (const nibble of [b >> 4, b & 15]) {
      if (nibble === 15) return Number(text);
      text += nibble < 10 ? String(nibble) : nibble === 10 ? '.' : nibble === 11 ? 'e' : nibble === 12 ? 'e-' : '-';
    }
  }
}

/** A font of a CFF table: outlines, names (of a CID-keyed one `cid00001`) and how many hints were passed over. */
export type CffFont = {
  glyphNames: string[];
  glyphs: { drawn: Drawn; advance: number }[];
  unitsPerEm: number;
  hints: number;
};

type Private = { local: readonly Uint8Array[]; nominal: number; fallback: number };

function readPrivate(from: Reader, dict: ReadonlyMap<number, number[]>): Private {
  const [size = 0, at = 0] = dict.get(OP.Private) ?? [];
  const priv = readDict(from.seek(at).raw(size));
  const subrsAt = priv.get(OP.Subrs)?.[0];
  return {
    local: subrsAt === undefined ? [] : readIndex(from.seek(at + subrsAt)),
    nominal: priv.get(OP.nominalWidthX)?.[0] ?? 0,
    fallback: priv.get(OP.defaultWidthX)?.[0] ?? 0,
  };
}

/** Names, outlines and advances of a CFF table, name-keyed or CID-keyed; subroutines are flattened. */
export function readCff(bytes: Uint8Array): CffFont {
  const from = new Reader(bytes, 'CFF');
  from.seek(2);
  from.seek(from.uint8());
  readIndex(from);
  const top = readDict(readIndex(from)[0] ?? refuse('The CFF table holds no font.'));
  const strings = readIndex(from).map((b) => String.fromCharCode(...b));
  const global = readIndex(from);
  const offsetOf = (op: number) => top.get(op)?.[0] ?? refuse(`The CFF top dictionary lacks operator ${op}.`);
  const charstrings = readIndex(from.seek(offsetOf(OP.CharStrings)));
  const sids = readCharset(from, top.get(OP.charset)?.[0] ?? 0, charstrings.length);
  const keyed = top.has(OP.ROS);
  const fonts = keyed
    ? readIndex(from.seek(offsetOf(OP.FDArray))).map((d) => readPrivate(from, readDict(d)))
    : [readPrivate(from, top)];
  const select = keyed ? readFdSelect(from.seek(offsetOf(OP.FDSelect)), charstrings.length) : [];
  const text = (sid: number) => standardStrings[sid] ?? strings[sid - STANDARD_STRINGS] ?? `glyph${sid}`;
  const glyphNames = sids.map((s, i) => (i === 0 ? '.notdef' : keyed ? `cid${String(s).padStart(5, '0')}` : text(s)));
  const glyphs = charstrings.map((c, i) => {
    const font =
      fonts[select[i] ?? 0] ?? refuse(`The CFF table gives glyph ${i} to a font dictionary that is not there.`);
    const drawn = readCharstring(c, { local: font.local, global }, `glyph ${glyphNames[i] ?? i}`);
    return { drawn, advance: drawn.width === undefined ? font.fallback : drawn.width + font.nominal };
  });
  const byName = new Map(glyphNames.map((name, i) => [name, i]));
  // Old fonts build accented letters of two others, told by their places in the standard encoding.
  const bare = glyphs.map((g) => g.drawn.contours);
  for (const { drawn } of glyphs) {
    if (!drawn.accent || keyed) continue;
    const { base, mark, dx, dy } = drawn.accent;
    const [lower, upper] = [base, mark].map(
      (code) => bare[byName.get(standardStrings[standardSid(code)] ?? '') ?? -1] ?? [],
    );
    drawn.contours.push(...lower!, ...upper!.map((c) => movedContour(c, dx, dy)));
  }
  const scale = top.get(OP.FontMatrix)?.[0] ?? 0.001;
  return {
    glyphNames,
    glyphs,
    unitsPerEm: Math.round(1 / scale),
    hints: glyphs.reduce((n, g) => n + g.drawn.hints, 0),
  };
}

const movedContour = (c: CffContour, dx: number, dy: number): CffContour => ({
  x: c.x + dx,
  y: c.y + dy,
  segments: c.segments.map((s) => s.map((v, i) => v + (i % 2 === 0 ? dx : dy))),
});

/** Runs of codes of the standard encoding whose strings follow one another: first code, last code, first string. */
const STANDARD_RUNS = [
  [32, 126, 1],
  [161, 175, 96],
  [177, 180, 111],
  [182, 189, 115],
  [191, 191, 123],
  [193, 200, 124],
  [202, 203, 132],
  [205, 208, 134],
  [225, 225, 138],
  [227, 227, 139],
  [232, 235, 140],
  [241, 241, 144],
  [245, 245, 145],
  [248, 251, 146],
] as const;

/** The string number a code has in the standard encoding (Adobe Technical Note 5176, appendix B), 0 for none. */
export function standardSid(code: number): number {
  const run = STANDARD_RUNS.find(([first, last]) => code >= first && code <= last);
  return run ? run[2] + code - run[0] : 0;
}

/** Which font dictionary each glyph of a CID-keyed font belongs to. */
export function readFdSelect(from: Reader, count: number): number[] {
  const format = from.uint8();
  if (format === 0) return Array.from({ length: count }, () => from.uint8());
  if (format !== 3 && format !== 4) refuse(`The CFF table has an FDSelect of the unknown format ${format}.`);
  const wide = format === 4;
  const ranges = wide ? from.uint32() : from.uint16();
  const out = new Array<number>(count).fill(0);
  let first = wide ? from.uint32() : from.uint16();
  for (let i = 0; i < ranges; i++) {
    const fd = wide ? from.uint16() : from.uint8();
    const next = wide ? from.uint32() : from.uint16();
    if (next < first) refuse('The CFF table has an FDSelect whose ranges fall.');
    out.fill(fd, first, Math.min(next, count));
    first = next;
  }
  return out;
}

/** The string or character number of every glyph. */
function readCharset(from: Reader, offset: number, count: number): number[] {
  if (offset === 1 || offset === 2) return (offset === 1 ? standard.expert : standard.expertSubset).slice(0, count);
  const sids = [0];
  if (offset === 0) {
    while (sids.length < count) sids.push(sids.length);
    return sids;
  }
  from.seek(offset);
  const format = from.uint8();
  if (format > 2) refuse(`The CFF table has a charset of the unknown format ${format}.`);
  while (sids.length < count) {
    const first = from.uint16();
    const more = format === 0 ? 0 : format === 1 ? from.uint8() : from.uint16();
    for (let i = 0; i <= more && sids.length < count; i++) sids.push(first + i);
  }
  return sids;
}
