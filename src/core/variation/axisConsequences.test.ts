import { readyDemo } from '../../../demo/ready';
import { designEnds, toUser } from '../project/places';
import { axisConsequences } from './axisConsequences';
import { setAxis } from './familyEdits';

const demo = readyDemo();

test('what stays reached and numbered as before is not spoken of', () => {
  expect(axisConsequences(demo, 'wght', {})).toEqual([]);
  expect(axisConsequences(demo, 'wght', { maximum: 900 })).toEqual([]);
  expect(axisConsequences(demo, 'none', { maximum: 900 })).toEqual([]);
});

test('masters and instances that an axis reaches no more are named, and what the default becomes', () => {
  const said = axisConsequences(demo, 'wght', { maximum: 650 });
  expect(said[0]).toMatch(/^Heavy, Narrow Heavy would lie beyond its ends: they are reached no more\.$/);
  expect(said[1]).toMatch(/Bold.* would lie beyond its ends and look as the end does\.$/);
  expect(axisConsequences(demo, 'wght', { default: 300 })).toContain('The default would be Light, not Regular.');
  expect(axisConsequences(demo, 'wght', { default: 350 })).toContain(
    `No master would stand at the default; ${demo.masters[0]!.name} would be taken for it.`,
  );
});

test('a map moves the numbers that fonts have, and the edit does what was said', () => {
  const map = [
    [300, 300],
    [400, 400],
    [700, 600],
    [800, 800],
  ] as const;
  const said = axisConsequences(demo, 'wght', { map });
  expect(said).toHaveLength(1);
  const bold = demo.instances.find((i) => i.name === 'Bold')!;
  const done = setAxis(demo, { tag: 'wght', change: { map } });
  if (!done.ok) throw new Error(done.reason);
  const [axis] = done.project.axes;
  const number = Math.round(toUser(axis!, bold.place.wght!) * 10) / 10;
  expect(number).toBe(750);
  expect(said[0]).toContain(`Bold at ${number} (700 now)`);
  expect(designEnds(axis!)).toEqual(designEnds(demo.axes[0]!));
});
