import type { Affine } from './affine';
import {
  areaUnder,
  type Box,
  boundsOf,
  type Curve,
  emptyBox,
  isEmptyBox,
  nearestOn,
  splitAt,
  stretchBox,
} from './curve';

/** `off` is an off-curve point; the others end a segment, as in UFO. */
export type PointType = 'line' | 'curve' | 'qcurve' | 'off';

export type Point = {
  readonly x: number;
  readonly y: number;
  readonly type: PointType;
  readonly smooth?: boolean | undefined;
  readonly name?: string | undefined;
  readonly identifier?: string | undefined;
};

/**
 * Points in UFO order. In a closed contour off-curve points at the head of the list belong to the segment
 * that ends at the first on-curve point. An open contour starts with an on-curve point whose type is `line`.
 */
export type Contour = {
  readonly closed: boolean;
  readonly points: readonly Point[];
  readonly identifier?: string | undefined;
};

/** A segment of a contour: which points make it, and the curves it draws (a `qcurve` may draw several). */
export type Segment = {
  /** Index of the on-curve point the segment starts from; -1 in a contour without on-curve points. */
  readonly from: number;
  /** Indices of the off-curve points between, in order. */
  readonly offs: readonly number[];
  /** Index of the on-curve point the segment ends at; -1 in a contour without on-curve points. */
  readonly to: number;
  readonly curves: readonly Curve[];
};

export const isOnCurve = (p: Point): boolean => p.type !== 'off';

/** Index of the start point: the first on-curve point, or -1. */
export const startIndex = (c: Contour): number => c.points.findIndex(isOnCurve);

/** Index of the point `step` places on; undefined past the end of an open contour, and where a contour has one point only. */
export function neighbour(contour: Contour, index: number, step: number): number | undefined {
  const n = contour.points.length;
  const next = index + step;
  if (contour.closed) return n > 1 ? ((next % n) + n) % n : undefined;
  return next >= 0 && next < n ? next : undefined;
}

/** Do two contours have the same points of the same types, so that they can be blended? */
export const sameBuild = (a: Contour, b: Contour): boolean =>
  a.closed === b.closed &&
  a.points.length === b.points.length &&
  a.points.every((p, i) => p.type === b.points[i]!.type);

/** The segments of a contour in order, beginning at its start point. */
export function segmentsOf(contour: Contour): Segment[] {
  const { points, closed } = contour;
  const n = points.length;
  if (n === 0) return [];
  const start = startIndex(contour);
  if (start < 0)
    return closed ? [{ from: -1, offs: points.map((_, i) => i), to: -1, curves: allOffCurves(points) }] : [];
  const segments: Segment[] = [];
  let from = start;
  let offs: number[] = [];
  const count = closed ? n : n - 1 - start;
  for (let k = 1; k <= count; k++) {
    const i = (start + k) % n;
    if (points[i]!.type === 'off') {
      offs.push(i);
      continue;
    }
    if (!(closed && n === 1)) segments.push({ from, offs, to: i, curves: segmentCurves(points, from, offs, i) });
    from = i;
    offs = [];
  }
  return segments;
}

function segmentCurves(points: readonly Point[], from: number, offs: readonly number[], to: number): Curve[] {
  const a = points[from]!;
  const b = points[to]!;
  if (offs.length === 0) return [[a.x, a.y, b.x, b.y]];
  if (b.type === 'curve' && offs.length === 2) {
    const p = points[offs[0]!]!;
    const q = points[offs[1]!]!;
    return [[a.x, a.y, p.x, p.y, q.x, q.y, b.x, b.y]];
  }
  return quadraticRun(
    a,
    offs.map((i) => points[i]!),
    b,
  );
}

/** Quadratics through a run of off-curve points, implied on-curve points halfway between neighbours. */
function quadraticRun(a: { x: number; y: number }, offs: readonly Point[], b: { x: number; y: number }): Curve[] {
  const curves: Curve[] = [];
  let x = a.x;
  let y = a.y;
  offs.forEach((off, i) => {
    const next = offs[i + 1];
    const ex = next ? (off.x + next.x) / 2 : b.x;
    const ey = next ? (off.y + next.y) / 2 : b.y;
    curves.push([x, y, off.x, off.y, ex, ey]);
    x = ex;
    y = ey;
  });
  return curves;
}

function allOffCurves(points: readonly Point[]): Curve[] {
  const first = points[0]!;
  const last = points[points.length - 1]!;
  const seam = { x: (first.x + last.x) / 2, y: (first.y + last.y) / 2 };
  return quadraticRun(seam, points, seam);
}

const curvesCache = new WeakMap<Contour, readonly Curve[]>();

/** All curves of a contour in order; cached by the contour's identity. */
export function curvesOf(contour: Contour): readonly Curve[] {
  let curves = curvesCache.get(contour);
  if (!curves) {
    curves = makeCurves(contour);
    curvesCache.set(contour, curves);
  }
  return curves;
}

