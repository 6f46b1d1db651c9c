import { contourBounds } from '../geometry/contour';
import type { Vec } from '../geometry/curve';
import type { Facing, Facings } from './facing';
import { type Frame, type Side, turnBetween } from './frame';
import { goalFor, THICKEST, usualAcross } from './goals';
import type { ReweightTerms } from './terms';
import { WEIGHT } from './weights';

/** A stroke with what it should come to, how much that counts, and whether it lies within a curve. */
export type Stroke = { facing: Facing; goal: number; weight: number; inner: boolean };

/** What faces each other across ink and is a stroke, with what it should come to. */
export function strokesOf(frame: Frame, { ink }: Facings, dots: ReadonlySet<number>, terms: ReweightTerms): Stroke[] {
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
export function dotsOf(frame: Frame, { from }: ReweightTerms): Set<number> {
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

/** Straight sides that end a stroke: no longer than strokes are thick, and nothing faces them. */
export function endsOf(frame: Frame, strokes: readonly Stroke[], terms: ReweightTerms): Set<Side> {
  const facing = new Set(strokes.map((s) => s.facing.a.side));
  const longest = Math.max(terms.from.vertical, terms.from.horizontal) * 1.6;
  return new Set(
    frame.sides.filter((s) => s.curve.length === 4 && s.length <= longest && s.length > 0.5 && !facing.has(s)),
  );
}
