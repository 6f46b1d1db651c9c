import { refuse } from '../base/result';
import { Reader } from './binary';
import { type AxisRegion, regionScalar } from './variations';

/** One set of differences of a glyph: for all points, or for those of `points`. */
export type GlyphVariation = {
  region: AxisRegion;
  points: readonly number[] | undefined;
  dx: readonly number[];
  dy: readonly number[];
};

/** Flags of a tuple’s index, and of how many tuples there are. */
export const TUPLE = {
  embeddedPeak: 0x8000,
  intermediate: 0x4000,
  privatePoints: 0x2000,
  sharedPoints: 0x8000,
} as const;

/** Reads the differences of a glyph with so many points, the four phantom points among them (OpenType, "gvar"). */
export function readGvar(
  bytes: Uint8Array,
  numGlyphs: number,
): (glyph: number, pointCount: number) => GlyphVariation[] {
  const from = new Reader(bytes, 'gvar');
  const axisCount = from.seek(4).uint16();
  const sharedCount = from.uint16();
  const sharedAt = from.uint32();
  const glyphCount = from.uint16();
  const long = (from.uint16() & 1) !== 0;
  const dataAt = from.uint32();
  if (glyphCount > numGlyphs) refuse(`The gvar table speaks of ${glyphCount} glyphs, but the font has ${numGlyphs}.`);
  const offsets = Array.from({ length: glyphCount + 1 }, () => (long ? from.uint32() : from.uint16() * 2));
  from.seek(sharedAt);
  const shared = Array.from({ length: sharedCount }, () => Array.from({ length: axisCount }, () => from.f2dot14()));
  return (glyph, pointCount) => {
    const start = offsets[glyph];
    const end = offsets[glyph + 1];
    if (start === undefined || end === undefined || end <= start) return [];
    if (dataAt + end > bytes.length) refuse(`The gvar table places glyph ${glyph} beyond its end.`);
    return readGlyphVariations(
      new Reader(bytes.subarray(dataAt + start, dataAt + end), `gvar (glyph ${glyph})`),
      axisCount,
      shared,
      pointCount,
    );
  };
}

function readGlyphVariations(
  from: Reader,
  axisCount: number,
  shared: readonly (readonly number[])[],
  pointCount: number,
): GlyphVariation[] {
  const packed = from.uint16();
  const count = packed & 0x0fff;
  let dataAt = from.uint16();
  const headers = Array.from({ length: count }, () => {
    const size = from.uint16();
    const index = from.uint16();
    const tuple = () => Array.from({ length: axisCount }, () => from.f2dot14());
    const peak =
      index & TUPLE.embeddedPeak
        ? tuple()
        : (shared[index & 0x0fff] ?? refuse(`The ${from.name} table names a shared tuple that is not there.`));
    const range = index & TUPLE.intermediate ? { start: tuple(), end: tuple() } : undefined;
    const region = peak.map(
      (p, i) => [range ? range.start[i]! : Math.min(p, 0), p, range ? range.end[i]! : Math.max(p, 0)] as const,
    );
    return { size, region, own: (index & TUPLE.privatePoints) !== 0 };
  });
  from.seek(dataAt);
  const common = packed & TUPLE.sharedPoints ? readPoints(from, pointCount) : undefined;
  dataAt = from.at;
  return headers.map((header) => {
    from.seek(dataAt);
    const points = header.own ? readPoints(from, pointCount) : common;
    const n = points ? points.length : pointCount;
    const dx = readDeltas(from, n);
    const dy = readDeltas(from, n);
    dataAt += header.size;
    return { region: header.region, points, dx, dy };
  });
}

/** Packed point numbers; nothing stands for all points. */
function readPoints(from: Reader, pointCount: number): number[] | undefined {
  const first = from.uint8();
  const count = first & 0x80 ? (first & 0x7f) * 256 + from.uint8() : first;
  if (count === 0) return undefined;
  const out: number[] = [];
  let last = 0;
  while (out.length < count) {
    const control = from.uint8();
    const run = (control & 0x7f) + 1;
    for (let i = 0; i < run && out.length < count; i++) {
      last += control & 0x80 ? from.uint16() : from.uint8();
      if (last >= pointCount) refuse(`The ${from.name} table moves point ${last} of ${pointCount}.`);
      out.push(last);
    }
  }
  return out;
}

/** Packed differences: runs of nothing, bytes or words. */
function readDeltas(from: Reader, count: number): number[] {
  const out: number[] = [];
  while (out.length < count) {
    const control = from.uint8();
    const run = (control & 0x3f) + 1;
    for (let i = 0; i < run && out.length < count; i++) {
      const kind = control & 0xc0;
      out.push(kind === 0x80 ? 0 : kind === 0x40 ? from.int16() : kind === 0xc0 ? from.uint32() | 0 : from.int8());
    }
  }
  return out;
}

/**
 * How far every point moves at a place. Points that a set of differences leaves out move with their neighbours on the
 * contour (OpenType, "Inferred deltas for un-referenced point numbers"). `ends` is the last point of every contour.
 */
export function pointDeltas(
  variations: readonly GlyphVariation[],
  place: readonly number[],
  xs: readonly number[],
  ys: readonly number[],
  ends: readonly number[],
): { dx: Float64Array; dy: Float64Array } {
  const n = xs.length;
  const dx = new Float64Array(n);
  const dy = new Float64Array(n);
  for (const v of variations) {
    const scalar = regionScalar(v.region, place);
    if (scalar === 0) continue;
    const wholeX = v.points ? inferred(v.points, v.dx, xs, ends) : v.dx;
    const wholeY = v.points ? inferred(v.points, v.dy, ys, ends) : v.dy;
    for (let i = 0; i < n; i++) {
      dx[i]! += (wholeX[i] ?? 0) * scalar;
      dy[i]! += (wholeY[i] ?? 0) * scalar;
    }
  }
  return { dx, dy };
}

function inferred(
  points: readonly number[],
  deltas: readonly number[],
  at: readonly number[],
  ends: readonly number[],
): Float64Array {
  const out = new Float64Array(at.length);
  const set = new Set(points);
  points.forEach((p, i) => {
    out[p] = deltas[i]!;
  });
  let start = 0;
  for (const end of ends) {
    const known: number[] = [];
    for (let p = start; p <= end; p++) if (set.has(p)) known.push(p);
    if (known.length > 0) {
      known.forEach((a, k) => {
        const b = known[(k + 1) % known.length]!;
        for (let p = a === end ? start : a + 1; p !== b; p = p === end ? start : p + 1)
          out[p] = between(at[p]!, at[a]!, at[b]!, out[a]!, out[b]!);
      });
    }
    start = end + 1;
  }
  return out;
}

/** A point between two that move: in proportion between them, with the nearer one beyond them. */
function between(v: number, a: number, b: number, da: number, db: number): number {
  if (a === b) return da === db ? da : 0;
  const [low, high, dLow, dHigh] = a < b ? [a, b, da, db] : [b, a, db, da];
  if (v <= low) return dLow;
  if (v >= high) return dHigh;
  return dLow + ((v - low) / (high - low)) * (dHigh - dLow);
}
