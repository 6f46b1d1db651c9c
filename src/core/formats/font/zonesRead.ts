import { isEmptyBox } from '../../geometry/curve';
import type { Master, Project } from '../../project/model';
import { drawingBounds, drawingsOf } from '../../project/outline';
import { drawingOf, glyphForCodePoint } from '../../project/queries';

/** The middle one of some numbers. */
const median = (all: readonly number[]): number | undefined => [...all].sort((a, b) => a - b)[all.length >> 1];

/**
 * A master whose ascender and descender lie where its own letters end: line metrics of a finished font have room for accents,
 * which the lines of the drawing have not. Where those letters are missing the line metrics stand for them.
 */
export function withZonesOfLetters(project: Project, master: Master): Master {
  const source = drawingsOf(project, master.id);
  const ends = (letters: string, edge: 'yMin' | 'yMax') =>
    median(
      [...letters].flatMap((c) => {
        const glyph = glyphForCodePoint(project, c.codePointAt(0)!);
        const box = glyph && drawingBounds(drawingOf(glyph, master.id), source);
        return box && !isEmptyBox(box) ? [Math.round(box[edge])] : [];
      }),
    );
  const [top, bottom] = [ends('lbdhk', 'yMax'), ends('pq', 'yMin')];
  const { zones } = master;
  const above = top !== undefined && top > zones.xHeight.position ? top : zones.ascender.position;
  const below = bottom !== undefined && bottom < 0 ? bottom : zones.descender.position;
  if (above === zones.ascender.position && below === zones.descender.position) return master;
  return {
    ...master,
    zones: {
      ...zones,
      ascender: { ...zones.ascender, position: above },
      descender: { ...zones.descender, position: below },
    },
  };
}
