import { type Contour, isOnCurve, type Point, segmentsOf, startIndex } from './contour';
import { type Curve, directionAt, pointAt, type Vec } from './curve';
import { fitCubic } from './fit';

const SAMPLES_PER_CURVE = 12;

/**
 * Removes points from a contour. A run of curves around removed on-curve points becomes one cubic fitted to the old
 * shape with the old end directions; straight runs become one line. Removing an off-curve point straightens its segment.
 * Returns undefined when nothing that can be drawn is left.
 */
export function deletePoints(contour: Contour, doomed: ReadonlySet<number>): Contour | undefined {
  const { points } = contour;
  const onLeft = points.filter((p, i) => isOnCurve(p) && !doomed.has(i));
  if (startIndex(contour) < 0) return deleteOffCurves(contour, doomed);
  if (onLeft.length < 2) return onLeft.length === 1 && !contour.closed ? { ...contour, points: onLeft } : undefined;

  const segments = segmentsOf(contour);
  if (!contour.closed) return rebuild(contour, trimOpenEnds(contour, doomed), doomed);
  const firstKept = segments.findIndex((s) => !doomed.has(s.from));
  return rebuild(contour, [...segments.slice(firstKept), ...segments.slice(0, firstKept)], doomed);
}

/** An open contour loses whole segments at its ends rather than bending to meet them. */
function trimOpenEnds(contour: Contour, doomed: ReadonlySet<number>) {
  const segments = segmentsOf(contour);
  const first = segments.findIndex((s) => !doomed.has(s.from));
  const last = segments.findLastIndex((s) => !doomed.has(s.to));
  return segments.slice(Math.max(0, first), last + 1);
}

function rebuild(
  contour: Contour,
  segments: ReturnType<typeof segmentsOf>,
  doomed: ReadonlySet<number>,
): Contour | undefined {
  const { points } = contour;
  const out: Point[] = [];
  const first = segments[0];
  if (!first) return undefined;
  out.push(contour.closed ? points[first.from]! : { ...points[first.from]!, type: 'line' });
  let run: typeof segments = [];
  for (const segment of segments) {
    run.push(segment);
    if (doomed.has(segment.to)) continue;
    const end = points[segment.to]!;
    if (run.length > 1) {
      const curve = joinRun(run.flatMap((s) => s.curves));
      for (let i = 2; i < curve.length - 2; i += 2) out.push({ x: curve[i]!, y: curve[i + 1]!, type: 'off' });
      out.push({ ...end, type: curve.length === 4 ? 'line' : 'curve' });
    } else if (segment.offs.some((i) => doomed.has(i))) {
      const left = segment.offs.filter((i) => !doomed.has(i)).map((i) => points[i]!);
      const keeps = end.type === 'qcurve' && left.length > 0;
      out.push(...(keeps ? left : []), keeps ? end : { ...end, type: 'line', smooth: undefined });
    } else {
      out.push(...segment.offs.map((i) => points[i]!), end);
    }
    run = [];
  }
  if (contour.closed) {
    const closing = out.pop()!;
    out[0] = closing;
  }
  return { ...contour, points: out };
}

/** One curve that stands for a run: a line if all are lines, else a fitted cubic. */
function joinRun(curves: readonly Curve[]): Curve {
  const first = curves[0]!;
  const last = curves[curves.length - 1]!;
  const ends: Curve = [first[0]!, first[1]!, last[last.length - 2]!, last[last.length - 1]!];
  if (curves.every((c) => c.length === 4)) return ends;
  const samples: Vec[] = [pointAt(first, 0)];
  for (const c of curves) {
    for (let i = 1; i <= SAMPLES_PER_CURVE; i++) samples.push(pointAt(c, i / SAMPLES_PER_CURVE));
  }
  const arrive = directionAt(last, 1);
  return fitCubic(samples, directionAt(first, 0), [-arrive[0], -arrive[1]]);
}

function deleteOffCurves(contour: Contour, doomed: ReadonlySet<number>): Contour | undefined {
  const points = contour.points.filter((_, i) => !doomed.has(i));
  return points.length < 3 ? undefined : { ...contour, points };
}
