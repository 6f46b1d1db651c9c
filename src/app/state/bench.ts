import { create } from 'zustand';
import type { PointKey } from '../../core/drawing/points';
import type { Outcome } from '../../core/project/edit';
import { EMPTY_HISTORY, type History, recorded, redo, undo } from '../../core/project/history';
import type { GlyphId, MasterId, Project } from '../../core/project/model';
import { applyPatch, type Patch, patchBetween } from '../../core/project/patch';
import { defaultMaster } from '../../core/project/queries';
import { Saver, type SaveState } from './saver';

/** What is open: the document, its history, and the interface state that is not part of it. */
export type BenchState = {
  projectId: string;
  /** The document as shown, a running gesture included. */
  project: Project | undefined;
  /** The document without the running gesture. */
  settled: Project | undefined;
  history: History;
  readOnly: boolean;
  save: SaveState;
  notice: string | undefined;
  master: MasterId;
  glyph: GlyphId | undefined;
  selection: ReadonlySet<PointKey>;
};

export const useBench = create<BenchState>(() => ({
  projectId: '',
  project: undefined,
  settled: undefined,
  history: EMPTY_HISTORY,
  readOnly: false,
  save: { kind: 'saved', at: 0 },
  notice: undefined,
  master: '',
  glyph: undefined,
  selection: new Set(),
}));

const set = useBench.setState;
const get = useBench.getState;
let saver: Saver | undefined;

/** Shows an opened project. */
export function showProject(projectId: string, project: Project, history: History, readOnly: boolean): void {
  saver = readOnly ? undefined : new Saver(projectId, (save) => set({ save }));
  // The same project shown again (another tab let go of it) keeps its glyph and master.
  const shown = get();
  const again = shown.projectId === projectId ? shown : undefined;
  const glyph = again?.glyph && project.glyphs[again.glyph] ? again.glyph : undefined;
  const master = project.masters.some((m) => m.id === again?.master) ? again!.master : defaultMaster(project).id;
  const firstDrawn =
    project.glyphOrder.find((id) => project.glyphs[id]!.unicodes.includes(0x6e)) ??
    project.glyphOrder.find((id) => project.glyphs[id]!.unicodes.length > 0 && project.glyphs[id]!.name !== 'space');
  set({
    projectId,
    project,
    settled: project,
    history,
    readOnly,
    master,
    glyph: glyph ?? firstDrawn,
    selection: new Set(),
    save: { kind: 'saved', at: Date.now() },
    notice: undefined,
  });
}

/** Leaves the project; what is not written yet is finished first. */
export async function leaveProject(): Promise<void> {
  const leaving = saver;
  saver = undefined;
  set({ project: undefined, settled: undefined, projectId: '' });
  await leaving?.finished();
}

const say = (notice: string) => set({ notice });
export const clearNotice = () => set({ notice: undefined });
export { say };

export const READ_ONLY = 'This project is open in another tab; it can be changed only there.';

/** Edits of the same kind within this time join into one step of the history, for typing and nudging. */
const MERGE_MS = 1500;
let lastMerge: { key: string; at: number } | undefined;

/**
 * Runs an edit and records it. With `merge`, it joins the step before when that had the same key a moment ago. A refused
 * edit changes nothing and its reason is shown. Returns whether it was done.
 */
export function run(outcomeOf: (project: Project) => Outcome, merge?: string): boolean {
  const { settled, readOnly } = get();
  if (!settled) return false;
  if (readOnly) {
    say(READ_ONLY);
    return false;
  }
  const outcome = outcomeOf(settled);
  if (!outcome.ok) {
    set({ project: settled });
    say(outcome.reason);
    return false;
  }
  settle(outcome.project, outcome.sentence, merge);
  return true;
}

function settle(next: Project, sentence: string, merge?: string): void {
  const { settled, history } = get();
  const before = settled!;
  const now = performance.now();
  const joins =
    merge !== undefined && lastMerge?.key === merge && now - lastMerge.at < MERGE_MS && history.done.length > 0;
  lastMerge = merge === undefined ? undefined : { key: merge, at: now };
  const last = history.done[history.done.length - 1];
  const base = joins && last ? applyPatch(before, last.patch, 'backwards') : before;
  const older = joins ? { done: history.done.slice(0, -1), undone: [] } : history;
  const grown = recorded(older, base, next, sentence);
  if (grown === older && !joins) {
    set({ project: next, settled: next });
    return;
  }
  set({ project: next, settled: next, history: grown, notice: undefined });
  const entry = grown.done[grown.done.length - 1];
  saver?.push(
    patchBetween(before, next),
    'forwards',
    grown.done.length,
    entry && grown !== older ? [{ at: grown.done.length - 1, entry }] : [],
    next,
  );
}

/** Shows the result of an edit during a gesture, without recording it. A refused edit leaves the document as it was. */
export function preview(outcomeOf: (project: Project) => Outcome): boolean {
  const { settled, readOnly } = get();
  if (!settled || readOnly) return false;
  const outcome = outcomeOf(settled);
  set({ project: outcome.ok ? outcome.project : settled });
  return outcome.ok;
}

/** Drops the running gesture. */
export function cancelPreview(): void {
  set({ project: get().settled });
}

function step(kind: 'undo' | 'redo'): void {
  const { settled, history, readOnly } = get();
  if (!settled || readOnly) return;
  const result = kind === 'undo' ? undo(settled, history) : redo(settled, history);
  if (!result) return;
  lastMerge = undefined;
  const { project, glyph, master } = { ...get(), project: result.project };
  set({
    project,
    settled: project,
    history: result.history,
    selection: new Set(),
    glyph: glyph && project.glyphs[glyph] ? glyph : undefined,
    master: project.masters.some((m) => m.id === master) ? master : defaultMaster(project).id,
    notice: `${kind === 'undo' ? 'Undone' : 'Done again'}: ${result.entry.sentence}`,
  });
  saver?.push(
    result.entry.patch as Patch,
    kind === 'undo' ? 'backwards' : 'forwards',
    result.history.done.length,
    [],
    project,
  );
}

export const undoEdit = () => step('undo');
export const redoEdit = () => step('redo');

export const chooseGlyph = (glyph: GlyphId | undefined) => set({ glyph, selection: new Set() });
export const chooseMaster = (master: MasterId) => set({ master, selection: new Set() });
export const select = (selection: ReadonlySet<PointKey>) => set({ selection });

/** Steps to the glyph before or after in the project's order. */
export function stepGlyph(by: 1 | -1): void {
  const { project, glyph } = get();
  if (!project) return;
  const at = glyph ? project.glyphOrder.indexOf(glyph) : -1;
  const n = project.glyphOrder.length;
  chooseGlyph(project.glyphOrder[(at + by + n) % n]);
}

/** Steps to the master before or after. */
export function stepMaster(by: 1 | -1): void {
  const { project, master } = get();
  if (!project) return;
  const at = project.masters.findIndex((m) => m.id === master);
  const n = project.masters.length;
  chooseMaster(project.masters[(at + by + n) % n]!.id);
}

/** Everything is written (used before leaving the page). */
export const savesFinished = (): Promise<void> => saver?.finished() ?? Promise.resolve();
