import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { sharing } from '../core/base/sharing';
import { CastCache } from '../core/casting/cache';
import { FORMATS, type Format } from '../core/casting/outputs';
import type { Project } from '../core/project/model';
import { numberOf, parsed, tellNotes } from './arguments';
import type { MadeFile } from './castJobs';
import { castSource } from './castSource';
import { castSources } from './castSources';
import { CliError } from './problem';
import { progressOf } from './progress';
import { watching } from './watch';
import { put } from './writing';

const OPTIONS = {
  out: { type: 'string' },
  format: { type: 'string', default: 'otf,ttf,woff2' },
  masters: { type: 'string' },
  instances: { type: 'string' },
  variable: { type: 'boolean', default: false },
  list: { type: 'string' },
  'keep-overlaps': { type: 'boolean' },
  blanks: { type: 'boolean' },
  glyphs: { type: 'string' },
  languages: { type: 'string' },
  without: { type: 'string' },
  unhinted: { type: 'boolean' },
  symbol: { type: 'boolean' },
  embedding: { type: 'string' },
  lines: { type: 'string' },
  'must-agree': { type: 'boolean' },
  parts: { type: 'boolean' },
  jobs: { type: 'string' },
  watch: { type: 'boolean', default: false },
  json: { type: 'boolean', default: false },
} as const;

/** Is a file not there, or other than it would be? */
const isOther = (path: string, bytes: Uint8Array): boolean => !existsSync(path) || !readFileSync(path).equals(bytes);

/** `wendril cast`: writes one file per font and format into a folder, and their paths to standard output. */
export async function cast(args: readonly string[]): Promise<void> {
  const { values, positionals: sources } = parsed(args, OPTIONS);
  const [source, ...more] = sources;
  if (!source) throw new CliError('cast takes one SOURCE or more; see wendril --help.');
  if (values.watch && more.length > 0) throw new CliError('--watch looks at one SOURCE; see wendril cast --help.');
  if (!values.out) throw new CliError('cast needs --out DIR, the folder for the font files.');
  const formats = values.format.split(',').map((f) => f.trim().toLowerCase());
  const unknown = formats.find((f) => !(FORMATS as readonly string[]).includes(f));
  if (unknown !== undefined) throw new CliError(`“${unknown}” is not a format; choose from ${FORMATS.join(', ')}.`);
  const jobs = values.jobs === undefined ? undefined : Math.round(numberOf('jobs', values.jobs, 1, 64));
  const before = values.watch ? new Before() : undefined;
  const chosen: Chosen = { values, formats: formats as Format[], jobs };
  if (more.length > 0) return castMany(sources, chosen);
  const work = () => castOnce(source, chosen, before);
  await (values.watch ? watching(source, values.out, work) : work());
}

/** What is known of a source that is watched: what did not change of it is the same as before, so that it is not made again. */
class Before {
  private held: Project | undefined;
  readonly cache = new CastCache();

  /** The project with everything that is as it was in place of its copy. */
  sharing(project: Project): Project {
    this.held = sharing(this.held, project);
    return this.held;
  }
}

type Chosen = {
  values: ReturnType<typeof parsed<typeof OPTIONS>>['values'];
  formats: readonly Format[];
  jobs: number | undefined;
};

/** The fonts of a source as it stands now. While it is watched, files that would be the same stay as they are, and are not told. */
async function castOnce(source: string, { values, formats, jobs }: Chosen, before: Before | undefined): Promise<void> {
  const { files: all, notes } = await castSource(source, values, formats, {
    jobs,
    progress: progressOf('Casting'),
    ...(before && { cache: before.cache, sharing: (project) => before.sharing(project) }),
  });
  tellNotes(notes);
  const files = all.filter((f) => !values.watch || isOther(join(values.out!, f.fileName), f.bytes));
  write(files, values);
  if (values.json)
    tellFiles(
      files.map((file) => ({ file })),
      values.out!,
    );
  else tellNotes([...new Set(files.flatMap((f) => f.notes))]);
}

/** The fonts of several sources, side by side; a source that cannot be cast is named, and keeps no other from being cast. */
async function castMany(sources: readonly string[], { values, formats, jobs }: Chosen): Promise<void> {
  const owner = new Map<string, string>();
  const all: { source: string; file: MadeFile }[] = [];
  for await (const { source, ...made } of castSources(sources, { values, formats, jobs })) {
    if ('reason' in made) {
      process.stderr.write(`wendril: ${source}: ${made.reason}\n`);
      process.exitCode = 1;
      continue;
    }
    const twice = made.files.find((f) => owner.has(f.fileName));
    if (twice)
      throw new CliError(
        `${owner.get(twice.fileName)} and ${source} would both be written to ${join(values.out!, twice.fileName)}.`,
      );
    for (const file of made.files) {
      owner.set(file.fileName, source);
      all.push({ source, file });
    }
    write(made.files, values);
    const told = [...new Set([...made.notes, ...(values.json ? [] : made.files.flatMap((f) => f.notes))])];
    tellNotes(told.map((note) => `${source}: ${note}`));
  }
  if (values.json) tellFiles(all, values.out!);
}

function write(files: readonly MadeFile[], { out, json }: Chosen['values']): void {
  try {
    mkdirSync(out!, { recursive: true });
    for (const file of files) {
      const path = join(out!, file.fileName);
      put(path, file.bytes);
      if (!json) process.stdout.write(`${path}\n`);
    }
  } catch (error) {
    if (error instanceof CliError) throw error;
    throw new CliError(`The fonts cannot be written to ${out} (${(error as NodeJS.ErrnoException).code}).`);
  }
}

function tellFiles(files: readonly { source?: string; file: MadeFile }[], out: string): void {
  const told = files.map(({ source, file: { bytes, fileName, ...facts } }) => ({
    ...(source !== undefined && { source }),
    path: join(out, fileName),
    bytes: bytes.length,
    ...facts,
  }));
  process.stdout.write(`${JSON.stringify({ files: told }, undefined, 2)}\n`);
}
