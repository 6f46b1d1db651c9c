import { type Contour, curvesOf, type Point, signedArea } from '../geometry/contour';
import { areaUnder, type Curve, directionAt, pointAt, splitAt } from '../geometry/curve';
import { deletePoints } from '../geometry/deletePoints';
import { crossings, surelyApart } from '../geometry/intersect';
import { removeOverlaps } from '../geometry/overlaps';
import { tidy } from '../geometry/tidy';
import { windingAt } from '../geometry/winding';
import { eachContour, type FaultPlace, neat, type OutlineCheck, type OutlineFault, said, segments } from './outline';

/** Where a contour crosses itself: two of its segments, and how far along each. */
export type SelfCrossing = {
  readonly first: number;
  readonly t: number;
  readonly second: number;
  readonly u: number;
  readonly x: number;
  readonly y: number;
};

/** No more crossings of one contour are told. */
const MOST = 12;
/** Loops smaller than this, in thousandths of the em, are slips whichever way they turn. */
const SMALL = 4;
/** A contour of more segments than this is not searched for crossings: it is a picture, not a letter. */
const MOST_SEGMENTS = 1500;

export const CROSSING_CHECKS: readonly OutlineCheck[] = [
  {
    kind: 'outlines/crossing',
    family: 'outlines',
    title: 'Contours that cross themselves',
    severity: 'attention',
    why: 'The outline goes through itself. The loop that it makes is filled or left out by chance of its direction, and grows or vanishes between masters.',
    look: eachContour((c, contour, { u }) =>
      selfCrossings(c).flatMap((hit): OutlineFault[] => {
        const across = Math.sqrt(Math.abs(loopOf(c, hit).area));
        // Strokes drawn across each other in one go, and counters that come of it, are meant; what turns inside out is not.
        if (across > SMALL * u && !turnsOut(c, hit, 0.2 * u)) return [];
        return [
          {
            contour,
            point: segments(c)[hit.first]!.to,
            bad: across / u,
            spots: [{ x: hit.x, y: hit.y }],
            reason: `A contour crosses itself; the loop is ${said(Math.max(0.1, across))} across.`,
            mends: true,
          },
        ];
      }),
    ),
    ways: [
      {
        way: 'loop',
        title: 'Take the loop out',
        together: true,
        mend: (siblings, at) => sameBuildAfter(siblings, (c) => withoutLoop(c, at)),
      },
      {
        way: 'merge',
        title: 'Make the loop one smooth point',
        together: true,
        mend: (siblings, at) => sameBuildAfter(siblings, (c) => withoutLoop(c, at, true)),
      },
      {
        way: 'unite',
        title: 'Unite both parts',
        together: true,
        mend: (siblings) => {
          const out = siblings.map((c) => removeOverlaps([c]));
          if (out.some((r) => r.failed || !r.changed)) return undefined;
          return out.map((r) => r.contours.map(neat));
        },
      },
    ],
  },
];

function sameBuildAfter(siblings: readonly Contour[], change: (c: Contour) => Contour | undefined) {
  const out = siblings.map(change);
  return out.every((c) => c !== undefined) ? out.map((c) => [c!]) : undefined;
}

const known = new WeakMap<Contour, readonly SelfCrossing[]>();

/** Where a contour crosses itself, ends that follow one another aside. Known again for the same contour. */
export function selfCrossings(contour: Contour): readonly SelfCrossing[] {
  let found = known.get(contour);
  if (!found) {
    found = search(contour);
    known.set(contour, found);
  }
  return found;
}

/** A curve of a segment, with the box of its control points. */
type Piece = {
  segment: number;
  curve: Curve;
  from: number;
  share: number;
  left: number;
  right: number;
  low: number;
  high: number;
};

function pieceOf(segment: number, curve: Curve, i: number, of: number): Piece {
  let [left, right, low, high] = [curve[0]!, curve[0]!, curve[1]!, curve[1]!];
  for (let k = 2; k < curve.length; k += 2) {
    const [x, y] = [curve[k]!, curve[k + 1]!];
    if (x < left) left = x;
    if (x > right) right = x;
    if (y < low) low = y;
    if (y > high) high = y;
  }
  return { segment, curve, from: i / of, share: 1 / of, left, right, low, high };
}

function search(contour: Contour): SelfCrossing[] {
  const list = segments(contour);
  if (list.length < 2 || list.length > MOST_SEGMENTS) return [];
  const pieces = list.flatMap((s, segment) => s.curves.map((curve, i) => pieceOf(segment, curve, i, s.curves.length)));
  const n = pieces.length;
  const out: SelfCrossing[] = [];
  for (let a = 0; a < n && out.length < MOST; a++) {
    const p = pieces[a]!;
    for (let b = a + 1; b < n && out.length < MOST; b++) {
      const q = pieces[b]!;
      if (p.left > q.right || q.left > p.right || p.low > q.high || q.low > p.high) continue;
      if (surelyApart(p.curve, q.curve)) continue;
      const follow = b - a === 1;
      const closing = contour.closed && a === 0 && b === n - 1;
      for (const { t, u } of crossings(p.curve, q.curve)) {
        if ((follow && t > 1 - NEAR && u < NEAR) || (closing && t < NEAR && u > 1 - NEAR)) continue;
        // Touching ends of other segments meet in a point: a T, not a crossing.
        if (t < 1e-4 || t > 1 - 1e-4 || u < 1e-4 || u > 1 - 1e-4) continue;
        const [x, y] = pointAt(p.curve, t);
        out.push({ first: p.segment, t: p.from + t * p.share, second: q.segment, u: q.from + u * q.share, x, y });
      }
    }
  }
  return out;
}

