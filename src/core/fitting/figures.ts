import { z } from 'zod';
import { tidy } from '../geometry/tidy';
import { defineEdit, edited, plural, refused } from '../project/edit';
import type { GlyphId, MasterId, Project } from '../project/model';
import { setSides, sidesOf } from './sides';

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

/** Gives the odd figures of every master the width of the others, each standing in the middle of it as it did of its own. */
export const evenFigures = defineEdit(
  { name: 'evenFigures', does: 'Gives figures one width', reach: 'all masters', args: z.object({}) },
  (project) => {
    let current = project;
    const changed = new Set<GlyphId>();
    for (const master of project.masters) {
      const uneven = unevenFigures(current, master.id);
      for (const id of uneven?.odd ?? []) {
        const glyph = current.glyphs[id]!;
        const now = sidesOf(current, glyph, master.id);
        const at = { glyph: id, master: master.id };
        const spare = uneven!.width - now.advance;
        const done =
          'left' in now
            ? setSides(current, { at, left: tidy(now.left + Math.round(spare / 2)), advance: uneven!.width })
            : setSides(current, { at, advance: uneven!.width });
        if (!done.ok) return done;
        current = done.project;
        changed.add(id);
      }
    }
    return changed.size === 0
      ? refused('The figures share a width in every master.')
      : edited(current, `Gave ${plural(changed.size, 'figure')} the width of the others`);
  },
);
