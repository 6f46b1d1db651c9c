import type { StyleNames } from '../fontfacts/names';
import type { StyleNameFact } from '../project/styleNameEdits';

/** A name that is too long for some programs, and a shorter one that says the same. */
export type LongName = { reason: string; mend?: { fact: StyleNameFact; value: string } };

/** The longest family name that programs of the four-style kind take (Win32, `LF_FACESIZE` without its end). */
export const LONGEST_LINKED = 31;
/** The longest PostScript name (Adobe Technical Note 5902). */
const LONGEST_POSTSCRIPT = 63;

/** Words of styles as they are shortened (Adobe Technical Note 5088), those that spare most first. */
const SHORT: readonly (readonly [word: RegExp, short: string])[] = [
  [/\bCompressed\b/g, 'Cm'],
  [/\bCondensed\b/g, 'Cn'],
  [/\bExpanded\b/g, 'Ex'],
  [/\bExtended\b/g, 'Ex'],
  [/\bOblique\b/g, 'Obl'],
  [/\bSlanted\b/g, 'Sl'],
  [/\bMedium\b/g, 'Md'],
  [/\bItalic\b/g, 'It'],
  [/\bNarrow\b/g, 'Nr'],
  [/\bLight\b/g, 'Lt'],
  [/\bBlack\b/g, 'Blk'],
  [/\bHeavy\b/g, 'Hv'],
  [/\bUltra ?/g, 'Ult'],
  [/\bExtra ?/g, 'X'],
  [/\bSemi ?/g, 'Sm'],
  [/\bBold\b/g, 'Bd'],
  [/\bThin\b/g, 'Th'],
];

/** A name with words of its style shortened, one after another, until it fits; undefined where it never does. */
export function shortened(name: string, family: string, most: number): string | undefined {
  if (!name.startsWith(family)) return undefined;
  let style = name.slice(family.length);
  for (const [word, short] of SHORT) {
    if (family.length + style.length <= most) break;
    style = style.replace(word, short);
  }
  return family.length + style.length <= most ? family + style : undefined;
}

/** Which of a font’s names are too long, for whom, and what would do instead. */
export function longNames(names: StyleNames): LongName[] {
  const out: LongName[] = [];
  const { linkedFamily, postScriptName, family, style } = names;
  if (linkedFamily.length > LONGEST_LINKED) {
    const value = shortened(linkedFamily, family, LONGEST_LINKED);
    out.push({
      reason: `“${linkedFamily}” has ${linkedFamily.length} characters; programs that know four styles show ${LONGEST_LINKED}, and may take it for another font.`,
      ...(value !== undefined && { mend: { fact: 'styleMapFamilyName', value } }),
    });
  }
  // The rule cuts at the limit, so that two long names may come to one.
  const wanted = `${family}-${style}`.replace(/\s+/g, '');
  if (wanted.length > LONGEST_POSTSCRIPT && postScriptName.length >= LONGEST_POSTSCRIPT) {
    const head = family.replace(/\s+/g, '');
    const value = shortened(`${head}-${style}`, `${head}-`, LONGEST_POSTSCRIPT)?.replace(/\s+/g, '');
    out.push({
      reason: `The PostScript name is cut after ${LONGEST_POSTSCRIPT} characters, as no more are allowed.`,
      ...(value !== undefined && { mend: { fact: 'postscriptFontName', value } }),
    });
  }
  return out;
}
