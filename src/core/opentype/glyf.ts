import { refuse } from '../base/result';
import { Reader, Writer } from './binary';

/** A TrueType point; `on` tells an on-curve point from a quadratic's off-curve point. */
export type GlyfPoint = { x: number; y: number; on: boolean };
export type GlyfBox = { xMin: number; yMin: number; xMax: number; yMax: number };
export type GlyfComponent = {
  glyph: number;
  dx: number;
  dy: number;
  /** xx, xy, yx, yy as 2.14 values. */
  scale: readonly [number, number, number, number];
  useMyMetrics?: boolean;
  /** Read only: the part is moved so that its point `child` falls on point `parent` of what stands before it. */
  match?: { parent: number; child: number };
  /** Read only: the offset is scaled with the part. */
  scaledOffset?: boolean;
};

const ON = 1;
const X_SHORT = 2;
const Y_SHORT = 4;
const REPEAT = 8;
const X_SAME = 16;
const Y_SAME = 32;
const OVERLAP_SIMPLE = 64;

const ARGS_ARE_WORDS = 1;
const ARGS_ARE_XY = 2;
const ROUND_XY_TO_GRID = 4;
const HAVE_SCALE = 8;
const MORE_COMPONENTS = 32;
const HAVE_XY_SCALE = 64;
const HAVE_TWO_BY_TWO = 128;
const USE_MY_METRICS = 512;
const OVERLAP_COMPOUND = 1024;
const SCALED_OFFSET = 2048;

/** Written over for each glyph; a record is a copy of what it holds. */
const scratch = new Writer(4096);

/** A simple glyph's record; no contours give an empty record. Coordinates are whole numbers. */
export function writeSimpleGlyph(
  contours: readonly (readonly GlyfPoint[])[],
  box: GlyfBox,
  overlaps: boolean,
): Uint8Array {
  if (contours.length === 0) return new Uint8Array(0);
  const out = scratch.reset();
  out.int16(contours.length).int16(box.xMin).int16(box.yMin).int16(box.xMax).int16(box.yMax);
  let last = -1;
  for (const c of contours) {
    last += c.length;
    out.uint16(last);
  }
  out.uint16(0);
  const flags: number[] = [];
  const xs: number[] = [];
  const ys: number[] = [];
  let px = 0;
  let py = 0;
  for (const contour of contours) {
    for (const p of contour) {
      const flag =
        (p.on ? ON : 0) | packDelta(p.x - px, xs, X_SHORT, X_SAME) | packDelta(p.y - py, ys, Y_SHORT, Y_SAME);
      flags.push(flags.length === 0 && overlaps ? flag | OVERLAP_SIMPLE : flag);
      px = p.x;
      py = p.y;
    }
  }
  for (let i = 0; i < flags.length; ) {
    let run = 1;
    while (run < 256 && flags[i + run] === flags[i]) run++;
    if (run > 1) out.uint8(flags[i]! | REPEAT).uint8(run - 1);
    else out.uint8(flags[i]!);
    i += run;
  }
  return out.raw(xs).raw(ys).pad(2).toBytes();
}

/** Writes a coordinate step in its shortest form and returns the flags that say which. */
function packDelta(delta: number, out: number[], short: number, same: number): number {
  if (delta === 0) return same;
  if (Math.abs(delta) < 256) {
    out.push(Math.abs(delta));
    return short | (delta > 0 ? same : 0);
  }
  out.push((delta >> 8) & 255, delta & 255);
  return 0;
}

/** A composite glyph's record. */
export function writeCompositeGlyph(components: readonly GlyfComponent[], box: GlyfBox, overlaps: boolean): Uint8Array {
  const out = new Writer();
  out.int16(-1).int16(box.xMin).int16(box.yMin).int16(box.xMax).int16(box.yMax);
  components.forEach((c, i) => {
    const [xx, xy, yx, yy] = c.scale;
    const words = c.dx < -128 || c.dx > 127 || c.dy < -128 || c.dy > 127;
    const form = xy !== 0 || yx !== 0 ? HAVE_TWO_BY_TWO : xx !== yy ? HAVE_XY_SCALE : xx !== 1 ? HAVE_SCALE : 0;
    out.uint16(
      ARGS_ARE_XY |
        ROUND_XY_TO_GRID |
        form |
        (words ? ARGS_ARE_WORDS : 0) |
        (i < components.length - 1 ? MORE_COMPONENTS : 0) |
        (c.useMyMetrics ? USE_MY_METRICS : 0) |
        (i === 0 && overlaps ? OVERLAP_COMPOUND : 0),
    );
    out.uint16(c.glyph);
    if (words) out.int16(c.dx).int16(c.dy);
    else out.int8(c.dx).int8(c.dy);
    if (form === HAVE_SCALE) out.f2dot14(xx);
    else if (form === HAVE_XY_SCALE) out.f2dot14(xx).f2dot14(yy);
    else if (form === HAVE_TWO_BY_TWO) out.f2dot14(xx).f2dot14(xy).f2dot14(yx).f2dot14(yy);
  });
  return out.pad(2).toBytes();
}

