import { type Contour, insertPoint, isOnCurve, neighbour, type Point } from '../geometry/contour';
import { asNumbers, type Curve, lengthOf, pointAt, quadraticRoots } from '../geometry/curve';
import { deletePoints } from '../geometry/deletePoints';
import { tidy } from '../geometry/tidy';
import { deviation } from '../tidying/deviation';
import { turnsOf, withExtremesAt } from '../tidying/extremes';
import { rounded } from '../tidying/straight';
import {
  alone,
  eachContour,
  handlesAt,
  neat,
  type OutlineCheck,
  type OutlineFault,
  onPoints,
  said,
  segments,
  spotOf,
} from './outline';

/** Single points: doubled, crowded, needless, missing, off the grid, out of reach. */
export const POINT_CHECKS: readonly OutlineCheck[] = [
  {
    kind: 'outlines/doubled',
    family: 'outlines',
    title: 'Points on top of each other',
    severity: 'attention',
    why: 'Two points at one place have no direction between them: strokes, hints and slanting go wrong there.',
    inAll: true,
    look: eachContour((c, contour, { u }) =>
      segments(c).flatMap((s): OutlineFault[] => {
        if (s.from < 0 || s.from === s.to || lengthWithin(c, s) >= DOUBLED * u) return [];
        const reason = 'Two points stand at the same place.';
        return [{ contour, point: s.to, bad: 1, spots: [spotOf(c, s.to)], reason, mends: true }];
      }),
    ),
    ways: [
      { way: 'merge', title: 'Make them one', together: true, mend: alone((c, { point }) => withoutSegment(c, point)) },
    ],
  },
  {
    kind: 'outlines/crowded',
    family: 'outlines',
    title: 'Points that crowd',
    severity: 'note',
    why: 'A side of a unit or two is mostly a slip of the hand. It makes a knot in the outline, and kinks between masters.',
    amount: { label: 'Nearer than', unit: 'thousandths of the em', usual: 2.5, least: 0.5, most: 20 },
    inAll: true,
    habit: true,
    look: eachContour((c, contour, { u }, amount) =>
      segments(c).flatMap((s): OutlineFault[] => {
        if (s.from < 0 || s.from === s.to) return [];
        const length = lengthWithin(c, s);
        if (length < DOUBLED * u || length >= amount * u) return [];
        return [
          {
            contour,
            point: s.to,
            bad: amount - length / u,
            spots: [spotOf(c, s.from), spotOf(c, s.to)],
            reason: `Two points stand ${said(length)} apart.`,
            mends: c.closed && onPoints(c) > 3,
          },
        ];
      }),
    ),
    ways: [
      {
        way: 'merge',
        title: 'Make them one',
        together: true,
        mend: (siblings, { point }, amount, u) => {
          const s = segments(siblings[0]!).find((each) => each.to === point);
          if (!s) return undefined;
          const gone = closerOf(siblings[0]!, s.from, s.to, amount * u);
          if (gone === undefined) return undefined;
          const out = siblings.map((c) => deletePoints(c, new Set([gone])));
          return out.every((c) => c !== undefined) ? out.map((c) => [neat(c!)]) : undefined;
        },
      },
    ],
  },
  {
    kind: 'outlines/extreme',
    family: 'outlines',
    title: 'Extremes without a point',
    severity: 'note',
    why: 'Heights and stems can be held steady on screens only where the outline has a point at its top, bottom and sides; measures are taken there too.',
    amount: { label: 'Passes its ends by', unit: 'thousandths of the em', usual: 2, least: 0.25, most: 50 },
    habit: true,
    look: eachContour((c, contour, { u, leans }, amount) =>
      segments(c).flatMap((s): OutlineFault[] => {
        if (s.offs.length === 0) return [];
        // Letters that lean have their sides along the slant: only tops and bottoms count.
        const turns = s.curves.flatMap((curve) =>
          turnsOf(curve, amount * u, leans ? [1] : [0, 1]).map((t) => ({ curve, t })),
        );
        if (turns.length === 0) return [];
        const spots = turns.map(({ curve, t }) => place(curve, t));
        const most = Math.max(...turns.map(({ curve }) => lengthOf(curve)));
        const reason =
          turns.length === 1
            ? 'A curve has no point at its extreme.'
            : `A curve has no points at its ${turns.length} extremes.`;
        return [{ contour, point: s.to, bad: most / u, spots, reason, mends: true }];
      }),
    ),
    ways: [
      {
        way: 'add',
        title: 'Add the point',
        together: true,
        forSome: true,
        mend: (siblings, { point }) => withExtremesAt(siblings, segmentTo(siblings[0]!, point)).map((c) => [c]),
      },
    ],
  },
  {
    kind: 'outlines/inflection',
    family: 'outlines',
    title: 'Inflections without a point',
    severity: 'note',
    onRequest: true,
    why: 'A curve that bends both ways between two points is hard to steer; a point where it turns lets each side be drawn by itself.',
    amount: { label: 'Bends each way by', unit: 'degrees', usual: 20, least: 2, most: 90 },
    look: eachContour((c, contour, _, amount) =>
      segments(c).flatMap((s): OutlineFault[] => {
        const [curve] = s.curves;
        if (s.curves.length !== 1 || curve!.length !== 8) return [];
        return inflectionsOf(curve!)
          .filter(({ bends }) => bends >= amount)
          .map(({ t, bends }) => ({
            contour,
            point: s.to,
            bad: bends,
            spots: [place(curve!, t)],
            reason: `A curve bends both ways, by ${Math.round(bends)}° at least, without a point between.`,
            mends: true,
          }));
      }),
    ),
    ways: [
      {
        way: 'add',
        title: 'Add the point',
        together: true,
        forSome: true,
        mend: (siblings, { point }) => {
          const k = segmentTo(siblings[0]!, point);
          const all = siblings.map((c) => {
            const curve = segments(c)[k]?.curves[0];
            return curve?.length === 8 ? (inflectionsOf(curve)[0]?.t ?? 0.5) : undefined;
          });
          if (all.some((t) => t === undefined)) return undefined;
          return siblings.map((c, i) => [neat(insertPoint(c, segments(c)[k]!, 0, all[i]!).contour)]);
        },
      },
    ],
  },
  {
    kind: 'outlines/needless',
    family: 'outlines',
    title: 'Needless points',
    severity: 'note',
    why: 'A point that the shape can do without is one more to move when it changes, and one more in the file.',
    inAll: true,
    habit: true,
    look: eachContour((c, contour, { u }) =>
      c.points.flatMap((p, point): OutlineFault[] => {
        const why =
          isOnCurve(p) && onLine(c, point, 0.25 * u) ? 'line' : isOnCurve(p) && splits(c, point) ? 'curve' : '';
        if (!why) return [];
        const reason =
          why === 'line'
            ? 'A point in the middle of a straight side does nothing.'
            : 'A point parts a curve that one segment draws just as well.';
        return [{ contour, point, bad: 1, spots: [spotOf(c, point)], reason, mends: true }];
      }),
    ),
    ways: [
      { way: 'remove', title: 'Take it away', together: true, mend: alone((c, { point }) => withoutPoint(c, point)) },
    ],
  },
  {
    kind: 'outlines/offGrid',
    family: 'outlines',
    title: 'Points off the grid',
    severity: 'note',
    habit: true,
    why: 'Fonts hold whole units. What lies between is rounded when the font is made, each point by itself, so that even stems and smooth joins may come out uneven.',
    look: ({ contours, grid }) => {
      if (grid <= 0) return [];
      const off = (v: number) => Math.abs(v / grid - Math.round(v / grid)) > 1e-6;
      return contours.flatMap((c, contour): OutlineFault[] => {
        const points = c.points.flatMap((p, i) => (off(p.x) || off(p.y) ? [i] : []));
        if (points.length === 0) return [];
        const reason = points.length === 1 ? 'A point lies off the grid.' : `${points.length} points lie off the grid.`;
        return [
          {
            contour,
            point: points[0]!,
            bad: points.length,
            spots: points.map((i) => spotOf(c, i)),
            reason,
            mends: true,
          },
        ];
      });
    },
    ways: [
      {
        way: 'round',
        title: 'Put them on the grid',
        together: false,
        mend: alone((c, _, grid) => rounded(c, grid)),
      },
    ],
  },
  {
    kind: 'outlines/far',
    family: 'outlines',
    title: 'Points out of reach',
    severity: 'attention',
    why: 'Formats hold coordinates up to 32,767, and a point far from its letter makes lines of text gape.',
    amount: { label: 'Farther than', unit: 'ems', usual: 5, least: 1, most: 100 },
    look: eachContour((c, contour, { u }, amount) => {
      const far = c.points.flatMap((p, i) =>
        Math.max(Math.abs(p.x), Math.abs(p.y)) > Math.min(32767, amount * 1000 * u) ? [i] : [],
      );
      if (far.length === 0) return [];
      const reason = `${far.length === 1 ? 'A point lies' : `${far.length} points lie`} more than ${amount} ems from the origin.`;
      return [{ contour, point: far[0]!, bad: far.length, spots: far.map((i) => spotOf(c, i)), reason }];
    }),
  },
];

