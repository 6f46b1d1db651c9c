import type { Contour, Point } from '../src/core/geometry/contour';
import { type Draw, type Letter, sided, span } from './letter';
import type { Measure } from './style';

/**
 * A stroke of the Regular: its two edges, and how far it goes along where the style is heavier (1 fully; less for strokes
 * that must stay thinner, such as the bars of a and e). Lighter styles take their whole weight off.
 */
export type Stroke = readonly [from: number, to: number, share?: number];

/** How wide a stroke becomes at a weight. */
const weighed = ([from, to, share = 1]: Stroke, by: number): number =>
  (to - from) * (1 + (by - 1) * (by < 1 ? 1 : share));

export type Ruling = {
  advance: number;
  /** Upright strokes, by x; those at greater heights than `above` may differ. */
  x: readonly Stroke[];
  above?: { y: number; x: readonly Stroke[] };
  /** Level strokes, by y. */
  y?: readonly Stroke[];
};

type Node = readonly [from: number, to: number];

/**
 * A letter of the Regular, made for other weights and widths by a ruler: strokes take the style's weight, counters its
 * width, heights its lines. Handles keep their share of the way, so that curves stay as full as they were drawn; where
 * a curve runs on smoothly at a slant, both its handles keep one direction and one proportion, so nothing between two
 * masters can kink.
 */
export function ruled(rule: Ruling, contours: readonly Contour[]): Draw {
  const [left, right] = span(contours, 'x');
  return (m: Measure): Letter => {
    const low = across(rule.x, left, right, m);
    const high = rule.above ? across(rule.above.x, left, right, m) : low;
    const along = upward(rule.y ?? [], contours, m);
    const place = (p: Point): [number, number] => [
      at(rule.above && p.y > rule.above.y ? high : low, p.x),
      at(along, p.y),
    ];
    return sided(
      m,
      contours.map((c) => redrawn(c, place, m)),
      left,
      rule.advance - right,
    );
  };
}

/** Positions across: strokes by their weight, all between them by the counters' width. */
function across(strokes: readonly Stroke[], left: number, right: number, m: Measure): Node[] {
  const nodes: Node[] = [[left, 0]];
  let x = left;
  let to = 0;
  for (const stroke of strokes) {
    const [a, b] = stroke;
    to += (a - x) * m.gapBy;
    nodes.push([a, to]);
    to += weighed(stroke, m.stemBy);
    nodes.push([b, to]);
    x = b;
  }
  nodes.push([right, to + (right - x) * m.gapBy]);
  return nodes;
}

const LINES = [-11, 0, 520, 531, 690, 700, 701, 711, 742];

/** Positions upward: the style's lines hold; strokes grow inward from them, and counters share what is left. */
function upward(strokes: readonly Stroke[], contours: readonly Contour[], m: Measure): Node[] {
  const ys = new Set(contours.flatMap((c) => c.points.filter((p) => p.type !== 'off').map((p) => p.y)));
  const [bottom, top] = span(contours, 'y');
  const held = [...new Set([bottom, ...LINES.filter((y) => ys.has(y)), top])].sort((a, b) => a - b);
  const within = (y: number) => strokes.some(([a, b]) => y > a && y < b);
  const stops = held.filter((y) => !within(y));
  const nodes: Node[] = [];
  for (let i = 0; i + 1 < stops.length; i++) {
    const from = stops[i]!;
    const to = stops[i + 1]!;
    const inside = strokes.filter(([a, b]) => a >= from && b <= to);
    const drawn = inside.reduce((sum, [a, b]) => sum + b - a, 0);
    const room = m.line(to) - m.line(from) - inside.reduce((sum, s) => sum + weighed(s, m.levelBy), 0);
    const gap = to - from - drawn > 0 ? room / (to - from - drawn) : 0;
    let y = from;
    let at = m.line(from);
    nodes.push([y, at]);
    for (const s of inside) {
      at += (s[0] - y) * gap;
      nodes.push([s[0], at]);
      at += weighed(s, m.levelBy);
      nodes.push([s[1], at]);
      y = s[1];
    }
  }
  nodes.push([stops[stops.length - 1]!, m.line(stops[stops.length - 1]!)]);
  for (const y of held) if (within(y)) nodes.push([y, m.line(y)]);
  return nodes.sort((a, b) => a[0] - b[0] || a[1] - b[1]);
}

