import { type Contour, contourBounds } from '../geometry/contour';
import type { Vec } from '../geometry/curve';
import { crossedSides } from './crossed';
import { type Facing, type Facings, facingsOf } from './facing';
import { type Frame, farShare, frameOf, inwardAt, type Knot, type Side } from './frame';
import { goalFor, type Stems, THICKEST, usualAcross } from './goals';
import { heldKnots, isTall } from './held';
import { LeastSquares } from './leastSquares';
import { movedCurves, redrawn } from './redrawn';

export type ReweightTerms = {
  /** How thick strokes are, and how thick they are to be, in font units. */
  readonly from: Stems;
  readonly to: Stems;
  /** Where the glyph ends now. */
  readonly advance: number;
  /** Where it is to end; none where its white keeps its width and the glyph grows with its strokes. */
  readonly newAdvance: number | undefined;
  /** Whether the white at its sides stays, or shrinks as that inside does. */
  readonly bearings: 'share' | 'kept';
  /** Heights at which outlines stay. */
  readonly lines: readonly number[];
  readonly unitsPerEm: number;
  /** How much more than straight strokes curved ones grow; 1 as the source has it. */
  readonly rounds?: number | undefined;
};

/** A stroke that could not become as thick as asked, since there is no paper for it. */
export type Eased = { readonly at: Vec; readonly wanted: number; readonly width: number };
export type Reweighted = {
  readonly contours: readonly Contour[];
  readonly advance: number;
  readonly eased: readonly Eased[];
  /** Where a place goes that is no point of the outline: an anchor's. */
  readonly carry: (at: Vec) => Vec;
};

/** Weights of what is wanted, tried on families that have both a regular and a bold. */
const WEIGHT = {
  stem: 2,
  curveStem: 1.6,
  held: 200,
  bearing: 50,
  white: 6,
  side: 2,
  height: 8,
  endWhite: 0.4,
  length: 6,
  angle: 60,
  endAngle: 2,
  between: 0.45,
  straight: 20,
  round: 40,
  end: 0.03,
  tie: 0.2,
  still: 1e-5,
};
/** White narrower than this share of what it was pushes back, ever harder. */
const TIGHT = 0.45;
const ROUNDS = 9;

const surveys = new WeakMap<
  readonly Contour[],
  { advance: number; frame: Frame; facings: Facings; crossed: ReadonlySet<string> }
>();

function surveyOf(contours: readonly Contour[], advance: number) {
  const known = surveys.get(contours);
  if (known?.advance === advance) return known;
  const frame = frameOf(contours);
  const crossed = new Set(
    crossedSides(
      frame,
      frame.sides.map((s) => s.curve),
    ).map(([a, b]) => `${a} ${b}`),
  );
  const survey = { advance, frame, facings: facingsOf(frame, advance), crossed };
  surveys.set(contours, survey);
  return survey;
}

/**
 * An outline whose strokes become so thick, along their own normals, while heights stay and the white shares what is left.
 * All wants are put into one system of linear equations in the moves of its on-curve points: facing edges across ink come to
 * their goal, heights and sides stay on their lines, straight sides keep their angle and length, and white is spread as a
 * spring's strain is, each as far as its own width allows. White that becomes tight pushes back and eases the strokes round it.
 * Points, their order and types stay. Coordinates are not rounded.
 */
