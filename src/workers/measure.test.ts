import { readyDemo } from '../../demo/ready';
import { buildStarter } from '../../demo/starter';
import { fingerprintOf } from '../core/casting/fingerprint';
import { movePoints } from '../core/drawing/edits';
import { sidesOf } from '../core/fitting/sides';
import { isOnCurve, withStart } from '../core/geometry/contour';
import { offeredFor } from '../core/kerning/likeness';
import { pairFacts } from '../core/kerning/queue';
import { applySteps, patchBetween, stepsOf } from '../core/project/patch';
import { glyphNamed, masterOf } from '../core/project/queries';
import { withChanged } from '../core/testing/change';
import { measureService } from './measure';

test('tidying many glyphs tells how far it is, and passes over what is not there', () => {
  const project = buildStarter();
  const told: number[] = [];
  measureService.load(project);
  const proposals = measureService.tidy(
    { operation: 'round', glyphs: [...project.glyphOrder, 'gone'], masters: ['m1'], amount: 25 },
    (done, total) => {
      expect(total).toBe(project.glyphOrder.length + 1);
      told.push(done);
    },
  );
  expect(told).toEqual([0, 16, 32, 48, 64]);
  expect(proposals.length).toBeGreaterThan(60);
  for (const p of proposals)
    expect(p.drawings.m1!.contours.flatMap((c) => c.points).every((q) => q.x % 25 === 0 && q.y % 25 === 0)).toBe(true);
});

test('what is measured follows the document by steps', () => {
  const project = buildStarter();
  measureService.load(project);
  const master = project.masters[0]!.id;
  const before = measureService.kerningQueue(master, 5, 8);
  const n = project.glyphOrder.find((id) => project.glyphs[id]!.name === 'n')!;
  const { points } = project.glyphs[n]!.drawings.m1!.contours[0]!;
  const all = points.map((_, i) => `0:${i}` as const);
  const moved = movePoints(project, { at: { glyph: n, master }, points: all, dx: 60, dy: 0 });
  if (!moved.ok) throw new Error(moved.reason);
  measureService.update(stepsOf(patchBetween(project, moved.project)));
  expect(measureService.kerningQueue(master, 5, 8)).not.toEqual(before);
  expect(measureService.kerningSize(master)).toEqual({ pairs: 0, bytes: 0 });
});

/** The demo with a contour of T begun elsewhere in the Heavy: it agrees in number, and crosses itself on the way. */
function tangled() {
  const demo = readyDemo();
  const t = glyphNamed(demo, 'T')!;
  const heavy = t.drawings.m3!;
  const on = heavy.contours[0]!.points.flatMap((p, i) => (isOnCurve(p) ? [i] : []));
  const drawings = { ...t.drawings, m3: { ...heavy, contours: [withStart(heavy.contours[0]!, on[3]!)] } };
  return { demo, project: { ...demo, glyphs: { ...demo.glyphs, [t.id]: { ...t, drawings } } }, id: t.id };
}

test('what disagrees is told as it is found; what crosses on the way stands among it as a suspicion', () => {
  const { project, id } = tangled();
  measureService.load(project);
  const told: number[] = [];
  const found = measureService.disagreeing((done, total) => {
    expect(total).toBe(project.glyphOrder.length);
    told.push(done);
  });
  expect(told.length).toBeGreaterThan(30);
  const own = found.find((d) => d.glyph === id)!;
  expect(own.faults.every((f) => f.suspicion)).toBe(true);
  const kinds = new Set(own.faults.map((f) => f.kind));
  expect(kinds.has('crosses') || kinds.has('start')).toBe(true);
  for (const f of own.faults.filter((x) => x.kind === 'crosses'))
    expect(f.reason).toMatch(/^Contour 1 crosses itself at weight .* by \d+ units, though in no master\.$/);
});

test('outlines are parted away from the page: the steps make what the edit makes', () => {
  const { demo, project, id } = tangled();
  measureService.load(project);
  const parted = measureService.parted([id]);
  if (!parted.ok) throw new Error(parted.reason);
  expect(parted.value.sentence).toBe('Parted the outlines of T between its masters');
  const after = applySteps(project, parted.value.steps);
  expect(after.glyphs[id]!.drawings.m3!.contours).toEqual(demo.glyphs[id]!.drawings.m3!.contours);
  measureService.load(demo);
  const none = measureService.parted([id]);
  expect(none.ok ? '' : none.reason).toMatch(/for the hand/);
});

test('what has changed since a casting is told of the document as it is now', () => {
  const project = readyDemo();
  measureService.load(project);
  const print = fingerprintOf(project);
  expect(measureService.changesSince(print)).toEqual([]);
  const wider = withChanged(project, 'o', 'm3', (d) => ({ advance: d.advance + 9 }));
  measureService.update(stepsOf(patchBetween(project, wider)));
  expect(measureService.changesSince(print)).toEqual(['1 glyph drawn or spaced anew: o.']);
  measureService.update(stepsOf(patchBetween(wider, project)));
  expect(measureService.changesSince(print)).toEqual([]);
});

test('what is even for a pair, alike on its sides and contradictory in its kerning is that of the document as it is now', () => {
  const project = readyDemo();
  measureService.load(project);
  const id = (name: string) => glyphNamed(project, name)!.id;
  const master = masterOf(project, 'm1')!;
  const queued = measureService.kerningQueue('m1', 5, 0)[0]!;
  expect(measureService.pairEven('m1', queued.first, queued.second)).toBe(
    pairFacts(project, master, queued.first, queued.second).proposed,
  );
  const offered = measureService.offeredFor('m1', id('T'), id('o'));
  expect(offered).toEqual({
    first: offeredFor(project, master, 'first', id('T')),
    second: offeredFor(project, master, 'second', id('o')),
  });
  const kinds = () => measureService.kerningFaults('m1').map((f) => f.kind);
  expect(kinds()).not.toContain('kerning/missing');
  const kerned = project.masters.map((m) => ({ ...m, kerning: { ...m.kerning, 'glyph:gone glyph:gone': -40 } }));
  measureService.update(stepsOf(patchBetween(project, { ...project, masters: kerned })));
  expect(kinds()).toContain('kerning/missing');
});

test('sides are proposed from the letters that are kept, and those are not touched', () => {
  const project = buildStarter();
  measureService.load(project);
  const id = (name: string) => glyphNamed(project, name)!.id;
  const few = measureService.proposeFit('m1', ['n', 'o', 'H', 'O'].map(id));
  expect(few.length).toBeGreaterThan(5);
  const more = measureService.proposeFit('m1', ['n', 'o', 'H', 'O', project.glyphs[few[0]!.glyph]!.name].map(id));
  expect(more.map((p) => p.glyph)).toEqual(few.slice(1).map((p) => p.glyph));
  for (const { glyph, now } of few) expect(sidesOf(project, project.glyphs[glyph]!, 'm1')).toMatchObject(now);
});
