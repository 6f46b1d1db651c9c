/** A grey picture: levels 0 black to 255 white, row by row from the top. */
export type GreyPicture = { readonly width: number; readonly height: number; readonly pixels: Uint8Array };

/** Grey levels of an RGBA picture as the eye weighs colours (Rec. 709), on white paper where it is transparent. */
export function greyOf(rgba: Uint8Array | Uint8ClampedArray, width: number, height: number): GreyPicture {
  const pixels = new Uint8Array(width * height);
  for (let i = 0; i < pixels.length; i++) {
    const alpha = rgba[4 * i + 3]! / 255;
    const level = 0.2126 * rgba[4 * i]! + 0.7152 * rgba[4 * i + 1]! + 0.0722 * rgba[4 * i + 2]!;
    pixels[i] = Math.round(255 + (level - 255) * alpha);
  }
  return { width, height, pixels };
}

/**
 * The grey level that parts ink from paper best (Otsu, "A threshold selection method from gray-level histograms", 1979): half way
 * between the means of the two classes whose variance between each other is greatest. 128 for a picture of one level.
 */
export function inkThreshold({ pixels }: GreyPicture): number {
  const counts = new Float64Array(256);
  for (const v of pixels) counts[v]!++;
  const total = pixels.length;
  const sum = counts.reduce((s, n, v) => s + n * v, 0);
  let [below, sumBelow, best, level] = [0, 0, 0, 128];
  for (let v = 0; v < 255; v++) {
    below += counts[v]!;
    sumBelow += counts[v]! * v;
    if (below === 0 || below === total) continue;
    const [dark, light] = [sumBelow / below, (sum - sumBelow) / (total - below)];
    const between = below * (total - below) * (light - dark) ** 2;
    if (between > best) [best, level] = [between, (dark + light) / 2];
  }
  return level;
}

/** The part of a picture in a box of whole pixels; beyond the picture it is white. */
export function cropped(
  { width, height, pixels }: GreyPicture,
  left: number,
  top: number,
  wide: number,
  tall: number,
): GreyPicture {
  const out = new Uint8Array(wide * tall).fill(255);
  for (let y = Math.max(0, -top); y < tall && top + y < height; y++) {
    const from = Math.max(0, left);
    const to = Math.min(width, left + wide);
    if (to > from) out.set(pixels.subarray((top + y) * width + from, (top + y) * width + to), y * wide + from - left);
  }
  return { width: wide, height: tall, pixels: out };
}

/** Most pixels of a picture that is worked on. */
const MOST_PIXELS = 40_000_000;
/** More pixels to a byte than any picture packs. */
const MOST_A_BYTE = 10_000;

/** A sentence on a picture that has too many pixels to be worked on, or more than its bytes can hold; undefined for others. */
export function tooLarge(
  { width, height }: { width: number; height: number },
  name: string,
  bytes = Number.POSITIVE_INFINITY,
): string | undefined {
  if (width * height > MOST_PIXELS)
    return `${name} has ${Math.round((width * height) / 1e6)} million pixels; ${MOST_PIXELS / 1e6} million can be worked on.`;
  return width * height > bytes * MOST_A_BYTE
    ? `${name} says it is ${width} by ${height} pixels but has only ${bytes} bytes: it is damaged or cut short.`
    : undefined;
}