export function reweighted(contours: readonly Contour[], terms: ReweightTerms): Reweighted {
  const { frame, facings, crossed } = surveyOf(contours, terms.advance);
  const dots = dotsOf(frame, terms);
  const strokes = strokesOf(frame, facings, dots, terms);
  const ends = endsOf(frame, strokes, terms);
  const unknowns = new Unknowns(frame);
  const pressed = new Float64Array(facings.white.length).fill(1);
  const pulled = new Float64Array(frame.sides.length).fill(1);
  const tied = new Map<string, number>();
  let moves: Float64Array = new Float64Array(unknowns.count);
  for (let round = 0; round <= ROUNDS; round++) {
    const system = new LeastSquares(unknowns.count);
    wantStrokes(system, unknowns, strokes);
    wantHeights(system, unknowns, frame, dots, terms);
    wantRound(system, unknowns, frame, dots);
    wantWhite(system, unknowns, frame, facings.white, terms, pressed, ends, dots);
    wantShape(system, unknowns, frame, terms, pulled, ends);
    wantBetween(system, unknowns, frame);
    wantEnds(system, unknowns, frame, ends, terms);
    for (const [key, weight] of tied) tieKnots(system, unknowns, key, weight);
    moves = system.solve(WEIGHT.still);
    const tight = pressWhite(unknowns, moves, facings.white, terms, pressed);
    const folded = pullSides(unknowns, moves, frame, pulled);
    if (tight || folded) continue;
    if (round < ROUNDS && tieCrossed(frame, crossed, unknowns, moves, tied)) continue;
    break;
  }
  const advance = terms.newAdvance ?? terms.advance + (moves[unknowns.advance] ?? 0);
  // What a join lacks by a hair is how joins are drawn.
  const least = Math.max(2, Math.min(terms.to.vertical, terms.to.horizontal) * 0.1);
  const eased = strokes.flatMap(({ facing, goal, inner }): Eased[] => {
    const width = facing.width + unknowns.apart(moves, facing);
    return !inner && goal - width > Math.max(goal * 0.06, least) ? [{ at: middle(facing), wanted: goal, width }] : [];
  });
  const place = (knot: number): Vec => [
    frame.knots[knot]!.x + moves[unknowns.x[knot]!]!,
    frame.knots[knot]!.y + moves[unknowns.y[knot]!]!,
  ];
  return {
    contours: redrawn(frame, place),
    advance,
    eased: nearestOnly(eased, terms.unitsPerEm / 12),
    carry: carrier(frame, place, terms.advance, advance),
  };
}

const middle = ({ a, b }: Facing): Vec => (b ? [(a.at[0] + b.at[0]) / 2, (a.at[1] + b.at[1]) / 2] : a.at);

/** One of what lies near each other: that which lacks most. */
function nearestOnly(eased: readonly Eased[], near: number): Eased[] {
  const out: Eased[] = [];
  for (const e of [...eased].sort((a, b) => b.wanted - b.width - (a.wanted - a.width)))
    if (out.every((o) => Math.hypot(o.at[0] - e.at[0], o.at[1] - e.at[1]) > near)) out.push(e);
  return out;
}

/** Which unknown moves which knot: the two ends of an upright side move as one in x, those of a level side in y. */
class Unknowns {
  readonly x: number[];
  readonly y: number[];
  readonly advance: number;
  readonly count: number;

  constructor(frame: Frame) {
    const n = frame.knots.length;
    const parent = Array.from({ length: 2 * n }, (_, i) => i);
    const root = (i: number): number => {
      let k = i;
      while (parent[k] !== k) k = parent[k]!;
      parent[i] = k;
      return k;
    };
    for (const side of frame.sides) {
      if (side.curve.length !== 4) continue;
      const [x0, y0, x1, y1] = side.curve as unknown as [number, number, number, number];
      if (Math.abs(x0 - x1) < 0.01) parent[root(side.from)] = root(side.to);
      if (Math.abs(y0 - y1) < 0.01) parent[root(n + side.from)] = root(n + side.to);
    }
    const numbers = new Map<number, number>();
    const numberOf = (i: number): number => {
      const r = root(i);
      if (!numbers.has(r)) numbers.set(r, numbers.size);
      return numbers.get(r)!;
    };
    this.x = frame.knots.map((_, i) => numberOf(i));
    this.y = frame.knots.map((_, i) => numberOf(n + i));
    this.advance = numbers.size;
    this.count = numbers.size + 1;
  }

