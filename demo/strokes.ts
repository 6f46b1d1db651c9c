import type { Contour } from '../src/core/geometry/contour';
import { type Draw, type Letter, sided } from './letter';
import { polygon } from './pen';
import type { Measure } from './style';

/** A stroke across of the Regular at the measure's weight; slanted strokes take a little less of it than upright ones. */
export const across = (m: Measure, v: number, share = 0.93): number => v * (1 + (m.stemBy - 1) * share);
/** A level stroke of the Regular at the measure's weight. */
export const level = (m: Measure, v: number, share = 1): number => v * (1 + (m.levelBy - 1) * share);
/** A counter of the Regular at the measure's width; open shapes close less than counters between two stems. */
export const open = (m: Measure, v: number, share = 1): number => v * (1 + (m.gapBy - 1) * share);

/** A letter drawn anew for every measure, with the side bearings it has in the Regular. */
export const drawn =
  (left: number, right: number, contours: (m: Measure) => readonly Contour[]): Draw =>
  (m): Letter =>
    sided(m, contours(m), left, right);

type Vee = { arm: number; foot: number; gap: number; top: number };

/** Two slanted strokes that meet on a flat foot: v, V. They taper towards the foot, so that it does not clot. */
export function vee(m: Measure, { arm, foot, gap, top }: Vee): Contour {
  const h = across(m, arm);
  const f = across(m, foot, 0.72);
  const y = m.line(top);
  const width = 2 * h + open(m, gap);
  const c = width / 2;
  return polygon(
    [0, y],
    [c - f / 2, 0],
    [c + f / 2, 0],
    [width, y],
    [width - h, y],
    [c, crotch(h, f, c, y, 0.8)],
    [h, y],
  );
}

/** Where the inner edges of two strokes meet above their common foot; `taper` below 1 brings them together lower. */
const crotch = (h: number, f: number, c: number, y: number, taper: number): number =>
  (y * taper * (h - f / 2)) / (c - f / 2);

type Wave = Vee & { peak: number };

/** Four slanted strokes: w, W. The middle peak is flat and as high as the arms. */
export function wave(m: Measure, { arm, foot, gap, top, peak }: Wave): Contour {
  const h = across(m, arm, 0.86);
  const f = across(m, foot, 0.6);
  const p = across(m, peak, 0.6);
  const y = m.line(top);
  const g = open(m, gap, 0.92);
  const width = 2 * h + p + 2 * g;
  const c = width / 2;
  const q = (h + g * 0.47 + c - p / 2 - g * 0.53) / 2 + (h - p / 2) * 0.12;
  const inner = (y * 0.86 * (h - f / 2)) / (q - f / 2);
  const under = ((c - q - f / 2) * (y - inner)) / (c - p / 2 - q);
  const right = (x: number) => width - x;
  return polygon(
    [0, y],
    [q - f / 2, 0],
    [q + f / 2, 0],
    [c, under],
    [right(q + f / 2), 0],
    [right(q - f / 2), 0],
    [width, y],
    [right(h), y],
    [right(q), inner],
    [c + p / 2, y],
    [c - p / 2, y],
    [q, inner],
    [h, y],
  );
}

type Cross = { arm: number; below: number; above: number; top: number };

/** Two crossing strokes: x, X. Wider below than above; the strokes thin where they cross. */
export function cross(m: Measure, { arm, below, above, top }: Cross): Contour {
  const h = across(m, arm);
  const b = open(m, below, 0.9);
  const a = open(m, above, 0.9);
  const y = m.line(top);
  const low = 2 * h + b;
  const high = 2 * h * 0.97 + a;
  const c = low / 2;
  const left = c - high / 2;
  const right = c + high / 2;
  const t = h * 0.97;
  // Where the edges of the two strokes meet: below, above, and at both sides.
  const mid = y * 0.517;
  const waist = h * 0.545;
  const meetsBelow = (mid * b) / 2 / (b / 2 + waist * 1.02);
  const meetsAbove = y - ((y - mid) * a) / 2 / (a / 2 + waist * 1.02);
  return polygon(
    [0, 0],
    [h, 0],
    [c, meetsBelow],
    [low - h, 0],
    [low, 0],
    [c + waist, mid],
    [right, y],
    [right - t, y],
    [c, meetsAbove],
    [left + t, y],
    [left, y],
    [c - waist, mid],
  );
}

type Kay = {
  stem: number;
  arm: number;
  leg: number;
  reach: number;
  spread: number;
  top: number;
  tall: number;
  upper: number;
  lower: number;
};

/**
 * A stem with an arm and a leg: k, K. The leg springs from the arm, not from the stem. `upper` and `lower` are where the
 * arm meets the stem, as shares of its height; the heavier, the wider apart, but never as far as the arm is thick.
 */
export function kay(m: Measure, k: Kay): Contour {
  const s = across(m, k.stem, 1);
  const y = m.line(k.top);
  const arm = across(m, k.arm, 0.88);
  const leg = across(m, k.leg, 0.9);
  const reach = s + open(m, k.reach, 0.62) + (arm - k.arm) * 0.78;
  const spread = s + open(m, k.spread, 0.62) + (leg - k.leg) * 0.82;
  const heavier = m.stemBy - 1;
  const high = y * (k.upper + heavier * 0.03);
  const low = y * (k.lower - heavier * 0.062);
  const rise = (y - low) / (reach - s);
  const on = (x: number): [number, number] => [x, low + (x - s) * rise];
  const at = s + (reach - s) * 0.2;
  return polygon(
    [0, 0],
    [s, 0],
    [s, low],
    on(at),
    [spread - leg, 0],
    [spread, 0],
    on(at + leg * 0.59),
    [reach, y],
    [reach - arm, y],
    [s, high],
    [s, m.line(k.tall)],
    [0, m.line(k.tall)],
  );
}

/** A capital on two legs with a bar and a flat apex: A. */
export function peaked(m: Measure, { arm, foot, gap, top }: Vee, bar: readonly [number, number]): Contour[] {
  const h = across(m, arm);
  const f = across(m, foot, 0.72);
  const y = m.line(top);
  const width = 2 * h + open(m, gap);
  const c = width / 2;
  const inner = y - crotch(h, f, c, y, 0.84);
  const at = (v: number) => h + ((c - h) * v) / inner;
  const thick = level(m, bar[1] - bar[0], 0.9);
  const b0 = (bar[0] / 700) * y - (thick - (bar[1] - bar[0])) * 0.62;
  const b1 = b0 + thick;
  return [
    polygon(
      [0, 0],
      [h, 0],
      [at(b0), b0],
      [width - at(b0), b0],
      [width - h, 0],
      [width, 0],
      [c + f / 2, y],
      [c - f / 2, y],
    ),
    polygon([at(b1), b1], [c, inner], [width - at(b1), b1]),
  ];
}
