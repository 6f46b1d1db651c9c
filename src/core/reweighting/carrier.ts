import type { Vec } from '../geometry/curve';
import type { Frame } from './frame';

/** Where places beside the outline go: between the sides of the glyph, its ink and its edges, in shares of each. */
export function carrier(
  frame: Frame,
  place: (knot: number) => Vec,
  advance: number,
  newAdvance: number,
): (at: Vec) => Vec {
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