  /** What the distance of two facing places changes by, as factors of unknowns. */
  row({ a, b, way, edge }: Facing): { which: number[]; factors: number[] } {
    const which: number[] = [];
    const factors: number[] = [];
    const add = (side: Facing['a']['side'], t: number, sign: number) => {
      const [fx, fy] = farShare(side, t);
      which.push(this.x[side.from]!, this.x[side.to]!, this.y[side.from]!, this.y[side.to]!);
      factors.push(sign * way[0] * (1 - fx), sign * way[0] * fx, sign * way[1] * (1 - fy), sign * way[1] * fy);
    };
    add(a.side, a.t, -1);
    if (b) add(b.side, b.t, 1);
    else if (edge === 'right') {
      which.push(this.advance);
      factors.push(1);
    }
    return { which, factors };
  }

  /** How far two facing places move apart. */
  apart(moves: Float64Array, facing: Facing): number {
    const { which, factors } = this.row(facing);
    return which.reduce((sum, w, i) => sum + moves[w]! * factors[i]!, 0);
  }
}

type Stroke = { facing: Facing; goal: number; weight: number; inner: boolean };

/** What faces each other across ink and is a stroke, with what it should come to. */
function strokesOf(frame: Frame, { ink }: Facings, dots: ReadonlySet<number>, terms: ReweightTerms): Stroke[] {
  return ink.flatMap((facing): Stroke[] => {
    const dot = dots.has(frame.solid[facing.a.side.contour]!);
    const usual = dot ? Math.max(terms.from.vertical, terms.from.horizontal) : usualAcross(terms.from, facing.way);
    if (facing.width > usual * THICKEST) return [];
    const { side, t } = facing.a;
    // Two sides of one corner make a wedge, not a stroke.
    if (facing.b && meet(side, facing.b.side)) return [];
    const straight = side.curve.length === 4;
    // The end of a stroke is shorter than the stroke is long.
    if (straight && runOf(frame, facing) < facing.width * 0.7) return [];
    const fade = Math.min(1, Math.max(0.15, (usual * THICKEST - facing.width) / (usual * 0.5)));
    const inner = !straight && t > 0.1 && t < 0.9;
    const round = !straight && terms.rounds ? terms.rounds : 1;
    return [
      {
        facing,
        goal: goalFor(facing.width, dot ? thickWay(terms) : facing.way, terms.from, terms.to) * round,
        inner,
        weight: (inner ? WEIGHT.curveStem : WEIGHT.stem) * facing.square ** 2 * fade,
      },
    ];
  });
}

const thickWay = ({ from }: ReweightTerms): Vec => (from.vertical >= from.horizontal ? [1, 0] : [0, 1]);

/** Solids about as wide as they are high, and hardly larger than a stroke is thick: dots, which grow alike all ways. */
function dotsOf(frame: Frame, { from }: ReweightTerms): Set<number> {
  const most = Math.max(from.vertical, from.horizontal) * THICKEST;
  const out = new Set<number>();
  frame.contours.forEach((c, i) => {
    if (frame.solid[i] !== i || c.points.length === 0) return;
    const { xMin, yMin, xMax, yMax } = contourBounds(c);
    const [w, h] = [xMax - xMin, yMax - yMin];
    if (w <= most && h <= most && w < h * 1.35 && h < w * 1.35) out.add(i);
  });
  return out;
}

const meet = (a: Side, b: Side): boolean => a !== b && (a.to === b.from || b.to === a.from);

/** How long an edge is: its side, and what runs on from it smoothly. */
function runOf(frame: Frame, { a }: Facing): number {
  let length = a.side.length;
  for (const next of [frame.into[a.side.from]!, frame.out[a.side.to]!]) {
    const other = frame.sides[next];
    if (!other) continue;
    const cos =
      other.to === a.side.from ? turnBetween(other.curve, a.side.curve) : turnBetween(a.side.curve, other.curve);
    if (cos > 0.97) length += other.length;
  }
  return length;
}

/** Cosine of the turn from the end of one side to the beginning of the next. */
function turnBetween(before: readonly number[], after: readonly number[]): number {
  const n = before.length;
  const [ax, ay] = [before[n - 2]! - before[n - 4]!, before[n - 1]! - before[n - 3]!];
  const [bx, by] = [after[2]! - after[0]!, after[3]! - after[1]!];
  return (ax * bx + ay * by) / (Math.hypot(ax, ay) * Math.hypot(bx, by) || 1);
}

