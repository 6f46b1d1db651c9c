import { axisShare, bent } from '../../base/interpolation';
import { refuse } from '../../base/result';
import { listed } from '../../base/text';
import { nameOf } from '../../fontfacts/fontNames';
import type { FvarAxis } from '../../opentype/fvar';
import { ENGLISH, languageTagOf } from '../../opentype/nameLanguages';
import { jointNames, readStat } from '../../opentype/stat';
import { type DeltasAt, itemDelta } from '../../opentype/variations';
import type { Project } from '../../project/model';
import type { FontOutlines } from './fontOutlines';
import type { FontReading } from './reading';

/** Places in a variable font that need a master of their own; more than this are not taken in. */
const MOST_MASTERS = 64;

/** A place at which a master stands: normalised, an axis each. */
export type Place = { name: string; at: readonly number[] };

/** How an axis is bent: normalised places before and after. */
export type Bend = readonly (readonly [from: number, to: number])[];

/** A user value on the bent axis, -1 to 1. */
export const normalised = (axis: FvarAxis, bend: Bend, user: number): number =>
  bent(bend, axisShare(axis.minimum, axis.default, axis.maximum, user));

export const designOf = (axis: FvarAxis, normal: number): number =>
  axis.default + normal * (normal < 0 ? axis.default - axis.minimum : axis.maximum - axis.default);
export const designPlace = (axes: readonly FvarAxis[], at: readonly number[]): Record<string, number> =>
  Object.fromEntries(axes.map((a, i) => [a.tag, designOf(a, at[i] ?? 0)]));

export function axesOf(r: FontReading, axes: readonly FvarAxis[], bends: readonly Bend[]): Project['axes'] {
  const stat = r.font.tables.get('STAT');
  const stops = stat ? readStat(stat) : [];
  const unread = [
    ...stops.filter((s) => !axes.some((a) => a.tag === s.tag)).map((s) => s.nameID),
    ...(stat ? jointNames(stat) : []),
  ].map((id) => nameOf(r.names, id) ?? String(id));
  if (unread.length > 0)
    r.notes.push(
      `Names of styles for what does not vary here, or for several axes at once, were left aside: ${listed(unread)}.`,
    );
  return axes.map((a, i) => {
    // Design units are user units bent as the font bends them, so that places are even.
    const map = (bends[i] ?? []).map(([from, to]): [number, number] => [designOf(a, from), designOf(a, to)]);
    const bent = map.some(([from, to]) => Math.abs(from - to) > 1e-6);
    return {
      tag: a.tag,
      name: nameOf(r.names, a.nameID) ?? a.tag,
      minimum: a.minimum,
      default: a.default,
      maximum: a.maximum,
      map: bent ? map : [],
      hidden: a.hidden,
      labels: labelsOf(r, a.nameID),
      ...(stops.some((stop) => stop.tag === a.tag) && {
        stops: stops
          .filter((stop) => stop.tag === a.tag)
          .map(({ tag: _tag, nameID, ...stop }) => ({
            name: nameOf(r.names, nameID) ?? String(stop.value),
            ...stop,
          })),
      }),
    };
  });
}

/** A name in other languages than English, by language tag. */
function labelsOf(r: FontReading, nameID: number): Record<string, string> {
  const own = r.names.filter((n) => n.nameID === nameID && n.platformID === 3 && n.languageID !== ENGLISH);
  return Object.fromEntries(
    own.flatMap((n) => {
      const tag = languageTagOf(n.languageID);
      return tag === undefined || tag === 'en' ? [] : [[tag, n.value]];
    }),
  );
}

/** The default, and every place at which anything in the font stands out. */
export function placesOf(r: FontReading, axes: readonly FvarAxis[], outlines: FontOutlines): Place[] {
  if (axes.length === 0) return [{ name: '', at: [] }];
  const origin = axes.map(() => 0);
  const peaks = new Map<string, readonly number[]>([[origin.join(), origin]]);
  for (const region of [...outlines.regions(), ...(r.layoutStore?.regions ?? [])]) {
    const peak = axes.map((_, i) => region[i]?.[1] ?? 0);
    if (region.some(([start, p, end]) => p !== 0 && (start > p || p > end || (start < 0 && end > 0)))) continue;
    peaks.set(peak.join(), peak);
    if (peaks.size > MOST_MASTERS) refuse(`The font would need more than ${MOST_MASTERS} masters to be taken in.`);
  }
  const naming = (at: readonly number[]) =>
    axes.flatMap((a, i) => (at[i] === 0 ? [] : [`${a.tag} ${Math.round(designOf(a, at[i]!))}`])).join(', ');
  return [...peaks.values()].map((at) => ({ name: naming(at), at }));
}

/** What kerning and anchors differ by at the places of the masters; undefined when nothing varies. */
export function deltasAt(r: FontReading, places: readonly Place[]): DeltasAt | undefined {
  const store = r.layoutStore;
  if (!store || places.length < 2) return undefined;
  return (outer, inner) => places.map(({ at }) => itemDelta(store, outer, inner, at));
}
