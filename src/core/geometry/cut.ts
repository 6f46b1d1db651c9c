import { addTo } from '../base/grouping';
import { type Contour, contourBounds, contourFromCurves, curvesOf, signedArea } from './contour';
import { type Curve, endOf, lengthOf, partOf, pointAt, type Vec } from './curve';
import { crossings } from './intersect';
import { withSmoothPoints } from './smooth';
import { nestingDepths, windingAt } from './winding';

/** Places nearer than this to each other, in font units, are one. */
const SAME = 0.01;

/** A cut that passes a point within so many units goes through it, so that no crumb of an edge is left. */
const CATCH = 1;
/** Pieces thinner than this, in font units, are no shapes. */
const THIN = 0.75;

/** One curve in a ring of curves. */
type Link = { curve: Curve; next: Link };

/** A place on an outline: which contour of a group, which curve of it, and where on that; `t` is above 0. */
type Spot = { contour: number; curve: number; t: number };
/** Where the cut crosses an outline: how far along the cut, and where on the outline. */
type Crossing = { along: number; spot: Spot };

/** Contours that are cut together, by their places in the list: `pairs` of spots where ink begins and ends along the cut. */
type GroupCut = { members: readonly number[]; pairs: readonly (readonly [Spot, Spot])[]; open: readonly Spot[] };
/** What a cut comes to, so that it can be made in other contours with the same points too. */
export type CutPlan = { groups: readonly GroupCut[]; places: number };

/**
 * Cuts outlines along a straight line from one place to another. Wherever the line passes through ink from edge to edge,
 * the shape comes apart there (or opens into its counter) and each side is closed by a straight edge; an end of the line
 * within ink cuts nothing. Shapes lying on each other are cut each by itself. Open contours come apart where the line
 * crosses them. `places` tells how many cuts were made; contours that are not cut keep their identity.
 */
export function cutAlong(contours: readonly Contour[], from: Vec, to: Vec): { contours: Contour[]; places: number } {
  const plan = planCut(contours, from, to);
  return { contours: cutBy(contours, plan), places: plan.places };
}

/** Where a straight line cuts outlines; see {@link cutAlong}. */
export function planCut(contours: readonly Contour[], from: Vec, to: Vec): CutPlan {
  const line: Curve = [from[0], from[1], to[0], to[1]];
  const groups = shapesOf(contours).map((members): GroupCut => {
    const group = members.map((i) => contours[i]!);
    if (group[0]!.closed) return { members, pairs: pairsIn(group, line), open: [] };
    return { members, pairs: [], open: openSpots(group[0]!, line) };
  });
  return { groups, places: groups.reduce((sum, g) => sum + g.pairs.length + g.open.length, 0) };
}

/** Carries a cut out, in the contours that it was planned for or in others with the same points. */
export const cutBy = (contours: readonly Contour[], { groups }: CutPlan): Contour[] =>
  groups.flatMap(({ members, pairs, open }) => {
    const group = members.map((i) => contours[i]!);
    if (open.length > 0) return cutOpen(group[0]!, open);
    return pairs.length > 0 ? cutShape(group, pairs) : group;
  });

/** Outer contours each with the counters right inside it; open contours each by itself. In the order of the first of each. */
function shapesOf(contours: readonly Contour[]): number[][] {
  const depths = nestingDepths(contours);
  const groups = new Map<number, number[]>();
  const isOuter = (i: number) => !contours[i]!.closed || depths[i]! % 2 === 0;
  contours.forEach((_, i) => {
    if (isOuter(i)) groups.set(i, [i]);
  });
  contours.forEach((c, i) => {
    if (isOuter(i)) return;
    const [x, y] = pointAt(curvesOf(c)[0]!, 0.5);
    const parents = contours
      .map((_, k) => k)
      .filter(
        (k) =>
          k !== i &&
          groups.has(k) &&
          contours[k]!.closed &&
          depths[k] === depths[i]! - 1 &&
          windingAt(curvesOf(contours[k]!), x, y) !== 0,
      );
    if (parents[0] === undefined) groups.set(i, [i]);
    else groups.get(parents[0])!.push(i);
  });
  return [...groups].sort((a, b) => a[0] - b[0]).map(([, list]) => list);
}

