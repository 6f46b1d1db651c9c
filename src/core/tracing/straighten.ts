import type { GreyPicture } from './picture';

const { abs, ceil, floor, max, min, round } = Math;

/** Blocks across a picture for which the lightness of the paper is measured. */
const BLOCKS = 24;
const PAPER = 245;

/** The picture as if the lamp had lit all of the paper alike: paper becomes nearly white everywhere. */
export function evenLight({ width, height, pixels }: GreyPicture): GreyPicture {
  const size = max(8, ceil(max(width, height) / BLOCKS));
  const [across, down] = [ceil(width / size), ceil(height / size)];
  const light = new Float64Array(across * down);
  for (let b = 0; b < light.length; b++)
    light[b] = paperLevel(pixels, width, height, (b % across) * size, floor(b / across) * size, size);
  // A block full of ink takes the level of the lightest beside it.
  const lit = light.map((v, b) => {
    let best = v;
    for (const [dx, dy] of AROUND) {
      const [i, j] = [(b % across) + dx, floor(b / across) + dy];
      if (i >= 0 && j >= 0 && i < across && j < down) best = max(best, light[j * across + i]!);
    }
    return best;
  });
  const out = new Uint8Array(pixels.length);
  for (let y = 0; y < height; y++) {
    const v = max(0, min(down - 1, (y + 0.5) / size - 0.5));
    const j = min(down - 1, floor(v));
    const j1 = min(down - 1, j + 1);
    for (let x = 0; x < width; x++) {
      const u = max(0, min(across - 1, (x + 0.5) / size - 0.5));
      const i = min(across - 1, floor(u));
      const i1 = min(across - 1, i + 1);
      const top = lit[j * across + i]! + (lit[j * across + i1]! - lit[j * across + i]!) * (u - i);
      const bottom = lit[j1 * across + i]! + (lit[j1 * across + i1]! - lit[j1 * across + i]!) * (u - i);
      out[y * width + x] = min(255, (pixels[y * width + x]! * PAPER) / max(1, top + (bottom - top) * (v - j)));
    }
  }
  return { width, height, pixels: out };
}

const AROUND = [-1, 0, 1].flatMap((dx) => [-1, 0, 1].map((dy) => [dx, dy] as const));

/** The level that nine tenths of a block's pixels are no lighter than. */
function paperLevel(
  pixels: Uint8Array,
  width: number,
  height: number,
  left: number,
  top: number,
  size: number,
): number {
  const counts = new Uint32Array(256);
  let total = 0;
  for (let y = top; y < min(height, top + size); y++) {
    for (let x = left; x < min(width, left + size); x++) {
      counts[pixels[y * width + x]!]!++;
      total++;
    }
  }
  let above = 0;
  for (let v = 255; v > 0; v--) {
    above += counts[v]!;
    if (above > total * 0.1) return v;
  }
  return 1;
}

/** Greatest skew that is looked for, in degrees. */
const MOST_SKEW = 6;

/**
 * How far the lines of lettering rise to the right, in degrees: the turn for which rows are most unlike their neighbours, ink
 * between baseline and x-height against none between lines (the projection profile; Postl, 1986). 0 for an empty picture.
 */
export function skewOf(picture: GreyPicture, threshold: number): number {
  const ink = inkPlaces(picture, threshold, 600);
  if (ink.length < 40) return 0;
  let best = { angle: 0, score: sharpness(ink, 0) };
  for (const step of [0.5, 0.1, 0.02]) {
    const about = best.angle;
    const reach = step === 0.5 ? MOST_SKEW : step * 6;
    for (let angle = about - reach; angle <= about + reach + 1e-9; angle += step) {
      const score = sharpness(ink, angle);
      if (score > best.score * 1.0001) best = { angle, score };
    }
  }
  return best.angle;
}

/** Places of ink in a coarser picture of at most `size` pixels a side: x and y in turn. */
function inkPlaces({ width, height, pixels }: GreyPicture, threshold: number, size: number): Float64Array {
  const step = max(1, floor(max(width, height) / size));
  const out: number[] = [];
  for (let y = 0; y < height; y += step)
    for (let x = 0; x < width; x += step) if (pixels[y * width + x]! < threshold) out.push(x / step, y / step);
  return Float64Array.from(out);
}

function sharpness(ink: Float64Array, degrees: number): number {
  const lean = Math.tan((degrees * Math.PI) / 180);
  const rows = new Map<number, number>();
  for (let i = 0; i < ink.length; i += 2) {
    const row = round(ink[i + 1]! + ink[i]! * lean);
    rows.set(row, (rows.get(row) ?? 0) + 1);
  }
  let score = 0;
  for (const [row, n] of rows) score += (n - (rows.get(row + 1) ?? 0)) ** 2 + (rows.has(row - 1) ? 0 : n ** 2);
  return score;
}

/** The picture turned about its middle, clockwise for positive degrees; what comes in from outside is white. */
export function turned(picture: GreyPicture, degrees: number): GreyPicture {
  if (abs(degrees) < 0.01) return picture;
  const { width, height, pixels } = picture;
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const [cx, cy] = [width / 2, height / 2];
  const out = new Uint8Array(pixels.length).fill(255);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const u = c * (x + 0.5 - cx) + s * (y + 0.5 - cy) + cx - 0.5;
      const v = -s * (x + 0.5 - cx) + c * (y + 0.5 - cy) + cy - 0.5;
      const [i, j] = [floor(u), floor(v)];
      if (i < 0 || j < 0 || i >= width - 1 || j >= height - 1) continue;
      const at = j * width + i;
      const top = pixels[at]! + (pixels[at + 1]! - pixels[at]!) * (u - i);
      const bottom = pixels[at + width]! + (pixels[at + width + 1]! - pixels[at + width]!) * (u - i);
      out[y * width + x] = top + (bottom - top) * (v - j);
    }
  }
  return { width, height, pixels: out };
}
