import { cropped, type GreyPicture, inkThreshold } from './picture';
import { linesOf, type Region, type SheetLine } from './regions';
import { evenLight, skewOf, turned } from './straighten';

/** A sheet made straight, its paper evenly white, and the letters found on it. */
export type Sheet = { picture: GreyPicture; threshold: number; skewDegrees: number; lines: readonly SheetLine[] };

/** Finds the lines and letters of a scanned or photographed sheet, which may lie a few degrees askew in uneven light. */
export function readSheet(scanned: GreyPicture): Sheet {
  const even = evenLight(scanned);
  const threshold = inkThreshold(even);
  const skewDegrees = skewOf(even, threshold);
  const picture = turned(even, skewDegrees);
  return { picture, threshold, skewDegrees, lines: linesOf(picture, threshold) };
}

/** Heights that a letter may reach, in font units above the baseline. */
export type Heights = { xHeight: number; capHeight: number; ascender: number };

const REACHING: readonly (readonly [RegExp, keyof Heights])[] = [
  [/^[acemnorsuvwxz]$/, 'xHeight'],
  [/^[bdfhkl]$/, 'ascender'],
  [/^(?:\p{Lu}|\d)$/u, 'capHeight'],
];

/**
 * Font units to a pixel at which the letters of a sheet reach the heights that letters of their kind have; the middle of what the
 * letters say one by one. Undefined when no letter is of a kind whose height is known.
 */
export function unitsPerPixel(
  lines: readonly SheetLine[],
  texts: readonly (readonly (string | undefined)[])[],
  heights: Heights,
): number | undefined {
  const said = lines.flatMap((line, i) =>
    line.regions.flatMap((region, k) => {
      const character = texts[i]?.[k];
      const reaching = character === undefined ? undefined : REACHING.find(([kind]) => kind.test(character));
      const tall = line.baseline - region.top;
      return reaching && tall > 2 ? [heights[reaching[1]] / tall] : [];
    }),
  );
  said.sort((a, b) => a - b);
  return said.length === 0 ? undefined : said[Math.floor(said.length / 2)];
}

/** White around a letter that is cut out, as a share of its height. */
const AIR = 0.06;

/** A letter cut out of a sheet, with the place of its ink and of the baseline in the cutting, in pixels. */
export type Cutting = { picture: GreyPicture; inkLeft: number; inkRight: number; baseline: number };

/** Cuts a letter out; what lies in other regions of the sheet is left white. */
export function cutOut(sheet: GreyPicture, line: SheetLine, region: Region, others: readonly Region[]): Cutting {
  const air = Math.max(3, Math.round((region.bottom - region.top) * AIR));
  const [left, top] = [region.left - air, region.top - air];
  const whole = cropped(sheet, left, top, region.right - region.left + 2 * air, region.bottom - region.top + 2 * air);
  const pixels = whole.pixels.slice();
  for (const o of others) {
    const [x0, x1] = [Math.max(0, o.left - left), Math.min(whole.width, o.right - left)];
    for (let y = Math.max(0, o.top - top); y < Math.min(whole.height, o.bottom - top); y++) {
      for (let x = x0; x < x1; x++) {
        const inOwn = x >= air && x < whole.width - air && y >= air && y < whole.height - air;
        if (!inOwn) pixels[y * whole.width + x] = 255;
      }
    }
  }
  return { picture: { ...whole, pixels }, inkLeft: air, inkRight: whole.width - air, baseline: line.baseline - top };
}
