import { readyDemo } from '../../../demo/ready';
import { readProjectFile, writeProjectFile } from '../formats/project/projectFile';
import { type Contour, curvesOf } from '../geometry/contour';
import { extremes } from '../geometry/curve';
import type { Project } from '../project/model';
import { drawingsOf, flattened } from '../project/outline';
import { drawingOf, glyphNamed, glyphsInOrder } from '../project/queries';
import { sameStructure } from '../project/structure';
import { rowsOf } from '../variation/rows';
import { italicOf } from './italic';

const demo = readyDemo();
const ANGLE = 12;
const italic = italicOf(demo, ANGLE);
const k = Math.tan((ANGLE * Math.PI) / 180);

const outline = (p: Project, name: string, master = 'm1'): readonly Contour[] => {
  const source = drawingsOf(p, master);
  return flattened(source(glyphNamed(p, name)!.id)!, source);
};
/** Runs of ink half way up, or at a share of the height. */
const runs = (contours: readonly Contour[], share: number) => rowsOf(contours, [share])[0]!.ink.map(([a, b]) => b - a);
/** The thickness of a straight stroke that a level line cuts: its run times the sine of the edge, found by two lines. */
function thickness(contours: readonly Contour[], share: number, n: number): number {
  const [low, high] = rowsOf(contours, [share, share + 0.02]);
  const [[a0, a1], [b0, b1]] = [low!.ink[n]!, high!.ink[n]!];
  const lean = ((b0 + b1) / 2 - (a0 + a1) / 2) / (high!.y - low!.y);
  return (a1 - a0) / Math.hypot(1, lean);
}

test('stems and diagonals are as thick as in the roman, in every master; levels stay', () => {
  for (const master of ['m2', 'm1', 'm3', 'm5'])
    for (const [name, share, n] of [
      ['l', 0.5, 0],
      ['n', 0.3, 0],
      ['n', 0.3, 1],
      ['H', 0.25, 1],
      ['v', 0.6, 0],
      ['v', 0.6, 1],
      ['A', 0.12, 0],
      ['A', 0.12, 1],
      ['slash', 0.5, 0],
      ['x', 0.85, 0],
    ] as const) {
      const [before, after] = [demo, italic].map((p) => thickness(outline(p, name, master), share, n));
      expect([name, n, master, Math.abs(after! - before!) < Math.max(2, 0.05 * before!)]).toEqual([
        name,
        n,
        master,
        true,
      ]);
    }
  // A plain shear would thin the stem and spoil the diagonals: the left stroke of the v would grow by a tenth.
  const bar = (p: Project) => {
    const [box] = [outline(p, 'hyphen')].map((c) => c.flatMap((x) => x.points.map((q) => q.y)));
    return Math.max(...box!) - Math.min(...box!);
  };
  expect(bar(italic)).toBe(bar(demo));
});

test('the o is as thick all round as it was: the ink of its ring keeps its area but for what its edge grows', () => {
  for (const share of [0.3, 0.5, 0.7]) {
    const [before, after] = [demo, italic].map((p) => runs(outline(p, 'o'), share));
    expect(after).toHaveLength(before!.length);
  }
  // At half height both sides of the ring are upright in the roman and lean by the angle in the italic.
  const sides = (p: Project) => [0, 1].map((n) => thickness(outline(p, 'o'), 0.5, n));
  const [roman, slanted] = [sides(demo), sides(italic)];
  roman.forEach((w, i) => {
    expect(Math.abs(slanted[i]! - w)).toBeLessThan(3);
  });
});

test('curves have points at their extremes, masters agree as before, parts and spacing stay', () => {
  const o = drawingOf(glyphNamed(italic, 'o')!, 'm1');
  for (const c of o.contours)
    for (const curve of curvesOf(c))
      if (curve.length === 8) expect(extremes(curve, 0).filter((t) => t > 0.05 && t < 0.95)).toEqual([]);
  const agreed = (p: Project) =>
    glyphsInOrder(p)
      .filter((g) => sameStructure(p.masters.map((m) => drawingOf(g, m.id))))
      .map((g) => g.name);
  expect(agreed(italic)).toEqual(agreed(demo));
  for (const name of ['adieresis', 'n', 'A', 'f_i']) {
    const [before, after] = [demo, italic].map((p) => drawingOf(glyphNamed(p, name)!, 'm1'));
    expect([name, after!.advance]).toEqual([name, before!.advance]);
    expect([name, after!.components.map((c) => c.glyph)]).toEqual([name, before!.components.map((c) => c.glyph)]);
  }
  expect(italic.masters.map((m) => [m.name, m.italicAngle])).toEqual(
    demo.masters.map((m) => [m.name === 'Regular' ? 'Italic' : `${m.name} Italic`, -ANGLE]),
  );
  expect(italic.masters.map((m) => m.kerning)).toEqual(demo.masters.map((m) => m.kerning));
});

test('a mark stands over its slanted letter where the shear puts it', () => {
  const dx = (-k * demo.masters.find((m) => m.id === 'm1')!.zones.xHeight.position) / 2;
  const middleOf = (p: Project) => {
    const dot = outline(p, 'idotaccent' in p.glyphs ? 'i' : 'adieresis').at(-1)!;
    const [xs, ys] = [dot.points.map((q) => q.x), dot.points.map((q) => q.y)];
    return [(Math.min(...xs) + Math.max(...xs)) / 2, (Math.min(...ys) + Math.max(...ys)) / 2] as const;
  };
  const [[x, y], [sx, sy]] = [middleOf(demo), middleOf(italic)];
  expect(Math.abs(sx - (x + k * y + dx))).toBeLessThan(2);
  expect(Math.abs(sy - y)).toBeLessThan(2);
});

test('the italic opens again from its file', () => {
  const opened = readProjectFile(writeProjectFile(italic), 'Italic.wendril');
  expect(opened.ok && opened.value.glyphOrder.length).toBe(demo.glyphOrder.length);
  expect(opened.ok && opened.value.family.name).toBe(demo.family.name);
});