function ring(curves: readonly Curve[]): Link[] {
  const links = curves.map((curve) => ({ curve }) as Link);
  links.forEach((link, i) => {
    link.next = links[(i + 1) % links.length]!;
  });
  return links;
}

/** A place on a closed contour, moved onto a point that lies near; the beginning of a curve is the end of the one before. */
function spotOn(curves: readonly Curve[], contour: number, curve: number, t: number): Spot {
  const whole = curves[curve]!;
  const [x, y] = pointAt(whole, t);
  const near = (i: number) => Math.hypot(whole[i]! - x, whole[i + 1]! - y) < CATCH;
  if (near(0)) return { contour, curve: (curve + curves.length - 1) % curves.length, t: 1 };
  return { contour, curve, t: near(whole.length - 2) ? 1 : t };
}

/** Crossings of the line with contours, along the line, one for each place. */
function crossingsOf(rings: readonly (readonly Curve[])[], line: Curve): Crossing[] {
  const length = Math.hypot(line[2]! - line[0]!, line[3]! - line[1]!);
  const found = rings.flatMap((curves, r) =>
    curves.flatMap((curve, k) =>
      crossings(curve, line).map(({ t, u }) => ({ along: u, spot: spotOn(curves, r, k, t) })),
    ),
  );
  found.sort((a, b) => a.along - b.along);
  return found.filter((c, i) => i === 0 || (c.along - found[i - 1]!.along) * length > SAME);
}

const isSameSpot = (a: Spot, b: Spot): boolean => a.contour === b.contour && a.curve === b.curve && a.t === b.t;

/** The places where the line enters ink and leaves it again; a corner that is only grazed is none. */
function pairsIn(group: readonly Contour[], line: Curve): (readonly [Spot, Spot])[] {
  const rings = group.map((c) => curvesOf(c));
  const all = rings.flat();
  const met = crossingsOf(rings, line);
  // Ink on both sides of the line: along an edge there is nothing to cut.
  const length = Math.hypot(line[2]! - line[0]!, line[3]! - line[1]!) || 1;
  const [aside, up] = [((line[3]! - line[1]!) / length) * SAME, ((line[0]! - line[2]!) / length) * SAME];
  const inked = (along: number) => {
    const [x, y] = pointAt(line, along);
    return windingAt(all, x + aside, y + up) !== 0 && windingAt(all, x - aside, y - up) !== 0;
  };
  const sides = [0, ...met.map((c) => c.along), 1];
  const between = sides.slice(1).map((v, i) => inked((v + sides[i]!) / 2));
  // Only where ink begins or ends; the first such place must be one where it begins.
  const edges = met.filter((_, i) => between[i] !== between[i + 1]);
  if (between[0]) edges.shift();
  return Array.from(
    { length: Math.floor(edges.length / 2) },
    (_, i) => [edges[2 * i]!.spot, edges[2 * i + 1]!.spot] as const,
  ).filter(([a, b]) => !isSameSpot(a, b) && !isAlongOne(rings, a, b));
}

/** Does the way from one spot to the other hardly leave the outline between them, so that only a sliver would come off? */
function isAlongOne(rings: readonly (readonly Curve[])[], a: Spot, b: Spot): boolean {
  if (a.contour !== b.contour) return false;
  const curves = rings[a.contour]!;
  const n = curves.length;
  const next = (s: Spot) => (s.t === 1 ? { curve: (s.curve + 1) % n, t: 0 } : { curve: s.curve, t: s.t });
  const stretch = (from: Spot, to: Spot): Curve | undefined => {
    const begin = next(from);
    return begin.curve === to.curve && begin.t < to.t ? partOf(curves[to.curve]!, begin.t, to.t) : undefined;
  };
  const one = stretch(a, b) ?? stretch(b, a);
  if (!one) return false;
  return isThin(contourFromCurves([one, [...endOf(one), one[0]!, one[1]!]], true));
}

