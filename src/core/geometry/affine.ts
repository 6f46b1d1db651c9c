/** A 2x3 transform as UFO and OpenType name it: x' = xx·x + yx·y + dx, y' = xy·x + yy·y + dy. */
export type Affine = readonly [xx: number, xy: number, yx: number, yy: number, dx: number, dy: number];

export const IDENTITY: Affine = [1, 0, 0, 1, 0, 0];

export const translation = (dx: number, dy: number): Affine => [1, 0, 0, 1, dx, dy];

/** The transform that applies `inner` first, then `outer`. */
export function compose(outer: Affine, inner: Affine): Affine {
  const [a, b, c, d, e, f] = outer;
  const [g, h, i, j, k, l] = inner;
  return [a * g + c * h, b * g + d * h, a * i + c * j, b * i + d * j, a * k + c * l + e, b * k + d * l + f];
}

/** The determinant; negative when the transform mirrors. */
export const determinant = (t: Affine): number => t[0] * t[3] - t[1] * t[2];

/** The inverse, or undefined when the transform flattens everything onto a line. */
export function invert(t: Affine): Affine | undefined {
  const [a, b, c, d, e, f] = t;
  const det = determinant(t);
  if (Math.abs(det) < 1e-12) return undefined;
  return [d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det];
}
