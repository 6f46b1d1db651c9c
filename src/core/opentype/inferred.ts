/**
 * Points of a glyph that are not told move with their neighbours on the contour (OpenType, “Inferred deltas for un-referenced point
 * numbers”): here it is worked out which ones need telling.
 */
export type Moved = {
  xs: readonly number[];
  ys: readonly number[];
  ends: readonly number[];
  dx: readonly number[];
  dy: readonly number[];
};

/** A point may lie so far, in units, from where it belongs. */
const TOLERANCE = 0.5;
/** How far back from a point that is told the one before it is looked for; contours of more points are told in more. */
const LOOK_BACK = 24;

/** Where a point between two that move comes to lie, on one axis. */
function inferred(v: number, a: number, b: number, da: number, db: number): number {
  if (a === b) return da === db ? da : 0;
  if (a > b) return inferred(v, b, a, db, da);
  if (v <= a) return da;
  if (v >= b) return db;
  return da + ((v - a) / (b - a)) * (db - da);
}

/** The fewest points that tell all others within half a unit, by dynamic programming round each contour; phantom points where they move. */
export function pointsToKeep({ xs, ys, ends, dx, dy }: Moved): number[] {
  const kept: number[] = [];
  let start = 0;
  for (const end of ends) {
    kept.push(...ofContour(start, end, { xs, ys, ends, dx, dy }));
    start = end + 1;
  }
  for (let i = start; i < dx.length; i++) if (dx[i] !== 0 || dy[i] !== 0) kept.push(i);
  return kept;
}

function ofContour(start: number, end: number, m: Moved): number[] {
  const n = end - start + 1;
  const at = (i: number) => start + (i % n);
  const still = (i: number) => m.dx[i] === m.dx[start] && m.dy[i] === m.dy[start];
  let same = true;
  for (let i = start; i <= end && same; i++) same = still(i);
  if (same) return m.dx[start] === 0 && m.dy[start] === 0 ? [] : [start];
  // Begun at the point that moves most: it is told in any case.
  let first = 0;
  let most = -1;
  for (let i = 0; i < n; i++) {
    const p = start + i;
    const by = Math.abs(m.dx[p]!) + Math.abs(m.dy[p]!);
    if (by > most) [first, most] = [i, by];
  }
  const cost = new Int32Array(n + 1).fill(0x7fffffff);
  const from = new Int32Array(n + 1);
  cost[0] = 0;
  for (let j = 1; j <= n; j++)
    for (let i = j - 1; i >= Math.max(0, j - LOOK_BACK); i--) {
      if (cost[i]! + 1 >= cost[j]!) continue;
      if (!tells(first + i, first + j, at, m)) continue;
      cost[j] = cost[i]! + 1;
      from[j] = i;
    }
  const kept: number[] = [];
  for (let j = n; j > 0; j = from[j]!) kept.push(at(first + from[j]!));
  return kept.sort((a, b) => a - b);
}

/** Do two points tell all between them? */
function tells(i: number, j: number, at: (i: number) => number, { xs, ys, dx, dy }: Moved): boolean {
  const [a, b] = [at(i), at(j)];
  for (let k = i + 1; k < j; k++) {
    const p = at(k);
    if (Math.abs(inferred(xs[p]!, xs[a]!, xs[b]!, dx[a]!, dx[b]!) - dx[p]!) > TOLERANCE) return false;
    if (Math.abs(inferred(ys[p]!, ys[a]!, ys[b]!, dy[a]!, dy[b]!) - dy[p]!) > TOLERANCE) return false;
  }
  return true;
}
