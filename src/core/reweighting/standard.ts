import type { Contour } from '../geometry/contour';
import { curvesOf } from '../geometry/contour';
import { boundsOf } from '../geometry/curve';
import type { Glyph, Master, MasterId, Project } from '../project/model';
import { drawingsOf, flattened } from '../project/outline';
import { drawingOf, glyphForCodePoint, zonesOf } from '../project/queries';
import type { Stems } from './goals';
import { type MeasuredStroke, standardStems, strokesIn } from './strokes';

/** Letters whose straight strokes tell how thick those of a design are. */
const TELLING = 'HIEFTLDBPRNUhnmulidbpqrtz';

const outlineOf = (project: Project, glyph: Glyph, master: MasterId) => {
  const drawing = drawingOf(glyph, master);
  return { contours: flattened(drawing, drawingsOf(project, master)), advance: drawing.advance };
};

/** Letters that stems are measured in: those of Latin that are drawn, else all that is. */
function tellingGlyphs(project: Project, master: MasterId): Glyph[] {
  const own = [...TELLING].flatMap((c) => glyphForCodePoint(project, c.codePointAt(0)!) ?? []);
  const drawn = (g: Glyph) => drawingOf(g, master).contours.length > 0;
  const latin = own.filter(drawn);
  return latin.length > 0 ? latin : Object.values(project.glyphs).filter(drawn).slice(0, 60);
}

const measured = new WeakMap<Project['glyphs'], Map<MasterId, Stems | undefined>>();

/** Stems of a master as its letters have them, in font units; undefined where nothing is drawn. */
export function measuredStems(project: Project, master: MasterId): Stems | undefined {
  const known = measured.get(project.glyphs) ?? new Map<MasterId, Stems | undefined>();
  measured.set(project.glyphs, known);
  if (!known.has(master)) {
    const found = standardStems(
      tellingGlyphs(project, master).map((g) => outlineOf(project, g, master)),
      project.unitsPerEm,
    );
    known.set(master, found && { vertical: rounded(found.vertical), horizontal: rounded(found.horizontal) });
  }
  return known.get(master);
}

const rounded = (v: number): number => Math.round(v * 10) / 10;

/** Stems of a master: those that are kept with it, else as measured. */
export function stemsOf(project: Project, master: Master): Stems | undefined {
  const kept = (vertical: boolean) => master.stems.find((s) => s.vertical === vertical && s.value > 0)?.value;
  const [vertical, horizontal] = [kept(true), kept(false)];
  if (vertical !== undefined && horizontal !== undefined) return { vertical, horizontal };
  const found = measuredStems(project, master.id);
  return found && { vertical: vertical ?? found.vertical, horizontal: horizontal ?? found.horizontal };
}

/** All strokes of a glyph, its parts drawn out. */
export const strokesOf = (project: Project, glyph: Glyph, master: MasterId): MeasuredStroke[] => {
  const { contours, advance } = outlineOf(project, glyph, master);
  return strokesIn(contours, advance, project.unitsPerEm * 0.36);
};

const lines = new WeakMap<Project['glyphs'], Map<string, readonly number[]>>();

/** Heights at which letters of a master end: its zones with their overshoots, and what at least three glyphs share. */
export function heldLines(project: Project, master: Master): readonly number[] {
  const known = lines.get(project.glyphs) ?? new Map<string, readonly number[]>();
  lines.set(project.glyphs, known);
  const zones = zonesOf(master).flatMap((z) => [z.position, z.position + z.overshoot]);
  const key = `${master.id} ${zones.join(' ')}`;
  const held = known.get(key);
  if (held) return held;
  const grain = project.unitsPerEm / 500;
  const counts = new Map<number, number>();
  for (const glyph of Object.values(project.glyphs)) {
    const { contours } = drawingOf(glyph, master.id);
    if (contours.length === 0) continue;
    const { yMin, yMax } = boundsOf(contours.flatMap((c: Contour) => curvesOf(c)));
    for (const y of [yMin, yMax]) counts.set(Math.round(y / grain), (counts.get(Math.round(y / grain)) ?? 0) + 1);
  }
  const shared = [...counts].filter(([, n]) => n >= 3).map(([k]) => k * grain);
  const all = [...new Set([...zones, ...shared])].sort((a, b) => a - b);
  known.set(key, all);
  return all;
}
