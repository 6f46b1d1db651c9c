import { isKept, keepTake, restoreTake, type Take } from '../../../core/drawing/takes';
import { endTrial, run, runAside, say, useBench } from '../../state/bench';

/** The time now as takes are dated. */
export const now = (): string => new Date().toISOString();

/** Keeps a take of the drawing on the bench, beside the history: undoing leaves it. */
export function keepTakeNow(): void {
  const { glyph, master } = useBench.getState();
  if (glyph && runAside((p) => keepTake(p, { at: { glyph, master }, date: now() })))
    say('Kept a take of this drawing; it is under Takes.');
}

/** Brings a take back. What is there is kept as a take first, beside the history. */
export function bringBack(take: Take): void {
  endTrial();
  const { glyph, master, settled } = useBench.getState();
  if (!glyph || !settled) return;
  const at = { glyph, master };
  if (!isKept(settled.glyphs[glyph]!, master))
    runAside((p) => keepTake(p, { at, date: now(), name: `Before ${take.name}` }));
  run((p) => restoreTake(p, { at, take: take.id, date: now() }));
}
