import { buildStarter } from '../../../demo/starter';
import { transformContour } from '../geometry/contour';
import { drawingsAt } from '../project/drawingsAt';
import type { Drawing, Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { blendWith } from './blendWith';
import { projectAt } from './projectAt';
import { takenMaster } from './takenMaster';

const starter = buildStarter();
const [master] = starter.masters;

/** Another font: the same letters half as wide again. */
function wider(): Project {
  const wide = (d: Drawing): Drawing => ({
    ...d,
    advance: d.advance * 1.5,
    contours: d.contours.map((c) => transformContour(c, [1.5, 0, 0, 1, 0, 0])),
  });
  const glyphs = Object.fromEntries(
    Object.entries(starter.glyphs).map(([id, g]) => [
      id,
      { ...g, drawings: { [master!.id]: wide(g.drawings[master!.id]!) } },
    ]),
  );
  return { ...starter, family: { ...starter.family, name: 'Orde Wide' }, glyphs };
}

const other = wider();
const { drawings, facts } = takenMaster(starter, other, other.masters[0]!.id);
const blended = () => {
  const done = blendWith(starter, { name: 'Orde Wide Regular', drawings: { ...drawings }, facts });
  if (!done.ok) throw new Error(done.reason);
  return done;
};

test('two fonts are blended along an axis of their own: the one at 0, the other at 100, between as much of each', () => {
  const { project, sentence } = blended();
  expect(sentence).toMatch(/^Blended with Orde Wide Regular/);
  expect(project.axes.map((a) => [a.tag, a.name, a.minimum, a.default, a.maximum])).toEqual([
    ['BLND', 'Blend', 0, 0, 100],
  ]);
  expect(project.masters).toHaveLength(2);
  const n = glyphNamed(project, 'n')!;
  const advance = n.drawings[master!.id]!.advance;
  for (const share of [0, 0.25, 0.5, 1])
    expect(drawingsAt(project, { BLND: 100 * share })(n.id)!.advance).toBeCloseTo(advance * (1 + share / 2), 0);
});

test('what lies between is a project of its own', () => {
  const { project } = blended();
  const { project: own, stuck } = projectAt(project, { BLND: 40 }, 'Between');
  expect(stuck).toEqual([]);
  expect(own.axes).toEqual([]);
  expect(own.masters.map((m) => m.name)).toEqual(['Between']);
  const n = glyphNamed(own, 'n')!;
  const before = glyphNamed(starter, 'n')!.drawings[master!.id]!.advance;
  expect(n.drawings[own.masters[0]!.id]!.advance).toBeCloseTo(before * 1.2, 0);
});

test('a second blend gets an axis of its own beside the first', () => {
  const { project } = blended();
  const taken = takenMaster(project, other, other.masters[0]!.id);
  const twice = blendWith(project, { name: 'Once more', drawings: { ...taken.drawings }, facts: taken.facts });
  if (!twice.ok) throw new Error(twice.reason);
  expect(twice.project.axes.map((a) => a.tag)).toEqual(['BLND', 'BLN2']);
  expect(new Set(twice.project.axes.map((a) => a.name)).size).toBe(2);
  const again = blendWith(project, { name: 'Orde Wide Regular', drawings: { ...taken.drawings }, facts: taken.facts });
  expect(again.ok ? 'done' : again.reason).toMatch(/There is a master Orde Wide Regular already/);
});
