import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import { refused } from '../base/result';
import { type Contour, curvesOf, type Point } from '../geometry/contour';
import type { Curve } from '../geometry/curve';
import { fullnessOf, reaches } from '../geometry/fullness';
import { glyphNamed } from '../project/queries';
import { evenedOut } from '../tidying/even';
import { evenOut, fullnesses, setFullness } from './fullness';
import { pointKey } from './points';
import { ellipse } from './shapes';

/** Curvature at an end of a cubic, per unit, by its definition from first and second derivative. */
function curvature(c: Curve, end: 0 | 1): number {
  const at = (i: number) => [c[2 * i]!, c[2 * i + 1]!] as const;
  const [p, q, r] = end === 0 ? [at(0), at(1), at(2)] : [at(3), at(2), at(1)];
  const [dx, dy] = [3 * (q[0] - p[0]), 3 * (q[1] - p[1])];
  const [ex, ey] = [6 * (r[0] - 2 * q[0] + p[0]), 6 * (r[1] - 2 * q[1] + p[1])];
  return ((dx * ey - dy * ex) / Math.hypot(dx, dy) ** 3) * (end === 0 ? 1 : -1);
}

/** The greatest relative jump of curvature at smooth points between curves. */
const jump = (contour: Contour): number => {
  const curves = curvesOf(contour);
  return Math.max(
    ...curves.map((c, i) => {
      const next = curves[(i + 1) % curves.length]!;
      const [a, b] = [curvature(c, 1), curvature(next, 0)];
      return Math.abs(a - b) / Math.max(Math.abs(a), Math.abs(b));
    }),
  );
};

/** An oval of four curves whose handles have any lengths. */
const oval = fc
  .array(fc.double({ min: 0.35, max: 0.75, noNaN: true }), { minLength: 8, maxLength: 8 })
  .map((shares): Contour => {
    const ends: [number, number][] = [
      [400, 0],
      [0, 300],
      [-400, 0],
      [0, -300],
    ];
    const corner: [number, number][] = [
      [400, 300],
      [-400, 300],
      [-400, -300],
      [400, -300],
    ];
    const points = ends.flatMap(([x, y], i): Point[] => {
      const [cx, cy] = corner[i]!;
      const [nx, ny] = ends[(i + 1) % 4]!;
      const [s, u] = [shares[2 * i]!, shares[2 * i + 1]!];
      return [
        { x, y, type: 'curve', smooth: true },
        { x: x + (cx - x) * s, y: y + (cy - y) * s, type: 'off' },
        { x: nx + (cx - nx) * u, y: ny + (cy - ny) * u, type: 'off' },
      ];
    });
    return { closed: true, points };
  });

test('curvature runs on to 1 % through every smooth point, and a second time changes nothing more', () => {
  fc.assert(
    fc.property(oval, (contour) => {
      const even = evenedOut(contour);
      expect(jump(even)).toBeLessThan(0.01);
      evenedOut(even).points.forEach((p, i) => {
        expect(Math.hypot(p.x - even.points[i]!.x, p.y - even.points[i]!.y)).toBeLessThan(0.1);
      });
      // Points stay, handles keep their direction and the sum of their lengths.
      even.points.forEach((p, i) => {
        if (p.type !== 'off') expect([p.x, p.y]).toEqual([contour.points[i]!.x, contour.points[i]!.y]);
      });
      const across = (c: Contour, i: number) =>
        Math.hypot(
          c.points[(i + 1) % 12]!.x - c.points[(i + 11) % 12]!.x,
          c.points[(i + 1) % 12]!.y - c.points[(i + 11) % 12]!.y,
        );
      for (const i of [0, 3, 6, 9]) expect(across(even, i)).toBeCloseTo(across(contour, i), 1);
    }),
    { numRuns: 80, seed: 11 },
  );
});

test('only chosen points are evened; a circle is even already', () => {
  const round = ellipse(0, 0, 500, 500);
  expect(jump(round)).toBeLessThan(0.01);
  const uneven: Contour = { ...round, points: round.points.map((p, i) => (i === 1 ? { ...p, y: p.y + 40 } : p)) };
  const one = evenedOut(uneven, new Set([0]));
  expect(one.points.filter((p, i) => p !== uneven.points[i])).toHaveLength(2);
});

test('the fullness of known curves', () => {
  expect(fullnessOf([0, 0, 0, 55.19, 44.81, 100, 100, 100])).toBeCloseTo(0.5519, 3);
  expect(reaches([0, 0, 0, 50, 60, 100, 100, 100])).toEqual([0.5, 0.4]);
  expect(fullnessOf([0, 0, 0, 50, 100, 50, 100, 0])).toBeUndefined();
  expect(fullnessOf([0, 0, 50, 0, 100, 100])).toBeUndefined();
  // An S.
  expect(fullnessOf([0, 0, 0, 50, 100, 50, 100, 100])).toBeUndefined();
});

describe('on a letter', () => {
  const demo = readyDemo();
  const o = glyphNamed(demo, 'o')!;
  const at = { glyph: o.id, master: 'm1' };
  const all = o.drawings.m1!.contours.flatMap((c, i) =>
    c.points.flatMap((p, k) => (p.type === 'off' ? [] : [pointKey(i, k)])),
  );

  test('one fullness for many curves, each with the proportion of its own handles', () => {
    const outcome = setFullness(demo, { at, points: all, fullness: 0.62 });
    if (!outcome.ok) throw new Error(outcome.reason);
    const after = outcome.project.glyphs[o.id]!.drawings.m1!;
    const full = fullnesses(after, all);
    expect(full).toHaveLength(8);
    for (const f of full) expect(f).toBeCloseTo(0.62, 3);
    for (const [i, c] of o.drawings.m1!.contours.entries()) {
      for (const [k, curve] of curvesOf(c).entries()) {
        const [a, b] = [reaches(curve)!, reaches(curvesOf(after.contours[i]!)[k]!)!];
        expect(b[0] / b[1]).toBeCloseTo(a[0] / a[1], 2);
      }
    }
    expect(fullnesses(o.drawings.m1!, all.slice(0, 1))).toEqual([]);
    expect(setFullness(demo, { at, points: all.slice(0, 1), fullness: 0.6 })).toMatchObject({ ok: false });
    expect(setFullness(demo, { at, points: all, fullness: 1.4 })).toMatchObject(
      refused('A fullness is from 5 to 100 %.'),
    );
  });

  test('evening out a letter is one edit, refused when there is nothing to even', () => {
    const rough = setFullness(demo, { at, points: all.slice(0, 2), fullness: 0.75 });
    if (!rough.ok) throw new Error(rough.reason);
    const outcome = evenOut(rough.project, { at, points: all });
    if (!outcome.ok) throw new Error(outcome.reason);
    expect(outcome.sentence).toMatch(/^Evened out 8 points in o/);
    expect(jump(outcome.project.glyphs[o.id]!.drawings.m1!.contours[0]!)).toBeLessThan(0.01);
    expect(evenOut(outcome.project, { at, points: all })).toMatchObject({ ok: false });
  });
});
