import { type Contour, contourBounds, contourFromCurves, curvesOf } from './contour';
import { type Box, boundsOf, type Curve, coordinateAt, derivativeAt, endOf, extremes, isEmptyBox, partOf, pointAt, solveRising, startOf } from './curve';
import { type Crossing, crossings } from './intersect';
import { windingAt } from './winding';

/**
 * One simple outline of what a non-zero fill covers. Method: cut every curve at its extremes and at all crossings; an
 * edge between two cuts stays when just one of its sides is filled; the remaining edges are joined end to end, and
 * pieces of one original curve that nothing crossed are put back together, so untouched points stay exactly.
 *
 * `changed` is false (and the very same contours come back) when nothing overlapped. `failed` means the joined result
 * did not cover the same area as the input and the input comes back unchanged.
 */
export function removeOverlaps(contours: readonly Contour[]): { contours: readonly Contour[]; changed: boolean; failed: boolean } {
  const closed = contours.filter((c) => c.closed && curvesOf(c).length > 0);
  const open = contours.filter((c) => !c.closed || curvesOf(c).length === 0);
  const same = { contours, changed: false, failed: false };
  if (closed.length === 0) return same;
  const pieces = closed.flatMap((c, i) => monotonePieces(curvesOf(c), i));
  const cuts = findCuts(pieces);
  if (cuts.total === 0 && !swallowed(closed)) return same;

  const edges = keepBoundary(mergeCoincident(cutPieces(pieces, cuts.at)));
  const rings = joinRings(edges);
  if (!rings) return { ...same, failed: true };
  const result = rings.map((ring) => contourOfRing(ring, closed)).filter((c) => c.points.length > 1);
  if (!coversTheSame(closed, result)) return { ...same, failed: true };
  return { contours: [...result, ...open], changed: true, failed: false };
}

/** Cuts nearer than this to each other, in font units, are one place. */
const SAME_PLACE = 0.02;

/** A part of an original curve that only rises or falls in x and in y. */
type Piece = { contour: number; source: number; curve: Curve; t0: number; t1: number; box: Box };
type Edge = Piece & { from: number; to: number };

function monotonePieces(curves: readonly Curve[], contour: number): Piece[] {
  const pieces: Piece[] = [];
  curves.forEach((curve, source) => {
    if (curve.length === 4 && curve[0] === curve[2] && curve[1] === curve[3]) return;
    const cuts = [...extremes(curve, 0), ...extremes(curve, 1), 1].sort((a, b) => a - b);
    let t0 = 0;
    for (const t1 of cuts) {
      if (t1 - t0 < 1e-6) continue;
      const end = t1 > 1 - 1e-6 ? 1 : t1;
      const part = partOf(curve, t0, end);
      pieces.push({ contour, source, curve: part, t0, t1: end, box: boundsOf([part]) });
      t0 = end;
    }
  });
  return pieces;
}

/** For each piece the sorted places (0…1 within the piece) where something meets it. */
function findCuts(pieces: readonly Piece[]): { at: number[][]; total: number } {
  const at: number[][] = pieces.map(() => []);
  let total = 0;
  const order = pieces.map((_, i) => i).sort((a, b) => pieces[a]!.box.xMin - pieces[b]!.box.xMin);
  const note = (piece: number, t: number) => {
    const [x, y] = pointAt(pieces[piece]!.curve, t);
    const [sx, sy] = startOf(pieces[piece]!.curve);
    const [ex, ey] = endOf(pieces[piece]!.curve);
    const atEnd = Math.hypot(x - sx, y - sy) < SAME_PLACE || Math.hypot(x - ex, y - ey) < SAME_PLACE;
    if (!atEnd) at[piece]!.push(t);
  };
  for (let i = 0; i < order.length; i++) {
    const a = pieces[order[i]!]!;
    for (let j = i + 1; j < order.length; j++) {
      const b = pieces[order[j]!]!;
      if (b.box.xMin > a.box.xMax + SAME_PLACE) break;
      if (b.box.yMin > a.box.yMax + SAME_PLACE || b.box.yMax < a.box.yMin - SAME_PLACE) continue;
      if (onlyCornersMeet(a, b)) continue;
      for (const hit of crossings(a.curve, b.curve)) {
        if (isPlainJoint(a, b, hit)) continue;
        total++;
        note(order[i]!, hit.t);
        note(order[j]!, hit.u);
      }
    }
  }
  for (const list of at) list.sort((a, b) => a - b);
  return { at, total };
}

