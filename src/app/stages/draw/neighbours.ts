import { glyphsOfLine } from '../../../core/fitting/lines';
import type { Glyph, Project } from '../../../core/project/model';
import { glyphNamed } from '../../../core/project/queries';

export type Neighbours = { before: Glyph | undefined; after: Glyph | undefined };

/** The glyphs beside a glyph where the galley's text first has it; n and o where it has not. */
export function neighboursInGalley(project: Project, glyph: Glyph): Neighbours {
  const line = glyphsOfLine(project, project.texts.galley).glyphs;
  const at = line.indexOf(glyph.id);
  const pick = (id: string | undefined, fallback: string) => (id && project.glyphs[id]?.name !== 'space' ? project.glyphs[id] : glyphNamed(project, fallback));
  return { before: pick(line[at - 1], 'n'), after: pick(at < 0 ? undefined : line[at + 1], 'o') };
}
