import { stretchesAlong } from '../drawing/gauge';
import type { Contour } from '../geometry/contour';
import type { Glyph, Master, Project } from '../project/model';
import { drawingIn, drawingsOf, flattened } from '../project/outline';

import { openness, zoneOf } from './optical';
import { profileOf } from './profile';

/** Heights, as shares of the zone, that a letter is cut at: at most of them no bar or bowl lies across its first stroke. */
const HEIGHTS = [0.25, 0.35, 0.5, 0.65, 0.75];

type Strokes = { stem: number | undefined; counter: number | undefined };
const known = new WeakMap<readonly Contour[], { bottom: number; top: number; strokes: Strokes }>();

/** Thickness of a glyph's first stroke at most heights, and the white behind it there, in font units; undefined where there is none. Kept for the same outline. */
export function stemAndCounter(project: Project, glyph: Glyph, master: Master): Strokes {
  const { bottom, top } = zoneOf(project, glyph, master);
  const contours = flattened(drawingIn(project, glyph, master.id), drawingsOf(project, master.id));
  const found = known.get(contours);
  if (found?.bottom === bottom && found.top === top) return found.strokes;
  const reach = 4 * project.unitsPerEm;
  const cuts = HEIGHTS.map((share) => {
    const y = bottom + (top - bottom) * share;
    return stretchesAlong(contours, { x0: -reach, y0: y, x1: reach, y1: y });
  })
    .filter((cut) => cut.length > 0)
    .sort((a, b) => a[0]!.length - b[0]!.length);
  const cut = cuts[(cuts.length - 1) >> 1] ?? [];
  const strokes = { stem: cut.find((s) => s.ink)?.length, counter: cut.find((s) => !s.ink)?.length };
  known.set(contours, { bottom, top, strokes });
  return strokes;
}

/** What a side has at the start: this share of the counter, for most faces without serifs. */
export const START_SHARE = 0.5;

/**
 * Sides to start a letter with: a share of its counter on each, less what a round side counts by itself; in whole units. Undefined
 * for a glyph without a counter.
 */
export function startingSides(
  project: Project,
  glyph: Glyph,
  master: Master,
): { left: number; right: number } | undefined {
  const { counter } = stemAndCounter(project, glyph, master);
  if (counter === undefined) return undefined;
  const profile = profileOf(project, glyph.id, master.id);
  const zone = zoneOf(project, glyph, master);
  const white = counter * (project.settings.startShare ?? START_SHARE);
  const side = (name: 'left' | 'right') => Math.round(white - openness(profile, name, zone, project.unitsPerEm));
  return { left: side('left'), right: side('right') };
}