const NEAR = 0.002;

/**
 * Does a contour turn inside out at a crossing? Around it lie four sectors whose winding numbers are k, k + 1, k + 2 and k + 1: below nothing,
 * seen along the contour, is ink on the wrong side.
 */
function turnsOut(contour: Contour, hit: SelfCrossing, step: number): boolean {
  const list = segments(contour);
  const way = (k: number, t: number) => {
    const curves = list[k]!.curves;
    const at = Math.min(curves.length - 1, Math.floor(t * curves.length));
    return directionAt(curves[at]!, t * curves.length - at);
  };
  const [a, b] = [way(hit.first, hit.t), way(hit.second, hit.u)];
  const all = curvesOf(contour);
  const sign = Math.sign(signedArea(contour)) || 1;
  return [
    [1, 1],
    [1, -1],
    [-1, 1],
    [-1, -1],
  ].some(([p, q]) => {
    const [x, y] = [a[0] * p! + b[0] * q!, a[1] * p! + b[1] * q!];
    const l = Math.hypot(x, y);
    return l > 1e-3 && windingAt(all, hit.x + (x / l) * step, hit.y + (y / l) * step) * sign < 0;
  });
}

/** The smaller of the two loops that meet at a crossing: is it the one between both passages, and how large? */
function loopOf(contour: Contour, hit: SelfCrossing): { inner: boolean; area: number } {
  const curves = segments(contour).map((s) => s.curves);
  // Parts of the two segments that cross, cut at the crossing; a run of quadratics counts whole up to there.
  const cut = (k: number, t: number): readonly [readonly Curve[], readonly Curve[]] => {
    const list = curves[k]!;
    const at = Math.min(list.length - 1, Math.floor(t * list.length));
    const [before, after] = splitAt(list[at]!, t * list.length - at);
    return [
      [...list.slice(0, at), before],
      [after, ...list.slice(at + 1)],
    ];
  };
  const [[a0, a1], [b0, b1]] = [cut(hit.first, hit.t), cut(hit.second, hit.u)];
  const areaOf = (list: readonly Curve[]) => list.reduce((sum, c) => sum + areaUnder(c), 0);
  const inner = areaOf([...a1, ...curves.slice(hit.first + 1, hit.second).flat(), ...b0]);
  if (!contour.closed) return { inner: true, area: inner };
  const outer = areaOf([...b1, ...curves.slice(hit.second + 1).flat(), ...curves.slice(0, hit.first).flat(), ...a0]);
  const isInner = Math.abs(inner) <= Math.abs(outer);
  return { inner: isInner, area: isInner ? inner : outer };
}

/**
 * The contour without the smaller loop at a crossing: cut where it crosses itself, its parts kept as they were. `smooth` puts one smooth
 * point there, its neighbours running on as they did.
 */
function withoutLoop(contour: Contour, at: FaultPlace, smooth = false): Contour | undefined {
  const list = segments(contour);
  const hit = selfCrossings(contour).find((h) => list[h.first]!.to === at.point);
  if (!hit || list[hit.first]!.curves.length !== 1 || list[hit.second]!.curves.length !== 1) return undefined;
  const { inner } = loopOf(contour, hit);
  // Kept: from the crossing along the one passage, round to the crossing along the other.
  const [leave, leaveAt, arrive, arriveAt] = inner
    ? [hit.second, hit.u, hit.first, hit.t]
    : [hit.first, hit.t, hit.second, hit.u];
  const after = splitAt(list[leave]!.curves[0]!, leaveAt)[1];
  const before = splitAt(list[arrive]!.curves[0]!, arriveAt)[0];
  const points: Point[] = [];
  const corner: Point = {
    x: tidy(hit.x),
    y: tidy(hit.y),
    type: before.length === 4 ? 'line' : before.length === 6 ? 'qcurve' : 'curve',
  };
  const offs = (c: Curve): Point[] =>
    Array.from({ length: c.length / 2 - 2 }, (_, i) => ({
      x: tidy(c[2 + i * 2]!),
      y: tidy(c[3 + i * 2]!),
      type: 'off' as const,
    }));
  points.push(corner, ...offs(after), contour.points[list[leave]!.to]!);
  if (!contour.closed && !inner) return undefined;
  const n = list.length;
  for (let k = (leave + 1) % n; k !== arrive; k = (k + 1) % n) {
    const s = list[k]!;
    points.push(...s.offs.map((i) => contour.points[i]!), contour.points[s.to]!);
    if (points.length > 100_000) return undefined;
  }
  points.push(...offs(before));
  if (!contour.closed) return undefined;
  const cut: Contour = { ...contour, points };
  if (Math.abs(signedArea(cut)) < 1) return undefined;
  if (!smooth) return cut;
  // One fitted curve in place of the two cut ones, its ends as they were.
  const one = deletePoints(cut, new Set([0]));
  return one && neat(one);
}
