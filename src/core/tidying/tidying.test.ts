import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import { wrongArea } from '../../../fuzz/shapes';
import { ellipse } from '../drawing/shapes';
import { type Contour, contourFromCurves, curvesOf, type Point, signedArea } from '../geometry/contour';
import { type Curve, coordinateAt, nearestOn, pointAt, splitAt } from '../geometry/curve';
import { withSmoothPoints } from '../geometry/smooth';
import { closedContour, square } from '../geometry/testShapes';
import { defaultMaster, drawingOf, glyphNamed } from '../project/queries';
import { sameStructure } from '../project/structure';
import { deviation } from './deviation';
import { withExtremes } from './extremes';
import { withFewerPoints } from './fewer';
import { TIDY, TIDY_NAMES, takeTidying, tidyGlyphs, tidyProposal } from './operations';
import { agreeing } from './siblings';
import { rounded, straightened, withAlignedHandles } from './straight';
import { isStray, withoutDoubledPoints, withSteadyStart } from './strays';

const demo = readyDemo();
const all = demo.masters.map((m) => m.id);
const corners = (...places: [number, number][]): Contour => ({
  closed: true,
  points: places.map(([x, y]) => ({ x, y, type: 'line' })),
});

/** A point added in the middle of every curve, `rounds` times; the shape kept. */
function crowded(contour: Contour, rounds: number): Contour {
  let curves = [...curvesOf(contour)];
  for (let r = 0; r < rounds; r++) curves = curves.flatMap((c) => (c.length === 4 ? [c] : splitAt(c, 0.5)));
  return withSmoothPoints(contourFromCurves(curves, true));
}

/** How far curves pass their ends between them. */
const overshoot = (contour: Contour): number =>
  Math.max(
    0,
    ...curvesOf(contour).flatMap((c) =>
      ([0, 1] as const).flatMap((axis) => {
        const [a, b] = [c[axis]!, c[c.length - 2 + axis]!];
        return Array.from({ length: 60 }, (_, i) => {
          const v = coordinateAt(c, axis, (i + 0.5) / 60);
          return Math.max(v - Math.max(a, b), Math.min(a, b) - v);
        });
      }),
    ),
  );

describe('extremes', () => {
  test('every curve gets its turns, the shape stays, and a second time adds nothing', () => {
    fc.assert(
      fc.property(closedContour, (contour) => {
        const [after] = withExtremes([contour]);
        expect(wrongArea([contour], [], 'unite', after ? [after] : [], 4)).toBeLessThan(200);
        expect(Math.abs(signedArea(after!) - signedArea(contour))).toBeLessThan(30);
        const [again] = withExtremes([after!]);
        expect(again!.points.length).toBe(after!.points.length);
      }),
      { numRuns: 60, seed: 5 },
    );
  });

  test('a turned oval has four points at its extremes', () => {
    const turned: Contour = {
      closed: true,
      points: ellipse(0, 0, 400, 200).points.map((p) => ({
        ...p,
        x: p.x * Math.SQRT1_2 - p.y * Math.SQRT1_2,
        y: p.x * Math.SQRT1_2 + p.y * Math.SQRT1_2,
      })),
    };
    const [after] = withExtremes([turned]);
    expect(overshoot(turned)).toBeGreaterThan(10);
    expect(overshoot(after!)).toBeLessThan(0.3);
    expect(after!.points.filter((p) => p.type !== 'off')).toHaveLength(8);
    expect(after!.points.filter((p) => p.type !== 'off' && p.smooth)).toHaveLength(8);
  });

  test('siblings get the same points, each at its own place', () => {
    const arc = (rise: number): Contour => ({
      closed: true,
      points: [
        { x: 0, y: 0, type: 'line' },
        { x: 20, y: rise, type: 'off' },
        { x: 260, y: rise, type: 'off' },
        { x: 300, y: 40, type: 'curve' },
        { x: 300, y: -50, type: 'line' },
        { x: 0, y: -50, type: 'line' },
      ],
    });
    const after = withExtremes([arc(200), arc(320)]);
    expect(agreeing(after)).toBe(true);
    expect(after[0]!.points.length).toBe(9);
    const tops = after.map((c) => Math.max(...c.points.filter((p) => p.type !== 'off').map((p) => p.y)));
    expect(tops[1]! - tops[0]!).toBeGreaterThan(80);
    expect(deviation([arc(320)], [after[1]!])).toBeLessThan(0.01);
  });
});

