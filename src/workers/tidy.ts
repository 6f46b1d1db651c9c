import type { GlyphId, MasterId, Project } from '../core/project/model';
import { type TidyName, type TidyProposal, tidyProposal } from '../core/tidying/operations';

/** Proposals for many glyphs, away from the pointer. */
export const tidyService = {
  tidy(
    project: Project,
    {
      operation,
      glyphs,
      masters,
      amount,
    }: { operation: TidyName; glyphs: readonly GlyphId[]; masters: readonly MasterId[]; amount: number | undefined },
    progress: (done: number, total: number) => void,
  ): TidyProposal[] {
    return glyphs.flatMap((id, i) => {
      if (i % 16 === 0) progress(i, glyphs.length);
      const glyph = project.glyphs[id];
      return glyph ? (tidyProposal(project, glyph, masters, operation, amount) ?? []) : [];
    });
  },
};

export type TidyService = typeof tidyService;