function cutShape(group: readonly Contour[], pairs: readonly (readonly [Spot, Spot])[]): Contour[] {
  const rings = group.map((c) => ring(curvesOf(c)));
  const links = rings.flat();
  const joints = split(pairs.flat(), rings, links);
  for (const [a, b] of pairs) {
    const [p, q] = [joints.get(a)!, joints.get(b)!];
    const [leaveP, leaveQ] = [p.next, q.next];
    const [x0, y0] = endOf(p.curve);
    const [x1, y1] = endOf(q.curve);
    p.next = { curve: [x0, y0, x1, y1], next: leaveQ };
    q.next = { curve: [x1, y1, x0, y0], next: leaveP };
    links.push(p.next, q.next);
  }
  const untouched = new Set(group.filter((_, i) => !pairs.flat().some((s) => s.contour === i)));
  return loops(links, rings, group, untouched);
}

/** Splits links where they are cut; gives for each spot the link that ends there. New links join `links`. */
function split(spots: readonly Spot[], rings: readonly (readonly Link[])[], links: Link[]): Map<Spot, Link> {
  const ends = new Map<Spot, Link>();
  const byLink = new Map<Link, Spot[]>();
  for (const s of spots) {
    const link = rings[s.contour]![s.curve]!;
    addTo(byLink, link, s);
  }
  for (const [link, list] of byLink) {
    const whole = link.curve;
    let last = 0;
    let at = link;
    for (const s of list.sort((a, b) => a.t - b.t)) {
      if (s.t < 1 && s.t > last) {
        const rest: Link = { curve: partOf(whole, s.t, 1), next: at.next };
        at.curve = partOf(whole, last, s.t);
        at.next = rest;
        links.push(rest);
        ends.set(s, at);
        at = rest;
        last = s.t;
      } else ends.set(s, at);
    }
    if (last > 0) at.curve = partOf(whole, last, 1);
  }
  return ends;
}

/** The rings that links make now; those of contours that were not touched are the contours themselves. */
function loops(
  links: readonly Link[],
  rings: readonly (readonly Link[])[],
  group: readonly Contour[],
  untouched: ReadonlySet<Contour>,
): Contour[] {
  const seen = new Set<Link>();
  const out: Contour[] = [];
  for (const first of links) {
    if (seen.has(first)) continue;
    const own = rings.findIndex((r) => r[0] === first);
    const curves: Curve[] = [];
    for (let link = first; !seen.has(link); link = link.next) {
      seen.add(link);
      curves.push(link.curve);
    }
    if (own >= 0 && untouched.has(group[own]!)) out.push(group[own]!);
    else out.push(withSmoothPoints(contourFromCurves(curves, true)));
  }
  return out.filter((c) => group.includes(c) || (c.points.length > 1 && !isEmpty(c) && !isThin(c)));
}

/** As thin as a sliver: its area is no more than its length by a hair. */
function isThin(c: Contour): boolean {
  const round = curvesOf(c).reduce((sum, curve) => sum + lengthOf(curve), 0);
  return Math.abs(signedArea(c)) < (round / 2) * THIN;
}

function isEmpty(c: Contour): boolean {
  const box = contourBounds(c);
  return box.xMax - box.xMin < SAME && box.yMax - box.yMin < SAME;
}

/** Where the line crosses an open contour, its two ends left out. */
function openSpots(contour: Contour, line: Curve): Spot[] {
  const curves = curvesOf(contour);
  const last = curves.length - 1;
  return curves.flatMap((curve, k) =>
    crossings(curve, line)
      .map((c) => c.t)
      .sort((a, b) => a - b)
      .filter((t) => (k > 0 || t > 1e-6) && (k < last || t < 1 - 1e-6) && t > 1e-9)
      .map((t) => {
        const [x, y] = pointAt(curve, t);
        const [ex, ey] = endOf(curve);
        return { contour: 0, curve: k, t: k < last && Math.hypot(ex - x, ey - y) < CATCH ? 1 : t };
      }),
  );
}

function cutOpen(contour: Contour, spots: readonly Spot[]): Contour[] {
  const pieces: Curve[][] = [[]];
  curvesOf(contour).forEach((curve, k) => {
    let last = 0;
    for (const { t } of spots.filter((s) => s.curve === k)) {
      pieces[pieces.length - 1]!.push(partOf(curve, last, t));
      pieces.push([]);
      last = t;
    }
    if (last < 1) pieces[pieces.length - 1]!.push(partOf(curve, last, 1));
  });
  return pieces.filter((p) => p.length > 0).map((p) => withSmoothPoints(contourFromCurves(p, false)));
}
