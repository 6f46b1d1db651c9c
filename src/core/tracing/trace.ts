import { type Contour, contourFromCurves } from '../geometry/contour';
import type { Curve, Vec } from '../geometry/curve';
import { withSmoothPoints } from '../geometry/smooth';
import { BLURRED, type Corner, cornersOf, placeOn, sharpened } from './corners';
import { evenSteps, inkEdges, type Ring, ringArea } from './edges';
import { curvesAlong } from './joints';
import { type GreyPicture, inkThreshold } from './picture';
import { type Straight, straightsOf } from './straights';

/** How a picture is traced. Distances are in pixels of the picture. */
export type TraceOptions = {
  /** Grey level below which it is ink, 0 to 255; found from the picture when left out. */
  threshold?: number | undefined;
  /** Spots of ink or paper of less than this many square pixels are left out. */
  speckle?: number | undefined;
  /** How far the outline may keep from the edge of the ink. */
  tolerance?: number | undefined;
};

/** Outlines in pixels from the picture's lower left corner, y up: outer edges counter-clockwise, counters clockwise. */
export type Traced = { contours: readonly Contour[]; threshold: number; points: number };

export const USUAL_SPECKLE = 24;
export const USUAL_TOLERANCE = 0.7;

/**
 * Outlines of the ink in a picture. Edges are followed where the grey passes the threshold, finer than a pixel; corners are the
 * places that turn as much within two steps as within four; between corners straight stretches become lines and the rest
 * cubics by least squares, with points at extremes.
 */
export function traced(picture: GreyPicture, options: TraceOptions = {}): Traced {
  const threshold = options.threshold ?? inkThreshold(picture);
  const speckle = options.speckle ?? USUAL_SPECKLE;
  const tolerance = Math.max(0.1, options.tolerance ?? USUAL_TOLERANCE);
  const contours = inkEdges(picture, threshold)
    .filter((ring) => Math.abs(ringArea(ring)) >= Math.max(4, speckle))
    .map((ring) => outlineOf(evenSteps(ring, 1), tolerance))
    .filter((c) => c.points.length > 2)
    .map((c) => ({ ...c, points: c.points.map((p) => ({ ...p, y: picture.height - p.y })) }));
  return { contours, threshold, points: contours.reduce((n, c) => n + c.points.length, 0) };
}

/** A ring of even steps as lines and curves. */
function outlineOf(ring: Ring, tolerance: number): Contour {
  const corners = sharpened(ring, cornersOf(ring));
  const curves =
    corners.length > 0
      ? trueCorners(corners.map((c, i) => sectionBetween(ring, c, corners[(i + 1) % corners.length]!, tolerance)))
      : [roundSection(ring, tolerance)];
  return withSmoothPoints(contourFromCurves(curves.flat(), true), 0.05);
}

const STRAIGHT_SHARE = 0.6;
const LEAST_STRAIGHT = 0.3;
const straightTolerance = (tolerance: number) => Math.max(LEAST_STRAIGHT, STRAIGHT_SHARE * tolerance);

/** The pieces from corner to corner; the blurred steps beside the corners are left out. */
function sectionBetween(ring: Ring, from: Corner, to: Corner, tolerance: number): Curve[] {
  const n = ring.xs.length;
  const count = to.index > from.index ? to.index - from.index : to.index - from.index + n;
  const samples: Vec[] = [];
  const skip = count > 2 * BLURRED + 2 ? Math.ceil(BLURRED) : count > 3 ? 1 : 0;
  for (let k = skip; k <= count - skip; k++) samples.push(placeOn(ring, from.index + k));
  if (samples.length < 2) return [[from.x, from.y, to.x, to.y]];
  const straights = straightsOf(samples, straightTolerance(tolerance));
  return pieces(
    samples,
    straights,
    { place: [from.x, from.y], direction: from.after },
    { place: [to.x, to.y], direction: [-to.before[0], -to.before[1]] },
    tolerance,
  );
}

type End = { place: Vec; direction: Vec };

/** Lines for the straight stretches and curves between them. */
function pieces(
  samples: readonly Vec[],
  straights: readonly Straight[],
  start: End,
  end: End,
  tolerance: number,
): Curve[] {
  const last = samples.length - 1;
  const out: Curve[] = [];
  let at: Vec = start.place;
  let index = 0;
  let direction: Vec | undefined = start.direction;
  const curveTo = (to: number, place: Vec, into: Vec) => {
    const between = samples
      .slice(Math.max(index, 0), to + 1)
      .filter((p) => apart(p, at) > 0.3 && apart(p, place) > 0.3);
    out.push(
      ...curvesAlong({ samples: [at, ...between, place], startDirection: direction, endDirection: into }, tolerance),
    );
  };
  straights.forEach((s, i) => {
    const first = i === 0 && s.from <= 1;
    const final = i === straights.length - 1 && s.to >= last - 1;
    const next = straights[i + 1];
    const begins: Vec = first ? onto(s, start.place) : onto(s, samples[s.from]!);
    let ends: Vec = final ? onto(s, end.place) : onto(s, samples[s.to]!);
    // Two lines with hardly a step between them meet in a corner.
    const met = next && next.from - s.to <= 6 ? crossing(s, next) : undefined;
    if (met && apart(met, samples[s.to]!) < 8) ends = met;
    if (!first && !(i > 0 && apart(begins, at) < 8 && straights[i - 1]!.to >= s.from - 6))
      curveTo(s.from, begins, s.direction);
    const from = first ? begins : i > 0 && straights[i - 1]!.to >= s.from - 6 ? at : begins;
    out.push([from[0], from[1], ends[0], ends[1]]);
    [at, index, direction] = [ends, s.to, s.direction];
  });
  const lastStraight = straights[straights.length - 1];
  if (!lastStraight || lastStraight.to < last - 1) curveTo(last, end.place, end.direction);
  return out;
}

