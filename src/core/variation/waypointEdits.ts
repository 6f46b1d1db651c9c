import { z } from 'zod';
import * as a from '../project/arguments';
import { drawingsAt } from '../project/drawingsAt';
import { defineEdit, edited, refused, withGlyph } from '../project/edit';
import type { Glyph, Master, Project } from '../project/model';
import { designEnds, type Place, placeInWords, samePlace, wholePlace } from '../project/places';
import { glyphThere } from '../project/queries';
import { waypointId } from '../project/waypoints';
import { agrees } from './agreement';
import { place, plainDrawing } from './places';

/** Edits of waypoints: a glyph’s own drawings at places between the masters. */

const MOST_WAYPOINTS = 32;

/** Does a master or a waypoint stand at a place? */
export const isTaken = (
  axes: Project['axes'],
  masters: readonly Pick<Master, 'place'>[],
  waypoints: Glyph['waypoints'],
  at: Place,
): boolean => [...masters, ...waypoints].some((o) => samePlace(axes, o.place, at));

/** Why a waypoint cannot stand at a place; undefined where it can. */
function placeFault(project: Project, glyph: Glyph, others: Glyph['waypoints'], at: Place): string | undefined {
  const { axes, masters } = project;
  const master = masters.find((m) => samePlace(axes, m.place, at));
  if (master) return `${master.name} stands at ${placeInWords(axes, at)}: draw it there.`;
  if (isTaken(axes, [], others, at)) return `${glyph.name} has a waypoint at ${placeInWords(axes, at)} already.`;
  const whole = wholePlace(axes, at);
  const outside = axes.find((x) => {
    const { least, most } = designEnds(x);
    return whole[x.tag]! < Math.min(least, most) || whole[x.tag]! > Math.max(least, most);
  });
  return outside && `A waypoint lies within the axes; ${outside.name} does not reach so far.`;
}

/** Gives a glyph a waypoint: a drawing of its own at a place, begun from what lies there between the masters. */
export const addWaypoint = defineEdit(
  {
    name: 'addWaypoint',
    does: 'Gives a glyph a waypoint',
    reach: 'all masters',
    args: z.object({ glyph: a.glyph, place }),
  },
  (project, { glyph: id, place: at }) => {
    const glyph = glyphThere(project, id);
    const { axes } = project;
    if (project.masters.length < 2) return refused('A waypoint lies between masters; there is one only.');
    const fault = placeFault(project, glyph, glyph.waypoints, at);
    if (fault) return refused(fault, { glyph: glyph.name });
    if (glyph.waypoints.length >= MOST_WAYPOINTS)
      return refused(`A glyph has at most ${MOST_WAYPOINTS} waypoints.`, { glyph: glyph.name });
    if (!agrees(project, glyph))
      return refused(`${glyph.name} has nothing between its masters as long as they do not agree.`, {
        glyph: glyph.name,
      });
    const drawing = plainDrawing(drawingsAt(project, at)(id)!);
    const next = { place: wholePlace(axes, at), drawing };
    return edited(
      withGlyph(project, { ...glyph, waypoints: [...glyph.waypoints, next] }),
      `Gave ${glyph.name} a waypoint at ${placeInWords(axes, at)}`,
    );
  },
);

/** The waypoint of a glyph at a place of its own; refuses (throws) through the outcome of the edits below where it is gone. */
const waypointAt = (project: Project, glyph: Glyph, at: Place) =>
  glyph.waypoints.find((w) => samePlace(project.axes, w.place, at));

/** Moves a waypoint to another place; its drawing stays. */
export const moveWaypoint = defineEdit(
  {
    name: 'moveWaypoint',
    does: 'Moves a waypoint on the axes',
    reach: 'all masters',
    args: z.object({ glyph: a.glyph, from: place, to: place }),
  },
  (project, { glyph: id, from, to }) => {
    const glyph = glyphThere(project, id);
    const waypoint = waypointAt(project, glyph, from);
    if (!waypoint) return refused(`${glyph.name} has no waypoint there any more.`, { glyph: glyph.name });
    const next = wholePlace(project.axes, { ...waypoint.place, ...to });
    const others = glyph.waypoints.filter((w) => w !== waypoint);
    const fault = placeFault(project, glyph, others, next);
    if (fault) return refused(fault, { glyph: glyph.name });
    const waypoints = glyph.waypoints.map((w) => (w === waypoint ? { ...w, place: next } : w));
    return edited(
      withGlyph(project, { ...glyph, waypoints }),
      `Moved a waypoint of ${glyph.name} to ${placeInWords(project.axes, next)}`,
    );
  },
);

/** Takes a waypoint away: what lies between the masters holds there again. */
export const removeWaypoint = defineEdit(
  {
    name: 'removeWaypoint',
    does: 'Takes a waypoint away',
    reach: 'all masters',
    args: z.object({ glyph: a.glyph, place }),
  },
  (project, { glyph: id, place: at }) => {
    const glyph = glyphThere(project, id);
    const waypoint = waypointAt(project, glyph, at);
    if (!waypoint) return refused(`${glyph.name} has no waypoint there any more.`, { glyph: glyph.name });
    return edited(
      withGlyph(project, { ...glyph, waypoints: glyph.waypoints.filter((w) => w !== waypoint) }),
      `Took a waypoint of ${glyph.name} away`,
    );
  },
);

/** What a waypoint changes, in units: how far its points lie from where they would lie without it, at most and on average. */
export function waypointSays(
  project: Project,
  glyph: Glyph,
  id: string,
): { most: number; mean: number; advance: number } {
  const waypoint = glyph.waypoints.find((w) => waypointId(w.place) === id);
  if (!waypoint) return { most: 0, mean: 0, advance: 0 };
  const without = { ...glyph, waypoints: glyph.waypoints.filter((w) => w !== waypoint) };
  const plain = drawingsAt(withGlyph(project, without), waypoint.place)(glyph.id)!;
  const away = waypoint.drawing.contours.flatMap((c, i) =>
    c.points.map((p, k) => {
      const q = plain.contours[i]?.points[k];
      return q ? Math.hypot(p.x - q.x, p.y - q.y) : 0;
    }),
  );
  const sum = away.reduce((s, v) => s + v, 0);
  return {
    most: away.reduce((m, v) => Math.max(m, v), 0),
    mean: away.length > 0 ? sum / away.length : 0,
    advance: waypoint.drawing.advance - plain.advance,
  };
}
