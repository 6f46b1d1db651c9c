import fc from 'fast-check';
import { buildStarter } from '../../../demo/starter';
import { movePoints } from '../drawing/edits';
import { setPair } from '../kerning/edits';
import { type AnyStep, anyEdit } from '../testing/anyEdit';
import { registeredEdits, runEdit } from './edit';
import { EMPTY_HISTORY, type History, missingFor, recorded, redo, undo, withEntries } from './history';
import { replacing } from './lineage';
import { type Glyph, type Project, projectSchema } from './model';
import { applyPatch, applySteps, isEmptyPatch, patchBetween, stepsOf } from './patch';
import { glyphNamed } from './queries';
import { setZone } from './zoneEdits';

const at = (x: number, y: number) => ({ x, y, type: 'line' as const });

/** The starter with two masters, groups, kerning, a component and a take, so that every edit finds something to do. */
function family(): Project {
  const one = buildStarter();
  const second = { ...one.masters[0]!, id: 'm2', name: 'Heavy', place: { wght: 900 } };
  const [a, b, c, d] = one.glyphOrder.slice(4, 8) as [string, string, string, string];
  const kerning = { 'group:k1 glyph:g9': -20, [`glyph:${a} glyph:${b}`]: 30, 'group:k1 group:k2': 12 };
  const glyphs: Record<string, Glyph> = Object.fromEntries(
    Object.values(one.glyphs).map((g) => [g.id, { ...g, drawings: { ...g.drawings, m2: g.drawings.m1! } }]),
  );
  const place = { glyph: b, transform: [1, 0, 0, 1, 10, 0] as const };
  const use = glyphs[d]!;
  const z = glyphNamed(one, 'z')!;
  const square = [at(40, 40), at(40, 600), at(90, 600), at(90, 40)];
  const crossed = { ...z.drawings.m1!, contours: [...z.drawings.m1!.contours, { closed: true, points: square }] };
  const guided = { ...crossed, guides: [{ x: 5, y: 0, angle: 90 }] };
  return {
    ...one,
    axes: [
      { tag: 'wght', name: 'Weight', minimum: 400, default: 400, maximum: 900, map: [], hidden: false, labels: {} },
    ],
    masters: [
      {
        ...one.masters[0]!,
        place: { wght: 400 },
        kerning,
        guides: [{ x: 0, y: 100, angle: 0 }],
        zones: { ...one.masters[0]!.zones, own: [{ name: 'small capitals', position: 560, overshoot: 8 }] },
      },
      { ...second, kerning },
    ],
    groups: [
      { id: 'k1', side: 'first', name: 'round', members: [a, c] },
      { id: 'k2', side: 'second', name: 'straight', members: [b] },
    ],
    glyphs: {
      ...glyphs,
      [z.id]: { ...z, drawings: { m1: guided, m2: crossed } },
      [d]: {
        ...use,
        drawings: {
          m1: { ...use.drawings.m1!, components: [place] },
          m2: { ...use.drawings.m2!, components: [place] },
        },
        takes: [{ id: 'take1', date: '2026-01-01T00:00:00Z', name: 'first', master: 'm1', drawing: use.drawings.m1! }],
      },
    },
  };
}

const demo = family();
const anyStep: fc.Arbitrary<AnyStep> = anyEdit(demo);

test('every edit says what it does, what it means for masters, and refuses arguments that are none', () => {
  const edits = [...registeredEdits().values()];
  expect(edits.length).toBeGreaterThan(85);
  for (const { facts } of edits) {
    expect(facts.does).toMatch(/^[A-Z][^.]+$/);
    expect(['one master', 'masters named', 'all masters', 'no master']).toContain(facts.reach);
  }
  expect(runEdit(demo, 'movePoints', { at: 7 })).toMatchObject({
    ok: false,
    reason: expect.stringMatching(/^movePoints: at/),
  });
  expect(runEdit(demo, 'fly', {})).toMatchObject({ ok: false, reason: 'There is no edit “fly”.' });
  const zone = runEdit(demo, 'setZone', { master: 'm2', zone: 'xHeight', change: { position: 510 } });
  expect(zone).toMatchObject({ ok: true, sentence: 'Set x-height at 510, Heavy' });
});

