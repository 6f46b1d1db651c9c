import { type Result, refused, success } from '../base/result';
import { toWoff2 } from '../fontfacts/webfont';
import { toWoff } from '../opentype/woff';
import type { CastTerms, Project } from '../project/model';
import { CastCache } from './cache';
import { type CastFont, castFont } from './font';
import type { Flavour } from './plan';
import { spacingFaults } from './spacingAt';
import { subsetOf } from './subset';
import { onTerms } from './terms';
import { type CastThing, distinctThings, namesOfThing, placeOfThing } from './things';
import { type WebPart, webParts } from './webParts';

export const FORMATS = ['otf', 'ttf', 'woff', 'woff2'] as const;
export type Format = (typeof FORMATS)[number];

export type OutputFile = {
  fileName: string;
  format: Format;
  thing: CastThing;
  bytes: Uint8Array;
  font: CastFont;
  /** The characters of a font that is a part of one, as style sheets write them. */
  range?: string;
  /** What is otherwise than one might expect, as the terms have it. */
  said: readonly string[];
};
export type OutputOptions = {
  formats: readonly Format[];
  /** What fonts are made of: masters, instances, designs as they vary. */
  things: readonly CastThing[];
  terms?: CastTerms;
  cache?: CastCache;
  progress?: (done: number, total: number, now: string) => void;
  cancelled?: () => boolean;
};

/** A font as it is, without terms of its own. */
export const PLAIN_TERMS: CastTerms = { keepOverlaps: false, blanks: false };

type Wanted = { thing: CastThing; format: Format; name: string; part?: WebPart };

/** What is made, file by file; web fonts in parts where that is asked for and there is more than one. */
function wantedFiles(project: Project, { things, formats, terms = PLAIN_TERMS }: OutputOptions): Wanted[] {
  const parts = terms.parts ? webParts(project) : [];
  return distinctThings(project, things).flatMap((thing) => {
    const name = namesOfThing(project, thing)?.fileName ?? '';
    return formats.flatMap((format): Wanted[] =>
      format.startsWith('woff') && parts.length > 1
        ? parts.map((part) => ({ thing, format, name: `${name}-${part.name}`, part }))
        : [{ thing, format, name }],
    );
  });
}

type Planned = { project: Project; said: readonly string[]; wanted: readonly Wanted[] };

/** What would be made of which project; refused where two files would be of one name, or the terms cannot be met. */
async function planned(whole: Project, options: OutputOptions): Promise<Result<Planned>> {
  const prepared = await onTerms(whole, options.terms ?? PLAIN_TERMS);
  if (!prepared.ok) return prepared;
  const wanted = wantedFiles(prepared.value.project, options);
  const names = wanted.map(nameOf);
  const low = names.map((n) => n.toLowerCase());
  const twice = names.find((_, i) => low.indexOf(low[i]!) !== i);
  return twice
    ? refused(`Two fonts would be ${twice}; choose one of them, or give one another name.`)
    : success({ ...prepared.value, wanted });
}

const nameOf = ({ name, format }: Wanted): string => `${name}.${format}`;

/** Names of the files that would be made, in their order; refused as {@link castOutputs} refuses. */
export async function plannedFiles(whole: Project, options: OutputOptions): Promise<Result<string[]>> {
  const plan = await planned(whole, options);
  return plan.ok ? success(plan.value.wanted.map(nameOf)) : plan;
}

/**
 * Every file asked for, one per thing and format. WOFF and WOFF2 hold the TrueType font. Stops with a sentence at the first refusal; two
 * files of one name are refused before anything is made.
 */
export async function castOutputs(whole: Project, options: OutputOptions): Promise<Result<OutputFile[]>> {
  const { terms = PLAIN_TERMS, cache = new CastCache(), progress, cancelled } = options;
  const plan = await planned(whole, options);
  if (!plan.ok) return plan;
  const { project, said, wanted } = plan.value;
  const spacing = new Map<number, string[]>();
  const saidOf = (thing: CastThing): readonly string[] => {
    if (!('instance' in thing)) return said;
    const found = spacing.get(thing.instance) ?? spacingFaults(project, thing.instance);
    spacing.set(thing.instance, found);
    return [...said, ...found];
  };
  const files: OutputFile[] = [];
  const fonts = new Map<string, CastFont>();
  for (const { thing, format, name, part } of wanted) {
    if (cancelled?.()) return refused('Casting was cancelled.');
    const flavour: Flavour = format === 'otf' ? 'otf' : 'ttf';
    progress?.(files.length, wanted.length, `${name}, ${format.toUpperCase()}`);
    const key = JSON.stringify([thing, flavour, part?.name]);
    let font = fonts.get(key);
    if (!font) {
      const from = placeOfThing(part ? subsetOf(project, part.has) : project, thing);
      if (!from) return refused('What was to be cast is no longer in the project.');
      const { place, variable } = from;
      const { keepOverlaps, blanks, without, unhinted, mustAgree } = terms;
      const partial = part !== undefined || terms.glyphs !== undefined;
      const own = { keepOverlaps, blanks, without, unhinted, mustAgree, partial };
      const result = castFont(from.project, { flavour, place, variable, ...own, cache });
      if (!result.ok) return result;
      font = result.value;
      // Only the font at hand is needed again, for its other formats.
      if (!part) fonts.clear();
      fonts.set(key, font);
    }
    const bytes = format === 'woff2' ? await toWoff2(font.bytes) : format === 'woff' ? toWoff(font.bytes) : font.bytes;
    files.push({
      fileName: `${name}.${format}`,
      format,
      thing,
      bytes,
      font,
      said: saidOf(thing),
      ...(part && { range: part.range }),
    });
  }
  progress?.(wanted.length, wanted.length, '');
  return success(files);
}
