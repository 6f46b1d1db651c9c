import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import { toDesign } from '../project/axes';
import type { Project } from '../project/model';
import { toUser } from '../project/places';
import { holdsAt, rangesOf } from './conditions';
import { FeatureFault } from './cursor';
import { treeOf } from './trees';

const demo = readyDemo();
const mapped: Project['axes'] = demo.axes.map((a) =>
  a.tag === 'wght'
    ? {
        ...a,
        map: [
          [300, 300],
          [400, 380],
          [800, 800],
        ],
      }
    : a,
);
const said = (text: string) => {
  const [found] = treeOf(text).statements;
  if (found?.kind !== 'conditionset') throw new Error('no conditions');
  return found;
};

test('ranges are written in user units and hold in design units, by the map of the axis', () => {
  expect(rangesOf(said('conditionset c { wght 400 800; wdth 75 90; } c;'), mapped)).toEqual([
    { axis: 'wght', least: 380, most: 800 },
    { axis: 'wdth', least: 75, most: 90 },
  ]);
  expect(() => rangesOf(said('conditionset c { opsz 1 2; } c;'), mapped)).toThrow(FeatureFault);
  expect(() => rangesOf(said('conditionset c { wght 800 400; } c;'), mapped)).toThrow(/ends before it begins/);
});

test('a place is in a range when its user value is, ends counted in, whatever the map', () => {
  const weight = mapped.find((a) => a.tag === 'wght')!;
  fc.assert(
    fc.property(
      fc.integer({ min: 300, max: 800 }),
      fc.integer({ min: 300, max: 800 }),
      fc.integer({ min: 300, max: 800 }),
      (a, b, at) => {
        const [low, high] = [Math.min(a, b), Math.max(a, b)];
        const ranges = rangesOf(said(`conditionset c { wght ${low} ${high}; } c;`), mapped);
        const place = { axes: mapped, at: { wght: toDesign(weight, at) } };
        expect([at, holdsAt(ranges, place)]).toEqual([at, at >= low && at <= high]);
        expect(Math.abs(toUser(weight, place.at.wght) - at)).toBeLessThan(1e-6);
      },
    ),
  );
});

test('an axis that a place does not give stands at its default; no range at all holds everywhere', () => {
  const [heavy, plain] = ['wght 600 800', 'wght 350 450'].map((r) =>
    rangesOf(said(`conditionset c { ${r}; } c;`), demo.axes),
  );
  expect([
    holdsAt(heavy!, { axes: demo.axes, at: { wdth: 75 } }),
    holdsAt(plain!, { axes: demo.axes, at: {} }),
  ]).toEqual([false, true]);
  expect(holdsAt([], { axes: demo.axes, at: { wght: 1 } })).toBe(true);
});
