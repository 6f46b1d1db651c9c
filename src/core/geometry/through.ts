import { type Contour, contourFromCurves } from './contour';
import type { Curve } from './curve';

/** A place that a curve goes through. A corner parts the curve; `direction` is the angle of travel there, where it is given. */
export type Dot = { readonly x: number; readonly y: number; readonly corner: boolean };
type Knot = Dot & { direction?: number | undefined };

/** Directions nearer than this to level or upright, in radians, at a dot beyond both its neighbours, are made so. */
const NEARLY = (22 * Math.PI) / 180;

/**
 * A smooth curve through dots, plain cubics: at every dot that is no corner the directions are chosen so that curvature is as
 * even as can be (Hobby, "Smooth, easy to compute interpolating splines", 1986, with tension and curl 1). Dots that lie beyond
 * both their neighbours become extremes: the curve runs level or upright through them. Two corners in a row are joined by a line.
 */
export function curveThrough(dots: readonly Dot[], closed: boolean): Contour {
  const places = dots.filter((d, i) => i === 0 || d.x !== dots[i - 1]!.x || d.y !== dots[i - 1]!.y);
  const first = places[0];
  const last = places[places.length - 1];
  if (closed && places.length > 1 && first && last && first.x === last.x && first.y === last.y) places.pop();
  if (places.length < 2) return { closed: false, points: first ? [{ x: first.x, y: first.y, type: 'line' }] : [] };
  const free = curvesFor(places, closed);
  const directed = withExtremes(places, free.directions, closed);
  const { curves } = directed.some((k) => k.direction !== undefined) ? curvesFor(directed, closed) : free;
  const contour = contourFromCurves(curves, closed);
  const smooth = new Set(
    places.filter((d, i) => !d.corner && (closed || (i > 0 && i < places.length - 1))).map((d) => `${d.x} ${d.y}`),
  );
  return {
    ...contour,
    points: contour.points.map((p) => (p.type !== 'off' && smooth.has(`${p.x} ${p.y}`) ? { ...p, smooth: true } : p)),
  };
}

function withExtremes(knots: readonly Knot[], directions: readonly number[], closed: boolean): Knot[] {
  const n = knots.length;
  return knots.map((k, i) => {
    if (k.corner || (!closed && (i === 0 || i === n - 1))) return k;
    const [a, b] = [knots[(i - 1 + n) % n]!, knots[(i + 1) % n]!];
    const angle = directions[i]!;
    const away = (to: number) => Math.abs(Math.atan2(Math.sin(angle - to), Math.cos(angle - to)));
    const beyond = (axis: 'x' | 'y') => (k[axis] - a[axis]) * (k[axis] - b[axis]) > 0;
    for (const quarter of [0, 1, 2, 3]) {
      const to = (quarter * Math.PI) / 2;
      if (away(to) < NEARLY && beyond(quarter % 2 === 0 ? 'y' : 'x')) return { ...k, direction: to };
    }
    return k;
  });
}

/** Curves between knots, and the direction of travel at every knot. */
function curvesFor(knots: readonly Knot[], closed: boolean): { curves: Curve[]; directions: number[] } {
  const n = knots.length;
  const isBreak = (k: Knot, i: number) =>
    k.corner || k.direction !== undefined || (!closed && (i === 0 || i === n - 1));
  const breaks = knots.flatMap((k, i) => (isBreak(k, i) ? [i] : []));
  const directions = new Array<number>(n).fill(0);
  if (breaks.length === 0) {
    const curves = solved(knots, true, directions);
    return { curves, directions };
  }
  const curves: Curve[] = [];
  const count = closed ? breaks.length : breaks.length - 1;
  for (let b = 0; b < count; b++) {
    const from = breaks[b]!;
    const to = breaks[(b + 1) % breaks.length]!;
    const length = (to - from + n) % n || n;
    const run = Array.from({ length: length + 1 }, (_, k) => knots[(from + k) % n]!);
    const own = new Array<number>(run.length).fill(0);
    curves.push(...solved(run, false, own));
    own.forEach((v, k) => {
      directions[(from + k) % n] = v;
    });
  }
  // The curves of a closed shape begin at its first knot.
  const turn = closed ? (n - breaks[0]!) % n : 0;
  return { curves: [...curves.slice(turn), ...curves.slice(0, turn)], directions };
}