describe('fewer points', () => {
  test('points that were only added go again, and the oval has its four', () => {
    const round = ellipse(0, 0, 500, 640);
    const many = crowded(round, 3);
    expect(many.points.length).toBeGreaterThan(round.points.length + 10);
    const [few] = withFewerPoints([many], 0.5);
    expect(few!.points.length).toBe(round.points.length);
    expect(deviation([round], [few!])).toBeLessThan(0.5);
  });

  test('points in line between straight sides go; corners stay', () => {
    expect(
      withFewerPoints([corners([0, 0], [50, 0], [100, 0], [100, 100], [40, 100.3], [0, 100])], 0.5)[0]!.points.map(
        (p) => [p.x, p.y],
      ),
    ).toEqual([
      [0, 0],
      [100, 0],
      [100, 100],
      [0, 100],
    ]);
  });

  test('never further off than asked, never more points, nothing left for a second time', () => {
    for (const name of ['a', 's', 'ampersand', 'g', 'S', 'six']) {
      const { contours } = drawingOf(glyphNamed(demo, name)!, 'm1');
      for (const distance of [0.3, 2]) {
        const after = contours.map((c) => withFewerPoints([c], distance)[0]!);
        expect([name, deviation(contours, after) <= distance + 0.05]).toEqual([name, true]);
        expect(after.every((c, i) => c.points.length <= contours[i]!.points.length)).toBe(true);
        // What is kept is kept for a reason: with the same limit measured anew, hardly anything more goes.
        const again = after.map((c) => withFewerPoints([c], distance / 4)[0]!);
        expect(again.map((c) => c.points.length)).toEqual(after.map((c) => c.points.length));
      }
    }
  });
});

describe('straight and level', () => {
  test('sides that are nearly level or upright become so, a whole row of them to one coordinate', () => {
    const after = straightened(corners([0, 0], [300, 1], [600, 0], [601, 500], [0, 500]), 2);
    expect(after.points.map((p) => [p.x, p.y])).toEqual(
      [
        [0, 0],
        [300, 0],
        [600, 0],
        [600, 500],
        [0, 500],
      ].map(([x, y], i) => (i === 2 || i === 3 ? [after.points[2]!.x, y] : [x, y])),
    );
    expect(after.points[2]!.x).toBe(after.points[3]!.x);
    expect(straightened(after, 2)).toBe(after);
    // A slope is a slope.
    const slope = corners([0, 0], [15, 2], [10, 90]);
    expect(straightened(slope, 2)).toBe(slope);
  });

  test('handles go with the point that is moved; a flat curve becomes a line', () => {
    const contour: Contour = {
      closed: true,
      points: [
        { x: 0, y: 0, type: 'line' },
        { x: 400, y: 1, type: 'line' },
        { x: 500, y: 1, type: 'off' },
        { x: 600, y: 100, type: 'off' },
        { x: 600, y: 300, type: 'curve' },
        { x: 400, y: 301, type: 'off' },
        { x: 200, y: 300.5, type: 'off' },
        { x: 0, y: 300, type: 'curve' },
      ],
    };
    const after = straightened(contour, 2);
    expect(after.points).toHaveLength(6);
    expect(after.points[2]).toMatchObject({ x: 500, y: after.points[1]!.y, type: 'off' });
    expect(after.points[0]!.y).toBe(after.points[1]!.y);
  });

  test('handles in line, level and smooth', () => {
    const contour: Contour = {
      closed: true,
      points: [
        { x: 0, y: 0, type: 'curve' },
        { x: 1, y: 60, type: 'off' },
        { x: 40, y: 101, type: 'off' },
        { x: 100, y: 100, type: 'curve' },
        { x: 160, y: 100.5, type: 'off' },
        { x: 200, y: 60, type: 'off' },
        { x: 200, y: 0, type: 'curve' },
        { x: 150, y: -40, type: 'off' },
        { x: 50, y: -40, type: 'off' },
      ],
    };
    const after = withAlignedHandles(contour, 2);
    expect(after.points.slice(1, 5)).toEqual([
      { x: 0, y: 60, type: 'off' },
      { x: 40, y: 100, type: 'off' },
      { x: 100, y: 100, type: 'curve', smooth: true },
      { x: 160, y: 100, type: 'off' },
    ]);
    // A corner is left a corner.
    expect(after.points[0]!.smooth).toBeUndefined();
    expect(withAlignedHandles(after, 2)).toBe(after);
  });

  test('coordinates on a grid', () => {
    fc.assert(
      fc.property(closedContour, fc.constantFrom(0.5, 1, 5, 10), (contour, grid) => {
        const after = rounded(contour, grid);
        expect(
          after.points.every(
            (p) =>
              Math.abs(p.x / grid - Math.round(p.x / grid)) < 1e-6 &&
              Math.abs(p.y / grid - Math.round(p.y / grid)) < 1e-6,
          ),
        ).toBe(true);
        expect(after.points.every((p, i) => Math.abs(p.x - contour.points[i]!.x) <= grid / 2 + 1e-9)).toBe(true);
        expect(rounded(after, grid)).toBe(after);
      }),
    );
  });
});

