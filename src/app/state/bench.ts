import { create } from 'zustand';
import type { PointKey } from '../../core/drawing/points';
import { type Outcome, withGlyph } from '../../core/project/edit';
import {
  canRedo,
  canUndo,
  EMPTY_HISTORY,
  type Entry,
  type History,
  missingFor,
  recorded,
  redo,
  undo,
  withEntries,
  withoutNewest,
} from '../../core/project/history';
import type { Glyph, GlyphId, MasterId, Project } from '../../core/project/model';
import { applyPatch, type Patch, patchBetween, stepsOf } from '../../core/project/patch';
import { defaultMaster, glyphForCodePoint, masterOf } from '../../core/project/queries';
import { isWaypointId, waypointId, waypointOf } from '../../core/project/waypoints';
import type { Opened, Packed, ProjectRecords } from '../../core/storage/records';
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
  /** A place between the masters that is looked at, in design units: the galley shows the family there. */
  visit: Readonly<Record<string, number>> | undefined;
  /** A second place, in design units, that is kept in sight: a line of the galley, in Fit, Kern and Draw beside what is worked on. */
  watched: Readonly<Record<string, number>> | undefined;
  glyph: GlyphId | undefined;
  selection: ReadonlySet<PointKey>;
  /** Something that is shown in place of the drawing without being it: nothing is edited meanwhile. */
  trial: Trial | undefined;
  /** An edit was asked for while something is tried. */
  trialAsked: boolean;
};

/** What is tried: a take, by id and name; `adopt` makes it the drawing. */
export type Trial = { id: string; name: string; adopt: () => void };

export const useBench = create<BenchState>(() => ({
  projectId: '',
  project: undefined,
  settled: undefined,
  history: EMPTY_HISTORY,
  readOnly: false,
  save: { kind: 'saved', at: 0 },
  notice: undefined,
  master: '',
  visit: undefined,
  watched: undefined,
  glyph: undefined,
  selection: new Set(),
  trial: undefined,
  trialAsked: false,
}));

const set = useBench.setState;
const get = useBench.getState;
let saver: Saver | undefined;

/** What lies in storage of the project that is shown, for workers to read by themselves. */
let packed: Packed | undefined;
export const packedProject = (): Packed | undefined => packed;

/** Shows a project that was opened; what is changed in it goes on through the same records. */
export function showProject(
  projectId: string,
  { project, history, packed: stored }: Pick<Opened, 'project' | 'history'> & { packed?: Packed },
  records: ProjectRecords | undefined,
): void {
  const readOnly = records === undefined;
  saver?.stop();
  saver = records && new Saver(projectId, records, (save) => set({ save }));
  packed = stored;
  stepping = [];
  // The same project shown again (another tab let go of it) keeps its glyph and master.
  const shown = get();
  const again = shown.projectId === projectId ? shown : undefined;
  const glyph = again?.glyph && project.glyphs[again.glyph] ? again.glyph : undefined;
  const master = project.masters.some((m) => m.id === again?.master) ? again!.master : defaultMaster(project).id;
  const n = glyphForCodePoint(project, 0x6e)?.id;
  const firstDrawn = n ?? project.glyphOrder.find((id) => (project.glyphs[id]?.unicodes[0] ?? 0) > 0x20);
  set({
    projectId,
    project,
    settled: project,
    history,
    readOnly,
    master,
    glyph: glyph ?? firstDrawn,
    selection: new Set(),
    watched: again && project.axes.length > 0 ? shown.watched : undefined,
    trial: undefined,
    trialAsked: false,
    save: { kind: 'saved', at: Date.now() },
    notice: undefined,
  });
}

/** Leaves the project; what is not written yet is written first. */
export async function leaveProject(): Promise<void> {
  const leaving = saver;
  saver = undefined;
  packed = undefined;
  set({ project: undefined, settled: undefined, projectId: '' });
  await leaving?.finished();
  leaving?.stop();
}

/** Another tab has taken the project: from here on it is only looked at. */
export function becomeReader(): void {
  saver?.stop();
  saver = undefined;
  set({ readOnly: true, project: get().settled });
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
  if (triedNow()) return false;
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
  const last = history.done[history.done.length - 1];
  const merged = merge !== undefined && lastMerge?.key === merge && now - lastMerge.at < MERGE_MS && last !== undefined;
  lastMerge = merge === undefined ? undefined : { key: merge, at: now };
  const base = merged ? applyPatch(before, last.patch, 'backwards') : before;
  const older = merged ? withoutNewest(history) : history;
  const grown = recorded(older, base, next, sentence, { at: Date.now() });
  if (grown === older && !merged) {
    set({ project: next, settled: next });
    return;
  }
  set({ project: next, settled: next, history: grown, notice: undefined });
  const entry = grown === older ? undefined : grown.done[grown.done.length - 1];
  const steps = stepsOf(patchBetween(before, next));
  saver?.push({ steps, history: grown, entry, merged }, { project: next, history: grown });
}

