import { isEmptyBox } from '../geometry/curve';
import type { Master, MasterId, Project } from '../project/model';
import { drawingBounds, drawingsOf } from '../project/outline';
import { drawingOf, glyphForCodePoint } from '../project/queries';

/** Accents by which the room over capitals is judged: combining and spacing ones, the tall kinds. */
const ACCENTS: readonly number[] = [0x301, 0x300, 0x302, 0x30c, 0xb4, 0x60, 0x2c6, 0x2c7];
/** Room that accented capitals leave below the top of the line, as a share of the em. */
const SPARE = 0.05;
/** How much of what lacks is taken from the gap: flat marks would need less of it, tall ones more. */
const SHARE = 0.65;
const MOST = 0.055;
/** Room over capitals from which on a line has accents in mind, as a share of the em. */
const LEAST = 0.12;

const known = new WeakMap<Project, Map<MasterId, number>>();

/**
 * How much nearer a mark sits to a capital than to a small letter, in font units: what its top would otherwise take from the
 * room under the top of the line (bench “marks” shows it of text faces); 0 where there is room.
 */
export function nearerToCapitals(project: Project, master: Master): number {
  const of = known.get(project) ?? new Map<MasterId, number>();
  known.set(project, of);
  let value = of.get(master.id);
  if (value === undefined) {
    value = worked(project, master);
    of.set(master.id, value);
  }
  return value;
}

function worked(project: Project, master: Master): number {
  const source = drawingsOf(project, master.id);
  const { xHeight, capHeight } = master.zones;
  const tops = ACCENTS.flatMap((code) => {
    const glyph = glyphForCodePoint(project, code);
    const box = glyph && drawingBounds(drawingOf(glyph, master.id), source);
    return box && !isEmptyBox(box) && box.yMin > 0 ? [box.yMax - xHeight.position] : [];
  }).sort((a, b) => a - b);
  const top = tops[tops.length >> 1];
  if (top === undefined) return 0;
  const em = project.unitsPerEm;
  const { typoAscender, hheaAscender, winAscent } = master.verticalMetrics;
  // Lines that are not set open as far as outlines reach; those that end at the capitals say nothing of accents.
  const line = [hheaAscender, typoAscender, winAscent].find(
    (v) => v !== undefined && v > capHeight.position + LEAST * em,
  );
  if (line === undefined) return 0;
  const lacks = top - (line - capHeight.position - SPARE * em);
  return Math.max(0, Math.min(MOST * em, SHARE * lacks));
}
