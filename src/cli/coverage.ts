import { basename } from 'node:path';
import { attempt } from '../core/base/result';
import { textOf } from '../core/base/text';
import { recipeOf } from '../core/composing/recipes';
import {
  begunScripts,
  type Coverage,
  coverageOf,
  coverageSentence,
  nextSteps,
  peopleOf,
} from '../core/coverage/coverage';
import { drawnCodes } from '../core/coverage/drawn';
import { type Language, type Languages, loadLanguages } from '../core/coverage/languages';
import { readList } from '../core/coverage/lists';
import { isFont, unpackedFont } from '../core/formats/openFile';
import { cmap } from '../core/opentype/cmap';
import { readSfnt, tableOf } from '../core/opentype/sfnt';
import { parsed, tell } from './arguments';
import { nearestWord } from './commands';
import { CliError } from './problem';
import { openInput, readFile } from './source';

const OPTIONS = {
  languages: { type: 'string' },
  list: { type: 'string' },
  json: { type: 'boolean', default: false },
} as const;

/** `wendril coverage`: what languages, or a list of one's own, lack in sources and font files. */
export async function coverage(args: readonly string[]): Promise<void> {
  const { values, positionals } = parsed(args, OPTIONS);
  if (positionals.length === 0) throw new CliError('coverage takes one or more SOURCEs; see wendril --help.');
  const languages = await loadLanguages();
  const asked = values.languages === undefined ? undefined : languagesAsked(languages, values.languages);
  const list = values.list === undefined ? undefined : listRead(values.list);
  for (const file of positionals) {
    const have = await codesOf(file);
    if (list) {
      const missing = list.codes.filter((c) => !have.has(c));
      const text = missing.map((c) => String.fromCodePoint(c)).join(' ');
      tell(
        values.json,
        { file, list: values.list, wanted: list.codes.length, missing },
        `${file}: ${list.codes.length - missing.length} of ${list.codes.length}${missing.length > 0 ? `, missing ${text}` : ''}`,
      );
      if (!asked) continue;
    }
    const found = coverageOf(asked ?? languages.all, (c) => have.has(c));
    if (values.json) tell(true, { file, languages: found.map(facts), next: next(found, have) }, '');
    else tell(false, undefined, report(file, found, have, asked !== undefined));
  }
}

/** Languages by code or name, with commas between. */
export function languagesAsked({ all }: Pick<Languages, 'all'>, text: string): Language[] {
  return text.split(',').map((word) => {
    const wanted = word.trim().toLowerCase();
    const found = all.find((l) => l.code.toLowerCase() === wanted || l.name.toLowerCase() === wanted);
    if (found) return found;
    const near = nearestWord(
      wanted,
      all.flatMap((l) => [l.code, l.name]),
    );
    throw new CliError(`There is no language “${word.trim()}”${near ? `; did you mean ${near}?` : '.'}`);
  });
}

/** A list from a text file; lines that cannot be read are told. */
export function listRead(file: string) {
  const { text, note } = textOf(readFile(file), basename(file));
  if (note) process.stderr.write(`wendril: ${note}\n`);
  const list = readList(text);
  for (const { line, reason } of list.faults)
    process.stderr.write(`wendril: ${basename(file)}, line ${line}: ${reason}\n`);
  if (list.codes.length === 0) throw new CliError(`${file} names no character.`);
  return list;
}

/** The code points of a source or a font file; of a source those that are drawn in all masters. */
async function codesOf(file: string): Promise<ReadonlySet<number>> {
  if (!/\.(ufo|ufoz|designspace|wendril|svg)\/?$/i.test(file)) {
    const bytes = readFile(file);
    if (isFont(bytes)) {
      const unpacked = await unpackedFont(bytes, file);
      if (!unpacked.ok) throw new CliError(unpacked.reason);
      const read = attempt(() => {
        const font = readSfnt(unpacked.value.bytes, unpacked.value.faces[0]!);
        return cmap.read(tableOf(font, 'cmap'));
      });
      if (!read.ok) throw new CliError(`${file}: ${read.reason}`);
      return new Set([...read.value].filter(([, glyph]) => glyph !== 0).map(([code]) => code));
    }
  }
  return drawnCodes((await openInput(file, { keep: false })).project);
}

const facts = ({ language, missing, unpunctuated }: Coverage) => ({
  code: language.code,
  name: language.name,
  script: language.script,
  readers: language.readers,
  complete: missing.length === 0,
  missing,
  punctuation: unpunctuated,
});

/** Steps in scripts that are begun. */
function next(found: readonly Coverage[], have: ReadonlySet<number>) {
  // A letter whose base and marks are there can be put together.
  const canCompose = (code: number) => {
    const recipe = recipeOf(code);
    return recipe !== undefined && have.has(recipe.base) && recipe.marks.every((m) => have.has(m.mark));
  };
  return nextSteps(found, canCompose, { onlyScripts: begunScripts(found) }).map((s) => ({
    codes: s.codes,
    languages: s.languages.map((l) => l.code),
    readers: s.readers,
  }));
}

function report(file: string, found: readonly Coverage[], have: ReadonlySet<number>, each: boolean): string {
  if (each) return [`${file}:`, ...found.map((c) => `  ${coverageSentence(c)}`)].join('\n');
  const complete = found.filter((c) => c.missing.length === 0);
  const readers = complete.reduce((sum, c) => sum + c.language.readers, 0);
  const lines = [
    `${file}: ${complete.length} languages complete, read by ${peopleOf(readers)}`,
    ...(complete.length > 0 ? [`  ${complete.map((c) => c.language.name).join(', ')}`] : []),
  ];
  for (const { codes, languages, readers: gained } of next(found, have)) {
    const names = languages.map((code) => found.find((c) => c.language.code === code)!.language.name);
    lines.push(
      `  Next: ${codes.map((c) => String.fromCodePoint(c)).join(' ')}: ${names.slice(0, 5).join(', ')}${names.length > 5 ? ` and ${names.length - 5} more` : ''}, ${peopleOf(gained)}`,
    );
  }
  return lines.join('\n');
}
