import { type Contour, isOnCurve, sameBuild, signedArea } from '../geometry/contour';
import { type Box, emptyBox, isEmptyBox, stretchBox } from '../geometry/curve';
import type { Drawing } from '../project/model';
import { cheapestAssignment } from './assignment';

/** How contours of two drawings of one letter belong together, by their shapes; places are shares of a box, so that weights and widths compare. */

/** A contour that is smaller than this share of its box has no direction that one could tell. */
const NO_DIRECTION = 0.04;

export type ContourFacts = {
  /** Of the points on the outline: extremes have points, and near is enough here. */
  box: Box;
  area: number;
  /** +1 counter-clockwise, −1 clockwise, 0 where it cannot be told. */
  direction: -1 | 0 | 1;
};

const facts = new WeakMap<Contour, ContourFacts>();

export function contourFacts(contour: Contour): ContourFacts {
  let known = facts.get(contour);
  if (!known) {
    const box = emptyBox();
    for (const p of contour.points) if (p.type !== 'off') stretchBox(box, p.x, p.y);
    const area = signedArea(contour);
    const room = (box.xMax - box.xMin) * (box.yMax - box.yMin);
    const direction = !contour.closed || Math.abs(area) <= NO_DIRECTION * room ? 0 : area > 0 ? 1 : -1;
    known = { box, area, direction };
    facts.set(contour, known);
  }
  return known;
}

/** The box of all contours of a drawing. */
export function drawnBox({ contours }: Drawing): Box {
  const box = emptyBox();
  for (const c of contours) {
    const b = contourFacts(c).box;
    if (isEmptyBox(b)) continue;
    stretchBox(box, b.xMin, b.yMin);
    stretchBox(box, b.xMax, b.yMax);
  }
  return box;
}

const share = (v: number, low: number, high: number): number => (high > low ? (v - low) / (high - low) : 0.5);

/** How unlike two contours of two letters are: where they lie, how large they are, which way they run, how they are built. */
function unlikeness(a: Contour, b: Contour, boxes: readonly [Box, Box]): number {
  const [fa, fb] = [contourFacts(a), contourFacts(b)];
  const [ba, bb] = boxes;
  const x = (v: number, w: number) => Math.abs(share(v, ba.xMin, ba.xMax) - share(w, bb.xMin, bb.xMax));
  const y = (v: number, w: number) => Math.abs(share(v, ba.yMin, ba.yMax) - share(w, bb.yMin, bb.yMax));
  const apart =
    x(fa.box.xMin, fb.box.xMin) +
    x(fa.box.xMax, fb.box.xMax) +
    y(fa.box.yMin, fb.box.yMin) +
    y(fa.box.yMax, fb.box.yMax);
  return (
    apart + (fa.direction * fb.direction < 0 ? 0.5 : 0) + (a.closed === b.closed ? 0 : 1) + (sameBuild(a, b) ? 0 : 0.15)
  );
}

/** Contours move to others only where that is clearly better, by this much for each. */
const CLEARLY = 0.3;

/**
 * For each contour of one drawing that of another which it belongs to by shape; both have as many. As they stand, unless another order
 * is clearly better.
 */
export function matchedContours(a: Drawing, b: Drawing): number[] {
  const n = a.contours.length;
  const asTheyStand = a.contours.map((_, i) => i);
  if (n < 2) return asTheyStand;
  const boxes = [drawnBox(a), drawnBox(b)] as const;
  const cost = (i: number, k: number) => unlikeness(a.contours[i]!, b.contours[k]!, boxes);
  const standing = asTheyStand.map((i) => cost(i, i));
  if (standing.every((c) => c < CLEARLY)) return asTheyStand;
  const costs = a.contours.map((_, i) => b.contours.map((_, k) => cost(i, k)));
  const found = cheapestAssignment(costs);
  const moved = found.filter((k, i) => k !== i).length;
  const gain = standing.reduce((sum, c) => sum + c, 0) - found.reduce((sum, k, i) => sum + costs[i]![k]!, 0);
  return gain > CLEARLY * Math.max(1, moved / 2) ? found : asTheyStand;
}

