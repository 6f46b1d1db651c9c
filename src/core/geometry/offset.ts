import { type Curve, directionAt, partOf, pointAt, splitAt, type Vec } from './curve';
import { farthestFrom, fitCubic } from './fit';

/** Greatest distance between the true parallel and what is given for it, in font units. */
export const OFFSET_TOLERANCE = 0.2;
const SAMPLES = 16;
const DEEPEST = 6;
/** A turn between samples that asks for more of them, in radians; and how deep they are sought. */
const SHARP = 0.5;
const DEEPEST_TURN = 16;

/** The unit normal to the left of travel. */
export function leftNormal(c: Curve, t: number): Vec {
  const [dx, dy] = directionAt(c, t);
  const length = Math.hypot(dx, dy) || 1;
  return [-dy / length, dx / length];
}

/** Curvature at a place, positive where the curve bends to the left; 0 where the curve stands still. */
export function curvatureAt(c: Curve, t: number): number {
  if (c.length === 4) return 0;
  const s = 1 - t;
  const ax = c[2]! - c[0]!;
  const ay = c[3]! - c[1]!;
  const bx = c[4]! - c[2]!;
  const by = c[5]! - c[3]!;
  if (c.length === 6) {
    const dx = s * ax + t * bx;
    const dy = s * ay + t * by;
    return bend(2 * dx, 2 * dy, 2 * (bx - ax), 2 * (by - ay));
  }
  const gx = c[6]! - c[4]!;
  const gy = c[7]! - c[5]!;
  const dx = s * s * ax + 2 * s * t * bx + t * t * gx;
  const dy = s * s * ay + 2 * s * t * by + t * t * gy;
  return bend(3 * dx, 3 * dy, 6 * (s * (bx - ax) + t * (gx - bx)), 6 * (s * (by - ay) + t * (gy - by)));
}

/** Curvature of first and second derivatives. */
function bend(dx: number, dy: number, ex: number, ey: number): number {
  const squared = dx * dx + dy * dy;
  return squared < 1e-18 ? 0 : (dx * ey - dy * ex) / (squared * Math.sqrt(squared));
}

/**
 * The parallel of a curve at a distance to its left (negative: to its right), as cubics within {@link OFFSET_TOLERANCE}. Where
 * the curve bends tighter than the distance the parallel turns back; it is cut there, and the parts that run back do so too.
 * Method: true offset places fitted by least squares with the curve's own directions at the ends, halved until near enough
 * (Tiller and Hanson, "Offsets of two-dimensional profiles", 1984).
 */
export function parallel(c: Curve, distance: number): { curves: Curve[]; turnsBack: boolean } {
  if (c.length === 4) {
    const [nx, ny] = leftNormal(c, 0);
    return {
      curves: [[c[0]! + nx * distance, c[1]! + ny * distance, c[2]! + nx * distance, c[3]! + ny * distance]],
      turnsBack: false,
    };
  }
  const cuts = [0, ...cusps(c, distance), 1];
  let turnsBack = cuts.length > 2;
  const curves = cuts.slice(1).flatMap((to, i) => {
    const part = partOf(c, cuts[i]!, to);
    const sign = 1 - distance * curvatureAt(part, 0.5) < 0 ? -1 : 1;
    if (sign < 0) turnsBack = true;
    return fitted(part, distance, sign, 0);
  });
  return { curves, turnsBack };
}

/** A curve cut where its parallels at a distance, on either side, turn back or forwards again. */
export function cutAtTurns(c: Curve, distance: number): Curve[] {
  if (c.length === 4) return [c];
  const cuts = [0, ...[...cusps(c, distance), ...cusps(c, -distance)].sort((a, b) => a - b), 1];
  return cuts.slice(1).flatMap((to, i) => (to - cuts[i]! > 1e-6 ? [partOf(c, cuts[i]!, to)] : []));
}

/** Where the radius of curvature passes through the distance, rising. */
function cusps(c: Curve, distance: number): number[] {
  const value = (t: number) => 1 - distance * curvatureAt(c, t);
  const out: number[] = [];
  const steps = 48;
  let before = value(0);
  for (let k = 1; k <= steps; k++) {
    const here = value(k / steps);
    if (before < 0 !== here < 0) {
      let [a, b] = [(k - 1) / steps, k / steps];
      for (let i = 0; i < 40; i++) {
        const m = (a + b) / 2;
        if (value(m) < 0 === before < 0) a = m;
        else b = m;
      }
      const t = (a + b) / 2;
      if (t > 1e-4 && t < 1 - 1e-4) out.push(t);
    }
    before = here;
  }
  return out;
}

