import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { buildStarter } from '../../../demo/starter';
import { isRefused } from '../base/result';
import { movePoints } from '../drawing/edits';
import { setPair } from '../kerning/edits';
import type { Outcome } from '../project/edit';
import { setFamily } from '../project/edits';
import { addGlyphs } from '../project/glyphEdits';
import { EMPTY_HISTORY, type History, missingFor, recorded, redo, undo, withEntries } from '../project/history';
import type { Project } from '../project/model';
import { patchBetween, stepsOf } from '../project/patch';
import { glyphNamed } from '../project/queries';
import { removeGlyphs } from '../project/removal';
import { setZone } from '../project/zoneEdits';
import { anyEdit } from '../testing/anyEdit';
import type { KeyValue } from './keyValue';
import { STORED_VERSION } from './migrations';
import { packedGlyph, unpackedGlyph } from './pack';
import { type Opened, ProjectRecords, unpackedProject } from './records';

class Crash extends Error {}

/** A store in memory that can stop working after so many writes, as a computer that is switched off. */
function memory(start: Iterable<[string, unknown]> = []) {
  const records = new Map<string, unknown>(start);
  let writes = 0;
  let dieAt = Number.POSITIVE_INFINITY;
  const write = async (work: () => void) => {
    if (writes >= dieAt) throw new Crash();
    writes++;
    work();
  };
  const store: KeyValue = {
    get: async (key) => structuredClone(records.get(key)),
    set: (key, value) => write(() => records.set(key, structuredClone(value))),
    remove: (key) => write(() => records.delete(key)),
    keys: async () => [...records.keys()],
  };
  return {
    store,
    records,
    writes: () => writes,
    die(after: number) {
      writes = 0;
      dieAt = after;
    },
    revive() {
      dieAt = Number.POSITIVE_INFINITY;
    },
    project: () => new ProjectRecords(store, 'project/x/'),
  };
}

const demo = buildStarter();
const n = glyphNamed(demo, 'n')!.id;
const o = glyphNamed(demo, 'o')!.id;
const done = (outcome: Outcome): Project => {
  if (!outcome.ok) throw new Error(outcome.reason);
  return outcome.project;
};
const nudge = (p: Project, dx = 1) => movePoints(p, { at: { glyph: n, master: 'm1' }, points: ['0:0'], dx, dy: 0 });

async function open(records: ProjectRecords): Promise<Opened> {
  const found = await records.open();
  if (!found || isRefused(found)) throw new Error(found?.reason ?? 'nothing there');
  return found;
}

/** A bench in small: edits, undo and redo, each journalled as the app does it. */
class Bench {
  constructor(
    readonly records: ProjectRecords,
    public project: Project,
    public history: History = EMPTY_HISTORY,
  ) {}

  static async opened(records: ProjectRecords): Promise<Bench> {
    const { project, history } = await open(records);
    return new Bench(records, project, history);
  }

  async edit(outcome: Outcome): Promise<boolean> {
    if (!outcome.ok) return false;
    const grown = recorded(this.history, this.project, outcome.project, outcome.sentence);
    if (grown === this.history) return false;
    const steps = stepsOf(patchBetween(this.project, outcome.project));
    const entry = grown.done[grown.done.length - 1]!;
    [this.project, this.history] = [outcome.project, grown];
    await this.records.journal({ steps, history: grown, entry });
    return true;
  }

  async step(kind: 'undo' | 'redo'): Promise<boolean> {
    const missing = missingFor(this.history, kind);
    if (missing) this.history = withEntries(this.history, kind, await this.records.entries(missing.from, missing.to));
    const made = (kind === 'undo' ? undo : redo)(this.project, this.history);
    if (!made) return false;
    [this.project, this.history] = [made.project, made.history];
    const steps = stepsOf(made.entry.patch, kind === 'undo' ? 'backwards' : 'forwards');
    await this.records.journal({ steps, history: made.history, entry: undefined });
    return true;
  }

  rest = () => this.records.checkpoint(this.project);
}

async function created(project = demo) {
  const disk = memory();
  const records = disk.project();
  await records.create(project);
  return { disk, bench: new Bench(records, project) };
}

