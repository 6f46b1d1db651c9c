import { sameBuild } from '../geometry/contour';
import type { Drawing, Glyph, MasterId, Project } from './model';
import { sheetOf } from './places';
import { defaultMaster, drawingOf } from './queries';
import { waypointId } from './waypoints';

/** Whether drawings have the same contours with the same points, the same components and anchors, so that they can be blended. */
export function sameStructure(drawings: readonly Drawing[]): boolean {
  const [first, ...others] = drawings;
  return others.every(
    (d) =>
      d.contours.length === first!.contours.length &&
      d.components.length === first!.components.length &&
      d.contours.every((c, i) => sameBuild(c, first!.contours[i]!)) &&
      d.components.every((c, i) => c.glyph === first!.components[i]!.glyph),
  );
}

/** The master that others with its values on axes of single values are seen from: the default, else the nearest to it. */
export function mainOn(project: Project, masters: Project['masters']): Project['masters'][number] {
  const main = defaultMaster(project);
  if (masters.length === 0 || masters.includes(main)) return main;
  const same = (m: Project['masters'][number]) =>
    project.axes.filter((a) => m.place[a.tag] === main.place[a.tag]).length;
  return masters.reduce((best, m) => (same(m) > same(best) ? m : best));
}

export type Sheet = { sheet: string; masters: Project['masters'] };
const sheets = new WeakMap<Project['masters'], Pick<Project, 'axes'> & { all: readonly Sheet[] }>();

/** Masters by their values on axes of single values: all together where every axis runs through. */
export function sheetsOf({ masters, axes }: Pick<Project, 'masters' | 'axes'>): readonly Sheet[] {
  const known = sheets.get(masters);
  if (known?.axes === axes) return known.all;
  const keys = masters.map((m) => sheetOf(axes, m.place));
  const names = [...new Set(keys)];
  const all = names.map((sheet) => ({
    sheet,
    masters: names.length === 1 ? masters : masters.filter((_, i) => keys[i] === sheet),
  }));
  sheets.set(masters, { axes, all });
  return all;
}

/** A project as the designs that axes of single values part, each with its own masters and instances; mostly it is one. */
export function designsOf(project: Project): readonly Project[] {
  const all = sheetsOf(project);
  if (all.length === 1) return [project];
  return all.map(({ sheet, masters }) => ({
    ...project,
    masters,
    instances: project.instances.filter((i) => sheetOf(project.axes, i.place) === sheet),
  }));
}

/** The waypoints of a glyph that belong to one of {@link designsOf} a project, with their numbers. */
export function waypointsIn(
  { axes, masters }: Project,
  glyph: Glyph,
): { waypoint: Glyph['waypoints'][number]; index: number }[] {
  const own = sheetOf(axes, masters[0]?.place ?? {});
  return glyph.waypoints.flatMap((waypoint, index) =>
    sheetOf(axes, waypoint.place) === own ? [{ waypoint, index }] : [],
  );
}

/** The other masters, and the glyph’s waypoints, in which it has the same structure as in this one, in their order. */
export function agreeingMasters(project: Project, glyph: Glyph, master: MasterId): MasterId[] {
  const own = drawingOf(glyph, master);
  const all = [...project.masters.map((m) => m.id), ...glyph.waypoints.map((w) => waypointId(w.place))];
  return all.filter((id) => id !== master && sameStructure([own, drawingOf(glyph, id)]));
}
