import { bent } from '../base/interpolation';
import type { Project } from './model';

/** A user value in design units, by the axis's map; without one they are the same. Linear between and beyond its points. */
export const toDesign = (axis: Pick<Project['axes'][number], 'map'>, user: number): number =>
  bent(
    [...axis.map].sort((a, b) => a[0] - b[0]),
    user,
  );
