import type { z } from 'zod';
import { counted } from '../base/notation';
import { attempt, isRefused, type Refusal, refused } from '../base/result';
import { replacing } from './lineage';
import type { Drawing, Glyph, GlyphId, Master, MasterId, Project } from './model';
import { drawingOf, glyphThere, masterThere } from './queries';
import { sameStructure } from './structure';
import { waypointsKept } from './waypoints';
import { limitFault } from './withinLimits';

/**
 * Every change is an edit: a pure function from a project and its arguments to an outcome. The sentence names what was
 * touched and heads the entry in the history. A refused edit changes nothing and says why.
 */
export type Outcome = { ok: true; project: Project; sentence: string } | Refusal;

/**
 * What an edit means for a family of several masters: it changes the one that is named in its arguments, those that are
 * named, all alike, or something that masters do not have of their own.
 */
export type Reach = 'one master' | 'masters named' | 'all masters' | 'no master';

/** What is declared of an edit: enough to list it, to check its arguments and to run it by name. */
export type EditFacts<S extends z.ZodType = z.ZodType> = {
  /** What it is called by scripts, the command line and mends. */
  readonly name: string;
  /** What it does, as the beginning of a sentence: “Moves points”. */
  readonly does: string;
  readonly reach: Reach;
  /** It reads and changes nothing but the glyph that `at` names, so that many can be made on that alone. */
  readonly within?: 'glyph';
  readonly args: S;
};

/** Called with arguments of the right type, it leads to an outcome; its facts are at hand under `facts`. */
export type Edit<A, S extends z.ZodType = z.ZodType> = ((project: Project, args: A) => Outcome) & {
  readonly facts: EditFacts<S>;
};

const registry = new Map<string, Edit<never>>();

/**
 * Declares an edit. Whatever it leads to is held to the limits of the document, so that nothing is ever stored that could
 * not be opened again.
 */
export function defineEdit<S extends z.ZodType>(
  facts: EditFacts<S>,
  apply: (project: Project, args: z.output<S>) => Outcome,
): Edit<z.output<S>, S> {
  const edit = (project: Project, args: z.output<S>): Outcome => {
    const applied = attempt(() => apply(project, args));
    const done = applied.ok ? applied.value : applied;
    const outcome = done.ok ? { ...done, project: waypointsKept(project, done.project) } : done;
    return outcome.ok ? (limitFault(project, outcome.project) ?? outcome) : outcome;
  };
  const whole: Edit<z.output<S>, S> = Object.assign(edit, { facts });
  registry.set(facts.name, whole as Edit<never>);
  return whole;
}

/** All edits that are loaded, by name. */
export const registeredEdits = (): ReadonlyMap<string, Edit<never>> => registry;

/** Runs an edit by its name with arguments from outside, which are checked first. */
export function runEdit(project: Project, name: string, args: unknown): Outcome {
  const edit = registry.get(name);
  if (!edit) return refused(`There is no edit “${name}”.`);
  const parsed = edit.facts.args.safeParse(args);
  if (parsed.success) return edit(project, parsed.data as never);
  const { path, message } = parsed.error.issues[0]!;
  return refused(`${name}: ${path.length > 0 ? `${path.join('.')}: ` : ''}${message}.`);
}

export const edited = (project: Project, sentence: string): Outcome => ({ ok: true, project, sentence });
export { refused };

/** The project with one glyph replaced. */
export const withGlyph = (project: Project, glyph: Glyph): Project => withGlyphs(project, [glyph]);

/** The project with some glyphs replaced. */
export const withGlyphs = (project: Project, glyphs: readonly Glyph[]): Project => ({
  ...project,
  glyphs: replacing(project.glyphs, glyphs),
});

/** The project with one master changed. */
export const withMaster = (project: Project, id: MasterId, change: (m: Master) => Master): Project => ({
  ...project,
  masters: project.masters.map((m) => (m.id === id ? change(m) : m)),
});

/** One drawing, by glyph and master; `also`: other masters in which the same is done to the glyph. */
export type DrawingPlace = { glyph: GlyphId; master: MasterId; also?: readonly MasterId[] | undefined };

/**
 * Changes one drawing, and the same in other masters where the place names some; the sentence gets the glyph's and masters'
 * names. `change` gives a refusal, or the new drawing. What is refused in one master is done in none, and masters that
 * agreed before agree afterwards.
 */
export function editDrawing(
  project: Project,
  at: DrawingPlace,
  sentence: string,
  change: (drawing: Drawing, master: MasterId) => Drawing | Refusal,
): Outcome {
  const glyph = glyphThere(project, at.glyph);
  const master = masterThere(project, at.master);
  const others = (at.also ?? []).filter((m) => m !== at.master);
  const drawings = { ...glyph.drawings };
  for (const id of [at.master, ...others]) {
    const before = drawingOf(glyph, id);
    const after = change(before, id);
    const place = { glyph: glyph.name, master: masterThere(project, id).name };
    if (isRefused(after)) return { ...after, place: { ...place, ...after.place } };
    const agreed = sameStructure([drawingOf(glyph, at.master), before]);
    if (id !== at.master && agreed && !sameStructure([drawings[at.master]!, after]))
      return refused(`${master.name} and ${place.master} would no longer agree; do it in one master at a time.`, place);
    drawings[id] = after;
  }
  const where = others.length === 0 ? master.name : `${master.name} and ${plural(others.length, 'more master')}`;
  return edited(withGlyph(project, { ...glyph, drawings }), `${sentence} in ${glyph.name}, ${where}`);
}

/** A number of things in words: “one glyph” is “1 glyph”, many have their thousands set apart. */
export const plural = (n: number, one: string, many = `${one}s`): string => `${counted(n)} ${n === 1 ? one : many}`;
