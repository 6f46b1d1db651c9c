import { z } from 'zod';
import { shifted } from '../drawing/edits';
import { isEmptyBox } from '../geometry/curve';
import { tidy } from '../geometry/tidy';
import * as a from '../project/arguments';
import { defineEdit, edited, plural, refused } from '../project/edit';
import type { Drawing, Glyph, GlyphId, MasterId, Project } from '../project/model';
import { drawingBounds, drawingsOf, flattened } from '../project/outline';
import { drawingOf } from '../project/queries';

/** What is done with letters that are put together: taken apart, widened. */

/** Turns all parts of glyphs into outlines of their own, in every master. */
export const takeApart = defineEdit(
  {
    name: 'takeApart',
    does: 'Turns all parts of glyphs into outlines',
    reach: 'all masters',
    args: z.object({ glyphs: a.glyphs }),
  },
  (project, { glyphs }) => {
    const changed = changedGlyphs(project, glyphs, (d, master) =>
      d.components.length === 0 ? d : { ...d, contours: flattened(d, drawingsOf(project, master)), components: [] },
    );
    const count = Object.keys(changed).length;
    return count === 0
      ? refused('None of these is built of parts.')
      : edited(
          { ...project, glyphs: { ...project.glyphs, ...changed } },
          `Took ${plural(count, 'glyph')} apart to outlines`,
        );
  },
);

function changedGlyphs(
  project: Project,
  ids: readonly GlyphId[],
  change: (d: Drawing, master: MasterId) => Drawing,
): Record<GlyphId, Glyph> {
  const out: Record<GlyphId, Glyph> = {};
  for (const id of ids) {
    const glyph = project.glyphs[id];
    if (!glyph) continue;
    const drawings = { ...glyph.drawings };
    let touched = false;
    for (const m of project.masters) {
      const was = drawingOf(glyph, m.id);
      const next = change(was, m.id);
      if (next === was) continue;
      drawings[m.id] = next;
      touched = true;
    }
    if (touched) out[id] = { ...glyph, drawings };
  }
  return out;
}

/** How far a letter's marks stand out of its box at each side, in font units; what its base stands out by itself does not count. */
export type StandsOut = { left: number; right: number };

/** Less than this share of the em is no matter. */
const LITTLE = 0.01;

/** How far a letter that is put together stands out of its own box, more than its base does; undefined where it does not. */
export function standsOut(project: Project, glyph: Pick<Glyph, 'drawings'>, master: MasterId): StandsOut | undefined {
  const d = glyph.drawings[master];
  const base = d && project.glyphs[d.components[0]?.glyph ?? ''];
  if (!d || !base || d.components.length < 2) return undefined;
  const source = drawingsOf(project, master);
  const box = drawingBounds(d, source);
  const own = drawingOf(base, master);
  const plain = drawingBounds(own, source);
  if (isEmptyBox(box) || isEmptyBox(plain)) return undefined;
  const least = LITTLE * project.unitsPerEm;
  const over = (all: number, alone: number) => (all - Math.max(0, alone) > least ? Math.round(all) : 0);
  const left = over(-box.xMin, -plain.xMin);
  const right = over(box.xMax - d.advance, plain.xMax - own.advance);
  return left > 0 || right > 0 ? { left, right } : undefined;
}

/** Widens letters whose marks stand out, in every master by what stands out there; parts move along. */
export const widenForMarks = defineEdit(
  {
    name: 'widenForMarks',
    does: 'Widens letters whose marks stand out of them',
    reach: 'all masters',
    args: z.object({ glyphs: a.glyphs }),
  },
  (project, { glyphs }) => {
    const out: Record<GlyphId, Glyph> = {};
    for (const id of glyphs) {
      const glyph = project.glyphs[id];
      if (!glyph) continue;
      const changed = changedGlyphs(project, [id], (d, master) => {
        const over = standsOut(project, glyph, master);
        return over ? { ...shifted(d, over.left), advance: tidy(d.advance + over.left + over.right) } : d;
      });
      Object.assign(out, changed);
    }
    const count = Object.keys(out).length;
    return count === 0
      ? refused('Nothing stands out of these.')
      : edited({ ...project, glyphs: { ...project.glyphs, ...out } }, `Widened ${plural(count, 'letter')} for marks`);
  },
);
