import { z } from 'zod';
import * as a from '../project/arguments';
import { defineEdit, edited, plural, refused } from '../project/edit';
import { codePointsForName } from '../project/glyphNames';
import type { Glyph, GlyphId, Master, MasterId, Project } from '../project/model';
import { isTabular } from './figures';
import { followOf } from './follows';
import { measureFor, proposedSides } from './optical';
import { ManySides, sidesOf } from './sides';

/** Sides that are proposed for a glyph, with what it has now. */
const fitProposal = z.object({
  glyph: a.glyph,
  left: a.number,
  right: a.number,
  now: z.object({ left: a.number, right: a.number }),
});
export type FitProposal = z.infer<typeof fitProposal>;

/** Sets that the controls say nothing of: raised, lowered and old-style figures. */
const OF_ITS_OWN = /superior|inferior|\.(?:numr|dnom|sups|sinf|subs|onum)$/;

/** Letters and figures, their variants too: marks have no width, and signs, arrows and small raised figures their own rules. */
function isSpacedByEye(glyph: Glyph): boolean {
  const code = glyph.unicodes[0] ?? codePointsForName(glyph.name)[0];
  if (code === undefined || OF_ITS_OWN.test(glyph.name)) return false;
  return /^(?![\p{Lm}ªº])[\p{L}\p{Nd}]/u.test(String.fromCodePoint(code));
}

/**
 * Sides for glyphs from those that are fixed (n, o, H, O at least), by the white that the fixed ones leave. Glyphs that are kept
 * are not touched, sides that follow another stay with it, composites with their base; figures of one width keep it.
 */
export function proposeFit(
  project: Project,
  masterId: MasterId,
  glyphs: readonly GlyphId[],
  keep: ReadonlySet<GlyphId>,
): FitProposal[] {
  const master = project.masters.find((m) => m.id === masterId)!;
  return glyphs.flatMap((id) => {
    const glyph = project.glyphs[id];
    const drawing = glyph?.drawings[masterId];
    if (!glyph || !drawing || keep.has(id) || drawing.contours.length === 0 || !isSpacedByEye(glyph)) return [];
    const now = sidesOf(project, glyph, masterId);
    const measure = measureFor(project, glyph, master as Master);
    const wanted = measure && proposedSides(project, glyph, masterId, measure);
    if (!wanted || !('left' in now)) return [];
    let { left, right } = wanted;
    if (isTabular(glyph.name)) {
      const spare = now.left + now.right;
      left = Math.round((spare + left - right) / 2);
      right = spare - left;
    }
    if (followOf(glyph, 'left', masterId)) left = now.left;
    if (followOf(glyph, 'right', masterId)) right = now.right;
    return left === now.left && right === now.right
      ? []
      : [{ glyph: id, left, right, now: { left: now.left, right: now.right } }];
  });
}

/** Takes proposals over as one step. */
export const takeFit = defineEdit(
  {
    name: 'takeFit',
    does: 'Takes proposed sides over',
    reach: 'one master',
    args: z.object({ master: a.master, proposals: z.array(fitProposal).readonly() }),
  },
  (project, { master, proposals }) => {
    const sides = new ManySides(project);
    for (const { glyph, left, right } of proposals) {
      const fault = sides.set({ at: { glyph, master }, left, right });
      if (fault) return fault;
    }
    if (proposals.length === 0) return refused('There is nothing to take over.');
    return edited(
      sides.done(),
      `Fitted ${proposals.length === 1 ? project.glyphs[proposals[0]!.glyph]?.name : plural(proposals.length, 'glyph')}`,
    );
  },
);