/** Points nearer than this, in thousandths of the em, stand at one place. */
const DOUBLED = 0.5;

type Seg = ReturnType<typeof segments>[number];

/** The number of the segment that ends at a point; −1 for that of a contour without points on it. */
const segmentTo = (c: Contour, point: number): number => segments(c).findIndex((s) => s.to === point);

/** How far a segment reaches from its start: the farthest of its points. */
function lengthWithin({ points }: Contour, s: Seg): number {
  const from = points[s.from]!;
  return [...s.offs, s.to].reduce(
    (far, i) => Math.max(far, Math.hypot(points[i]!.x - from.x, points[i]!.y - from.y)),
    0,
  );
}

/** A contour without the segment that ends at a point; the point before stays and takes over what leaves there. */
function withoutSegment(c: Contour, to: number): Contour | undefined {
  const s = segments(c).find((each) => each.to === to);
  if (!s || c.points.filter(isOnCurve).length < 3) return undefined;
  const gone = new Set([...s.offs, s.to]);
  // A start that goes hands its place to the point before.
  return { ...c, points: c.points.filter((_, i) => !gone.has(i)) };
}

/** Of two crowded points the one that can go with the least harm, if the outline stays within `most`. */
function closerOf(c: Contour, a: number, b: number, most: number): number | undefined {
  if (!c.closed || c.points.filter(isOnCurve).length < 4) return undefined;
  const harm = (i: number) => {
    const next = deletePoints(c, new Set([i]));
    return next ? deviation([c], [next]) : Number.POSITIVE_INFINITY;
  };
  const [first, second] = [harm(a), harm(b)];
  if (Math.min(first, second) > most) return undefined;
  return second <= first ? b : a;
}

