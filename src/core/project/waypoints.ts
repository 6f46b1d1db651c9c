import { touchedBetween } from './lineage';
import type { Drawing, Glyph, MasterId, Project } from './model';
import type { Place } from './places';

/**
 * A waypoint’s drawing is addressed like one in a master, by an id that is made of its place: whatever works on the drawing of a master
 * works on it too. No glyph keeps drawings under such an id: see {@link waypointsKept}.
 */
const SIGN = 'at ';

export const waypointId = (place: Place): MasterId =>
  SIGN + JSON.stringify(Object.entries(place).sort(([a], [b]) => (a < b ? -1 : 1)));

export const isWaypointId = (id: MasterId): boolean => id.startsWith(SIGN);

/** The place that an id of a waypoint stands for. */
export function waypointPlace(id: MasterId): Place | undefined {
  if (!isWaypointId(id)) return undefined;
  try {
    return Object.fromEntries(JSON.parse(id.slice(SIGN.length)) as [string, number][]);
  } catch {
    return undefined;
  }
}

export const waypointOf = (glyph: Glyph, id: MasterId): Glyph['waypoints'][number] | undefined =>
  isWaypointId(id) ? glyph.waypoints.find((w) => waypointId(w.place) === id) : undefined;

/** The project with drawings that an edit made under ids of waypoints put where waypoints are kept. */
export function waypointsKept(before: Project, after: Project): Project {
  if (before.glyphs === after.glyphs) return after;
  const ids = touchedBetween(before.glyphs, after.glyphs) ?? Object.keys(after.glyphs);
  let glyphs = after.glyphs;
  for (const id of ids) {
    const glyph = glyphs[id];
    if (!glyph || glyph === before.glyphs[id]) continue;
    const own = waypointKept(glyph);
    if (own === glyph) continue;
    if (glyphs === after.glyphs) glyphs = { ...glyphs };
    (glyphs as Record<string, Glyph>)[id] = own;
  }
  return glyphs === after.glyphs ? after : { ...after, glyphs };
}

/** A glyph with what it has under ids of waypoints put where waypoints are kept. */
export function waypointKept(glyph: Glyph): Glyph {
  if (!Object.keys(glyph.drawings).some(isWaypointId)) return glyph;
  const own = new Map<MasterId, Drawing>(Object.entries(glyph.drawings).filter(([id]) => isWaypointId(id)));
  return {
    ...glyph,
    drawings: Object.fromEntries(Object.entries(glyph.drawings).filter(([id]) => !isWaypointId(id))),
    // A drawing for a place where the glyph has no waypoint is none of its own.
    waypoints: glyph.waypoints.map((w) => {
      const drawing = own.get(waypointId(w.place));
      return drawing ? { ...w, drawing } : w;
    }),
  };
}
