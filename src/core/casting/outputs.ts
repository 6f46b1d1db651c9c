import { type Result, refused, success } from '../base/result';
import { toWoff2 } from '../fontfacts/webfont';
import { toWoff } from '../opentype/woff';
import type { Master, Project } from '../project/model';
import { CastCache } from './cache';
import { type CastFont, castFont } from './font';
import type { Flavour } from './plan';

export const FORMATS = ['otf', 'ttf', 'woff', 'woff2'] as const;
export type Format = (typeof FORMATS)[number];

export type OutputFile = { fileName: string; format: Format; master: string; bytes: Uint8Array; font: CastFont };
export type OutputOptions = {
  formats: readonly Format[];
  masters: readonly Master[];
  keepOverlaps?: boolean;
  /** Characters that are not drawn stand as blanks. */
  blanks?: boolean;
  cache?: CastCache;
  progress?: (done: number, total: number, now: string) => void;
  cancelled?: () => boolean;
};

/** Every file asked for, one per master and format. WOFF and WOFF2 hold the TrueType font. Stops with a sentence at the first refusal. */
export async function castOutputs(project: Project, options: OutputOptions): Promise<Result<OutputFile[]>> {
  const {
    formats,
    masters,
    keepOverlaps = false,
    blanks = false,
    cache = new CastCache(),
    progress,
    cancelled,
  } = options;
  const files: OutputFile[] = [];
  const total = masters.length * formats.length;
  for (const master of masters) {
    const fonts = new Map<Flavour, CastFont>();
    for (const format of formats) {
      if (cancelled?.()) return refused('Casting was cancelled.');
      const flavour: Flavour = format === 'otf' ? 'otf' : 'ttf';
      progress?.(files.length, total, `${master.name}, ${format.toUpperCase()}`);
      let font = fonts.get(flavour);
      if (!font) {
        const result = castFont(project, { flavour, place: { master: master.id }, keepOverlaps, blanks, cache });
        if (!result.ok) return result;
        font = result.value;
        fonts.set(flavour, font);
      }
      const bytes =
        format === 'woff2' ? await toWoff2(font.bytes) : format === 'woff' ? toWoff(font.bytes) : font.bytes;
      files.push({ fileName: `${font.names.postScriptName}.${format}`, format, master: master.id, bytes, font });
    }
  }
  progress?.(total, total, '');
  return success(files);
}