type Node = { index: number; x: number; y: number };
const nodes = new WeakMap<Contour, readonly Node[]>();

/** On-curve points of a contour as shares of its box, in their order, each with its index. */
export function nodesOf(contour: Contour): readonly Node[] {
  let known = nodes.get(contour);
  if (!known) {
    known = placed(contour);
    nodes.set(contour, known);
  }
  return known;
}

function placed(contour: Contour): Node[] {
  const { box } = contourFacts(contour);
  return contour.points.flatMap((p, index) =>
    isOnCurve(p) ? [{ index, x: share(p.x, box.xMin, box.xMax), y: share(p.y, box.yMin, box.yMax) }] : [],
  );
}

/** How far the nodes of two contours of one build lie apart, squared and on average, when the second begins `turn` nodes later. */
function apartWhen(
  a: readonly { x: number; y: number }[],
  b: readonly { x: number; y: number }[],
  turn: number,
): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) {
    const other = b[(i + turn) % b.length]!;
    sum += (a[i]!.x - other.x) ** 2 + (a[i]!.y - other.y) ** 2;
  }
  return sum / Math.max(1, a.length);
}

/** What a length is multiplied by to be a share of a box’s side; of a side without length nothing. */
const per = (side: number): number => (side > 0 ? 1 / side : 0);

/** How far the nodes of two contours of one build lie apart as they stand, squared and on average, in shares of their boxes. */
export function nodesApart(a: Contour, b: Contour): number {
  const p = contourFacts(a).box;
  const q = contourFacts(b).box;
  const [pw, ph, qw, qh] = [per(p.xMax - p.xMin), per(p.yMax - p.yMin), per(q.xMax - q.xMin), per(q.yMax - q.yMin)];
  let sum = 0;
  let count = 0;
  for (let i = 0; i < a.points.length; i++) {
    const m = a.points[i]!;
    if (m.type === 'off') continue;
    const n = b.points[i]!;
    const dx = (m.x - p.xMin) * pw - (n.x - q.xMin) * qw;
    const dy = (m.y - p.yMin) * ph - (n.y - q.yMin) * qh;
    sum += dx * dx + dy * dy;
    count++;
  }
  return sum / Math.max(1, count);
}

/** A start that is this much nearer, and by so much, is clearly meant. */
const START_SHARE = 0.5;
const START_LEAST = 0.02;

/**
 * The point that a closed contour should begin at so that its points lie where those of another do: its own start, unless another is
 * clearly better. Only starts that give the same build count; undefined where none does.
 */
export function matchedStart(a: Contour, b: Contour): number | undefined {
  const own = b.points.findIndex(isOnCurve);
  const blends = sameBuild(a, b);
  // No other start could be so much better.
  if (blends && nodesApart(a, b) <= START_LEAST) return own;
  const [na, nb] = [nodesOf(a), nodesOf(b)];
  if (!a.closed || !b.closed || na.length !== nb.length || na.length < 2) return blends ? own : undefined;
  const kinds = (c: Contour, start: number) =>
    [...c.points.slice(start), ...c.points.slice(0, start)].map((p) => p.type).join(' ');
  const wanted = kinds(a, na[0]!.index);
  const fits = nb.flatMap((n, turn) =>
    kinds(b, n.index) === wanted ? [{ index: n.index, apart: apartWhen(na, nb, turn) }] : [],
  );
  if (fits.length === 0) return undefined;
  const standing = fits.find((f) => f.index === own);
  const best = fits.reduce((m, f) => (f.apart < m.apart ? f : m));
  if (!standing) return best.index;
  return best.apart < standing.apart * START_SHARE && standing.apart - best.apart > START_LEAST ? best.index : own;
}
