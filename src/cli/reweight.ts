import type { Outcome } from '../core/project/edit';
import type { Project } from '../core/project/model';
import { defaultMaster } from '../core/project/queries';
import { addReweighedMaster, takeReweighed } from '../core/reweighting/edits';
import { reweighedGlyphs } from '../core/reweighting/many';
import { stemsOf } from '../core/reweighting/standard';
import { endingOf, glyphsOf, numberOf, parsed, SOURCES, tell, tellNotes, twoPaths } from './arguments';
import { write } from './convert';
import { CliError } from './problem';
import { progressOf } from './progress';
import { openInput } from './source';

const OPTIONS = {
  vertical: { type: 'string' },
  horizontal: { type: 'string' },
  contrast: { type: 'string' },
  from: { type: 'string' },
  as: { type: 'string' },
  place: { type: 'string' },
  width: { type: 'string', default: 'keep' },
  sides: { type: 'string', default: 'share' },
  rounds: { type: 'string', default: '100' },
  glyphs: { type: 'string' },
  json: { type: 'boolean', default: false },
} as const;

/** `wendril reweight`: glyphs of a master at new stems, in place or as a new master. */
export async function reweight(args: readonly string[]): Promise<void> {
  const { values, positionals } = parsed(args, OPTIONS);
  const [source, target] = twoPaths('reweight', positionals);
  const kind = endingOf(target, SOURCES);
  const { project, notes } = await openInput(source);
  tellNotes(notes);
  const master = values.from === undefined ? defaultMaster(project) : masterNamed(project, values.from);
  const from = stemsOf(project, master);
  if (!from) throw new CliError(`${master.name} has no strokes to measure.`);
  if (values.vertical === undefined && values.horizontal === undefined)
    throw new CliError('Say how thick strokes are to be: --vertical N, --horizontal N or both.');
  const to = stemsAsked(from, values);
  const asked = {
    glyphs: values.glyphs === undefined ? [...project.glyphOrder] : glyphsOf(project, values.glyphs),
    master: master.id,
    from,
    to,
    width: widthAsked(values.width),
    bearings: sidesAsked(values.sides),
    rounds: numberOf('rounds', values.rounds, 50, 200) / 100,
    own: {},
  };
  const done = reweighedGlyphs(project, asked, progressOf('Reweighting'));
  const made = done.made.map(({ glyph, drawing }) => ({ glyph, drawing }));
  if (values.place !== undefined && values.as === undefined)
    throw new CliError('A place is for a new master; --as names it.');
  const next = projectOf(
    values.as === undefined
      ? takeReweighed(project, { master: master.id, made })
      : addReweighedMaster(project, { name: values.as, place: placeAsked(values.place), copy: master.id, made }),
  );
  await write(target, kind, next, defaultMaster(next), {});
  const name = (id: string) => project.glyphs[id]!.name;
  const eased = done.made.filter((m) => m.eased.length > 0).map((m) => name(m.glyph));
  const left = done.left.map(({ glyph, reason }) => ({ glyph: name(glyph), reason }));
  tell(
    values.json,
    { target, master: values.as ?? master.name, from, to, glyphs: made.length, eased, left },
    [
      `${made.length} glyphs of ${master.name} reweighted, stems ${from.vertical}/${from.horizontal} to ${to.vertical}/${to.horizontal}${values.as === undefined ? '' : `, as the master ${values.as}`}.`,
      ...(eased.length > 0 ? [`No room for the whole weight, eased: ${eased.join(', ')}.`] : []),
      target,
    ].join('\n'),
  );
}

function masterNamed(project: Project, name: string) {
  const found = project.masters.find((m) => m.name === name || m.id === name);
  if (!found)
    throw new CliError(`There is no master “${name}”; there are ${project.masters.map((m) => m.name).join(', ')}.`);
  return found;
}

/** Stems asked for; what is left out keeps its proportion to the other, or the contrast that is asked for. */
function stemsAsked(
  from: { vertical: number; horizontal: number },
  values: { vertical?: string | undefined; horizontal?: string | undefined; contrast?: string | undefined },
) {
  const number = (key: 'vertical' | 'horizontal') =>
    values[key] === undefined ? undefined : numberOf(key, values[key], 1, 2000);
  const [vertical, horizontal] = [number('vertical'), number('horizontal')];
  if (values.contrast !== undefined && vertical !== undefined && horizontal !== undefined)
    throw new CliError('--contrast stands for one of --vertical and --horizontal; give two of the three.');
  const share =
    values.contrast === undefined
      ? from.horizontal / from.vertical
      : numberOf('contrast', values.contrast, 5, 300) / 100;
  const round = (v: number) => Math.max(1, Math.round(v * 10) / 10);
  return {
    vertical: vertical ?? round(horizontal! / share),
    horizontal: horizontal ?? round(vertical! * share),
  };
}

function widthAsked(text: string): number | undefined {
  if (text === 'keep') return 1;
  if (text === 'counters') return undefined;
  const share = /^([\d.]+)%$/.exec(text)?.[1];
  if (share === undefined) throw new CliError(`--width is keep, counters or a share as 104%, not “${text}”.`);
  return numberOf('width', share, 30, 300) / 100;
}

function sidesAsked(text: string): 'share' | 'kept' {
  if (text === 'share' || text === 'kept') return text;
  throw new CliError(`--sides is share or kept, not “${text}”.`);
}

/** A place as `wght=800,wdth=75`. */
function placeAsked(text: string | undefined): Record<string, number> {
  if (text === undefined) throw new CliError('A new master needs a place: --place wght=800.');
  return Object.fromEntries(
    text.split(',').map((part) => {
      const [, tag, value] = /^\s*([A-Za-z][A-Za-z0-9 ]{3})\s*=\s*(-?[\d.]+)\s*$/.exec(part) ?? [];
      if (tag === undefined) throw new CliError(`--place is an axis and a number, as wght=800, not “${part}”.`);
      return [tag, numberOf('place', value!)];
    }),
  );
}

const projectOf = (outcome: Outcome): Project => {
  if (!outcome.ok) throw new CliError(outcome.reason);
  return outcome.project;
};
