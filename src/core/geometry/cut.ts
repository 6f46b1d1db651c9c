import { type Contour, contourBounds, contourFromCurves, curvesOf } from './contour';
import { type Curve, partOf, pointAt, type Vec } from './curve';
import { crossings } from './intersect';
import { withSmoothPoints } from './smooth';
import { nestingDepths, windingAt } from './winding';

/** Places nearer than this to each other, in font units, are one. */
const SAME = 0.01;

/** One curve in a ring of curves. */
type Link = { curve: Curve; next: Link };

/** Where the cut crosses an outline: how far along the cut, on which link, and where on it. */
type Crossing = { along: number; link: Link; t: number };

/**
 * Cuts outlines along a straight line from one place to another. Wherever the line passes through ink from edge to edge,
 * the shape comes apart there (or opens into its counter) and each side is closed by a straight edge; an end of the line
 * within ink cuts nothing. Shapes lying on each other are cut each by itself. Open contours come apart where the line
 * crosses them. `places` tells how many cuts were made; contours that are not cut keep their identity.
 */
export function cutAlong(contours: readonly Contour[], from: Vec, to: Vec): { contours: Contour[]; places: number } {
  const line: Curve = [from[0], from[1], to[0], to[1]];
  const out: Contour[] = [];
  let places = 0;
  for (const group of shapesOf(contours)) {
    const cut = group[0]!.closed ? cutShape(group, line) : cutOpen(group[0]!, line);
    places += cut?.places ?? 0;
    out.push(...(cut?.contours ?? group));
  }
  return { contours: out, places };
}

/** Outer contours each with the counters right inside it; open contours each by itself. In the order of the first of each. */
function shapesOf(contours: readonly Contour[]): Contour[][] {
  const depths = nestingDepths(contours);
  const groups = new Map<number, Contour[]>();
  const isOuter = (i: number) => !contours[i]!.closed || depths[i]! % 2 === 0;
  contours.forEach((c, i) => {
    if (isOuter(i)) groups.set(i, [c]);
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
    if (parents[0] === undefined) groups.set(i, [c]);
    else groups.get(parents[0])!.push(c);
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

/** Crossings of the line with links, along the line, one for each place. */
function crossingsOf(links: readonly Link[], line: Curve): Crossing[] {
  const length = Math.hypot(line[2]! - line[0]!, line[3]! - line[1]!);
  const found = links.flatMap((link) => crossings(link.curve, line).map((c) => ({ along: c.u, link, t: c.t })));
  found.sort((a, b) => a.along - b.along);
  return found.filter((c, i) => i === 0 || (c.along - found[i - 1]!.along) * length > SAME);
}

function cutShape(group: readonly Contour[], line: Curve): { contours: Contour[]; places: number } | undefined {
  const rings = group.map((c) => ring(curvesOf(c)));
  const all = group.flatMap((c) => [...curvesOf(c)]);
  const links = rings.flat();
  const met = crossingsOf(links, line);
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
  const pairs = Array.from(
    { length: Math.floor(edges.length / 2) },
    (_, i) => [edges[2 * i]!, edges[2 * i + 1]!] as const,
  );
  if (pairs.length === 0) return undefined;
  const joints = split(pairs.flat(), links);
  for (const [a, b] of pairs) {
    const [p, q] = [joints.get(a)!, joints.get(b)!];
    const [leaveP, leaveQ] = [p.next, q.next];
    const [x0, y0] = endPlace(p);
    const [x1, y1] = endPlace(q);
    p.next = { curve: [x0, y0, x1, y1], next: leaveQ };
    q.next = { curve: [x1, y1, x0, y0], next: leaveP };
    links.push(p.next, q.next);
  }
  const untouched = new Set(group.filter((_, i) => !pairs.flat().some((c) => rings[i]!.includes(c.link))));
  return { contours: loops(links, rings, group, untouched), places: pairs.length };
}

const endPlace = (link: Link): Vec => [link.curve[link.curve.length - 2]!, link.curve[link.curve.length - 1]!];

/** Splits links where they are crossed; gives for each crossing the link that ends there. New links join `links`. */
function split(met: readonly Crossing[], links: Link[]): Map<Crossing, Link> {
  const ends = new Map<Crossing, Link>();
  const byLink = new Map<Link, Crossing[]>();
  for (const c of met) byLink.set(c.link, [...(byLink.get(c.link) ?? []), c]);
  for (const [link, list] of byLink) {
    const whole = link.curve;
    let last = 0;
    let at = link;
    for (const c of list.sort((a, b) => a.t - b.t)) {
      const [x, y] = pointAt(whole, c.t);
      const near = (i: number) => Math.hypot(whole[i]! - x, whole[i + 1]! - y) < SAME;
      if (near(0) && last === 0) ends.set(c, before(links, link));
      else if (near(whole.length - 2)) ends.set(c, at);
      else {
        const rest: Link = { curve: partOf(whole, c.t, 1), next: at.next };
        at.curve = partOf(whole, last, c.t);
        at.next = rest;
        links.push(rest);
        ends.set(c, at);
        at = rest;
        last = c.t;
      }
    }
    if (last > 0) at.curve = partOf(whole, last, 1);
  }
  return ends;
}

const before = (links: readonly Link[], link: Link): Link => links.find((l) => l.next === link)!;

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
  return out.filter((c) => c.points.length > 1 && !isEmpty(c));
}

function isEmpty(c: Contour): boolean {
  const box = contourBounds(c);
  return box.xMax - box.xMin < SAME && box.yMax - box.yMin < SAME;
}

function cutOpen(contour: Contour, line: Curve): { contours: Contour[]; places: number } | undefined {
  const curves = curvesOf(contour);
  const pieces: Curve[][] = [[]];
  let places = 0;
  for (const [i, curve] of curves.entries()) {
    let last = 0;
    const ts = crossings(curve, line)
      .map((c) => c.t)
      .sort((a, b) => a - b)
      .filter((t) => (i > 0 || t > 1e-6) && (i < curves.length - 1 || t < 1 - 1e-6) && t > 1e-9);
    for (const t of ts) {
      pieces[pieces.length - 1]!.push(partOf(curve, last, t));
      pieces.push([]);
      last = t;
      places++;
    }
    if (last < 1) pieces[pieces.length - 1]!.push(partOf(curve, last, 1));
  }
  if (places === 0) return undefined;
  return {
    contours: pieces.filter((p) => p.length > 0).map((p) => withSmoothPoints(contourFromCurves(p, false))),
    places,
  };
}
