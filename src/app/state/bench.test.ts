import { buildStarter } from '../../../demo/starter';
import { movePoints } from '../../core/drawing/edits';
import { keepTake, restoreTake } from '../../core/drawing/takes';
import { refused } from '../../core/project/edit';
import { setGalleyText } from '../../core/project/edits';
import { EMPTY_HISTORY, type Entry } from '../../core/project/history';
import { glyphNamed } from '../../core/project/queries';
import type { ProjectRecords, Write } from '../../core/storage/records';
import {
  becomeReader,
  cancelPreview,
  chooseGlyph,
  endTrial,
  leaveProject,
  preview,
  redoEdit,
  run,
  runAside,
  savesFinished,
  select,
  showProject,
  stepGlyph,
  stepMaster,
  tryOut,
  undoEdit,
  useBench,
} from './bench';

const saved: { position: number; entry: boolean; merged: boolean }[] = [];
let failing = false;
let there = true;
let wholes = 0;
const kept = new Map<number, Entry>();
const records = {
  isThere: async () => there,
  create: async () => {
    wholes++;
    there = true;
  },
  journal: async ({ history, entry, merged }: Write) => {
    if (failing) throw Object.assign(new Error('full'), { name: 'QuotaExceededError' });
    saved.push({ position: history.position, entry: entry !== undefined, merged: merged === true });
    if (entry) kept.set(history.position, entry);
  },
  checkpoint: async () => {},
  entries: async (from: number, to: number) => Array.from({ length: to - from + 1 }, (_, i) => kept.get(from + i)),
} as unknown as ProjectRecords;
jest.mock('../../browser/stores', () => ({ storageSentence: () => 'The browser’s storage is full.' }));
jest.mock('./library', () => ({ touchProject: async () => {} }));

const demo = buildStarter();
const n = glyphNamed(demo, 'n')!.id;
const state = () => useBench.getState();
const nudge = (dx: number) => (p: typeof demo) =>
  movePoints(p, { at: { glyph: n, master: 'm1' }, points: ['0:0'], dx, dy: 0 });
const x = () => state().project!.glyphs[n]!.drawings.m1!.contours[0]!.points[0]!.x;
const start = glyphNamed(demo, 'n')!.drawings.m1!.contours[0]!.points[0]!.x;

const opened = { project: demo, history: EMPTY_HISTORY };

beforeEach(() => {
  jest.useRealTimers();
  there = true;
  wholes = 0;
  kept.clear();
  saved.length = 0;
  failing = false;
  useBench.setState({ projectId: '' });
  showProject('p', opened, records);
});

test('a gesture is shown as it runs and recorded once, from where it began', () => {
  for (const dx of [3, 9, 14]) preview(nudge(dx));
  expect(x()).toBe(start + 14);
  expect(state().history.done).toHaveLength(0);
  expect(state().settled).toBe(demo);
  run(nudge(14));
  expect(x()).toBe(start + 14);
  expect(state().history.done.map((e) => e.sentence)).toEqual(['Moved 1 point in n, Regular']);
  preview(nudge(99));
  cancelPreview();
  expect(x()).toBe(start + 14);
});

test('undo and redo go through every step and are saved', async () => {
  run(nudge(1));
  run(nudge(10));
  undoEdit();
  expect(x()).toBe(start + 1);
  expect(state().notice).toBe('Undone: Moved 1 point in n, Regular');
  undoEdit();
  undoEdit();
  expect(state().project).toEqual(demo);
  redoEdit();
  redoEdit();
  redoEdit();
  expect(x()).toBe(start + 11);
  await savesFinished();
  expect(saved.map((s) => s.position)).toEqual([1, 2, 1, 0, 1, 2]);
  expect(saved.map((s) => s.entry)).toEqual([true, true, false, false, false, false]);
  expect(state().save.kind).toBe('saved');
});

test('typing joins into one step; another edit or a pause ends it', () => {
  let now = 10_000;
  const clock = jest.spyOn(performance, 'now').mockImplementation(() => now);
  for (const text of ['G', 'Gr', 'Gri']) run((p) => setGalleyText(p, { text }), 'galley');
  expect(state().history.done).toHaveLength(1);
  run(nudge(1));
  run((p) => setGalleyText(p, { text: 'Grif' }), 'galley');
  now += 5000;
  run((p) => setGalleyText(p, { text: 'Griff' }), 'galley');
  expect(state().history.done).toHaveLength(4);
  undoEdit();
  undoEdit();
  undoEdit();
  expect(state().project!.texts.galley).toBe('Gri');
  undoEdit();
  expect(state().project).toEqual(demo);
  clock.mockRestore();
});

test('a refused edit changes nothing and says why', () => {
  preview(nudge(5));
  expect(run(() => refused('No room.'))).toBe(false);
  expect(state().notice).toBe('No room.');
  expect(state().project).toBe(demo);
});

