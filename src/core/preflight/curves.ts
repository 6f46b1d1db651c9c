import { type Contour, isOnCurve, neighbour, type Point } from '../geometry/contour';
import { areaUnder, type Curve, derivativeAt } from '../geometry/curve';
import { fullnessOf, reaches } from '../geometry/fullness';
import { setSmooth } from '../geometry/pointKinds';
import { tidy } from '../geometry/tidy';
import { evenedOut } from '../tidying/even';
import { shiftWithHandles } from '../tidying/straight';
import { alone, eachContour, handlesAt, type OutlineCheck, type OutlineFault, said, segments, spotOf } from './outline';
import { inflectionsOf } from './points';

/** How sides and curves run: handles, joins, slopes that are nearly level, curves that are nearly straight, bumps. */
export const CURVE_CHECKS: readonly OutlineCheck[] = [
  {
    kind: 'outlines/handleless',
    family: 'outlines',
    title: 'Curves with a handle of no length',
    severity: 'note',
    habit: true,
    why: 'A curve that has a handle on one side only starts without a direction: it cannot be made smooth, and offsets and strokes break there.',
    look: eachContour((c, contour, { u }) =>
      segments(c).flatMap((s): OutlineFault[] => {
        const curve = s.curves[0];
        if (s.offs.length !== 2 || !curve || curve.length !== 8) return [];
        const none = [retracted(c, s.offs[0]!, s.from), retracted(c, s.offs[1]!, s.to)].filter(Boolean).length;
        if (none === 0 || chord(curve) < DOUBLED * u) return [];
        return [
          {
            contour,
            point: s.to,
            bad: none,
            spots: [spotOf(c, retracted(c, s.offs[0]!, s.from) ? s.from : s.to)],
            reason:
              none === 2 ? 'A curve without handles draws a straight side.' : 'A curve has a handle of no length.',
            mends: none === 2 || drawnOut(c, s) !== undefined,
          },
        ];
      }),
    ),
    ways: [
      {
        way: 'mend',
        title: 'Give it handles, or none',
        together: true,
        forSome: true,
        mend: (siblings, { point }) => {
          const all = siblings.map((c) => ({ c, s: segments(c).find((each) => each.to === point) }));
          if (all.some(({ s }) => s?.offs.length !== 2)) return undefined;
          const both = all.every(({ c, s }) => retracted(c, s!.offs[0]!, s!.from) && retracted(c, s!.offs[1]!, s!.to));
          const one = (c: Contour, s: Seg) => retracted(c, s.offs[0]!, s.from) !== retracted(c, s.offs[1]!, s.to);
          return all.map(({ c, s }) => [both ? withoutHandles(c, s!) : one(c, s!) ? (drawnOut(c, s!) ?? c) : c]);
        },
      },
    ],
  },
  {
    kind: 'outlines/straightCurve',
    family: 'outlines',
    title: 'Curves that are straight',
    severity: 'note',
    inAll: true,
    habit: true,
    why: 'A straight side drawn as a curve looks the same, and bends as soon as one of its handles is touched.',
    look: eachContour((c, contour, { u }) =>
      segments(c).flatMap((s): OutlineFault[] => {
        const curve = s.curves[0];
        if (s.from < 0 || s.offs.length === 0 || !curve || s.curves.length > 1 || chord(curve) < 20 * u) return [];
        if (s.offs.length === 2 && retracted(c, s.offs[0]!, s.from) && retracted(c, s.offs[1]!, s.to)) return [];
        if (bend(curve) > 0.4 * u) return [];
        const [a, b] = [c.points[s.from]!, c.points[s.to]!];
        const spots = [{ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }];
        return [{ contour, point: s.to, bad: 1, spots, reason: 'A straight side is drawn as a curve.', mends: true }];
      }),
    ),
    ways: [
      {
        way: 'line',
        title: 'Make it a line',
        together: true,
        mend: alone((c, { point }) => {
          const s = segments(c).find((each) => each.to === point);
          return s && s.offs.length > 0 ? withoutHandles(c, s) : undefined;
        }),
      },
    ],
  },
  {
    kind: 'outlines/handlesPast',
    family: 'outlines',
    title: 'Handles that pass their meeting point',
    severity: 'attention',
    why: 'Where the handles of a curve cross each other the curve has a bump or a corner of its own, which no one asked for.',
    amount: { label: 'Bends back by', unit: 'degrees', usual: 8, least: 1, most: 60 },
    look: eachContour((c, contour, { u }, amount) =>
      segments(c).flatMap((s): OutlineFault[] => {
        const curve = s.curves[0];
        if (s.offs.length !== 2 || !curve || curve.length !== 8) return [];
        const past = pastMeeting(curve);
        // A handle or two of a unit's length are rounding.
        if (!past || past.by <= 2 * u) return [];
        const back = past.both ? 180 : Math.max(0, ...inflectionsOf(curve).map((i) => i.bends));
        if (back < amount) return [];
        return [
          {
            contour,
            point: s.to,
            bad: back,
            spots: [past.meeting],
            reason: past.both
              ? `Both handles of a curve pass the place where they meet, by ${said(past.by)}.`
              : `A handle passes the place where both directions meet by ${said(past.by)}: the curve bends back by ${Math.round(back)}°.`,
            mends: withinMeeting(c, s) !== undefined,
          },
        ];
      }),
    ),
    ways: [
      {
        way: 'shorten',
        title: 'Shorten it',
        together: false,
        mend: alone((c, { point }) => {
          const s = segments(c).find((each) => each.to === point);
          return s && s.offs.length === 2 ? withinMeeting(c, s) : undefined;
        }),
      },
    ],
  },
  {
    kind: 'outlines/broken',
    family: 'outlines',
    title: 'Smooth points that break',
    severity: 'attention',
    why: 'The point is meant to be smooth, but its handles do not lie in one line: a corner that one feels before one sees it.',
    amount: { label: 'Turns by', unit: 'degrees', usual: 2, least: 0.2, most: 30 },
    look: eachContour((c, contour, { u }, amount) =>
      c.points.flatMap((p, point): OutlineFault[] => {
        if (!isOnCurve(p) || !p.smooth) return [];
        const turn = turnAt(c, point);
        if (!turn || turn.degrees < amount || turn.off < 0.6 * u) return [];
        const reason = `A smooth point turns by ${Math.round(turn.degrees * 10) / 10}°.`;
        return [{ contour, point, bad: turn.degrees, spots: [spotOf(c, point)], reason, mends: hasHandle(c, point) }];
      }),
    ),
    ways: [
      {
        way: 'align',
        title: 'Bring its handles in line',
        together: false,
        mend: alone((c, { point }) => setSmooth(c, new Set([point]), true)),
      },
    ],
  },
  {
    kind: 'outlines/nearlySmooth',
    family: 'outlines',
    title: 'Corners that are nearly smooth',
    severity: 'note',
    habit: true,
    why: 'A corner of a degree or two is seldom meant; it shows as a knot at large sizes.',
    amount: { label: 'Turns by less than', unit: 'degrees', usual: 3, least: 0.2, most: 20 },
    look: eachContour((c, contour, { u }, amount) =>
      c.points.flatMap((p, point): OutlineFault[] => {
        if (!isOnCurve(p) || p.smooth || !hasHandle(c, point)) return [];
        const turn = turnAt(c, point);
        if (!turn || turn.degrees > amount || turn.shortest < 8 * u) return [];
        // What lies exactly in line draws well; only its mark is missing.
        if (turn.off < 0.75 * u) return [];
        const reason = `A corner turns by ${Math.round(turn.degrees * 10) / 10}° only.`;
        return [{ contour, point, bad: amount - turn.degrees, spots: [spotOf(c, point)], reason, mends: true }];
      }),
    ),
    ways: [
      {
        way: 'smooth',
        title: 'Make it smooth',
        together: false,
        mend: alone((c, { point }) => setSmooth(c, new Set([point]), true)),
      },
    ],
  },
  {
    kind: 'outlines/nearlyLevel',
    family: 'outlines',
    title: 'Sides nearly level or upright',
    severity: 'note',
    habit: true,
    why: 'A side that misses level by a unit is mostly a slip; on screens it becomes a step in the middle of a stem.',
    amount: { label: 'Misses by up to', unit: 'thousandths of the em', usual: 1, least: 0.1, most: 10 },
    look: eachContour((c, contour, { u, leans }, amount) =>
      segments(c).flatMap((s): OutlineFault[] => {
        if (s.from < 0 || s.offs.length > 0) return [];
        const off = missed(c, s.from, s.to, leans);
        if (!off || off.by > amount * u + 0.01 || off.length < Math.max(30 * off.by, 25 * u)) return [];
        const [a, b] = [c.points[s.from]!, c.points[s.to]!];
        return [
          {
            contour,
            point: s.to,
            bad: off.by / u,
            spots: [{ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }],
            reason: `A side misses ${off.axis === 'y' ? 'level' : 'upright'} by ${said(off.by)}.`,
            mends: true,
          },
        ];
      }),
    ),
    ways: [
      {
        way: 'straighten',
        title: 'Set it straight',
        together: false,
        mend: alone((c, { point }) => {
          const s = segments(c).find((each) => each.to === point);
          return s && s.from >= 0 ? setStraight(c, s.from, s.to) : undefined;
        }),
      },
    ],
  },
  {
    kind: 'outlines/nearlyLevelHandle',
    family: 'outlines',
    title: 'Handles nearly level or upright',
    severity: 'note',
    habit: true,
    why: 'At the top, bottom and sides of a round handles lie level or upright; a unit beside, the extreme is no longer at the point.',
    amount: { label: 'Misses by up to', unit: 'thousandths of the em', usual: 1, least: 0.1, most: 10 },
    look: eachContour((c, contour, { u, leans }, amount) =>
      c.points.flatMap((p, point): OutlineFault[] => {
        if (!isOnCurve(p)) return [];
        const { before, after } = handlesAt(c, point);
        const off = [before, after].flatMap((k) => (k === undefined ? [] : (missed(c, point, k, leans) ?? [])));
        const worst = off
          .filter((o) => o.by <= amount * u + 0.01 && o.length >= Math.max(20 * o.by, 20 * u))
          .sort((a, b) => b.by - a.by)[0];
        if (!worst) return [];
        const reason = `A handle misses ${worst.axis === 'y' ? 'level' : 'upright'} by ${said(worst.by)}.`;
        return [{ contour, point, bad: worst.by / u, spots: [spotOf(c, point)], reason, mends: true }];
      }),
    ),
    ways: [
      {
        way: 'straighten',
        title: 'Set it straight',
        together: false,
        mend: alone((c, { point }, amount, u) => levelHandles(c, point, amount * u)),
      },
    ],
  },
  {
    kind: 'outlines/bump',
    family: 'outlines',
    title: 'Bumps of curvature',
    severity: 'note',
    onRequest: true,
    why: 'The direction runs on through the point, but how tightly the curve bends jumps: light on a round shows it.',
    amount: { label: 'Bends more tightly by', unit: 'times', usual: 4, least: 1.2, most: 50 },
    look: eachContour((c, contour, { u }, amount) =>
      c.points.flatMap((p, point): OutlineFault[] => {
        if (!isOnCurve(p) || !p.smooth) return [];
        const times = jump(c, point, u);
        if (times === undefined || times < amount) return [];
        const reason = `The curve bends ${Math.round(times * 10) / 10} times more tightly on one side of a smooth point.`;
        return [
          {
            contour,
            point,
            bad: times,
            spots: [spotOf(c, point)],
            reason,
            mends: evenedOut(c, new Set([point])) !== c,
          },
        ];
      }),
    ),
    ways: [
      {
        way: 'even',
        title: 'Even it out',
        together: false,
        mend: alone((c, { point }) => evenedOut(c, new Set([point]))),
      },
    ],
  },
  {
    kind: 'outlines/flat',
    family: 'outlines',
    title: 'Curves too flat',
    severity: 'note',
    habit: true,
    why: 'Handles so short that the curve runs nearly straight and turns all at once at its ends: a corner where a round was meant.',
    amount: { label: 'Fuller than', unit: 'hundredths', usual: 15, least: 2, most: 60 },
    look: eachContour((c, contour, { u }, amount) =>
      segments(c).flatMap((s): OutlineFault[] => {
        const curve = s.curves[0];
        if (s.offs.length !== 2 || !curve || curve.length !== 8 || chord(curve) < 30 * u) return [];
        if (!c.points[s.from]!.smooth || !c.points[s.to]!.smooth) return [];
        const full = turned(curve) < 20 ? undefined : fullnessOf(curve);
        if (full === undefined || full * 100 >= amount) return [];
        const [a, b] = [c.points[s.from]!, c.points[s.to]!];
        const spots = [{ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }];
        return [
          {
            contour,
            point: s.to,
            bad: 1 - full,
            spots,
            reason: `A curve between smooth points is ${Math.round(full * 100)} hundredths full only; a round has 55.`,
            mends: true,
          },
        ];
      }),
    ),
    ways: [
      {
        way: 'fill',
        title: 'Make it round',
        together: false,
        mend: alone((c, { point }) => {
          const s = segments(c).find((each) => each.to === point);
          return s && s.offs.length === 2 ? rounder(c, s) : undefined;
        }),
      },
    ],
  },
];

