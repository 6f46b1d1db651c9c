import type { Result } from '../../core/base/result';
import type { GlyphId } from '../../core/project/model';
import { applySteps, type Step } from '../../core/project/patch';
import { run, say, useBench } from './bench';
import { measurer } from './followers';

/** Parts what crosses between the masters of glyphs: worked out beside the pointer, done as one step if nothing was changed meanwhile. */
export async function partBeside(glyphs: readonly GlyphId[]): Promise<void> {
  const before = useBench.getState().settled;
  try {
    const done = (await (await measurer.synced()).parted(glyphs)) as Result<{
      steps: readonly Step[];
      sentence: string;
    }>;
    if (!done.ok) return say(done.reason);
    if (useBench.getState().settled !== before)
      return say('The project was changed meanwhile; press again to part what crosses now.');
    run((p) => ({ ok: true, project: applySteps(p, done.value.steps), sentence: done.value.sentence }));
  } catch (error) {
    say(error instanceof Error ? error.message : String(error));
  }
}