const place = (c: Curve, t: number) => {
  const [x, y] = pointAt(c, t);
  return { x, y };
};

const degrees = (ax: number, ay: number, bx: number, by: number): number =>
  (Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by)) * 180) / Math.PI;

/** Where a cubic changes the way it bends, and by how much it bends on the lesser side, in degrees. */
export function inflectionsOf(c: Curve): { t: number; bends: number }[] {
  const [x0, y0, x1, y1, x2, y2, x3, y3] = asNumbers(c);
  // Cross product of first and second derivative, a quadratic in t.
  const [ax, ay] = [x1 - x0, y1 - y0];
  const [bx, by] = [x2 - x1 - ax, y2 - y1 - ay];
  const [cx, cy] = [x3 - x2 - ax - 2 * bx, y3 - y2 - ay - 2 * by];
  const [p, q, r] = [bx * cy - by * cx, ax * cy - ay * cx, ax * by - ay * bx];
  const way = (t: number): [number, number] => [ax + 2 * bx * t + cx * t * t, ay + 2 * by * t + cy * t * t];
  return quadraticRoots(p, q, r)
    .filter((t) => t > 0.02 && t < 0.98)
    .map((t) => {
      const [mid, first, last] = [way(t), way(0), way(1)];
      return { t, bends: Math.min(degrees(...first, ...mid), degrees(...mid, ...last)) };
    });
}