test('any sequence of edits undone gives the identical project; done again, the identical result', () => {
  const met = new Set<string>();
  fc.assert(
    fc.property(fc.array(anyStep, { minLength: 1, maxLength: 25 }), (steps) => {
      let project = demo;
      let history = EMPTY_HISTORY;
      let replayed = demo;
      for (const step of steps) {
        const outcome = step.run(project);
        if (!outcome.ok) {
          expect(outcome.reason).toMatch(/[.?]$/);
          continue;
        }
        met.add(step.name);
        expect(outcome.sentence.length).toBeGreaterThan(5);
        replayed = applySteps(replayed, stepsOf(patchBetween(project, outcome.project)));
        history = recorded(history, project, outcome.project, outcome.sentence);
        project = outcome.project;
      }
      const end = project;
      expect(replayed).toEqual(end);
      let back = { project, history };
      for (let s = undo(back.project, back.history); s; s = undo(s.project, s.history)) back = s;
      expect(back.project).toEqual(demo);
      expect(back.history.position).toBe(0);
      for (let s = redo(back.project, back.history); s; s = redo(s.project, s.history)) back = s;
      expect(back.project).toEqual(end);
      // Whatever replays steps over a state that has them already ends where they lead.
      const all = back.history.done.flatMap((e) => stepsOf(e.patch));
      expect(applySteps(end, all)).toEqual(end);
    }),
    { numRuns: 150, seed: 20261127 },
  );
  expect(met.size).toBeGreaterThan(60);
});

/** Arguments that each of these edits accepts, for what chance seldom meets. */
const ACCEPTED: readonly (readonly [name: string, args: unknown])[] = (() => {
  const g = (name: string) => glyphNamed(demo, name)!.id;
  const at = { glyph: g('n'), master: 'm1' };
  const [withPart] = demo.glyphOrder.slice(7, 8) as [string];
  const part = { glyph: withPart, master: 'm2' };
  return [
    ['directByNesting', { at: { glyph: g('z'), master: 'm1' } }],
    ['distributePoints', { at, points: ['0:0', '0:1', '0:2', '0:3'], axis: 'x' }],
    ['setOwnZone', { master: 'm1', index: 0, change: { position: 333 } }],
    ['changeSettings', { kerningStep: 7 }],
    ['setComponent', { at: part, index: 0, change: { transform: [1, 0, 0, 1, 5, 6] } }],
    ['drawOut', { at: part, indices: [0] }],
    ['setGuide', { at, whole: true, index: 0, change: { x: 9 } }],
    ['removeGuide', { at, whole: true, index: 0 }],
    ['moveGuideTo', { at: { glyph: g('z'), master: 'm1' }, index: 0, toWhole: true }],
    ['removeOverlap', { at: { glyph: g('z'), master: 'm1' } }],
    ['combineContours', { at: { glyph: g('z'), master: 'm1' }, contours: [0], operation: 'unite' }],
    ['workStrokesOfGlyphs', { glyphs: [g('o')], masters: ['m1', 'm2'], work: { kind: 'grow', by: 4, join: 'sharp' } }],
    ['restoreTake', { at: { glyph: withPart, master: 'm1' }, take: 'take1', date: '2026-01-02T00:00:00Z' }],
    ['removeTake', { glyph: withPart, take: 'take1' }],
    ['tidyGlyphs', { operation: 'overlap', glyphs: [g('z')], masters: ['m1', 'm2'] }],
    [
      'takeGroups',
      { proposals: [{ side: 'first', name: 'new', leader: g('h'), members: [{ glyph: g('m'), likeness: 1 }] }] },
    ],
    [
      'placeLettering',
      {
        master: 'm1',
        unitsPerPixel: 2,
        sheet: 's',
        letters: [
          {
            glyph: g('n'),
            picture: { name: 'p', type: 'image/png', width: 9, height: 9, bytes: Uint8Array.of(1) },
            inkLeft: 1,
            inkRight: 8,
            baseline: 7,
          },
        ],
      },
    ],
  ];
})();

