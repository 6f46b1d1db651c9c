import type { Glyph } from '../project/model';

/** Is a code point a letter? */
export const isLetterLike = (code: number): boolean => /^\p{L}$/u.test(String.fromCodePoint(code));

/** Is a glyph a mark, by what it is said to be or by its character? */
export const isMark = (glyph: Glyph): boolean =>
  glyph.category === 'mark' || glyph.unicodes.some((c) => /^\p{M}$/u.test(String.fromCodePoint(c)));

/** Does a character draw nothing: a blank, a control, a joiner, a mark of order? */
export const drawsNothing = (code: number): boolean =>
  /^[\p{Z}\p{Cc}\p{Cf}]$/u.test(String.fromCodePoint(code)) ||
  (code >= 0xfe00 && code <= 0xfe0f) ||
  (code >= 0xe0100 && code <= 0xe01ef) ||
  code === 0x34f ||
  code === 0x115f ||
  code === 0x1160 ||
  code === 0x2800 ||
  code === 0x3164;
