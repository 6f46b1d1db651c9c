import { mkdirSync, readFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import type { GlyphId, MasterId, Project } from '../core/project/model';
import { defaultMaster } from '../core/project/queries';
import type { AskedValues } from '../core/scripting/asked';
import { declarationText } from '../core/scripting/declarations';
import { type ScriptOutput, Session } from '../core/scripting/session';
import { SHIPPED } from '../core/scripting/shipped/shipped';
import { runScript, startInterpreter } from '../sandbox/sandbox';
import { printed } from '../workers/proofs/printed';
import { loadShaping } from '../workers/shaper';
import { endingOf, glyphsOf, numberOf, parsed, SOURCES, tell, tellNotes } from './arguments';
import { write } from './convert';
import { CliError } from './problem';
import { progressOf } from './progress';
import { openInput } from './source';
import { put } from './writing';

const OPTIONS = {
  glyphs: { type: 'string' },
  masters: { type: 'string' },
  set: { type: 'string', multiple: true },
  out: { type: 'string' },
  declarations: { type: 'boolean', default: false },
  'dry-run': { type: 'boolean', default: false },
  seconds: { type: 'string', default: '60' },
  megabytes: { type: 'string', default: '512' },
  json: { type: 'boolean', default: false },
} as const;

type Script = { name: string; text: string };

/** `wendril run`: scripts over a source, one after the other, in the same interpreter as in the app. */
export async function run(args: readonly string[]): Promise<void> {
  const { values, positionals } = parsed(args, OPTIONS);
  if (values.declarations) {
    process.stdout.write(declarationText());
    return;
  }
  const { scripts, source, target } = inOrder(positionals);
  const kind = target === undefined ? undefined : endingOf(target, SOURCES);
  const { project, notes } = await openInput(source);
  tellNotes(notes);
  const given = givenBy(values.set ?? []);
  const limits = {
    seconds: numberOf('seconds', values.seconds, 1, 3600),
    megabytes: numberOf('megabytes', values.megabytes, 16, 1024),
  };
  const asked = await askedBy(project, scripts);
  const unknown = Object.keys(given).filter((name) => !asked.some((names) => names.has(name)));
  if (unknown.length > 0)
    throw new CliError(
      `No script asks for ${unknown.join(', ')}; asked for is ${asked.flatMap((a) => [...a]).join(', ') || 'nothing'}.`,
    );
  let current = project;
  const told: { script: string; edits: number; outputs: readonly ScriptOutput[] }[] = [];
  for (const [i, { name, text }] of scripts.entries()) {
    const own = Object.fromEntries(Object.entries(given).filter(([k]) => asked[i]!.has(k)));
    const session = new Session(
      current,
      { chosen: chosenIn(current, values.glyphs), masters: mastersIn(current, values.masters), given: own },
      progressOf(name),
      /\bshape\b/.test(text) ? await loadShaping() : undefined,
    );
    const ended = runScript(await startInterpreter(), text, session, limits);
    if (!ended.ok)
      throw new CliError(`${name}${ended.line === undefined ? '' : `, line ${ended.line}`}: ${ended.reason}`);
    current = session.project;
    told.push({ script: name, edits: session.edits, outputs: await printed(session.outputs, project.created) });
  }
  const findings = told.flatMap((t) => t.outputs).filter((o) => o.kind === 'finding');
  const changed = changedIn(project, current);
  if (values.out !== undefined && !values['dry-run']) {
    mkdirSync(values.out, { recursive: true });
    for (const o of told.flatMap((t) => t.outputs))
      if (o.kind === 'file') put(join(values.out, basename(o.name)), o.bytes);
  }
  if (target !== undefined && !values['dry-run']) await write(target, kind!, current, defaultMaster(current), {});
  tell(
    values.json,
    { ...(target !== undefined && { target }), dryRun: values['dry-run'], changed, scripts: told.map(plainly) },
    [
      ...told.flatMap((t) => [...(told.length > 1 ? [`${t.script}:`] : []), ...t.outputs.map((o) => said(current, o))]),
      changed.length === 0
        ? 'No glyph was changed.'
        : `${changed.length === 1 ? 'One glyph was' : `${changed.length} glyphs were`} changed: ${changed.slice(0, 12).join(' ')}${changed.length > 12 ? ' …' : ''}`,
      ...(target !== undefined && !values['dry-run'] ? [target] : []),
    ].join('\n'),
  );
  // What a script found stops a build.
  if (findings.length > 0) process.exitCode = 1;
}

/** The names of what each script asks for. */
async function askedBy(project: Project, scripts: readonly Script[]): Promise<ReadonlySet<string>[]> {
  const all: ReadonlySet<string>[] = [];
  for (const { text } of scripts) {
    const terms = { chosen: project.glyphOrder, masters: project.masters.map((m) => m.id), given: {}, onlyAsk: true };
    const session = new Session(project, terms);
    runScript(await startInterpreter(), text, session, { seconds: 3, megabytes: 256 });
    all.push(new Set(Object.keys(session.asked ?? {})));
  }
  return all;
}

/** Scripts by file or by the key of one that comes with Wendril, then the source, then the target. */
function inOrder(words: readonly string[]): { scripts: Script[]; source: string; target: string | undefined } {
  const isScript = (w: string) => /\.js$/.test(w) || SHIPPED.some((s) => s.key === w);
  const count = words.findIndex((w) => !isScript(w));
  const [source, target, ...more] = words.slice(count < 0 ? words.length : count);
  if (count < 1 || source === undefined || more.length > 0)
    throw new CliError(
      `run takes scripts, a source and where the result goes; scripts are files (.js) or ${SHIPPED.map((s) => s.key).join(', ')}.`,
    );
  return { scripts: words.slice(0, count).map(scriptOf), source, target };
}

function scriptOf(word: string): Script {
  const known = SHIPPED.find((s) => s.key === word);
  if (known) return { name: known.title, text: known.text };
  try {
    return { name: basename(word), text: readFileSync(word, 'utf8') };
  } catch {
    throw new CliError(`The script ${word} cannot be read.`);
  }
}

/** `name=value` pairs. */
function givenBy(pairs: readonly string[]): AskedValues {
  return Object.fromEntries(
    pairs.map((pair) => {
      const at = pair.indexOf('=');
      if (at < 1) throw new CliError(`--set is name=value, not “${pair}”.`);
      return [pair.slice(0, at), pair.slice(at + 1)];
    }),
  );
}

const chosenIn = (project: Project, wanted: string | undefined): GlyphId[] =>
  wanted === undefined ? [...project.glyphOrder] : glyphsOf(project, wanted);

function mastersIn(project: Project, wanted: string | undefined): MasterId[] {
  if (wanted === undefined) return project.masters.map((m) => m.id);
  return wanted.split(',').map((name) => {
    const found = project.masters.find((m) => m.name === name.trim());
    if (found) return found.id;
    throw new CliError(`There is no master “${name}”; there are ${project.masters.map((m) => m.name).join(', ')}.`);
  });
}

/** Names of glyphs that are new or other than before, and of those that are gone. */
const changedIn = (before: Project, after: Project): string[] => [
  ...after.glyphOrder.filter((id) => before.glyphs[id] !== after.glyphs[id]).map((id) => after.glyphs[id]!.name),
  ...before.glyphOrder.filter((id) => !after.glyphs[id]).map((id) => before.glyphs[id]!.name),
];

/** Reports as JSON has them: a file by its name and size. */
const plainly = ({ outputs, ...t }: { script: string; edits: number; outputs: readonly ScriptOutput[] }) => ({
  ...t,
  outputs: outputs.map((o) => (o.kind === 'file' ? { ...o, bytes: o.bytes.length } : o)),
});

/** A report as lines of text. */
function said(project: Project, o: ScriptOutput): string {
  const name = (id: GlyphId) => project.glyphs[id]?.name ?? id;
  switch (o.kind) {
    case 'text':
      return o.text;
    case 'table':
      return [o.head, ...o.rows].map((row) => row.map((c) => c ?? '').join('\t')).join('\n');
    case 'chart':
      return [
        o.title,
        ...o.labels.map((label, i) => [label, ...o.series.map((s) => `${s.name} ${s.values[i] ?? ''}`)].join('\t')),
      ].join('\n');
    case 'glyphs':
      return `${o.caption}: ${o.glyphs.map(name).join(' ')}`;
    case 'file':
      return `${o.name}, ${o.bytes.length} bytes`;
    case 'finding':
      return `✕ ${o.glyph === undefined ? '' : `${name(o.glyph)}: `}${o.sentence}`;
  }
}
