import { composed, withAnchors } from '../core/composing/compose';
import { coverageOf, needsOf } from '../core/coverage/coverage';
import { drawnCodes } from '../core/coverage/drawn';
import { loadLanguages } from '../core/coverage/languages';
import type { Project } from '../core/project/model';
import { defaultMaster } from '../core/project/queries';
import { endingOf, glyphsOf, parsed, SOURCES, tell, tellNotes, twoPaths } from './arguments';
import { write } from './convert';
import { languagesAsked, listRead } from './coverage';
import { CliError } from './problem';
import { openInput } from './source';

const OPTIONS = {
  languages: { type: 'string' },
  list: { type: 'string' },
  all: { type: 'boolean', default: false },
  glyphs: { type: 'string' },
  'anchors-only': { type: 'boolean', default: false },
  json: { type: 'boolean', default: false },
} as const;

/** `wendril compose`: letters put together from bases and marks, for languages, a list, or glyphs; or anchors alone. */
export async function compose(args: readonly string[]): Promise<void> {
  const { values, positionals } = parsed(args, OPTIONS);
  const [source, target] = twoPaths('compose', positionals);
  const kind = endingOf(target, SOURCES);
  const { project, notes } = await openInput(source);
  tellNotes(notes);
  if (values['anchors-only']) {
    const ids = values.glyphs === undefined ? [...project.glyphOrder] : glyphsOf(project, values.glyphs);
    const { project: next, changed } = withAnchors(project, ids);
    await write(target, kind, next, defaultMaster(next), {});
    tell(values.json, { target, anchors: changed }, `Anchors placed in ${changed} glyphs.\n${target}`);
    return;
  }
  const { all } = await loadLanguages();
  const languages = values.languages === undefined ? [] : languagesAsked({ all }, values.languages);
  const codes = wanted(project, values, languages);
  const { project: next, built, made, kept, notPossible } = composed(project, codes);
  const [before, after] = [drawnCodes(project), drawnCodes(next)];
  const complete = (have: ReadonlySet<number>) =>
    coverageOf(languages.length > 0 ? languages : all, (c) => have.has(c))
      .filter((c) => c.missing.length === 0)
      .map((c) => c.language.code);
  const report = {
    target,
    built,
    made,
    kept,
    notPossible: notPossible.map(({ name, why }) => ({ name, why })),
    languages: { before: complete(before), after: complete(after) },
  };
  await write(target, kind, next, defaultMaster(next), {});
  const reasons = [...new Set(notPossible.map((n) => n.why))];
  tell(
    values.json,
    report,
    [
      `${built.length} letters put together, ${made.length} marks and dotless letters made for them; ${kept.length} were drawn already.`,
      ...reasons.map(
        (why) =>
          `Not possible: ${notPossible
            .filter((n) => n.why === why)
            .map((n) => n.name)
            .join(', ')}. ${why}`,
      ),
      `Languages complete: ${report.languages.before.length} before, ${report.languages.after.length} now.`,
      target,
    ].join('\n'),
  );
}

type Values = ReturnType<typeof parsed<typeof OPTIONS>>['values'];

/** The characters asked for. */
function wanted(
  project: Project,
  { list, glyphs, all }: Values,
  languages: ReturnType<typeof languagesAsked>,
): readonly number[] {
  if (all) {
    // Every letter of Latin, Greek and Cyrillic that Unicode has composed.
    const out: number[] = [];
    for (let c = 0xc0; c < 0x2000; c++)
      if (/\p{L}/u.test(String.fromCodePoint(c)) && String.fromCodePoint(c).normalize('NFD').length > 1) out.push(c);
    return out;
  }
  const codes = new Set<number>(languages.flatMap((l) => needsOf(l).letters));
  if (list !== undefined) for (const c of listRead(list).codes) codes.add(c);
  if (glyphs !== undefined)
    for (const word of glyphs.split(',')) {
      const characters = [...word.trim()];
      const code =
        characters.length === 1
          ? characters[0]!.codePointAt(0)!
          : project.glyphs[glyphsOf(project, word)[0]!]!.unicodes[0];
      if (code === undefined) throw new CliError(`${word.trim()} has no code point, so no recipe.`);
      codes.add(code);
    }
  if (codes.size === 0)
    throw new CliError('Say what is to be put together: --languages, --list, --glyphs or --all; see wendril --help.');
  return [...codes];
}
