import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import { coverage } from '../../../demo/sheets/raster';
import { drawSheet, SHEETS } from '../../../demo/sheets/sheets';
import { placedOutlines } from '../drawing/placedOutlines';
import { ellipse, rectangle } from '../drawing/shapes';
import {
  type Contour,
  contourBounds,
  curvesOf,
  isOnCurve,
  reverseContour,
  segmentsOf,
  signedArea,
} from '../geometry/contour';
import { boundsOf, nearestOn, pointAt } from '../geometry/curve';
import { removeOverlaps } from '../geometry/overlaps';
import { drawingsOf, flattened } from '../project/outline';
import { drawingOf, glyphNamed } from '../project/queries';
import { evenSteps, inkEdges, ringArea } from './edges';
import { cropped, type GreyPicture, greyOf, inkThreshold } from './picture';
import { withLetterCount } from './regions';
import { cutOut, readSheet, unitsPerPixel } from './sheet';
import { evenLight, skewOf, turned } from './straighten';
import { traced } from './trace';

const plain = (height: number) => (x: number, y: number) => [x, height - y] as const;
/** Contours in pixels as an antialiased picture, black on white. */
function picture(contours: readonly Contour[], width: number, height: number, place = plain(height)): GreyPicture {
  const covered = coverage(contours, place, width, height);
  const pixels = new Uint8Array(covered.length);
  covered.forEach((v, i) => {
    pixels[i] = Math.round(255 * (1 - Math.min(1, v)));
  });
  return { width, height, pixels };
}

/** The greatest distance of one outline's curves from another outline. */
function strays(from: readonly Contour[], to: readonly Contour[]): number {
  const curves = to.flatMap((c) => curvesOf(c).map((curve) => ({ curve, box: boundsOf([curve]) })));
  const away = (x: number, y: number) => {
    let best = Infinity;
    for (const { curve, box } of curves) {
      if (Math.hypot(Math.max(0, box.xMin - x, x - box.xMax), Math.max(0, box.yMin - y, y - box.yMax)) < best)
        best = Math.min(best, nearestOn(curve, x, y).distance);
    }
    return best;
  };
  return Math.max(
    ...from.flatMap((c) =>
      curvesOf(c).flatMap((curve) => Array.from({ length: 8 }, (_, k) => away(...pointAt(curve, k / 8)))),
    ),
  );
}
const pointsOf = (contours: readonly Contour[]) => contours.reduce((n, c) => n + c.points.length, 0);

describe('edges of the ink', () => {
  test('rings run counter-clockwise round ink and clockwise round paper, and enclose its area', () => {
    const grey = picture([ellipse(10, 10, 90, 80), reverseContour(ellipse(30, 30, 70, 60))], 100, 100);
    const rings = inkEdges(grey, 128).map(ringArea);
    expect(rings).toHaveLength(2);
    expect(Math.max(...rings)).toBeCloseTo(Math.PI * 40 * 35, -1);
    expect(Math.min(...rings)).toBeCloseTo(-Math.PI * 20 * 15, -1);
  });

  test('an edge between two pixels lies where the grey says', () => {
    const [ring] = inkEdges(picture([rectangle(20.25, 10, 60, 40)], 80, 50), 127.5);
    expect(Math.min(...ring!.xs)).toBeCloseTo(20.25, 0);
  });

  test('pixels that touch at a corner are one spot when dark enough between, and every line closes', () => {
    const pixels = new Uint8Array([255, 0, 255, 255, 255, 255, 0, 255, 255, 255, 255, 255, 0, 255, 255, 255]);
    expect(inkEdges({ width: 4, height: 4, pixels }, 100)).toHaveLength(3);
    expect(inkEdges({ width: 4, height: 4, pixels }, 180)).toHaveLength(2);
    fc.assert(
      fc.property(
        fc.uint8Array({ minLength: 30, maxLength: 30 }),
        fc.integer({ min: 1, max: 255 }),
        (levels, threshold) => {
          const rings = inkEdges({ width: 6, height: 5, pixels: levels }, threshold);
          for (const { xs, ys } of rings) {
            xs.forEach((x, i) => {
              const k = (i + 1) % xs.length;
              expect(Math.hypot(xs[k]! - x, ys[k]! - ys[i]!)).toBeLessThan(1.5);
            });
          }
          expect(rings.length > 0).toBe(levels.some((v) => v < threshold));
        },
      ),
      { seed: 4 },
    );
  });

  test('even steps are even and keep the length', () => {
    const [ring] = inkEdges(picture([ellipse(10, 10, 90, 90)], 100, 100), 128);
    const { xs, ys } = evenSteps(ring!, 1);
    const steps = Array.from(xs, (x, i) => Math.hypot(xs[(i + 1) % xs.length]! - x, ys[(i + 1) % ys.length]! - ys[i]!));
    expect(Math.min(...steps)).toBeGreaterThan(0.9);
    expect(steps.reduce((a, b) => a + b, 0)).toBeCloseTo(Math.PI * 80, -1);
  });
});