test('edits that chance seldom meets are undone and done again as well', () => {
  const refusals: string[] = [];
  for (const [name, args] of ACCEPTED) {
    const outcome = runEdit(demo, name, args);
    if (!outcome.ok) {
      refusals.push(`${name}: ${outcome.reason}`);
      continue;
    }
    const patch = patchBetween(demo, outcome.project);
    expect([name, isEmptyPatch(patch)]).toEqual([name, false]);
    expect(applyPatch(outcome.project, patch, 'backwards')).toEqual(demo);
    expect(applyPatch(demo, patch)).toEqual(outcome.project);
    expect(projectSchema.safeParse(outcome.project).error).toBeUndefined();
  }
  expect(refusals).toEqual([]);
});

test('every edit leaves a project that its schema accepts', () => {
  fc.assert(
    fc.property(fc.array(anyStep, { minLength: 1, maxLength: 12 }), (steps) => {
      const end = steps.reduce((p, step) => {
        const outcome = step.run(p);
        return outcome.ok ? outcome.project : p;
      }, demo);
      expect(projectSchema.safeParse(end).error).toBeUndefined();
    }),
    { numRuns: 40, seed: 4711 },
  );
});

test('numbers beyond the limits are refused with the place, whatever edit brings them', () => {
  const far = movePoints(demo, { at: { glyph: 'g40', master: 'm2' }, points: ['0:0'], dx: 1_500_000, dy: 0 });
  const { name } = demo.glyphs.g40!;
  expect(far).toMatchObject({
    ok: false,
    reason: `${name}, Heavy: point 1 of contour 1 would lie more than 1,000,000 units from the origin.`,
    place: { glyph: name, master: 'Heavy' },
  });
  const at = { glyph: 'g40', master: 'm1' };
  const tries: [string, unknown][] = [
    ['addComponent', { at, glyph: 'g9', transform: [1, 0, 0, 1, 2e6, 0] }],
    ['addGuide', { at, whole: false, guide: { x: 0, y: 1e7, angle: 0 } }],
    ['addGuide', { at, whole: true, guide: { x: 0, y: 1e7, angle: 0 } }],
    ['setSides', { at, advance: 70_000 }],
    ['setGlyphNames', { id: 'g40', name: 'x', unicodes: [0xd800] }],
    ['movePoints', { at, points: ['0:0'], dx: Number.NaN, dy: 0 }],
  ];
  for (const [edit, args] of tries) {
    const outcome = runEdit(demo, edit, args);
    expect([edit, outcome.ok]).toEqual([edit, false]);
    expect(outcome.ok ? '' : outcome.reason).toMatch(/\.$/);
  }
});

test('an entry is no larger than what it changed', () => {
  const size = (p: Project) => JSON.stringify(patchBetween(demo, p)).length;
  const done = (o: { ok: boolean }) => (o as unknown as { project: Project }).project;
  const first = { kind: 'glyph', id: 'g20' } as const;
  expect(size(done(setPair(demo, { master: 'm1', first, second: first, value: -7 })))).toBeLessThan(300);
  expect(size(done(setZone(demo, { master: 'm2', zone: 'xHeight', change: { position: 505 } })))).toBeLessThan(400);
  const moved = movePoints(demo, { at: { glyph: 'g40', master: 'm1' }, points: ['0:0'], dx: 3, dy: 0 });
  expect(size(done(moved))).toBeLessThan(1200);
});

