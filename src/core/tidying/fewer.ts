import { type Contour, isOnCurve, type Point, segmentsOf } from '../geometry/contour';
import { type Box, boundsOf, type Curve, nearestOn } from '../geometry/curve';
import { deletePoints } from '../geometry/deletePoints';
import { tidy } from '../geometry/tidy';
import { distanceTo } from './deviation';
import type { Siblings } from './siblings';

/** Places of a curve at which its distance is measured. */
const SAMPLES = 8;
/** How many points on each side of one that went are looked at anew. */
const AROUND = 4;

/**
 * Takes points away as long as the shape stays within `distance` units of what it was, the least missed first. Corners,
 * points at extremes and the ends of open contours stay. In siblings a point goes from all or from none. Each point is
 * weighed by what lies right around it, and anew only when that changes: the work grows with the points.
 */
export function withFewerPoints(contours: Siblings, distance: number): Contour[] {
  const chains = contours.map((c) => new Chain(c));
  // Undefined for points that may not go, whatever would come of it.
  const known = new Map<number, Weighed | 'stays' | undefined>();
  let removed = false;
  const weigh = (i: number) => {
    const may = chains.every((c) => c.canLose(i) && c.spare(i, distance));
    known.set(i, may ? weighed(chains, i, distance) : undefined);
  };
  for (const i of chains[0]!.indices()) weigh(i);
  for (;;) {
    let best: [number, Weighed] | undefined;
    for (const [i, found] of known)
      if (found && found !== 'stays' && (!best || found.off < best[1].off)) best = [i, found];
    if (!best) return removed ? chains.map((chain) => chain.contour()) : [...contours];
    const [gone, { stretches }] = best;
    removed = true;
    known.delete(gone);
    const beside = chains[0]!.around(gone, 1);
    const near = chains[0]!.around(gone, AROUND);
    chains.forEach((chain, k) => {
      chain.remove(gone, stretches[k]!);
    });
    // What a point's going would come to changes for its two neighbours; whether it may go, a little further.
    for (const i of near) {
      if (i === gone) continue;
      if (beside.includes(i)) weigh(i);
      else if (!chains.every((c) => c.canLose(i) && c.spare(i, distance))) known.set(i, undefined);
      else if (known.get(i) === undefined) weigh(i);
    }
  }
}

/** What a point's going would come to: the new stretch in each sibling, and how far it lies from what was there. */
type Weighed = { stretches: Contour[]; off: number };

/** 'stays' where the shape would miss too much. */
function weighed(chains: readonly Chain[], index: number, distance: number): Weighed | 'stays' {
  const stretches: Contour[] = [];
  const limits = { enough: distance, samples: SAMPLES };
  let off = 0;
  for (const chain of chains) {
    const before = chain.stretch(index);
    const middle = before.points.findIndex((p, i) => i > 0 && isOnCurve(p));
    const without = deletePoints(before, new Set([middle]));
    if (!without) return 'stays';
    const made = curvesIn(without);
    // The point itself is missed most, as a rule.
    const { x, y } = before.points[middle]!;
    if (Math.min(...made.map((c) => nearestOn(c, x, y).distance)) > distance) return 'stays';
    off = Math.max(off, distanceTo(curvesIn(before), made, limits));
    if (off > distance) return 'stays';
    off = Math.max(off, distanceTo(made, chain.originalsNear(made, distance), limits));
    if (off > distance) return 'stays';
    stretches.push(without);
  }
  return { stretches, off };
}

const curvesIn = (c: Contour): Curve[] => segmentsOf(c).flatMap((s) => [...s.curves]);

/** A point on the outline with the handles that lead to it. */
type Link = { point: Point; offs: readonly Point[]; before: number; after: number };

/** A contour as a chain of its on-curve points, from which points go without the others being counted anew. */
class Chain {
  private readonly links: (Link | undefined)[];
  private readonly originals: readonly { curve: Curve; box: Box }[];
  private left: number;

  constructor(private readonly source: Contour) {
    const { points, closed } = source;
    const first = points.findIndex((p) => isOnCurve(p));
    const turned = first < 0 ? [] : closed ? [...points.slice(first), ...points.slice(0, first)] : points;
    const links: Link[] = [];
    let offs: Point[] = [];
    for (const p of turned) {
      if (!isOnCurve(p)) offs.push(p);
      else {
        links.push({ point: p, offs, before: links.length - 1, after: links.length + 1 });
        offs = [];
      }
    }
    const last = links.length - 1;
    if (last >= 0) {
      links[last]!.after = closed ? 0 : -1;
      links[0] = { ...links[0]!, offs: closed ? offs : links[0]!.offs, before: closed ? last : -1 };
    }
    this.links = links;
    this.left = links.length;
    this.originals = curvesIn(source).map((curve) => ({ curve, box: boundsOf([curve]) }));
  }