test('a project that is only looked at cannot be changed', () => {
  showProject('p', opened, undefined);
  expect(run(nudge(5))).toBe(false);
  expect(preview(nudge(5))).toBe(false);
  expect(state().notice).toMatch(/open in another tab/);
  expect(x()).toBe(start);
});

test('full storage is said; the next edit tries again and nothing is skipped', async () => {
  failing = true;
  run(nudge(1));
  await savesFinished();
  expect(state().save).toEqual({ kind: 'failed', sentence: 'The browser’s storage is full.', waiting: 1 });
  failing = false;
  run(nudge(2));
  await savesFinished();
  expect(saved.map((s) => s.position)).toEqual([1, 2]);
  expect(state().save.kind).toBe('saved');
});

test('what could not be stored is tried again by itself', async () => {
  jest.useFakeTimers();
  failing = true;
  run(nudge(1));
  await jest.advanceTimersByTimeAsync(10);
  expect(state().save.kind).toBe('failed');
  failing = false;
  await jest.advanceTimersByTimeAsync(2500);
  expect(saved.map((s) => s.position)).toEqual([1]);
  expect(state().save.kind).toBe('saved');
});

test('a project that finds itself gone from storage is written whole', async () => {
  run(nudge(1));
  await savesFinished();
  there = false;
  run(nudge(2));
  await savesFinished();
  expect([wholes, saved.length, state().save.kind]).toEqual([1, 1, 'saved']);
});

test('whoever loses the lock writes no more', async () => {
  run(nudge(1));
  await savesFinished();
  becomeReader();
  expect(run(nudge(2))).toBe(false);
  undoEdit();
  await savesFinished();
  expect(saved).toHaveLength(1);
  expect(state().readOnly).toBe(true);
});

test('steps that are not at hand are read from storage, in the order they were asked for', async () => {
  for (let i = 1; i <= 5; i++) run(nudge(i));
  await savesFinished();
  const { project, history } = state();
  showProject('p', { project: project!, history: { ...history, done: [] } }, records);
  for (let i = 0; i < 4; i++) undoEdit();
  await new Promise((r) => setTimeout(r, 20));
  expect(state().history.position).toBe(1);
  expect(x()).toBe(start + 1);
  kept.clear();
  showProject('p', { project: project!, history: { ...history, done: [] } }, records);
  undoEdit();
  await new Promise((r) => setTimeout(r, 20));
  expect(state().notice).toMatch(/could not be read/);
  expect(state().history.first).toBe(6);
  expect(x()).toBe(start + 15);
});

test('glyphs and masters are stepped through, round the ends; selections are let go', () => {
  select(new Set(['0:0']));
  chooseGlyph(demo.glyphOrder[0]);
  expect(state().selection.size).toBe(0);
  stepGlyph(-1);
  expect(state().glyph).toBe(demo.glyphOrder[demo.glyphOrder.length - 1]);
  stepGlyph(1);
  expect(state().glyph).toBe(demo.glyphOrder[0]);
  stepMaster(1);
  expect(state().master).toBe('m1');
});

test('the same project shown again keeps its glyph; leaving clears the bench', async () => {
  const a = glyphNamed(demo, 'a')!.id;
  chooseGlyph(a);
  showProject('p', opened, records);
  expect(state().glyph).toBe(a);
  await leaveProject();
  expect(state().project).toBeUndefined();
  showProject('q', opened, records);
  expect(state().glyph).toBe(n);
});

test('a take stays whatever is undone, and nothing is edited while one is tried', () => {
  showProject('p1', opened, records);
  const at = { glyph: n, master: 'm1' };
  run(nudge(10));
  expect(runAside((p) => keepTake(p, { at, date: '2026-01-02T03:04:05Z' }))).toBe(true);
  run(nudge(10));
  undoEdit();
  undoEdit();
  expect(x()).toBe(start);
  const [take] = state().settled!.glyphs[n]!.takes;
  expect(take!.drawing.contours[0]!.points[0]!.x).toBe(start + 10);
  redoEdit();
  redoEdit();
  expect(state().settled!.glyphs[n]!.takes).toHaveLength(1);
  tryOut({ id: take!.id, name: take!.name, adopt: () => {} }, (p) => restoreTake(p, { at, take: take!.id, date: '' }));
  expect(x()).toBe(start + 10);
  expect(run(nudge(5))).toBe(false);
  expect(state()).toMatchObject({ trialAsked: true });
  expect(x()).toBe(start + 10);
  endTrial();
  expect(x()).toBe(start + 20);
  expect(state().trial).toBeUndefined();
  expect(run(nudge(5))).toBe(true);
});

test('undo goes to the glyph that it changes', () => {
  showProject('p1', opened, records);
  run(nudge(10));
  const o = glyphNamed(demo, 'o')!.id;
  chooseGlyph(o);
  undoEdit();
  expect(state().glyph).toBe(n);
  run((p) => setGalleyText(p, { text: 'Halt' }));
  chooseGlyph(o);
  undoEdit();
  expect(state().glyph).toBe(o);
});