test('the history keeps as many steps as it may, by serial; what is not at hand is asked for', () => {
  let project = demo;
  let history: History = EMPTY_HISTORY;
  for (let i = 1; i <= 12; i++) {
    const next = { ...project, unitsPerEm: 1000 + i };
    history = recorded(history, project, next, `step ${i}`, { most: 8 });
    project = next;
  }
  expect([history.first, history.position, history.last, history.done.length]).toEqual([5, 12, 12, 8]);
  expect(history.done[0]!.sentence).toBe('step 5');
  const bare = { ...history, done: [] };
  expect(missingFor(bare, 'undo')).toEqual({ from: 5, to: 12 });
  expect(missingFor(bare, 'undo', 3)).toEqual({ from: 10, to: 12 });
  expect(missingFor(bare, 'redo')).toBeUndefined();
  expect(undo(project, bare)).toBeUndefined();
  const again = withEntries(bare, 'undo', history.done);
  expect(again).toEqual(history);
  // An entry that cannot be read ends the history before it.
  const cut = withEntries(bare, 'undo', [history.done[0], undefined, ...history.done.slice(2)]);
  expect([cut.first, cut.done.length, cut.done[0]!.sentence]).toEqual([7, 6, 'step 7']);
  const undone = { ...history, done: [], undone: [], position: 8 };
  expect(missingFor(undone, 'redo')).toEqual({ from: 9, to: 12 });
  const forward = withEntries(undone, 'redo', [...history.done.slice(4, 6), undefined, history.done[7]]);
  expect([forward.last, forward.undone.map((e) => e.sentence)]).toEqual([10, ['step 10', 'step 9']]);
});

test('patches lead there and back, and say what differs', () => {
  const outcome = movePoints(demo, { at: { glyph: 'g40', master: 'm1' }, points: ['0:0'], dx: 5, dy: 0 });
  if (!outcome.ok) throw new Error(outcome.reason);
  const patch = patchBetween(demo, outcome.project);
  expect(patch.every((c) => c.path.slice(0, 4).join() === 'glyphs,g40,drawings,m1')).toBe(true);
  expect(applyPatch(demo, patch)).toEqual(outcome.project);
  expect(applyPatch(outcome.project, patch, 'backwards')).toEqual(demo);
  expect(isEmptyPatch(patchBetween(demo, demo))).toBe(true);
  // A copy elsewhere keeps what is not touched as it is.
  const copy = applySteps(demo, stepsOf(patch));
  expect(copy).toEqual(outcome.project);
  expect(copy.glyphs.g40!.drawings.m2).toBe(demo.glyphs.g40!.drawings.m2);
});

test('a copy elsewhere follows glyphs that come, go, lose a drawing, and parts that change', () => {
  const { m2: _, ...fewer } = demo.glyphs.g40!.drawings;
  const { g41: gone, ...rest } = demo.glyphs;
  const next: Project = {
    ...demo,
    glyphs: {
      ...rest,
      g40: { ...demo.glyphs.g40!, drawings: fewer },
      new1: { ...gone!, id: 'new1', name: 'new1', unicodes: [] },
    },
    glyphOrder: [...demo.glyphOrder.filter((id) => id !== 'g41'), 'new1'],
    unitsPerEm: 2000,
  };
  const copy = applySteps(demo, stepsOf(patchBetween(demo, next)));
  expect(copy).toEqual(next);
  expect(Object.keys(copy.glyphs)).toHaveLength(Object.keys(demo.glyphs).length);
  // What a copy does not have cannot be changed in it.
  const noted = { ...demo, glyphs: replacing(demo.glyphs, [{ ...demo.glyphs.g40!, note: 'seen' }]) };
  expect(applySteps({ ...demo, glyphs: {} }, stepsOf(patchBetween(demo, noted))).glyphs).toEqual({});
});

test('a glyph replaced leaves the others where they are, in their order', () => {
  const names = Object.keys(demo.glyphs);
  let { glyphs } = demo;
  for (const id of ['g40', 'g9', 'g40', 'g41']) {
    const before = glyphs;
    glyphs = replacing(glyphs, [{ ...glyphs[id]!, note: `${id} again` }]);
    expect(before[id]).not.toBe(glyphs[id]);
    expect(Object.keys(glyphs)).toEqual(names);
  }
  for (const id of names) if (!['g40', 'g9', 'g41'].includes(id)) expect(glyphs[id]).toBe(demo.glyphs[id]);
  const more = replacing(glyphs, [{ ...glyphs.g40!, id: 'more' }]);
  expect(Object.keys(more)).toEqual([...names, 'more']);
  expect(Object.keys(replacing(more, [{ ...more.g9! }]))).toEqual([...names, 'more']);
});
