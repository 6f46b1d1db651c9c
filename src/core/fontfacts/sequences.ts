import { codePointHex } from '../base/notation';
import type { Variation } from '../opentype/cmap';
import type { LibValue, Project } from '../project/model';
import { defaultMaster } from '../project/queries';

/** Where UFO keeps variation sequences: selector to character to glyph name, both in hexadecimal. */
export const SEQUENCES = 'public.unicodeVariationSequences';

const isTable = (v: LibValue | undefined): v is Readonly<Record<string, LibValue>> =>
  typeof v === 'object' && !Array.isArray(v) && !(v instanceof Uint8Array);
const hex = (text: string): number | undefined =>
  /^[0-9A-Fa-f]{4,6}$/.test(text) && Number.parseInt(text, 16) <= 0x10ffff ? Number.parseInt(text, 16) : undefined;

/** The project's variation sequences with glyphs by index; those of glyphs that are not cast are left out. */
export function variationSequences(project: Project, indexOfNames: () => ReadonlyMap<string, number>): Variation[] {
  const table = defaultMaster(project).lib?.[SEQUENCES];
  if (!isTable(table)) return [];
  const indexOfName = indexOfNames();
  const out: Variation[] = [];
  for (const [selectorText, characters] of Object.entries(table)) {
    const selector = hex(selectorText);
    if (selector === undefined || !isTable(characters)) continue;
    for (const [codeText, glyphName] of Object.entries(characters)) {
      const code = hex(codeText);
      const glyph = typeof glyphName === 'string' ? indexOfName.get(glyphName) : undefined;
      if (code !== undefined && glyph !== undefined) out.push({ code, selector, glyph });
    }
  }
  return out;
}

/** Sequences read from a font, as UFO keeps them; `usual` is the glyph of a character by itself. */
export function sequencesLib(
  variations: readonly Variation[],
  usual: ReadonlyMap<number, number>,
  glyphNames: readonly string[],
): Readonly<Record<string, LibValue>> {
  const table: Record<string, Record<string, string>> = {};
  for (const { code, selector, glyph } of variations) {
    const name = glyphNames[glyph ?? usual.get(code) ?? -1];
    if (name === undefined) continue;
    const characters = table[codePointHex(selector)] ?? {};
    table[codePointHex(selector)] = characters;
    characters[codePointHex(code)] = name;
  }
  return Object.keys(table).length > 0 ? { [SEQUENCES]: table } : {};
}
