import { axisShare } from '../base/interpolation';
import { toDesign } from './axes';
import type { Project } from './model';
import { masterWeights, normalised, variationModel } from './variationModel';

type Axes = Project['axes'];
export type Place = Readonly<Record<string, number>>;

/** The ends of an axis and its default, in design units. */
export const designEnds = (axis: Axes[number]): { least: number; usual: number; most: number } => ({
  least: toDesign(axis, axis.minimum),
  usual: toDesign(axis, axis.default),
  most: toDesign(axis, axis.maximum),
});

/** A place with a value for every axis, in design units. */
export const wholePlace = (axes: Axes, place: Place): Record<string, number> =>
  Object.fromEntries(axes.map((a) => [a.tag, place[a.tag] ?? designEnds(a).usual]));

/** A place in words: “weight 520, width 90”. */
export const placeInWords = (axes: Axes, at: Place): string =>
  axes.map((x) => `${x.name.toLowerCase()} ${Math.round((wholePlace(axes, at)[x.tag] ?? 0) * 100) / 100}`).join(', ') ||
  'the only place';

export const samePlace = (axes: Axes, a: Place, b: Place): boolean => {
  const [p, q] = [wholePlace(axes, a), wholePlace(axes, b)];
  return axes.every((x) => Math.abs(p[x.tag]! - q[x.tag]!) < 1e-6);
};

/** A design value in user units: the way back through the axis’s map; linear beyond its ends. */
export function toUser(axis: Pick<Axes[number], 'map'>, design: number): number {
  const map = [...axis.map].map(([user, own]) => [own, user] as const).sort((a, b) => a[0] - b[0]);
  if (map.length === 0) return design;
  const [first, last] = [map[0]!, map[map.length - 1]!];
  if (design <= first[0]) return first[1] + design - first[0];
  if (design >= last[0]) return last[1] + design - last[0];
  const i = map.findIndex(([own]) => own >= design);
  const [[d0, u0], [d1, u1]] = [map[i - 1]!, map[i]!];
  return d1 === d0 ? u1 : u0 + ((design - d0) / (d1 - d0)) * (u1 - u0);
}

/** How far from the end of an axis the slope there is taken, as a share of the way to the default. */
const STEP = 0.02;

/**
 * How much each of several drawings counts at a place, in their order. Beyond the ends of the axes what happens at the end goes on in a
 * straight line; within them this is the model of OpenType.
 */
export function weightsAt(axes: Axes, places: readonly Place[], at: Place): number[] {
  const model = variationModel(places.map((p) => normalised(axes, p)));
  const held = normalised(axes, at);
  const out = masterWeights(model, held);
  for (const axis of axes) {
    const { least, usual, most } = designEnds(axis);
    const value = at[axis.tag] ?? usual;
    const [low, high] = [Math.min(least, most), Math.max(least, most)];
    if (value >= low && value <= high) continue;
    const end = value < low ? low : high;
    if (end === usual) continue;
    const inside = end + (usual - end) * STEP;
    const before = masterWeights(model, { ...held, [axis.tag]: axisShare(least, usual, most, inside) });
    const beyond = (value - end) / (end - inside);
    const last = masterWeights(model, held);
    last.forEach((w, i) => {
      out[i]! += (w - before[i]!) * beyond;
    });
  }
  return out;
}
