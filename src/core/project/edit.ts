import { replacing } from './lineage';
import type { Drawing, Glyph, GlyphId, MasterId, Project } from './model';
import { drawingOf } from './queries';

/**
 * Every change is an edit: a pure function from a project and its arguments to an outcome. The sentence names what was
 * touched and heads the entry in the history. A refused edit changes nothing and says why.
 */
export type Outcome = { ok: true; project: Project; sentence: string } | { ok: false; reason: string };
export type Edit<A> = (project: Project, args: A) => Outcome;

export const edited = (project: Project, sentence: string): Outcome => ({ ok: true, project, sentence });
export const refused = (reason: string): Outcome => ({ ok: false, reason });

/** The project with one glyph replaced. */
export const withGlyph = (project: Project, glyph: Glyph): Project => ({
  ...project,
  glyphs: replacing(project.glyphs, glyph),
});

export type DrawingPlace = { glyph: GlyphId; master: MasterId };

/** Changes one drawing; the sentence gets the glyph's and master's names. `change` returns a reason to refuse, or the new drawing. */
export function editDrawing(
  project: Project,
  at: DrawingPlace,
  sentence: string,
  change: (drawing: Drawing) => Drawing | { refuse: string },
): Outcome {
  const glyph = project.glyphs[at.glyph];
  if (!glyph) return refused('That glyph is no longer in the project.');
  const master = project.masters.find((m) => m.id === at.master);
  if (!master) return refused('That master is no longer in the project.');
  const before = drawingOf(glyph, at.master);
  const after = change(before);
  if ('refuse' in after) return refused(after.refuse);
  const next = { ...glyph, drawings: { ...glyph.drawings, [at.master]: after } };
  return edited(withGlyph(project, next), `${sentence} in ${glyph.name}, ${master.name}`);
}

export const plural = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;
