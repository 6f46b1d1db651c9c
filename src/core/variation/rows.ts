import { type Contour, curvesOf } from '../geometry/contour';
import type { GlyphAt } from './glyphAt';

/** Ink and white in turn along a level line: where each run of ink begins and ends, from left to right. */
export type Row = { y: number; ink: readonly (readonly [from: number, to: number])[] };

/** Straight pieces that a curve is measured by. */
const PIECES = 8;
/** Runs of less than this are touches, not ink or white, in units. */
const LEAST = 0.5;

/** Straight pieces of an outline, four numbers each: from x, y to x, y. */
export type Edges = Float64Array;

/** Contours as straight edges, fine enough for measuring widths to about a unit. Of drawings of one structure they are as many. */
export function edgesOf(contours: readonly Contour[]): Edges {
  const out: number[] = [];
  for (const contour of contours)
    for (const c of curvesOf(contour)) {
      const n = c.length / 2 - 1;
      if (n === 1) {
        out.push(c[0]!, c[1]!, c[2]!, c[3]!);
        continue;
      }
      let [x, y] = [c[0]!, c[1]!];
      for (let i = 1; i <= PIECES; i++) {
        const t = i / PIECES;
        const s = 1 - t;
        const [a, b, d, e] =
          n === 2 ? [s * s, 2 * s * t, t * t, 0] : [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t];
        const nx = a * c[0]! + b * c[2]! + d * c[4]! + (n === 3 ? e * c[6]! : 0);
        const ny = a * c[1]! + b * c[3]! + d * c[5]! + (n === 3 ? e * c[7]! : 0);
        out.push(x, y, nx, ny);
        [x, y] = [nx, ny];
      }
    }
  return new Float64Array(out);
}

function rowAt(edges: Edges, y: number): Row {
  const met: [x: number, way: number][] = [];
  for (let i = 0; i < edges.length; i += 4) {
    const [y0, y1] = [edges[i + 1]!, edges[i + 3]!];
    if (y0 < y === y1 < y) continue;
    const x0 = edges[i]!;
    met.push([x0 + ((y - y0) / (y1 - y0)) * (edges[i + 2]! - x0), y1 > y0 ? 1 : -1]);
  }
  met.sort((p, q) => p[0] - q[0]);
  const ink: [number, number][] = [];
  let winding = 0;
  let from = 0;
  for (const [x, way] of met) {
    if (winding === 0) from = x;
    winding += way;
    if (winding !== 0 || x - from < LEAST) continue;
    const last = ink.at(-1);
    // Parts that touch are one run.
    if (last && from - last[1] < LEAST) last[1] = x;
    else ink.push([from, x]);
  }
  return { y, ink };
}

/** Level lines through edges, at shares of their height from bottom (0) to top (1); none where there are none. */
export function rowsThrough(edges: Edges, shares: readonly number[]): Row[] {
  let [low, high] = [Infinity, -Infinity];
  for (let i = 1; i < edges.length; i += 2) {
    low = Math.min(low, edges[i]!);
    high = Math.max(high, edges[i]!);
  }
  return low > high ? [] : shares.map((s) => rowAt(edges, low + (high - low) * s));
}

/** Level lines through an outline, at shares of its height. */
export const rowsOf = (contours: readonly Contour[], shares: readonly number[]): Row[] =>
  rowsThrough(edgesOf(contours), shares);

/** Where stems and counters are measured for a glance. */
const GLANCE = [0.2, 0.28, 0.36, 0.44, 0.52, 0.6, 0.68];
const middle = (values: number[]): number | undefined => values.sort((a, b) => a - b)[values.length >> 1];

/** The first stem from the left and the white behind it, in units, as most lines through the letter have them. */
export function stemAndCounter({ contours }: Pick<GlyphAt, 'contours'>): { stem?: number; counter?: number } {
  const rows = rowsOf(contours, GLANCE).filter((r) => r.ink.length > 0);
  const stem = middle(rows.map(({ ink }) => ink[0]![1] - ink[0]![0]));
  const counter = middle(rows.flatMap(({ ink }) => (ink.length > 1 ? [ink[1]![0] - ink[0]![1]] : [])));
  return { ...(stem !== undefined && { stem }), ...(counter !== undefined && { counter }) };
}