/** `glyf` and `loca` from glyph records; short offsets where they reach. */
export function joinGlyphs(records: readonly Uint8Array[]): {
  glyf: Uint8Array;
  loca: Uint8Array;
  indexToLocFormat: 0 | 1;
} {
  const offsets = new Array<number>(records.length + 1);
  let total = 0;
  records.forEach((r, i) => {
    offsets[i] = total;
    total += r.length + (r.length & 1);
  });
  offsets[records.length] = total;
  const glyf = new Uint8Array(total);
  records.forEach((r, i) => {
    glyf.set(r, offsets[i]!);
  });
  const short = total <= 0x1fffe;
  const loca = new DataView(new ArrayBuffer(offsets.length * (short ? 2 : 4)));
  offsets.forEach((o, i) => {
    if (short) loca.setUint16(i * 2, o / 2);
    else loca.setUint32(i * 4, o);
  });
  return { glyf, loca: new Uint8Array(loca.buffer), indexToLocFormat: short ? 0 : 1 };
}

export type GlyfRecord =
  | { kind: 'simple'; box: GlyfBox; contours: GlyfPoint[][] }
  | { kind: 'composite'; box: GlyfBox; components: GlyfComponent[] };

/** Reads every glyph record; bad offsets and counts are refused with the glyph's index. */
export function readGlyphs(
  glyf: Uint8Array,
  loca: Uint8Array,
  indexToLocFormat: number,
  numGlyphs: number,
): GlyfRecord[] {
  const offsets = new Reader(loca, 'loca');
  const at = Array.from({ length: numGlyphs + 1 }, () =>
    indexToLocFormat === 0 ? offsets.uint16() * 2 : offsets.uint32(),
  );
  return Array.from({ length: numGlyphs }, (_, i) => {
    const start = at[i]!;
    const end = at[i + 1]!;
    if (end < start || end > glyf.length)
      refuse(`The loca table places glyph ${i} at bytes ${start} to ${end}, outside the glyf table.`);
    return readGlyph(new Reader(glyf.subarray(start, end), `glyf (glyph ${i})`));
  });
}

function readGlyph(from: Reader): GlyfRecord {
  if (from.bytes.length === 0) return { kind: 'simple', box: { xMin: 0, yMin: 0, xMax: 0, yMax: 0 }, contours: [] };
  const count = from.int16();
  const box = { xMin: from.int16(), yMin: from.int16(), xMax: from.int16(), yMax: from.int16() };
  return count < 0
    ? { kind: 'composite', box, components: readComponents(from) }
    : { kind: 'simple', box, contours: readContours(from, count) };
}

function readContours(from: Reader, count: number): GlyfPoint[][] {
  const ends = Array.from({ length: count }, () => from.uint16());
  if (ends.some((end, i) => i > 0 && end <= ends[i - 1]!))
    refuse(`The ${from.name} table has contours whose last points do not rise, at byte ${from.at - 2 * count}.`);
  const total = count === 0 ? 0 : ends[count - 1]! + 1;
  from.raw(from.uint16());
  const flags: number[] = [];
  while (flags.length < total) {
    const flag = from.uint8();
    const times = flag & REPEAT ? from.uint8() + 1 : 1;
    for (let k = 0; k < times && flags.length < total; k++) flags.push(flag);
  }
  const read = (short: number, same: number): number[] => {
    let value = 0;
    return flags.map((flag) => {
      if (flag & short) value += flag & same ? from.uint8() : -from.uint8();
      else if (!(flag & same)) value += from.int16();
      return value;
    });
  };
  const xs = read(X_SHORT, X_SAME);
  const ys = read(Y_SHORT, Y_SAME);
  let first = 0;
  return ends.map((end) => {
    const points: GlyfPoint[] = [];
    for (let i = first; i <= end; i++) points.push({ x: xs[i]!, y: ys[i]!, on: (flags[i]! & ON) !== 0 });
    first = end + 1;
    return points;
  });
}

function readComponents(from: Reader): GlyfComponent[] {
  const components: GlyfComponent[] = [];
  for (;;) {
    const flags = from.uint16();
    const glyph = from.uint16();
    const words = (flags & ARGS_ARE_WORDS) !== 0;
    const byPosition = (flags & ARGS_ARE_XY) !== 0;
    const argument = () => (byPosition ? (words ? from.int16() : from.int8()) : words ? from.uint16() : from.uint8());
    const [first, second] = [argument(), argument()];
    const [dx, dy] = byPosition ? [first, second] : [0, 0];
    let scale: [number, number, number, number] = [1, 0, 0, 1];
    if (flags & HAVE_SCALE) {
      const s = from.f2dot14();
      scale = [s, 0, 0, s];
    } else if (flags & HAVE_XY_SCALE) scale = [from.f2dot14(), 0, 0, from.f2dot14()];
    else if (flags & HAVE_TWO_BY_TWO) scale = [from.f2dot14(), from.f2dot14(), from.f2dot14(), from.f2dot14()];
    components.push({
      glyph,
      dx,
      dy,
      scale,
      useMyMetrics: (flags & USE_MY_METRICS) !== 0,
      ...(byPosition ? {} : { match: { parent: first, child: second } }),
      ...(flags & SCALED_OFFSET ? { scaledOffset: true } : {}),
    });
    if (components.length > 4096) refuse(`The ${from.name} table has a glyph of more than 4096 parts.`);
    if (!(flags & MORE_COMPONENTS)) return components;
  }
}