describe('tracing', () => {
  const demo = readyDemo();
  const scale = 0.6;
  const letters = [...'aegknosxyBDGMQRSW'].flatMap((name) =>
    (['m1', 'm3'] as const).map((master) => ({ name, master })),
  );

  test.each(letters)(
    '$name of $master at 600 pixels keeps within 0.3 % of the em, with no more than one and a half times the points',
    ({ name, master }) => {
      const drawn = removeOverlaps(
        flattened(drawingOf(glyphNamed(demo, name)!, master), drawingsOf(demo, master)),
      ).contours;
      const grey = picture(drawn, 760, 720, (x, y) => [(x + 100) * scale, (900 - y) * scale] as const as never);
      const found = traced(grey);
      const outline = placedOutlines(found.contours, 720, [1 / scale, 0, 0, -1 / scale, -100, 900], 0);
      expect(outline).toHaveLength(drawn.length);
      expect(outline.map((c) => Math.sign(signedArea(c))).sort()).toEqual(
        drawn.map((c) => Math.sign(signedArea(c))).sort(),
      );
      expect(strays(outline, drawn)).toBeLessThan(3);
      expect(strays(drawn, outline)).toBeLessThan(3);
      expect(pointsOf(outline)).toBeLessThanOrEqual(1.5 * pointsOf(drawn));
      expect(found.points).toBe(pointsOf(outline));
    },
  );

  test('a straight stroke is four corners and four lines, upright and level when it was', () => {
    const { contours } = traced(picture([rectangle(20.4, 15.7, 62.1, 180.2)], 90, 200));
    expect(contours).toHaveLength(1);
    const { points } = contours[0]!;
    expect(points.map((p) => p.type)).toEqual(['line', 'line', 'line', 'line']);
    expect(new Set(points.map((p) => p.x.toFixed(4))).size).toBe(2);
    expect(Math.min(...points.map((p) => p.x))).toBeCloseTo(20.4, 0);
    expect(Math.max(...points.map((p) => p.y))).toBeCloseTo(180.2, 0);
  });

  test('an oval has its points at its extremes and they are smooth', () => {
    const { contours } = traced(picture([ellipse(15, 20, 175, 260)], 190, 280));
    const on = contours[0]!.points.filter(isOnCurve);
    expect(on).toHaveLength(4);
    expect(on.every((p) => p.smooth)).toBe(true);
    const box = contourBounds(contours[0]!);
    expect([box.xMin, box.yMin, box.xMax, box.yMax].map((v) => Math.round(v))).toEqual([15, 20, 175, 260]);
    for (const s of segmentsOf(contours[0]!)) expect(s.curves[0]).toHaveLength(8);
  });

  test('specks are left out, in ink and in counters; more detail keeps closer', () => {
    const shapes = [rectangle(10, 10, 90, 90), reverseContour(rectangle(40, 40, 43, 43)), rectangle(95, 95, 98, 98)];
    const grey = picture(shapes, 110, 110);
    expect(traced(grey).contours).toHaveLength(1);
    expect(traced(grey, { speckle: 5 }).contours).toHaveLength(3);
    const wavy = picture(
      [...'g'].flatMap((n) => drawingOf(glyphNamed(demo, n)!, 'm1').contours),
      600,
      760,
      (x, y) => [x + 20, 540 - y] as const as never,
    );
    const [near, far] = [traced(wavy, { tolerance: 0.25 }), traced(wavy, { tolerance: 4 })];
    expect(near.points).toBeGreaterThan(far.points);
  });

  test('an empty, a black and a tiny picture are no trouble; the threshold moves the edge', () => {
    const all = (v: number, side = 20): GreyPicture => ({
      width: side,
      height: side,
      pixels: new Uint8Array(side * side).fill(v),
    });
    expect(traced(all(255)).contours).toEqual([]);
    expect(traced(all(0)).contours).toHaveLength(1);
    expect(traced({ width: 1, height: 1, pixels: new Uint8Array([0]) }).contours).toEqual([]);
    const soft: GreyPicture = {
      width: 60,
      height: 40,
      pixels: Uint8Array.from({ length: 2400 }, (_, i) => Math.min(255, Math.abs((i % 60) - 30) * 12)),
    };
    const wide = (threshold: number) => {
      const box = contourBounds(traced(soft, { threshold }).contours[0]!);
      return box.xMax - box.xMin;
    };
    expect(wide(60)).toBeCloseTo(10, 0);
    expect(wide(180)).toBeCloseTo(30, 0);
  });

  test('random polygons come back with their corners', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 60, max: 190 }), { minLength: 4, maxLength: 7 }), (reaches) => {
        const points = reaches.map((r, i) => {
          const angle = (2 * Math.PI * i) / reaches.length;
          return { x: 200 + r * Math.cos(angle), y: 200 + r * Math.sin(angle), type: 'line' as const };
        });
        const shape = [{ closed: true, points }];
        expect(strays(traced(picture(shape, 400, 400)).contours, shape)).toBeLessThan(1.5);
      }),
      { seed: 11, numRuns: 15 },
    );
  });

  test('placed on a grid, stems stay upright and slanting handles keep their direction', () => {
    const grey = picture([ellipse(15, 20, 175, 260), rectangle(200, 20, 230, 260)], 260, 280);
    const [oval, box] = placedOutlines(traced(grey).contours, 280, [2.5, 0, 0, -2.5, 10, 600], 1).sort(
      (a, b) => b.points.length - a.points.length,
    ) as [Contour, Contour];
    expect(new Set(box.points.map((p) => p.x)).size).toBe(2);
    for (const p of [...oval.points, ...box.points].filter(isOnCurve))
      expect(Number.isInteger(p.x) && Number.isInteger(p.y)).toBe(true);
    expect(
      oval.points.every(
        (p, i) => !isOnCurve(p) || oval.points[(i + 1) % 12]!.x === p.x || oval.points[(i + 1) % 12]!.y === p.y,
      ),
    ).toBe(true);
    const mirrored = placedOutlines(traced(grey).contours, 280, [-1, 0, 0, -1, 0, 0], 1);
    expect(mirrored.every((c) => signedArea(c) > 0)).toBe(true);
  });
});

