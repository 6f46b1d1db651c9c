import type { Point } from '../geometry/contour';
import { nameForCodePoint } from './glyphNames';
import type { Drawing, Family, Glyph, Master, Project, Zones } from './model';

/** Metrics for a new master, in proportion to the em: the shape of a plain text face. */
export function defaultZones(unitsPerEm: number): Zones {
  const u = (share: number) => Math.round(unitsPerEm * share);
  const line = (name: string, position: number, overshoot: number) => ({
    name,
    position: u(position),
    overshoot: u(overshoot),
  });
  return {
    descender: line('descender', -0.22, -0.012),
    baseline: line('baseline', 0, -0.012),
    xHeight: line('x-height', 0.5, 0.012),
    capHeight: line('cap height', 0.7, 0.012),
    ascender: line('ascender', 0.75, 0.012),
    own: [],
  };
}

export const emptyDrawing = (advance: number): Drawing => ({
  advance,
  contours: [],
  components: [],
  anchors: [],
  guides: [],
  backdrops: [],
});

/** A glyph with nothing drawn, as wide as `advance` in every master. */
export function newGlyph(
  id: string,
  name: string,
  unicodes: readonly number[],
  masters: readonly Master[],
  advance: number,
): Glyph {
  return {
    id,
    name,
    unicodes,
    cast: true,
    drawings: Object.fromEntries(masters.map((m) => [m.id, emptyDrawing(advance)])),
    waypoints: [],
    handovers: [],
    takes: [],
    follows: { left: [], right: [] },
  };
}

export function newMaster(id: string, name: string, unitsPerEm: number): Master {
  return {
    id,
    name,
    place: {},
    zones: defaultZones(unitsPerEm),
    verticalMetrics: {},
    italicAngle: 0,
    stems: [],
    guides: [],
    kerning: {},
  };
}

/** The sign for a missing glyph: an upright box with a counter, from baseline to cap height. */
function notdefDrawing(unitsPerEm: number, zones: Zones): Drawing {
  const u = (share: number) => Math.round(unitsPerEm * share);
  const box = (left: number, bottom: number, right: number, top: number): Point[] => {
    const at = (x: number, y: number): Point => ({ x, y, type: 'line' });
    return [at(left, bottom), at(right, bottom), at(right, top), at(left, top)];
  };
  const wall = u(0.05);
  const left = u(0.06);
  const right = u(0.44);
  const top = zones.capHeight.position;
  return {
    ...emptyDrawing(u(0.5)),
    contours: [
      { closed: true, points: box(left, 0, right, top) },
      { closed: true, points: box(left + wall, wall, right - wall, top - wall).reverse() },
    ],
  };
}

export type NewProject = {
  family: string;
  unitsPerEm?: number;
  masterName?: string;
  /** Code points of the glyph set to begin with. */
  characters?: readonly number[];
  /** Seconds since 1970; data that the font carries as its date. */
  created: number;
};

/** A project with `.notdef` and `space` drawn, the given characters as empty glyphs, and one master. */
export function createProject({
  family,
  unitsPerEm = 1000,
  masterName = 'Regular',
  characters = [],
  created,
}: NewProject): Project {
  const master = newMaster('m1', masterName, unitsPerEm);
  const codes = [...new Set(characters)].filter((c) => c !== 0x20);
  const notdef: Glyph = {
    ...newGlyph('g1', '.notdef', [], [], 0),
    drawings: { m1: notdefDrawing(unitsPerEm, master.zones) },
  };
  const space = newGlyph('g2', 'space', [0x20], [master], Math.round(unitsPerEm * 0.25));
  const rest = codes.map((code, i) =>
    newGlyph(`g${i + 3}`, nameForCodePoint(code), [code], [master], Math.round(unitsPerEm * 0.5)),
  );
  const glyphs = [notdef, space, ...rest];
  const names: Family = { name: family, versionMajor: 1, versionMinor: 0, names: {} };
  return {
    version: 1,
    family: names,
    unitsPerEm,
    created,
    axes: [],
    masters: [master],
    instances: [],
    glyphOrder: glyphs.map((g) => g.id),
    groups: [],
    features: { sections: [], classes: {}, languageSystems: [], included: {} },
    texts: { galley: family, words: [], pairs: [] },
    scripts: [],
    settings: { nudge: [1, 10, 100], grid: 1, patterns: [] },
    pictures: {},
    kept: {},
    nextId: glyphs.length + 1,
    lib: {},
    glyphs: Object.fromEntries(glyphs.map((g) => [g.id, g])),
  };
}
