import { create } from 'zustand';
import { recalled, remember } from '../../../browser/remembered';
import type { GlyphId } from '../../../core/project/model';

export const MODES = [
  { value: 'queue', text: 'Queue', hint: 'Pairs worth a look, the worst first' },
  { value: 'words', text: 'Words', hint: 'A list of words or pairs, one after the other' },
  { value: 'pairs', text: 'Pairs', hint: 'All values as a table: filter, sort, change, take away' },
  { value: 'wrong', text: 'Collisions', hint: 'Pairs whose shapes meet or come too near, and pairs that leave holes' },
  { value: 'map', text: 'Map', hint: 'Groups by groups' },
] as const;
export type Mode = (typeof MODES)[number]['value'];
/** What the list of collisions shows. */
export type Wrong = 'touch' | 'hole';
export type Pair = { first: GlyphId; second: GlyphId };

/** What is looked at in Kern; none of it is part of the document. */
export const useKernBench = create<{
  mode: Mode;
  pair: Pair | undefined;
  line: number;
  fromGalley: boolean;
  wrong: Wrong;
  order: readonly Pair[];
  showLeft: boolean;
}>(() => ({
  mode: 'queue',
  pair: undefined,
  line: 0,
  fromGalley: false,
  wrong: 'touch',
  order: [],
  showLeft: false,
}));
export const setMode = (mode: Mode): void => useKernBench.setState({ mode });
export const setWrong = (wrong: Wrong): void => useKernBench.setState({ wrong });
/** Whether the queue shows the pairs that were left for good. */
export const setShowLeft = (showLeft: boolean): void => useKernBench.setState({ showLeft, pair: undefined });
export const setFromGalley = (fromGalley: boolean): void => useKernBench.setState({ fromGalley });
/** Pairs as the table of values has them, one below the other. */
export const setOrder = (order: readonly Pair[]): void => useKernBench.setState({ order });
export const choosePair = (pair: Pair | undefined): void => useKernBench.setState({ pair });
const keyOf = (projectId: string): string => `wendril-kern-line ${projectId}`;

/** Goes to a line of the word list; where one was is remembered in this browser, project by project. */
export function setLine(line: number, projectId: string): void {
  useKernBench.setState({ line });
  remember(keyOf(projectId), String(line));
}

/** Takes up the word list where it was left. */
export function recallLine(projectId: string, lines: number): void {
  const kept = Number(recalled(keyOf(projectId)) ?? 0);
  useKernBench.setState({ line: Number.isInteger(kept) && kept >= 0 && kept < lines ? kept : 0 });
}