function fitted(c: Curve, distance: number, sign: 1 | -1, depth: number): Curve[] {
  const turn = sharpestTurn(c);
  if (Math.abs(turn) > SHARP && depth < DEEPEST_TURN) return halves(c, distance, sign, depth);
  // As good as a corner: the parallel goes round it.
  if (Math.abs(turn) > SHARP) return arc(pointAt(c, 0.5), offsetPoint(c, 0, distance), turn);
  const samples: Vec[] = Array.from({ length: SAMPLES + 1 }, (_, k) => offsetPoint(c, k / SAMPLES, distance));
  const [a, b] = [directionAt(c, 0), directionAt(c, 1)];
  const [first, last] = [samples[0]!, samples[SAMPLES]!];
  if (Math.hypot(last[0] - first[0], last[1] - first[1]) < 1e-6 && depth > 2) return [];
  const plain = scaledHandles(c, distance);
  if (plain && isNear(plain, c, distance)) return [plain];
  const curve = fitCubic(samples, [a[0] * sign, a[1] * sign], [-b[0] * sign, -b[1] * sign]);
  if (depth >= DEEPEST || isNear(curve, c, distance)) return [curve];
  return halves(c, distance, sign, depth);
}

/** The parallel of a cubic that bends gently: its handles as long as the parallel runs faster or slower than the curve at its ends. */
function scaledHandles(c: Curve, distance: number): Curve | undefined {
  const [k0, k1] = [1 - distance * curvatureAt(c, 0), 1 - distance * curvatureAt(c, 1)];
  if (c.length !== 8 || k0 <= 0 || k1 <= 0) return undefined;
  const [x0, y0] = offsetPoint(c, 0, distance);
  const [x3, y3] = offsetPoint(c, 1, distance);
  return [
    x0,
    y0,
    x0 + (c[2]! - c[0]!) * k0,
    y0 + (c[3]! - c[1]!) * k0,
    x3 + (c[4]! - c[6]!) * k1,
    y3 + (c[5]! - c[7]!) * k1,
    x3,
    y3,
  ];
}

function halves(c: Curve, distance: number, sign: 1 | -1, depth: number): Curve[] {
  const [left, right] = splitAt(c, 0.5);
  return [...fitted(left, distance, sign, depth + 1), ...fitted(right, distance, sign, depth + 1)];
}

/** The greatest turn of a curve from one sample to the next, in radians: more, and the parallel between them is not seen. */
function sharpestTurn(c: Curve): number {
  let most = 0;
  let [bx, by] = directionAt(c, 0);
  for (let k = 1; k <= SAMPLES; k++) {
    const [x, y] = directionAt(c, k / SAMPLES);
    const turn = Math.atan2(bx * y - by * x, bx * x + by * y);
    if (Math.abs(turn) > Math.abs(most)) most = turn;
    [bx, by] = [x, y];
  }
  return most;
}

/** Arcs about a centre from a place through an angle (radians), each of a right angle at most. */
export function arc([cx, cy]: Vec, [x0, y0]: Vec, angle: number): Curve[] {
  const parts = Math.max(1, Math.ceil(Math.abs(angle) / (Math.PI / 2) - 1e-9));
  const step = angle / parts;
  const reach = (4 / 3) * Math.tan(step / 4);
  const [c, s] = [Math.cos(step), Math.sin(step)];
  const out: Curve[] = [];
  let [dx, dy] = [x0 - cx, y0 - cy];
  for (let k = 0; k < parts; k++) {
    const [ex, ey] = [dx * c - dy * s, dx * s + dy * c];
    out.push([
      cx + dx,
      cy + dy,
      cx + dx - dy * reach,
      cy + dy + dx * reach,
      cx + ex + ey * reach,
      cy + ey - ex * reach,
      cx + ex,
      cy + ey,
    ]);
    [dx, dy] = [ex, ey];
  }
  return out;
}

const offsetPoint = (c: Curve, t: number, distance: number): Vec => {
  const [x, y] = pointAt(c, t);
  const [nx, ny] = leftNormal(c, t);
  return [x + nx * distance, y + ny * distance];
};

/** Does a curve keep to the true parallel, measured at places between the fitted ones? */
const isNear = (curve: Curve, c: Curve, distance: number): boolean =>
  farthestFrom(
    curve,
    Array.from({ length: SAMPLES }, (_, k) => offsetPoint(c, (k + 0.5) / SAMPLES, distance)),
  ) <= OFFSET_TOLERANCE;