test('what is saved is what is opened, by records or by the journal, history included', async () => {
  for (const rests of [true, false]) {
    const { disk, bench } = await created();
    await bench.edit(nudge(bench.project));
    await bench.edit(addGlyphs(bench.project, { requests: [{ name: 'aogonek', unicodes: [0x105] }] }));
    await bench.edit(removeGlyphs(bench.project, { ids: [n] }));
    if (rests) await bench.rest();
    const found = await open(disk.project());
    expect(found.project).toEqual(bench.project);
    expect(found.faults).toEqual([]);
    expect(found.history.done.map((e) => e.sentence)).toEqual(bench.history.done.map((e) => e.sentence));
    const again = await Bench.opened(disk.project());
    while (await again.step('undo'));
    expect(again.project).toEqual(demo);
    const base = unpackedProject(found.packed);
    expect(base).toEqual(found.packed.base);
  }
});

test('a gesture writes one small record, whatever the size of the project', async () => {
  const { disk, bench } = await created();
  const before = new Map(disk.records);
  const start = disk.writes();
  await bench.edit(nudge(bench.project));
  await bench.edit(setZone(bench.project, { master: 'm1', zone: 'xHeight', change: { position: 505 } }));
  const sides = { first: { kind: 'glyph', id: n }, second: { kind: 'glyph', id: o } } as const;
  await bench.edit(setPair(bench.project, { master: 'm1', ...sides, value: -12 }));
  expect(disk.writes() - start).toBe(3);
  for (const [key, value] of disk.records)
    if (!before.has(key)) expect(JSON.stringify(value).length).toBeLessThan(2000);
});

test('6,000 edits are undone to the start after a reload, and done again', async () => {
  const { disk, bench } = await created();
  for (let i = 0; i < 6000; i++) {
    await bench.edit(nudge(bench.project, i % 2 === 0 ? 3 : -2));
    if (i % 500 === 499) await bench.rest();
  }
  await bench.rest();
  const end = bench.project;
  const reads = jest.fn();
  const counted = {
    ...disk.store,
    get(key: string) {
      reads(key);
      return disk.store.get(key);
    },
  };
  const records = new ProjectRecords(counted, 'project/x/');
  const again = await Bench.opened(records);
  // Opening does not depend on how long the history is.
  expect(reads.mock.calls.filter(([key]) => key.includes('step/')).length).toBeLessThan(50);
  expect([again.history.first, again.history.position, again.history.last]).toEqual([1, 6000, 6000]);
  let count = 0;
  while (await again.step('undo')) count++;
  expect(count).toBe(6000);
  expect(again.project).toEqual(demo);
  await again.rest();
  const third = await Bench.opened(disk.project());
  expect(third.project).toEqual(demo);
  while (await third.step('redo'));
  expect(third.project).toEqual(end);
});

test('after a reload redo never brings back what a new edit has put aside', async () => {
  const { disk, bench } = await created();
  for (let i = 1; i <= 5; i++) await bench.edit(nudge(bench.project, i));
  await bench.rest();
  const second = await Bench.opened(disk.project());
  for (let i = 0; i < 3; i++) await second.step('undo');
  await second.edit(setFamily(second.project, { designer: 'Ola Nowak' }));
  for (const rests of [false, true]) {
    if (rests) await second.rest();
    const third = await Bench.opened(disk.project());
    expect(third.project).toEqual(second.project);
    expect([third.history.position, third.history.last]).toEqual([3, 3]);
    expect(await third.step('redo')).toBe(false);
  }
  expect([...disk.records.keys()].filter((k) => k.includes('step/'))).toHaveLength(3);
  expect([...disk.records.keys()].filter((k) => k.includes('log/'))).toHaveLength(0);
});

test('a merged edit takes the place of the one before, also when it takes part of it back', async () => {
  const { disk, bench } = await created();
  const at = (designer: string, vendor: string) => ({ ...demo, family: { ...demo.family, designer, vendor } });
  const first = recorded(EMPTY_HISTORY, demo, at('A', 'V'), 'typed');
  await bench.records.journal({
    steps: stepsOf(patchBetween(demo, at('A', 'V'))),
    history: first,
    entry: first.done[0],
  });
  const next = { ...demo, family: { ...demo.family, designer: 'AB' } };
  const merged = recorded(EMPTY_HISTORY, demo, next, 'typed');
  const steps = stepsOf(patchBetween(at('A', 'V'), next));
  await bench.records.journal({ steps, history: merged, entry: merged.done[0], merged: true });
  const found = await open(disk.project());
  expect(found.project).toEqual(next);
  expect(found.history.done).toHaveLength(1);
});

