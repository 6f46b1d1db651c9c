import { proposeFit, takeFit } from '../core/fitting/proposal';
import { setPairs } from '../core/kerning/edits';
import { proposeGroups, takeGroups } from '../core/kerning/groups';
import { proposeKerning } from '../core/kerning/proposal';
import { textGlyphs } from '../core/kerning/text';
import { kerningUnits, stepOf } from '../core/kerning/units';
import type { Outcome } from '../core/project/edit';
import { sideName } from '../core/project/kerningLookup';
import type { GlyphId, Project } from '../core/project/model';
import { defaultMaster } from '../core/project/queries';
import { endingOf, glyphsOf, numberOf, parsed, SOURCES, tell, tellNotes, twoPaths } from './arguments';
import { write } from './convert';
import { CliError } from './problem';
import { progressOf } from './progress';
import { openInput } from './source';

const OPTIONS = {
  keep: { type: 'string' },
  glyphs: { type: 'string' },
  min: { type: 'string' },
  step: { type: 'string' },
  most: { type: 'string', default: '1500' },
  json: { type: 'boolean', default: false },
} as const;

/** `wendril fit`: side bearings proposed from those that are fixed, in every master. */
export async function fit(args: readonly string[]): Promise<void> {
  const { values, project, target, kind } = await opened('fit', args);
  const keep = new Set(glyphsOf(project, values.keep ?? 'n,o,H,O'));
  let current = project;
  const report: { master: string; glyph: string; left: number; right: number; was: { left: number; right: number } }[] =
    [];
  for (const master of project.masters) {
    const proposals = proposeFit(current, master.id, current.glyphOrder, keep);
    if (proposals.length === 0) continue;
    current = projectOf(takeFit(current, { master: master.id, proposals }));
    report.push(
      ...proposals.map((p) => ({
        master: master.name,
        glyph: project.glyphs[p.glyph]!.name,
        left: p.left,
        right: p.right,
        was: p.now,
      })),
    );
  }
  await write(target, kind, current, defaultMaster(current), {});
  tell(values.json, { target, glyphs: report }, `${report.length} drawings fitted.\n${target}`);
}

/** `wendril kern`: kerning proposed for all pairs of some glyphs, by groups where their members agree, in every master. */
export async function kern(args: readonly string[]): Promise<void> {
  const { values, project, target, kind } = await opened('kern', args);
  const glyphs = values.glyphs === undefined ? textGlyphs(project) : glyphsOf(project, values.glyphs);
  const settings = {
    // As shares of the em: a font of 2,048 units is judged as one of 1,000.
    least: values.min === undefined ? kerningUnits(project, 'least') : numberOf('min', values.min, 0),
    step: values.step === undefined ? stepOf(project) : numberOf('step', values.step, 0),
    most: numberOf('most', values.most, 0),
  };
  // Glyphs that are in no group are grouped by their shapes first: a value then serves all of them.
  let current = grouped(project, glyphs);
  let cut = 0;
  const report: { master: string; first: string; second: string; value: number; was: number }[] = [];
  for (const master of project.masters) {
    const { pairs, cut: over } = proposeKerning(
      current,
      master.id,
      glyphs,
      glyphs,
      settings,
      progressOf(`Kerning ${master.name}`),
    );
    cut += over;
    if (pairs.length === 0) continue;
    current = projectOf(setPairs(current, { master: master.id, pairs }));
    report.push(
      ...pairs.map((p) => ({
        master: master.name,
        first: sideName(current, p.first),
        second: sideName(current, p.second),
        value: p.value,
        was: p.now,
      })),
    );
  }
  await write(target, kind, current, defaultMaster(current), {});
  const more = cut > 0 ? ` ${cut} values worth less were left out; --most lets more in.` : '';
  tell(values.json, { target, pairs: report, cut }, `${report.length} pairs kerned.${more}\n${target}`);
}

/** The project with groups for glyphs that look alike and are in none; as it is where it has groups already. */
function grouped(project: Project, glyphs: readonly GlyphId[]): Project {
  if (project.groups.length > 0) return project;
  const proposals = proposeGroups(project, defaultMaster(project), undefined, glyphs, progressOf('Grouping'));
  return proposals.length === 0 ? project : projectOf(takeGroups(project, { proposals }));
}

async function opened(command: string, args: readonly string[]) {
  const { values, positionals } = parsed(args, OPTIONS);
  const [source, target] = twoPaths(command, positionals);
  const kind = endingOf(target, SOURCES);
  const { project, notes } = await openInput(source);
  tellNotes(notes);
  return { values, project, target, kind };
}

const projectOf = (outcome: Outcome): Project => {
  if (!outcome.ok) throw new CliError(outcome.reason);
  return outcome.project;
};
