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
  // The contour from there once round, the first point again at its end.
  const [x, y, u, v] = [m.xs, m.ys, m.dx, m.dy].map((values) => {
    const round = new Float64Array(n + 1);
    for (let i = 0; i <= n; i++) round[i] = values[start + ((first + i) % n)]!;
    return round;
  }) as [Float64Array, Float64Array, Float64Array, Float64Array];
  const cost = new Int32Array(n + 1).fill(0x7fffffff);
  const from = new Int32Array(n + 1);
  cost[0] = 0;
  for (let j = 1; j <= n; j++) {
    // The farther back, the cheaper: the first that tells all between is seldom bettered.
    for (let i = Math.max(0, j - LOOK_BACK); i < j; i++) {
      if (cost[i]! + 1 >= cost[j]! || !tells(i, j, x, u) || !tells(i, j, y, v)) continue;
      cost[j] = cost[i]! + 1;
      from[j] = i;
    }
  }
  const kept: number[] = [];
  for (let j = n; j > 0; j = from[j]!) kept.push(start + ((first + from[j]!) % n));
  return kept.sort((a, b) => a - b);
}

/** Do two points tell all between them, on one axis? Beyond the two a point moves as the nearer does, between them in proportion. */
function tells(i: number, j: number, at: Float64Array, by: Float64Array): boolean {
  let [a, b, da, db] = [at[i]!, at[j]!, by[i]!, by[j]!];
  if (a === b && da !== db) da = db = 0;
  if (a > b) [a, b, da, db] = [b, a, db, da];
  const slope = b > a ? (db - da) / (b - a) : 0;
  for (let k = i + 1; k < j; k++) {
    const p = at[k]!;
    const moved = p <= a ? da : p >= b ? db : da + (p - a) * slope;
    if (moved - by[k]! > TOLERANCE || by[k]! - moved > TOLERANCE) return false;
  }
  return true;
}