/**
 * Runs an edit that stands beside the history: undoing what came before or after leaves it as it is. A refused one changes
 * nothing and its reason is shown.
 */
export function runAside(outcomeOf: (project: Project) => Outcome): boolean {
  const { settled, readOnly, history, project } = get();
  if (!settled) return false;
  const outcome = readOnly ? undefined : outcomeOf(settled);
  if (!outcome?.ok) {
    say(outcome?.reason ?? READ_ONLY);
    return false;
  }
  const next = outcome.project;
  set({ settled: next, ...(project === settled ? { project: next } : {}), notice: undefined });
  saver?.push({ steps: stepsOf(patchBetween(settled, next)), history, entry: undefined }, { project: next, history });
  return true;
}

/** Shows an edit's result as something tried, until it is adopted or ended. */
export function tryOut(trial: Trial, outcomeOf: (project: Project) => Outcome): void {
  endTrial();
  if (preview(outcomeOf)) set({ trial });
}

/** What is tried goes; the drawing is there again. */
export function endTrial(): void {
  if (get().trial) set({ trial: undefined, trialAsked: false, project: get().settled });
}

/** Is something tried, so that an edit must wait for an answer? */
function triedNow(): boolean {
  const { trial } = get();
  if (trial) set({ trialAsked: true });
  return trial !== undefined;
}

/** Goes on trying, the edit not done. */
export const keepTrying = (): void => set({ trialAsked: false });

/** Shows the result of an edit during a gesture, without recording it. A refused edit leaves the document as it was. */
export function preview(outcomeOf: (project: Project) => Outcome): boolean {
  const { settled, readOnly } = get();
  if (!settled || readOnly || triedNow()) return false;
  const outcome = outcomeOf(settled);
  set({ project: outcome.ok ? outcome.project : settled });
  return outcome.ok;
}

/** Drops the running gesture. */
export function cancelPreview(): void {
  if (!get().trial) set({ project: get().settled });
}

type Kind = 'undo' | 'redo';
/** Steps asked for while earlier ones are read from storage. */
let stepping: Kind[] = [];

function step(kind: Kind): void {
  if (stepping.length > 0) stepping.push(kind);
  else if (!stepAtHand(kind)) void stepFromStorage(kind);
}

/** Reads the entries that a step needs, then does it and those that were asked for meanwhile. */
async function stepFromStorage(kind: Kind): Promise<void> {
  const { projectId } = get();
  stepping = [kind];
  for (let next = stepping[0]; next; next = stepping[0]) {
    if (!stepAtHand(next)) {
      const { history } = get();
      const missing = missingFor(history, next);
      const entries = missing ? await saver?.records.entries(missing.from, missing.to) : undefined;
      if (get().projectId !== projectId) return;
      if (!entries) break;
      const longer = withEntries(history, next, entries);
      set({ history: longer });
      if (missingFor(longer, next) || !(next === 'undo' ? canUndo(longer) : canRedo(longer))) {
        say('Steps beyond this one could not be read; they cannot be taken back.');
        break;
      }
      continue;
    }
    stepping.shift();
  }
  stepping = [];
}

/** Entries of the history by their serials, from storage, oldest first; undefined for one that cannot be read. */
export const entriesOf = async (from: number, to: number): Promise<readonly (Entry | undefined)[]> =>
  (await saver?.records.entries(from, to)) ?? [];

/** Undoes or does again what is at hand; false where entries must be read first. */
function stepAtHand(kind: Kind): boolean {
  const { settled, history, readOnly } = get();
  if (!settled || readOnly) return true;
  endTrial();
  const result = kind === 'undo' ? undo(settled, history) : redo(settled, history);
  if (!result) return missingFor(history, kind) === undefined;
  lastMerge = undefined;
  const { project, glyph, master } = { ...get(), project: result.project };
  set({
    project,
    settled: project,
    history: result.history,
    selection: new Set(),
    ...whereItWas(project, result.entry.patch, { glyph, master }),
    notice: `${kind === 'undo' ? 'Undone' : 'Done again'}: ${result.entry.sentence}`,
  });
  const steps = stepsOf(result.entry.patch, kind === 'undo' ? 'backwards' : 'forwards');
  saver?.push({ steps, history: result.history, entry: undefined }, { project, history: result.history });
  return true;
}

