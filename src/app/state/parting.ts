import type { GlyphId } from '../../core/project/model';
import { say, useBench } from './bench';
import { measurer } from './followers';
import { type MadeBeside, takeMade } from './steps';

/** Parts what crosses between the masters of glyphs: worked out beside the pointer, done as one step if nothing was changed meanwhile. */
export async function partBeside(glyphs: readonly GlyphId[]): Promise<void> {
  const before = useBench.getState().settled;
  try {
    const made = (await (await measurer.synced()).parted(glyphs)) as MadeBeside;
    takeMade(before, made, 'press again to part what crosses now.');
  } catch (error) {
    say(error instanceof Error ? error.message : String(error));
  }
}
