import { z } from 'zod';
import { type Contour, isOnCurve, sameBuild, withStart } from '../geometry/contour';
import * as a from '../project/arguments';
import { defineEdit, edited, plural, refused } from '../project/edit';
import type { Drawing, Glyph, Project } from '../project/model';
import { defaultMaster, drawingOf } from '../project/queries';
import { designsOf, waypointsIn } from '../project/structure';
import { looksAt, placesBetween } from './kinks';
import { nodesApart } from './matching';
import { tanglesOf } from './tangles';

/** A start is nearer by its shape if its points lie less than this share of the way apart. */
const CLEARLY = 0.5;

/** Starts that would do as well by their points: other turns of a contour that keep its build. */
function turnsOf(contour: Contour, like: Contour): Contour[] {
  return contour.points.flatMap((p, i) => {
    if (i === 0 || !isOnCurve(p)) return [];
    const turned = withStart(contour, i);
    return sameBuild(turned, like) ? [turned] : [];
  });
}

/** How many units are tangled between two drawings of one contour. */
function tangledBetween(project: Project, glyph: Glyph, a: Contour, b: Contour): number {
  const main = defaultMaster(project);
  const other = project.masters.find((m) => m !== main)!;
  const drawing = (contour: Contour): Drawing => ({
    ...drawingOf(glyph, main.id),
    contours: [contour],
    components: [],
  });
  const two: Project = { ...project, masters: [main, other], instances: [] };
  const probe: Glyph = { ...glyph, waypoints: [], drawings: { [main.id]: drawing(a), [other.id]: drawing(b) } };
  return tanglesOf(two, probe, looksAt(two, placesBetween(two))).reduce((sum, t) => sum + t.units, 0);
}

/**
 * The glyph with contours that cross themselves on the way begun elsewhere, in masters where another start keeps their build and parts
 * what was tangled; undefined where none does. Shapes stay.
 */
export function untangled(project: Project, glyph: Glyph): Glyph | undefined {
  const next = designsOf(project).reduce((g, design) => untangledIn(design, g) ?? g, glyph);
  return next === glyph ? undefined : next;
}

function untangledIn(project: Project, glyph: Glyph): Glyph | undefined {
  if (project.masters.length < 2) return undefined;
  const looks = looksAt(project, placesBetween(project));
  const tangles = tanglesOf(project, glyph, looks);
  const crossing = [...new Set(tangles.filter((t) => t.contours[0] === t.contours[1]).map((t) => t.contours[0]))];
  if (crossing.length === 0) return undefined;
  const main = drawingOf(glyph, defaultMaster(project).id);
  const turned = (drawing: Drawing): Drawing => {
    if (drawing === main) return drawing;
    const contours = drawing.contours.map((contour, c) => {
      const model = main.contours[c];
      if (!model || !crossing.includes(c)) return contour;
      const now = tangledBetween(project, glyph, model, contour);
      const away = nodesApart(model, contour);
      const best = turnsOf(contour, model)
        .map((t) => ({ t, tangled: tangledBetween(project, glyph, model, t), apart: nodesApart(model, t) }))
        .sort((p, q) => p.tangled - q.tangled || p.apart - q.apart)[0];
      // Where both are free between these two, the one that lies much nearer by its shape is the better to others.
      const better = best && (best.tangled < now || (best.tangled === now && best.apart < away * CLEARLY));
      return better ? best.t : contour;
    });
    return contours.every((c, i) => c === drawing.contours[i]) ? drawing : { ...drawing, contours };
  };
  const next: Glyph = {
    ...glyph,
    drawings: {
      ...glyph.drawings,
      ...Object.fromEntries(project.masters.map((m) => [m.id, turned(drawingOf(glyph, m.id))])),
    },
    waypoints: waypointsIn(project, glyph).reduce(
      (list, { waypoint, index }) => list.with(index, { ...waypoint, drawing: turned(waypoint.drawing) }),
      glyph.waypoints,
    ),
  };
  const size = (list: readonly { units: number }[]) => list.reduce((sum, t) => sum + t.units, 0);
  return size(tanglesOf(project, next, looks)) < size(tangles) ? next : undefined;
}

/** Begins contours elsewhere that cross themselves between their masters, where that parts them. */
export const mendTangles = defineEdit(
  {
    name: 'mendTangles',
    does: 'Begins contours elsewhere that cross themselves between masters',
    reach: 'all masters',
    args: z.object({ glyphs: a.glyphs }),
  },
  (project, { glyphs }) => {
    const mended = glyphs.flatMap((id) => {
      const glyph = project.glyphs[id];
      return (glyph && untangled(project, glyph)) ?? [];
    });
    if (mended.length === 0) return refused('No other start parts what crosses here; it is for the hand.');
    const next = { ...project.glyphs, ...Object.fromEntries(mended.map((g) => [g.id, g])) };
    return edited(
      { ...project, glyphs: next },
      mended.length === 1
        ? `Parted the outlines of ${mended[0]!.name} between its masters`
        : `Parted the outlines of ${plural(mended.length, 'glyph')}`,
    );
  },
);
