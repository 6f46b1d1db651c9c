import type { Vec } from '../geometry/curve';
import { crossedSides } from './crossed';
import type { Facing } from './facing';
import type { Frame } from './frame';
import { movedCurves } from './redrawn';
import type { ReweightTerms } from './terms';
import type { Unknowns } from './unknowns';
import { WEIGHT } from './weights';

/** White narrower than this share of what it was pushes back, ever harder. */
const TIGHT = 0.45;

/** Makes white that became tight push back harder. */
export function pressWhite(
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
export function pullSides(unknowns: Unknowns, moves: Float64Array, frame: Frame, pulled: Float64Array): boolean {
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

/** Ties the nearest knots of sides that cross now and did not before, ever harder. */
export function tieCrossed(
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