test('a crash before any single write leaves the project before or after each edit, never between', async () => {
  const edits: ((p: Project) => Outcome)[] = [
    (p) => nudge(p, 9),
    (p) => addGlyphs(p, { requests: [{ name: 'aogonek', unicodes: [0x105] }] }),
    (p) => removeGlyphs(p, { ids: [o] }),
    (p) => nudge(p, -4),
  ];
  const states = [demo];
  for (const edit of edits) states.push(done(edit(states[states.length - 1]!)));
  const work = async (bench: Bench) => {
    for (const [i, edit] of edits.entries()) {
      await bench.edit(edit(bench.project));
      if (i % 2 === 1) await bench.rest();
    }
    await bench.step('undo');
    await bench.rest();
  };
  const met = new Set<number>();
  for (let after = 0, crashed = true; crashed; after++) {
    const { disk, bench } = await created();
    disk.die(after);
    crashed = await work(bench).then(
      () => false,
      (e) => {
        if (!(e instanceof Crash)) throw e;
        return true;
      },
    );
    disk.revive();
    const found = await open(disk.project());
    expect(found.faults).toEqual([]);
    const state = states.findIndex((s) => JSON.stringify(s.glyphs) === JSON.stringify(found.project.glyphs));
    expect(state).toBeGreaterThanOrEqual(0);
    expect(found.project).toEqual(states[state]);
    expect(found.history.position).toBe(state);
    met.add(state);
    // Going on from there, and coming back again, loses nothing either.
    const again = new Bench(disk.project(), found.project, found.history);
    await again.records.open();
    await again.edit(setFamily(again.project, { designer: 'after the crash' }));
    await again.rest();
    expect((await open(disk.project())).project).toEqual(again.project);
    while (await again.step('undo'));
    expect(again.project).toEqual(demo);
  }
  expect([...met].sort()).toEqual([0, 1, 2, 3, 4]);
});

/** Eight letters of the starter: small, so that a store can be killed a thousand times over it. */
const small = ((): Project => {
  const glyphOrder = demo.glyphOrder.slice(0, 8);
  return { ...demo, glyphOrder, glyphs: Object.fromEntries(glyphOrder.map((id) => [id, demo.glyphs[id]!])) };
})();

test('any edits, undone and done again, killed 1,000 times anywhere: what was journalled is what is opened', async () => {
  const action = fc.oneof(
    { weight: 5, arbitrary: anyEdit(small).map((e) => ({ kind: 'edit' as const, run: e.run })) },
    { weight: 2, arbitrary: fc.constantFrom({ kind: 'undo' as const }, { kind: 'redo' as const }) },
    { weight: 2, arbitrary: fc.constantFrom({ kind: 'rest' as const }, { kind: 'reload' as const }) },
  );
  let kills = 0;
  const lives = fc.array(fc.nat(4), { minLength: 1, maxLength: 8 });
  await fc.assert(
    fc.asyncProperty(fc.array(action, { minLength: 8, maxLength: 30 }), lives, async (actions, writesOfALife) => {
      const { disk } = await created(small);
      let bench = await Bench.opened(disk.project());
      let acknowledged = small;
      const comesBack = async () => {
        disk.revive();
        const found = await open(disk.project());
        expect(found.faults).toEqual([]);
        // What was not acknowledged may have reached the disk, but nothing in between.
        const [was, is] = [JSON.stringify(acknowledged.family), JSON.stringify(found.project.family)];
        if (was === is && found.history.position <= bench.history.position)
          expect([acknowledged, bench.project]).toContainEqual(found.project);
        bench = await Bench.opened(disk.project());
        acknowledged = bench.project;
        disk.die(writesOfALife[kills % writesOfALife.length]!);
      };
      disk.die(writesOfALife[0]!);
      for (const a of actions)
        try {
          if (a.kind === 'edit') await bench.edit(a.run(bench.project));
          else if (a.kind === 'rest') await bench.rest();
          else if (a.kind === 'reload') bench = await Bench.opened(disk.project());
          else await bench.step(a.kind);
          acknowledged = bench.project;
        } catch (error) {
          if (!(error instanceof Crash)) throw error;
          kills++;
          await comesBack();
        }
      await comesBack();
      disk.revive();
      while (await bench.step('undo'));
      expect(bench.project).toEqual(small);
    }),
    { numRuns: 450, seed: 11 },
  );
  expect(kills).toBeGreaterThanOrEqual(1000);
}, 120_000);