const DOUBLED = 0.5;
type Seg = ReturnType<typeof segments>[number];

const chord = (c: Curve): number => Math.hypot(c[c.length - 2]! - c[0]!, c[c.length - 1]! - c[1]!);

const retracted = (c: Contour, off: number, on: number): boolean => {
  const [p, q] = [c.points[off]!, c.points[on]!];
  return Math.abs(p.x - q.x) < 0.01 && Math.abs(p.y - q.y) < 0.01;
};

/** How far the handles of a curve lie from its chord, or beyond its ends. */
function bend(c: Curve): number {
  const [x0, y0, x1, y1] = [c[0]!, c[1]!, c[c.length - 2]!, c[c.length - 1]!];
  const length = Math.hypot(x1 - x0, y1 - y0);
  let most = 0;
  for (let i = 2; i < c.length - 2; i += 2) {
    const [x, y] = [c[i]! - x0, c[i + 1]! - y0];
    const along = (x * (x1 - x0) + y * (y1 - y0)) / length;
    most = Math.max(most, Math.abs(x * (y1 - y0) - y * (x1 - x0)) / length, -along, along - length);
  }
  return most;
}

/** A contour with a segment's handles taken away: it is a line. */
function withoutHandles(c: Contour, s: Seg): Contour {
  const gone = new Set(s.offs);
  return {
    ...c,
    points: c.points.flatMap((p, i): Point[] => (gone.has(i) ? [] : [i === s.to ? { ...p, type: 'line' } : p])),
  };
}

