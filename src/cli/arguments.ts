import { extname } from 'node:path';
import { type ParseArgsConfig, parseArgs } from 'node:util';
import type { GlyphId, Project } from '../core/project/model';
import { glyphForCodePoint, glyphNamed } from '../core/project/queries';
import { CliError } from './problem';

type Options = NonNullable<ParseArgsConfig['options']>;

/** Options and the words between them; what is not understood is one sentence. */
export function parsed<const O extends Options>(args: readonly string[], options: O) {
  try {
    return parseArgs({ args: [...args], allowPositionals: true, options });
  } catch (error) {
    throw new CliError((error as Error).message.split('\n')[0]!);
  }
}

/** The one SOURCE and TARGET that a command takes. */
export function twoPaths(
  command: string,
  [first, second, ...more]: readonly string[],
  names = 'SOURCE and TARGET',
): readonly [string, string] {
  if (!first || !second || more.length > 0) throw new CliError(`${command} takes ${names}; see wendril --help.`);
  return [first, second];
}

/** What a path's ending asks to be written, if it is one of some kinds. */
export function endingOf(path: string, kinds: readonly string[]): string {
  const kind = extname(path.replace(/[/\\]+$/, '')).toLowerCase();
  if (!kinds.includes(kind))
    throw new CliError(`“${path}” has no ending that tells what to write; choose from ${kinds.join(' ')}.`);
  return kind;
}

/** Endings of sources that hold a project. */
export const SOURCES = ['.ufo', '.ufoz', '.designspace', '.wendril'] as const;

/** A number within bounds. */
export function numberOf(key: string, text: string, least = -Infinity, most = Infinity): number {
  const v = Number(text);
  if (text.trim() === '' || !Number.isFinite(v)) throw new CliError(`--${key} “${text}” is not a number.`);
  if (v < least || v > most)
    throw new CliError(
      `--${key} is a number ${most === Infinity ? `of ${least} or more` : `from ${least} to ${most}`}.`,
    );
  return v;
}

/** A word among some. */
export function oneOf<T extends string>(key: string, text: string, among: readonly T[]): T {
  const found = among.find((v) => v === text);
  if (!found) throw new CliError(`--${key} is one of ${among.join(', ')}.`);
  return found;
}

/** Glyphs by name or character, separated by commas. */
export function glyphsOf(project: Project, wanted: string): GlyphId[] {
  return wanted.split(',').map((word) => {
    const name = word.trim();
    const glyph =
      glyphNamed(project, name) ??
      ([...name].length === 1 ? glyphForCodePoint(project, name.codePointAt(0)!) : undefined);
    if (!glyph) throw new CliError(`There is no glyph “${name}”.`);
    return glyph.id;
  });
}

/** What a reader had to say, on standard error. */
export const tellNotes = (notes: readonly string[]): void => {
  for (const note of notes) process.stderr.write(`wendril: ${note}\n`);
};

/** The result: one JSON value, or text. */
export const tell = (json: boolean | undefined, value: unknown, text: string): void => {
  process.stdout.write(json ? `${JSON.stringify(value)}\n` : `${text}\n`);
};