test('a project of the first stored form opens with its history; its records take the present form', async () => {
  const text = readFileSync('src/core/storage/fixtures/stored-1.json', 'utf8');
  const sample = JSON.parse(text, (_, v) =>
    v?.$bytes ? Uint8Array.from(Buffer.from(v.$bytes, 'base64')) : v?.$undefined ? undefined : v,
  );
  const disk = memory(Object.entries(sample.records));
  const found = await open(disk.project());
  expect(found.faults).toEqual([]);
  expect(found.project).toEqual(sample.project);
  expect(found.history.done.map((e) => e.sentence)).toEqual(sample.done);
  expect(disk.records.get('project/x/meta')).toMatchObject({ version: STORED_VERSION });
  expect([...disk.records.keys()].filter((k) => /part\/|glyph\/|history-position/.test(k))).toEqual([]);
  const bench = await Bench.opened(disk.project());
  while (await bench.step('undo'));
  expect(bench.project.glyphs.g3!.drawings.m1!.contours).toEqual([]);
  expect(bench.project.masters[0]!.kerning).toEqual({});
});

test('an older form that another tab holds is not led on under it', async () => {
  const text = readFileSync('src/core/storage/fixtures/stored-1.json', 'utf8');
  const sample = JSON.parse(text, (_, v) =>
    v?.$bytes ? Uint8Array.from(Buffer.from(v.$bytes, 'base64')) : v?.$undefined ? undefined : v,
  );
  const disk = memory(Object.entries(sample.records));
  const before = new Map(disk.records);
  expect(await disk.project().open(false)).toMatchObject({ reason: expect.stringContaining('older version') });
  expect(disk.records).toEqual(before);
  // One of the present form is read by whoever looks.
  const { disk: present } = await created();
  expect(await present.project().open(false)).toMatchObject({ project: demo });
});

test('a crash while an older form is led on loses nothing', async () => {
  const sample = JSON.parse(readFileSync('src/core/storage/fixtures/stored-1.json', 'utf8'), (_, v) =>
    v?.$bytes ? Uint8Array.from(Buffer.from(v.$bytes, 'base64')) : v?.$undefined ? undefined : v,
  );
  for (let after = 0; after < 60; after += 3) {
    const disk = memory(Object.entries(sample.records));
    disk.die(after);
    await disk
      .project()
      .open()
      .catch(() => {});
    disk.revive();
    expect((await open(disk.project())).project).toEqual(sample.project);
  }
});

test('a project of a newer form is refused in words and left as it is', async () => {
  const { disk } = await created();
  disk.records.set('project/x/meta', { version: STORED_VERSION + 1, other: true });
  const before = new Map(disk.records);
  const found = await disk.project().open();
  expect(found).toMatchObject({
    ok: false,
    reason: expect.stringMatching(/^This project was stored by a newer Wendril/),
  });
  expect(disk.records).toEqual(before);
  expect(await memory().project().open()).toBeUndefined();
});

/** The key of the segment that holds a glyph, and its text. */
const segmentWith = (records: Map<string, unknown>, id: string) =>
  [...records].find(([key, value]) => key.startsWith('project/x/glyphs/') && String(value).includes(`"id":"${id}"`))!;

