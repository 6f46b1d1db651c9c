import { FRAME_SIDES, type StrokeKind, type StrokeWork } from '../core/drawing/strokes';
import { workStrokesOfGlyphs } from '../core/drawing/strokesOfMany';
import { ORIGINS, type Origin, type TransformBy, transformGlyphs } from '../core/drawing/transform';
import { CAPS, JOINS } from '../core/geometry/stroke';
import type { Outcome } from '../core/project/edit';
import type { GlyphId, MasterId, Project } from '../core/project/model';
import { defaultMaster } from '../core/project/queries';
import {
  TIDY,
  TIDY_NAMES,
  type TidyName,
  type TidyOperation,
  takeTidying,
  tidyProposal,
} from '../core/tidying/operations';
import { endingOf, glyphsOf, numberOf, oneOf, parsed, SOURCES, tell, tellNotes } from './arguments';
import { nearestWord } from './commands';
import { write } from './convert';
import { edit, isEdit, listEdits } from './edit';
import { CliError } from './problem';
import { openInput } from './source';

const OPTIONS = {
  args: { type: 'string' },
  list: { type: 'boolean', default: false },
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
  sides: { type: 'string', default: 'as it is' },
  least: { type: 'string', default: '0' },
  suffix: { type: 'string' },
  json: { type: 'boolean', default: false },
} as const;

const TRANSFORMS = ['move', 'scale', 'rotate', 'slant', 'flip'] as const;
const EDGES = ['stroke', 'grow', 'hollow', 'frame'] as const satisfies readonly StrokeKind[];
type Transform = (typeof TRANSFORMS)[number];
type Values = ReturnType<typeof parsed<typeof OPTIONS>>['values'];

/** `wendril apply`: one operation on many glyphs of a source, written as another source. */
export async function apply(args: readonly string[]): Promise<void> {
  const { values, positionals } = parsed(args, OPTIONS);
  const [operation, source, target, ...more] = positionals;
  if (values.list) {
    const edits = listEdits();
    tell(values.json, edits, edits.map((e) => `${e.name.padEnd(20)} ${e.does} (${e.masters})`).join('\n'));
    return;
  }
  if (!operation || !source || !target || more.length > 0)
    throw new CliError('apply takes OPERATION, SOURCE and TARGET; see wendril --help.');
  const names: readonly string[] = [...TIDY_NAMES, ...TRANSFORMS, ...EDGES];
  const byName = !names.includes(operation) && isEdit(operation);
  if (!byName && !names.includes(operation)) throw new CliError(noSuchOperation(operation, names));
  if (values.args !== undefined && !byName) throw new CliError(`${operation} takes no --args.`);
  const kind = endingOf(target, SOURCES);
  const { project, notes } = await openInput(source);
  tellNotes(notes);
  const masters = mastersOf(project, values.master);
  const glyphs = values.glyphs === undefined ? [...project.glyphOrder] : glyphsOf(project, values.glyphs);
  const { outcome, report } = byName
    ? { outcome: edit(project, operation, values.args), report: [] }
    : TIDY_NAMES.includes(operation as TidyName)
      ? tidied(project, operation as TidyName, glyphs, masters, values.amount)
      : { outcome: otherwise(project, operation as Transform | StrokeKind, glyphs, masters, values), report: [] };
  if (outcome && !outcome.ok) throw new CliError(outcome.reason);
  const result = outcome ? outcome.project : project;
  await write(target, kind, result, defaultMaster(result), {});
  const sentence = outcome ? outcome.sentence : 'Nothing needed to be changed';
  tell(values.json, { target, operation, sentence, glyphs: report }, `${sentence}.\n${target}`);
}

/** What is said of an operation that there is not: the nearest that there is, else all. */
function noSuchOperation(operation: string, names: readonly string[]): string {
  const near = nearestWord(operation, [...names, ...listEdits().map((e) => e.name)]);
  return near
    ? `“${operation}” is no operation; did you mean ${near}?`
    : `“${operation}” is no operation; choose from ${names.join(', ')}, or an edit of wendril apply --list.`;
}

