import { type Curve, coordinateAt } from '../geometry/curve';

/** A stem hint: the lower edge and the width; a width of -20 or -21 marks a single edge, a top or a bottom one. */
export type Stem = readonly [edge: number, width: number];
export type StemHints = { readonly horizontal: readonly Stem[]; readonly vertical: readonly Stem[] };

export const TOP_EDGE = -20;
export const BOTTOM_EDGE = -21;

/** A level or upright stretch of outline: its place, what it spans, and whether ink begins there, going up or to the right. */
type Edge = { at: number; low: number; high: number; begins: boolean };

/** Stems in one charstring, a direction each; with the width's they stay below the stack limit. */
const MOST = 20;
/** What is thicker than this share of the em is no stem. */
const THICKEST = 0.32;

/**
 * Stems of an outline whose ink lies to the left of its contours: level and upright edges that face each other across ink,
 * the best covered first, none overlapping another (Adobe Technical Note 5177, 4.3, without hint replacement). The lowest
 * and highest edges that belong to no level stem are marked by themselves so that alignment zones hold them.
 */
export function stemHints(contours: readonly (readonly Curve[])[], unitsPerEm: number): StemHints {
  const thickest = unitsPerEm * THICKEST;
  const level = edgesOf(contours, 1, unitsPerEm);
  const horizontal = stemsOf(level, thickest);
  for (const stem of outerEdges(level))
    if (horizontal.length < MOST && horizontal.every((s) => apart(s, stem))) horizontal.push(stem);
  return { horizontal: rising(horizontal), vertical: rising(stemsOf(edgesOf(contours, 0, unitsPerEm), thickest)) };
}

const rising = (stems: readonly Stem[]): Stem[] => [...stems].sort((a, b) => bottomOf(a) - bottomOf(b));
const bottomOf = ([edge, width]: Stem): number => Math.min(edge, edge + width);
const topOf = ([edge, width]: Stem): number => Math.max(edge, edge + width);
const apart = (a: Stem, b: Stem): boolean => bottomOf(a) > topOf(b) || bottomOf(b) > topOf(a);

/** Edges across an axis (1: level ones): straight sides, and the flat stretch about a curve's level end. */
function edgesOf(contours: readonly (readonly Curve[])[], axis: 0 | 1, unitsPerEm: number): Edge[] {
  const along = axis === 1 ? 0 : 1;
  const shortest = unitsPerEm / 50;
  const found = new Map<string, Edge>();
  const add = (at: number, from: number, to: number) => {
    if (from === to) return;
    // Ink lies to the left: above a stretch that runs to the right, and to the left of one that runs up.
    const begins = axis === 1 ? to > from : to < from;
    const key = `${at} ${begins}`;
    const known = found.get(key);
    const [low, high] = [Math.min(from, to), Math.max(from, to)];
    if (!known) found.set(key, { at, low, high, begins });
    else Object.assign(known, { low: Math.min(known.low, low), high: Math.max(known.high, high) });
  };
  for (const curves of contours) {
    for (const c of curves) {
      const n = c.length;
      if (n === 4) {
        if (c[axis] === c[axis + 2]) add(c[axis]!, c[along]!, c[along + 2]!);
        continue;
      }
      // A handle that leaves level makes the curve level there; about a quarter of it is nearly so.
      if (c[axis] === c[axis + 2] && c[along] !== c[along + 2]) add(c[axis]!, c[along]!, coordinateAt(c, along, 0.25));
      if (c[axis + n - 2] === c[axis + n - 4] && c[along + n - 2] !== c[along + n - 4])
        add(c[axis + n - 2]!, coordinateAt(c, along, 0.75), c[along + n - 2]!);
    }
  }
  return [...found.values()].filter((e) => e.high - e.low >= shortest);
}

/** Pairs of edges that face each other, chosen by how far they run side by side for their width. */
function stemsOf(edges: readonly Edge[], thickest: number): Stem[] {
  const pairs: { stem: Stem; worth: number }[] = [];
  for (const from of edges) {
    if (!from.begins) continue;
    const facing = edges.filter(
      (to) =>
        !to.begins &&
        to.at > from.at &&
        to.at - from.at <= thickest &&
        Math.min(from.high, to.high) > Math.max(from.low, to.low),
    );
    const nearest = facing.sort((a, b) => a.at - b.at)[0];
    if (!nearest) continue;
    const together = Math.min(from.high, nearest.high) - Math.max(from.low, nearest.low);
    pairs.push({ stem: [from.at, nearest.at - from.at], worth: together / (nearest.at - from.at) });
  }
  pairs.sort((a, b) => b.worth - a.worth || a.stem[0] - b.stem[0]);
  const chosen: Stem[] = [];
  for (const { stem } of pairs) if (chosen.length < MOST && chosen.every((s) => apart(s, stem))) chosen.push(stem);
  return chosen;
}

/** The lowest edge where ink begins and the highest where it ends. */
function outerEdges(edges: readonly Edge[]): Stem[] {
  const bottoms = edges.filter((e) => e.begins).map((e) => e.at);
  const tops = edges.filter((e) => !e.begins).map((e) => e.at);
  const out: Stem[] = [];
  if (bottoms.length > 0) out.push([Math.min(...bottoms) + 21, BOTTOM_EDGE]);
  if (tops.length > 0) out.push([Math.max(...tops), TOP_EDGE]);
  return out;
}

/** The commonest width of stems that face each other, counted over all glyphs; undefined when there are none. */
export function standardWidth(stems: readonly (readonly Stem[])[]): number | undefined {
  const counts = new Map<number, number>();
  for (const list of stems)
    for (const [, width] of list) if (width > 0) counts.set(width, (counts.get(width) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1] || a[0] - b[0])[0]?.[0];
}
