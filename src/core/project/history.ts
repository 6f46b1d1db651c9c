import type { Project } from './model';
import { applyPatch, isEmptyPatch, type Patch, patchBetween } from './patch';

export type Entry = { readonly sentence: string; readonly patch: Patch };

/** Done and undone edits, newest last. */
export type History = { readonly done: readonly Entry[]; readonly undone: readonly Entry[] };

export const EMPTY_HISTORY: History = { done: [], undone: [] };
const MOST_ENTRIES = 5000;

/** Records the step from `before` to `after`; nothing is recorded when they are the same. */
export function recorded(history: History, before: Project, after: Project, sentence: string): History {
  const patch = patchBetween(before, after);
  if (isEmptyPatch(patch)) return history;
  return { done: [...history.done.slice(-(MOST_ENTRIES - 1)), { sentence, patch }], undone: [] };
}

export type Step = { project: Project; history: History; entry: Entry };

/** Takes the newest edit back; undefined when there is none. */
export function undo(project: Project, history: History): Step | undefined {
  const entry = history.done[history.done.length - 1];
  if (!entry) return undefined;
  return {
    project: applyPatch(project, entry.patch, 'backwards'),
    history: { done: history.done.slice(0, -1), undone: [...history.undone, entry] },
    entry,
  };
}

/** Does the edit undone last again; undefined when there is none. */
export function redo(project: Project, history: History): Step | undefined {
  const entry = history.undone[history.undone.length - 1];
  if (!entry) return undefined;
  return {
    project: applyPatch(project, entry.patch),
    history: { done: [...history.done, entry], undone: history.undone.slice(0, -1) },
    entry,
  };
}
