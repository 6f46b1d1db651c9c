import { glyphsOfLine } from '../../../core/fitting/lines';
import type { Glyph, Project } from '../../../core/project/model';
import { glyphNamed } from '../../../core/project/queries';

export type Neighbours = { before: Glyph | undefined; after: Glyph | undefined };

const known = new WeakMap<Project['glyphs'], Map<string, Neighbours>>();

/** The glyphs beside a glyph where the galley's text first has it; n and o where it has not. */
export function neighboursInGalley(project: Project, glyph: Glyph): Neighbours {
  let cache = known.get(project.glyphs);
  if (!cache) {
    cache = new Map();
    known.set(project.glyphs, cache);
  }
  const key = `${glyph.id} ${project.texts.galley}`;
  let found = cache.get(key);
  if (!found) {
    const line = glyphsOfLine(project, project.texts.galley).glyphs;
    const at = line.indexOf(glyph.id);
    const pick = (id: string | undefined, fallback: string) => (id && project.glyphs[id]?.name !== 'space' ? project.glyphs[id] : glyphNamed(project, fallback));
    found = { before: pick(line[at - 1], 'n'), after: pick(at < 0 ? undefined : line[at + 1], 'o') };
    cache.set(key, found);
  }
  return found;
}
