import { type Result, refused, success } from '../../../core/base/result';
import type { GlyphId, Project } from '../../../core/project/model';
import { patchBetween, type Step, stepsOf } from '../../../core/project/patch';
import type { ScriptRan } from '../../../workers/script';

/**
 * The steps to what is taken of a run: glyphs that are left stay as they were; without the rest nothing is added or removed,
 * and no other part changes. A refusal where glyphs that are taken would use some that are not.
 */
export function takenOf(
  before: Project,
  after: Project,
  { changed, removed }: Pick<ScriptRan, 'changed' | 'removed'>,
  left: ReadonlySet<GlyphId>,
  rest: boolean,
): Result<{ steps: readonly Step[] }> {
  const base = rest ? after : before;
  const glyphs: Record<GlyphId, Project['glyphs'][string]> = { ...base.glyphs };
  for (const id of changed) glyphs[id] = (left.has(id) ? before : after).glyphs[id]!;
  const wanting = changed.find((id) =>
    Object.values(glyphs[id]!.drawings).some((d) => d.components.some((c) => !glyphs[c.glyph])),
  );
  if (wanting !== undefined)
    return refused(
      `${before.glyphs[wanting]!.name} uses glyphs that ${removed.length > 0 && rest ? 'the script removes' : 'are not taken'}: tick what goes with it.`,
    );
  if (!rest && left.size === changed.length) return refused('Nothing is ticked.');
  return success({ steps: stepsOf(patchBetween(before, { ...base, glyphs })) });
}
