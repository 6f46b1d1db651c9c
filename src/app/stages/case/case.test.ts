import { buildStarter } from '../../../../demo/starter';
import { glyphNamed } from '../../../core/project/queries';
import { neighboursInGalley } from '../draw/neighbours';
import { compartmentsOf, rowsOf } from './compartments';

const demo = buildStarter();

test('glyphs lie in compartments by role, every one once, what is needed most largest', () => {
  const compartments = compartmentsOf(demo, () => true);
  expect(compartments.slice(0, 3).map((c) => [c.title, c.glyphs.length])).toEqual([
    ['Lowercase', 26],
    ['Capitals', 26],
    ['Figures', 10],
  ]);
  expect(compartments.flatMap((c) => c.glyphs)).toHaveLength(demo.glyphOrder.length);
  expect(compartments[0]!.cell).toBeGreaterThan(compartments[3]!.cell);
});

test('rows hold what fits the width', () => {
  const rows = rowsOf(
    compartmentsOf(demo, () => true),
    500,
  );
  const cells = rows.filter((r) => r.kind === 'cells');
  for (const row of cells) expect(row.glyphs.length * row.cell).toBeLessThanOrEqual(500);
  expect(cells.reduce((n, r) => n + r.glyphs.length, 0)).toBe(demo.glyphOrder.length);
});

test('neighbours come from the galley, n and o where it has none', () => {
  const beside = (name: string) => {
    const { before, after } = neighboursInGalley(demo, glyphNamed(demo, name)!);
    return [before?.name, after?.name];
  };
  expect(beside('G')).toEqual(['n', 'r']);
  expect(beside('seven')).toEqual(['zero', 'colon']);
  expect(beside('Z')).toEqual(['n', 'o']);
});
