import { type Contour, isOnCurve, sameBuild, startIndex } from '../geometry/contour';
import type { Curve } from '../geometry/curve';
import { cubicToQuadratics, quadraticsNeeded } from '../geometry/quadratics';
import type { GlyfPoint } from '../opentype/glyf';

/** Largest distance in units between a cubic and the quadratics cast for it. */
export const QUADRATIC_TOLERANCE = 0.5;

/** Points of TrueType contours in whole units: a row of coordinates for each drawing, the rest alike in all. */
export type QuadraticRows = {
  readonly on: boolean[];
  readonly xs: readonly number[][];
  readonly ys: readonly number[][];
  /** The last point of every contour. */
  readonly ends: number[];
  /** Largest error of the conversion of each drawing, in units. */
  readonly errors: number[];
};

/** Do two outlines have the same contours of the same points? */
export const agree = (a: readonly Contour[], b: readonly Contour[]): boolean =>
  a.length === b.length && a.every((c, i) => sameBuild(c, b[i]!));

/**
 * Contours as TrueType points, from their start points on. `family` are the outlines of one glyph in several masters, which {@link agree}:
 * curves get as many quadratics as the same curve needs in any of them. The first `count` of them are given. `turned`: contours run the
 * other way round from the same start.
 */
export function quadraticRows(family: readonly (readonly Contour[])[], count: number, turned: boolean): QuadraticRows {
  const rows = (): number[][] => Array.from({ length: count }, () => []);
  const out: QuadraticRows = { on: [], xs: rows(), ys: rows(), ends: [], errors: new Array<number>(count).fill(0) };
  family[0]!.forEach((_, i) => {
    const begin = out.on.length;
    addContour(
      family.map((contours) => contours[i]!),
      out,
    );
    // Nothing is filled by two points.
    if (out.on.length - begin <= 2) for (const list of [out.on, ...out.xs, ...out.ys]) list.length = begin;
    else {
      if (turned) for (const list of [out.on, ...out.xs, ...out.ys]) reverseFrom<unknown>(list, begin + 1);
      out.ends.push(out.on.length - 1);
    }
  });
  return out;
}

function reverseFrom<T>(list: T[], from: number): void {
  for (let [i, j] = [from, list.length - 1]; i < j; i++, j--) [list[i], list[j]] = [list[j]!, list[i]!];
}

/** One contour, the same in each master. */
function addContour(family: readonly Contour[], out: QuadraticRows): void {
  const { points } = family[0]!;
  const n = points.length;
  const start = Math.max(0, startIndex(family[0]!));
  const begin = out.on.length;
  // Points that fall together in one master need not in another.
  const alone = family.length === 1;
  const add = (i: number, on: boolean): void => {
    if (alone && on && out.on.length > begin && fallsOnLast(points[i]!, out)) return;
    out.on.push(on);
    for (let r = 0; r < out.xs.length; r++) {
      const p = family[r]!.points[i]!;
      out.xs[r]!.push(Math.round(p.x));
      out.ys[r]!.push(Math.round(p.y));
    }
  };
  const onCurveStart = isOnCurve(points[start]!);
  let from = start;
  if (onCurveStart) add(start, true);
  let offs: number[] = onCurveStart ? [] : [start];
  for (let k = 1; k <= n; k++) {
    const i = start + k < n ? start + k : start + k - n;
    const p = points[i]!;
    if (!isOnCurve(p)) {
      if (k < n || isOnCurve(points[from]!)) offs.push(i);
      continue;
    }
    if (p.type === 'curve' && offs.length === 2) addCurve(family, [from, offs[0]!, offs[1]!, i], out);
    else for (const off of offs) add(off, false);
    if (k < n) add(i, true);
    from = i;
    if (offs.length > 0) offs = [];
  }
  if (!onCurveStart) for (const off of offs) add(off, false);
  if (
    alone &&
    out.on.length > begin + 1 &&
    out.on[begin] &&
    fallsOnLast({ x: out.xs[0]![begin]!, y: out.ys[0]![begin]! }, out)
  )
    for (const list of [out.on, ...out.xs, ...out.ys]) list.pop();
}

/** Would an on-curve point lie where the last one does, in whole units? */
function fallsOnLast({ x, y }: { x: number; y: number }, { on, xs, ys }: QuadraticRows): boolean {
  const last = on.length - 1;
  return on[last]! && xs[0]![last] === Math.round(x) && ys[0]![last] === Math.round(y);
}

/** A cubic between four points of a contour, as off-curve points: as many in each master. */
function addCurve(family: readonly Contour[], at: readonly number[], out: QuadraticRows): void {
  const cubics = family.map(({ points }): Curve => {
    const [p, q, r, s] = [points[at[0]!]!, points[at[1]!]!, points[at[2]!]!, points[at[3]!]!];
    return [p.x, p.y, q.x, q.y, r.x, r.y, s.x, s.y];
  });
  let needed = 1;
  for (const cubic of cubics) needed = Math.max(needed, quadraticsNeeded(cubic, QUADRATIC_TOLERANCE));
  for (let r = 0; r < out.xs.length; r++) {
    const { offs, error } = cubicToQuadratics(cubics[r]!, QUADRATIC_TOLERANCE, needed);
    if (error > out.errors[r]!) out.errors[r] = error;
    for (let i = 0; i < offs.length; i += 2) {
      out.xs[r]!.push(Math.round(offs[i]!));
      out.ys[r]!.push(Math.round(offs[i + 1]!));
    }
  }
  for (let i = 0; i < needed; i++) out.on.push(false);
}

/** The points of each contour, as one of the drawings has them. */
export function glyfPoints({ on, ends, ...rows }: QuadraticRows, row: number): GlyfPoint[][] {
  const [xs, ys] = [rows.xs[row]!, rows.ys[row]!];
  let i = 0;
  return ends.map((end) => {
    const contour: GlyfPoint[] = [];
    for (; i <= end; i++) contour.push({ x: xs[i]!, y: ys[i]!, on: on[i]! });
    return contour;
  });
}
