import { Writer } from './binary';
import { TUPLE } from './gvar';
import { pointsToKeep } from './inferred';
import type { AxisRegion } from './variations';

/** What a glyph’s points move by in one region, the four phantom points last; whole units. */
export type PointDeltas = { region: AxisRegion; dx: readonly number[]; dy: readonly number[] };
export type VaryingGlyph = {
  /** Coordinates of the points as the default has them, the phantom points last; of a composite one for each part. */
  xs: readonly number[];
  ys: readonly number[];
  /** The last point of every contour; none for a composite, whose points stand for themselves. */
  ends: readonly number[];
  deltas: readonly PointDeltas[];
};

const MOST_SHARED = 0x0fff;

const peaks = new WeakMap<AxisRegion, string>();

/** The peak of a region as a key; known again for the same region, which nearly all glyphs vary over. */
function peakOf(region: AxisRegion): string {
  let peak = peaks.get(region);
  if (peak === undefined) {
    peak = region.map(([, p]) => p).join(' ');
    peaks.set(region, peak);
  }
  return peak;
}

/**
 * `gvar`: what the outlines of glyphs vary by (OpenType, “gvar”). Of each set of differences the points that others do not tell are
 * written, or all, whichever is smaller; points that several sets of a glyph have in common are written once; peaks that many glyphs
 * have are shared.
 */
export function writeGvar(glyphs: readonly (VaryingGlyph | undefined)[], axisCount: number): Uint8Array {
  const counts = new Map<string, { peak: readonly number[]; count: number }>();
  for (const g of glyphs)
    for (const { region } of g?.deltas ?? []) {
      const key = peakOf(region);
      const known = counts.get(key);
      if (known) known.count++;
      else counts.set(key, { peak: region.map(([, p]) => p), count: 1 });
    }
  const shared = [...counts]
    .filter(([, { count }]) => count > 1)
    .sort(([a, { count: m }], [b, { count: n }]) => n - m || (a < b ? -1 : 1))
    .slice(0, MOST_SHARED);
  const sharedAt = new Map(shared.map(([key], i) => [key, i]));
  const records = glyphs.map((g) => (g ? glyphRecord(g, sharedAt) : new Uint8Array(0)));
  const size = records.reduce((sum, r) => sum + r.length, 0);
  const long = size > 0x1fffe;
  const head = 20 + (glyphs.length + 1) * (long ? 4 : 2);
  const tuples = shared.length * axisCount * 2;
  const out = new Writer().uint16(1).uint16(0).uint16(axisCount).uint16(shared.length).uint32(head);
  out
    .uint16(glyphs.length)
    .uint16(long ? 1 : 0)
    .uint32(head + tuples);
  let at = 0;
  for (const length of [...records.map((r) => r.length), 0]) {
    if (long) out.uint32(at);
    else out.uint16(at / 2);
    at += length;
  }
  for (const [, { peak }] of shared) for (const p of peak) out.f2dot14(p);
  for (const r of records) out.raw(r);
  return out.toBytes();
}

/** A set of differences as it may be told: of all points, or of some that the others follow from; its sizes before it is written. */
type Part = {
  of: PointDeltas;
  /** Undefined where all are told. */
  some: readonly number[] | undefined;
  pointsSize: number;
  deltasSize: number;
};

/** A glyph’s record, padded to an even length; nothing where nothing moves. The smallest of some ways to tell it is written. */
function glyphRecord(glyph: VaryingGlyph, sharedAt: ReadonlyMap<string, number>): Uint8Array {
  const moving = glyph.deltas.filter((d) => moves(d.dx) || moves(d.dy));
  if (moving.length === 0) return new Uint8Array(0);
  const { xs, ys, ends } = glyph;
  const kept = moving.map(({ dx, dy }) => pointsToKeep({ xs, ys, ends, dx, dy }));
  const all = moving.map((d) => told(d));
  const own = moving.map((d, i) => smaller(all[i]!, told(d, kept[i])));
  if (moving.length === 1) return assembled(own, sharedAt);
  // Points that one of the sets needs, told in all of them, may cost less than each set's own.
  const needed = new Uint8Array(xs.length);
  for (const points of kept) for (const p of points) needed[p] = 1;
  const union: number[] = [];
  for (let p = 0; p < needed.length; p++) if (needed[p] === 1) union.push(p);
  const ways = [own, all, moving.map((d) => told(d, union))];
  const sizes = ways.map((parts) => sizeOf(parts, sharedAt));
  return assembled(ways[sizes.indexOf(Math.min(...sizes))]!, sharedAt);
}