/** A curve with one handle of no length, drawn by two; undefined where that does not come near enough. */
function drawnOut(c: Contour, s: Seg): Contour | undefined {
  const [first, second] = s.offs as readonly [number, number];
  const at = (i: number) => c.points[i]!;
  const none = retracted(c, first, s.from);
  const [bare, on, other, far] = none ? [first, s.from, second, s.to] : [second, s.to, first, s.from];
  const [h, p, q] = [at(other), at(on), at(far)];
  // The direction at the bare end is towards the other handle. A quadratic with the same ends and directions says where.
  const reach = Math.hypot(h.x - p.x, h.y - p.y);
  if (reach === 0) return undefined;
  const wanted = { x: p.x + (h.x - p.x) / 3, y: p.y + (h.y - p.y) / 3 };
  // The area under the curve is kept by drawing the other handle back.
  const area = (a: { x: number; y: number }, b: { x: number; y: number }) => cubicArea(p, a, b, q);
  const goal = area(p, h);
  let [low, high] = [0.3, 1];
  const back = (k: number) => ({ x: q.x + (h.x - q.x) * k, y: q.y + (h.y - q.y) * k });
  const sign = Math.sign(area(wanted, back(1)) - area(wanted, back(0.3)));
  for (let i = 0; i < 40; i++) {
    const k = (low + high) / 2;
    if ((area(wanted, back(k)) - goal) * sign < 0) low = k;
    else high = k;
  }
  const end = back((low + high) / 2);
  const points = [...c.points];
  points[bare] = { ...points[bare]!, x: tidy(wanted.x), y: tidy(wanted.y) };
  points[other] = { ...points[other]!, x: tidy(end.x), y: tidy(end.y) };
  return { ...c, points };
}

