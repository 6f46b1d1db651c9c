import '../core/allEdits';
import { statSync } from 'node:fs';
import { version } from '../../package.json';
import { loadLanguages } from '../core/coverage/languages';
import { isFont } from '../core/formats/openFile';
import { fileFindings } from '../core/preflight/files';
import { FAMILIES, type Family, type Finding } from '../core/preflight/finding';
import { parted } from '../core/preflight/judged';
import { kindOf } from '../core/preflight/kinds';
import { mendMany } from '../core/preflight/mendEdits';
import { Preflight } from '../core/preflight/preflight';
import { placeInText, sarifOf, type Told, told } from '../core/preflight/report';
import { plural } from '../core/project/edit';
import type { GlyphId, Project } from '../core/project/model';
import { defaultMaster } from '../core/project/queries';
import { endingOf, oneOf, parsed, SOURCES, tellNotes } from './arguments';
import { write } from './convert';
import { CliError } from './problem';
import { openInput, readFile } from './source';

const OPTIONS = {
  json: { type: 'boolean', default: false },
  sarif: { type: 'boolean', default: false },
  'fail-on': { type: 'string', default: 'error' },
  only: { type: 'string' },
  accepted: { type: 'boolean', default: false },
  mend: { type: 'boolean', default: false },
  out: { type: 'string' },
} as const;

type Checked = { file: string; project: Project; findings: readonly Finding[]; accepted: number };

/** `wendril check`: what is wrong with sources or fonts, with the place of each; mended, where a machine can, into another source. */
export async function check(args: readonly string[]): Promise<void> {
  const { values, positionals } = parsed(args, OPTIONS);
  if (positionals.length === 0)
    throw new CliError('check takes one or more SOURCEs or FONTs; see wendril check --help.');
  const failOn = oneOf('fail-on', values['fail-on']!, ['error', 'warning', 'note', 'never']);
  const only = familiesOf(values.only);
  if (values.mend && values.out === undefined)
    throw new CliError('check --mend needs --out TARGET: the source itself stays as it is.');
  if (!values.mend && values.out !== undefined)
    throw new CliError('check --out is where --mend writes; nothing is written without it.');
  if (values.mend && positionals.length > 1) throw new CliError('check --mend takes one SOURCE.');
  // A wrong target is told before the work, not after it.
  const kind = values.out === undefined ? undefined : endingOf(values.out, SOURCES);
  const preflight = new Preflight((await loadLanguages()).all);
  const done: { file: string; findings: readonly Told[] }[] = [];
  let failed = false;
  for (const file of positionals) {
    try {
      let checked = await checkedFile(file, preflight, only, values.accepted);
      if (values.mend) checked = mended(checked, preflight, only);
      if (values.out !== undefined && kind)
        await write(values.out, kind, checked.project, defaultMaster(checked.project), {});
      const findings = checked.findings.map((f) => told(checked.project, f));
      done.push({ file, findings });
      if (!values.json && !values.sarif) tellFile(checked, findings);
    } catch (error) {
      if (!(error instanceof CliError) || positionals.length === 1) throw error;
      // One file that cannot be read does not keep the others from being looked at.
      process.stderr.write(`wendril: ${error.message}\n`);
      failed = true;
    }
  }
  if (values.json) process.stdout.write(`${JSON.stringify(done)}\n`);
  if (values.sarif) process.stdout.write(`${JSON.stringify(sarifOf(done, version), null, 2)}\n`);
  const limits = {
    error: ['error'],
    warning: ['error', 'warning'],
    note: ['error', 'warning', 'note'],
    never: [] as string[],
  };
  if (failed || done.some((d) => d.findings.some((t) => limits[failOn].includes(t.level)))) process.exitCode = 1;
}

function familiesOf(text: string | undefined): ReadonlySet<Family> | undefined {
  if (text === undefined) return undefined;
  const all = Object.keys(FAMILIES) as Family[];
  return new Set(text.split(',').map((word) => oneOf('only', word.trim(), all)));
}

const ofFamilies = (findings: readonly Finding[], only: ReadonlySet<Family> | undefined): readonly Finding[] =>
  only ? findings.filter((f) => only.has(kindOf(f.kind)!.family)) : findings;

async function checkedFile(
  file: string,
  preflight: Preflight,
  only: ReadonlySet<Family> | undefined,
  all: boolean,
): Promise<Checked> {
  const { project, notes } = await openInput(file);
  tellNotes(notes);
  const bytes = statSync(file).isDirectory() ? undefined : readFile(file);
  const own = bytes && isFont(bytes) ? fileFindings(bytes) : [];
  const { standing, accepted } = parted(project, preflight.check(project));
  const findings = ofFamilies([...own, ...standing, ...(all ? accepted : [])], only);
  return { file, project, findings, accepted: all ? 0 : ofFamilies(accepted, only).length };
}

/** The project with all mended that a machine can, and what is left. */
function mended(checked: Checked, preflight: Preflight, only: ReadonlySet<Family> | undefined): Checked {
  const again = (p: Project, kind: string, glyph: GlyphId | undefined): readonly Finding[] => {
    const own = (glyph === undefined ? preflight.check(p) : preflight.glyphFindings(p, glyph, kind)).filter(
      (f) => f.kind === kind && f.glyph === glyph,
    );
    return own.length > 0 || glyph === undefined
      ? own
      : preflight.check(p).filter((f) => f.kind === kind && f.glyph === glyph);
  };
  const done = mendMany(checked.project, checked.findings, again);
  process.stderr.write(`wendril: mended ${plural(done.mended, 'finding')}.\n`);
  const { standing } = parted(done.project, preflight.check(done.project));
  return { ...checked, project: done.project, findings: ofFamilies(standing, only) };
}

function tellFile({ file, project, accepted }: Checked, findings: readonly Told[]): void {
  const counts = ['error', 'warning', 'note'].map(
    (level) => [level, findings.filter((t) => t.level === level).length] as const,
  );
  const said = counts.filter(([, n]) => n > 0).map(([level, n]) => plural(n, level));
  process.stdout.write(
    `${file}: ${said.length > 0 ? said.join(', ') : 'nothing found'}${accepted > 0 ? ` (${accepted} accepted)` : ''}\n`,
  );
  for (const t of findings) {
    const place = placeInText(t, project.masters.length);
    process.stdout.write(`  ${t.level}  ${place ? `${place}: ` : ''}${t.reason}  [${t.kind}]\n`);
  }
}
