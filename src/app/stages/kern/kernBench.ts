import { create } from 'zustand';
import type { GlyphId } from '../../../core/project/model';

export const MODES = [
  { value: 'queue', text: 'Queue', hint: 'Pairs worth a look, the worst first' },
  { value: 'words', text: 'Words', hint: 'A list of words or pairs, one after the other' },
  { value: 'pairs', text: 'Pairs', hint: 'All pairs that have a value' },
  { value: 'touch', text: 'Touching', hint: 'Pairs whose shapes meet or come too near' },
  { value: 'map', text: 'Map', hint: 'Groups by groups' },
] as const;
export type Mode = (typeof MODES)[number]['value'];
export type Pair = { first: GlyphId; second: GlyphId };

/** What is looked at in Kern; none of it is part of the document. */
export const useKernBench = create<{ mode: Mode; pair: Pair | undefined; line: number }>(() => ({ mode: 'queue', pair: undefined, line: 0 }));
export const setMode = (mode: Mode): void => useKernBench.setState({ mode });
export const choosePair = (pair: Pair | undefined): void => useKernBench.setState({ pair });
const keyOf = (projectId: string): string => `wendril-kern-line ${projectId}`;

/** Goes to a line of the word list; where one was is remembered in this browser, project by project. */
export function setLine(line: number, projectId: string): void {
  useKernBench.setState({ line });
  localStorage.setItem(keyOf(projectId), String(line));
}

/** Takes up the word list where it was left. */
export function recallLine(projectId: string, lines: number): void {
  const kept = Number(localStorage.getItem(keyOf(projectId)) ?? 0);
  useKernBench.setState({ line: Number.isInteger(kept) && kept >= 0 && kept < lines ? kept : 0 });
}

/** Units that a key steps a value by. */
export const STEP = 5;

/** A value as it is shown, with a true minus. */
export const signed = (v: number): string => String(v).replace('-', '−');
