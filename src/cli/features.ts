import { carriesSubstitutions, rulesFromFont } from '../core/features/adopt';
import { projectGround, sectionTexts, wholeText } from '../core/features/ground';
import { lineAndColumn } from '../core/features/sections';
import { featuresView } from '../core/features/view';
import type { Project } from '../core/project/model';
import { defaultMaster } from '../core/project/queries';
import { parsed, tell, tellNotes } from './arguments';
import { CliError } from './problem';
import { openInput } from './source';
import { put } from './writing';

const OPTIONS = {
  write: { type: 'string' },
  check: { type: 'boolean', default: false },
  json: { type: 'boolean', default: false },
} as const;

/** The substitutions that a font brought as rules too; where they cannot be, that is told, and they are left as they are. */
function asRules(project: Project): Project {
  if (!carriesSubstitutions(project)) return project;
  const made = rulesFromFont(project, {});
  if (made.ok) return made.project;
  tellNotes([made.reason]);
  return project;
}

/** `wendril features`: the sections of rules of a source, what is wrong in them, the text as other tools read it. */
export async function features(args: readonly string[]): Promise<void> {
  const { values, positionals } = parsed(args, OPTIONS);
  const [source] = positionals;
  if (source === undefined || positionals.length > 1)
    throw new CliError('features takes one SOURCE; see wendril features --help.');
  const { project: read, notes } = await openInput(source);
  tellNotes(notes);
  const project = asRules(read);
  const master = defaultMaster(project).id;
  const view = featuresView(project, master);
  const sections = view.sections.map((s, i) => ({
    title: project.features.sections[i]!.title,
    automatic: project.features.sections[i]!.automatic !== undefined,
    features: s.tags,
    says: s.words,
    problems: s.faults.map((f) => ({ ...lineAndColumn(s.text, f.from), severity: f.severity, reason: f.reason })),
  }));
  if (values.write !== undefined) {
    const text = wholeText(sectionTexts(project.features.sections, projectGround(project, master)));
    put(values.write, new TextEncoder().encode(`${text}\n`));
  }
  const problems = sections.flatMap((s) => s.problems.map((p) => ({ section: s.title, ...p })));
  const lines = values.check
    ? problems.map((p) => `${p.section}, line ${p.line}, column ${p.column}: ${p.reason}`)
    : sections.flatMap((s) => [
        `${s.title} (${s.features.join(', ') || 'no feature'}; ${s.automatic ? 'writes itself' : 'by hand'}): ${s.says}`,
        ...s.problems.map((p) => `  line ${p.line}, column ${p.column}: ${p.reason}`),
      ]);
  const offered = view.offered.map((o) => o.tag);
  const questions = [...view.questions, ...view.sections.flatMap((s) => s.questions)].map((q) => q.reason);
  if (!values.check) lines.push(...questions.map((q) => `? ${q}`));
  if (!values.check && offered.length > 0) lines.push(`Names of glyphs call for ${offered.join(', ')} too.`);
  if (values.check && problems.length === 0) lines.push('No fault in the rules.');
  tell(
    values.json,
    { source, sections, questions, offered, ...(values.write !== undefined && { written: values.write }) },
    lines.join('\n') || 'No rules.',
  );
  if (problems.some((p) => p.severity === 'error')) process.exitCode = 1;
}
