import { toDesign } from '../project/axes';
import type { Project } from '../project/model';
import { designEnds } from '../project/places';
import { FeatureFault } from './cursor';
import type { FontPlace } from './placeValues';
import type { Statement } from './tree';

/** A stretch of an axis in design units, its ends counted in; `least` may be the greater where the axis runs backwards. */
export type AxisRange = { axis: string; least: number; most: number };

/** Where conditions of the text hold, in design units (they are written in user units). Faults (throws) where an axis is not there. */
export const rangesOf = (
  s: Extract<Statement, { kind: 'conditionset' }>,
  axes: Project['axes'],
): readonly AxisRange[] =>
  s.ranges.map(({ axis: tag, least, most }) => {
    const axis = axes.find((a) => a.tag === tag.trimEnd());
    if (!axis) throw new FeatureFault(`The project has no axis ${tag.trimEnd()}.`, s);
    if (least > most) throw new FeatureFault(`The range of ${tag.trimEnd()} ends before it begins.`, s);
    return { axis: axis.tag, least: toDesign(axis, least), most: toDesign(axis, most) };
  });

/** Do all conditions hold where a font stands? An axis that the place does not give stands at its default. */
export const holdsAt = (ranges: readonly AxisRange[], { axes, at }: FontPlace): boolean =>
  ranges.every(({ axis, least, most }) => {
    const own = axes.find((a) => a.tag === axis);
    const value = at[axis] ?? (own ? designEnds(own).usual : 0);
    return value >= Math.min(least, most) && value <= Math.max(least, most);
  });