/** Neighbours whose boxes share nothing but the joint between them cannot meet elsewhere: each only rises or falls. */
function onlyCornersMeet(a: Piece, b: Piece): boolean {
  if (a.contour !== b.contour) return false;
  const wide = Math.min(a.box.xMax, b.box.xMax) - Math.max(a.box.xMin, b.box.xMin);
  const tall = Math.min(a.box.yMax, b.box.yMax) - Math.max(a.box.yMin, b.box.yMin);
  if (wide > 1e-6 || tall > 1e-6) return false;
  const n = a.curve.length;
  const m = b.curve.length;
  const joined = (c: Curve, i: number, d: Curve, j: number) => c[i] === d[j] && c[i + 1] === d[j + 1];
  return joined(a.curve, n - 2, b.curve, 0) || joined(b.curve, m - 2, a.curve, 0);
}

/** Neighbours on a contour always meet at their shared end; that is not an overlap. */
function isPlainJoint(a: Piece, b: Piece, hit: Crossing): boolean {
  if (a.contour !== b.contour) return false;
  const near = (p: readonly [number, number], q: readonly [number, number]) => Math.hypot(p[0] - q[0], p[1] - q[1]) < SAME_PLACE;
  const place = pointAt(a.curve, hit.t);
  const shared = near(endOf(a.curve), startOf(b.curve)) && near(place, endOf(a.curve));
  const sharedBack = near(endOf(b.curve), startOf(a.curve)) && near(place, startOf(a.curve));
  return shared || sharedBack;
}

/** Does a contour lie wholly within the fill of others, or wind the wrong way so that the fill counts double? */
function swallowed(closed: readonly Contour[]): boolean {
  if (closed.length === 1) return false;
  return closed.some((c, i) => {
    const box = contourBounds(c);
    const around = closed.filter((o, j) => {
      const b = contourBounds(o);
      return i !== j && b.xMin <= box.xMin && b.xMax >= box.xMax && b.yMin <= box.yMin && b.yMax >= box.yMax;
    });
    if (around.length === 0) return false;
    const first = curvesOf(c)[0]!;
    const [x, y] = pointAt(first, 0.5);
    const outside = around.reduce((sum, o) => sum + windingAt(curvesOf(o), x, y), 0);
    const own = windingInside(c);
    return outside !== 0 && outside + own !== 0;
  });
}

function windingInside(c: Contour): number {
  let area = 0;
  for (const curve of curvesOf(c)) {
    area += curve[0]! * curve[curve.length - 1]! - curve[curve.length - 2]! * curve[1]!;
  }
  return area > 0 ? 1 : -1;
}

/** Numbers the places where edges meet; places within {@link SAME_PLACE} share a number. */
class Places {
  readonly x: number[] = [];
  readonly y: number[] = [];
  private readonly cells = new Map<string, number[]>();

  at(x: number, y: number): number {
    const cx = Math.round(x / SAME_PLACE);
    const cy = Math.round(y / SAME_PLACE);
    for (let i = -1; i <= 1; i++) {
      for (let j = -1; j <= 1; j++) {
        for (const id of this.cells.get(`${cx + i},${cy + j}`) ?? []) {
          if (Math.hypot(this.x[id]! - x, this.y[id]! - y) <= SAME_PLACE) return id;
        }
      }
    }
    const id = this.x.push(x) - 1;
    this.y.push(y);
    const key = `${cx},${cy}`;
    const cell = this.cells.get(key);
    if (cell) cell.push(id);
    else this.cells.set(key, [id]);
    return id;
  }
}

function cutPieces(pieces: readonly Piece[], at: readonly (readonly number[])[]): Edge[] {
  const places = new Places();
  const edges: Edge[] = [];
  // Original ends first, so that crossings settle on them and not the other way round.
  for (const p of pieces) places.at(...startOf(p.curve));
  pieces.forEach((piece, i) => {
    let t0 = 0;
    let from = places.at(...startOf(piece.curve));
    for (const t1 of [...at[i]!, 1]) {
      const to = places.at(...pointAt(piece.curve, t1));
      if (to === from) continue;
      const span = piece.t1 - piece.t0;
      const curve = withEndsAt(partOf(piece.curve, t0, t1), places, from, to);
      edges.push({
        ...piece,
        curve,
        from,
        to,
        box: boundsOf([curve]),
        t0: piece.t0 + span * t0,
        t1: t1 === 1 ? piece.t1 : piece.t0 + span * t1,
      });
      t0 = t1;
      from = to;
    }
  });
  return edges;
}