  indices(): number[] {
    return this.links.map((_, i) => i);
  }

  /** What would be left must still be a contour. */
  canLose(index: number): boolean {
    const { before, after } = this.links[index]!;
    if (before < 0 || after < 0 || before === after) return false;
    if (this.left > 3) return true;
    return this.left > 2 && this.links.some((l) => l !== undefined && l.offs.length > 0);
  }

  /** From the point before to the point after, as an open contour. */
  stretch(index: number): Contour {
    const own = this.links[index]!;
    const after = this.links[own.after]!;
    const from: Point = { ...this.links[own.before]!.point, type: 'line' };
    return { closed: false, points: [from, ...own.offs, own.point, ...after.offs, after.point] };
  }

  remove(index: number, stretch: Contour): void {
    const { before, after } = this.links[index]!;
    const offs = stretch.points.slice(1, -1).map((p) => ({ ...p, x: tidy(p.x), y: tidy(p.y) }));
    const end = stretch.points[stretch.points.length - 1]!;
    this.links[before] = { ...this.links[before]!, after };
    this.links[after] = { ...this.links[after]!, offs, point: end, before };
    this.links[index] = undefined;
    this.left--;
  }

  around(index: number, many: number): number[] {
    const out: number[] = [];
    for (const way of ['before', 'after'] as const) {
      let at = index;
      for (let k = 0; k < many; k++) {
        at = this.links[at]?.[way] ?? -1;
        if (at < 0) break;
        out.push(at);
      }
    }
    return out;
  }

  contour(): Contour {
    const links = this.links.filter((l) => l !== undefined);
    const [first, ...rest] = links as [Link, ...Link[]];
    return {
      ...this.source,
      points: [first.point, ...rest.flatMap((l) => [...l.offs, l.point]), ...first.offs],
    };
  }

  /** Curves of the contour as it was that a change within a distance can lie on. */
  originalsNear(curves: readonly Curve[], distance: number): Curve[] {
    const b = boundsOf(curves);
    return this.originals
      .filter(
        ({ box }) =>
          box.xMin <= b.xMax + distance &&
          box.xMax >= b.xMin - distance &&
          box.yMin <= b.yMax + distance &&
          box.yMax >= b.yMin - distance,
      )
      .map(({ curve }) => curve);
  }

  /** Points in turn from one on, backwards or forwards, the handles among them. */
  private *walk(index: number, way: 'before' | 'after'): Generator<Point> {
    let at = index;
    for (;;) {
      const link = this.links[at]!;
      const next = link[way];
      if (next < 0) return;
      if (way === 'before') yield* [...link.offs].reverse();
      else yield* this.links[next]!.offs;
      yield this.links[next]!.point;
      at = next;
    }
  }

  /** May a point go at all? Smooth points between curves, not at an extreme; points in line between two straight sides. */
  spare(index: number, distance: number): boolean {
    const p = this.links[index]!.point;
    const a = this.walk(index, 'before').next().value as Point | undefined;
    const b = this.walk(index, 'after').next().value as Point | undefined;
    if (!a || !b) return false;
    if (isOnCurve(a) && isOnCurve(b)) {
      const length = Math.hypot(b.x - a.x, b.y - a.y);
      const along = (p.x - a.x) * (b.x - a.x) + (p.y - a.y) * (b.y - a.y);
      const off =
        length === 0
          ? Math.hypot(p.x - a.x, p.y - a.y)
          : Math.abs((p.x - a.x) * (b.y - a.y) - (p.y - a.y) * (b.x - a.x)) / length;
      return off <= distance && along >= 0 && along <= length * length;
    }
    if (isOnCurve(a) || isOnCurve(b) || p.type === 'qcurve') return false;
    const [ax, ay, bx, by] = [p.x - a.x, p.y - a.y, b.x - p.x, b.y - p.y];
    const turn = Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by));
    // Where the outline runs level or upright through a point that its neighbours do not pass, it has an extreme.
    const extreme = (Math.abs(ay) < 0.01 && Math.abs(by) < 0.01) || (Math.abs(ax) < 0.01 && Math.abs(bx) < 0.01);
    return turn < 0.1 && !(extreme && this.isTurning(index));
  }

  /** Does the outline turn back at a point in x or in y? */
  private isTurning(index: number): boolean {
    const p = this.links[index]!.point;
    const near = (['before', 'after'] as const).map((way) => {
      let steps = 0;
      for (const q of this.walk(index, way)) {
        if (Math.abs(q.x - p.x) > 0.01 && Math.abs(q.y - p.y) > 0.01) return q;
        if (++steps === AROUND) break;
      }
      return p;
    }) as [Point, Point];
    return (near[0].x - p.x) * (near[1].x - p.x) > 0 || (near[0].y - p.y) * (near[1].y - p.y) > 0;
  }
}
