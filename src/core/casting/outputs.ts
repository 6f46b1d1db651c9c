import { type Result, refused, success } from '../base/result';
import { toWoff2 } from '../fontfacts/webfont';
import { toWoff } from '../opentype/woff';
import type { Project } from '../project/model';
import { CastCache } from './cache';
import { type CastFont, castFont } from './font';
import type { Flavour } from './plan';
import { type CastThing, distinctThings, namesOfThing, placeOfThing } from './things';

export const FORMATS = ['otf', 'ttf', 'woff', 'woff2'] as const;
export type Format = (typeof FORMATS)[number];

export type OutputFile = { fileName: string; format: Format; thing: CastThing; bytes: Uint8Array; font: CastFont };
export type OutputOptions = {
  formats: readonly Format[];
  /** What fonts are made of: masters, instances, designs as they vary. */
  things: readonly CastThing[];
  keepOverlaps?: boolean;
  /** Characters that are not drawn stand as blanks. */
  blanks?: boolean;
  cache?: CastCache;
  progress?: (done: number, total: number, now: string) => void;
  cancelled?: () => boolean;
};

/**
 * Every file asked for, one per thing and format. WOFF and WOFF2 hold the TrueType font. Stops with a sentence at the first refusal; two
 * files of one name are refused before anything is made.
 */
export async function castOutputs(project: Project, options: OutputOptions): Promise<Result<OutputFile[]>> {
  const {
    formats,
    things,
    keepOverlaps = false,
    blanks = false,
    cache = new CastCache(),
    progress,
    cancelled,
  } = options;
  const wanted = distinctThings(project, things).flatMap((thing) =>
    formats.map((format) => ({ thing, format, name: namesOfThing(project, thing)?.fileName ?? '' })),
  );
  const names = wanted.map(({ name, format }) => `${name}.${format}`.toLowerCase());
  const twice = wanted.find((_, i) => names.indexOf(names[i]!) !== i);
  if (twice)
    return refused(`Two fonts would be ${twice.name}.${twice.format}; choose one of them, or give one another name.`);
  const files: OutputFile[] = [];
  const fonts = new Map<string, CastFont>();
  for (const { thing, format, name } of wanted) {
    if (cancelled?.()) return refused('Casting was cancelled.');
    const flavour: Flavour = format === 'otf' ? 'otf' : 'ttf';
    progress?.(files.length, wanted.length, `${name}, ${format.toUpperCase()}`);
    const key = JSON.stringify([thing, flavour]);
    let font = fonts.get(key);
    if (!font) {
      const from = placeOfThing(project, thing);
      if (!from) return refused('What was to be cast is no longer in the project.');
      const { place, variable } = from;
      const result = castFont(from.project, { flavour, place, variable, keepOverlaps, blanks, cache });
      if (!result.ok) return result;
      font = result.value;
      // Only the font at hand is needed again, for its other formats.
      fonts.clear();
      fonts.set(key, font);
    }
    const bytes = format === 'woff2' ? await toWoff2(font.bytes) : format === 'woff' ? toWoff(font.bytes) : font.bytes;
    files.push({ fileName: `${name}.${format}`, format, thing, bytes, font });
  }
  progress?.(wanted.length, wanted.length, '');
  return success(files);
}
