import { keepTake } from '../../../core/drawing/takes';
import { run, say, useBench } from '../../state/bench';

/** The time now as takes are dated. */
export const now = (): string => new Date().toISOString();

/** Keeps a take of the drawing on the bench. */
export function keepTakeNow(): void {
  const { glyph, master } = useBench.getState();
  if (glyph && run((p) => keepTake(p, { at: { glyph, master }, date: now() })))
    say('Kept a take of this drawing; it is under Takes.');
}
