import { stretchesAlong } from '../drawing/gauge';
import { lineAt, lineHeight, type Profile, profileOf } from '../fitting/profile';
import type { Glyph, Master, Project } from '../project/model';
import { drawingsOf, flattened } from '../project/outline';
import { drawingOf } from '../project/queries';

/** Shapes of bases and marks as anchors are judged by: upright, line by line. */
const { abs, max, min, round } = Math;

/** What counts as the top or the bottom of a shape, as a share of its height. */
export const SLAB = 0.16;
/** A top narrower than this share of the whole shape carries the mark by itself: the stem of l and h, the apex of A. */
const NARROW = 0.4;
/** … unless it stands this far aside, as a share of the width. */
const ASIDE = 0.25;
/** Ink that ends within this share of the width ends where the letter does. */
const FLUSH = 0.03;
/** A letter is open at one side, as c, when it is at least so deep there in the middle and goes so far out below, as shares of its width. */
const OPEN = { depth: 0.4, below: 0.85 };

/** The upright extent of a shape: its lines of ink, and its sides over all of them. */
export type Shape = {
  profile: Profile;
  low: number;
  high: number;
  bottom: number;
  top: number;
  left: number;
  right: number;
};

export function shapeOf(project: Project, glyph: Glyph, master: Master): Shape | undefined {
  const profile = profileOf(project, glyph.id, master.id);
  let [low, high] = [-1, -1];
  let [left, right] = [Infinity, -Infinity];
  profile.left.forEach((x, i) => {
    if (Number.isNaN(x)) return;
    if (low < 0) low = i;
    high = i;
    left = min(left, x);
    right = max(right, profile.right[i]!);
  });
  if (low < 0) return undefined;
  return { profile, low, high, left, right, bottom: lineHeight(profile, low), top: lineHeight(profile, high) };
}

/** The sides of the lines of a shape between two heights. */
export function slab(
  { profile, low, high }: Shape,
  from: number,
  to: number,
): { left: number; right: number } | undefined {
  let [left, right] = [Infinity, -Infinity];
  for (let i = max(low, lineAt(profile, from)); i <= min(high, lineAt(profile, to)); i++) {
    if (Number.isNaN(profile.left[i]!)) continue;
    left = min(left, profile.left[i]!);
    right = max(right, profile.right[i]!);
  }
  return left > right ? undefined : { left, right };
}

/** Halfway between two sides. */
export const centreOf = ({ left, right }: { left: number; right: number }): number => (left + right) / 2;

/** The middle of a shape's top or bottom: of the stem or apex where it ends in one, else of the whole. */
export function middleOf(
  shape: Shape,
  end: 'top' | 'bottom',
  { small = false, stemmed = false }: { small?: boolean; stemmed?: boolean } = {},
): number {
  const height = shape.top - shape.bottom;
  const part =
    end === 'top'
      ? slab(shape, shape.top - SLAB * height, shape.top)
      : slab(shape, shape.bottom, shape.bottom + SLAB * height);
  const whole = centreOf(shape);
  if (!part) return whole;
  const own = centreOf(part);
  const width = shape.right - shape.left;
  if (stemmed && end === 'top' && isPlainStem(shape, part)) return own;
  // A stem that rises at the left of a wider letter, h or k: the mark stands over the middle of the letter; over J it stands on the stem.
  if (end === 'top' && part.right - part.left < NARROW * width && whole - own > ASIDE * width) return whole;
  // A small letter whose top reaches one of its sides, n or v, is judged by all of it; a round one by its top.
  if (end === 'top' && small && min(part.left - shape.left, shape.right - part.right) < FLUSH * width) return whole;
  return own;
}

/** What a shape has halfway up. */
export function waistOf(shape: Shape): { left: number; right: number } {
  const height = shape.top - shape.bottom;
  return slab(shape, shape.bottom + 0.35 * height, shape.bottom + 0.65 * height) ?? shape;
}

/** The mean of the middles of all lines in the upper half of a shape. */
export function upperMiddle({ profile, low, high }: Shape): number {
  let [sum, lines] = [0, 0];
  for (let i = Math.ceil((low + high) / 2); i <= high; i++) {
    if (Number.isNaN(profile.left[i]!)) continue;
    sum += (profile.left[i]! + profile.right[i]!) / 2;
    lines++;
  }
  return sum / lines;
}

/** Does a stem end at the top without a serif: no wider there than a third of the way down? */
function isPlainStem(shape: Shape, end: { left: number; right: number }): boolean {
  const height = shape.top - shape.bottom;
  const below = slab(shape, shape.top - 0.34 * height, shape.top - 0.3 * height);
  return below !== undefined && end.right - end.left < 1.2 * (below.right - below.left);
}

/** To which side a letter is open: 1 to the right as c, −1 to the left, 0 to neither or both. */
export function opening(shape: Shape): -1 | 0 | 1 {
  const height = shape.top - shape.bottom;
  const width = shape.right - shape.left;
  const middle = slab(shape, shape.bottom + 0.32 * height, shape.bottom + 0.68 * height);
  const below = slab(shape, shape.bottom, shape.bottom + 0.25 * height);
  if (!middle || !below || width <= 0) return 0;
  const right = (shape.right - middle.right) / width > OPEN.depth;
  const left = (middle.left - shape.left) / width > OPEN.depth;
  if (right === left) return 0;
  const out = right ? below.right - shape.left : shape.right - below.left;
  const other = right ? below.left - shape.left : shape.right - below.right;
  return out / width > OPEN.below && other / width < 1 - OPEN.below + 0.1 ? (right ? 1 : -1) : 0;
}

/** The middle of the leftmost stroke of a letter, somewhat above its foot. */
export function leftStem(project: Project, glyph: Glyph, master: Master, shape: Shape): number | undefined {
  const y = shape.bottom + 0.22 * (shape.top - shape.bottom);
  const { lean, pivot } = shape.profile;
  const outline = flattened(drawingOf(glyph, master.id), drawingsOf(project, master.id));
  const far = 2 * (shape.right - shape.left) + abs(lean * (y - pivot));
  const first = stretchesAlong(outline, { x0: shape.left - far, y0: y, x1: shape.right + far, y1: y })[0];
  return first && (first.from[0] + first.to[0]) / 2 - lean * (y - pivot);
}

/** The shape above a height alone: tails and hooks below the baseline do not move what stands above. */
export function above(shape: Shape, y: number): Shape {
  const low = max(shape.low, lineAt(shape.profile, y));
  if (low >= shape.high) return shape;
  const sides = slab(shape, y, shape.top);
  return sides ? { ...shape, ...sides, low, bottom: lineHeight(shape.profile, low) } : shape;
}

/** A place of the upright shape carried back along the slant, on whole units. */
export function placed({ profile }: Shape, x: number, y: number): { x: number; y: number } {
  return { x: round(x + profile.lean * (y - profile.pivot)), y: round(y) };
}
