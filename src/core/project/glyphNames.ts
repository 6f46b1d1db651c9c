import { codePointHex } from '../base/notation';
import list from './adobeGlyphList.json';

/** Adobe Glyph List (https://github.com/adobe-type-tools/agl-aglfn): `forNewFonts` is AGLFN, `older` the rest of AGL. */
const codesByName = new Map<string, readonly number[]>();
const nameByCode = new Map<number, string>();

function load(): void {
  if (codesByName.size > 0) return;
  const read = (text: string, preferred: boolean) => {
    const words = text.split(' ');
    for (let i = 0; i < words.length; i += 2) {
      const codes = words[i + 1]!.split('_').map((h) => Number.parseInt(h, 16));
      codesByName.set(words[i]!, codes);
      if (preferred) nameByCode.set(codes[0]!, words[i]!);
    }
  };
  read(list.forNewFonts, true);
  read(list.older, false);
}

/** The standard glyph name for a code point: the list's, else `uniXXXX`, else `uXXXXX`. */
export function nameForCodePoint(code: number): string {
  load();
  const hex = codePointHex(code);
  return nameByCode.get(code) ?? (code > 0xffff ? `u${hex}` : `uni${hex}`);
}

/**
 * The characters a glyph name stands for by the Adobe rules: the part before the first full stop, split at
 * underscores, each part from the list, `uniXXXX…` or `uXXXX`. An unknown name stands for nothing.
 */
export function codePointsForName(name: string): number[] {
  load();
  const base = name.split('.')[0] ?? '';
  return base.split('_').flatMap((part) => {
    const known = codesByName.get(part);
    if (known) return [...known];
    if (/^uni([0-9A-F]{4})+$/.test(part))
      return part
        .slice(3)
        .match(/.{4}/g)!
        .map((h) => Number.parseInt(h, 16));
    const u = /^u([0-9A-F]{4,6})$/.exec(part);
    const code = u ? Number.parseInt(u[1]!, 16) : -1;
    return code >= 0 && code <= 0x10ffff ? [code] : [];
  });
}

/** The code point a glyph of this name should be encoded at, if its name gives exactly one and has no suffix. */
export function encodingForName(name: string): number | undefined {
  if (name.includes('.') || name.includes('_')) return undefined;
  const codes = codePointsForName(name);
  return codes.length === 1 ? codes[0] : undefined;
}

/** Why a string cannot be a glyph name, or undefined when it can (OpenType feature file rules, at most 63 characters). */
export function glyphNameFault(name: string): string | undefined {
  if (name === '.notdef') return undefined;
  if (name === '') return 'A glyph name cannot be empty.';
  if (name.length > 63) return `“${name.slice(0, 20)}…” is longer than 63 characters.`;
  if (!/^[A-Za-z_][A-Za-z0-9._-]*$/.test(name)) {
    return `“${name}” is not a glyph name: use letters, digits, full stop, underscore and hyphen, starting with a letter.`;
  }
  return undefined;
}