/** Edges that meet share their ends to the last digit, so that no ray slips between them. */
function withEndsAt(curve: Curve, places: Places, from: number, to: number): Curve {
  const exact = curve.slice();
  exact[0] = places.x[from]!;
  exact[1] = places.y[from]!;
  exact[curve.length - 2] = places.x[to]!;
  exact[curve.length - 1] = places.y[to]!;
  return exact;
}

/** Edges lying on one another become one edge that counts several times, opposite ones cancelling. */
type Weighed = { edge: Edge; weight: number };

function mergeCoincident(edges: readonly Edge[]): Weighed[] {
  const byEnds = new Map<string, Weighed[]>();
  for (const edge of edges) {
    const key = edge.from < edge.to ? `${edge.from},${edge.to}` : `${edge.to},${edge.from}`;
    const rivals = byEnds.get(key) ?? [];
    byEnds.set(key, rivals);
    const [x, y] = pointAt(edge.curve, 0.5);
    const twin = rivals.find(({ edge: other }) => distanceToMonotone(other.curve, x, y) < SAME_PLACE * 2);
    if (twin) twin.weight += twin.edge.from === edge.from ? 1 : -1;
    else rivals.push({ edge, weight: 1 });
  }
  return [...byEnds.values()].flat();
}

function distanceToMonotone(c: Curve, x: number, y: number): number {
  const tall = Math.abs(c[c.length - 1]! - c[1]!) > Math.abs(c[c.length - 2]! - c[0]!);
  const axis = tall ? 1 : 0;
  const goal = tall ? y : x;
  const t = solveRising(c, axis, goal);
  const p = pointAt(c, t);
  return Math.hypot(p[0] - x, p[1] - y);
}

/** Keeps the edges with fill on just one side, turned so that the fill lies to their left. */
function keepBoundary(weighed: readonly Weighed[]): Edge[] {
  const kept: Edge[] = [];
  for (const own of weighed) {
    if (own.weight === 0) continue;
    const { edge, weight } = own;
    const right = windingBeside(own, weighed);
    const left = right + weight;
    if (left !== 0 && right === 0) kept.push(edge);
    else if (left === 0 && right !== 0) kept.push(turned(edge));
  }
  return kept;
}

function turned(edge: Edge): Edge {
  const curve: number[] = [];
  for (let i = edge.curve.length - 2; i >= 0; i -= 2) curve.push(edge.curve[i]!, edge.curve[i + 1]!);
  return { ...edge, curve, from: edge.to, to: edge.from, t0: edge.t1, t1: edge.t0 };
}

/** Winding number just to the right of the middle of an edge, from the crossings of all other edges with a ray. */
function windingBeside(own: Weighed, weighed: readonly Weighed[]): number {
  const c = own.edge.curve;
  const d = derivativeAt(c, 0.5);
  // A ray across the edge: level for steep edges, upright for flat ones.
  const axis: 0 | 1 = Math.abs(d[1]) >= Math.abs(d[0]) ? 1 : 0;
  const along = axis === 1 ? 0 : 1;
  let best = { gap: -1, winding: 0 };
  for (const t of [0.5, 0.37, 0.61, 0.23, 0.79]) {
    const p = pointAt(c, t);
    let winding = 0;
    let gap = Infinity;
    for (const { edge, weight } of weighed) {
      if (edge === own.edge || weight === 0) continue;
      const a = edge.curve[axis]!;
      const b = edge.curve[edge.curve.length - 2 + axis]!;
      const up = a <= p[axis] && b > p[axis];
      const down = b <= p[axis] && a > p[axis];
      if (!up && !down) continue;
      const lowest = along === 0 ? edge.box.xMin : edge.box.yMin;
      if (lowest > p[along]) continue;
      const crossing = coordinateAt(edge.curve, along, solveRising(edge.curve, axis, p[axis]));
      gap = Math.min(gap, Math.abs(crossing - p[along]));
      if (crossing < p[along]) winding += up ? -weight : weight;
    }
    // On an upright ray the sense of turning is the other way round.
    const oriented = axis === 1 ? winding : -winding;
    const forward = axis === 1 ? d[1] > 0 : d[0] < 0;
    // What was counted lies on the ray's side; cross the edge itself if that is its left.
    const value = forward ? oriented - own.weight : oriented;
    if (gap > best.gap) best = { gap, winding: value };
    if (gap > SAME_PLACE * 4) break;
  }
  return best.winding;
}

