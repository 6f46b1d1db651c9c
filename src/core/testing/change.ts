import type { Drawing, MasterId, Project } from '../project/model';

/** A project in which one drawing of a glyph, by its name, is otherwise. */
export function withChanged(
  project: Project,
  name: string,
  master: MasterId,
  change: (drawing: Drawing) => Partial<Drawing>,
): Project {
  const glyph = Object.values(project.glyphs).find((g) => g.name === name)!;
  const drawing = glyph.drawings[master]!;
  const drawings = { ...glyph.drawings, [master]: { ...drawing, ...change(drawing) } };
  return { ...project, glyphs: { ...project.glyphs, [glyph.id]: { ...glyph, drawings } } };
}
