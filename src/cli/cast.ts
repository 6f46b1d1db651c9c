import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { sharing } from '../core/base/sharing';
import { textOf } from '../core/base/text';
import { CastCache } from '../core/casting/cache';
import { allLists, thingsOfList } from '../core/casting/lists';
import { FORMATS, type Format, PLAIN_TERMS } from '../core/casting/outputs';
import { type CastThing, thingsOf } from '../core/casting/things';
import { EMBEDDING, type Embedding } from '../core/project/masterFacts';
import type { CastTerms, Project } from '../core/project/model';
import { numberOf, parsed, tellNotes } from './arguments';
import { castInJobs } from './castJobs';
import { CliError } from './problem';
import { progressOf } from './progress';
import { openInput, readFile } from './source';
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

type Values = ReturnType<typeof parsed<typeof OPTIONS>>['values'];
type Choice = { formats: Format[]; things: CastThing[]; terms: CastTerms };

/** What is cast and how: by a list of the project, or by what is asked for one by one; terms that are asked for are added to a list’s. */
function wanted(project: Project, values: Values, formats: Format[]): Choice {
  if (values.list === undefined)
    return { formats, things: thingsWanted(project, values), terms: { ...PLAIN_TERMS, ...termsOf(values) } };
  const lists = allLists(project);
  const list = lists.find((l) => l.name === values.list);
  if (!list)
    throw new CliError(`There is no casting list “${values.list}”; there are ${lists.map((l) => l.name).join(', ')}.`);
  const { gone, ...choice } = thingsOfList(project, list);
  tellNotes(gone.map((g) => `The list names ${g}, which is not in the project any more.`));
  return { ...choice, terms: { ...choice.terms, ...termsOf(values) } };
}

/** The terms that are asked for. */
function termsOf(values: Values): Partial<CastTerms> {
  const words = (list: string) =>
    list
      .split(',')
      .map((w) => w.trim())
      .filter(Boolean);
  const { glyphs: list, languages, embedding, lines } = values;
  return {
    ...(values['keep-overlaps'] && { keepOverlaps: true }),
    ...(values.blanks && { blanks: true }),
    ...((list !== undefined || languages !== undefined) && {
      glyphs: { ...(list !== undefined && { list }), ...(languages !== undefined && { languages: words(languages) }) },
    }),
    ...(values.without !== undefined && { without: words(values.without) }),
    ...(values.unhinted && { unhinted: true }),
    ...(values.symbol && { symbol: true }),
    ...(embedding !== undefined && { embedding: embeddingOf(embedding) }),
    ...(lines !== undefined && { lines: linesOf(words(lines)) }),
    ...(values['must-agree'] && { mustAgree: true }),
    ...(values.parts && { parts: true }),
  };
}

function embeddingOf(word: string): Embedding {
  const found = EMBEDDING.find((e) => e.value === word.toLowerCase());
  if (found) return found.value;
  throw new CliError(
    `--embedding “${word}” is not known; choose from ${EMBEDDING.map((e) => `${e.value} (${e.title.toLowerCase()})`).join(', ')}.`,
  );
}

function linesOf(words: readonly string[]): NonNullable<CastTerms['lines']> {
  const [ascender, descender, gap, ...more] = words.map((w) => numberOf('lines', w, -32768, 32767));
  if (ascender === undefined || descender === undefined || gap === undefined || more.length > 0 || gap < 0)
    throw new CliError('--lines takes ascender, descender and gap in font units: 950,-250,0.');
  return { ascender, descender, gap };
}

/** A project with the text that `--glyphs` names as a list of its own, where it is a file and no list. */
function withGlyphList(project: Project, name: string | undefined): Project {
  const lists = project.settings.lists ?? [];
  if (name === undefined || lists.some((l) => l.name === name)) return project;
  if (!existsSync(name)) {
    const known = lists.map((l) => l.name).join(', ');
    throw new CliError(
      `“${name}” is neither a list of the project nor a file${known === '' ? '' : `; its lists are ${known}`}.`,
    );
  }
  const { text, note } = textOf(readFile(name), name);
  if (note) tellNotes([note]);
  return { ...project, settings: { ...project.settings, lists: [...lists, { name, text }] } };
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

/** Is a file not there, or other than it would be? */
const isOther = (path: string, bytes: Uint8Array): boolean => !existsSync(path) || !readFileSync(path).equals(bytes);

/** `wendril cast`: writes one file per font and format into a folder, and their paths to standard output. */
export async function cast(args: readonly string[]): Promise<void> {
  const { values, positionals } = parsed(args, OPTIONS);
  const [source, ...more] = positionals;
  if (!source || more.length > 0) throw new CliError('cast takes one SOURCE; see wendril --help.');
  if (!values.out) throw new CliError('cast needs --out DIR, the folder for the font files.');
  const formats = values.format.split(',').map((f) => f.trim().toLowerCase());
  const unknown = formats.find((f) => !(FORMATS as readonly string[]).includes(f));
  if (unknown !== undefined) throw new CliError(`“${unknown}” is not a format; choose from ${FORMATS.join(', ')}.`);
  const jobs = values.jobs === undefined ? undefined : Math.round(numberOf('jobs', values.jobs, 1, 64));
  const before = values.watch ? new Before() : undefined;
  const work = () => castOnce(source, values, formats as Format[], jobs, before);
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

/** The fonts of a source as it stands now. While it is watched, files that would be the same stay as they are, and are not told. */
async function castOnce(
  source: string,
  values: Values,
  formats: Format[],
  jobs: number | undefined,
  before: Before | undefined,
): Promise<void> {
  const { project: opened, notes } = await openInput(source, { keep: false });
  tellNotes(notes);
  const project = withGlyphList(before?.sharing(opened) ?? opened, values.glyphs);
  const choice = wanted(project, values, formats);
  const result = await castInJobs(project, choice, {
    jobs,
    progress: progressOf('Casting'),
    ...(before && { cache: before.cache }),
  });
  if (!result.ok) throw new CliError(result.reason);
  const out = values.out!;
  const files = result.value.filter((f) => !values.watch || isOther(join(out, f.fileName), f.bytes));
  try {
    mkdirSync(out, { recursive: true });
    for (const file of files) {
      const path = join(out, file.fileName);
      put(path, file.bytes);
      if (!values.json) process.stdout.write(`${path}\n`);
    }
  } catch (error) {
    if (error instanceof CliError) throw error;
    throw new CliError(`The fonts cannot be written to ${out} (${(error as NodeJS.ErrnoException).code}).`);
  }
  if (values.json) {
    const told = files.map(({ bytes, fileName, ...facts }) => ({
      path: join(out, fileName),
      bytes: bytes.length,
      ...facts,
    }));
    process.stdout.write(`${JSON.stringify({ files: told }, undefined, 2)}\n`);
  } else tellNotes([...new Set(files.flatMap((f) => f.notes))]);
}
