import { pointAt, type Vec } from '../geometry/curve';
import { type Frame, inwardAt, type Side } from './frame';

/** A place on an outline: on which side, and where along it. */
export type Spot = { readonly side: Side; readonly t: number; readonly at: Vec };
/** Two places that face each other, along a unit direction from the first to the second. */
export type Facing = {
  readonly a: Spot;
  /** None where an edge of the glyph is met: its left or its right, or the height at which it ends. */
  readonly b: Spot | undefined;
  readonly edge: 'left' | 'right' | 'height' | undefined;
  readonly way: Vec;
  readonly width: number;
  /** 0 to 1: how squarely the two face each other. */
  readonly square: number;
};
export type Facings = { readonly ink: readonly Facing[]; readonly white: readonly Facing[] };

/** Where a side is looked at. */
const LINE_PLACES = [0.08, 0.5, 0.92];
const CURVE_PLACES = [0.01, 0.25, 0.5, 0.75, 0.99];
const PIECES = 8;
/** Edges that turn from each other by more than this (cosine) do not face each other. */
const LEAST_SQUARE = 0.72;

/** Straight pieces of all sides, for rays. */
class Pieces {
  readonly sides: Side[] = [];
  readonly numbers: number[] = [];

  constructor(readonly frame: Frame) {
    for (const side of frame.sides) {
      const n = side.curve.length === 4 ? 1 : PIECES;
      let from = pointAt(side.curve, 0);
      for (let k = 1; k <= n; k++) {
        const to = pointAt(side.curve, k / n);
        this.sides.push(side);
        this.numbers.push(from[0], from[1], to[0], to[1], (k - 1) / n, k / n);
        from = to;
      }
    }
  }

  /** The first place that a ray meets, after `least` units, where `wanted` says yes to the side. */
  meet(at: Vec, way: Vec, least: number, from: Side, wanted: (side: Side) => boolean): Spot | undefined {
    const n = this.numbers;
    let best: Spot | undefined;
    let nearest = Infinity;
    for (let i = 0; i < this.sides.length; i++) {
      const k = i * 6;
      const [x0, y0] = [n[k]! - at[0], n[k + 1]! - at[1]];
      const [x1, y1] = [n[k + 2]! - at[0], n[k + 3]! - at[1]];
      const c0 = way[0] * y0 - way[1] * x0;
      const c1 = way[0] * y1 - way[1] * x1;
      if (c0 > 0 === c1 > 0) continue;
      const share = c0 / (c0 - c1);
      const along = way[0] * (x0 + (x1 - x0) * share) + way[1] * (y0 + (y1 - y0) * share);
      const side = this.sides[i]!;
      if (along <= least || along >= nearest || (side === from && side.curve.length === 4) || !wanted(side)) continue;
      if (side === from && along < 2) continue;
      const spot = settled(side, n[k + 4]! + (n[k + 5]! - n[k + 4]!) * share, at, way);
      const true_ = way[0] * (spot.at[0] - at[0]) + way[1] * (spot.at[1] - at[1]);
      if (true_ <= least || true_ >= nearest) continue;
      nearest = true_;
      best = spot;
    }
    return best;
  }
}

/** The true place on a curve that a ray meets near `t`, by Newton's steps. */
function settled(side: Side, t: number, at: Vec, way: Vec): Spot {
  const c = side.curve;
  let here = t;
  if (c.length > 4)
    for (let i = 0; i < 3; i++) {
      const p = pointAt(c, here);
      const q = pointAt(c, here + 1e-4);
      const off = (v: Vec) => way[0] * (v[1] - at[1]) - way[1] * (v[0] - at[0]);
      const slope = (off(q) - off(p)) / 1e-4;
      if (Math.abs(slope) < 1e-6) break;
      here = Math.min(1, Math.max(0, here - off(p) / slope));
    }
  return { side, t: here, at: pointAt(c, here) };
}

const placesOf = (side: Side): readonly number[] => (side.curve.length === 4 ? LINE_PLACES : CURVE_PLACES);

/**
 * Edges that face each other across ink, and across white, seen from every side of an outline along its normals. `advance` is
 * where the glyph ends: what meets nothing to its left or right meets its edge, what meets nothing above or below the height where it ends.
 */
export function facingsOf(frame: Frame, advance: number): Facings {
  const pieces = new Pieces(frame);
  const ink: Facing[] = [];
  const white: Facing[] = [];
  const heights = frame.knots.map((k) => k.y);
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  const closed = (side: Side) => frame.contours[side.contour]!.closed;
  for (const side of frame.sides) {
    if (side.length < 0.5 || !closed(side)) continue;
    for (const t of placesOf(side)) {
      const { at, inward } = inwardAt(frame, side, t);
      const a: Spot = { side, t, at };
      const solid = frame.solid[side.contour];
      const across = pieces.meet(at, inward, 0.5, side, (s) => closed(s) && frame.solid[s.contour] === solid);
      if (across) {
        const other = inwardAt(frame, across.side, across.t).inward;
        const square = -(other[0] * inward[0] + other[1] * inward[1]);
        if (square > LEAST_SQUARE)
          ink.push({ a, b: across, edge: undefined, way: inward, width: widthOf(a, across), square });
      }
      const outward: Vec = [-inward[0], -inward[1]];
      const beyond = pieces.meet(at, outward, 0.5, side, closed);
      if (beyond) {
        const other = inwardAt(frame, beyond.side, beyond.t).inward;
        const square = other[0] * outward[0] + other[1] * outward[1];
        // Ink of another shape lies over this edge where the ray leaves ink first.
        if (square > 0.3)
          white.push({ a, b: beyond, edge: undefined, way: outward, width: widthOf(a, beyond), square });
      } else if (Math.abs(outward[0]) > Math.abs(outward[1])) {
        const sign = Math.sign(outward[0]);
        const width = sign < 0 ? at[0] : advance - at[0];
        const square = Math.abs(outward[0]);
        white.push({ a, b: undefined, edge: sign < 0 ? 'left' : 'right', way: [sign, 0], width, square });
      } else {
        const sign = Math.sign(outward[1]);
        const width = sign < 0 ? at[1] - low : high - at[1];
        white.push({ a, b: undefined, edge: 'height', way: [0, sign], width, square: Math.abs(outward[1]) });
      }
    }
  }
  return { ink, white };
}

const widthOf = (a: Spot, b: Spot): number => Math.hypot(b.at[0] - a.at[0], b.at[1] - a.at[1]);
