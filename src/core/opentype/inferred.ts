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

/** The fewest points that tell all others within half a unit, by dynamic programming round each contour; phantom points where they move. */
export function pointsToKeep(moved: Moved): number[] {
  const { ends, dx, dy } = moved;
  const kept: number[] = [];
  let start = 0;
  for (const end of ends) {
    keepOfContour(start, end, moved, kept);
    start = end + 1;
  }
  for (let i = start; i < dx.length; i++) if (dx[i] !== 0 || dy[i] !== 0) kept.push(i);
  return kept;
}

/** Room to work in, for contours of so many points: the contour once round from its first point, what telling it costs, and from where. */
const roomFor = (size: number) => ({
  x: new Float64Array(size),
  y: new Float64Array(size),
  u: new Float64Array(size),
  v: new Float64Array(size),
  cost: new Int32Array(size),
  from: new Int32Array(size),
});

let room = roomFor(256);

function keepOfContour(start: number, end: number, { xs, ys, dx, dy }: Moved, kept: number[]): void {
  const n = end - start + 1;
  // Begun at the point that moves most: it is told in any case.
  let first = 0;
  let most = -1;
  let same = true;
  for (let i = 0; i < n; i++) {
    const [u, v] = [dx[start + i]!, dy[start + i]!];
    if (u !== dx[start] || v !== dy[start]) same = false;
    const by = Math.abs(u) + Math.abs(v);
    if (by > most) {
      first = i;
      most = by;
    }
  }
  if (same) {
    if (most > 0) kept.push(start);
    return;
  }
  if (room.x.length <= n) room = roomFor(n * 2);
  const { x, y, u, v, cost, from } = room;
  // The contour from there once round, the first point again at its end.
  for (let i = 0, p = start + first; i <= n; i++, p = p === end ? start : p + 1) {
    x[i] = xs[p]!;
    y[i] = ys[p]!;
    u[i] = dx[p]!;
    v[i] = dy[p]!;
  }
  cost[0] = 0;
  for (let j = 1; j <= n; j++) {
    let least = 0x7fffffff;
    // The farther back, the cheaper: the first that tells all between is seldom bettered.
    for (let i = Math.max(0, j - LOOK_BACK); i < j; i++) {
      if (cost[i]! + 1 >= least || !tells(i, j, x, u) || !tells(i, j, y, v)) continue;
      least = cost[i]! + 1;
      from[j] = i;
    }
    cost[j] = least;
  }
  const begin = kept.length;
  for (let j = n; j > 0; j = from[j]!) {
    const p = start + first + from[j]!;
    kept.push(p > end ? p - n : p);
  }
  for (const p of kept.splice(begin).sort((a, b) => a - b)) kept.push(p);
}

/** Do two points tell all between them, on one axis? Beyond the two a point moves as the nearer does, between them in proportion. */
function tells(i: number, j: number, at: Float64Array, by: Float64Array): boolean {
  if (j - i < 2) return true;
  let a = at[i]!;
  let b = at[j]!;
  let da = by[i]!;
  let db = by[j]!;
  if (a === b && da !== db) da = db = 0;
  if (a > b) {
    a = at[j]!;
    b = at[i]!;
    da = by[j]!;
    db = by[i]!;
  }
  const slope = b > a ? (db - da) / (b - a) : 0;
  for (let k = i + 1; k < j; k++) {
    const p = at[k]!;
    const moved = p <= a ? da : p >= b ? db : da + (p - a) * slope;
    if (moved - by[k]! > TOLERANCE || by[k]! - moved > TOLERANCE) return false;
  }
  return true;
}