function wantStrokes(system: LeastSquares, unknowns: Unknowns, strokes: readonly Stroke[]): void {
  for (const { facing, goal, weight } of strokes) {
    const { which, factors } = unknowns.row(facing);
    system.want(which, factors, goal - facing.width, weight);
  }
}

function wantHeights(
  system: LeastSquares,
  unknowns: Unknowns,
  frame: Frame,
  dots: ReadonlySet<number>,
  terms: ReweightTerms,
): void {
  for (const knot of heldKnots(frame, dots, terms.lines, terms.unitsPerEm))
    system.want([unknowns.y[knot]!], [1], 0, WEIGHT.held);
}

/** A dot grows as much in height as in width. */
function wantRound(system: LeastSquares, unknowns: Unknowns, frame: Frame, dots: ReadonlySet<number>): void {
  for (const dot of dots) {
    const own = frame.knots.flatMap((k, i) => (k.contour === dot ? [i] : []));
    const far = (of: (k: Knot) => number) => own.reduce((a, b) => (of(frame.knots[b]!) > of(frame.knots[a]!) ? b : a));
    if (own.length === 0) continue;
    const [left, right, low, high] = [far((k) => -k.x), far((k) => k.x), far((k) => -k.y), far((k) => k.y)];
    const which = [unknowns.x[right]!, unknowns.x[left]!, unknowns.y[high]!, unknowns.y[low]!];
    system.want(which, [1, -1, -1, 1], 0, WEIGHT.round);
  }
}

function wantWhite(
  system: LeastSquares,
  unknowns: Unknowns,
  frame: Frame,
  white: readonly Facing[],
  terms: ReweightTerms,
  pressed: Float64Array,
  ends: ReadonlySet<Side>,
  dots: ReadonlySet<number>,
): void {
  if (terms.newAdvance !== undefined)
    system.want([unknowns.advance], [1], terms.newAdvance - terms.advance, WEIGHT.held * 100);
  const tall = isTall(frame, terms.unitsPerEm);
  white.forEach((facing, i) => {
    // A dot and a dash may grow beyond the height that they have.
    if (facing.edge === 'height' && (!tall || dots.has(frame.solid[facing.a.side.contour]!))) return;
    const { which, factors } = unknowns.row(facing);
    const run = facing.a.side.length / (facing.a.side.curve.length === 4 ? 3 : 5) / (terms.unitsPerEm * 0.1);
    const width = Math.max(terms.unitsPerEm * 0.03, Math.abs(facing.width));
    const own =
      facing.edge && facing.edge !== 'height' && terms.bearings === 'kept' && isOuter(frame, facing, terms.advance);
    const at = facing.edge === 'height' ? WEIGHT.height : facing.edge ? WEIGHT.side : 1;
    const part = ends.has(facing.a.side) || (facing.b && ends.has(facing.b.side)) ? WEIGHT.endWhite * at : at;
    const weight = own ? WEIGHT.bearing : ((WEIGHT.white * run) / width) * facing.square ** 3 * part * pressed[i]!;
    system.want(which, factors, 0, weight);
  });
}

/** Is this the white at the very side of the glyph? */
function isOuter(frame: Frame, facing: Facing, advance: number): boolean {
  const xs = frame.knots.map((k) => k.x);
  const own = facing.edge === 'left' ? Math.min(...xs) : advance - Math.max(...xs);
  return facing.width < own + 1;
}

