import { NAME_ID, type NameRecord } from '../opentype/name';
import { codePointsForName, glyphNameFault, nameForCodePoint } from '../project/glyphNames';

/** The string of a name, in English for Windows before others; without controls and outer blanks. */
export function nameOf(records: readonly NameRecord[], id: number): string | undefined {
  const rank = (r: NameRecord) =>
    r.platformID === 3 && r.languageID === 0x409
      ? 0
      : r.platformID === 3
        ? 1
        : r.platformID === 0
          ? 2
          : r.languageID === 0
            ? 3
            : 4;
  const best = records.filter((r) => r.nameID === id).sort((a, b) => rank(a) - rank(b))[0];
  const text = best?.value.replace(/[\u0000-\u0008\u000b-\u001f]/g, '').trim();
  return text === '' ? undefined : text;
}

/** Family and style as they are meant: typographic names before those of four-style families. */
export const familyAndStyle = (
  records: readonly NameRecord[],
): { family: string | undefined; style: string | undefined } => ({
  family: nameOf(records, NAME_ID.typographicFamily) ?? nameOf(records, NAME_ID.family),
  style: nameOf(records, NAME_ID.typographicSubfamily) ?? nameOf(records, NAME_ID.subfamily),
});

/**
 * A proper and unique name for every glyph: the font's own where it can be one, else by its first character, else by
 * its number.
 */
export function glyphNamesFor(
  numGlyphs: number,
  given: readonly string[],
  codes: ReadonlyMap<number, readonly number[]>,
): string[] {
  const taken = new Set<string>();
  const own = (name: string | undefined): name is string =>
    name !== undefined && name !== '.notdef' && name !== '.null' && glyphNameFault(name) === undefined;
  return Array.from({ length: numGlyphs }, (_, i) => {
    if (i === 0) {
      taken.add('.notdef');
      return '.notdef';
    }
    const first = codes.get(i)?.[0];
    // Names that only count glyphs say less than the character does.
    const counted =
      given[i] !== undefined && /^(glyph|cid|gid|g)\d+$/i.test(given[i]!) && codePointsForName(given[i]!).length === 0;
    const wanted =
      own(given[i]) && !(counted && first !== undefined)
        ? given[i]!
        : first === undefined
          ? `glyph${String(i).padStart(5, '0')}`
          : nameForCodePoint(first);
    let name = wanted.slice(0, 58);
    for (let k = 1; taken.has(name); k++) name = `${wanted.slice(0, 56)}.${k}`;
    taken.add(name);
    return name;
  });
}
