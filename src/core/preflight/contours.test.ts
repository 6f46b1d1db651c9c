import fc from 'fast-check';
import { type Contour, isOnCurve, type Point, reverseContour, signedArea } from '../geometry/contour';
import type { MendedContours } from './outline';
import { OUTLINE_CHECKS } from './outlineFindings';

/** Checks and mends of whole contours. */
const checkOf = (kind: string) => OUTLINE_CHECKS.find((c) => c.kind === `outlines/${kind}`)!;
const look = (kind: string, contours: readonly Contour[], amount = checkOf(kind).amount?.usual ?? 0, u = 1) =>
  checkOf(kind).look({ contours, u, grid: 1, leans: false }, amount);
const mend = (kind: string, siblings: readonly Contour[], point = 0): MendedContours =>
  checkOf(kind).ways![0]!.mend(siblings, { contour: 0, point }, checkOf(kind).amount?.usual ?? 0, 1);
const line = (closed: boolean, ...places: readonly (readonly [number, number])[]): Contour => ({
  closed,
  points: places.map(([x, y]): Point => ({ x, y, type: 'line' })),
});
const box = (x: number, y: number, w: number, h: number): Contour =>
  line(true, [x, y], [x + w, y], [x + w, y + h], [x, y + h]);

describe('open contours', () => {
  it('whose ends nearly meet are joined, the others closed by a side', () => {
    const near = line(false, [0, 0], [300, 0], [300, 300], [4, 3]);
    const far = line(false, [0, 0], [300, 0], [300, 300], [0, 200]);
    expect(look('open', [near])[0]!.reason).toMatch(/nearly meet, 5 units apart/);
    expect(look('open', [far])[0]!.reason).toMatch(/200 units apart/);
    expect(mend('open', [near])![0]![0]!.points.map((p) => [p.x, p.y])).toEqual([
      [0, 0],
      [300, 0],
      [300, 300],
    ]);
    expect(mend('open', [far])![0]![0]!.points).toHaveLength(4);
  });

  it('are worse the nearer their ends are: a slip, not a stroke', () => {
    const gap = (by: number) => look('open', [line(false, [0, 0], [300, 0], [300, 300], [by, 0])])[0]!.bad;
    expect(gap(2)).toBeGreaterThan(gap(40));
    expect(gap(40)).toBeGreaterThan(gap(290));
  });

  it('of several masters are closed alike, or not at all where one is closed', () => {
    const near = line(false, [0, 0], [300, 0], [300, 300], [4, 3]);
    const far = line(false, [0, 0], [300, 0], [300, 300], [0, 200]);
    expect(mend('open', [near, far])!.map(([c]) => c!.points.length)).toEqual([4, 4]);
    expect(mend('open', [near, box(0, 0, 9, 9)])).toBeUndefined();
  });

  it('that a quadratic or cubic ends keep their kinds of segments', () => {
    const curved: Contour = {
      closed: false,
      points: [
        { x: 0, y: 0, type: 'line' },
        { x: 300, y: 0, type: 'line' },
        { x: 300, y: 200, type: 'off' },
        { x: 100, y: 300, type: 'off' },
        { x: 2, y: 2, type: 'curve' },
      ],
    };
    const [closed] = mend('open', [curved])![0]!;
    expect(closed!.points.map((p) => p.type)).toEqual(['curve', 'line', 'off', 'off']);
    expect([closed!.points[0]!.x, closed!.points[0]!.y]).toEqual([0, 0]);
  });
});

describe('what draws nothing', () => {
  it('lone points and contours without area are strays, hairlines of some width are not', () => {
    const stray = [line(true, [5, 5]), line(true, [0, 0], [0.2, 0], [0, 0.2]), { closed: true, points: [] }];
    expect(look('stray', stray).map((f) => f.contour)).toEqual([0, 1, 2]);
    expect(look('stray', [box(0, 0, 400, 3)])).toEqual([]);
    expect(mend('stray', [stray[0]!])).toEqual([[]]);
    // In one master it is a letter’s part: it stays in all.
    expect(mend('stray', [stray[0]!, box(0, 0, 50, 50)])).toBeUndefined();
  });

  it('slivers are judged by their mean thickness, in thousandths of the em', () => {
    fc.assert(
      fc.property(fc.integer({ min: 100, max: 900 }), fc.double({ min: 0.3, max: 6, noNaN: true }), (w, h) => {
        const thick = (w * h) / (w + h);
        if (Math.abs(thick - 2) < 0.05) return;
        expect([w, h, look('sliver', [box(0, 0, w, h)]).length]).toEqual([w, h, thick < 2 ? 1 : 0]);
        expect(look('sliver', [reverseContour(box(0, 0, w, h))])).toHaveLength(thick < 2 ? 1 : 0);
      }),
      { numRuns: 300 },
    );
    // The same in an em twice as large.
    expect(look('sliver', [box(0, 0, 800, 5)], 2, 1)).toEqual([]);
    expect(look('sliver', [box(0, 0, 800, 3)], 2, 2)).toHaveLength(1);
  });

  it('specks are told by their size', () => {
    expect(look('sliver', [box(0, 0, 4, 5)])[0]!.reason).toMatch(/speck of 5 units/);
    expect(look('sliver', [box(0, 0, 20, 20)])).toEqual([]);
  });
});

describe('contours that stand twice', () => {
  const turned = (c: Contour, by: number): Contour => ({
    ...c,
    points: [...c.points.slice(by), ...c.points.slice(0, by)],
  });

  it('are found wherever they start and whichever way they run', () => {
    const one = line(true, [0, 0], [300, 0], [280, 200], [0, 260]);
    for (const other of [one, turned(one, 2), reverseContour(one)])
      expect(look('twice', [box(500, 0, 90, 90), one, other]).map((f) => f.contour)).toEqual([2]);
    expect(look('twice', [one, line(true, [0, 0], [300, 0], [281, 200], [0, 260])])).toEqual([]);
    expect(look('twice', [one, one, one]).map((f) => f.contour)).toEqual([1, 2]);
  });
});

test('a contour that is reversed has the other area, and every point', () => {
  const c = box(0, 0, 300, 200);
  const [after] = mend('direction', [c])![0]!;
  expect(signedArea(after!)).toBe(-signedArea(c));
  expect(after!.points.filter(isOnCurve)).toHaveLength(4);
});
