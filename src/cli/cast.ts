import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { castOutputs, FORMATS, type Format } from '../core/casting/outputs';
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
} as const;

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
    formats: formats as Format[],
    masters: project.masters,
    keepOverlaps: values['keep-overlaps'],
    blanks: values.blanks,
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
