import { extname } from 'node:path';
import { parseArgs } from 'node:util';
import { type StrokeKind, type StrokeWork, workStrokesOfGlyphs } from '../core/drawing/strokes';
import { ORIGINS, type Origin, type TransformBy, transformGlyphs } from '../core/drawing/transform';
import { CAPS, JOINS } from '../core/geometry/stroke';
import type { Outcome } from '../core/project/edit';
import type { GlyphId, MasterId, Project } from '../core/project/model';
import { defaultMaster } from '../core/project/queries';
import { TIDY, TIDY_NAMES, type TidyName, type TidyOperation, tidyProposal, withProposals } from '../core/tidying/operations';
import { write } from './convert';
import { CliError } from './problem';
import { openInput } from './source';
import { glyphsOf as named } from './spacing';

const OPTIONS = {
  glyphs: { type: 'string' },
  master: { type: 'string' },
  amount: { type: 'string' },
  x: { type: 'string' },
  y: { type: 'string' },
  angle: { type: 'string' },
  origin: { type: 'string', default: 'zero' },
  join: { type: 'string', default: 'round' },
  cap: { type: 'string', default: 'round' },
  wall: { type: 'string', default: '30' },
  radius: { type: 'string', default: '0' },
  reversed: { type: 'boolean', default: false },
  json: { type: 'boolean', default: false },
} as const;

const TRANSFORMS = ['move', 'scale', 'rotate', 'slant', 'flip'] as const;
const EDGES = ['stroke', 'grow', 'hollow', 'frame'] as const satisfies readonly StrokeKind[];
type Transform = (typeof TRANSFORMS)[number];
const KINDS = ['.ufo', '.ufoz', '.designspace', '.wendril'];

/** `wendril apply`: one operation on many glyphs of a source, written as another source. */
export async function apply(args: readonly string[]): Promise<void> {
  const { values, positionals } = options(args);
  const [operation, source, target, ...more] = positionals;
  if (!operation || !source || !target || more.length > 0) throw new CliError('apply takes OPERATION, SOURCE and TARGET; see wendril --help.');
  const names: readonly string[] = [...TIDY_NAMES, ...TRANSFORMS, ...EDGES];
  if (!names.includes(operation)) throw new CliError(`“${operation}” is no operation; choose from ${names.join(', ')}.`);
  const kind = extname(target.replace(/[/\\]+$/, '')).toLowerCase();
  if (!KINDS.includes(kind)) throw new CliError(`“${target}” has no ending that tells what to write; choose from ${KINDS.join(' ')}.`);
  const { project, notes } = await openInput(source);
  for (const note of notes) process.stderr.write(`wendril: ${note}\n`);
  const masters = mastersOf(project, values.master);
  const glyphs = glyphsOf(project, values.glyphs);
  const { outcome, report } = TIDY_NAMES.includes(operation as TidyName)
    ? tidied(project, operation as TidyName, glyphs, masters, values.amount)
    : { outcome: otherwise(project, operation as Transform | StrokeKind, glyphs, masters, values), report: [] };
  if (outcome && !outcome.ok) throw new CliError(outcome.reason);
  const result = outcome ? outcome.project : project;
  await write(target, kind, result, defaultMaster(result), {});
  const sentence = outcome ? outcome.sentence : 'Nothing needed to be changed';
  if (values.json) process.stdout.write(`${JSON.stringify({ target, operation, sentence, glyphs: report })}\n`);
  else process.stdout.write(`${sentence}.\n${target}\n`);
}

function options(args: readonly string[]) {
  try {
    return parseArgs({ args: [...args], allowPositionals: true, options: OPTIONS });
  } catch (error) {
    throw new CliError((error as Error).message.split('\n')[0]!);
  }
}

function mastersOf(project: Project, wanted: string | undefined): MasterId[] {
  if (wanted === undefined) return project.masters.map((m) => m.id);
  const found = project.masters.find((m) => m.name === wanted || m.id === wanted);
  if (!found) throw new CliError(`There is no master “${wanted}”; there are ${project.masters.map((m) => m.name).join(', ')}.`);
  return [found.id];
}

const glyphsOf = (project: Project, wanted: string | undefined): GlyphId[] => (wanted === undefined ? [...project.glyphOrder] : named(project, wanted));