describe('sheets', () => {
  test.each(SHEETS.map((s) => [s.name, s] as const))(
    'the %s sheet is made straight and cut into its letters',
    (_, sheet) => {
      const read = readSheet(drawSheet(sheet, 100));
      expect(Math.abs(skewOf(read.picture, read.threshold))).toBeLessThan(0.35);
      const lines = read.lines.map((line, i) => withLetterCount(line, sheet.lines[i]!.length));
      expect(lines.map((l) => l.regions.length)).toEqual(sheet.lines.map((l) => l.length));
      const texts = sheet.lines.map((l) => [...l]);
      const scale = unitsPerPixel(lines, texts, { xHeight: 516, capHeight: 700, ascender: 742 })!;
      // Every letter that stands on the baseline does so when it is placed.
      const heights = lines.flatMap((line, i) =>
        line.regions.map((r, k) => ({
          c: texts[i]![k]!,
          bottom: (line.baseline - r.bottom) * scale,
          top: (line.baseline - r.top) * scale,
        })),
      );
      for (const { c, bottom, top } of heights) {
        if (!'gjpqyQJ'.includes(c)) expect(Math.abs(bottom)).toBeLessThan(45);
        if (/[A-Z]/.test(c)) expect(Math.abs(top - 700)).toBeLessThan(60);
        if (/[xzvwnmru]/.test(c)) expect(Math.abs(top - 516)).toBeLessThan(45);
      }
    },
  );

  test('skew is found in either direction, and turning takes it away', () => {
    const straight = picture(
      [0, 1, 2].flatMap((row) =>
        [0, 1, 2, 3, 4].map((k) => rectangle(40 + k * 60, 40 + row * 90, 70 + k * 60, 90 + row * 90)),
      ),
      380,
      330,
    );
    for (const degrees of [-4, -1.5, 0, 2.2, 5]) {
      const askew = turned(straight, -degrees);
      expect(skewOf(askew, 128)).toBeCloseTo(degrees, 0);
      expect(Math.abs(skewOf(turned(askew, degrees), 128))).toBeLessThan(0.2);
    }
    expect(skewOf({ width: 20, height: 20, pixels: new Uint8Array(400).fill(255) }, 128)).toBe(0);
  });

  test('uneven light is evened: dark corners of the paper turn white, ink stays dark', () => {
    const lit = picture([rectangle(100, 100, 140, 200)], 300, 300);
    const uneven = { ...lit, pixels: lit.pixels.map((v, i) => v * (1 - 0.6 * ((i % 300) / 300))) };
    const even = evenLight(uneven);
    expect(even.pixels[299]).toBeGreaterThan(215);
    expect(even.pixels[150 * 300 + 120]).toBeLessThan(10);
  });

  test('a cutting holds its letter alone', () => {
    const sheet = readSheet(drawSheet(SHEETS[0]!, 100));
    const line = sheet.lines[0]!;
    const [a, b] = line.regions;
    const cut = cutOut(sheet.picture, line, { ...a!, right: a!.right + 2 }, [b!]);
    expect(cut.picture.width).toBe(cut.inkRight + cut.inkLeft);
    expect(traced(cut.picture, { threshold: sheet.threshold }).contours).toHaveLength(2);
    expect(Math.abs(cut.baseline - (a!.bottom - a!.top + cut.inkLeft))).toBeLessThan(6);
  });

  test('colours become grey, transparent is paper, and cutting beyond the edge is white', () => {
    const grey = greyOf(new Uint8Array([255, 0, 0, 255, 0, 0, 0, 0]), 2, 1);
    expect([...grey.pixels]).toEqual([54, 255]);
    expect([...cropped(grey, -1, -1, 3, 2).pixels]).toEqual([255, 255, 255, 255, 54, 255]);
    expect(inkThreshold({ width: 4, height: 1, pixels: new Uint8Array([10, 20, 230, 240]) })).toBe(125);
  });
});
