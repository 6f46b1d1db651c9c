import { glyphsOfLine } from '../../../core/fitting/lines';
import type { SideName } from '../../../core/fitting/sides';
import type { Glyph, GlyphId, Master, MasterId, Project } from '../../../core/project/model';
import { drawingIn } from '../../../core/project/outline';
import { masterOf } from '../../../core/project/queries';
import { type Placed, placed } from '../../ui/placed';
import { type Reach, reachOf } from '../../ui/reach';
import { startOf } from './fitPainting';

/** How far from an edge, in pixels, the hand may be and still mean it. */
const GRIP = 7;
/** What can be dragged: an edge, or a starting line with the ink it is measured from; places in pixels. */
export type Grip =
  | { what: 'edge'; side: SideName; x: number }
  | { what: 'start'; side: SideName; x: number; ink: number; counter: number };

/** A line to fit in, the master it is set in, and the glyph that its slots stand for. */
export type FitLine = {
  text: string;
  master: MasterId;
  slot?: Glyph | undefined;
  /** It shows a place that is kept in sight; nothing is set there. */
  looked?: boolean;
};
/** A row of glyphs: the line it belongs to, from which of its glyphs on, and how it begins; a line too long for the sheet has several. */
export type Line = {
  master: MasterId;
  glyphs: readonly Placed[];
  baseline: number;
  line: number;
  from: number;
  width: number;
  rightToLeft: boolean;
  looked: boolean;
};
/** Where a glyph stands among the rows. */
export type Spot = { line: number; index: number };

const FROM_RIGHT = /[\p{Script=Arabic}\p{Script=Hebrew}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}]/u;

/** Glyphs in rows no wider than the room there is; broken at spaces where a row has one, else anywhere. */
function rowsOf(project: Project, { text, master, slot }: FitLine, room: number) {
  const ids = glyphsOfLine(project, text, slot).glyphs;
  const space = (id: GlyphId) => project.glyphs[id]!.unicodes.includes(0x20);
  const rows: { from: number; ids: GlyphId[] }[] = [];
  let row: GlyphId[] = [];
  let from = 0;
  let width = 0;
  const advance = (id: GlyphId) => drawingIn(project, project.glyphs[id]!, master).advance;
  ids.forEach((id, i) => {
    if (row.length > 0 && width + advance(id) > room) {
      const last = row.findLastIndex(space);
      const kept = last >= 0 ? row.splice(last + 1) : [];
      rows.push({ from, ids: row });
      row = kept;
      from = i - kept.length;
      width = kept.reduce((sum, k) => sum + advance(k), 0);
    }
    row.push(id);
    width += advance(id);
  });
  if (row.length > 0 || rows.length === 0) rows.push({ from, ids: row });
  return rows;
}

/** The heights that the glyphs of lines take, in font units: from descender to ascender, and as far beyond as their ink goes. */
export function lineReach(project: Project, lines: readonly FitLine[]): Reach {
  const glyphs = [...new Set(lines.flatMap((l) => glyphsOfLine(project, l.text, l.slot).glyphs))].slice(0, 200);
  const reaches = [...new Set(lines.map((l) => l.master))].map((m) =>
    reachOf(
      project,
      m,
      glyphs.map((id) => project.glyphs[id]!),
    ),
  );
  return {
    top: Math.max(project.unitsPerEm * 0.5, ...reaches.map((r) => r.top)),
    bottom: Math.min(0, ...reaches.map((r) => r.bottom)),
  };
}

/**
 * Glyphs side by side by their advances, in font units from the row's start; baselines in pixels. A line of a script that is
 * written from the right runs from the right. `room`: how wide a row may be, in font units.
 */
export function layOut(
  project: Project,
  lines: readonly FitLine[],
  { top, leading, room }: { top: number; leading: number; room: number },
): Line[] {
  let row = 0;
  return lines.flatMap((line, l) => {
    const first = glyphsOfLine(project, line.text, line.slot).glyphs.find((id) => {
      const code = project.glyphs[id]!.unicodes[0];
      return code !== undefined && /\p{L}/u.test(String.fromCodePoint(code));
    });
    const rightToLeft =
      first !== undefined && FROM_RIGHT.test(String.fromCodePoint(project.glyphs[first]!.unicodes[0]!));
    return rowsOf(project, line, room).map(({ from, ids }): Line => {
      const { glyphs, width } = placed(project, masterOf(project, line.master)!, ids, true);
      const turned = glyphs.map((g) => (rightToLeft ? { ...g, x: width - g.x - g.advance } : g));
      return {
        master: line.master,
        glyphs: turned,
        baseline: top + row++ * leading,
        line: l,
        from,
        width,
        rightToLeft,
        looked: line.looked === true,
      };
    });
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
  if (at?.master === master && !at.looked && at.glyphs[clicked.index]?.id === id) return clicked;
  for (const [line, l] of laid.entries()) {
    if (l.master !== master || l.looked) continue;
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
