import type { Contour } from '../geometry/contour';
import type { Vec } from '../geometry/curve';
import { dotsOf, endsOf, strokesOf } from './asked';
import { carrier } from './carrier';
import { crossedSides } from './crossed';
import { type Facing, type Facings, facingsOf } from './facing';
import { type Frame, frameOf } from './frame';
import { heldKnots } from './held';
import { LeastSquares } from './leastSquares';
import { pressWhite, pullSides, tieCrossed } from './pressing';
import { redrawn } from './redrawn';
import type { ReweightTerms } from './terms';
import { Unknowns } from './unknowns';
import {
  tieKnots,
  wantAngles,
  wantBetween,
  wantEnds,
  wantHeights,
  wantLengths,
  wantRound,
  wantStrokes,
  wantWhite,
} from './wants';
import { WEIGHT } from './weights';

/** A stroke that could not become as thick as asked, since there is no paper for it. */
export type Eased = { readonly at: Vec; readonly wanted: number; readonly width: number };
export type Reweighted = {
  readonly contours: readonly Contour[];
  readonly advance: number;
  readonly eased: readonly Eased[];
  /** Where a place goes that is no point of the outline: an anchor's. */
  readonly carry: (at: Vec) => Vec;
};

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
  const lasting = new LeastSquares(unknowns.count);
  wantStrokes(lasting, unknowns, strokes);
  wantHeights(lasting, unknowns, frame, dots, terms);
  wantRound(lasting, unknowns, frame, dots);
  wantAngles(lasting, unknowns, frame, ends);
  wantBetween(lasting, unknowns, frame);
  wantEnds(lasting, unknowns, frame, ends, terms);
  let moves: Float64Array = new Float64Array(unknowns.count);
  for (let round = 0; round <= ROUNDS; round++) {
    const system = lasting.copy();
    wantWhite(system, unknowns, frame, facings.white, terms, pressed, ends, dots);
    wantLengths(system, unknowns, frame, terms, pulled);
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
  // Heights are wanted strongly, and kept exactly: no other want moves a letter off its line by a hair.
  const heights = new Set(heldKnots(frame, dots, terms.lines, terms.unitsPerEm).map((k) => unknowns.y[k]!));
  const place = (knot: number): Vec => [
    frame.knots[knot]!.x + moves[unknowns.x[knot]!]!,
    frame.knots[knot]!.y + (heights.has(unknowns.y[knot]!) ? 0 : moves[unknowns.y[knot]!]!),
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
