import type { Glyph, Project } from './model';
import { glyphForCodePoint, glyphNamed, glyphsInOrder } from './queries';

const MOST = 12;

/** Glyphs that answer to what was typed: a character, a code point, a name or the beginning of one. */
export function findGlyphs(project: Project, typed: string): Glyph[] {
  const text = typed.trim();
  if (text === '') return [];
  const found = new Map<string, Glyph>();
  const add = (g: Glyph | undefined) => g && found.set(g.id, g);
  if ([...text].length === 1) add(glyphForCodePoint(project, text.codePointAt(0)!));
  const code = /^(?:U\+|0x)?([0-9a-f]{4,6})$/i.exec(text);
  if (code) add(glyphForCodePoint(project, Number.parseInt(code[1]!, 16)));
  add(glyphNamed(project, text));
  const lower = text.toLowerCase();
  const all = glyphsInOrder(project);
  for (const g of all) if (found.size < MOST && g.name.toLowerCase().startsWith(lower)) add(g);
  for (const g of all) if (found.size < MOST && lower.length > 1 && g.name.toLowerCase().includes(lower)) add(g);
  return [...found.values()].slice(0, MOST);
}

/** A pair of two characters, or of two names with a space between; a word that is no glyph is given back as it is. */
export function pairTyped(
  project: Project,
  text: string,
): { glyphs: [Glyph, Glyph] } | { missing: string } | undefined {
  const words = text.trim().split(/\s+/);
  const parts = words.length === 2 ? words : [...text.trim()];
  if (parts.length !== 2) return undefined;
  const [first, second] = parts.map((p) => glyphTyped(project, p));
  return first && second ? { glyphs: [first, second] } : { missing: first ? parts[1]! : parts[0]! };
}

/** A glyph by its character or its name. */
export const glyphTyped = (project: Project, text: string): Glyph | undefined => {
  const typed = text.trim();
  return (
    glyphNamed(project, typed) ??
    ([...typed].length === 1 ? glyphForCodePoint(project, typed.codePointAt(0)!) : undefined)
  );
};
