import { sameBuild } from '../geometry/contour';
import type { Drawing, Glyph, MasterId, Project } from './model';
import { drawingOf } from './queries';
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

/** The other masters, and the glyph’s waypoints, in which it has the same structure as in this one, in their order. */
export function agreeingMasters(project: Project, glyph: Glyph, master: MasterId): MasterId[] {
  const own = drawingOf(glyph, master);
  const all = [...project.masters.map((m) => m.id), ...glyph.waypoints.map((w) => waypointId(w.place))];
  return all.filter((id) => id !== master && sameStructure([own, drawingOf(glyph, id)]));
}
