import type { Contour } from '../geometry/contour';
import type { GlyphId } from '../project/model';
import { edgesOf, rowsThrough } from './rows';

/** A glyph to be known by its shape. */
export type Shaped = { id: GlyphId; contours: readonly Contour[] };

/** Squares across and up that a shape is looked at in. */
const GRID = 20;
const SHARES = Array.from({ length: GRID }, (_, i) => (i + 0.5) / GRID);
/** Shapes that differ in more than this share of the squares are not the same letter: a bold differs from its regular by a quarter. */
const MOST_APART = 0.3;
/** The nearest lies this much nearer than the next, else two come into question. */
const CLEARLY = 0.9;
/** Nor those whose widths differ by more than this factor, or whose feet or heads stand farther apart than this share of the em. */
const MOST_BROADER = 1.4;
const MOST_SHIFTED = 0.04;
/** A shape of ink throughout is a bar like any other: it says nothing. */
const MOST_INK = 0.9;

type Print = { id: GlyphId; squares: Uint8Array; width: number; low: number; high: number };

/** A shape in its own box, as squares of ink and white. */
function printOf({ id, contours }: Shaped): Print | undefined {
  const edges = edgesOf(contours);
  const rows = rowsThrough(edges, SHARES);
  let [left, right, low, high] = [Infinity, -Infinity, Infinity, -Infinity];
  for (let i = 0; i < edges.length; i += 2) {
    left = Math.min(left, edges[i]!);
    right = Math.max(right, edges[i]!);
    low = Math.min(low, edges[i + 1]!);
    high = Math.max(high, edges[i + 1]!);
  }
  if (rows.length === 0 || right <= left) return undefined;
  const squares = new Uint8Array(GRID * GRID);
  let ink = 0;
  rows.forEach((row, y) => {
    for (let x = 0; x < GRID; x++) {
      const at = left + ((x + 0.5) / GRID) * (right - left);
      if (!row.ink.some(([from, to]) => at >= from && at <= to)) continue;
      squares[y * GRID + x] = 1;
      ink++;
    }
  });
  return ink > MOST_INK * squares.length ? undefined : { id, squares, width: right - left, low, high };
}

/** The share of squares in which two shapes differ. */
function apart(a: Print, b: Print): number {
  let n = 0;
  for (let i = 0; i < a.squares.length; i++) if (a.squares[i] !== b.squares[i]) n++;
  return n / a.squares.length;
}

/**
 * Pairs of glyphs that look alike and stand alike on the line, each the other’s nearest, both in an em of so many units: what does not
 * look alike, or like two at once, is left out.
 */
export function alikeShapes(
  ours: readonly Shaped[],
  theirs: readonly Shaped[],
  em: number,
): [ours: GlyphId, theirs: GlyphId][] {
  const [a, b] = [ours, theirs].map((l) => l.flatMap((s) => printOf(s) ?? [])) as [Print[], Print[]];
  const nearest = (p: Print, list: readonly Print[]): Print | undefined => {
    let best: { print: Print; apart: number } | undefined;
    let second = Infinity;
    for (const q of list) {
      const broader = Math.max(p.width / q.width, q.width / p.width);
      const shifted = Math.max(Math.abs(p.low - q.low), Math.abs(p.high - q.high));
      if (broader > MOST_BROADER || shifted > MOST_SHIFTED * em) continue;
      const d = apart(p, q);
      if (!best || d < best.apart) {
        second = best?.apart ?? Infinity;
        best = { print: q, apart: d };
      } else second = Math.min(second, d);
    }
    return best && best.apart <= MOST_APART && best.apart < second * CLEARLY ? best.print : undefined;
  };
  return a.flatMap((p): [GlyphId, GlyphId][] => {
    const q = nearest(p, b);
    return q && nearest(q, a) === p ? [[p.id, q.id]] : [];
  });
}