const apart = (a: Vec, b: Vec): number => Math.hypot(a[0] - b[0], a[1] - b[1]);

/** The foot of a place on a straight stretch. */
function onto(s: Straight, [x, y]: Vec): Vec {
  const along = (x - s.x) * s.direction[0] + (y - s.y) * s.direction[1];
  return [s.x + s.direction[0] * along, s.y + s.direction[1] * along];
}

function crossing(
  a: { x: number; y: number; direction: Vec },
  b: { x: number; y: number; direction: Vec },
): Vec | undefined {
  const det = a.direction[0] * b.direction[1] - a.direction[1] * b.direction[0];
  if (Math.abs(det) < 0.03) return undefined;
  const t = ((b.x - a.x) * b.direction[1] - (b.y - a.y) * b.direction[0]) / det;
  return [a.x + a.direction[0] * t, a.y + a.direction[1] * t];
}

/** Brings sections together at their corners: where two lines meet, else at the end of the one that is a line. */
function trueCorners(sections: Curve[][]): Curve[][] {
  const out = sections.map((s) => s.map((c) => [...c]));
  out.forEach((section, i) => {
    const a = section[section.length - 1]!;
    const b = out[(i + 1) % out.length]![0]!;
    const [x0, y0, x1, y1] = [a[a.length - 2]!, a[a.length - 1]!, b[0]!, b[1]!];
    const lines = a.length === 4 && b.length === 4;
    const met = lines ? crossing(lineOf(a), lineOf(b)) : undefined;
    const near = met && Math.hypot(met[0] - x0, met[1] - y0) < 6 ? met : undefined;
    const [x, y] = near ?? (a.length === 4 ? [x0, y0] : b.length === 4 ? [x1, y1] : [(x0 + x1) / 2, (y0 + y1) / 2]);
    a[a.length - 2] = x;
    a[a.length - 1] = y;
    b[0] = x;
    b[1] = y;
  });
  return out;
}

const lineOf = (c: readonly number[]) => {
  const length = Math.hypot(c[2]! - c[0]!, c[3]! - c[1]!) || 1;
  return { x: c[0]!, y: c[1]!, direction: [(c[2]! - c[0]!) / length, (c[3]! - c[1]!) / length] as Vec };
};

/** A ring without corners: begun where it is straight, or at its rightmost place, and followed round to there. */
function roundSection(ring: Ring, tolerance: number): Curve[] {
  const n = ring.xs.length;
  const turned = (from: number) => Array.from({ length: n + 1 }, (_, k) => placeOn(ring, from + k));
  const straight = straightsOf(turned(0).slice(0, n), straightTolerance(tolerance)).sort(
    (a, b) => b.to - b.from - (a.to - a.from),
  )[0];
  if (straight && straight.to - straight.from < n - 4) {
    const middle = Math.round((straight.from + straight.to) / 2);
    const samples = turned(middle);
    const at = onto(straight, samples[0]!);
    const end = { place: at, direction: straight.direction };
    const straights = straightsOf(samples, straightTolerance(tolerance));
    const around = pieces(samples, straights, end, end, tolerance);
    return joinedSeam(around);
  }
  let right = 0;
  for (let i = 1; i < n; i++) if (ring.xs[i]! > ring.xs[right]!) right = i;
  const all = curvesAlong(
    { samples: turned(right), startDirection: upAt(ring, right), endDirection: upAt(ring, right) },
    tolerance,
  );
  return all;
}

/** The direction at the rightmost place of a ring: straight up or down, as it is travelled. */
const upAt = (ring: Ring, i: number): Vec => [0, Math.sign(placeOn(ring, i + 2)[1] - placeOn(ring, i - 2)[1]) || 1];

/** The two halves of the line at which a ring was begun, put together. */
function joinedSeam(curves: Curve[]): Curve[] {
  const first = curves[0];
  const last = curves[curves.length - 1];
  if (curves.length < 3 || first?.length !== 4 || last?.length !== 4) return curves;
  return [[last[0]!, last[1]!, first[2]!, first[3]!], ...curves.slice(1, -1)];
}
