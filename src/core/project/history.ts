import type { Project } from './model';
import { applyPatch, isEmptyPatch, type Patch, patchBetween } from './patch';

/** `at` is when it was done, in milliseconds since 1970; unknown for entries of older projects. */
export type Entry = { readonly sentence: string; readonly patch: Patch; readonly at?: number };

/**
 * Done and undone edits. Each entry has a serial, rising from 1 and never shifted: `position` is the serial of the newest
 * entry that is done, `first` and `last` those of the oldest and newest that are kept. `done` and `undone` hold the ones
 * at hand (newest last); the others are read from storage when asked for.
 */
export type History = {
  readonly done: readonly Entry[];
  readonly undone: readonly Entry[];
  readonly position: number;
  readonly first: number;
  readonly last: number;
};

export const EMPTY_HISTORY: History = { done: [], undone: [], position: 0, first: 1, last: 0 };

/** How many entries are kept in storage, and at hand. */
export const MOST_KEPT = 100_000;
export const MOST_AT_HAND = 1000;

/** Records the step from `before` to `after`, forgetting what was undone; nothing is recorded when they are the same. */
export function recorded(
  history: History,
  before: Project,
  after: Project,
  sentence: string,
  { most = MOST_KEPT, at }: { most?: number; at?: number } = {},
): History {
  const patch = patchBetween(before, after);
  if (isEmptyPatch(patch)) return history;
  const position = history.position + 1;
  return {
    done: [
      ...history.done.slice(-(Math.min(most, MOST_AT_HAND) - 1)),
      { sentence, patch, ...(at !== undefined && { at }) },
    ],
    undone: [],
    position,
    first: Math.max(history.first, position - most + 1),
    last: position,
  };
}

/** The history without its newest entry, for one that takes its place. */
export const withoutNewest = (history: History): History => ({
  ...history,
  done: history.done.slice(0, -1),
  position: history.position - 1,
});

/** Is there anything to take back, or to do again, at hand or in storage? */
export const canUndo = (h: History): boolean => h.position >= h.first;
export const canRedo = (h: History): boolean => h.position < h.last;

/** Serials of entries that must be read before the next undo or redo; undefined when they are at hand. */
export function missingFor(h: History, kind: 'undo' | 'redo', many = 100): { from: number; to: number } | undefined {
  if (kind === 'undo') {
    if (h.done.length > 0 || !canUndo(h)) return undefined;
    return { from: Math.max(h.first, h.position - many + 1), to: h.position };
  }
  if (h.undone.length > 0 || !canRedo(h)) return undefined;
  return { from: h.position + 1, to: Math.min(h.last, h.position + many) };
}

/**
 * The history with entries that were read, oldest first; undefined for one that cannot be read. Beyond such a one there
 * is no way, so that the history ends before it.
 */
export function withEntries(h: History, kind: 'undo' | 'redo', entries: readonly (Entry | undefined)[]): History {
  const gap = kind === 'undo' ? entries.lastIndexOf(undefined) : entries.indexOf(undefined);
  if (kind === 'undo') {
    const sound = entries.slice(gap + 1) as Entry[];
    return { ...h, done: sound, first: gap < 0 ? h.first : h.position - sound.length + 1 };
  }
  const sound = (gap < 0 ? entries : entries.slice(0, gap)) as Entry[];
  return { ...h, undone: [...sound].reverse(), last: gap < 0 ? h.last : h.position + sound.length };
}

export type HistoryStep = { project: Project; history: History; entry: Entry };

/** Takes the newest edit back; undefined when none is at hand. */
export function undo(project: Project, history: History): HistoryStep | undefined {
  const entry = history.done[history.done.length - 1];
  if (!entry) return undefined;
  return {
    project: applyPatch(project, entry.patch, 'backwards'),
    history: {
      ...history,
      done: history.done.slice(0, -1),
      undone: [...history.undone.slice(-(MOST_AT_HAND - 1)), entry],
      position: history.position - 1,
    },
    entry,
  };
}

/** Does the edit undone last again; undefined when none is at hand. */
export function redo(project: Project, history: History): HistoryStep | undefined {
  const entry = history.undone[history.undone.length - 1];
  if (!entry) return undefined;
  return {
    project: applyPatch(project, entry.patch),
    history: {
      ...history,
      done: [...history.done.slice(-(MOST_AT_HAND - 1)), entry],
      undone: history.undone.slice(0, -1),
      position: history.position + 1,
    },
    entry,
  };
}