/** Does a point lie on the straight way between its neighbours, both sides being lines? */
function onLine(c: Contour, i: number, most: number): boolean {
  const [before, after] = [neighbour(c, i, -1), neighbour(c, i, 1)];
  if (before === undefined || after === undefined) return false;
  const [a, p, b] = [c.points[before]!, c.points[i]!, c.points[after]!];
  if (a.type === 'off' || b.type !== 'line' || p.type !== 'line') return false;
  const length = Math.hypot(b.x - a.x, b.y - a.y);
  const along = (p.x - a.x) * (b.x - a.x) + (p.y - a.y) * (b.y - a.y);
  if (length === 0 || along <= 0 || along >= length * length) return false;
  return Math.abs((p.x - a.x) * (b.y - a.y) - (p.y - a.y) * (b.x - a.x)) / length <= most;
}

/** The one cubic that two cubics at a point are the parts of, if they are those of one. */
function wholeOf(c: Contour, i: number): { offs: readonly number[]; handles: readonly [Point, Point] } | undefined {
  const list = segments(c);
  const k = list.findIndex((s) => s.to === i);
  const one = list[k];
  const two = c.closed ? list[(k + 1) % list.length] : list[k + 1];
  if (!one || !two || one === two || one.offs.length !== 2 || two.offs.length !== 2) return undefined;
  if (c.points[one.to]!.type !== 'curve' || c.points[two.to]!.type !== 'curve' || one.from === two.to) return undefined;
  const at = (n: number) => c.points[n]!;
  const [p0, a, b, p, d, e, p3] = [
    at(one.from),
    at(one.offs[0]!),
    at(one.offs[1]!),
    at(i),
    at(two.offs[0]!),
    at(two.offs[1]!),
    at(two.to),
  ];
  const [before, after] = [Math.hypot(p.x - b.x, p.y - b.y), Math.hypot(d.x - p.x, d.y - p.y)];
  if (before < 1 || after < 1) return undefined;
  const t = before / (before + after);
  const handle = (from: Point, to: Point, by: number): Point => ({
    x: tidy(from.x + (to.x - from.x) / by),
    y: tidy(from.y + (to.y - from.y) / by),
    type: 'off',
  });
  const [h1, h2] = [handle(p0, a, t), handle(p3, e, 1 - t)];
  // The parts of a cubic cut at t have their middle handles on the way from h1 to h2.
  const mx = h1.x + (h2.x - h1.x) * t;
  const my = h1.y + (h2.y - h1.y) * t;
  const near = (v: Point, x: number, y: number) => Math.hypot(v.x - x, v.y - y) < 0.75;
  const fits =
    near(b, a.x + (mx - a.x) * t, a.y + (my - a.y) * t) &&
    near(d, mx + (e.x - mx) * t, my + (e.y - my) * t) &&
    Math.abs((b.x - p.x) * (d.y - p.y) - (b.y - p.y) * (d.x - p.x)) / (before + after) < 0.25;
  return fits ? { offs: [...one.offs, i, ...two.offs], handles: [h1, h2] } : undefined;
}

/** Does a point part a curve that one cubic draws as well, at no extreme? */
function splits(c: Contour, i: number): boolean {
  const p = c.points[i]!;
  const { before, after } = handlesAt(c, i);
  if (p.type !== 'curve' || before === undefined || after === undefined) return false;
  const [b, d] = [c.points[before]!, c.points[after]!];
  // The handles lie in one line, or it is a corner; level or upright, it is an extreme.
  const [ax, ay, bx, by] = [p.x - b.x, p.y - b.y, d.x - p.x, d.y - p.y];
  if (Math.abs(ax * by - ay * bx) > 0.25 * (Math.hypot(ax, ay) + Math.hypot(bx, by))) return false;
  const level = (v: Point) => Math.abs(v.x - p.x) < 0.5 || Math.abs(v.y - p.y) < 0.5;
  return !level(b) && !level(d) && wholeOf(c, i) !== undefined;
}

function withoutPoint(c: Contour, i: number): Contour | undefined {
  const whole = wholeOf(c, i);
  if (whole) {
    const points = c.points.flatMap((p, k): Point[] => {
      const n = whole.offs.indexOf(k);
      return n < 0 ? [p] : n === 0 ? [whole.handles[0]] : n === 4 ? [whole.handles[1]] : [];
    });
    return { ...c, points };
  }
  return c.points.filter(isOnCurve).length > 3 ? deletePoints(c, new Set([i])) : undefined;
}
