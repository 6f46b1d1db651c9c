import type { GlyphId, Project } from '../project/model';
import { glyphForCodePoint } from '../project/queries';
import frequencies from './pairFrequencies.json';

/** What text is made of: letters, figures and punctuation. Signs, marks and raised figures are kerned by hand. */
export const textGlyphs = (project: Project): GlyphId[] =>
  project.glyphOrder.filter((id) =>
    project.glyphs[id]!.unicodes.some(
      (c) =>
        /[\p{L}\p{Nd}\p{P}]/u.test(String.fromCodePoint(c)) && !/[\p{M}\p{Lm}\p{Pc}ªº]/u.test(String.fromCodePoint(c)),
    ),
  );

/** Pairs of characters that text has, with how often it has them, per ten thousand pairs of letters. */
export const PAIR_FREQUENCIES: readonly (readonly [pair: string, frequency: number])[] = Object.entries(
  frequencies as Record<string, number>,
);

/** The glyphs of two characters, where the project has both. */
export function glyphsOfPair(project: Project, pair: string): readonly [GlyphId, GlyphId] | undefined {
  const [a, b] = [...pair].map((c) => glyphForCodePoint(project, c.codePointAt(0)!)?.id);
  return a && b ? [a, b] : undefined;
}

/** How often text has two glyphs in a row, per ten thousand pairs of letters, by both ids. */
export function frequencyOf(project: Project): ReadonlyMap<string, number> {
  const out = new Map<string, number>();
  for (const [pair, n] of PAIR_FREQUENCIES) {
    const glyphs = glyphsOfPair(project, pair);
    if (glyphs) out.set(glyphs.join(' '), n);
  }
  return out;
}
