import { type Contour, contourBounds } from '../geometry/contour';
import type { Glyph, Master, MasterId, Project } from '../project/model';
import { drawingsOf, flattened } from '../project/outline';
import { drawingOf, glyphForCodePoint, zonesOf } from '../project/queries';
import type { Stems } from './goals';
import { type MeasuredStroke, standardStems, strokesIn } from './strokes';

/** Letters whose straight strokes tell how thick those of a design are. */
const TELLING = 'HIEFTLDUnhmulidprz';

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

/** Widths of upright and of level strokes that at least three letters of a master share, in whole units. */
function sharedWidths(project: Project, master: MasterId): ReadonlySet<string> {
  const known = widths.get(project.glyphs) ?? new Map<MasterId, ReadonlySet<string>>();
  widths.set(project.glyphs, known);
  const held = known.get(master);
  if (held) return held;
  const counts = new Map<string, number>();
  for (const glyph of tellingGlyphs(project, master)) {
    const own = strokesOf(project, glyph, master).filter((s) => s.kind === 'vertical' || s.kind === 'horizontal');
    for (const key of new Set(own.map((s) => `${s.kind} ${Math.round(s.width)}`)))
      counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  const shared = new Set([...counts].filter(([, n]) => n >= 3).map(([key]) => key));
  known.set(master, shared);
  return shared;
}
const widths = new WeakMap<Project['glyphs'], Map<MasterId, ReadonlySet<string>>>();

/** How far off what fellows share a stroke may be to be taken for a slip, in thousandths of the em. */
const SLIP = 5;

/**
 * The width that letters share and a stroke misses by a little, in font units: a slip, not a choice. Undefined where it has that
 * width, or one of its own.
 */
export function missedWidth(project: Project, master: MasterId, stroke: MeasuredStroke): number | undefined {
  if (stroke.kind !== 'vertical' && stroke.kind !== 'horizontal') return undefined;
  const shared = sharedWidths(project, master);
  const own = Math.round(stroke.width);
  if (shared.has(`${stroke.kind} ${own}`)) return undefined;
  const most = Math.ceil((SLIP * project.unitsPerEm) / 1000);
  for (let by = 1; by <= most; by++)
    for (const w of [own - by, own + by]) if (shared.has(`${stroke.kind} ${w}`)) return w;
  return undefined;
}

/** All strokes of a glyph, its parts drawn out. */
export const strokesOf = (project: Project, glyph: Glyph, master: MasterId): MeasuredStroke[] => {
  const { contours, advance } = outlineOf(project, glyph, master);
  return strokesIn(contours, advance, project.unitsPerEm * 0.36);
};

const shared = new WeakMap<Project['glyphs'], Map<MasterId, readonly number[]>>();

/** Heights at which at least three drawings of a master end that are no dashes. */
function sharedEnds(project: Project, master: MasterId): readonly number[] {
  const known = shared.get(project.glyphs) ?? new Map<MasterId, readonly number[]>();
  shared.set(project.glyphs, known);
  const held = known.get(master);
  if (held) return held;
  const grain = project.unitsPerEm / 500;
  const counts = new Map<number, number>();
  for (const glyph of Object.values(project.glyphs)) {
    const [low, high] = endsOf(drawingOf(glyph, master).contours);
    if (!(high - low >= project.unitsPerEm * 0.4)) continue;
    for (const y of [low, high]) counts.set(Math.round(y / grain), (counts.get(Math.round(y / grain)) ?? 0) + 1);
  }
  const all = [...counts].filter(([, n]) => n >= 3).map(([k]) => k * grain);
  known.set(master, all);
  return all;
}

const endsOf = (contours: readonly Contour[]): readonly [low: number, high: number] => {
  const boxes = contours.map(contourBounds);
  return [Math.min(...boxes.map((b) => b.yMin)), Math.max(...boxes.map((b) => b.yMax))];
};

/** Heights at which a drawing stays: the zones of its master with their overshoots, and its own ends where others end there too. */
export function heldLines(project: Project, master: Master, contours: readonly Contour[]): readonly number[] {
  const near = project.unitsPerEm / 250;
  const ends = endsOf(contours);
  return [
    ...zonesOf(master).flatMap((z) => [z.position, z.position + z.overshoot]),
    ...sharedEnds(project, master.id).filter((line) => ends.some((end) => Math.abs(end - line) <= near)),
  ];
}
