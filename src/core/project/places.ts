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

/** A place in little room: “wght 520 wdth 90”. */
export const shortPlace = (axes: Axes, at: Place): string =>
  axes.map((x) => `${x.tag} ${Math.round((wholePlace(axes, at)[x.tag] ?? 0) * 10) / 10}`).join(' ');

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

/** The value nearest to a design value that an axis of single values has; any value of one that runs through. */
export function heldValue(axis: Axes[number], design: number): number {
  if (!axis.discrete || axis.discrete.length === 0) return design;
  const values = axis.discrete.map((v) => toDesign(axis, v));
  return values.reduce((best, v) => (Math.abs(v - design) < Math.abs(best - design) ? v : best));
}

/**
 * The values of a place on axes of single values, as a key. What has other values there is another design: nothing is blended from one
 * to the other. All places have the same where every axis runs through.
 */
export const sheetOf = (axes: Axes, place: Place): string =>
  axes
    .filter((a) => a.discrete && a.discrete.length > 0)
    .map((a) => heldValue(a, place[a.tag] ?? designEnds(a).usual))
    .join(' ');

/** How far from the end of an axis the slope there is taken, as a share of the way to the default. */
const STEP = 0.02;

/**
 * How much each of several drawings counts at a place, in their order; those that have other values than the place on axes of single
 * values do not count at all, unless none has its values. Beyond the ends of the axes what happens at the end goes on in a
 * straight line; within them this is the model of OpenType.
 */
export function weightsAt(axes: Axes, places: readonly Place[], at: Place): number[] {
  const through = axes.filter((a) => !a.discrete || a.discrete.length === 0);
  if (through.length === axes.length) return weightsThrough(axes, places, at);
  const sheets = places.map((p) => sheetOf(axes, p));
  const goal = [sheetOf(axes, at), sheetOf(axes, {}), sheets[0]!].find((s) => sheets.includes(s));
  const there = places.flatMap((_, i) => (sheets[i] === goal ? [i] : []));
  const weights = weightsThrough(
    through,
    there.map((i) => places[i]!),
    at,
  );
  const out = places.map(() => 0);
  there.forEach((i, k) => {
    out[i] = weights[k]!;
  });
  return out;
}

function weightsThrough(axes: Axes, places: readonly Place[], at: Place): number[] {
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
