import { glyphsOfLine } from '../../../core/fitting/lines';
import type { SideName } from '../../../core/fitting/sides';
import type { Glyph, GlyphId, Master, MasterId, Project } from '../../../core/project/model';
import { masterOf } from '../../../core/project/queries';
import { type Placed, placed } from '../../ui/placed';
import { startOf } from './fitPainting';

/** How far from an edge, in pixels, the hand may be and still mean it. */
const GRIP = 7;
/** What can be dragged: an edge, or a starting line with the ink it is measured from; places in pixels. */
export type Grip =
  | { what: 'edge'; side: SideName; x: number }
  | { what: 'start'; side: SideName; x: number; ink: number; counter: number };

/** A line to fit in, the master it is set in, and the glyph that its slots stand for. */
export type FitLine = { text: string; master: MasterId; slot?: Glyph | undefined };
export type Line = { master: MasterId; glyphs: readonly Placed[]; baseline: number };
/** Where a glyph stands among the lines. */
export type Spot = { line: number; index: number };

/** Glyphs side by side by their advances, in font units from the line's start; baselines in pixels. */
export function layOut(
  project: Project,
  lines: readonly FitLine[],
  { size, top, leading }: { size: number; top: number; leading: number },
): Line[] {
  return lines.map(({ text, master, slot }, i) => {
    const { glyphs } = placed(project, masterOf(project, master)!, glyphsOfLine(project, text, slot).glyphs, true);
    return { master, glyphs, baseline: top + i * leading + size };
  });
}

/** The glyph that is open: the one clicked, else the first of its kind in the current master. */
export function openSpot(
  laid: readonly Line[],
  clicked: Spot,
  id: GlyphId | undefined,
  master: MasterId,
): Spot | undefined {
  const at = laid[clicked.line];
  if (at?.master === master && at.glyphs[clicked.index]?.id === id) return clicked;
  for (const [line, l] of laid.entries()) {
    if (l.master !== master) continue;
    const index = l.glyphs.findIndex((g) => g.id === id);
    if (index >= 0) return { line, index };
  }
  return undefined;
}

/** What a place can be dragged by: the nearest of the open glyph's edges and starting lines. */
export function gripAt(
  project: Project,
  { zones, id: master }: Master,
  { glyph: g, baseline, px, py }: { glyph: Placed; baseline: number; px: number; py: number },
  { scale, xPx }: { scale: number; xPx: (x: number) => number },
): Grip | undefined {
  if (py < baseline - zones.ascender.position * scale - 24 || py > baseline - zones.descender.position * scale + 6)
    return undefined;
  const low = py > baseline - zones.xHeight.position * scale && py < baseline;
  const start = low ? startOf(project, master, g) : undefined;
  const grips = (['left', 'right'] as const).flatMap((side): Grip[] => {
    const edge: Grip = { what: 'edge', side, x: xPx(side === 'left' ? g.x : g.x + g.advance) };
    if (!start) return [edge];
    const { counter, ink } = start;
    return [edge, { what: 'start', side, x: xPx(start[side]), ink: xPx(ink[side]), counter: counter * scale }];
  });
  const far = (grip: Grip) => Math.abs(px - grip.x);
  return grips.filter((c) => far(c) <= GRIP).sort((a, b) => far(a) - far(b))[0];
}