type Vec = { readonly x: number; readonly y: number };

/** The area under a cubic, to be held against that of another of the same ends. */
const cubicArea = (a: Vec, b: Vec, c: Vec, d: Vec): number => areaUnder([a.x, a.y, b.x, b.y, c.x, c.y, d.x, d.y]);

/** Directions that differ by less than this, in degrees, meet nowhere that one could tell. */
const ALIKE = 1.2;

/** Where the directions of both handles meet, as shares of each handle's own length; undefined where they do not. */
function meeting(c: Curve): { s: number; t: number; at: Vec } | undefined {
  const reach = reaches(c);
  const turn = turned(c);
  if (!reach || turn < ALIKE || turn > 180 - ALIKE) return undefined;
  const [s, t] = [1 / reach[0], 1 / reach[1]];
  return { s, t, at: { x: c[0]! + (c[2]! - c[0]!) * s, y: c[1]! + (c[3]! - c[1]!) * s } };
}

/** By how much the longer of a curve's handles passes the meeting point, in font units. */
function pastMeeting(c: Curve): { by: number; both: boolean; meeting: Vec } | undefined {
  const m = meeting(c);
  if (!m) return undefined;
  const by = Math.max(
    Math.hypot(c[2]! - c[0]!, c[3]! - c[1]!) * (1 - m.s),
    Math.hypot(c[4]! - c[6]!, c[5]! - c[7]!) * (1 - m.t),
  );
  return { by, both: m.s < 1 && m.t < 1, meeting: m.at };
}

