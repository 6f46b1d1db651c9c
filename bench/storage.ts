import { movePoints } from '../src/core/drawing/edits';
import { setPair } from '../src/core/kerning/edits';
import { EMPTY_HISTORY, recorded } from '../src/core/project/history';
import { patchBetween, stepsOf } from '../src/core/project/patch';
import type { KeyValue } from '../src/core/storage/keyValue';
import { ProjectRecords } from '../src/core/storage/records';
import { largeProject } from './largeProject';
import { median, milliseconds, printTable, type Row } from './table';

const memory = (records = new Map<string, unknown>()): KeyValue & { records: Map<string, unknown> } => ({
  records,
  get: async (key) => records.get(key),
  set: async (key, value) => void records.set(key, value),
  remove: async (key) => void records.delete(key),
  keys: async () => [...records.keys()],
});

const timed = async (work: () => Promise<unknown>): Promise<number> => {
  const started = performance.now();
  await work();
  return performance.now() - started;
};

/** The stored form by itself: how large a step is, how long packing, unpacking and checking take. */
export async function benchStorage(): Promise<void> {
  const rows: Row[] = [];
  for (const [glyphs, masters, budget] of [
    [2000, 4, 1000],
    [10_000, 1, 3000],
    [10_000, 4, 3000],
  ] as const) {
    const project = largeProject(glyphs, masters);
    const store = memory();
    const records = new ProjectRecords(store, 'p/');
    const written = await timed(() => records.create(project));
    const read = median(
      await Promise.all([0]).then(async () => {
        const times: number[] = [];
        for (let i = 0; i < 5; i++) times.push(await timed(() => new ProjectRecords(store, 'p/').open()));
        return times;
      }),
    );
    const bytes = [...store.records.values()].reduce(
      (sum: number, v) => sum + (typeof v === 'string' ? v.length : 0),
      0,
    );
    const what = `${glyphs.toLocaleString('en')} glyphs, ${masters} master${masters > 1 ? 's' : ''}`;
    rows.push(
      { what: `${what}: written whole`, budget: '–', measured: milliseconds(written), met: true },
      {
        what: `${what}: read, checked, every drawing`,
        budget: milliseconds(budget),
        measured: milliseconds(read),
        met: read < budget,
      },
      { what: `${what}: size of the records`, budget: '–', measured: `${(bytes / 1e6).toFixed(1)} MB`, met: true },
    );
  }
  const project = largeProject(2000, 4);
  const moved = movePoints(project, { at: { glyph: 'g40', master: 'm1' }, points: ['0:0'], dx: 3, dy: 0 });
  const pair = { kind: 'glyph', id: 'g40' } as const;
  const kerned = setPair(project, { master: 'm1', first: pair, second: pair, value: -9 });
  for (const [what, outcome] of [
    ['a moved point', moved],
    ['a kerned pair', kerned],
  ] as const) {
    if (!outcome.ok) continue;
    const { done } = recorded(EMPTY_HISTORY, project, outcome.project, 'step');
    const size = JSON.stringify({ entry: done[0], steps: stepsOf(patchBetween(project, outcome.project)) }).length;
    rows.push({
      what: `${what}: size of its record`,
      budget: '2,000 bytes',
      measured: `${size} bytes`,
      met: size < 2000,
    });
  }
  printTable('Storage', rows);
}
