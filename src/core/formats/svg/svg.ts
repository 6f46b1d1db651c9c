import { type Contour, curvesOf } from '../../geometry/contour';
import { tidy } from '../../geometry/tidy';
import type { Drawing, GlyphId, Project } from '../../project/model';
import { drawingsOf, flattened } from '../../project/outline';
import { drawingOf, masterOf } from '../../project/queries';
import { escapeXml, numberText } from '../xml';

/** Whole thousandths, as short as they can be written. */
const short = (v: number): string => numberText(tidy(v));

/** Contours as SVG path data, y down from the baseline. */
export function contoursPath(contours: readonly Contour[]): string {
  const out: string[] = [];
  for (const contour of contours) {
    const curves = curvesOf(contour);
    const at = (c: readonly number[], i: number) => `${short(c[i]!)} ${short(-c[i + 1]!)}`;
    curves.forEach((c, i) => {
      if (i === 0) out.push(`M${at(c, 0)}`);
      if (c.length === 4) {
        // The closing side draws itself.
        if (i < curves.length - 1 || !contour.closed) out.push(`L${at(c, 2)}`);
      } else if (c.length === 6) out.push(`Q${at(c, 2)} ${at(c, 4)}`);
      else out.push(`C${at(c, 2)} ${at(c, 4)} ${at(c, 6)}`);
    });
    if (contour.closed && curves.length > 0) out.push('Z');
  }
  return out.join('');
}

/** A drawing, components drawn out, as SVG path data. */
export const svgPath = (drawing: Drawing, project: Project, master: string): string =>
  contoursPath(flattened(drawing, drawingsOf(project, master)));

/** The page of a glyph: as wide as its advance, from `top` to `bottom` in font units, its y = 0 on the baseline. */
export const pageBox = (advance: number, top: number, bottom: number): string =>
  [0, short(-top), short(Math.max(1, advance)), short(top - bottom)].join(' ');

/** One glyph as an SVG picture of one path: as wide as its advance, from ascender to descender, a unit of the em to a pixel, the baseline at 0. */
export function writeSvg(project: Project, glyph: GlyphId, masterId: string): string {
  const g = project.glyphs[glyph]!;
  const drawing = drawingOf(g, masterId);
  const { ascender, capHeight, descender } = masterOf(project, masterId)!.zones;
  const top = Math.max(ascender.position, capHeight.position);
  return `<?xml version="1.0" encoding="UTF-8"?>\n<svg xmlns="http://www.w3.org/2000/svg" viewBox="${pageBox(drawing.advance, top, descender.position)}">\n  <title>${escapeXml(g.name)}</title>\n  <path d="${svgPath(drawing, project, masterId)}"/>\n</svg>\n`;
}