test('a damaged glyph is told, kept, opened as far as it can be read, and brought back as last stored', async () => {
  const { disk, bench } = await created();
  await bench.rest();
  const second = await Bench.opened(disk.project());
  await second.edit(nudge(second.project, 5));
  await second.rest();
  await second.edit(nudge(second.project, 6));
  await second.rest();
  const wanted = second.project.glyphs[n]!;
  const [key, text] = segmentWith(disk.records, n);
  const list = JSON.parse(String(text)) as { id: string; drawings: Record<string, unknown> }[];
  for (const glyph of list) if (glyph.id === n) glyph.drawings.m1 = { advance: 'wide' };
  disk.records.set(key, JSON.stringify(list));
  const records = disk.project();
  const found = await open(records);
  expect(found.damaged).toEqual([n]);
  expect(found.faults.map((f) => f.reason)).toEqual(['n: its drawing in Regular could not be read and is empty.']);
  expect(found.project.glyphs[n]).toMatchObject({ name: 'n', unicodes: [0x6e], drawings: { m1: { contours: [] } } });
  expect(Object.keys(found.project.glyphs)).toHaveLength(Object.keys(demo.glyphs).length);
  expect(found.project.glyphs[o]).toEqual(demo.glyphs[o]);
  expect(disk.records.get(`project/x/unread/${key.slice('project/x/'.length)}`)).toBe(JSON.stringify(list));
  expect(await records.lastGood(n, found.project)).toEqual(wanted);
  expect((await records.everything()).size).toBeGreaterThan(3);
});

test('a segment that is no JSON leaves the glyphs as empty compartments, which come back as last stored', async () => {
  const { disk, bench } = await created();
  await bench.rest();
  const second = await Bench.opened(disk.project());
  await second.edit(nudge(second.project, 5));
  await second.rest();
  const [key] = segmentWith(disk.records, n);
  disk.records.set(key, '[{"id":');
  const records = disk.project();
  const found = await open(records);
  expect(found.damaged).toContain(n);
  expect(found.project.glyphOrder).toEqual(demo.glyphOrder);
  expect(await records.lastGood(n, found.project)).toEqual(second.project.glyphs[n]);
});

test('other damage is told, stepped over and kept: parts, kerning, journal, history, the head', async () => {
  const damage: [string, unknown, RegExp | undefined][] = [
    ['kerning/m1', '{"a"', /The kerning of Regular could not be read/],
    ['log/000000001', { position: 'x' }, /A change that was on its way to storage could not be read/],
    ['log/000000001', null, /A change that was on its way/],
    ['step/000000002', { sentence: 5 }, /Some steps of the history could not be read/],
    ['meta', { version: 'x' }, undefined],
    ['meta', undefined, undefined],
  ];
  for (const [key, value, sentence] of damage) {
    const { disk, bench } = await created();
    if (!key.startsWith('log')) {
      for (let i = 1; i <= 3; i++) await bench.edit(nudge(bench.project, i));
      await bench.rest();
    }
    if (value === undefined) disk.records.delete(`project/x/${key}`);
    else disk.records.set(`project/x/${key}`, value);
    const found = await open(disk.project());
    expect(found.project.glyphs).toEqual(bench.project.glyphs);
    if (sentence) expect(found.faults.map((f) => f.reason).join()).toMatch(sentence);
    if (key.startsWith('log')) expect(disk.records.get(`project/x/unread/${key}`)).toEqual(value);
    const again = await Bench.opened(disk.project());
    await again.edit(setFamily(again.project, { designer: 'Ola' }));
    await again.rest();
    expect((await open(disk.project())).project.family.designer).toBe('Ola');
  }
});

test('parts that cannot be read become those of a new project, masters keep what is sound, and none at all is refused', async () => {
  const { disk } = await created();
  const parts = structuredClone(disk.records.get('project/x/parts')) as Record<string, unknown> & {
    masters: Record<string, unknown>[];
  };
  parts.groups = 'none';
  parts.masters[0]!.zones = 4;
  disk.records.set('project/x/parts', parts);
  const found = await open(disk.project());
  expect(found.faults.map((f) => f.reason)).toEqual(
    [
      expect.stringMatching(/^The kerning groups of this project could not be read: /),
      'Regular: zones could not be read whole.',
    ].sort((a, b) => String(a).localeCompare(String(b))) as never,
  );
  expect(found.project.groups).toEqual([]);
  expect(found.project.masters[0]!.name).toBe('Regular');
  disk.records.set('project/x/parts', { ...parts, masters: [] });
  expect(await disk.project().open()).toMatchObject({
    ok: false,
    reason: expect.stringMatching(/^None of this project’s masters/),
  });
});

