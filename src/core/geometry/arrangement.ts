import { type Contour, curvesOf } from './contour';
import { type Box, boundsOf, type Curve, endOf, extremes, partOf, pointAt, solveRising, startOf } from './curve';
import { type Crossing, crossings } from './intersect';

/** Cuts the closed contours of one or two operands at their extremes and wherever they meet; `split` is the first of the second operand. */
export function arrangement(contours: readonly Contour[], split: number, samePlace: number): Weighed[] {
  const pieces = piecesOf(contours, split);
  return mergeCoincident(cutPieces(pieces, findCuts(pieces, samePlace).at, samePlace), samePlace);
}

/** Do closed contours meet themselves or each other anywhere but at their own joints? */
export const doMeet = (contours: readonly Contour[], samePlace: number): boolean =>
  findCuts(piecesOf(contours, contours.length), samePlace, true).total > 0;

/**
 * What putting shapes together may cost, counted, not timed: pairs of pieces that are held against each other, and places
 * where they meet, as many as a plain outline of so many pieces may have. Drawn letters need some hundreds of each; scribbles
 * of thousands of crossings end here, in a second or two. However many pieces there are, no more than `most` are held.
 */
const MOST_TESTS = { least: 120_000, aPiece: 60, most: 400_000 };
const MOST_MEETINGS = { least: 6000, aPiece: 12 };

/** Thrown where putting shapes together would cost too much. */
export class TooTangled extends Error {}

const piecesOf = (contours: readonly Contour[], split: number): Piece[] =>
  contours.flatMap((c, i) => monotonePieces(curvesOf(c), i < split ? 0 : 1, i));

/** Contours whose points lie apart by more than `distance` or not at all; those that need no change keep their identity. */
export function withCommonPoints(contours: readonly Contour[], distance: number): Contour[] {
  const places = new Places(distance);
  return contours.map((contour) => {
    let changed = false;
    const points = contour.points.map((p) => {
      const id = places.at(p.x, p.y);
      const [x, y] = [places.x[id]!, places.y[id]!];
      if (x === p.x && y === p.y) return p;
      changed = true;
      return { ...p, x, y };
    });
    return changed ? { ...contour, points } : contour;
  });
}

/** A part of an original curve that only rises or falls in x and in y. */
type Piece = { operand: 0 | 1; contour: number; source: number; curve: Curve; t0: number; t1: number; box: Box };

/** A piece between two cuts: `from` and `to` are numbers of places; `t0` > `t1` when it runs against its original. */
export type Edge = Piece & { from: number; to: number };

/** How often the edge counts for each operand; edges lying on one another are one, opposite ones cancelling. */
export type Weighed = { edge: Edge; weight: [number, number] };

function monotonePieces(curves: readonly Curve[], operand: 0 | 1, contour: number): Piece[] {
  const pieces: Piece[] = [];
  curves.forEach((curve, source) => {
    if (curve.length === 4 && curve[0] === curve[2] && curve[1] === curve[3]) return;
    const cuts = [...extremes(curve, 0), ...extremes(curve, 1), 1].sort((a, b) => a - b);
    let t0 = 0;
    for (const t1 of cuts) {
      if (t1 - t0 < 1e-6) continue;
      const end = t1 > 1 - 1e-6 ? 1 : t1;
      const part = partOf(curve, t0, end);
      pieces.push({ operand, contour, source, curve: part, t0, t1: end, box: boundsOf([part]) });
      t0 = end;
    }
  });
  return pieces;
}

