import { type Contour, isOnCurve, neighbour, type Point, reverseContour, segmentsOf } from '../geometry/contour';
import { deletePoints } from '../geometry/deletePoints';
import { nestingDepths } from '../geometry/winding';
import type { Drawing, Glyph, Project } from '../project/model';

/** A number from 0 up to 1, the next of a row that a seed makes. */
export type Random = () => number;

/** Numbers of a seed, the same every time (mulberry32). */
export function randomOf(seed: number): Random {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = a;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

type Change = (contours: readonly Contour[], at: { contour: number; point: number }, u: number) => readonly Contour[];

/** A fault of an outline: where one can be put, and how; the same is done in all drawings of the glyph. */
type OutlinePlant = {
  readonly kind: string;
  readonly places: (contours: readonly Contour[], u: number) => { contour: number; point: number }[];
  readonly change: Change;
};

const pick = <T>(list: readonly T[], random: Random): T | undefined => list[Math.floor(random() * list.length)];

/** All on-curve points of closed contours for which something holds. */
const points =
  (holds: (c: Contour, i: number, u: number) => boolean): OutlinePlant['places'] =>
  (contours, u) =>
    contours.flatMap((c, contour) =>
      c.closed ? c.points.flatMap((p, point) => (isOnCurve(p) && holds(c, point, u) ? [{ contour, point }] : [])) : [],
    );

const at = (c: Contour, i: number, step: number): Point => c.points[neighbour(c, i, step) ?? i]!;
const length = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y);

/** The side that ends at a point is a line of at least so many thousandths of the em. */
const lineOf = (least: number) =>
  points(
    (c, i, u) =>
      c.points[i]!.type === 'line' && isOnCurve(at(c, i, -1)) && length(c.points[i]!, at(c, i, -1)) >= least * u,
  );

/** The curve that ends at a point, if it is a cubic of some size. */
function cubicTo(c: Contour, i: number, u: number) {
  const s = segmentsOf(c).find((each) => each.to === i);
  if (s?.offs.length !== 2 || s.curves[0]?.length !== 8) return undefined;
  const [a, b] = [c.points[s.from]!, c.points[s.to]!];
  return length(a, b) > 60 * u &&
    s.offs.every((o) => length(c.points[o]!, a) > 12 * u && length(c.points[o]!, b) > 12 * u)
    ? s
    : undefined;
}
const curve = points((c, i, u) => cubicTo(c, i, u) !== undefined);

/** A smooth point between two handles of some length that lie exactly level or upright. */
const extreme = points((c, i, u) => {
  const [p, a, b] = [c.points[i]!, at(c, i, -1), at(c, i, 1)];
  if (!p.smooth || isOnCurve(a) || isOnCurve(b)) return false;
  const level = Math.abs(a.y - p.y) < 0.01 && Math.abs(b.y - p.y) < 0.01;
  const upright = Math.abs(a.x - p.x) < 0.01 && Math.abs(b.x - p.x) < 0.01;
  return (level || upright) && length(a, p) > 35 * u && length(b, p) > 35 * u;
});

const withContour = (contours: readonly Contour[], index: number, change: (c: Contour) => Contour): Contour[] =>
  contours.map((c, i) => (i === index ? change(c) : c));
const withPoint = (c: Contour, index: number, change: (p: Point) => Point): Contour => ({
  ...c,
  points: c.points.map((p, i) => (i === index ? change(p) : p)),
});
const inserted = (c: Contour, before: number, ...more: Point[]): Contour => ({
  ...c,
  points: [...c.points.slice(0, before), ...more, ...c.points.slice(before)],
});
const box = (x: number, y: number, w: number, h: number): Contour => ({
  closed: true,
  points: (
    [
      [x, y],
      [x + w, y],
      [x + w, y + h],
      [x, y + h],
    ] as const
  ).map(([px, py]) => ({ x: px, y: py, type: 'line' })),
});
const anywhere: OutlinePlant['places'] = (contours) => (contours.length > 0 ? [{ contour: 0, point: 0 }] : []);

