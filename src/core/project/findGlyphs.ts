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

/** A glyph by its character or its name. */
export const glyphTyped = (project: Project, text: string): Glyph | undefined => {
  const typed = text.trim();
  return (
    glyphNamed(project, typed) ??
    ([...typed].length === 1 ? glyphForCodePoint(project, typed.codePointAt(0)!) : undefined)
  );
};
