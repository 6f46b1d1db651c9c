import { reachedFrom } from '../features/reach';
import type { Glyph, Project } from '../project/model';

/** What a subset has by itself: characters by code point, and glyphs by name. */
export type Wanted = { codes: ReadonlySet<number>; names: ReadonlySet<string> };

/** Stands in every font: spaces have no ink to save. */
const ALWAYS = new Set([0x20, 0xa0]);

/**
 * A project whose fonts have only some glyphs: those that are wanted, and all that rules make of them. Marks that letters are set with
 * stay with them where the letters come apart. Glyphs that composites are built on are drawn out where they are not wanted themselves.
 */
export function subsetOf(project: Project, wants: Wanted): Project {
  const isWanted = (g: Glyph) =>
    g.name === '.notdef' || wants.names.has(g.name) || g.unicodes.some((c) => wants.codes.has(c) || ALWAYS.has(c));
  const reached = reachedFrom(project, isWanted);
  const glyphs: Record<string, Glyph> = {};
  for (const [id, glyph] of Object.entries(project.glyphs)) {
    if (!glyph.cast || reached.has(glyph.name)) {
      // A character that is not wanted is left to another font, though its glyph may serve a rule.
      const unicodes = isWanted(glyph)
        ? glyph.unicodes.filter((c) => wants.names.has(glyph.name) || wants.codes.has(c) || ALWAYS.has(c))
        : [];
      glyphs[id] = unicodes.length === glyph.unicodes.length ? glyph : { ...glyph, unicodes };
    } else glyphs[id] = { ...glyph, cast: false };
  }
  return { ...project, glyphs };
}