/** Joins edges end to end; undefined when some end has no continuation. */
function joinRings(edges: readonly Edge[]): Edge[][] | undefined {
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

/** Joins pieces of one original curve again and makes a contour that starts at an original start point if it has one. */
function contourOfRing(ring: readonly Edge[], closed: readonly Contour[]): Contour {
  const continues = (a: Edge, b: Edge) => a.contour === b.contour && a.source === b.source && a.t1 === b.t0;
  let begin = ring.findIndex((e) => e.source === 0 && e.t0 === 0);
  if (begin < 0)
    begin = Math.max(
      0,
      ring.findIndex((e, i) => !continues(ring[(i + ring.length - 1) % ring.length]!, e)),
    );
  const ordered = [...ring.slice(begin), ...ring.slice(0, begin)];
  const runs: { contour: number; source: number; t0: number; t1: number; ends: Curve }[] = [];
  for (const e of ordered) {
    const last = runs[runs.length - 1];
    if (last && last.contour === e.contour && last.source === e.source && last.t1 === e.t0) {
      last.t1 = e.t1;
      last.ends = [...last.ends.slice(0, 2), ...endOf(e.curve)];
    } else runs.push({ contour: e.contour, source: e.source, t0: e.t0, t1: e.t1, ends: [...startOf(e.curve), ...endOf(e.curve)] });
  }
  const curves = runs.map((run) => {
    const original = curvesOf(closed[run.contour]!)[run.source]!;
    if (run.t0 === 0 && run.t1 === 1) return original;
    if (run.t0 === 1 && run.t1 === 0) return reversedCurve(original);
    return run.t0 < run.t1 ? partOf(original, run.t0, run.t1) : reversedCurve(partOf(original, run.t1, run.t0));
  });
  return contourFromCurves(meetExactly(curves), true);
}

const reversedCurve = (c: Curve): Curve => {
  const out: number[] = [];
  for (let i = c.length - 2; i >= 0; i -= 2) out.push(c[i]!, c[i + 1]!);
  return out;
};

/** Makes each curve start exactly where the one before it ends, moving a handle along with its point. */
function meetExactly(curves: readonly Curve[]): Curve[] {
  return curves.map((c, i) => {
    const before = curves[(i + curves.length - 1) % curves.length]!;
    const [x, y] = endOf(before);
    if (c[0] === x && c[1] === y) return c;
    const moved = c.slice() as number[];
    if (c.length > 4) {
      moved[2] = c[2]! + x - c[0]!;
      moved[3] = c[3]! + y - c[1]!;
    }
    moved[0] = x;
    moved[1] = y;
    return moved;
  });
}

/** Compares the filled lengths of both outlines on level lines through them. */
function coversTheSame(before: readonly Contour[], after: readonly Contour[]): boolean {
  const a = before.flatMap((c) => [...curvesOf(c)]);
  const b = after.flatMap((c) => [...curvesOf(c)]);
  const box = boundsOf(a);
  if (isEmptyBox(box)) return true;
  const lines = 23;
  const allowed = 0.25 + (box.xMax - box.xMin) * 1e-3;
  let bad = 0;
  for (let i = 0; i < lines; i++) {
    const y = box.yMin + ((i + 0.4871) / lines) * (box.yMax - box.yMin);
    if (Math.abs(filledLength(a, y) - filledLength(b, y)) > allowed) bad++;
  }
  return bad <= 1;
}

/** Length of a level line inside a non-zero fill. */
export function filledLength(curves: readonly Curve[], y: number): number {
  const hits: { x: number; turn: number }[] = [];
  for (const c of curves) {
    if (!reaches(c, y)) continue;
    let t0 = 0;
    for (const t1 of c.length === 4 ? ONE : [...extremes(c, 1), 1]) {
      const y0 = coordinateAt(c, 1, t0);
      const y1 = coordinateAt(c, 1, t1);
      const up = y0 <= y && y1 > y;
      if (up || (y1 <= y && y0 > y)) hits.push({ x: coordinateAt(c, 0, solveRising(c, 1, y, t0, t1)), turn: up ? 1 : -1 });
      t0 = t1;
    }
  }
  hits.sort((p, q) => p.x - q.x);
  let winding = 0;
  let length = 0;
  hits.forEach((hit, i) => {
    winding += hit.turn;
    if (winding !== 0) length += (hits[i + 1]?.x ?? hit.x) - hit.x;
  });
  return length;
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