describe('strays and starts', () => {
  test('lone points and contours without area are strays; thin ones are not', () => {
    const lone: Contour = { closed: true, points: [{ x: 4, y: 4, type: 'line' }] };
    expect([lone, corners([1, 1], [1, 1], [1.2, 1])].map((c) => isStray([c]))).toEqual([true, true]);
    expect([square(0, 0, 2), corners([0, 0], [300, 0], [300, 1])].map((c) => isStray([c]))).toEqual([false, false]);
    // In one master it may have shrunk to nothing on purpose.
    expect(isStray([lone, square(0, 0, 9)])).toBe(false);
  });

  test('doubled points go, with the handles between them', () => {
    const points: Point[] = [...square(0, 0, 100).points];
    points.splice(2, 0, { x: 100, y: 0, type: 'off' }, { x: 100, y: 0, type: 'off' }, { x: 100, y: 0, type: 'curve' });
    expect(withoutDoubledPoints([{ closed: true, points }])[0]).toEqual(square(0, 0, 100));
    const once = withoutDoubledPoints([square(0, 0, 100)]);
    expect(once[0]).toEqual(square(0, 0, 100));
  });

  test('the start is the lowest point, the leftmost of those, whatever it was', () => {
    fc.assert(
      fc.property(closedContour, fc.nat(7), (contour, by) => {
        const on = contour.points.flatMap((p, i) => (p.type === 'off' ? [] : [i]));
        const from = on[by % on.length]!;
        const turned = { ...contour, points: [...contour.points.slice(from), ...contour.points.slice(0, from)] };
        const [a] = withSteadyStart([contour]);
        const [b] = withSteadyStart([turned]);
        const lowest = Math.min(...on.map((i) => contour.points[i]!.y));
        expect([a!.points[0]!.y, b!.points[0]!.y]).toEqual([lowest, lowest]);
        expect(b!.points[0]!.x).toBe(a!.points[0]!.x);
        expect(signedArea(a!)).toBeCloseTo(signedArea(contour), 3);
      }),
    );
  });
});

