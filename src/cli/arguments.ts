import { extname } from 'node:path';
import { type ParseArgsConfig, parseArgs } from 'node:util';
import { glyphTyped } from '../core/project/findGlyphs';
import type { GlyphId, Project } from '../core/project/model';
import { nearestWord } from './commands';
import { CliError } from './problem';

type Options = NonNullable<ParseArgsConfig['options']>;

/** Options and the words between them; what is not understood is one sentence, with the nearest option there is. */
export function parsed<const O extends Options>(args: readonly string[], options: O) {
  const { tokens } = parseArgs({ args: [...args], allowPositionals: true, options, strict: false, tokens: true });
  const given = tokens.filter((token) => token.kind === 'option');
  const unknown = given.find((token) => !options[token.name]);
  if (unknown) {
    const near = nearestWord(unknown.name, Object.keys(options));
    throw new CliError(`There is no option ${unknown.rawName}${near ? `; did you mean --${near}?` : '.'}`);
  }
  for (const token of given) {
    const facts = options[token.name]!;
    if (facts.type === 'string' && token.value === undefined) throw new CliError(`--${token.name} needs a value.`);
    if (facts.type === 'boolean' && token.value !== undefined) throw new CliError(`--${token.name} takes no value.`);
  }
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

/** Glyphs by name or character, separated by commas; those that there are not are all named. */
export function glyphsOf(project: Project, wanted: string): GlyphId[] {
  const words = wanted.split(',').map((word) => word.trim());
  const found = words.map((name) => glyphTyped(project, name));
  const missing = words.filter((_, i) => !found[i]);
  if (missing.length > 0)
    throw new CliError(
      missing.length === 1
        ? `There is no glyph “${missing[0]}”.`
        : `There are no glyphs ${missing.map((m) => `“${m}”`).join(', ')}.`,
    );
  return found.map((g) => g!.id);
}

/** What a reader had to say, on standard error. */
export const tellNotes = (notes: readonly string[]): void => {
  for (const note of notes) process.stderr.write(`wendril: ${note}\n`);
};

/** The result: one JSON value, or text. */
export const tell = (json: boolean | undefined, value: unknown, text: string): void => {
  process.stdout.write(json ? `${JSON.stringify(value)}\n` : `${text}\n`);
};