/** Every kind of outline fault that can be planted anywhere. */
export const OUTLINE_PLANTS: readonly OutlinePlant[] = [
  {
    kind: 'outlines/open',
    places: points((c, i) => i === c.points.findIndex(isOnCurve) && c.points.filter(isOnCurve).length > 3),
    change: (contours, { contour, point }) =>
      withContour(contours, contour, (c) => {
        const turned = [...c.points.slice(point), ...c.points.slice(0, point)];
        const last = turned.findLastIndex(isOnCurve);
        return { ...c, closed: false, points: [{ ...turned[0]!, type: 'line' }, ...turned.slice(1, last + 1)] };
      }),
  },
  {
    kind: 'outlines/direction',
    places: (contours) =>
      nestingDepths(contours).flatMap((depth, contour) =>
        depth === 1 && contours[contour]!.closed ? [{ contour, point: 0 }] : [],
      ),
    change: (contours, { contour }) => withContour(contours, contour, reverseContour),
  },
  {
    kind: 'outlines/stray',
    places: anywhere,
    change: (contours) => [...contours, { closed: true, points: [{ x: 50, y: 50, type: 'line' }] }],
  },
  {
    kind: 'outlines/sliver',
    places: anywhere,
    change: (contours, _, u) => [...contours, box(2000 * u, 0, u, 200 * u)],
  },
  {
    kind: 'outlines/twice',
    places: points((c, i) => i === c.points.findIndex(isOnCurve)),
    change: (contours, { contour }) => [...contours, contours[contour]!],
  },
  {
    kind: 'outlines/crossing',
    // Two corners of a side that stands between two long ones exchange their places.
    places: points((c, i, u) => {
      const [a, b, d] = [at(c, i, -2), at(c, i, -1), at(c, i, 1)];
      const turn = (p: Point, q: Point, r: Point) => Math.sign((q.x - p.x) * (r.y - q.y) - (q.y - p.y) * (r.x - q.x));
      if (turn(a, b, c.points[i]!) !== turn(b, c.points[i]!, d)) return false;
      return (
        [a, b, c.points[i]!, d].every((p) => p.type === 'line') &&
        length(b, c.points[i]!) > 20 * u &&
        Math.min(length(a, b), length(c.points[i]!, d)) > length(b, c.points[i]!)
      );
    }),
    change: (contours, { contour, point }) =>
      withContour(contours, contour, (c) => {
        const [p, q] = [c.points[point]!, at(c, point, -1)];
        return {
          ...c,
          points: c.points.map((o) => (o === p ? { ...p, x: q.x, y: q.y } : o === q ? { ...q, x: p.x, y: p.y } : o)),
        };
      }),
  },
  {
    kind: 'outlines/doubled',
    places: points((_, i) => i > 0),
    change: (contours, { contour, point }) =>
      withContour(contours, contour, (c) =>
        inserted(c, point + 1, { x: c.points[point]!.x, y: c.points[point]!.y, type: 'line' }),
      ),
  },
  {
    kind: 'outlines/crowded',
    places: lineOf(40),
    change: (contours, { contour, point }, u) =>
      withContour(contours, contour, (c) => {
        const [p, q] = [c.points[point]!, at(c, point, -1)];
        const l = length(p, q);
        const [x, y] = [(q.x - p.x) / l, (q.y - p.y) / l];
        return inserted(c, point, { x: p.x + (x - y) * 1.2 * u, y: p.y + (y + x) * 1.2 * u, type: 'line' });
      }),
  },
  {
    kind: 'outlines/extreme',
    places: extreme,
    change: (contours, { contour, point }) =>
      withContour(contours, contour, (c) => deletePoints(c, new Set([point])) ?? c),
  },
  {
    kind: 'outlines/needless',
    places: lineOf(60),
    change: (contours, { contour, point }) =>
      withContour(contours, contour, (c) => {
        const [p, q] = [c.points[point]!, at(c, point, -1)];
        return inserted(c, point, { x: (p.x + q.x) / 2, y: (p.y + q.y) / 2, type: 'line' });
      }),
  },
  {
    kind: 'outlines/offGrid',
    places: points(() => true),
    change: (contours, { contour, point }) =>
      withContour(contours, contour, (c) => withPoint(c, point, (p) => ({ ...p, x: p.x + 0.4 }))),
  },
  {
    kind: 'outlines/far',
    places: points(() => true),
    change: (contours, { contour, point }, u) =>
      withContour(contours, contour, (c) => withPoint(c, point, (p) => ({ ...p, x: p.x + 9000 * u }))),
  },
  {
    kind: 'outlines/handleless',
    places: curve,
    change: (contours, { contour, point }) =>
      withContour(contours, contour, (c) =>
        withPoint(c, neighbour(c, point, -1)!, (p) => ({ ...p, x: c.points[point]!.x, y: c.points[point]!.y })),
      ),
  },
  {
    kind: 'outlines/straightCurve',
    places: lineOf(60),
    change: (contours, { contour, point }) =>
      withContour(contours, contour, (c) => {
        const [p, q] = [c.points[point]!, at(c, point, -1)];
        const off = (t: number): Point => ({ x: q.x + (p.x - q.x) * t, y: q.y + (p.y - q.y) * t, type: 'off' });
        return inserted(
          withPoint(c, point, (o) => ({ ...o, type: 'curve' })),
          point,
          off(1 / 3),
          off(2 / 3),
        );
      }),
  },
  {
    kind: 'outlines/handlesPast',
    places: points((c, i, u) => {
      const s = cubicTo(c, i, u);
      if (!s) return false;
      // A quarter of a round, more or less.
      const [a, h, k, b] = [c.points[s.from]!, c.points[s.offs[0]!]!, c.points[s.offs[1]!]!, c.points[s.to]!];
      const cross = (h.x - a.x) * (k.y - b.y) - (h.y - a.y) * (k.x - b.x);
      return (
        Math.abs(cross) > 0.8 * length(a, h) * length(k, b) &&
        Math.sign((h.x - a.x) * (b.y - a.y) - (h.y - a.y) * (b.x - a.x)) ===
          Math.sign((k.x - a.x) * (b.y - a.y) - (k.y - a.y) * (b.x - a.x))
      );
    }),
    change: (contours, { contour, point }) =>
      withContour(contours, contour, (c) => {
        const s = segmentsOf(c).find((each) => each.to === point)!;
        const longer =
          (off: number, on: number) =>
          (p: Point): Point => ({
            ...p,
            x: c.points[on]!.x + (c.points[off]!.x - c.points[on]!.x) * 3,
            y: c.points[on]!.y + (c.points[off]!.y - c.points[on]!.y) * 3,
          });
        return withPoint(withPoint(c, s.offs[0]!, longer(s.offs[0]!, s.from)), s.offs[1]!, longer(s.offs[1]!, s.to));
      }),
  },
  {
    kind: 'outlines/broken',
    places: extreme,
    change: (contours, { contour, point }) =>
      withContour(contours, contour, (c) =>
        withPoint(c, neighbour(c, point, 1)!, (p) => turned(p, c.points[point]!, 7)),
      ),
  },
  {
    kind: 'outlines/nearlySmooth',
    places: extreme,
    change: (contours, { contour, point }) =>
      withContour(contours, contour, (c) =>
        withPoint(
          withPoint(c, neighbour(c, point, 1)!, (p) => turned(p, c.points[point]!, 2.6)),
          point,
          ({ smooth: _, ...p }) => p,
        ),
      ),
  },
  {
    kind: 'outlines/nearlyLevel',
    places: points((c, i, u) => {
      const [p, q] = [c.points[i]!, at(c, i, -1)];
      return (
        p.type === 'line' &&
        isOnCurve(q) &&
        (p.x === q.x || p.y === q.y) &&
        length(p, q) > 80 * u &&
        isOnCurve(at(c, i, 1)) &&
        length(p, at(c, i, 1)) > 20 * u
      );
    }),
    change: (contours, { contour, point }, u) =>
      withContour(contours, contour, (c) => {
        const level = c.points[point]!.y === at(c, point, -1).y;
        return withPoint(c, point, (p) => (level ? { ...p, y: p.y + u } : { ...p, x: p.x + u }));
      }),
  },
  {
    kind: 'outlines/nearlyLevelHandle',
    places: extreme,
    change: (contours, { contour, point }, u) =>
      withContour(contours, contour, (c) => {
        const level = Math.abs(at(c, point, 1).y - c.points[point]!.y) < 0.01;
        return withPoint(c, neighbour(c, point, 1)!, (p) => (level ? { ...p, y: p.y + u } : { ...p, x: p.x + u }));
      }),
  },
  {
    kind: 'outlines/flat',
    places: points((c, i, u) => {
      const s = cubicTo(c, i, u);
      return (
        s !== undefined &&
        c.points[s.from]!.smooth === true &&
        c.points[s.to]!.smooth === true &&
        extreme([c], u).some((e) => e.point === s.from) &&
        extreme([c], u).some((e) => e.point === s.to)
      );
    }),
    change: (contours, { contour, point }) =>
      withContour(contours, contour, (c) => {
        const s = segmentsOf(c).find((each) => each.to === point)!;
        const shorter =
          (off: number, on: number) =>
          (p: Point): Point => ({
            ...p,
            x: c.points[on]!.x + (c.points[off]!.x - c.points[on]!.x) * 0.12,
            y: c.points[on]!.y + (c.points[off]!.y - c.points[on]!.y) * 0.12,
          });
        return withPoint(withPoint(c, s.offs[0]!, shorter(s.offs[0]!, s.from)), s.offs[1]!, shorter(s.offs[1]!, s.to));
      }),
  },
];

