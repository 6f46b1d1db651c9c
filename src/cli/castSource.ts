import { existsSync } from 'node:fs';
import { textOf } from '../core/base/text';
import type { CastCache } from '../core/casting/cache';
import { allLists, thingsOfList } from '../core/casting/lists';
import { type Format, PLAIN_TERMS } from '../core/casting/outputs';
import { type CastThing, thingsOf } from '../core/casting/things';
import { EMBEDDING, type Embedding } from '../core/project/masterFacts';
import type { CastTerms, Project } from '../core/project/model';
import { numberOf } from './arguments';
import { castInJobs, type MadeFile } from './castJobs';
import { CliError } from './problem';
import { openInput, readFile } from './source';

/** What is asked for of the fonts of a source, by the names of the options. */
export type CastValues = {
  masters?: string | undefined;
  instances?: string | undefined;
  variable: boolean;
  list?: string | undefined;
  'keep-overlaps'?: boolean | undefined;
  blanks?: boolean | undefined;
  glyphs?: string | undefined;
  languages?: string | undefined;
  without?: string | undefined;
  unhinted?: boolean | undefined;
  symbol?: boolean | undefined;
  embedding?: string | undefined;
  lines?: string | undefined;
  'must-agree'?: boolean | undefined;
  parts?: boolean | undefined;
};

type Values = CastValues;
type Choice = { formats: Format[]; things: CastThing[]; terms: CastTerms };
type Told = string[];

/** How a source is cast: in how many threads, with what is kept of the time before. */
export type HowSource = {
  jobs: number | undefined;
  progress: (done: number, total: number) => void;
  cache?: CastCache;
  /** Puts what is known in place of its copies. */
  sharing?: (project: Project) => Project;
};

/** The fonts of one source, and what is to be told of them; what is wrong is thrown in a sentence. */
export async function castSource(
  source: string,
  values: CastValues,
  formats: readonly Format[],
  { sharing, ...how }: HowSource,
): Promise<{ files: MadeFile[]; notes: string[] }> {
  const { project: opened, notes } = await openInput(source, { keep: false });
  const told: Told = [...notes];
  const project = withGlyphList(sharing?.(opened) ?? opened, values.glyphs, told);
  const choice = wanted(project, values, [...formats], told);
  const result = await castInJobs(project, choice, how);
  if (!result.ok) throw new CliError(result.reason);
  return { files: result.value, notes: told };
}

/** What is cast and how: by a list of the project, or by what is asked for one by one; terms that are asked for are added to a list’s. */
function wanted(project: Project, values: Values, formats: Format[], told: Told): Choice {
  if (values.list === undefined)
    return { formats, things: thingsWanted(project, values), terms: { ...PLAIN_TERMS, ...termsOf(values) } };
  const lists = allLists(project);
  const list = lists.find((l) => l.name === values.list);
  if (!list)
    throw new CliError(`There is no casting list “${values.list}”; there are ${lists.map((l) => l.name).join(', ')}.`);
  const { gone, ...choice } = thingsOfList(project, list);
  told.push(...gone.map((g) => `The list names ${g}, which is not in the project any more.`));
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
function withGlyphList(project: Project, name: string | undefined, told: Told): Project {
  const lists = project.settings.lists ?? [];
  if (name === undefined || lists.some((l) => l.name === name)) return project;
  if (!existsSync(name)) {
    const known = lists.map((l) => l.name).join(', ');
    throw new CliError(
      `“${name}” is neither a list of the project nor a file${known === '' ? '' : `; its lists are ${known}`}.`,
    );
  }
  const { text, note } = textOf(readFile(name), name);
  if (note) told.push(note);
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
