import type { GlyphId, MasterId, Project } from '../project/model';

const FIGURE = /^(zero|one|two|three|four|five|six|seven|eight|nine)$/;

/** Whether a glyph is a figure that shares its width with the others, for tables: it keeps it, and is never kerned to another. */
export const isTabular = (name: string): boolean => name.endsWith('.tnum') || FIGURE.test(name);

/** Figures of a master that should share a width and do not: the odd ones out. */
export function unevenFigures(project: Project, master: MasterId): { width: number; odd: GlyphId[] } | undefined {
  const figures = Object.values(project.glyphs).filter((g) => FIGURE.test(g.name) && g.drawings[master]);
  const widths = figures.map((g) => g.drawings[master]!.advance);
  const common = widths.find((w) => widths.filter((v) => v === w).length > figures.length / 2);
  if (common === undefined) return undefined;
  const odd = figures.filter((g) => g.drawings[master]!.advance !== common).map((g) => g.id);
  return odd.length > 0 ? { width: common, odd } : undefined;
}
