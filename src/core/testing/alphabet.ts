import type { Glyph, Project } from '../project/model';
import { drawingsOf, flattened } from '../project/outline';

const ALPHABET = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789 ';

/** A project cut down to the alphabet, figures and some more characters, all drawn out, without anchors, rules or kerning. */
export function alphabetOf(project: Project, more: string): Project {
  const plain = new Set([...ALPHABET, ...more].map((c) => c.codePointAt(0)!));
  const keep = project.glyphOrder.filter(
    (id) => project.glyphs[id]!.name === '.notdef' || project.glyphs[id]!.unicodes.some((c) => plain.has(c)),
  );
  const bare = (g: Glyph): Glyph => ({
    ...g,
    drawings: Object.fromEntries(
      Object.entries(g.drawings).map(([m, d]) => [
        m,
        { ...d, anchors: [], contours: flattened(d, drawingsOf(project, m)), components: [] },
      ]),
    ),
    follows: { left: [], right: [] },
  });
  return {
    ...project,
    glyphOrder: keep,
    glyphs: Object.fromEntries(keep.map((id) => [id, bare(project.glyphs[id]!)])),
    groups: [],
    masters: project.masters.map((m) => ({ ...m, kerning: {} })),
  };
}