test('a glyph goes through its packed form without loss: names, identifiers, smoothness, bytes in libs', () => {
  const glyph = {
    ...demo.glyphs[n]!,
    lib: { 'org.x': { data: Uint8Array.of(0, 255, 7), $bytes: 'own', list: [1, 'two', true, { $date: '2026' }] } },
  };
  const [first, ...rest] = glyph.drawings.m1!.contours;
  const named = {
    ...first!,
    identifier: 'c1',
    points: first!.points.map((p, i) => (i === 1 ? { ...p, smooth: false, name: 'top', identifier: 'p1' } : p)),
  };
  const whole = { ...glyph, drawings: { m1: { ...glyph.drawings.m1!, contours: [named, ...rest] } } };
  expect(unpackedGlyph(JSON.parse(JSON.stringify(packedGlyph(whole))))).toEqual(whole);
  const bad = JSON.parse(JSON.stringify(packedGlyph(whole)));
  bad.drawings.m1.contours[0].p[3] = 4e6;
  expect(() => unpackedGlyph(bad)).toThrow('point 2 of a contour is damaged');
});

test('a step of very many changes comes back from the journal and from the records, and is taken back and done again', async () => {
  const { disk } = await created();
  const bench = await Bench.opened(disk.project());
  const many = Array.from({ length: 300 }, (_, i) => ({ name: `many${i}`, unicodes: [] }));
  await bench.edit(addGlyphs(bench.project, { requests: many }));
  const added = bench.project;
  await bench.edit(removeGlyphs(bench.project, { ids: bench.project.glyphOrder.slice(20) }));
  const fewer = bench.project;
  expect((await open(disk.project())).project).toEqual(fewer);
  expect(
    [...disk.records.values()].some(
      (v) => typeof v === 'object' && v !== null && 'entry' in v && 'patchText' in (v as { entry: object }).entry,
    ),
  ).toBe(true);
  await bench.rest();
  const again = await Bench.opened(disk.project());
  expect(again.project).toEqual(fewer);
  expect(await again.step('undo')).toBe(true);
  expect(again.project).toEqual(added);
  expect((await open(disk.project())).project).toEqual(added);
  expect(await again.step('undo')).toBe(true);
  expect(again.project).toEqual(demo);
  expect((await open(disk.project())).faults).toEqual([]);
  await again.step('redo');
  await again.rest();
  expect((await Bench.opened(disk.project())).project).toEqual(added);
});

test('who looks on while records are brought up to date sees what is there, not what was', async () => {
  for (const moment of ['/meta', '/parts', '/glyphs/0', '/log/']) {
    const { disk } = await created();
    const bench = await Bench.opened(disk.project());
    await bench.edit(nudge(bench.project, 33));
    await bench.edit(setFamily(bench.project, { designer: 'looked at' }));
    let rested = false;
    const beside: KeyValue = {
      ...disk.store,
      async get(key) {
        const value = await disk.store.get(key);
        if (!rested && key.includes(moment)) {
          rested = true;
          await bench.rest();
        }
        return value;
      },
    };
    const found = await new ProjectRecords(beside, 'project/x/').open(false);
    expect(rested).toBe(true);
    expect(found && 'project' in found && found.project).toEqual(bench.project);
  }
});

test('records made with rests between glyphs hold what the document was when their writing began', async () => {
  const { disk, bench } = await created();
  await bench.edit(nudge(bench.project));
  const then = bench.project;
  // A slow machine: every look at the clock is a rest later.
  let now = 0;
  const clock = jest.spyOn(Date, 'now').mockImplementation(() => (now += 1000));
  let rests = 0;
  const counting = setInterval(() => rests++, 0);
  try {
    const writing = bench.rest();
    const seated = bench.edit(addGlyphs(then, { requests: [{ name: 'aogonek', unicodes: [0x105] }] }));
    await writing;
    await seated;
  } finally {
    clearInterval(counting);
    clock.mockRestore();
  }
  expect(rests).toBeGreaterThan(5);
  expect((await open(disk.project())).project).toEqual(bench.project);
  await bench.rest();
  expect((await open(disk.project())).project).toEqual(bench.project);
});