function makeCurves(contour: Contour): readonly Curve[] {
  const { points, closed } = contour;
  const n = points.length;
  const start = startIndex(contour);
  if (start < 0) return closed && n > 0 ? allOffCurves(points) : [];
  if (n === 1) return [];
  const curves: Curve[] = [];
  let from = points[start]!;
  let offs: Point[] = [];
  const count = closed ? n : n - 1 - start;
  for (let k = 1; k <= count; k++) {
    const p = points[start + k < n ? start + k : start + k - n]!;
    if (p.type === 'off') {
      offs.push(p);
      continue;
    }
    if (offs.length === 0) curves.push([from.x, from.y, p.x, p.y]);
    else if (p.type === 'curve' && offs.length === 2) {
      curves.push([from.x, from.y, offs[0]!.x, offs[0]!.y, offs[1]!.x, offs[1]!.y, p.x, p.y]);
    } else curves.push(...quadraticRun(from, offs, p));
    from = p;
    if (offs.length > 0) offs = [];
  }
  return curves;
}

/** A contour from joined curves: an on-curve point at every joint, zero-length lines left out. */
export function contourFromCurves(curves: readonly Curve[], closed: boolean): Contour {
  const points: Point[] = [];
  const add = (x: number, y: number, type: PointType) => points.push({ x, y, type });
  const kept = curves.filter((c) => c.length > 4 || c[0] !== c[2] || c[1] !== c[3]);
  const first = kept[0];
  if (!first) return { closed, points };
  if (!closed) add(first[0]!, first[1]!, 'line');
  for (const c of kept) {
    for (let i = 2; i < c.length - 2; i += 2) add(c[i]!, c[i + 1]!, 'off');
    add(c[c.length - 2]!, c[c.length - 1]!, c.length === 4 ? 'line' : c.length === 6 ? 'qcurve' : 'curve');
  }
  if (!closed) return { closed, points };
  const end = points.pop()!;
  return { closed, points: [{ ...end, x: first[0]!, y: first[1]! }, ...points] };
}

/** Signed area, counter-clockwise positive; an open contour counts as if closed by a line. */
export function signedArea(contour: Contour): number {
  const { points } = contour;
  const n = points.length;
  const start = startIndex(contour);
  if (start < 0 || n < 2) return start < 0 ? curvesOf(contour).reduce((sum, c) => sum + areaUnder(c), 0) : 0;
  // Green's theorem on the points themselves: this is asked for every contour of a font.
  let area = 0;
  let from = points[start]!;
  for (let k = 1; k <= n; k++) {
    const p = at(points, start + k);
    if (p.type === 'off') {
      const q = at(points, start + k + 1);
      const to = at(points, start + k + 2);
      if (q.type === 'off' && to.type === 'curve') {
        area += cubicArea(from, p, q, to);
        from = to;
        k += 2;
      } else {
        const end = q.type === 'off' ? { x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 } : q;
        area += (2 * cross(from, p) + 2 * cross(p, end) + cross(from, end)) / 6;
        if (q.type !== 'off') k++;
        from = end as Point;
      }
    } else {
      area += cross(from, p) / 2;
      from = p;
    }
  }
  return area;
}

const at = (points: readonly Point[], i: number): Point => points[i < points.length ? i : i - points.length]!;
const cross = (a: { x: number; y: number }, b: { x: number; y: number }): number => a.x * b.y - b.x * a.y;
const cubicArea = (a: Point, b: Point, c: Point, d: Point): number =>
  (6 * cross(a, b) + 3 * cross(a, c) + cross(a, d) + 3 * cross(b, c) + 3 * cross(b, d) + 6 * cross(c, d)) / 20;

const boundsCache = new WeakMap<Contour, Box>();

/** Exact bounding box of a contour; cached by identity. A lone point has a box of its own. */
export function contourBounds(contour: Contour): Box {
  let box = boundsCache.get(contour);
  if (!box) {
    box = boundsOfPoints(contour) ?? boundsOf(curvesOf(contour));
    boundsCache.set(contour, box);
  }
  return box;
}

/** The box of the on-curve points, where it is that of the curves: where no off-curve point lies beyond it. */
function boundsOfPoints({ points }: Contour): Box | undefined {
  const box = emptyBox();
  for (const p of points) if (p.type !== 'off') stretchBox(box, p.x, p.y);
  if (isEmptyBox(box)) return undefined;
  for (const { type, x, y } of points)
    if (type === 'off' && (x < box.xMin || x > box.xMax || y < box.yMin || y > box.yMax)) return undefined;
  return box;
}

/** Every point carried through a transform. */
export function transformContour(contour: Contour, t: Affine): Contour {
  return {
    ...contour,
    points: contour.points.map((p) => ({
      ...p,
      x: t[0] * p.x + t[2] * p.y + t[4],
      y: t[1] * p.x + t[3] * p.y + t[5],
    })),
  };
}

