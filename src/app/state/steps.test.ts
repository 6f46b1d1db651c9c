import { buildStarter } from '../../../demo/starter';
import { refused } from '../../core/base/result';
import { setFamily } from '../../core/project/edits';
import { EMPTY_HISTORY } from '../../core/project/history';
import { patchBetween, stepsOf } from '../../core/project/patch';
import type { ProjectRecords } from '../../core/storage/records';
import { toggled } from '../ui/toggled';
import { run, showProject, undoEdit, useBench } from './bench';
import { takeMade } from './steps';

const records = {
  isThere: async () => true,
  create: async () => {},
  journal: async () => {},
  write: async () => {},
} as unknown as ProjectRecords;
const now = () => useBench.getState().settled!;
const renamed = (designer: string) => {
  const done = setFamily(now(), { designer });
  if (!done.ok) throw new Error(done.reason);
  return {
    ok: true as const,
    value: { steps: stepsOf(patchBetween(now(), done.project)), sentence: 'Named by a worker' },
  };
};

beforeEach(() => showProject('steps', { project: buildStarter(), history: EMPTY_HISTORY }, records));

test('what a worker made is one step of the history, and undone as one', () => {
  const before = now();
  expect(takeMade(before, renamed('Ines Halloran'), 'press again.')).toBe(true);
  expect(now().family.designer).toBe('Ines Halloran');
  expect(useBench.getState().history.done.at(-1)?.sentence).toBe('Named by a worker');
  undoEdit();
  expect(now().family.designer).toBe(before.family.designer);
});

test('what was made of an older document, or refused, is not taken, and that is said', () => {
  const before = now();
  const made = renamed('Ines Halloran');
  run((p) => setFamily(p, { description: 'changed meanwhile' }));
  expect(takeMade(before, made, 'press again.')).toBe(false);
  expect(useBench.getState().notice).toBe('The project was changed meanwhile; press again.');
  expect(now().family.designer).toBe(before.family.designer);
  expect(takeMade(now(), refused('Nothing could be made.'), 'press again.')).toBe(false);
  expect(useBench.getState().notice).toBe('Nothing could be made.');
});

test('a member is put into a set or taken out, the set itself stays', () => {
  const set = new Set(['a']);
  expect([...toggled(set, 'b')]).toEqual(['a', 'b']);
  expect([...toggled(set, 'a')]).toEqual([]);
  expect([...set]).toEqual(['a']);
});