/** Piecewise linear. */
function at(nodes: readonly Node[], v: number): number {
  let i = 1;
  while (i < nodes.length - 1 && nodes[i]![0] < v) i++;
  const [a, ta] = nodes[i - 1]!;
  const [b, tb] = nodes[i]!;
  return b === a ? ta : ta + ((v - a) / (b - a)) * (tb - ta);
}

type Vec = [number, number];

/** A contour with its on-curve points placed anew and every handle at its share of the way between them. */
function redrawn(contour: Contour, place: (p: Point) => Vec, m: Measure): Contour {
  const { points } = contour;
  const n = points.length;
  const on = points.map((p) => (p.type === 'off' ? undefined : place(p)));
  const out: Vec[] = points.map((_, i) => on[i] ?? [0, 0]);
  const atIndex = (i: number) => points[(i + n) % n]!;
  for (let i = 0; i < n; i++) {
    if (points[i]!.type !== 'curve') continue;
    const from = atIndex(i - 3);
    const to = points[i]!;
    const [fx, fy] = on[(i - 3 + n) % n]!;
    const [tx, ty] = on[i]!;
    for (const back of [2, 1]) {
      const handle = atIndex(i - back);
      const [base, other, near, far] = back === 2 ? [from, to, [fx, fy], [tx, ty]] : [to, from, [tx, ty], [fx, fy]];
      out[(i - back + n) % n] = [
        share(handle.x - base.x, other.x - base.x, near[0]!, far[0]!),
        share(handle.y - base.y, other.y - base.y, near[1]!, far[1]!),
      ];
      // Upright handles of narrow styles reach further.
      if (handle.x === base.x) {
        const reach = out[(i - back + n) % n]!;
        reach[1] += (far[1]! - reach[1]) * m.square * 0.5;
      }
    }
  }
  points.forEach((p, i) => {
    if (p.smooth) straighten(points, out, i);
  });
  return { ...contour, points: points.map((p, i) => ({ ...p, x: Math.round(out[i]![0]), y: Math.round(out[i]![1]) })) };
}

/** A handle's place along one axis: its share of the way to the other end, or its plain distance where there is no way. */
function share(reach: number, way: number, near: number, far: number): number {
  const within = way !== 0 && reach / way >= 0 && reach / way <= 1;
  return Math.abs(way) < 8 && !within ? near + reach : near + (reach / way) * (far - near);
}

/** Brings both sides of a smooth slanted point into one line, at the proportion the Regular has. */
function straighten(points: readonly Point[], out: Vec[], i: number): void {
  const n = points.length;
  const before = (i - 1 + n) % n;
  const after = (i + 1) % n;
  const p = points[i]!;
  const drawnIn = Math.hypot(p.x - points[before]!.x, p.y - points[before]!.y);
  const drawnOut = Math.hypot(points[after]!.x - p.x, points[after]!.y - p.y);
  if ([points[before]!, points[after]!].some((q) => q.type === 'off' && (q.x === p.x || q.y === p.y))) return;
  const [x, y] = out[i]!;
  const into: Vec = [x - out[before]![0], y - out[before]![1]];
  const onward: Vec = [out[after]![0] - x, out[after]![1] - y];
  const lineIn = points[before]!.type !== 'off';
  const lineOut = points[after]!.type !== 'off';
  const lengthIn = Math.hypot(...into);
  const lengthOut = Math.hypot(...onward);
  const direction: Vec = lineIn
    ? into
    : lineOut
      ? onward
      : [into[0] / lengthIn + onward[0] / lengthOut, into[1] / lengthIn + onward[1] / lengthOut];
  const unit = Math.hypot(...direction);
  // A straight side is as long as it is; its handle follows in proportion. Two handles share their length anew.
  const ratio = drawnOut / drawnIn;
  const newIn = lineIn ? lengthIn : lineOut ? lengthOut / ratio : (lengthIn + lengthOut) / (1 + ratio);
  const newOut = lineOut ? lengthOut : newIn * ratio;
  if (!lineIn) out[before] = [x - (direction[0] / unit) * newIn, y - (direction[1] / unit) * newIn];
  if (!lineOut) out[after] = [x + (direction[0] / unit) * newOut, y + (direction[1] / unit) * newOut];
}
