import { buildStarter } from '../../demo/starter';
import { movePoints } from '../core/drawing/edits';
import { patchBetween, stepsOf } from '../core/project/patch';
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
