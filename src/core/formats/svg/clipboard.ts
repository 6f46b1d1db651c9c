import { z } from 'zod';
import { type Result, refused, success } from '../../base/result';
import type { Contour } from '../../geometry/contour';
import { contourSchema } from '../../project/model';
import { contoursPath, pageBox } from './svg';
import { isPathData, isSvg, readPathData, readSvg, type SvgPlace } from './svgRead';

/** Outlines as they travel: `svg` for any program, `exact` for another glyph (types, names and implied points kept). */
export type CopiedOutline = { svg: string; exact: string };

export const EXACT_TYPE = 'text/x-wendril-outline';

/** Contours as an SVG picture from the bottom to the top line, and to the letter. */
export function copiedOutline(contours: readonly Contour[], advance: number, { top, bottom }: SvgPlace): CopiedOutline {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${pageBox(advance, top, bottom)}"><path d="${contoursPath(contours)}"/></svg>`;
  return { svg, exact: JSON.stringify(contours) };
}

const exactSchema = z.array(contourSchema).max(10_000);

/** Outlines from the clipboard: exact ones first, then an SVG picture or bare path data. Undefined for any other text. */
export function pastedOutline(
  text: string,
  exact: string,
  place: SvgPlace,
): Result<{ contours: readonly Contour[]; notes: readonly string[] }> | undefined {
  if (exact !== '') {
    try {
      const parsed = exactSchema.safeParse(JSON.parse(exact));
      if (parsed.success) return success({ contours: parsed.data, notes: [] });
    } catch {
      // Not ours after all; the plain text may still be.
    }
  }
  if (isSvg(text)) {
    const read = readSvg(text, 'The clipboard', place);
    if (read.ok && read.value.contours.length === 0) return refused('The picture on the clipboard holds no outlines.');
    return read;
  }
  if (!isPathData(text)) return undefined;
  const read = readPathData(text, place.top);
  return read.ok ? success({ contours: read.value, notes: [] }) : read;
}