/** What one glyph came to, as `--json` tells it. */
type Report = { glyph: string; before: number; after: number; deviation: number };

function tidied(
  project: Project,
  name: TidyName,
  glyphs: readonly GlyphId[],
  masters: readonly MasterId[],
  typed: string | undefined,
): { outcome: Outcome | undefined; report: Report[] } {
  const { option } = TIDY[name] as TidyOperation;
  if (typed !== undefined && !option) throw new CliError(`${name} takes no --amount.`);
  const amount = typed === undefined ? undefined : number('amount', typed);
  if (option && amount !== undefined && (amount < option.least || amount > option.most))
    throw new CliError(`--amount is ${option.least} to ${option.most} ${option.unit} for ${name}.`);
  const proposals = glyphs.flatMap((id) => tidyProposal(project, project.glyphs[id]!, masters, name, amount) ?? []);
  const apart = proposals.filter((p) => p.apart).length;
  if (apart > 0) process.stderr.write(`wendril: in ${apart === 1 ? 'one glyph' : `${apart} glyphs`} the masters do not agree; each was tidied by itself.\n`);
  const report = proposals.map((p) => ({ glyph: project.glyphs[p.glyph]!.name, before: p.before, after: p.after, deviation: Math.round(p.deviation * 1000) / 1000 }));
  return { outcome: proposals.length > 0 ? withProposals(project, name, proposals) : undefined, report };
}

/** Transforms, and work on the edges. */
function otherwise(
  project: Project,
  name: Transform | StrokeKind,
  glyphs: readonly GlyphId[],
  masters: readonly MasterId[],
  values: ReturnType<typeof options>['values'],
): Outcome {
  const edge = EDGES.find((e) => e === name);
  return edge ? workStrokesOfGlyphs(project, { glyphs, masters, work: edgeWork(edge, values) }) : transformed(project, name as Transform, glyphs, masters, values);
}

function edgeWork(kind: StrokeKind, values: ReturnType<typeof options>['values']): StrokeWork {
  const join = chosen('join', values.join, JOINS);
  const amount = number('amount', values.amount ?? needed('amount', kind));
  if (kind === 'stroke') return { kind, width: amount, join, cap: chosen('cap', values.cap, CAPS) };
  if (kind === 'grow') return { kind, by: amount, join };
  if (kind === 'hollow') return { kind, wall: amount, join };
  return { kind, margin: amount, wall: number('wall', values.wall), radius: number('radius', values.radius), reversed: values.reversed };
}

function chosen<T extends string>(key: string, text: string, among: readonly T[]): T {
  const found = among.find((v) => v === text);
  if (!found) throw new CliError(`--${key} is one of ${among.join(', ')}.`);
  return found;
}

function transformed(project: Project, name: Transform, glyphs: readonly GlyphId[], masters: readonly MasterId[], values: ReturnType<typeof options>['values']): Outcome {
  if (!ORIGINS.includes(values.origin as Origin)) throw new CliError(`“${values.origin}” is no origin; choose from ${ORIGINS.join(', ')}.`);
  const [x, y, angle] = (['x', 'y', 'angle'] as const).map((key) => (values[key] === undefined ? undefined : number(key, values[key])));
  const by = ((): TransformBy => {
    if (name === 'move') return { dx: x ?? 0, dy: y ?? 0 };
    if (name === 'scale') return { scaleX: x ?? (y === undefined ? needed('x', name) : 1), scaleY: y ?? x ?? 1 };
    if (name === 'rotate') return { rotate: angle ?? needed('angle', name) };
    if (name === 'slant') return { slant: angle ?? needed('angle', name) };
    return { scaleX: x === undefined && y !== undefined ? 1 : -1, scaleY: y === undefined ? 1 : -1 };
  })();
  return transformGlyphs(project, { glyphs, masters, by, origin: values.origin as Origin });
}

function number(key: string, text: string): number {
  const v = Number(text);
  if (text.trim() === '' || !Number.isFinite(v)) throw new CliError(`--${key} “${text}” is not a number.`);
  return v;
}

function needed(key: string, operation: string): never {
  throw new CliError(`${operation} needs --${key}.`);
}
