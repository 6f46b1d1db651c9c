import { axisShare, regionShare } from '../base/interpolation';
import { toDesign } from './axes';
import type { Project } from './model';

type Axes = Project['axes'];
type Place = Readonly<Record<string, number>>;

/** A place on normalised axes: -1 at an axis's minimum, 0 at its default, 1 at its maximum; axes at 0 may be left out. */
export type Location = Readonly<Record<string, number>>;

/** Where a master has a say: from nothing at `start` to all of it at `peak` and back to nothing at `end`, per axis. */
export type Region = Readonly<Record<string, readonly [start: number, peak: number, end: number]>>;

/** A place in design units as a normalised location; values beyond an axis's ends count as the end (OpenType, "fvar"). */
export function normalised(axes: Axes, place: Place): Location {
  const out: Record<string, number> = {};
  for (const axis of axes) {
    const [low, middle, high] = [
      toDesign(axis, axis.minimum),
      toDesign(axis, axis.default),
      toDesign(axis, axis.maximum),
    ];
    out[axis.tag] = axisShare(low, middle, high, place[axis.tag] ?? middle);
  }
  return out;
}

/** How much of a region applies at a location, 0 to 1 (OpenType specification, "Algorithm for Interpolation of Instance Values"). */
export function scalarAt(region: Region, at: Location): number {
  let scalar = 1;
  for (const tag in region) scalar *= regionShare(region[tag]!, at[tag] ?? 0);
  return scalar;
}

/** Masters in the order their differences are taken, each with its region. */
export type VariationModel = {
  readonly order: readonly number[];
  readonly locations: readonly Location[];
  readonly regions: readonly Region[];
};

const moving = (l: Location): string[] => Object.keys(l).filter((tag) => l[tag] !== 0);

/**
 * The regions of a set of masters. A master's region reaches from the default through its peak to the end of the axes it
 * moves; where an earlier master on the same axes stands inside, the region is cut at that one's peak on the axis where
 * the cut leaves most. Two masters at one place are refused by the caller; without a default the first stands in.
 */
export function variationModel(locations: readonly Location[]): VariationModel {
  const reach = (l: Location) => moving(l).reduce((sum, tag) => sum + Math.abs(l[tag]!), 0);
  const order = locations
    .map((_, i) => i)
    .sort(
      (a, b) =>
        moving(locations[a]!).length - moving(locations[b]!).length ||
        reach(locations[a]!) - reach(locations[b]!) ||
        a - b,
    );
  const regions: Region[] = [];
  order.forEach((index, rank) => {
    const at = locations[index]!;
    const region: Record<string, [number, number, number]> = {};
    for (const tag of moving(at)) {
      const peak = at[tag]!;
      const furthest = locations.reduce(
        (far, l) => (Math.sign(l[tag] ?? 0) === Math.sign(peak) ? Math.max(far, Math.abs(l[tag]!)) : far),
        Math.abs(peak),
      );
      region[tag] = peak > 0 ? [0, peak, furthest] : [-furthest, peak, 0];
    }
    for (const earlier of order.slice(0, rank)) cut(region, locations[earlier]!);
    regions.push(region);
  });
  return { order, locations: order.map((i) => locations[i]!), regions };
}

function cut(region: Record<string, [number, number, number]>, other: Location): void {
  const tags = Object.keys(region);
  if (tags.length === 0 || moving(other).sort().join() !== [...tags].sort().join()) return;
  const inside = tags.every((tag) => {
    const [start, peak, end] = region[tag]!;
    const v = other[tag]!;
    return v === peak || (v > start && v < end);
  });
  if (!inside) return;
  let best: { tags: string[]; left: number } | undefined;
  for (const tag of tags) {
    const [start, peak, end] = region[tag]!;
    const v = other[tag]!;
    if (v === peak) continue;
    const left = v < peak ? (v - peak) / (start - peak) : (v - peak) / (end - peak);
    if (!best || left > best.left) best = { tags: [tag], left };
    else if (left === best.left) best.tags.push(tag);
  }
  for (const tag of best?.tags ?? []) {
    const [start, peak, end] = region[tag]!;
    const v = other[tag]!;
    region[tag] = v < peak ? [v, peak, end] : [start, peak, v];
  }
}

/** How much each master counts at a location, in the masters' own order; the sum is 1 wherever the default is among them. */
export function masterWeights(model: VariationModel, at: Location): number[] {
  const shares = model.regions.map((r) => scalarAt(r, at));
  const weights: number[] = [];
  for (let i = model.order.length - 1; i >= 0; i--) {
    const share = shares[i]!;
    weights[model.order[i]!] = share;
    if (share === 0) continue;
    // A later master counts by its difference from what the earlier ones give at its place.
    for (let j = 0; j < i; j++) shares[j]! -= share * scalarAt(model.regions[j]!, model.locations[i]!);
  }
  return weights;
}
