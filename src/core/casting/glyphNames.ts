import { codePointHex } from '../base/notation';
import { type Refusal, refused } from '../base/result';
import { listed } from '../base/text';
import type { Entry } from './plan';

/** Longest name of a glyph in a font file. */
const LONGEST = 63;

/** A name of printable ASCII, without what parts words in PostScript; other characters are spelled by their code points. */
const legal = (name: string): string =>
  [...name]
    .map((c) => {
      if (/[\x21-\x7e]/.test(c)) return '[](){}<>/%'.includes(c) ? '_' : c;
      const code = c.codePointAt(0)!;
      return code <= 0x20 ? '_' : `${code > 0xffff ? 'u' : 'uni'}${codePointHex(code)}`;
    })
    .join('') || '_';

/**
 * The names that go into the font: production names before one’s own, made legal and unique: what cannot stand in a name becomes an
 * underscore or a code point, what is too long is cut, a repeated name gets a number.
 */
export function finalNames(entries: readonly Pick<Entry, 'glyph'>[]): string[] {
  const asked = entries.map(({ glyph }) => glyph.productionName ?? glyph.name);
  const wished = asked.map((n) => legal(n).slice(0, LONGEST));
  // Names that are right keep what they are, whoever else comes to it.
  const taken = new Set<string>();
  const out: (string | undefined)[] = wished.map((name, i) => {
    if (name !== asked[i] || taken.has(name)) return undefined;
    taken.add(name);
    return name;
  });
  return out.map((kept, i) => {
    if (kept !== undefined) return kept;
    let name = wished[i]!;
    for (let k = 1; taken.has(name); k++) {
      const number = `.${k}`;
      name = wished[i]!.slice(0, LONGEST - number.length) + number;
    }
    taken.add(name);
    return name;
  });
}

/** Which names became others than they were asked to be; undefined where none did. */
export function namesNote(entries: readonly Pick<Entry, 'glyph'>[], names: readonly string[]): Refusal | undefined {
  const changed = entries.flatMap(({ glyph }, i) => {
    const asked = glyph.productionName ?? glyph.name;
    return asked === names[i] ? [] : [`${asked} → ${names[i]}`];
  });
  return changed.length === 0
    ? undefined
    : refused(
        `${changed.length === 1 ? 'One glyph' : `${changed.length} glyphs`} cannot be called that in a font file, and ${changed.length === 1 ? 'gets' : 'get'} another name there: ${listed(changed, 8)}.`,
        undefined,
        'attention',
      );
}
