import { axisShare } from '../../base/interpolation';
import type { GlyphId, Project } from '../../project/model';
import { designEnds } from '../../project/places';
import type { CastPlan } from '../plan';

/**
 * The feature in which glyphs give way along the axes: `rvrn` works before all others, so that other rules see the glyph that stands
 * in; `rclt` after them, so that they have done their work (OpenType, “Registered features”). Both are always on.
 */
export const handoverFeature = (project: Pick<Project, 'settings'>): 'rvrn' | 'rclt' =>
  project.settings.handoversLast ? 'rclt' : 'rvrn';

/** A stretch of an axis, normalised, its ends counted in. */
export type Condition = { axis: number; minimum: number; maximum: number };
export type HandoverRecord = { conditions: readonly Condition[]; subs: ReadonlyMap<number, number> };

/**
 * Where on the axes which glyphs stand in, as boxes that do not overlap but at their edges: the first that holds a place counts. Each
 * axis is cut where a handover begins or ends.
 */
export function handoverRecords({ entries, index, varies }: CastPlan): HandoverRecord[] {
  if (!varies) return [];
  const all = entries.flatMap(({ glyph }) =>
    glyph.handovers.flatMap((h) => {
      const [from, to] = [index.get(glyph.id), index.get(h.glyph as GlyphId)];
      return from === undefined || to === undefined ? [] : [{ ...h, first: from, second: to }];
    }),
  );
  const axes = varies.axes.flatMap((axis, i) => {
    const own = all.filter((h) => h.axis === axis.tag);
    if (own.length === 0) return [];
    const { least, usual, most } = designEnds(axis);
    const [low, high] = [Math.min(least, most), Math.max(least, most)];
    const cuts = [...new Set([low, high, ...own.flatMap((h) => [h.from, h.to])])]
      .filter((v) => v >= low && v <= high)
      .sort((a, b) => a - b);
    const stretches = cuts.slice(1).map((to, k) => ({ from: cuts[k]!, to }));
    // A handover at one point of the axis holds there alone.
    const points = own.filter((h) => h.from === h.to).map((h) => ({ from: h.from, to: h.to }));
    return [
      {
        i,
        tag: axis.tag,
        own,
        share: (v: number) => axisShare(least, usual, most, v),
        stretches: [...points, ...stretches],
      },
    ];
  });
  let boxes: { conditions: Condition[]; held: (typeof all)[number][] }[] = [{ conditions: [], held: [] }];
  for (const { i, own, share, stretches } of axes)
    boxes = boxes.flatMap((box) => [
      ...stretches.flatMap(({ from, to }) => {
        const held = own.filter((h) => h.from <= from && h.to >= to);
        if (held.length === 0) return [];
        const ends = [share(from), share(to)];
        const condition = { axis: i, minimum: Math.min(...ends), maximum: Math.max(...ends) };
        return [{ conditions: [...box.conditions, condition], held: [...box.held, ...held] }];
      }),
      box,
    ]);
  return boxes.flatMap(({ conditions, held }) => {
    // Of several handovers of a glyph the first counts, as in the text of the app.
    const subs = new Map<number, number>();
    for (const h of [...held].sort((a, b) => all.indexOf(a) - all.indexOf(b)))
      if (!subs.has(h.first)) subs.set(h.first, h.second);
    return subs.size === 0 ? [] : [{ conditions, subs }];
  });
}
