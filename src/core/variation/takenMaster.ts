import { z } from 'zod';
import * as a from '../project/arguments';
import { defineEdit, edited, plural, refused } from '../project/edit';
import { kerningOf, kerningThrough } from '../project/kerningLookup';
import {
  type Drawing,
  drawingSchema,
  type Glyph,
  type GlyphId,
  type Master,
  type MasterId,
  masterSchema,
  type Project,
} from '../project/model';
import { drawingsOf, flattened } from '../project/outline';
import { pairSides } from '../project/pairs';
import { samePlace, wholePlace } from '../project/places';
import {
  defaultMaster,
  drawingOf,
  glyphForCodePoint,
  glyphNamed,
  glyphsInOrder,
  masterThere,
} from '../project/queries';
import { scaledProject } from '../project/scaling';
import { masterFault, nextMasterId, reaching } from './familyEdits';
import { place, plainDrawing } from './places';
import { alikeShapes } from './shapeMatching';

/** What another project or font gives to a master of ours: drawings for our glyphs, its metrics and kerning, and what did not match. */
export type Taken = {
  drawings: Readonly<Record<GlyphId, Drawing>>;
  facts: Pick<Master, 'zones' | 'stems' | 'italicAngle' | 'verticalMetrics' | 'kerning'>;
  /** How many glyphs were known by their names, by their characters, by their shapes. */
  matched: { name: number; code: number; shape: number };
  /** Those known by shape: our names and theirs. */
  byShape: readonly (readonly [ours: string, theirs: string])[];
  /** Names of our glyphs that it lacks, and of its glyphs that we lack. */
  lacking: readonly string[];
  over: readonly string[];
};

/**
 * Matches a master of another project with our glyphs: by name, then by code point, then, for glyphs without a character, by shape; sizes
 * are brought to our em.
 */
export function takenMaster(project: Project, from: Project, masterId: MasterId): Taken {
  const factor = project.unitsPerEm / from.unitsPerEm;
  const other = factor === 1 ? from : scaledProject(from, factor, project.settings.grid);
  const master = masterThere(other, masterId);
  const ours = glyphsInOrder(project);
  const theirs = new Map<GlyphId, Glyph>();
  const used = new Set<GlyphId>();
  const matched = { name: 0, code: 0, shape: 0 };
  const take = (own: Glyph, found: Glyph | undefined, how: keyof typeof matched): void => {
    if (!found || used.has(found.id) || theirs.has(own.id)) return;
    theirs.set(own.id, found);
    used.add(found.id);
    matched[how]++;
  };
  // A character tells more than a name where both are there and do not say the same.
  const sameCodes = (x: Glyph, y: Glyph) =>
    x.unicodes.length === 0 || y.unicodes.length === 0 || x.unicodes.some((c) => y.unicodes.includes(c));
  for (const g of ours) {
    const found = glyphNamed(other, g.name);
    if (found && sameCodes(g, found)) take(g, found, 'name');
  }
  for (const g of ours) for (const code of g.unicodes) take(g, glyphForCodePoint(other, code), 'code');
  const unencoded = (p: Project, taken: (g: Glyph) => boolean) =>
    glyphsInOrder(p).filter((g) => g.unicodes.length === 0 && g.name !== '.notdef' && !taken(g));
  const main = defaultMaster(project).id;
  const byShape = alikeShapes(
    outlinesOf(
      project,
      main,
      unencoded(project, (g) => theirs.has(g.id)),
    ),
    outlinesOf(
      other,
      masterId,
      unencoded(other, (g) => used.has(g.id)),
    ),
    project.unitsPerEm,
  );
  for (const [id, found] of byShape) take(project.glyphs[id]!, other.glyphs[found], 'shape');
  const ids = new Map([...theirs].map(([own, g]) => [g.id, own]));
  const drawings = Object.fromEntries(
    [...theirs].map(([id, g]) => [id, translated(other, masterId, drawingOf(g, masterId), ids)]),
  );
  const { zones, stems, italicAngle, verticalMetrics } = master;
  return {
    drawings,
    facts: { zones, stems, italicAngle, verticalMetrics, kerning: kerningFrom(project, other, master, theirs) },
    matched,
    byShape: byShape.map(([own, found]) => [project.glyphs[own]!.name, other.glyphs[found]!.name] as const),
    lacking: ours.filter((g) => !theirs.has(g.id)).map((g) => g.name),
    over: glyphsInOrder(other)
      .filter((g) => !used.has(g.id))
      .map((g) => g.name),
  };
}

