import type { Glyph } from '../project/model';

/** Is a code point a letter? */
export const isLetterLike = (code: number): boolean => /^\p{L}$/u.test(String.fromCodePoint(code));

/** Is a glyph a mark, by what it is said to be or by its character? */
export const isMark = (glyph: Glyph): boolean =>
  glyph.category === 'mark' || glyph.unicodes.some((c) => /^\p{M}$/u.test(String.fromCodePoint(c)));
