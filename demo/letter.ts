import type { Contour } from '../src/core/geometry/contour';
import type { Measure } from './style';

/** One letter of a master: its advance and outlines in font units. */
export type Letter = { advance: number; contours: readonly Contour[] };

/** How a letter is drawn to any measure; the structure of its outlines is the same for all. */
export type Draw = (m: Measure) => Letter;

/** The least and greatest coordinate of on- and off-curve points; extremes carry points, so these are the ink's. */
export function span(contours: readonly Contour[], axis: 'x' | 'y'): [number, number] {
  const all = contours.flatMap((c) => c.points.filter((p) => p.type !== 'off').map((p) => p[axis]));
  return [Math.min(...all), Math.max(...all)];
}

export const shifted = (contours: readonly Contour[], dx: number, dy = 0): Contour[] =>
  contours.map((c) => ({
    ...c,
    points: c.points.map((p) => ({ ...p, x: Math.round(p.x + dx), y: Math.round(p.y + dy) })),
  }));

/** Sets a drawing between side bearings of the Regular, made tighter or looser as the measure says. */
export function sided(m: Measure, contours: readonly Contour[], left: number, right: number): Letter {
  const [from, to] = span(contours, 'x');
  const l = Math.round(left * m.sideBy);
  return { advance: Math.round(l + to - from) + Math.round(right * m.sideBy), contours: shifted(contours, l - from) };
}

/** A drawing centred on an advance. */
export function centred(contours: readonly Contour[], advance: number): Letter {
  const [from, to] = span(contours, 'x');
  return { advance, contours: shifted(contours, Math.round((advance - from - to) / 2)) };
}
