import { toDesign } from '../project/axes';
import type { Project } from '../project/model';
import { designEnds, type Place, samePlace, weightsAt } from '../project/places';
import { FeatureFault } from './cursor';
import type { Scalar, Span } from './tree';

/** Where a font stands: a place in design units on these axes. */
export type FontPlace = { axes: Project['axes']; at: Place };

type Value = Exclude<Scalar, number>[number];

/** A place that text gives, in design units; what it does not give is the default. Faults (throws) where an axis is not there. */
function placeOf({ at, units }: Value, axes: Project['axes'], span: Span): Place {
  const out: Record<string, number> = {};
  for (const [tag, number] of Object.entries(at)) {
    const axis = axes.find((a) => a.tag === tag);
    if (!axis) throw new FeatureFault(`The project has no axis ${tag}.`, span);
    const { least, usual, most } = designEnds(axis);
    const unit = units?.[tag];
    if (unit === 'd') out[tag] = number;
    else if (unit === 'n') out[tag] = usual + number * (number < 0 ? usual - least : most - usual);
    else out[tag] = toDesign(axis, number);
  }
  return out;
}

/** The places and values of a number that varies, in design units. Faults (throws) as {@link valueAtPlace} does. */
export function placedValues(
  values: readonly Value[],
  { axes }: Pick<FontPlace, 'axes'>,
  span: Span,
): { place: Place; value: number }[] {
  const placed = values.map((v) => ({ place: placeOf(v, axes, span), value: v.value }));
  const twice = placed.findIndex((p, i) => placed.slice(0, i).some((q) => samePlace(axes, p.place, q.place)));
  if (twice >= 0) throw new FeatureFault('Two values stand for one place.', span);
  if (!placed.some((p) => samePlace(axes, p.place, {})))
    throw new FeatureFault('A value for the default place is missing among these.', span);
  return placed;
}

/**
 * What a number that varies is where a font stands, by the model that masters are blended with. Faults (throws) where no value is
 * given for the default place, or two for one.
 */
export function valueAtPlace(values: readonly Value[], { axes, at }: FontPlace, span: Span): number {
  const weights = weightsAt(
    axes,
    placedValues(values, { axes }, span).map((v) => v.place),
    at,
  );
  return values.reduce((sum, v, i) => sum + v.value * weights[i]!, 0);
}
