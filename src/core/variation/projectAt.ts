import type { Project } from '../project/model';
import type { Place } from '../project/places';
import { instanceAt } from './instance';
import { plainDrawing } from './places';

/**
 * The family at a place as a project of its own, with one master of that name: drawn on a fine grid, kerning in whole units, what belonged
 * to single masters of the family (guides, backdrops, takes) left behind. Glyphs whose masters do not agree have the default’s drawing and
 * are named in `stuck`.
 */
export function projectAt(
  project: Project,
  place: Place,
  name: string,
): { project: Project; stuck: readonly string[] } {
  const { project: made, stuck } = instanceAt(project, place, name);
  const glyphs = Object.fromEntries(
    Object.entries(made.glyphs).map(([id, g]) => [
      id,
      {
        ...g,
        takes: [],
        handovers: [],
        follows: {
          left: g.follows.left.filter((f) => f.master === undefined),
          right: g.follows.right.filter((f) => f.master === undefined),
        },
        drawings: Object.fromEntries(Object.entries(g.drawings).map(([m, d]) => [m, plainDrawing(d)])),
      },
    ]),
  );
  const masters = made.masters.map((m) => ({
    ...m,
    guides: [],
    kerning: Object.fromEntries(Object.entries(m.kerning).map(([k, v]) => [k, Math.round(v)])),
  }));
  return {
    project: { ...made, glyphs, masters, family: { ...made.family, name: `${project.family.name} ${name}` } },
    stuck,
  };
}