const moves = (by: readonly number[]): boolean => {
  for (let i = 0; i < by.length; i++) if (by[i] !== 0) return true;
  return false;
};

const isPlain = (region: AxisRegion): boolean =>
  region.every(([start, p, end]) => start === Math.min(p, 0) && end === Math.max(p, 0));

/** Bytes that {@link assembled} would come to, before padding. */
function sizeOf(parts: readonly Part[], sharedAt: ReadonlyMap<string, number>): number {
  const common = commonPoints(parts);
  let size = 4 + (common?.pointsSize ?? 0);
  for (const part of parts) {
    const { of, pointsSize, deltasSize } = part;
    size += 4 + deltasSize + (common && samePoints(part, common) ? 0 : pointsSize);
    if (!sharedAt.has(peakOf(of.region))) size += 2 * of.region.length;
    if (!isPlain(of.region)) size += 4 * of.region.length;
  }
  return size;
}

/** A record of sets of differences, padded to an even length. */
function assembled(parts: readonly Part[], sharedAt: ReadonlyMap<string, number>): Uint8Array {
  const common = commonPoints(parts);
  const headers = new Writer();
  const data = new Writer();
  if (common) writePoints(data, common.some);
  for (const part of parts) {
    const { of, some, pointsSize, deltasSize } = part;
    const { region, dx, dy } = of;
    const own = !common || !samePoints(part, common);
    const peak = sharedAt.get(peakOf(region));
    const plain = isPlain(region);
    headers
      .uint16((own ? pointsSize : 0) + deltasSize)
      .uint16((peak ?? TUPLE.embeddedPeak) | (plain ? 0 : TUPLE.intermediate) | (own ? TUPLE.privatePoints : 0));
    if (peak === undefined) for (const [, p] of region) headers.f2dot14(p);
    if (!plain) {
      for (const [start] of region) headers.f2dot14(start);
      for (const [, , end] of region) headers.f2dot14(end);
    }
    if (own) writePoints(data, some);
    for (const values of [dx, dy]) writeDeltas(data, some ? picked(values, some) : values);
  }
  const head = headers.toBytes();
  return new Writer()
    .uint16(parts.length | (common === undefined ? 0 : TUPLE.sharedPoints))
    .uint16(4 + head.length)
    .raw(head)
    .raw(data.toBytes())
    .pad(2)
    .toBytes();
}