describe('on glyphs of the demo', () => {
  const names = ['a', 'n', 'g', 'R', 'ampersand', 'eight', 'AE', 'sterling'];
  const glyphs = names.map((n) => glyphNamed(demo, n)!.id);

  test.each(TIDY_NAMES)('%s: masters still agree, and doing it twice changes nothing more', (operation) => {
    const once = tidyGlyphs(demo, { operation, glyphs, masters: all });
    if (!once.ok) {
      expect(once.reason).toBe('There is nothing to tidy that way.');
      return;
    }
    for (const id of glyphs) {
      const drawings = demo.masters.map((m) => drawingOf(once.project.glyphs[id]!, m.id));
      if (operation !== 'overlap')
        expect([demo.glyphs[id]!.name, sameStructure(drawings)]).toEqual([demo.glyphs[id]!.name, true]);
      const before = demo.masters.map((m) => drawingOf(demo.glyphs[id]!, m.id));
      const far =
        operation === 'overlap'
          ? Number.POSITIVE_INFINITY
          : Math.max(...before.map((d, i) => deviation(d.contours, drawings[i]!.contours)));
      const allowed =
        { even: 12, straighten: 2.2, handles: 6, fewer: 0.55, round: 0.8, overlap: Number.POSITIVE_INFINITY }[
          operation as string
        ] ?? 0.05;
      expect([demo.glyphs[id]!.name, far <= allowed]).toEqual([demo.glyphs[id]!.name, true]);
    }
    if (operation === 'fewer') return;
    expect(tidyGlyphs(once.project, { operation, glyphs, masters: all })).toMatchObject({ ok: false });
  });

  test('a proposal tells points before and after and the deviation, and is taken over as it stands', () => {
    const o = glyphNamed(demo, 'o')!;
    const drawing = drawingOf(o, 'm1');
    const many = {
      ...demo,
      glyphs: {
        ...demo.glyphs,
        [o.id]: { ...o, drawings: { m1: { ...drawing, contours: drawing.contours.map((c) => crowded(c, 2)) } } },
      },
    };
    const proposal = tidyProposal(many, many.glyphs[o.id]!, ['m1'], 'fewer', 0.5)!;
    expect(proposal).toMatchObject({ glyph: o.id, after: 24, apart: false });
    expect(proposal.before).toBeGreaterThan(30);
    expect(proposal.deviation).toBeLessThan(0.5);
    const done = takeTidying(many, { operation: 'fewer', proposals: [proposal] });
    expect(done).toMatchObject({ ok: true, sentence: 'Took needless points away in o' });
    expect(done.ok && done.project.glyphs[o.id]!.drawings.m1).toBe(proposal.drawings.m1);
    expect(tidyProposal(demo, o, ['m1'], 'starts')).toBeUndefined();
  });

  test('every operation has words for the bench', () => {
    for (const name of TIDY_NAMES)
      expect(
        Object.values(TIDY[name])
          .slice(0, 3)
          .every((v) => typeof v === 'string' && v.length > 3),
      ).toBe(true);
    expect(defaultMaster(demo).id).toBe('m1');
  });
});

test('how far outlines lie apart is the farthest of the nearest places, wherever it is looked from', () => {
  const letters = Object.values(readyDemo().glyphs).flatMap((g) => {
    const { contours } = g.drawings.m1!;
    return contours.length > 0 ? [contours] : [];
  });
  const curves = (list: readonly Contour[]) => list.flatMap((c) => [...curvesOf(c)]);
  const plainly = (from: readonly Curve[], to: readonly Curve[]): number =>
    Math.max(
      ...from.flatMap((c) =>
        Array.from({ length: 17 }, (_, i) => {
          const [x, y] = pointAt(c, i / 16);
          return Math.min(...to.map((o) => nearestOn(o, x, y).distance));
        }),
      ),
    );
  const letter = fc.constantFrom(...letters);
  fc.assert(
    fc.property(letter, letter, fc.integer({ min: 2, max: 60 }), fc.boolean(), (one, other, grid, own) => {
      const snap = (v: number) => Math.round(v / grid) * grid;
      const onGrid = one.map((c) => ({ ...c, points: c.points.map((p) => ({ ...p, x: snap(p.x), y: snap(p.y) })) }));
      const [a, b] = [curves(one), curves(own ? onGrid : other)];
      expect(deviation(one, own ? onGrid : other)).toBeCloseTo(Math.max(plainly(a, b), plainly(b, a)), 9);
    }),
    { numRuns: 80 },
  );
});
