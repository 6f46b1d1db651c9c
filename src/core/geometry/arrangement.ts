import { sameItems } from '../base/sharing';
import { type Contour, curvesOf } from './contour';
import { type Box, type Curve, endOf, extremes, partOf, pointAt, solveRising, startOf } from './curve';
import { type Crossing, surelyApart } from './intersect';
import { monotoneCrossings } from './monotone';

/** Closed contours in pieces that only rise or fall, with the places where these meet. */
export type Meetings = {
  readonly pieces: readonly Piece[];
  readonly at: readonly (readonly number[])[];
  readonly total: number;
};

/** Finds where closed contours meet themselves or each other, but for their own joints; `split` is the first of the second operand. */
export function meetingsOf(contours: readonly Contour[], split: number, samePlace: number): Meetings {
  const pieces = contours.flatMap((c, i) => monotonePieces(curvesOf(c), i < split ? 0 : 1, i));
  return { pieces, ...findCuts(pieces, samePlace) };
}

/** Cuts the contours at their extremes and wherever they meet. */
export const arrangement = ({ pieces, at }: Meetings, samePlace: number): Weighed[] =>
  mergeCoincident(cutPieces(pieces, at, samePlace), samePlace);

/**
 * What putting shapes together may cost, counted, not timed: pairs of pieces that are held against each other, and places
 * where they meet, as many as a plain outline of so many pieces may have. Drawn letters need some hundreds of each; scribbles
 * of thousands of crossings end here, in a second or two. However many pieces there are, no more than `most` are held.
 */
const MOST_TESTS = { least: 120_000, aPiece: 60, most: 400_000 };
const MOST_MEETINGS = { least: 6000, aPiece: 12 };

/** Thrown where putting shapes together would cost too much. */
export class TooTangled extends Error {}

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
export type Piece = { operand: 0 | 1; contour: number; source: number; curve: Curve; t0: number; t1: number; box: Box };

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
      pieces.push({ operand, contour, source, curve: part, t0, t1: end, box: boxOfMonotone(part) });
      t0 = end;
    }
  });
  return pieces;
}

/** What only rises or falls lies between its ends. */
function boxOfMonotone(c: Curve): Box {
  const [x0, y0, x1, y1] = [c[0]!, c[1]!, c[c.length - 2]!, c[c.length - 1]!];
  return { xMin: Math.min(x0, x1), yMin: Math.min(y0, y1), xMax: Math.max(x0, x1), yMax: Math.max(y0, y1) };
}

/** For each piece the sorted places (0…1 within the piece) where something meets it. */
function findCuts(pieces: readonly Piece[], samePlace: number): { at: number[][]; total: number } {
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
      // Neighbours have a joint, which is no meeting; others that end at one place meet there.
      if (areJoined(a, b) && surelyApart(a.curve, b.curve)) continue;
      if (++tests > mostTests || total > mostMeetings) throw new TooTangled();
      // Pieces that are the same need no cut but at their ends.
      if (sameItems(a.curve, b.curve)) {
        total++;
        continue;
      }
      for (const hit of monotoneCrossings(a.curve, b.curve)) {
        if (isPlainJoint(a, b, hit, samePlace)) continue;
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
  return wide <= 1e-6 && tall <= 1e-6 && areJoined(a, b);
}

/** Does one piece go on from where the other ends? */
function areJoined({ contour, curve: a }: Piece, { contour: other, curve: b }: Piece): boolean {
  if (contour !== other) return false;
  const [n, m] = [a.length - 2, b.length - 2];
  return (a[n] === b[0] && a[n + 1] === b[1]) || (b[m] === a[0] && b[m + 1] === a[1]);
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
  private readonly size: number;

  constructor(private readonly samePlace: number) {
    this.size = 2 * samePlace;
  }

  at(x: number, y: number): number {
    const [across, up] = [x / this.size, y / this.size];
    const [cx, cy] = [Math.floor(across), Math.floor(up)];
    // Cells are twice as wide as what is near, so that only those on the nearer sides can hold it.
    const [dx, dy] = [across - cx < 0.5 ? -1 : 1, up - cy < 0.5 ? -1 : 1];
    const id =
      this.near(cellKey(cx, cy), x, y) ??
      this.near(cellKey(cx + dx, cy), x, y) ??
      this.near(cellKey(cx, cy + dy), x, y) ??
      this.near(cellKey(cx + dx, cy + dy), x, y);
    if (id !== undefined) return id;
    const fresh = this.x.push(x) - 1;
    this.y.push(y);
    const key = cellKey(cx, cy);
    const cell = this.cells.get(key);
    if (cell) cell.push(fresh);
    else this.cells.set(key, [fresh]);
    return fresh;
  }

  private near(key: number, x: number, y: number): number | undefined {
    const cell = this.cells.get(key);
    if (cell)
      for (const id of cell) {
        const [dx, dy] = [this.x[id]! - x, this.y[id]! - y];
        if (dx * dx + dy * dy <= this.samePlace * this.samePlace) return id;
      }
    return undefined;
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
      const { operand, contour, source } = piece;
      const curve = withEndsAt(partOf(piece.curve, t0, t1), places, from, to);
      edges.push({
        operand,
        contour,
        source,
        curve,
        from,
        to,
        box: curve === piece.curve ? piece.box : boxOfMonotone(curve),
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
  const n = curve.length;
  const [x0, y0, x1, y1] = [places.x[from]!, places.y[from]!, places.x[to]!, places.y[to]!];
  if (curve[0] === x0 && curve[1] === y0 && curve[n - 2] === x1 && curve[n - 1] === y1) return curve;
  const exact = curve.slice();
  exact[0] = x0;
  exact[1] = y0;
  exact[n - 2] = x1;
  exact[n - 1] = y1;
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
