import type { Project } from '../project/model';

/** Layout tables that speak of glyphs by number and are carried from a font that was opened. */
export const CARRIED_TABLES = ['GSUB', 'GDEF', 'BASE', 'JSTF', 'MATH'] as const;

/** Where the names of the glyphs stand, in the order the carried tables know them by. */
export const CARRIED = 'org.wendril.carried';

export const carriedPath = (tag: string): string => `carried/${tag}.table`;

/** The carried tables, as long as the glyphs that are cast are those, in that order, that the tables were made for. */
export function carriedTables(project: Project, glyphNames: readonly string[]): [tag: string, bytes: Uint8Array][] {
  const order = project.lib[CARRIED];
  if (!Array.isArray(order) || order.length !== glyphNames.length || order.some((n, i) => n !== glyphNames[i]))
    return [];
  return CARRIED_TABLES.flatMap((tag) => {
    const bytes = project.kept[carriedPath(tag)];
    return bytes ? [[tag, bytes] as [string, Uint8Array]] : [];
  });
}
