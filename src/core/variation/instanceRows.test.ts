import { readyDemo } from '../../../demo/ready';
import { glyphNamed } from '../project/queries';
import { addInstances, setInstance } from './familyEdits';
import { bentShare, spacedRow, stemAt, weightRow } from './instanceRows';

const demo = readyDemo();
const n = glyphNamed(demo, 'n')!.id;
const row = weightRow(demo, {}, '');
const stems = (r: typeof row) => r.map((i) => stemAt(demo, n, i.place)!);

test('stems of a row grow by even steps, the first and last staying', () => {
  const even = spacedRow(demo, row, n);
  expect(even.map((i) => [i.name, i.weightClass])).toEqual(row.map((i) => [i.name, i.weightClass]));
  expect([even[0], even.at(-1)]).toEqual([row[0], row.at(-1)]);
  const widths = stems(even);
  const step = (widths.at(-1)! - widths[0]!) / (row.length - 1);
  widths.forEach((w, i) => {
    // The axis is met to a whole number, which is less than a unit of stem.
    expect(Math.abs(w - (widths[0]! + step * i))).toBeLessThan(0.6);
  });
});

test('by a curve stems come slowly at first, or fast, and always grow', () => {
  const [slow, even, fast] = [-0.8, 0, 0.8].map((bend) => stems(spacedRow(demo, row, n, bend)));
  slow!.slice(1, -1).forEach((w, i) => {
    expect(w).toBeLessThan(even![i + 1]!);
    expect(fast![i + 1]!).toBeGreaterThan(even![i + 1]!);
  });
  for (const list of [slow!, fast!, stems(spacedRow(demo, row, n, 99))])
    list.slice(1).forEach((w, i) => {
      expect(w).toBeGreaterThanOrEqual(list[i]!);
    });
  expect([bentShare(0, 0.9), bentShare(1, 0.9), bentShare(0.5, 0.4)]).toEqual([0, 1, 0.6]);
});

test('a letter without stems, or an axis without weight, leaves the row as it is', () => {
  expect(spacedRow(demo, row, glyphNamed(demo, 'space')!.id)).toEqual(row);
  expect(spacedRow({ ...demo, axes: [] }, row, n)).toEqual(row);
  expect(spacedRow(demo, row.slice(0, 2), n)).toEqual(row.slice(0, 2));
});

test('an instance has its classes, its link and the name of its file; what is given empty is left to the rule', () => {
  const added = addInstances({ ...demo, instances: [] }, { instances: row });
  if (!added.ok) throw new Error(added.reason);
  const change = { styleLink: 'bold' as const, fileName: 'Velm-Bold', widthClass: 5, weightClass: 690 };
  const set = setInstance(added.project, { index: 1, change });
  if (!set.ok) throw new Error(set.reason);
  expect(set.project.instances[1]).toMatchObject(change);
  const back = setInstance(set.project, { index: 1, change: { styleLink: '', fileName: '' } });
  expect(back.ok && Object.keys(back.project.instances[1]!).sort()).toEqual([
    'name',
    'place',
    'weightClass',
    'widthClass',
  ]);
});
