import { buildStarter } from '../../../demo/starter';
import { movePoints } from '../../core/drawing/edits';
import type { Outcome } from '../../core/project/edit';
import { addGlyphs, removeGlyphs } from '../../core/project/edits';
import { EMPTY_HISTORY, type History, recorded, undo } from '../../core/project/history';
import type { Project } from '../../core/project/model';
import { patchBetween } from '../../core/project/patch';
import { type KeyValue, ProjectRecords } from './records';

class Crash extends Error {}

/** A store in memory that can be made to die before the n-th write from now. */
function memory() {
  const records = new Map<string, unknown>();
  let writes = 0;
  let dieAt = Number.POSITIVE_INFINITY;
  const write = (act: () => void) => {
    if (writes++ >= dieAt) throw new Crash();
    act();
  };
  const store: KeyValue = {
    set: async (key, value) => write(() => records.set(key, structuredClone(value))),
    remove: async (key) => write(() => records.delete(key)),
    all: async (prefix) => new Map([...records].filter(([k]) => k.startsWith(prefix))),
  };
  return {
    store,
    records,
    die(after: number) {
      writes = 0;
      dieAt = after;
    },
    revive() {
      dieAt = Number.POSITIVE_INFINITY;
    },
  };
}

const done = (o: Outcome): Project => {
  if (!o.ok) throw new Error(o.reason);
  return o.project;
};

const demo = buildStarter();
const n = demo.glyphOrder.find((id) => demo.glyphs[id]!.name === 'n')!;
const steps: ((p: Project) => Outcome)[] = [
  (p) => movePoints(p, { at: { glyph: n, master: 'm1' }, points: ['0:0'], dx: 3, dy: 1 }),
  (p) =>
    addGlyphs(p, {
      requests: [
        { name: 'aogonek', unicodes: [0x105] },
        { name: 'eogonek', unicodes: [0x119] },
      ],
    }),
  (p) => removeGlyphs(p, { ids: [n] }),
];

type State = { project: Project; history: History };

async function open(records: ProjectRecords): Promise<State> {
  const found = await records.open();
  if (!found || 'fault' in found) throw new Error('cannot be opened');
  return found;
}

async function edit(records: ProjectRecords, state: State, step: (p: Project) => Outcome): Promise<State> {
  const project = done(step(state.project));
  const history = recorded(state.history, state.project, project, 'step');
  const at = history.done.length - 1;
  await records.save(patchBetween(state.project, project), 'forwards', history.done.length, [
    { at, entry: history.done[at]! },
  ]);
  return { project, history };
}

test('what is saved is what is opened, history included', async () => {
  const { store } = memory();
  const records = new ProjectRecords(store, 'project/x/');
  await records.create(demo);
  let state: State = { project: demo, history: EMPTY_HISTORY };
  for (const step of steps) state = await edit(records, state, step);
  const found = await open(new ProjectRecords(store, 'project/x/'));
  expect(found.project).toEqual(state.project);
  expect(found.history.done.map((e) => e.sentence)).toEqual(['step', 'step', 'step']);
  let back: State = found;
  for (let s = undo(back.project, back.history); s; s = undo(s.project, s.history)) back = s;
  expect(back.project).toEqual(demo);
});

test('undo is saved; a new edit forgets what was undone', async () => {
  const { store } = memory();
  const records = new ProjectRecords(store, 'project/x/');
  await records.create(demo);
  let state: State = { project: demo, history: EMPTY_HISTORY };
  for (const step of steps) state = await edit(records, state, step);
  for (let i = 0; i < 2; i++) {
    const s = undo(state.project, state.history)!;
    await records.save(s.entry.patch, 'backwards', s.history.done.length, []);
    state = s;
  }
  let found = await open(new ProjectRecords(store, 'project/x/'));
  expect(found.project).toEqual(state.project);
  expect([found.history.done.length, found.history.undone.length]).toEqual([1, 2]);
  const second = new ProjectRecords(store, 'project/x/');
  state = await open(second);
  state = await edit(second, state, (p) =>
    movePoints(p, { at: { glyph: n, master: 'm1' }, points: ['0:1'], dx: 9, dy: 0 }),
  );
  found = await open(new ProjectRecords(store, 'project/x/'));
  expect([found.history.done.length, found.history.undone.length]).toEqual([2, 0]);
  expect(found.project).toEqual(state.project);
});

test('a crash before any single write leaves the project before or after the edit, never between', async () => {
  for (const step of steps) {
    let crashed = true;
    let outcomes = new Set<string>();
    for (let after = 0; crashed; after++) {
      const disk = memory();
      const records = new ProjectRecords(disk.store, 'project/x/');
      await records.create(demo);
      const before: State = { project: demo, history: EMPTY_HISTORY };
      const wanted = done(step(demo));
      disk.die(after);
      crashed = await edit(records, before, step).then(
        () => false,
        (e) => {
          if (!(e instanceof Crash)) throw e;
          return true;
        },
      );
      disk.revive();
      const found = await open(new ProjectRecords(disk.store, 'project/x/'));
      const isBefore = after === 0;
      expect(found.project).toEqual(isBefore ? demo : wanted);
      expect(found.history.done).toHaveLength(isBefore ? 0 : 1);
      outcomes = outcomes.add(isBefore ? 'before' : 'after');
      // Nothing of the journal is left behind.
      expect([...disk.records.keys()].filter((k) => k.includes('journal'))).toEqual([]);
    }
    expect(outcomes.size).toBe(2);
  }
});

test('records that cannot be read are said, not guessed', async () => {
  const disk = memory();
  const records = new ProjectRecords(disk.store, 'project/x/');
  expect(await records.open()).toBeUndefined();
  await records.create(demo);
  disk.records.set(`project/x/glyph/${n}`, { id: n, name: 7 });
  expect(await records.open()).toEqual({ fault: `The stored glyph ${n} of this project cannot be read.` });
});