const outlinesOf = (project: Project, master: MasterId, glyphs: readonly Glyph[]) => {
  const source = drawingsOf(project, master);
  return glyphs.map((g) => ({ id: g.id, contours: flattened(drawingOf(g, master), source) }));
};

/** A drawing with our glyphs as its parts; parts that we lack are drawn out. */
function translated(other: Project, master: MasterId, drawing: Drawing, ids: ReadonlyMap<GlyphId, GlyphId>): Drawing {
  const lost = drawing.components.filter((c) => !ids.has(c.glyph));
  const out =
    lost.length > 0 ? flattened({ ...drawing, contours: [], components: lost }, drawingsOf(other, master)) : [];
  return plainDrawing({
    ...drawing,
    contours: [...drawing.contours, ...out],
    components: drawing.components.flatMap((c) => {
      const glyph = ids.get(c.glyph);
      return glyph === undefined ? [] : [{ ...c, glyph }];
    }),
  });
}

/** So many members of a group are asked what their pairs are kerned by. */
const ASKED = 16;

/** What the other kerns the pairs by that we kern: a pair of groups as most pairs of their first members are. */
function kerningFrom(
  project: Project,
  other: Project,
  master: Master,
  theirs: ReadonlyMap<GlyphId, Glyph>,
): Master['kerning'] {
  const members = new Map(project.groups.map((g) => [g.id, g.members]));
  const standing = (side: { kind: string; id: string }): Glyph[] =>
    (side.kind === 'glyph' ? [side.id] : (members.get(side.id) ?? []))
      .flatMap((m) => theirs.get(m) ?? [])
      .slice(0, ASKED);
  const single = (key: string) => pairSides(key)?.filter((s) => s.kind === 'glyph').length ?? 0;
  const keys = [...new Set(project.masters.flatMap((m) => Object.keys(m.kerning)))].sort(
    (x, y) => single(x) - single(y),
  );
  const out: Record<string, number> = {};
  for (const key of keys) {
    const sides = pairSides(key);
    const [firsts = [], seconds = []] = (sides ?? []).map(standing);
    const counts = new Map<number, number>();
    for (const f of firsts)
      for (const s of seconds) {
        const value = Math.round(kerningOf(other, master, f.id, s.id)?.value ?? 0);
        counts.set(value, (counts.get(value) ?? 0) + 1);
      }
    const [most] = [...counts].sort((x, y) => y[1] - x[1]);
    // What groups give already is not said again; where they would, nothing is said as such.
    if (most && kerningThrough(project, { kerning: out }, key) !== most[0]) out[key] = most[0];
  }
  return out;
}

/** Adds a master of drawings that come from elsewhere; glyphs that it has none for get the default’s. */
export const addTakenMaster = defineEdit(
  {
    name: 'addTakenMaster',
    does: 'Adds a master whose drawings come from another project or font',
    reach: 'all masters',
    args: z.object({
      name: z.string().trim().min(1).max(200),
      place,
      drawings: z.record(a.glyph, drawingSchema),
      facts: masterSchema.pick({ zones: true, stems: true, italicAngle: true, verticalMetrics: true, kerning: true }),
    }),
  },
  (project, { name, place: at, drawings, facts }) => {
    const fault = masterFault(project, name, at);
    if (fault) return refused(fault);
    const main = defaultMaster(project);
    const id = nextMasterId(project);
    const axes = reaching(project.axes, at);
    const own = Object.fromEntries(project.axes.map((x) => [x.tag, wholePlace(project.axes, at)[x.tag]!]));
    let missing = 0;
    const glyphs = Object.fromEntries(
      Object.entries(project.glyphs).map(([key, g]) => {
        const drawing = drawings[key];
        if (!drawing) missing++;
        const next: Glyph = {
          ...g,
          drawings: { ...g.drawings, [id]: drawing ?? plainDrawing(drawingOf(g, main.id)) },
          waypoints: g.waypoints.filter((w) => !samePlace(project.axes, w.place, at)),
        };
        return [key, next];
      }),
    );
    const { lib: _, info: __, ...plain } = main;
    const master: Master = { ...plain, ...facts, guides: [], id, name, place: own };
    const said =
      missing > 0
        ? `; ${plural(missing, 'glyph')} without a fellow there ${missing === 1 ? 'has' : 'have'} the default’s drawing`
        : '';
    return edited(
      { ...project, axes, masters: [...project.masters, master], glyphs },
      `Added the master ${name}${said}`,
    );
  },
);