/** So near to the meeting point, as a share of the way, a handle may reach when it is drawn back. */
const MOST_REACH = 0.96;
/** A handle that would be shorter than this share of the chord is not drawn back: another curve would come of it. */
const LEAST_HANDLE = 0.15;

/**
 * The curve with no handle past the meeting point; the other handle grows to keep the area, as far as it may. Undefined where nothing like
 * the curve would be left.
 */
function withinMeeting(c: Contour, s: Seg): Contour | undefined {
  const curve = s.curves[0]!;
  const m = meeting(curve);
  if (!m) return undefined;
  const points = [...c.points];
  const [a, h, k, b] = [points[s.from]!, points[s.offs[0]!]!, points[s.offs[1]!]!, points[s.to]!];
  const [first, second] = [Math.hypot(h.x - a.x, h.y - a.y), Math.hypot(k.x - b.x, k.y - b.y)];
  const goal = cubicArea(a, h, k, b);
  const at = (on: Point, off: Point, by: number): Point => ({
    ...off,
    x: on.x + (off.x - on.x) * by,
    y: on.y + (off.y - on.y) * by,
  });
  // Handles as shares of their own length: neither past the meeting point.
  let [p, q] = [Math.min(1, m.s * MOST_REACH), Math.min(1, m.t * MOST_REACH)];
  const grows = p < 1 && q < 1 ? undefined : p < 1 ? 'second' : 'first';
  if (grows) {
    let [low, high] = [1, (grows === 'first' ? m.s : m.t) * MOST_REACH];
    const area = (by: number) =>
      grows === 'first' ? cubicArea(a, at(a, h, by), at(b, k, q), b) : cubicArea(a, at(a, h, p), at(b, k, by), b);
    const sign = Math.sign(area(high) - area(low)) || 1;
    for (let i = 0; i < 30; i++) {
      const middle = (low + high) / 2;
      if ((area(middle) - goal) * sign < 0) low = middle;
      else high = middle;
    }
    if (grows === 'first') p = (low + high) / 2;
    else q = (low + high) / 2;
  }
  if (Math.min(first * p, second * q) < LEAST_HANDLE * chord(curve)) return undefined;
  const neat = (v: Point): Point => ({ ...v, x: tidy(v.x), y: tidy(v.y) });
  points[s.offs[0]!] = neat(at(a, h, p));
  points[s.offs[1]!] = neat(at(b, k, q));
  return { ...c, points };
}

const hasHandle = (c: Contour, i: number): boolean => {
  const { before, after } = handlesAt(c, i);
  return before !== undefined || after !== undefined;
};

/** How much the outline turns at a point, how far the point stands off the way between its neighbours, and how near those are. */
function turnAt(c: Contour, i: number): { degrees: number; off: number; shortest: number } | undefined {
  const [before, after] = [neighbour(c, i, -1), neighbour(c, i, 1)];
  if (before === undefined || after === undefined) return undefined;
  const [a, p, b] = [c.points[before]!, c.points[i]!, c.points[after]!];
  const [ax, ay, bx, by] = [p.x - a.x, p.y - a.y, b.x - p.x, b.y - p.y];
  const [la, lb] = [Math.hypot(ax, ay), Math.hypot(bx, by)];
  if (la < 1e-6 || lb < 1e-6) return undefined;
  const turn = ax * by - ay * bx;
  const length = Math.hypot(b.x - a.x, b.y - a.y);
  return {
    degrees: (Math.abs(Math.atan2(turn, ax * bx + ay * by)) * 180) / Math.PI,
    off: length === 0 ? 0 : Math.abs(turn) / length,
    shortest: Math.min(la, lb),
  };
}