function wantShape(
  system: LeastSquares,
  unknowns: Unknowns,
  frame: Frame,
  terms: ReweightTerms,
  pulled: Float64Array,
  ends: ReadonlySet<Side>,
): void {
  // In a letter that grows, the length of what is longer than a stroke is thick follows from what faces what.
  const longest = Math.max(terms.from.vertical, terms.from.horizontal) * 2;
  frame.sides.forEach((side, i) => {
    if (side.length < 0.01) return;
    const [a, b] = [frame.knots[side.from]!, frame.knots[side.to]!];
    const [dx, dy] = [(b.x - a.x) / side.length, (b.y - a.y) / side.length];
    const which = [unknowns.x[side.from]!, unknowns.x[side.to]!, unknowns.y[side.from]!, unknowns.y[side.to]!];
    const short = terms.newAdvance === undefined ? Math.min(1, longest / side.length) : 1;
    system.want(which, [-dx, dx, -dy, dy], 0, (WEIGHT.length / side.length) * short * pulled[i]!);
    if (side.curve.length === 4)
      system.want(which, [dy, -dy, -dx, dx], 0, (WEIGHT.angle / side.length) * (ends.has(side) ? WEIGHT.endAngle : 1));
  });
}

/** A smooth knot on the way between its neighbours stays there, in shares of the way along each axis: it does not slide along its curve. */
function wantBetween(system: LeastSquares, unknowns: Unknowns, frame: Frame): void {
  frame.knots.forEach((knot, i) => {
    const [before, after] = [frame.sides[frame.into[i]!], frame.sides[frame.out[i]!]];
    if (!before || !after) return;
    const straight = before.curve.length === 4 && after.curve.length === 4;
    if (turnBetween(before.curve, after.curve) < (straight ? 0.996 : 0.99)) return;
    const [a, b] = [frame.knots[before.from]!, frame.knots[after.to]!];
    const want = (axis: 'x' | 'y') => {
      const share = (knot[axis] - a[axis]) / (b[axis] - a[axis]);
      if (!(share > 0.02 && share < 0.98)) return;
      const u = unknowns[axis];
      system.want(
        [u[i]!, u[before.from]!, u[after.to]!],
        [1, share - 1, -share],
        0,
        straight ? WEIGHT.straight : WEIGHT.between,
      );
    };
    want('x');
    want('y');
  });
}

/** Straight sides that end a stroke: no longer than strokes are thick, and nothing faces them. */
function endsOf(frame: Frame, strokes: readonly Stroke[], terms: ReweightTerms): Set<Side> {
  const facing = new Set(strokes.map((s) => s.facing.a.side));
  const longest = Math.max(terms.from.vertical, terms.from.horizontal) * 1.6;
  return new Set(
    frame.sides.filter((s) => s.curve.length === 4 && s.length <= longest && s.length > 0.5 && !facing.has(s)),
  );
}

/** Ends of strokes stay where they are, along the stroke; across the glyph they go with its width. */
function wantEnds(
  system: LeastSquares,
  unknowns: Unknowns,
  frame: Frame,
  ends: ReadonlySet<Side>,
  terms: ReweightTerms,
): void {
  for (const side of ends) {
    const { inward } = inwardAt(frame, side, 0.5);
    for (const knot of [side.from, side.to]) {
      // The edge of the glyph takes a place along in its share of the way.
      const share = terms.advance > 0 ? frame.knots[knot]!.x / terms.advance : 0;
      system.want(
        [unknowns.x[knot]!, unknowns.y[knot]!, unknowns.advance],
        [inward[0], inward[1], -inward[0] * share],
        0,
        WEIGHT.end,
      );
    }
  }
}

/** Makes white that became tight push back harder. */
function pressWhite(
  unknowns: Unknowns,
  moves: Float64Array,
  white: readonly Facing[],
  terms: ReweightTerms,
  pressed: Float64Array,
): boolean {
  let tight = false;
  white.forEach((facing, i) => {
    if (facing.width < terms.unitsPerEm * 0.004 || facing.square < 0.85) return;
    const left = (facing.width + unknowns.apart(moves, facing)) / facing.width;
    if (left >= TIGHT) return;
    tight = true;
    pressed[i] = Math.min(1e4, pressed[i]! * Math.min(8, (TIGHT / Math.max(0.05, left)) ** 2));
  });
  return tight;
}

