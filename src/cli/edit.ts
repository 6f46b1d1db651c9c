import { registeredEdits, runEdit } from '../core/allEdits';
import type { Outcome } from '../core/project/edit';
import type { Project } from '../core/project/model';
import { glyphForCodePoint, glyphNamed } from '../core/project/queries';
import { CliError } from './problem';

/** Every edit there is, by its name, with arguments in JSON: what the interface does, from the command line. */

export const isEdit = (name: string): boolean => registeredEdits().has(name);

/** Names of all edits with what they do, and what each means for masters. */
export const listEdits = (): { name: string; does: string; masters: string }[] =>
  [...registeredEdits().values()]
    .map(({ facts }) => ({ name: facts.name, does: facts.does, masters: facts.reach }))
    .sort((a, b) => (a.name < b.name ? -1 : 1));

/** Arguments in which `/name` stands for the id of a glyph, `@Name` for that of a master. */
function resolved(project: Project, value: unknown): unknown {
  if (Array.isArray(value)) return value.map((v) => resolved(project, v));
  if (typeof value === 'object' && value !== null)
    return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, resolved(project, v)]));
  if (typeof value !== 'string' || value.length < 2) return value;
  if (value.startsWith('/')) {
    const name = value.slice(1);
    const glyph =
      glyphNamed(project, name) ??
      ([...name].length === 1 ? glyphForCodePoint(project, name.codePointAt(0)!) : undefined);
    if (!glyph) throw new CliError(`There is no glyph “${name}”.`);
    return glyph.id;
  }
  if (value.startsWith('@')) {
    const master = project.masters.find((m) => m.name === value.slice(1) || m.id === value.slice(1));
    if (!master)
      throw new CliError(
        `There is no master “${value.slice(1)}”; there are ${project.masters.map((m) => m.name).join(', ')}.`,
      );
    return master.id;
  }
  return value;
}

/** Carries one edit out. */
export function edit(project: Project, name: string, json: string | undefined): Outcome {
  let args: unknown;
  try {
    args = JSON.parse(json ?? '{}');
  } catch (error) {
    throw new CliError(`--args is no JSON: ${(error as Error).message}.`);
  }
  return runEdit(project, name, resolved(project, args));
}