/** Are the differences of two sets told of the same points? */
function samePoints({ some: a }: Part, { some: b }: Part): boolean {
  if (a === b) return true;
  if (!a || !b || a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
}

/** A set whose points it pays to write once, for all sets of differences that have the same. */
function commonPoints(parts: readonly Part[]): Part | undefined {
  let best: { part: Part; saved: number } | undefined;
  for (const [i, part] of parts.entries()) {
    let more = 0;
    for (let k = i + 1; k < parts.length; k++) if (samePoints(parts[k]!, part)) more++;
    const saved = more * part.pointsSize;
    if (saved > (best?.saved ?? 0)) best = { part, saved };
  }
  return best?.part;
}

/** A set of differences of all points, or of some that the others follow from. */
function told(of: PointDeltas, some?: readonly number[]): Part {
  const { dx, dy } = of;
  if (some === undefined || some.length === dx.length)
    return { of, some: undefined, pointsSize: 1, deltasSize: deltasSize(dx) + deltasSize(dy) };
  return {
    of,
    some,
    pointsSize: pointsSize(some),
    deltasSize: deltasSize(picked(dx, some)) + deltasSize(picked(dy, some)),
  };
}

/** The differences of some points. */
function picked(values: readonly number[], some: readonly number[]): number[] {
  const out = new Array<number>(some.length);
  for (let i = 0; i < some.length; i++) out[i] = values[some[i]!]!;
  return out;
}

const smaller = (all: Part, some: Part): Part =>
  some.pointsSize + some.deltasSize < all.pointsSize + all.deltasSize ? some : all;

const LONGEST_STEPS = 128;

/** How far a run of steps goes that are all bytes, or all words. */
function stepsAt(points: readonly number[], from: number): { wide: boolean; end: number } {
  const step = (i: number) => points[i]! - (i === 0 ? 0 : points[i - 1]!);
  const wide = step(from) > 255;
  let end = from + 1;
  while (end < points.length && end - from < LONGEST_STEPS && step(end) > 255 === wide) end++;
  return { wide, end };
}

/** Bytes of point numbers as {@link writePoints} has them. */
function pointsSize(points: readonly number[]): number {
  let size = points.length < 0x80 ? 1 : 2;
  for (let i = 0; i < points.length; ) {
    const { wide, end } = stepsAt(points, i);
    size += 1 + (end - i) * (wide ? 2 : 1);
    i = end;
  }
  return size;
}

/** Point numbers as steps from one to the next, in runs of bytes or words; one byte where all are told. */
function writePoints(out: Writer, points: readonly number[] | undefined): void {
  if (points === undefined) {
    out.uint8(0);
    return;
  }
  if (points.length < 0x80) out.uint8(points.length);
  else out.uint16(points.length | 0x8000);
  for (let i = 0; i < points.length; ) {
    const { wide, end } = stepsAt(points, i);
    out.uint8((wide ? 0x80 : 0) | (end - i - 1));
    for (; i < end; i++) {
      const step = points[i]! - (i === 0 ? 0 : points[i - 1]!);
      wide ? out.uint16(step) : out.uint8(step);
    }
  }
}

const ZEROS = 0x80;
const WORDS = 0x40;
const BYTES = 0;
const LONGEST_RUN = 64;

const isByte = (v: number): boolean => v >= -128 && v <= 127;

/** What a run that begins at a difference is of. */
const kindAt = (values: readonly number[], i: number): typeof ZEROS | typeof BYTES | typeof WORDS =>
  values[i] === 0 ? ZEROS : isByte(values[i]!) ? BYTES : WORDS;

/** Where a run of nothing, bytes or words ends. */
function runEnd(values: readonly number[], from: number): number {
  const end = Math.min(values.length, from + LONGEST_RUN);
  let i = from;
  switch (kindAt(values, from)) {
    case ZEROS:
      while (i < end && values[i] === 0) i++;
      return i;
    case BYTES:
      // One zero among bytes costs a byte, as a run of its own would cost two.
      while (i < end && isByte(values[i]!) && !(values[i] === 0 && (values[i + 1] === 0 || i + 1 === end))) i++;
      break;
    case WORDS:
      // A byte among words costs two, as a run of its own and another of words would.
      while (i < end && values[i] !== 0 && (!isByte(values[i]!) || (i + 1 < values.length && !isByte(values[i + 1]!))))
        i++;
  }
  return Math.max(from + 1, i);
}

/** Bytes of differences as {@link writeDeltas} has them. */
function deltasSize(values: readonly number[]): number {
  let size = 0;
  for (let i = 0; i < values.length; ) {
    const kind = kindAt(values, i);
    const end = runEnd(values, i);
    size += 1 + (kind === ZEROS ? 0 : (end - i) * (kind === WORDS ? 2 : 1));
    i = end;
  }
  return size;
}

/** Differences in runs of nothing, bytes or words; a list ends where the next begins, but their runs are one row of bytes. */
function writeDeltas(out: Writer, values: readonly number[]): void {
  for (let i = 0; i < values.length; ) {
    const kind = kindAt(values, i);
    const end = runEnd(values, i);
    out.uint8(kind | (end - i - 1));
    if (kind === ZEROS) i = end;
    else for (; i < end; i++) kind === WORDS ? out.int16(values[i]!) : out.uint8(values[i]! & 0xff);
  }
}
