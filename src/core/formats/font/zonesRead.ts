import { isEmptyBox } from '../../geometry/curve';
import type { Master, Project } from '../../project/model';
import { drawingBounds, drawingsOf } from '../../project/outline';
import { drawingOf, glyphForCodePoint } from '../../project/queries';

/** The middle one of some numbers. */
const median = (all: readonly number[]): number | undefined => [...all].sort((a, b) => a - b)[all.length >> 1];

/** Heights of small and capital letters that a font tells of itself; 0 or undefined where it does not. */
type Told = { readonly sxHeight?: number; readonly sCapHeight?: number };

/** Letters that miss a height told of them by more than this share of the em show that it is wrong. */
const WRONG = 0.1;

/**
 * A master whose ascender and descender lie where its own letters end: line metrics of a finished font have room for accents,
 * which the lines of the drawing have not. Where those letters are missing the line metrics stand for them. The heights of
 * flat letters stand for those that the font does not tell, or tells quite wrong: of these a sentence goes to `note`.
 */
export function withZonesOfLetters(
  project: Project,
  master: Master,
  told: Told,
  note: (sentence: string) => void,
): Master {
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
  const height = (isTold: boolean, stated: number, letters: string, what: string): number => {
    const drawn = ends(letters, 'yMax');
    if (!drawn || (isTold && Math.abs(stated - drawn) <= WRONG * project.unitsPerEm)) return stated;
    if (isTold)
      note(
        `It says that ${what} are ${stated} units high; they are ${drawn}, so their line stands there, in files that are cast too.`,
      );
    return drawn;
  };
  const small = height(!!told.sxHeight, zones.xHeight.position, 'xzvw', 'small letters');
  const capital = height(!!told.sCapHeight, zones.capHeight.position, 'HIEZ', 'capitals');
  const above = top !== undefined && top > small ? top : zones.ascender.position;
  const below = bottom !== undefined && bottom < 0 ? bottom : zones.descender.position;
  return {
    ...master,
    zones: {
      ...zones,
      xHeight: { ...zones.xHeight, position: small },
      capHeight: { ...zones.capHeight, position: capital },
      ascender: { ...zones.ascender, position: above },
      descender: { ...zones.descender, position: below },
    },
  };
}
