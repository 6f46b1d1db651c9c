import { readFileSync } from 'node:fs';
import { PNG } from 'pngjs';
import { signedArea } from '../../src/core/geometry/contour';
import { oval, polygon } from '../pen';
import { writePng } from './png';
import { coverage, noise } from './raster';
import { drawSheet, SHEETS } from './sheets';

const total = (values: Float32Array) => values.reduce((sum, v) => sum + v, 0);

test('what contours cover is their area; counters stay white; what lies beyond the edge is left out', () => {
  const plain = (x: number, y: number) => [x, 100 - y] as const;
  const round = oval(10, 10, 90, 90);
  const hole = {
    ...oval(30, 30, 70, 70),
    points: [...oval(30, 30, 70, 70).points]
      .reverse()
      .map((p, i, all) =>
        p.type === 'off'
          ? p
          : { ...p, type: all[(i - 1 + all.length) % all.length]!.type === 'off' ? ('curve' as const) : p.type },
      ),
  };
  expect(total(coverage([round], plain, 100, 100))).toBeCloseTo(Math.abs(signedArea(round)), -1);
  const ring = coverage([round, hole], plain, 100, 100);
  expect(ring[50 * 100 + 50]).toBe(0);
  expect(ring[50 * 100 + 20]).toBeCloseTo(1, 5);
  expect(total(coverage([polygon([50, -50], [250, -50], [250, 150], [50, 150])], plain, 100, 100))).toBeCloseTo(
    5000,
    1,
  );
});

test('noise is smooth, bounded and the same every time', () => {
  for (let i = 0; i < 200; i++) {
    const [x, y] = [i * 0.37 - 20, i * 0.23];
    expect(Math.abs(noise(x, y, 4))).toBeLessThanOrEqual(1);
    expect(Math.abs(noise(x + 0.001, y, 4) - noise(x, y, 4))).toBeLessThan(0.01);
  }
  expect(noise(1.5, 2.5, 7)).toBe(noise(1.5, 2.5, 7));
  expect(noise(1.5, 2.5, 7)).not.toBe(noise(1.5, 2.5, 8));
});

test('each sheet has dark lettering on lit paper that does not touch its edges, and is the committed picture', () => {
  expect(SHEETS.map((s) => s.name)).toEqual(['pen', 'brush', 'stencil']);
  for (const sheet of SHEETS) {
    const grey = drawSheet(sheet, 150);
    expect([grey.width, grey.height]).toEqual([1240, 874]);
    const dark = grey.pixels.filter((v) => v < 110).length / grey.pixels.length;
    expect(dark).toBeGreaterThan(0.05);
    expect(dark).toBeLessThan(0.35);
    const rim = Array.from({ length: grey.width }, (_, x) => [
      grey.pixels[x]!,
      grey.pixels[(grey.height - 1) * grey.width + x]!,
    ]).flat();
    expect(Math.min(...rim)).toBeGreaterThan(160);
    const committed = PNG.sync.read(readFileSync(`public/demo/sheets/${sheet.name}.png`));
    expect([committed.width, committed.height]).toEqual([grey.width, grey.height]);
    const differing = grey.pixels.reduce((n, v, i) => n + (committed.data[i * 4] === v ? 0 : 1), 0);
    expect(differing).toBe(0);
  }
});

test('a resolution twice as fine shows the same sheet twice as large', () => {
  const sheet = SHEETS[2]!;
  const [coarse, fine] = [drawSheet(sheet, 40), drawSheet(sheet, 80)];
  expect(Math.abs(fine.width - 2 * coarse.width)).toBeLessThanOrEqual(1);
  const ink = (pixels: Uint8Array) => pixels.filter((v) => v < 128).length / pixels.length;
  expect(ink(fine.pixels)).toBeCloseTo(ink(coarse.pixels), 2);
  const png = PNG.sync.read(Buffer.from(writePng(coarse)));
  expect(png.data[0]).toBe(coarse.pixels[0]);
});
