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

/** A transform as a hand would tell it: where to, sizes as factors (a negative height mirrors), slant and turn in degrees. */
export type AffineFacts = { x: number; y: number; width: number; height: number; slant: number; turn: number };

const DEGREES = 180 / Math.PI;

/** The parts of a transform: scaled, then slanted to the right, then turned, then moved. Nothing of it is lost. */
export function factsOf([a, b, c, d, x, y]: Affine): AffineFacts {
  const width = Math.hypot(a, b);
  // What has no width still knows its direction by its height.
  const turn = width > 0 ? Math.atan2(b, a) : Math.atan2(-c, d);
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const [lean, height] = [c * cos + d * sin, d * cos - c * sin];
  const slant = Math.abs(height) < 1e-12 ? 0 : Math.atan2(lean * Math.sign(height), Math.abs(height));
  return { x, y, width, height, slant: slant * DEGREES, turn: turn * DEGREES };
}

/** The transform of these parts, its factors to millionths. */
export function affineFrom({ x, y, width, height, slant, turn }: AffineFacts): Affine {
  const [cos, sin] = [Math.cos(turn / DEGREES), Math.sin(turn / DEGREES)];
  const lean = height * Math.tan(slant / DEGREES);
  const exact = (v: number) => Math.round(v * 1e6) / 1e6 || 0;
  return [
    exact(cos * width),
    exact(sin * width),
    exact(cos * lean - sin * height),
    exact(sin * lean + cos * height),
    x,
    y,
  ];
}