/** Where a step acted, so that it is seen: the glyph and master at hand if it was there, else the first that it touched. */
function whereItWas(
  project: Project,
  patch: Patch,
  { glyph, master }: { glyph: GlyphId | undefined; master: MasterId },
): { glyph: GlyphId | undefined; master: MasterId } {
  const touched = patch.filter(({ path }) => path[0] === 'glyphs' && project.glyphs[path[1]!]);
  const here = touched.filter(({ path }) => path[1] === glyph);
  const own = here.length > 0 ? here : touched.filter(({ path }) => path[1] === touched[0]?.path[1]);
  const goal = (own[0]?.path[1] as GlyphId | undefined) ?? (glyph && project.glyphs[glyph] ? glyph : undefined);
  const masters = new Set(own.flatMap(({ path }) => (path[2] === 'drawings' && path[3] ? [String(path[3])] : [])));
  const there = masters.size === 0 || masters.has(master) ? master : [...masters][0]!;
  return { glyph: goal, master: masterOf(project, there) ? there : defaultMaster(project).id };
}

export const undoEdit = () => step('undo');
export const redoEdit = () => step('redo');

export const chooseGlyph = (glyph: GlyphId | undefined) => {
  endTrial();
  set({ glyph, selection: new Set() });
};
export const chooseMaster = (master: MasterId) => {
  endTrial();
  set({ master, visit: undefined, selection: new Set() });
};
/** Looks at the family at a place between its masters; nothing ends that. */
export const visitPlace = (visit: BenchState['visit']) => set({ visit });
/** Keeps a place in sight beside what is worked on, or lets it go. */
export const watchPlace = (watched: BenchState['watched']) => set({ watched });
export const select = (selection: ReadonlySet<PointKey>) => set({ selection });

/** Steps to the glyph before or after in the project's order. */
export function stepGlyph(by: 1 | -1): void {
  const { project, glyph } = get();
  if (!project) return;
  const at = glyph ? project.glyphOrder.indexOf(glyph) : -1;
  const n = project.glyphOrder.length;
  chooseGlyph(project.glyphOrder[(at + by + n) % n]);
}

/** Ids of a glyph’s waypoints. */
const waypointsOf = (project: Project, glyph: GlyphId | undefined): MasterId[] =>
  (project.glyphs[glyph ?? '']?.waypoints ?? []).map((w) => waypointId(w.place));

/** Where only masters are worked on a waypoint is left. */
export function leaveWaypoint(): void {
  const { project, master } = get();
  if (project && isWaypointId(master)) chooseMaster(defaultMaster(project).id);
}

/** Steps to the master before or after, the glyph’s waypoints behind the masters. */
export function stepMaster(by: 1 | -1): void {
  const { project, glyph, master } = get();
  if (!project) return;
  const all = [...project.masters.map((m) => m.id), ...waypointsOf(project, glyph)];
  const at = all.indexOf(master);
  chooseMaster(all[(at + by + all.length) % all.length]!);
}

/** Everything is written (used before leaving the page). */
export const savesFinished = (): Promise<boolean> => saver?.finished() ?? Promise.resolve(true);

/** Tries at once to store what waits. */
export const tryToSave = (): Promise<void> => saver?.tryAgain() ?? Promise.resolve();

/** Lets go of all history but the newest steps, to make room. */
export async function forgetHistory(keep: number): Promise<void> {
  const { history } = get();
  const first = Math.max(history.first, history.position - keep + 1);
  const shorter = { ...history, first, done: history.done.slice(-keep), undone: [], last: history.position };
  set({ history: shorter });
  saver?.push({ steps: [], history: shorter, entry: undefined }, { project: get().settled!, history: shorter });
  await saver?.records.forgetBefore(first, history.last);
}

/** The last state of a glyph that storage can still tell. */
async function lastGoodGlyph(id: GlyphId): Promise<Glyph | undefined> {
  const { settled } = get();
  return settled && saver?.records.lastGood(id, settled);
}

/** Brings glyphs back as they were last readable, as one step. Returns how many there were. */
export async function bringBack(ids: readonly GlyphId[]): Promise<number> {
  const found = (await Promise.all(ids.map(lastGoodGlyph))).filter((g) => g !== undefined);
  if (found.length > 0)
    run((p) => ({
      ok: true,
      project: found.reduce(withGlyph, p),
      sentence: `Brought ${found.length === 1 ? found[0]!.name : `${found.length} glyphs`} back as last stored`,
    }));
  return found.length;
}

// A master that went, by an edit or an undo, is shown no longer.
useBench.subscribe(({ project, glyph, master }) => {
  const isShown = (p: Project, id: MasterId) =>
    p.masters.some((m) => m.id === id) || (glyph !== undefined && waypointOf(p.glyphs[glyph]!, id) !== undefined);
  if (project && !isShown(project, master))
    useBench.setState({ master: defaultMaster(project).id, selection: new Set() });
});
