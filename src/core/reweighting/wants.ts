import type { Stroke } from './asked';
import type { Facing } from './facing';
import { type Frame, inwardAt, type Knot, type Side, turnBetween } from './frame';
import { heldKnots, isTall } from './held';
import type { LeastSquares } from './leastSquares';
import type { ReweightTerms } from './terms';
import type { Unknowns } from './unknowns';
import { WEIGHT } from './weights';

export function wantStrokes(system: LeastSquares, unknowns: Unknowns, strokes: readonly Stroke[]): void {
  for (const { facing, goal, weight } of strokes) {
    const { which, factors } = unknowns.row(facing);
    system.want(which, factors, goal - facing.width, weight);
  }
}

export function wantHeights(
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
export function wantRound(system: LeastSquares, unknowns: Unknowns, frame: Frame, dots: ReadonlySet<number>): void {
  for (const dot of dots) {
    const own = frame.knots.flatMap((k, i) => (k.contour === dot ? [i] : []));
    const far = (of: (k: Knot) => number) => own.reduce((a, b) => (of(frame.knots[b]!) > of(frame.knots[a]!) ? b : a));
    if (own.length === 0) continue;
    const [left, right, low, high] = [far((k) => -k.x), far((k) => k.x), far((k) => -k.y), far((k) => k.y)];
    const which = [unknowns.x[right]!, unknowns.x[left]!, unknowns.y[high]!, unknowns.y[low]!];
    system.want(which, [1, -1, -1, 1], 0, WEIGHT.round);
  }
}

export function wantWhite(
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
  const xs = frame.knots.map((k) => k.x);
  const bearing = { left: Math.min(...xs), right: terms.advance - Math.max(...xs) };
  white.forEach((facing, i) => {
    // A dot and a dash may grow beyond the height that they have.
    if (facing.edge === 'height' && (!tall || dots.has(frame.solid[facing.a.side.contour]!))) return;
    const { which, factors } = unknowns.row(facing);
    const run = facing.a.side.length / (facing.a.side.curve.length === 4 ? 3 : 5) / (terms.unitsPerEm * 0.1);
    const width = Math.max(terms.unitsPerEm * 0.03, Math.abs(facing.width));
    // The white at the very side of the glyph.
    const own =
      terms.bearings === 'kept' &&
      facing.edge !== undefined &&
      facing.edge !== 'height' &&
      facing.width < bearing[facing.edge] + 1;
    const at = facing.edge === 'height' ? WEIGHT.height : facing.edge ? WEIGHT.side : 1;
    const part = ends.has(facing.a.side) || (facing.b && ends.has(facing.b.side)) ? WEIGHT.endWhite * at : at;
    const weight = own ? WEIGHT.bearing : ((WEIGHT.white * run) / width) * facing.square ** 3 * part * pressed[i]!;
    system.want(which, factors, 0, weight);
  });
}

/** The unknowns of a side's knots, and the direction from one to the other; undefined where they lie on each other. */
function alongSide(unknowns: Unknowns, frame: Frame, side: Side) {
  if (side.length < 0.01) return undefined;
  const [a, b] = [frame.knots[side.from]!, frame.knots[side.to]!];
  const which = [unknowns.x[side.from]!, unknowns.x[side.to]!, unknowns.y[side.from]!, unknowns.y[side.to]!];
  return { which, dx: (b.x - a.x) / side.length, dy: (b.y - a.y) / side.length };
}

/** Sides keep their length, short ones most; those that would fold are pulled. */
export function wantLengths(
  system: LeastSquares,
  unknowns: Unknowns,
  frame: Frame,
  terms: ReweightTerms,
  pulled: Float64Array,
): void {
  // In a letter that grows, the length of what is longer than a stroke is thick follows from what faces what.
  const longest = Math.max(terms.from.vertical, terms.from.horizontal) * 2;
  frame.sides.forEach((side, i) => {
    const along = alongSide(unknowns, frame, side);
    if (!along) return;
    const { which, dx, dy } = along;
    const short = terms.newAdvance === undefined ? Math.min(1, longest / side.length) : 1;
    system.want(which, [-dx, dx, -dy, dy], 0, (WEIGHT.length / side.length) * short * pulled[i]!);
  });
}

/** Straight sides keep their angle, ends of strokes most. */
export function wantAngles(system: LeastSquares, unknowns: Unknowns, frame: Frame, ends: ReadonlySet<Side>): void {
  for (const side of frame.sides) {
    const along = side.curve.length === 4 ? alongSide(unknowns, frame, side) : undefined;
    if (!along) continue;
    const { which, dx, dy } = along;
    system.want(which, [dy, -dy, -dx, dx], 0, (WEIGHT.angle / side.length) * (ends.has(side) ? WEIGHT.endAngle : 1));
  }
}

/** A smooth knot on the way between its neighbours stays there, in shares of the way along each axis: it does not slide along its curve. */
export function wantBetween(system: LeastSquares, unknowns: Unknowns, frame: Frame): void {
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

/** Ends of strokes stay where they are, along the stroke; across the glyph they go with its width. */
export function wantEnds(
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

/** Holds two knots at the distance that they have. */
export function tieKnots(system: LeastSquares, unknowns: Unknowns, key: string, weight: number): void {
  const [a, b] = key.split(' ').map(Number) as [number, number];
  system.want([unknowns.x[a]!, unknowns.x[b]!], [1, -1], 0, weight);
  system.want([unknowns.y[a]!, unknowns.y[b]!], [1, -1], 0, weight);
}
