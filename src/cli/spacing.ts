import { extname } from 'node:path';
import { parseArgs } from 'node:util';
import { proposeFit, takeFit } from '../core/fitting/proposal';
import { setPairs } from '../core/kerning/edits';
import { sideName } from '../core/kerning/lookup';
import { proposeKerning, textGlyphs } from '../core/kerning/proposal';
import type { Outcome } from '../core/project/edit';
import type { GlyphId, Project } from '../core/project/model';
import { defaultMaster, glyphForCodePoint, glyphNamed } from '../core/project/queries';
import { write } from './convert';
import { CliError } from './problem';
import { openInput } from './source';

const OPTIONS = {
  keep: { type: 'string' },
  glyphs: { type: 'string' },
  min: { type: 'string', default: '4' },
  step: { type: 'string', default: '5' },
  most: { type: 'string', default: '1500' },
  json: { type: 'boolean', default: false },
} as const;
const KINDS = ['.ufo', '.ufoz', '.designspace', '.wendril'];

/** `wendril fit`: side bearings proposed from those that are fixed, in every master. */
export async function fit(args: readonly string[]): Promise<void> {
  const { values, project, target, kind } = await opened('fit', args);
  const keep = new Set(glyphsOf(project, values.keep ?? 'n,o,H,O'));
  let current = project;
  const report: { master: string; glyph: string; left: number; right: number; was: { left: number; right: number } }[] = [];
  for (const master of project.masters) {
    const proposals = proposeFit(current, master.id, current.glyphOrder, keep);
    if (proposals.length === 0) continue;
    current = projectOf(takeFit(current, { master: master.id, proposals }));
    report.push(...proposals.map((p) => ({ master: master.name, glyph: project.glyphs[p.glyph]!.name, left: p.left, right: p.right, was: p.now })));
  }
  await write(target, kind, current, defaultMaster(current), {});
  told(values.json, { target, glyphs: report }, `${report.length} drawings fitted.\n${target}`);
}

/** `wendril kern`: kerning proposed for all pairs of some glyphs, by groups where their members agree, in every master. */
export async function kern(args: readonly string[]): Promise<void> {
  const { values, project, target, kind } = await opened('kern', args);
  const glyphs = values.glyphs === undefined ? textGlyphs(project) : glyphsOf(project, values.glyphs);
  const settings = { least: number('min', values.min), step: number('step', values.step), most: number('most', values.most) };
  let current = project;
  const report: { master: string; first: string; second: string; value: number; was: number }[] = [];
  for (const master of project.masters) {
    const pairs = proposeKerning(current, master.id, glyphs, glyphs, settings);
    if (pairs.length === 0) continue;
    current = projectOf(setPairs(current, { master: master.id, pairs }));
    report.push(...pairs.map((p) => ({ master: master.name, first: sideName(project, p.first), second: sideName(project, p.second), value: p.value, was: p.now })));
  }
  await write(target, kind, current, defaultMaster(current), {});
  told(values.json, { target, pairs: report }, `${report.length} pairs kerned.\n${target}`);
}

async function opened(command: string, args: readonly string[]) {
  const { values, positionals } = options(args);
  const [source, target, ...more] = positionals;
  if (!source || !target || more.length > 0) throw new CliError(`${command} takes SOURCE and TARGET; see wendril --help.`);
  const kind = extname(target.replace(/[/\\]+$/, '')).toLowerCase();
  if (!KINDS.includes(kind)) throw new CliError(`“${target}” has no ending that tells what to write; choose from ${KINDS.join(' ')}.`);
  const { project, notes } = await openInput(source);
  for (const note of notes) process.stderr.write(`wendril: ${note}\n`);
  return { values, project, target, kind };
}

function options(args: readonly string[]) {
  try {
    return parseArgs({ args: [...args], allowPositionals: true, options: OPTIONS });
  } catch (error) {
    throw new CliError((error as Error).message.split('\n')[0]!);
  }
}

const projectOf = (outcome: Outcome): Project => {
  if (!outcome.ok) throw new CliError(outcome.reason);
  return outcome.project;
};

function told(json: boolean, value: unknown, text: string): void {
  process.stdout.write(json ? `${JSON.stringify(value)}\n` : `${text}\n`);
}

function number(key: string, text: string): number {
  const v = Number(text);
  if (text.trim() === '' || !Number.isFinite(v) || v < 0) throw new CliError(`--${key} “${text}” is not a number of 0 or more.`);
  return v;
}

/** Glyphs by name or character, separated by commas. */
export function glyphsOf(project: Project, wanted: string): GlyphId[] {
  return wanted.split(',').map((word) => {
    const name = word.trim();
    const glyph = glyphNamed(project, name) ?? ([...name].length === 1 ? glyphForCodePoint(project, name.codePointAt(0)!) : undefined);
    if (!glyph) throw new CliError(`There is no glyph “${name}”.`);
    return glyph.id;
  });
}
