import { type Refusal, refused } from '../base/result';
import type { Project } from '../project/model';

/** Layout tables that speak of glyphs by number and are carried from a font that was opened. */
export const CARRIED_TABLES = ['GSUB', 'GDEF', 'BASE', 'JSTF', 'MATH'] as const;

/** Where the names of the glyphs stand, in the order the carried tables know them by. */
export const CARRIED = 'org.wendril.carried';

/** Which axes carried substitutions change with, where they do. */
export const CARRIED_AXES = 'org.wendril.carriedAxes';

/** Axes as what is normalised over them sees them. */
export const axesKey = (axes: Project['axes']): string =>
  JSON.stringify(axes.map((a) => [a.tag, a.minimum, a.default, a.maximum, a.map]));

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
  variable: boolean,
): { tables: [tag: string, bytes: Uint8Array][]; notes: Refusal[] } {
  const order = project.lib[CARRIED];
  const kept = CARRIED_TABLES.flatMap((tag) => {
    const bytes = project.kept[carriedPath(tag)];
    return bytes ? [[tag, bytes] as [(typeof CARRIED_TABLES)[number], Uint8Array]] : [];
  });
  const fits = Array.isArray(order) && order.length === glyphNames.length && order.every((n, i) => n === glyphNames[i]);
  if (fits || kept.length === 0) return substitutionsAt(project, kept, variable);
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

/** Substitutions with what they change by over the axes, for a font that varies over the same; else as the default has them. */
function substitutionsAt(
  project: Project,
  kept: readonly [tag: string, bytes: Uint8Array][],
  variable: boolean,
): { tables: [tag: string, bytes: Uint8Array][]; notes: Refusal[] } {
  const told = project.lib[CARRIED_AXES];
  if (told === undefined || (variable && told === axesKey(project.axes))) return { tables: [...kept], notes: [] };
  const tables = kept.map(([tag, bytes]): [string, Uint8Array] => {
    if (tag !== 'GSUB' || bytes.length < 4) return [tag, bytes];
    const plain = bytes.slice();
    plain[3] = 0;
    return [tag, plain];
  });
  const why =
    'Substitutions that changed with the axes of the font that was opened are as its default has them: the axes are others now.';
  return { tables, notes: variable ? [refused(why, { table: 'GSUB' }, 'attention')] : [] };
}