function mastersOf(project: Project, wanted: string | undefined): MasterId[] {
  if (wanted === undefined) return project.masters.map((m) => m.id);
  const found = project.masters.find((m) => m.name === wanted || m.id === wanted);
  if (!found)
    throw new CliError(`There is no master “${wanted}”; there are ${project.masters.map((m) => m.name).join(', ')}.`);
  return [found.id];
}

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
  const amount = typed === undefined ? undefined : numberOf('amount', typed);
  if (option && amount !== undefined && (amount < option.least || amount > option.most))
    throw new CliError(`--amount is ${option.least} to ${option.most} ${option.unit} for ${name}.`);
  const proposals = glyphs.flatMap((id) => tidyProposal(project, project.glyphs[id]!, masters, name, amount) ?? []);
  const apart = proposals.filter((p) => p.apart).length;
  if (apart > 0)
    process.stderr.write(
      `wendril: in ${apart === 1 ? 'one glyph' : `${apart} glyphs`} the masters do not agree; each was tidied by itself.\n`,
    );
  const report = proposals.map((p) => ({
    glyph: project.glyphs[p.glyph]!.name,
    before: p.before,
    after: p.after,
    deviation: Math.round(p.deviation * 1000) / 1000,
  }));
  return { outcome: proposals.length > 0 ? takeTidying(project, { operation: name, proposals }) : undefined, report };
}

/** Transforms, and work on the edges. */
function otherwise(
  project: Project,
  name: Transform | StrokeKind,
  glyphs: readonly GlyphId[],
  masters: readonly MasterId[],
  values: Values,
): Outcome {
  const edge = EDGES.find((e) => e === name);
  return edge
    ? workStrokesOfGlyphs(project, { glyphs, masters, work: edgeWork(edge, values), suffix: values.suffix })
    : transformed(project, name as Transform, glyphs, masters, values);
}

function edgeWork(kind: StrokeKind, values: Values): StrokeWork {
  const join = oneOf('join', values.join, JOINS);
  const amount = numberOf('amount', values.amount ?? needed('amount', kind));
  if (kind === 'stroke') return { kind, width: amount, join, cap: oneOf('cap', values.cap, CAPS) };
  if (kind === 'grow') return { kind, by: amount, join };
  if (kind === 'hollow') return { kind, wall: amount, join };
  return {
    kind,
    margin: amount,
    wall: numberOf('wall', values.wall),
    radius: numberOf('radius', values.radius),
    reversed: values.reversed,
    sides: oneOf('sides', values.sides, FRAME_SIDES),
    least: numberOf('least', values.least),
  };
}

function transformed(
  project: Project,
  name: Transform,
  glyphs: readonly GlyphId[],
  masters: readonly MasterId[],
  values: Values,
): Outcome {
  if (!ORIGINS.includes(values.origin as Origin))
    throw new CliError(`“${values.origin}” is no origin; choose from ${ORIGINS.join(', ')}.`);
  const [x, y, angle] = (['x', 'y', 'angle'] as const).map((key) =>
    values[key] === undefined ? undefined : numberOf(key, values[key]),
  );
  const by = ((): TransformBy => {
    if (name === 'move') return { dx: x ?? 0, dy: y ?? 0 };
    if (name === 'scale') return { scaleX: x ?? (y === undefined ? needed('x', name) : 1), scaleY: y ?? x ?? 1 };
    if (name === 'rotate') return { rotate: angle ?? needed('angle', name) };
    if (name === 'slant') return { slant: angle ?? needed('angle', name) };
    return { scaleX: x === undefined && y !== undefined ? 1 : -1, scaleY: y === undefined ? 1 : -1 };
  })();
  return transformGlyphs(project, { glyphs, masters, by, origin: values.origin as Origin });
}

function needed(key: string, operation: string): never {
  throw new CliError(`${operation} needs --${key}.`);
}