function turned(p: Point, about: Point, degrees: number): Point {
  const a = (degrees * Math.PI) / 180;
  const [x, y] = [p.x - about.x, p.y - about.y];
  return { ...p, x: about.x + x * Math.cos(a) - y * Math.sin(a), y: about.y + x * Math.sin(a) + y * Math.cos(a) };
}

/** A project with a fault planted in all drawings of a glyph, and where; undefined where the glyph has no place for it. */
export function planted(
  project: Project,
  glyph: Glyph,
  kind: string,
  random: Random,
): { project: Project; contour: number; point: number } | undefined {
  const plant = OUTLINE_PLANTS.find((p) => p.kind === kind)!;
  const first = glyph.drawings[project.masters[0]!.id];
  if (!first || first.contours.length === 0) return undefined;
  const u = project.unitsPerEm / 1000;
  const place = pick(plant.places(first.contours, u), random);
  if (!place) return undefined;
  const drawings = Object.fromEntries(
    Object.entries(glyph.drawings).map(([m, d]): [string, Drawing] => [
      m,
      { ...d, contours: d.contours[place.contour] ? plant.change(d.contours, place, u) : d.contours },
    ]),
  );
  return { project: { ...project, glyphs: { ...project.glyphs, [glyph.id]: { ...glyph, drawings } } }, ...place };
}
