import type { Filled } from './boundary';
import { boundsOf, type Curve, coordinateAt, extremes, isEmptyBox, solveRising } from './curve';

/** A non-zero fill of one operand. */
export const NON_ZERO: Filled = (first) => first !== 0;

/** What a level line through two operands crosses, from left to right; `turn` adds to the winding, 1 where an edge falls. */
type Hit = { x: number; turn: number; operand: 0 | 1 };

function hitsOf(curves: readonly Curve[], operand: 0 | 1, y: number, hits: Hit[]): void {
  for (const c of curves) {
    if (!reaches(c, y)) continue;
    let t0 = 0;
    for (const t1 of c.length === 4 ? ONE : [...extremes(c, 1), 1]) {
      const y0 = coordinateAt(c, 1, t0);
      const y1 = coordinateAt(c, 1, t1);
      const up = y0 <= y && y1 > y;
      if (up || (y1 <= y && y0 > y))
        hits.push({ x: coordinateAt(c, 0, solveRising(c, 1, y, t0, t1)), turn: up ? -1 : 1, operand });
      t0 = t1;
    }
  }
}

const ONE = [1];

/** Can the curve meet the level line at all? */
function reaches(c: Curve, y: number): boolean {
  let above = false;
  let below = false;
  for (let i = 1; i < c.length; i += 2) {
    if (c[i]! > y) above = true;
    else below = true;
  }
  return above && below;
}

/** The stretches of a level line that are inked, as a rising list of x: in, out, in, out… */
export function inkedStretches(first: readonly Curve[], second: readonly Curve[], filled: Filled, y: number): number[] {
  const hits: Hit[] = [];
  hitsOf(first, 0, y, hits);
  hitsOf(second, 1, y, hits);
  hits.sort((p, q) => p.x - q.x);
  const winding: [number, number] = [0, 0];
  const edges: number[] = [];
  let inked = false;
  for (const hit of hits) {
    winding[hit.operand] += hit.turn;
    const now = filled(winding[0], winding[1]);
    if (now !== inked) edges.push(hit.x);
    inked = now;
  }
  return edges;
}

/** Length of a level line inside a non-zero fill, in font units. */
export const filledLength = (curves: readonly Curve[], y: number): number =>
  inkedStretches(curves, [], NON_ZERO, y).reduce((sum, x, i) => sum + (i % 2 === 0 ? -x : x), 0);

/** Length that is in just one of two lists of stretches. */
export function differingLength(a: readonly number[], b: readonly number[]): number {
  const edges = [...a.map((x) => ({ x, of: 1 })), ...b.map((x) => ({ x, of: 2 }))].sort((p, q) => p.x - q.x);
  let state = 0;
  let length = 0;
  edges.forEach(({ x, of }, i) => {
    state ^= of;
    if (state === 1 || state === 2) length += edges[i + 1]!.x - x;
  });
  return length;
}

/** Do the curves of a result cover what the operands should, as far as level lines through them tell? */
export function coversTheSame(
  first: readonly Curve[],
  second: readonly Curve[],
  filled: Filled,
  result: readonly Curve[],
): boolean {
  const box = boundsOf([...first, ...second]);
  if (isEmptyBox(box)) return true;
  const lines = 23;
  const allowed = 0.25 + (box.xMax - box.xMin) * 1e-3;
  let bad = 0;
  for (let i = 0; i < lines; i++) {
    const y = box.yMin + ((i + 0.4871) / lines) * (box.yMax - box.yMin);
    if (differingLength(inkedStretches(first, second, filled, y), inkedStretches(result, [], NON_ZERO, y)) > allowed)
      bad++;
  }
  return bad <= 1;
}
