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

const peakOf = (region: AxisRegion): string => region.map(([, peak]) => peak).join(' ');

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
      const known = counts.get(key) ?? { peak: region.map(([, p]) => p), count: 0 };
      counts.set(key, { ...known, count: known.count + 1 });
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

type Part = { region: AxisRegion; points: Uint8Array; pointsKey: string; deltas: Uint8Array };

/** A glyph’s record, padded to an even length; nothing where nothing moves. */
function glyphRecord(glyph: VaryingGlyph, sharedAt: ReadonlyMap<string, number>): Uint8Array {
  const moving = glyph.deltas.filter((d) => moves(d.dx) || moves(d.dy));
  if (moving.length === 0) return new Uint8Array(0);
  const kept = moving.map(({ dx, dy }) => pointsToKeep({ ...glyph, dx, dy }));
  const all = moving.map((d) => told(d));
  const own = moving.map((d, i) => smaller(all[i]!, told(d, kept[i])));
  if (moving.length === 1) return assembled(own, sharedAt);
  // Points that one of the sets needs, told in all of them, may cost less than each set's own.
  const union = [...new Set(kept.flat())].sort((a, b) => a - b);
  const records = [own, all, moving.map((d) => told(d, union))].map((parts) => assembled(parts, sharedAt));
  return records.reduce((best, r) => (r.length < best.length ? r : best));
}

const moves = (by: readonly number[]): boolean => {
  for (let i = 0; i < by.length; i++) if (by[i] !== 0) return true;
  return false;
};

/** A record of sets of differences, padded to an even length. */
function assembled(parts: readonly Part[], sharedAt: ReadonlyMap<string, number>): Uint8Array {
  const common = commonPoints(parts);
  const headers = new Writer();
  const data = new Writer();
  if (common !== undefined) data.raw(parts.find((p) => p.pointsKey === common)!.points);
  for (const { region, points, pointsKey, deltas } of parts) {
    const own = pointsKey !== common;
    const size = (own ? points.length : 0) + deltas.length;
    const peak = sharedAt.get(peakOf(region));
    const plain = region.every(([start, p, end]) => start === Math.min(p, 0) && end === Math.max(p, 0));
    headers
      .uint16(size)
      .uint16((peak ?? TUPLE.embeddedPeak) | (plain ? 0 : TUPLE.intermediate) | (own ? TUPLE.privatePoints : 0));
    if (peak === undefined) for (const [, p] of region) headers.f2dot14(p);
    if (!plain) {
      for (const [start] of region) headers.f2dot14(start);
      for (const [, , end] of region) headers.f2dot14(end);
    }
    if (own) data.raw(points);
    data.raw(deltas);
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

/** The points that it pays to write once for several sets of differences. */
function commonPoints(parts: readonly Part[]): string | undefined {
  let best: { key: string; saved: number } | undefined;
  for (const key of new Set(parts.map((p) => p.pointsKey))) {
    const own = parts.filter((p) => p.pointsKey === key);
    const saved = (own.length - 1) * own[0]!.points.length;
    if (saved > (best?.saved ?? 0)) best = { key, saved };
  }
  return best?.key;
}

/** A set of differences of all points, or of some that the others follow from. */
const told = ({ region, dx, dy }: PointDeltas, some?: readonly number[]): Part =>
  some === undefined || some.length === dx.length
    ? { region, points: Uint8Array.of(0), pointsKey: 'all', deltas: packedDeltas([dx, dy]) }
    : {
        region,
        points: packedPoints(some),
        pointsKey: some.join(' '),
        deltas: packedDeltas([some.map((i) => dx[i]!), some.map((i) => dy[i]!)]),
      };

const smaller = (all: Part, some: Part): Part =>
  some.points.length + some.deltas.length < all.points.length + all.deltas.length ? some : all;

/** Point numbers as steps from one to the next, in runs of bytes or words. */
export function packedPoints(points: readonly number[]): Uint8Array {
  const out = new Writer();
  if (points.length < 0x80) out.uint8(points.length);
  else out.uint16(points.length | 0x8000);
  const steps = points.map((p, i) => p - (i === 0 ? 0 : points[i - 1]!));
  for (let i = 0; i < steps.length; ) {
    const wide = steps[i]! > 255;
    let run = 1;
    while (run < 128 && i + run < steps.length && steps[i + run]! > 255 === wide) run++;
    out.uint8((wide ? 0x80 : 0) | (run - 1));
    for (const s of steps.slice(i, i + run)) wide ? out.uint16(s) : out.uint8(s);
    i += run;
  }
  return out.toBytes();
}

const ZEROS = 0x80;
const WORDS = 0x40;
const LONGEST_RUN = 64;

/** Differences in runs of nothing, bytes or words; a list ends where the next begins, but their runs are one row of bytes. */
export function packedDeltas(lists: readonly (readonly number[])[]): Uint8Array {
  const out = new Writer();
  for (const values of lists) {
    for (let i = 0; i < values.length; ) {
      const run = runAt(values, i);
      if (run.kind === ZEROS) out.uint8(ZEROS | (run.length - 1));
      else {
        out.uint8((run.kind === WORDS ? WORDS : 0) | (run.length - 1));
        for (const v of values.slice(i, i + run.length)) run.kind === WORDS ? out.int16(v) : out.uint8(v & 0xff);
      }
      i += run.length;
    }
  }
  return out.toBytes();
}

const isByte = (v: number): boolean => v >= -128 && v <= 127;

function runAt(values: readonly number[], from: number): { kind: 0 | typeof WORDS | typeof ZEROS; length: number } {
  const end = Math.min(values.length, from + LONGEST_RUN);
  let i = from;
  if (values[i] === 0) {
    while (i < end && values[i] === 0) i++;
    return { kind: ZEROS, length: i - from };
  }
  if (isByte(values[i]!)) {
    // One zero among bytes costs a byte, as a run of its own would cost two.
    while (i < end && isByte(values[i]!) && !(values[i] === 0 && (values[i + 1] === 0 || i + 1 === end))) i++;
    return { kind: 0, length: Math.max(1, i - from) };
  }
  // A byte among words costs two, as a run of its own and another of words would.
  while (i < end && values[i] !== 0 && (!isByte(values[i]!) || (i + 1 < values.length && !isByte(values[i + 1]!)))) i++;
  return { kind: WORDS, length: Math.max(1, i - from) };
}