/** For each piece the sorted places (0…1 within the piece) where something meets it. */
function findCuts(pieces: readonly Piece[], samePlace: number, onlyWhether = false): { at: number[][]; total: number } {
  const at: number[][] = pieces.map(() => []);
  let total = 0;
  let tests = 0;
  const mostTests = Math.min(MOST_TESTS.most, Math.max(MOST_TESTS.least, MOST_TESTS.aPiece * pieces.length));
  const mostMeetings = Math.max(MOST_MEETINGS.least, MOST_MEETINGS.aPiece * pieces.length);
  const order = pieces.map((_, i) => i).sort((a, b) => pieces[a]!.box.xMin - pieces[b]!.box.xMin);
  const note = (piece: number, t: number) => {
    const [x, y] = pointAt(pieces[piece]!.curve, t);
    const [sx, sy] = startOf(pieces[piece]!.curve);
    const [ex, ey] = endOf(pieces[piece]!.curve);
    const atEnd = Math.hypot(x - sx, y - sy) < samePlace || Math.hypot(x - ex, y - ey) < samePlace;
    if (!atEnd) at[piece]!.push(t);
  };
  for (let i = 0; i < order.length; i++) {
    const a = pieces[order[i]!]!;
    for (let j = i + 1; j < order.length; j++) {
      const b = pieces[order[j]!]!;
      if (b.box.xMin > a.box.xMax + samePlace) break;
      if (b.box.yMin > a.box.yMax + samePlace || b.box.yMax < a.box.yMin - samePlace) continue;
      if (onlyCornersMeet(a, b)) continue;
      if (++tests > mostTests || total > mostMeetings) throw new TooTangled();
      // Pieces that are the same need no cut but at their ends.
      if (isSame(a.curve, b.curve)) {
        total++;
        if (onlyWhether) return { at, total };
        continue;
      }
      for (const hit of crossings(a.curve, b.curve)) {
        if (isPlainJoint(a, b, hit, samePlace)) continue;
        total++;
        if (onlyWhether) return { at, total };
        note(order[i]!, hit.t);
        note(order[j]!, hit.u);
      }
    }
  }
  for (const list of at) list.sort((a, b) => a - b);
  return { at, total };
}

const isSame = (a: Curve, b: Curve): boolean => a.length === b.length && a.every((v, i) => v === b[i]);

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
function isPlainJoint(a: Piece, b: Piece, hit: Crossing, samePlace: number): boolean {
  if (a.contour !== b.contour) return false;
  const near = (p: readonly [number, number], q: readonly [number, number]) =>
    Math.hypot(p[0] - q[0], p[1] - q[1]) < samePlace;
  const place = pointAt(a.curve, hit.t);
  const shared = near(endOf(a.curve), startOf(b.curve)) && near(place, endOf(a.curve));
  const sharedBack = near(endOf(b.curve), startOf(a.curve)) && near(place, startOf(a.curve));
  return shared || sharedBack;
}

/** One number for a cell of the plane; cells are counted from some millions below zero on. */
const cellKey = (cx: number, cy: number): number => (cx + 0x4000000) * 0x8000000 + (cy + 0x4000000);

/** Numbers the places where edges meet; places nearer than `samePlace` share a number. */
class Places {
  readonly x: number[] = [];
  readonly y: number[] = [];
  private readonly cells = new Map<number, number[]>();

  constructor(private readonly samePlace: number) {}

  at(x: number, y: number): number {
    const cx = Math.round(x / this.samePlace);
    const cy = Math.round(y / this.samePlace);
    for (let i = -1; i <= 1; i++) {
      for (let j = -1; j <= 1; j++) {
        for (const id of this.cells.get(cellKey(cx + i, cy + j)) ?? []) {
          if (Math.hypot(this.x[id]! - x, this.y[id]! - y) <= this.samePlace) return id;
        }
      }
    }
    const id = this.x.push(x) - 1;
    this.y.push(y);
    const key = cellKey(cx, cy);
    const cell = this.cells.get(key);
    if (cell) cell.push(id);
    else this.cells.set(key, [id]);
    return id;
  }
}

function cutPieces(pieces: readonly Piece[], at: readonly (readonly number[])[], samePlace: number): Edge[] {
  const places = new Places(samePlace);
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
function mergeCoincident(edges: readonly Edge[], samePlace: number): Weighed[] {
  const byEnds = new Map<number, Weighed[]>();
  for (const edge of edges) {
    const key = Math.min(edge.from, edge.to) * 0x4000000 + Math.max(edge.from, edge.to);
    const rivals = byEnds.get(key);
    const weight: [number, number] = edge.operand === 0 ? [1, 0] : [0, 1];
    if (!rivals) {
      byEnds.set(key, [{ edge, weight }]);
      continue;
    }
    const [x, y] = pointAt(edge.curve, 0.5);
    const twin = rivals.find(({ edge: other }) => distanceToMonotone(other.curve, x, y) < samePlace);
    if (twin) twin.weight[edge.operand] += twin.edge.from === edge.from ? 1 : -1;
    else rivals.push({ edge, weight });
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
