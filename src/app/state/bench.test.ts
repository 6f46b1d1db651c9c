import { buildStarter } from '../../../demo/starter';
import { movePoints } from '../../core/drawing/edits';
import { refused } from '../../core/project/edit';
import { setGalleyText } from '../../core/project/edits';
import { EMPTY_HISTORY } from '../../core/project/history';
import { glyphNamed } from '../../core/project/queries';
import {
  cancelPreview,
  chooseGlyph,
  leaveProject,
  preview,
  redoEdit,
  run,
  savesFinished,
  select,
  showProject,
  stepGlyph,
  stepMaster,
  undoEdit,
  useBench,
} from './bench';

const saved: { position: number; entries: number; direction: string }[] = [];
let failing = false;
jest.mock('./library', () => ({
  recordsOf: () => ({
    save: async (_patch: unknown, direction: string, position: number, entries: unknown[]) => {
      if (failing) throw Object.assign(new Error('full'), { name: 'QuotaExceededError' });
      saved.push({ position, entries: entries.length, direction });
    },
  }),
  touchProject: async () => {},
  storageSentence: () => 'The browser’s storage is full.',
}));

const demo = buildStarter();
const n = glyphNamed(demo, 'n')!.id;
const state = () => useBench.getState();
const nudge = (dx: number) => (p: typeof demo) =>
  movePoints(p, { at: { glyph: n, master: 'm1' }, points: ['0:0'], dx, dy: 0 });
const x = () => state().project!.glyphs[n]!.drawings.m1!.contours[0]!.points[0]!.x;
const start = glyphNamed(demo, 'n')!.drawings.m1!.contours[0]!.points[0]!.x;

beforeEach(() => {
  saved.length = 0;
  failing = false;
  useBench.setState({ projectId: '' });
  showProject('p', demo, EMPTY_HISTORY, false);
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
  expect(saved.map((s) => s.entries)).toEqual([1, 1, 0, 0, 0, 0]);
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
  showProject('p', demo, EMPTY_HISTORY, true);
  expect(run(nudge(5))).toBe(false);
  expect(preview(nudge(5))).toBe(false);
  expect(state().notice).toMatch(/open in another tab/);
  expect(x()).toBe(start);
});

test('full storage is said; the next edit tries again and nothing is skipped', async () => {
  failing = true;
  run(nudge(1));
  await savesFinished();
  expect(state().save).toEqual({ kind: 'failed', sentence: 'The browser’s storage is full.' });
  failing = false;
  run(nudge(2));
  await savesFinished();
  expect(saved.map((s) => s.position)).toEqual([1, 2]);
  expect(state().save.kind).toBe('saved');
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
  showProject('p', demo, EMPTY_HISTORY, false);
  expect(state().glyph).toBe(a);
  await leaveProject();
  expect(state().project).toBeUndefined();
  showProject('q', demo, EMPTY_HISTORY, false);
  expect(state().glyph).toBe(n);
});
