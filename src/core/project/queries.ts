import { refuse } from '../base/result';
import { toDesign } from './axes';
import { blendedMaster } from './blending';
import { touchedBetween } from './lineage';
import {
  type Drawing,
  type Glyph,
  type GlyphId,
  type Master,
  type MasterId,
  type Project,
  ZONE_KEYS,
  type Zone,
} from './model';
import { placeInWords, weightsAt } from './places';
import { waypointOf, waypointPlace } from './waypoints';

type Index = { project: Project; names: Map<string, GlyphId>; codes: Map<number, GlyphId> };
let newest: Index | undefined;

/** Names and code points of the project at hand; kept while an edit leaves all of them as they were. */
function indexOf(project: Project): Index {
  if (newest?.project === project) return newest;
  if (newest && sameNames(newest.project, project)) {
    newest = { ...newest, project };
    return newest;
  }
  const names = new Map<string, GlyphId>();
  const codes = new Map<number, GlyphId>();
  for (const glyph of glyphsInOrder(project)) {
    if (!names.has(glyph.name)) names.set(glyph.name, glyph.id);
    for (const code of glyph.unicodes) if (!codes.has(code)) codes.set(code, glyph.id);
  }
  newest = { project, names, codes };
  return newest;
}

function sameNames(a: Project, b: Project): boolean {
  if (a.glyphOrder !== b.glyphOrder) return false;
  if (a.glyphs === b.glyphs) return true;
  const ids = touchedBetween(a.glyphs, b.glyphs) ?? a.glyphOrder;
  return [...ids].every((id) => {
    const before = a.glyphs[id];
    const after = b.glyphs[id];
    return (
      before === after ||
      (before !== undefined && after !== undefined && before.name === after.name && before.unicodes === after.unicodes)
    );
  });
}

/** The glyph of this name, if there is one. */
export const glyphNamed = (project: Project, name: string): Glyph | undefined =>
  project.glyphs[indexOf(project).names.get(name) ?? ''];

/** The glyph encoded at a code point; the first in glyph order where several claim it. */
export const glyphForCodePoint = (project: Project, code: number): Glyph | undefined =>
  project.glyphs[indexOf(project).codes.get(code) ?? ''];

export const glyphsInOrder = (project: Project): Glyph[] =>
  project.glyphOrder.flatMap((id) => {
    const glyph = project.glyphs[id];
    return glyph ? [glyph] : [];
  });

/** The glyph of an edit's arguments; refuses (throws) when it is gone. */
export const glyphThere = (project: Project, id: GlyphId): Glyph =>
  project.glyphs[id] ?? refuse('That glyph is no longer in the project.');

/** The master of an edit's arguments; refuses (throws) when it is gone. */
export const masterThere = (project: Project, id: MasterId): Master =>
  masterOf(project, id) ?? refuse('That master is no longer in the project.');

/** A master by its id; for the id of a waypoint what masters come to at its place, named by it. */
export const masterOf = (project: Project, id: MasterId): Master | undefined =>
  project.masters.find((m) => m.id === id) ?? masterAtWaypoint(project, id);

type AtPlace = Pick<Project, 'axes' | 'groups'> & { byId: Map<MasterId, Master> };
const atWaypoints = new WeakMap<Project['masters'], AtPlace>();

function masterAtWaypoint(project: Project, id: MasterId): Master | undefined {
  const place = waypointPlace(id);
  if (!place) return undefined;
  const { masters, axes, groups } = project;
  let known = atWaypoints.get(masters);
  if (known?.axes !== axes || known.groups !== groups) {
    known = { axes, groups, byId: new Map() };
    atWaypoints.set(masters, known);
  }
  let made = known.byId.get(id);
  if (!made) {
    const weights = weightsAt(
      axes,
      masters.map((m) => m.place),
      place,
    );
    made = {
      ...blendedMaster(project, weights, defaultMaster(project), `Waypoint, ${placeInWords(axes, place)}`),
      id,
      place,
    };
    known.byId.set(id, made);
  }
  return made;
}

/** The master at the default of every axis, else the first. */
export function defaultMaster(project: Project): Master {
  const atDefault = project.masters.find((m) =>
    project.axes.every((a) => m.place[a.tag] === undefined || m.place[a.tag] === toDesign(a, a.default)),
  );
  return atDefault ?? project.masters[0]!;
}

/** All zones of a master from bottom to top, the designer's own among them. */
export const zonesOf = (master: Master): Zone[] =>
  [...ZONE_KEYS.map((k) => master.zones[k]), ...master.zones.own].sort((a, b) => a.position - b.position);

/**
 * How letters of a master lean: `lean` units to the right for each unit of height, about the height `pivot`, half that of small letters,
 * where the sides of slanted letters are measured.
 */
export const leanOf = ({
  italicAngle,
  zones,
}: Pick<Master, 'italicAngle' | 'zones'>): { lean: number; pivot: number } => ({
  lean: Math.tan((-italicAngle * Math.PI) / 180),
  pivot: zones.xHeight.position / 2,
});

const EMPTY: Drawing = { advance: 0, contours: [], components: [], anchors: [], guides: [], backdrops: [] };

/** The glyph's drawing in a master or waypoint; an empty one of no width when the master has none. */
export const drawingOf = (glyph: Glyph, master: MasterId): Drawing =>
  glyph.drawings[master] ?? waypointOf(glyph, master)?.drawing ?? EMPTY;

export const isEmptyDrawing = (d: Drawing): boolean => d.contours.length === 0 && d.components.length === 0;

/** Does this glyph need no outline: space and its like? */
export const isBlank = (glyph: Glyph): boolean =>
  glyph.unicodes.some(
    (c) =>
      c === 0x20 ||
      c === 0xa0 ||
      (c >= 0x2000 && c <= 0x200f) ||
      c === 0x202f ||
      c === 0x205f ||
      c === 0xfeff ||
      c === 0x3000 ||
      c === 0x0d ||
      c === 0x00,
  );

/** What in the project refers to a glyph, as words: composites, kerning groups, pairs, follow rules, handovers. */
export function usersOf(
  project: Project,
  id: GlyphId,
): { composites: Glyph[]; groups: string[]; pairs: number; follows: Glyph[] } {
  const all = glyphsInOrder(project);
  const composites = all.filter((g) => Object.values(g.drawings).some((d) => d.components.some((c) => c.glyph === id)));
  const groups = project.groups.filter((g) => g.members.includes(id)).map((g) => g.name);
  const key = `glyph:${id}`;
  const pairs = new Set(
    project.masters.flatMap((m) => Object.keys(m.kerning).filter((k) => k.split(' ').includes(key))),
  ).size;
  const follows = all.filter((g) => [...g.follows.left, ...g.follows.right].some((f) => f.glyph === id));
  return { composites, groups, pairs, follows };
}