/** By how much the way between two points misses level or upright; undefined where it is neither nearly, or wholly. */
function missed(
  c: Contour,
  from: number,
  to: number,
  leans: boolean,
): { axis: 'x' | 'y'; by: number; length: number } | undefined {
  const [a, b] = [c.points[from]!, c.points[to]!];
  const [dx, dy] = [Math.abs(a.x - b.x), Math.abs(a.y - b.y)];
  const axis = dx > dy ? 'y' : 'x';
  // Letters that lean have no upright sides.
  if (axis === 'x' && leans) return undefined;
  const by = Math.min(dx, dy);
  return by < 0.01 ? undefined : { axis, by, length: Math.max(dx, dy) };
}

/** Both ends of a side on one coordinate: the one that has company in the contour, else the first one's. */
function setStraight(c: Contour, from: number, to: number): Contour {
  const points = [...c.points];
  const [a, b] = [points[from]!, points[to]!];
  const axis = Math.abs(a.x - b.x) > Math.abs(a.y - b.y) ? 'y' : 'x';
  const company = (v: number) => points.filter((p) => p[axis] === v).length;
  if (company(b[axis]) > company(a[axis])) shiftWithHandles(c, points, from, axis, b[axis] - a[axis]);
  else shiftWithHandles(c, points, to, axis, a[axis] - b[axis]);
  return { ...c, points };
}

/** Handles of a point that are nearly level or upright made so; where one remains beside, it is turned in line with the other. */
function levelHandles(c: Contour, i: number, most: number): Contour {
  const points = [...c.points];
  const p = points[i]!;
  const { before, after } = handlesAt(c, i);
  for (const k of [before, after]) {
    if (k === undefined) continue;
    const h = points[k]!;
    const [dx, dy] = [Math.abs(h.x - p.x), Math.abs(h.y - p.y)];
    if (Math.min(dx, dy) > most + 0.01 || Math.max(dx, dy) < 12 * Math.min(dx, dy)) continue;
    points[k] = dx > dy ? { ...h, y: p.y } : { ...h, x: p.x };
  }
  const levelled = { ...c, points };
  return p.smooth ? setSmooth(levelled, new Set([i]), true) : levelled;
}

const curvature = (c: Curve, t: 0 | 1): number => {
  const [dx, dy] = derivativeAt(c, t);
  const k = t === 0 ? 2 : c.length - 4;
  const near = t === 0 ? 0 : c.length - 2;
  const [ax, ay] = [c[k]! - c[near]!, c[k + 1]! - c[near + 1]!];
  const far = t === 0 ? 4 : c.length - 6;
  const [bx, by] = [c[far]! - c[near]!, c[far + 1]! - c[near + 1]!];
  const h = Math.hypot(ax, ay);
  return h < 1e-6 || (dx === 0 && dy === 0) ? Number.NaN : ((2 / 3) * (ax * by - ay * bx)) / h ** 3;
};

/** How many times more tightly a curve bends on one side of a smooth point than on the other; none where it changes sides. */
function jump(c: Contour, i: number, u: number): number | undefined {
  const list = segments(c);
  const k = list.findIndex((s) => s.to === i);
  const [one, two] = [list[k]?.curves.at(-1), (c.closed ? list[(k + 1) % list.length] : list[k + 1])?.curves[0]];
  if (!one || !two || one.length !== 8 || two.length !== 8 || Math.min(chord(one), chord(two)) < 30 * u)
    return undefined;
  const [a, b] = [-curvature(one, 1), curvature(two, 0)];
  if (!(a * b > 0)) return undefined;
  const [least, most] = [Math.abs(a), Math.abs(b)].sort((p, q) => p - q) as [number, number];
  return most / Math.max(least, 1e-9);
}

/** How much a curve turns from its start to its end, in degrees. */
function turned(c: Curve): number {
  const [ax, ay, bx, by] = [c[2]! - c[0]!, c[3]! - c[1]!, c[6]! - c[4]!, c[7]! - c[5]!];
  return (Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by)) * 180) / Math.PI;
}

/** Handles as long as those of a round between the same directions. */
function rounder(c: Contour, s: Seg): Contour | undefined {
  const m = meeting(s.curves[0]!);
  if (!m) return undefined;
  const points = [...c.points];
  const lengthen = (off: number, on: number, reach: number) => {
    const [p, q] = [points[off]!, points[on]!];
    points[off] = { ...p, x: tidy(q.x + (p.x - q.x) * reach * 0.552), y: tidy(q.y + (p.y - q.y) * reach * 0.552) };
  };
  lengthen(s.offs[0]!, s.from, m.s);
  lengthen(s.offs[1]!, s.to, m.t);
  return { ...c, points };
}
