import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { allLists, thingsOfList } from '../core/casting/lists';
import { castOutputs, FORMATS, type Format, type OutputOptions } from '../core/casting/outputs';
import { type CastThing, thingsOf } from '../core/casting/things';
import type { Project } from '../core/project/model';
import { parsed, tellNotes } from './arguments';
import { CliError } from './problem';
import { progressOf } from './progress';
import { openInput } from './source';
import { put } from './writing';

const OPTIONS = {
  out: { type: 'string' },
  format: { type: 'string', default: 'otf,ttf,woff2' },
  'keep-overlaps': { type: 'boolean', default: false },
  blanks: { type: 'boolean', default: false },
  masters: { type: 'string' },
  instances: { type: 'string' },
  variable: { type: 'boolean', default: false },
  list: { type: 'string' },
} as const;

type Values = ReturnType<typeof parsed<typeof OPTIONS>>['values'];

/** What is cast and how: by a list of the project, or by what is asked for one by one. */
function wanted(project: Project, values: Values, formats: Format[]): Omit<OutputOptions, 'progress'> {
  if (values.list === undefined)
    return {
      formats,
      things: thingsWanted(project, values),
      keepOverlaps: values['keep-overlaps'],
      blanks: values.blanks,
    };
  const lists = allLists(project);
  const list = lists.find((l) => l.name === values.list);
  if (!list)
    throw new CliError(`There is no casting list “${values.list}”; there are ${lists.map((l) => l.name).join(', ')}.`);
  const { gone, ...choice } = thingsOfList(project, list);
  tellNotes(gone.map((g) => `The list names ${g}, which is not in the project any more.`));
  return choice;
}

type Wanted = { masters?: string | undefined; instances?: string | undefined; variable: boolean };

/** What is cast: what is asked for; without a choice every master. */
function thingsWanted(project: Project, { masters, instances, variable }: Wanted): CastThing[] {
  if (masters === undefined && instances === undefined && !variable) return thingsOf(project).masters;
  const all = thingsOf(project);
  if (variable && all.variable.length === 0)
    throw new CliError('This source has one master, so that nothing in it varies.');
  return [
    ...named(masters, project.masters, 'master').map((i) => all.masters[i]!),
    ...named(instances, project.instances, 'instance').map((i) => all.instances[i]!),
    ...(variable ? all.variable : []),
  ];
}

/** The numbers of those that a list of names asks for; `all` stands for every one. */
function named(list: string | undefined, of: readonly { name: string }[], what: string): number[] {
  if (list === undefined) return [];
  if (list.trim() === 'all') return of.map((_, i) => i);
  return list
    .split(',')
    .map((n) => n.trim())
    .filter(Boolean)
    .map((name) => {
      const i = of.findIndex((o) => o.name === name);
      if (i >= 0) return i;
      const names = of.map((o) => o.name).join(', ');
      throw new CliError(`There is no ${what} “${name}”${names === '' ? '' : `; there are ${names}`}.`);
    });
}

/** `wendril cast`: writes one file per master and format into a folder, and their paths to standard output. */
export async function cast(args: readonly string[]): Promise<void> {
  const { values, positionals } = parsed(args, OPTIONS);
  const [source, ...more] = positionals;
  if (!source || more.length > 0) throw new CliError('cast takes one SOURCE; see wendril --help.');
  if (!values.out) throw new CliError('cast needs --out DIR, the folder for the font files.');
  const formats = values.format.split(',').map((f) => f.trim().toLowerCase());
  const unknown = formats.find((f) => !(FORMATS as readonly string[]).includes(f));
  if (unknown !== undefined) throw new CliError(`“${unknown}” is not a format; choose from ${FORMATS.join(', ')}.`);
  const { project, notes } = await openInput(source);
  tellNotes(notes);
  const result = await castOutputs(project, {
    ...wanted(project, values, formats as Format[]),
    progress: progressOf('Casting'),
  });
  if (!result.ok) throw new CliError(result.reason);
  try {
    mkdirSync(values.out, { recursive: true });
    for (const file of result.value) {
      const path = join(values.out, file.fileName);
      put(path, file.bytes);
      process.stdout.write(`${path}\n`);
    }
  } catch (error) {
    if (error instanceof CliError) throw error;
    throw new CliError(`The fonts cannot be written to ${values.out} (${(error as NodeJS.ErrnoException).code}).`);
  }
  tellNotes([...new Set(result.value.flatMap((f) => f.font.notes.map((n) => n.reason)))]);
}
