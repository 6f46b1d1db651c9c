import type { Project } from '../project/model';

/** What counts as much or little in kerning, as shares of the em: a font of 2,048 units is judged as one of 1,000. */
const SHARES = {
  /** Values smaller than this are not worth keeping. */
  least: 0.004,
  /** What kerning is stepped by and rounded to, unless the project says otherwise. */
  step: 0.005,
  /** How far a pair may be from the value of its groups before it gets one of its own. */
  alike: 0.012,
  /** The same for accented letters that would only stand too open. */
  openButRare: 0.036,
  /** Shapes that kerning of their groups would bring nearer than this keep apart by a value of their own. */
  tooNear: 0.03,
  /** A pair that strays less than this is not worth a look. */
  worth: 0.008,
  /** Shapes nearer than this are shown as touching. */
  near: 0.006,
  /** White this much too wide is a hole. */
  open: 0.025,
  /** The strongest kerning that is taken. */
  most: 2,
} as const;

/** A share in units of a project: at least one. */
export const kerningUnits = (project: Pick<Project, 'unitsPerEm'>, what: keyof typeof SHARES): number =>
  Math.max(1, Math.round(SHARES[what] * project.unitsPerEm));

/** What kerning is stepped by in a project, in font units. */
export const stepOf = (project: Pick<Project, 'settings' | 'unitsPerEm'>): number =>
  project.settings.kerningStep ?? kerningUnits(project, 'step');

/** A value on a step; to whole units where there is none. */
export const onStep = (v: number, step: number): number =>
  (step > 0 ? Math.round(v / step) * step : Math.round(v)) || 0;
