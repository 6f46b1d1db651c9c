import { type Refusal, refused } from '../base/result';
import type { Project } from '../project/model';

/** Layout tables that speak of glyphs by number and are carried from a font that was opened. */
export const CARRIED_TABLES = ['GSUB', 'GDEF', 'BASE', 'JSTF', 'MATH'] as const;

/** Where the names of the glyphs stand, in the order the carried tables know them by. */
export const CARRIED = 'org.wendril.carried';

export const carriedPath = (tag: string): string => `carried/${tag}.table`;

/** What a reader would notice of a table that is not there. */
const WORDS: Readonly<Record<(typeof CARRIED_TABLES)[number], string>> = {
  GSUB: 'ligatures, small capitals and other substitutions (GSUB)',
  GDEF: 'classes of glyphs and carets of ligatures (GDEF)',
  BASE: 'baselines of other scripts (BASE)',
  JSTF: 'justification (JSTF)',
  MATH: 'the layout of formulas (MATH)',
};

/**
 * The carried tables, as long as the glyphs that are cast are those, in that order, that the tables were made for; when
 * they are not, the tables would speak of other glyphs, so they are left out, and a note says what goes with them.
 */
export function carriedTables(
  project: Project,
  glyphNames: readonly string[],
): { tables: [tag: string, bytes: Uint8Array][]; notes: Refusal[] } {
  const order = project.lib[CARRIED];
  const kept = CARRIED_TABLES.flatMap((tag) => {
    const bytes = project.kept[carriedPath(tag)];
    return bytes ? [[tag, bytes] as [(typeof CARRIED_TABLES)[number], Uint8Array]] : [];
  });
  const fits = Array.isArray(order) && order.length === glyphNames.length && order.every((n, i) => n === glyphNames[i]);
  if (fits || kept.length === 0) return { tables: kept, notes: [] };
  const lost = kept.map(([tag]) => WORDS[tag]).join('; ');
  return {
    tables: [],
    notes: [
      refused(
        `Left out since glyphs were added, removed, renamed or ordered anew: ${lost} of the font that was opened.`,
        { table: kept.map(([tag]) => tag).join(', ') },
        'attention',
      ),
    ],
  };
}
