import { readyDemo } from '../demo/ready';
import { coverage } from '../demo/sheets/raster';
import { drawSheet, SHEETS } from '../demo/sheets/sheets';
import { random } from '../fuzz/mutate';
import { worked } from '../src/core/drawing/strokes';
import { proposeFit } from '../src/core/fitting/proposal';
import { type Contour, curvesOf, type Point } from '../src/core/geometry/contour';
import { nearestOn, pointAt } from '../src/core/geometry/curve';
import { combineShapes, removeOverlaps } from '../src/core/geometry/overlaps';
import { strokeOutline } from '../src/core/geometry/stroke';
import { collisions } from '../src/core/kerning/collisions';
import { proposeKerning } from '../src/core/kerning/proposal';
import { drawingBounds, drawingsOf, flattened } from '../src/core/project/outline';
import { drawingOf, glyphNamed, masterOf } from '../src/core/project/queries';
import { readSheet } from '../src/core/tracing/sheet';
import { traced } from '../src/core/tracing/trace';
import { median, milliseconds, printTable, type Row } from './table';

const times = (run: () => unknown, rounds = 7): number => {
  run();
  return median(
    Array.from({ length: rounds }, () => {
      const start = performance.now();
      run();
      return performance.now() - start;
    }),
  );
};

/** What the hand waits for while drawing: tracing, strokes, arithmetic of shapes. */
export function benchDrawing(): void {
  const demo = readyDemo();
  const master = masterOf(demo, 'm1')!;
  const outline = (name: string) =>
    removeOverlaps(flattened(drawingOf(glyphNamed(demo, name)!, 'm1'), drawingsOf(demo, 'm1'))).contours;
  const rows: Row[] = [];
  const row = (what: string, budget: number | undefined, ms: number) =>
    rows.push({
      what,
      budget: budget === undefined ? '–' : `${budget.toLocaleString('en')} ms`,
      measured: milliseconds(ms),
      met: budget === undefined || ms < budget,
    });

  for (const name of ['g', 'ampersand']) {
    const side = 1000;
    const covered = coverage(outline(name), (x, y) => [(x + 150) * 1.05, (800 - y) * 0.98] as const, side, side);
    const pixels = new Uint8Array(covered.length);
    covered.forEach((v, i) => {
      pixels[i] = Math.round(255 * (1 - Math.min(1, v)));
    });
    row(
      `trace a region of 1000 × 1000 pixels (${name})`,
      1000,
      times(() => traced({ width: side, height: side, pixels })),
    );
  }
  const sheet = drawSheet(SHEETS[0]!, 300);
  row(
    'find the 26 letters of a sheet at 300 dpi',
    undefined,
    times(() => readSheet(sheet), 3),
  );

  const letters = [...'abcdefghijklmnopqrstuvwxyz'].map(outline);
  let worst = 0;
  for (const letter of letters) {
    const edges = letter.flatMap((c) => [...curvesOf(c)]);
    for (const c of strokeOutline(letter, { width: 30, join: 'round', cap: 'round' }).contours)
      for (const curve of curvesOf(c))
        for (const t of [0.3, 0.7])
          worst = Math.max(
            worst,
            Math.abs(Math.min(...edges.map((e) => nearestOn(e, ...pointAt(curve, t)).distance)) - 15),
          );
  }
  rows.push({
    what: 'a stroke 30 wide along a to z: farthest from its true place',
    budget: '0.5 units',
    measured: `${worst.toFixed(2)} units`,
    met: worst < 0.5,
  });
  row(
    'stroke a letter, mean of a to z',
    undefined,
    times(() => letters.map((l) => strokeOutline(l, { width: 30, join: 'round', cap: 'round' })), 3) / 26,
  );
  row(
    'unite two letters, mean of a to z with the next one',
    undefined,
    times(() => letters.map((l, i) => combineShapes(l, letters[(i + 1) % 26]!, 'unite')), 3) / 26,
  );
  const drawing = drawingOf(glyphNamed(demo, 'a')!, 'm1');
  const box = drawingBounds(drawing, drawingsOf(demo, 'm1'));
  row(
    'hollow an a',
    undefined,
    times(() => worked(drawing.contours, { kind: 'hollow', wall: 20, join: 'round' }, drawing, box, master.zones)),
  );
  const many = raggedRing(466);
  for (const work of [
    { kind: 'stroke', width: 40, join: 'round', cap: 'round' },
    { kind: 'grow', by: 20, join: 'round' },
    { kind: 'hollow', wall: 20, join: 'round' },
  ] as const)
    row(
      `${work.kind} a rough ring of ${many.points.length} points`,
      300,
      times(() => worked([many], work, drawing, box, master.zones)),
    );
  printTable('Drawing', rows);
}

/** A closed contour of about so many points, a third of its sides straight, as rough as a traced one. */
function raggedRing(about: number): Contour {
  const sides = Math.round((about * 3) / 7);
  const next = random(7);
  const at = (side: number, r: number) => {
    const angle = (side / sides) * 2 * Math.PI;
    return { x: r * Math.cos(angle), y: r * Math.sin(angle) };
  };
  const points: Point[] = [];
  for (let i = 0; i < sides; i++) {
    const r = 30 * Math.sqrt(sides) + next() * 12;
    if (i % 3 === 0) points.push({ ...at(i, r), type: 'line' });
    else
      points.push(
        { ...at(i - 0.66, r), type: 'off' },
        { ...at(i - 0.33, r), type: 'off' },
        { ...at(i, r), type: 'curve' },
      );
  }
  return { closed: true, points };
}

/** Spacing: proposals for 200 by 200 glyphs without the help of groups, collisions of 300 by 300. */
export function benchSpacing(): void {
  const demo = readyDemo();
  const bare = { ...demo, groups: [] };
  const ids = demo.glyphOrder.filter((id) => demo.glyphs[id]!.unicodes.length > 0 && demo.glyphs[id]!.name !== 'space');
  const rows: Row[] = [];
  const row = (what: string, budget: number, ms: number) =>
    rows.push({ what, budget: `${budget.toLocaleString('en')} ms`, measured: milliseconds(ms), met: ms < budget });
  row(
    'kerning proposal, 200 × 200 glyphs, no groups',
    2000,
    times(() => proposeKerning(bare, 'm1', ids.slice(0, 200), ids.slice(0, 200)).pairs, 3),
  );
  row(
    'collisions, 300 × 300 glyphs, accents and kerning counted',
    5000,
    times(() => collisions(demo, 'm1', ids.slice(0, 300), 12), 3),
  );
  row(
    'fit proposal, all glyphs of the demo',
    2000,
    times(() => proposeFit(demo, 'm1', demo.glyphOrder, new Set()), 3),
  );
  printTable('Spacing', rows);
}
