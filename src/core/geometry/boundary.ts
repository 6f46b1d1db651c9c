import type { Edge, Weighed } from './arrangement';
import { type Curve, coordinateAt, derivativeAt, pointAt, reversed, solveRising } from './curve';

/** Whether a place is inked, by its windings in the first and in the second operand. */
export type Filled = (first: number, second: number) => boolean;

/** Keeps the edges with fill on just one side, turned so that the fill lies to their left. */
export function keepBoundary(weighed: readonly Weighed[], filled: Filled, samePlace: number): Edge[] {
  const counting = weighed.filter(({ weight }) => weight[0] !== 0 || weight[1] !== 0);
  const rows = [new Rows(counting, 0), new Rows(counting, 1)] as const;
  const kept: Edge[] = [];
  for (const own of counting) {
    const { edge, weight } = own;
    const [first, second] = windingBeside(own, rows, samePlace);
    const right = filled(first, second);
    const left = filled(first + weight[0], second + weight[1]);
    if (left && !right) kept.push(edge);
    else if (!left && right) kept.push(turned(edge));
  }
  return kept;
}

/** Edges by the rows (or columns) that they pass through, so that a ray meets only those near it. */
class Rows {
  private readonly rows: Weighed[][] = [];
  private readonly start: number;
  private readonly step: number;

  constructor(weighed: readonly Weighed[], axis: 0 | 1) {
    const [low, high] = axis === 0 ? (['xMin', 'xMax'] as const) : (['yMin', 'yMax'] as const);
    let [least, most] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
    for (const { edge } of weighed) {
      least = Math.min(least, edge.box[low]);
      most = Math.max(most, edge.box[high]);
    }
    const count = Math.max(1, Math.min(4096, weighed.length >> 1));
    this.start = least;
    this.step = (most - least) / count || 1;
    for (const one of weighed) {
      const to = this.row(one.edge.box[high]);
      for (let r = this.row(one.edge.box[low]); r <= to; r++) {
        const row = this.rows[r];
        if (row) row.push(one);
        else this.rows[r] = [one];
      }
    }
  }

  private row(v: number): number {
    return Math.floor((v - this.start) / this.step);
  }

  at(v: number): readonly Weighed[] {
    return this.rows[this.row(v)] ?? NO_EDGES;
  }
}

const NO_EDGES: readonly Weighed[] = [];

const turned = (edge: Edge): Edge => ({
  ...edge,
  curve: reversed(edge.curve),
  from: edge.to,
  to: edge.from,
  t0: edge.t1,
  t1: edge.t0,
});

/** Winding numbers just to the right of the middle of an edge, from the crossings of all other edges with a ray. */
function windingBeside(own: Weighed, rows: readonly [Rows, Rows], samePlace: number): readonly [number, number] {
  const c = own.edge.curve;
  const d = derivativeAt(c, 0.5);
  // A ray across the edge: level for steep edges, upright for flat ones.
  const axis: 0 | 1 = Math.abs(d[1]) >= Math.abs(d[0]) ? 1 : 0;
  const along = axis === 1 ? 0 : 1;
  // On an upright ray the sense of turning is the other way round.
  const sense = axis === 1 ? 1 : -1;
  // What is counted lies on the ray's side; the edge itself is crossed if that is its left.
  const crossed = (axis === 1 ? d[1] > 0 : d[0] < 0) ? 1 : 0;
  let best = { gap: -1, first: 0, second: 0 };
  for (const t of [0.5, 0.37, 0.61, 0.23, 0.79]) {
    const p = pointAt(c, t);
    let first = 0;
    let second = 0;
    let gap = Infinity;
    for (const { edge, weight } of rows[axis].at(p[axis])) {
      if (edge === own.edge) continue;
      const a = edge.curve[axis]!;
      const b = edge.curve[edge.curve.length - 2 + axis]!;
      const up = a <= p[axis] && b > p[axis];
      const down = b <= p[axis] && a > p[axis];
      if (!up && !down) continue;
      const lowest = along === 0 ? edge.box.xMin : edge.box.yMin;
      if (lowest > p[along] + samePlace * 4) continue;
      const crossing = coordinateAt(edge.curve, along, solveRising(edge.curve, axis, p[axis]));
      gap = Math.min(gap, Math.abs(crossing - p[along]));
      if (crossing >= p[along]) continue;
      first += up ? -weight[0] : weight[0];
      second += up ? -weight[1] : weight[1];
    }
    if (gap > best.gap) best = { gap, first, second };
    if (gap > samePlace * 4) break;
  }
  return [sense * best.first - crossed * own.weight[0], sense * best.second - crossed * own.weight[1]];
}

/** Joins edges end to end; undefined when some end has no continuation. */
export function joinRings(edges: readonly Edge[]): Edge[][] | undefined {
  const leaving = new Map<number, Edge[]>();
  for (const e of edges) {
    const list = leaving.get(e.from);
    if (list) list.push(e);
    else leaving.set(e.from, [e]);
  }
  const used = new Set<Edge>();
  const rings: Edge[][] = [];
  for (const first of edges) {
    if (used.has(first)) continue;
    const ring = [first];
    used.add(first);
    let current = first;
    while (current.to !== first.from) {
      const choices = (leaving.get(current.to) ?? []).filter((e) => !used.has(e));
      const next = sharpestLeft(current, choices);
      if (!next) return undefined;
      used.add(next);
      ring.push(next);
      current = next;
    }
    rings.push(ring);
  }
  return rings;
}

/** At a place where several rings touch, the continuation that keeps them apart. */
function sharpestLeft(arriving: Edge, choices: readonly Edge[]): Edge | undefined {
  if (choices.length < 2) return choices[0];
  const back = directionNear(arriving.curve, 1);
  let best: Edge | undefined;
  let bestTurn = -Infinity;
  for (const choice of choices) {
    const out = directionNear(choice.curve, 0);
    const turn = Math.atan2(back[0] * out[1] - back[1] * out[0], back[0] * out[0] + back[1] * out[1]);
    if (turn > bestTurn) {
      bestTurn = turn;
      best = choice;
    }
  }
  return best;
}

/** Direction a little away from an end, where retracted handles and tangent ties no longer matter. */
function directionNear(c: Curve, end: 0 | 1): readonly [number, number] {
  const a = pointAt(c, end === 0 ? 0 : 0.98);
  const b = pointAt(c, end === 0 ? 0.02 : 1);
  return [b[0] - a[0], b[1] - a[1]];
}