/** Solves the angles of one run of knots and makes its curves. */
function solved(knots: readonly Knot[], round: boolean, directions: number[]): Curve[] {
  const n = knots.length;
  const segments = round ? n : n - 1;
  const at = (i: number) => knots[((i % n) + n) % n]!;
  const long = Array.from({ length: segments }, (_, i) => Math.hypot(at(i + 1).x - at(i).x, at(i + 1).y - at(i).y));
  const chord = Array.from({ length: segments }, (_, i) => Math.atan2(at(i + 1).y - at(i).y, at(i + 1).x - at(i).x));
  const turn = (i: number) => {
    if (!round && (i <= 0 || i >= n - 1)) return 0;
    const d = chord[i % segments]! - chord[(i - 1 + segments) % segments]!;
    return Math.atan2(Math.sin(d), Math.cos(d));
  };
  if (!round && n === 2 && at(0).corner && at(1).corner) {
    directions[0] = chord[0]!;
    directions[1] = chord[0]!;
    return [[at(0).x, at(0).y, at(1).x, at(1).y]];
  }
  const rows: number[][] = [];
  for (let k = 0; k < n; k++) {
    const row = new Array<number>(n + 1).fill(0);
    if (!round && k === 0) {
      if (at(0).direction !== undefined) {
        row[0] = 1;
        row[n] = difference(at(0).direction!, chord[0]!);
      } else {
        row[0] = 1;
        row[1] = 1;
        row[n] = -turn(1);
      }
    } else if (!round && k === n - 1) {
      if (at(k).direction !== undefined) {
        row[k] = 1;
        row[n] = difference(at(k).direction!, chord[segments - 1]!);
      } else {
        row[k - 1] = 1;
        row[k] = 1;
      }
    } else {
      const [before, after] = [long[(k - 1 + segments) % segments]!, long[k % segments]!];
      row[(k - 1 + n) % n]! += 1 / before;
      row[k]! += 2 / before + 2 / after;
      row[(k + 1) % n]! += 1 / after;
      row[n] = (-2 * turn(k)) / before - turn(round ? (k + 1) % n : k + 1) / after;
    }
    rows.push(row);
  }
  const theta = eliminated(rows);
  return Array.from({ length: segments }, (_, k) => {
    const out = theta[k]!;
    const next = (k + 1) % n;
    // At the end of a run the angle was measured against the last chord itself.
    const into = !round && k === segments - 1 ? -theta[n - 1]! : -turn(round ? next : k + 1) - theta[next]!;
    const [a, b] = [at(k), at(k + 1)];
    const leave = chord[k]! + out;
    const arrive = chord[k]! - into;
    directions[k] = leave;
    if (!round && k === segments - 1) directions[n - 1] = arrive;
    const [u, v] = [(reach(out, into) * long[k]!) / 3, (reach(into, out) * long[k]!) / 3];
    return [
      a.x,
      a.y,
      a.x + Math.cos(leave) * u,
      a.y + Math.sin(leave) * u,
      b.x - Math.cos(arrive) * v,
      b.y - Math.sin(arrive) * v,
      b.x,
      b.y,
    ];
  });
}

const difference = (a: number, b: number): number => Math.atan2(Math.sin(a - b), Math.cos(a - b));

/** How long a handle is, as a share of a third of the chord, by the angles at both ends. */
function reach(theta: number, phi: number): number {
  const { sin, cos, sqrt } = Math;
  const top = 2 + sqrt(2) * (sin(theta) - sin(phi) / 16) * (sin(phi) - sin(theta) / 16) * (cos(theta) - cos(phi));
  const bottom = 1 + 0.5 * (sqrt(5) - 1) * cos(theta) + 0.5 * (3 - sqrt(5)) * cos(phi);
  return Math.min(4, Math.max(0.1, top / Math.max(0.2, bottom)));
}

/** The solution of a small linear system given as rows with the right side last (Gauss, the greatest pivot first). */
function eliminated(rows: number[][]): number[] {
  const n = rows.length;
  for (let c = 0; c < n; c++) {
    let best = c;
    for (let r = c + 1; r < n; r++) if (Math.abs(rows[r]![c]!) > Math.abs(rows[best]![c]!)) best = r;
    [rows[c], rows[best]] = [rows[best]!, rows[c]!];
    const pivot = rows[c]![c]!;
    if (Math.abs(pivot) < 1e-12) continue;
    for (let r = 0; r < n; r++) {
      if (r === c) continue;
      const share = rows[r]![c]! / pivot;
      if (share === 0) continue;
      for (let k = c; k <= n; k++) rows[r]![k]! -= share * rows[c]![k]!;
    }
  }
  return rows.map((row, i) => (Math.abs(row[i]!) < 1e-12 ? 0 : row[n]! / row[i]!));
}