/** Makes sides that would fold over keep their length. */
function pullSides(unknowns: Unknowns, moves: Float64Array, frame: Frame, pulled: Float64Array): boolean {
  let folded = false;
  frame.sides.forEach((side, i) => {
    if (side.length < 0.5) return;
    const [a, b] = [frame.knots[side.from]!, frame.knots[side.to]!];
    const [dx, dy] = [(b.x - a.x) / side.length, (b.y - a.y) / side.length];
    const [mx, my] = [
      moves[unknowns.x[side.to]!]! - moves[unknowns.x[side.from]!]!,
      moves[unknowns.y[side.to]!]! - moves[unknowns.y[side.from]!]!,
    ];
    if ((side.length + mx * dx + my * dy) / side.length >= 0.15) return;
    folded = true;
    pulled[i] = Math.min(1e5, pulled[i]! * 8);
  });
  return folded;
}

/** Holds two knots at the distance that they have. */
function tieKnots(system: LeastSquares, unknowns: Unknowns, key: string, weight: number): void {
  const [a, b] = key.split(' ').map(Number) as [number, number];
  system.want([unknowns.x[a]!, unknowns.x[b]!], [1, -1], 0, weight);
  system.want([unknowns.y[a]!, unknowns.y[b]!], [1, -1], 0, weight);
}

/** Ties the nearest knots of sides that cross now and did not before, ever harder. */
function tieCrossed(
  frame: Frame,
  before: ReadonlySet<string>,
  unknowns: Unknowns,
  moves: Float64Array,
  tied: Map<string, number>,
): boolean {
  const place = (knot: number): Vec => [
    frame.knots[knot]!.x + moves[unknowns.x[knot]!]!,
    frame.knots[knot]!.y + moves[unknowns.y[knot]!]!,
  ];
  let found = false;
  for (const [a, b] of crossedSides(frame, movedCurves(frame, place))) {
    if (before.has(`${a} ${b}`)) continue;
    const [s, o] = [frame.sides[a]!, frame.sides[b]!];
    const gap = (i: number, j: number) =>
      Math.hypot(frame.knots[i]!.x - frame.knots[j]!.x, frame.knots[i]!.y - frame.knots[j]!.y);
    const pairs = [s.from, s.to].flatMap((i) => [o.from, o.to].map((j): [number, number] => [i, j]));
    const [i, j] = pairs.filter(([x, y]) => x !== y).sort((x, y) => gap(...x) - gap(...y))[0] ?? [0, 0];
    if (i === j) continue;
    found = true;
    const key = `${i} ${j}`;
    tied.set(key, (tied.get(key) ?? WEIGHT.tie / 8) * 8);
  }
  return found;
}

/** Where places beside the outline go: between the sides of the glyph, its ink and its edges, in shares of each. */
function carrier(frame: Frame, place: (knot: number) => Vec, advance: number, newAdvance: number): (at: Vec) => Vec {
  if (frame.knots.length === 0) return ([x, y]) => [advance > 0 ? (x * newAdvance) / advance : x, y];
  const now = frame.knots.map((_, i) => place(i));
  const [l, r, b, t] = [
    Math.min(...frame.knots.map((k) => k.x)),
    Math.max(...frame.knots.map((k) => k.x)),
    Math.min(...frame.knots.map((k) => k.y)),
    Math.max(...frame.knots.map((k) => k.y)),
  ];
  const [l2, r2, b2, t2] = [
    Math.min(...now.map((k) => k[0])),
    Math.max(...now.map((k) => k[0])),
    Math.min(...now.map((k) => k[1])),
    Math.max(...now.map((k) => k[1])),
  ];
  const between = (v: number, from: number, to: number, from2: number, to2: number) =>
    to > from ? from2 + ((v - from) * (to2 - from2)) / (to - from) : v + from2 - from;
  const across = (x: number) => (x < l ? x + l2 - l : x > r ? x + r2 - r : between(x, l, r, l2, r2));
  const up = (y: number) => (y < b ? y + b2 - b : y > t ? y + t2 - t : between(y, b, t, b2, t2));
  return ([x, y]) => [across(x), up(y)];
}