/** The same shape and start point, travelled the other way; each segment's type moves to its other end. */
export function reverseContour(contour: Contour): Contour {
  const { points, closed } = contour;
  const start = startIndex(contour);
  if (start < 0) return { ...contour, points: [...points].reverse() };
  const rotated = [...points.slice(start), ...points.slice(0, start)];
  const order = closed ? [rotated[0]!, ...rotated.slice(1).reverse()] : [...rotated].reverse();
  const types = segmentTypes(rotated, closed);
  // In the reversed order the segment that ended at an on-curve point now starts there.
  const reversedPoints = order.map((p, i): Point => {
    if (p.type === 'off') return p;
    if (i === 0 && !closed) return { ...p, type: 'line' };
    return { ...p, type: types.get(p)! };
  });
  return { ...contour, points: reversedPoints };
}

/** For each on-curve point the type of the segment that leaves it. */
function segmentTypes(rotated: readonly Point[], closed: boolean): Map<Point, PointType> {
  const on = rotated.filter(isOnCurve);
  const leaving = new Map<Point, PointType>();
  on.forEach((p, i) => {
    const next = on[i + 1] ?? (closed ? on[0]! : p);
    leaving.set(p, next.type);
  });
  return leaving;
}

/** Makes the on-curve point at `index` the start of a closed contour. */
export function withStart(contour: Contour, index: number): Contour {
  const { points } = contour;
  if (!contour.closed || !points[index] || points[index].type === 'off') return contour;
  return { ...contour, points: [...points.slice(index), ...points.slice(0, index)] };
}

/** The segment and place on it nearest to a point; undefined for a contour without curves. */
export function nearestOnContour(
  contour: Contour,
  x: number,
  y: number,
): { segment: Segment; part: number; t: number; distance: number } | undefined {
  let best: { segment: Segment; part: number; t: number; distance: number } | undefined;
  for (const segment of segmentsOf(contour)) {
    segment.curves.forEach((curve, part) => {
      const { t, distance } = nearestOn(curve, x, y);
      if (!best || distance < best.distance) best = { segment, part, t, distance };
    });
  }
  return best;
}

/**
 * Adds an on-curve point on a segment at `t` of its `part`-th curve without changing the shape.
 * Returns the new contour and the index of the new point.
 */
export function insertPoint(
  contour: Contour,
  segment: Segment,
  part: number,
  t: number,
): { contour: Contour; index: number } {
  const curve = segment.curves[part];
  if (!curve || segment.from < 0) return { contour, index: -1 };
  const [left, right] = splitAt(curve, t);
  const { points } = contour;
  const to = points[segment.to]!;
  const type: PointType = segment.offs.length === 0 ? 'line' : to.type;
  const middle: Point[] = [];
  const pushOffs = (c: Curve) => {
    for (let i = 2; i < c.length - 2; i += 2) middle.push({ x: c[i]!, y: c[i + 1]!, type: 'off' });
  };
  if (type === 'qcurve')
    segment.offs.slice(0, part).forEach((i) => {
      middle.push(points[i]!);
    });
  pushOffs(left);
  const added: Point = { x: right[0]!, y: right[1]!, type, ...(type === 'line' ? {} : { smooth: true }) };
  middle.push(added);
  pushOffs(right);
  if (type === 'qcurve')
    segment.offs.slice(part + 1).forEach((i) => {
      middle.push(points[i]!);
    });
  if (type === 'qcurve') keepImpliedPoints(middle, segment, points, part);
  const next = withSegmentPoints(contour, segment, middle);
  return { contour: next, index: next.points.indexOf(added) };
}

/** In a run of quadratics the neighbours' implied points move unless they are made real. */
function keepImpliedPoints(middle: Point[], segment: Segment, points: readonly Point[], part: number): void {
  const real = (curveIndex: number): Point => {
    const c = segment.curves[curveIndex]!;
    return { x: c[0]!, y: c[1]!, type: 'qcurve', smooth: true };
  };
  const next = part + 1;
  if (next < segment.curves.length) {
    const position = middle.indexOf(points[segment.offs[next]!]!);
    middle.splice(position, 0, real(next));
  }
  if (part > 0) {
    const position = middle.indexOf(points[segment.offs[part - 1]!]!);
    middle.splice(position + 1, 0, real(part));
  }
}

/** The contour with everything between the ends of a segment replaced by `middle`. */
export function withSegmentPoints(contour: Contour, segment: Segment, middle: readonly Point[]): Contour {
  const from = contour.points[segment.from]!;
  const rest = contour.points.filter((_, i) => !segment.offs.includes(i));
  const position = rest.indexOf(from);
  return { ...contour, points: [...rest.slice(0, position + 1), ...middle, ...rest.slice(position + 1)] };
}

/** An open contour closed: by a straight side, or by the curve that handles behind its last point begin. */
export function closedUp(contour: Contour): Contour {
  const { points } = contour;
  const handles = points.length - 1 - points.findLastIndex(isOnCurve);
  const type: PointType = handles === 0 ? 'line' : handles === 2 ? 'curve' : 'qcurve';
  const [first, ...others] = points;
  return first && isOnCurve(first)
    ? { ...contour, closed: true, points: [{ ...first, type }, ...others] }
    : { ...contour, closed: true };
}
