/** How numbers and code points are written for people, in one way everywhere. */

/** The hexadecimal number of a code point, of four digits at least: `0041`. */
export const codePointHex = (code: number): string => code.toString(16).toUpperCase().padStart(4, '0');

/** A code point as the Unicode standard writes it: `U+0041`. */
export const codePointForm = (code: number): string => `U+${codePointHex(code)}`;

/** Code points as the Unicode standard writes them, or that there is none. */
export const codePointForms = (codes: readonly number[]): string =>
  codes.map(codePointForm).join(', ') || 'no code point';

/** A number with a true minus sign, rounded to so many decimals; never “−0”. */
export const shownNumber = (value: number, decimals = 2): string =>
  String(Math.round(value * 10 ** decimals) / 10 ** decimals || 0).replace('-', '−');

/** A number, mostly a count, with its thousands set apart: `6,782`. */
export function counted(n: number): string {
  const [whole, part] = String(Math.round(n * 1000) / 1000).split('.');
  const grouped = whole!.replace(/\B(?=(\d{3})+$)/g, ',');
  return part === undefined ? grouped : `${grouped}.${part}`;
}
