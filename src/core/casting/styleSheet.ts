import type { Project } from '../project/model';
import type { Format } from './outputs';
import { type CastThing, namesOfThing, thingKey, varyingDesign } from './things';

/** A file that a style sheet may name. */
export type StyledFile = { fileName: string; format: Format; thing: CastThing; range?: string };

/** Widths of classes 1 to 9, in per cent (OpenType, “usWidthClass”). */
const STRETCH = [50, 62.5, 75, 87.5, 100, 112.5, 125, 150, 200];

/**
 * The style sheet for the web fonts among files, one rule for each style; a font that varies tells its ranges, under a name of its own
 * where single styles stand beside it. Nothing where there is no web font.
 */
export function styleSheet(project: Project, files: readonly StyledFile[]): string | undefined {
  const web = files.filter((f) => f.format === 'woff2' || f.format === 'woff');
  const rulesFor = [...new Map(web.map((f) => [`${thingKey(f.thing)} ${f.range ?? ''}`, f])).values()];
  const things = rulesFor.map((f) => f.thing);
  const both = things.some((t) => 'variable' in t) && things.some((t) => !('variable' in t));
  const rules = rulesFor.flatMap(({ thing, range }) => {
    const names = namesOfThing(project, thing)?.names;
    if (!names) return [];
    const own = web.filter((f) => thingKey(f.thing) === thingKey(thing) && f.range === range);
    // What browsers take first stands first.
    const sources = (['woff2', 'woff'] as const).flatMap((format) =>
      own.filter((f) => f.format === format).map((f) => `url('${cssText(f.fileName)}') format('${format}')`),
    );
    const { weight, stretch } = rangesOf(project, thing, names);
    return [
      [
        '@font-face {',
        `  font-family: '${cssText(names.family)}${both && 'variable' in thing ? ' Variable' : ''}';`,
        `  font-style: ${(names.macStyle & 2) !== 0 ? 'italic' : 'normal'};`,
        `  font-weight: ${weight};`,
        ...(stretch === '100%' ? [] : [`  font-stretch: ${stretch};`]),
        '  font-display: swap;',
        `  src: ${sources.join(',\n    ')};`,
        ...(range === undefined ? [] : [`  unicode-range: ${range};`]),
        '}',
      ].join('\n'),
    ];
  });
  return rules.length === 0 ? undefined : `${rules.join('\n\n')}\n`;
}

const cssText = (text: string): string => text.replace(/[\\']/g, '\\$&').replace(/[\n\r]/g, ' ');

function rangesOf(
  project: Project,
  thing: CastThing,
  names: { weightClass: number; widthClass: number },
): { weight: string; stretch: string } {
  const weight = String(names.weightClass);
  const stretch = `${STRETCH[names.widthClass - 1] ?? 100}%`;
  if (!('variable' in thing)) return { weight, stretch };
  const axis = (tag: string) => varyingDesign(project, thing.variable)?.project.axes.find((a) => a.tag === tag);
  const [wght, wdth] = [axis('wght'), axis('wdth')];
  return {
    weight: wght ? `${wght.minimum} ${wght.maximum}` : weight,
    stretch: wdth ? `${wdth.minimum}% ${wdth.maximum}%` : stretch,
  };
}
