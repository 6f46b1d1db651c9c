import type { Finding } from '../core/base/finding';
import { listed } from '../core/base/text';
import { type CastThing, placeOfThing } from '../core/casting/things';
import { projectFromFont } from '../core/formats/font/projectFromFont';
import { type Box, isEmptyBox } from '../core/geometry/curve';
import type { GlyphId, Project } from '../core/project/model';
import { drawingBounds, drawingsOf } from '../core/project/outline';
import { defaultMaster, drawingOf } from '../core/project/queries';
import { handedOver } from '../core/variation/handovers';
import { instanceAt } from '../core/variation/instance';

/** How far an edge may lie from where it was drawn, in units: half for whole numbers, half for quadratics, and as much for each in parts. */
const NEAR = 2;
const EDGES = ['xMin', 'yMin', 'xMax', 'yMax'] as const;

/** The project at the place that a font was cast at, and its one master there. */
function placeCast(project: Project, thing: CastThing): { project: Project; master: string } | undefined {
  const from = placeOfThing(project, thing);
  if (!from) return undefined;
  const { place } = from;
  if ('master' in place) {
    const at = from.project.masters.find((m) => m.id === place.master)?.place ?? {};
    return { project: from.variable ? from.project : handedOver(from.project, from.project, at), master: place.master };
  }
  const made = instanceAt(from.project, place.design, place.name).project;
  return { project: made, master: defaultMaster(made).id };
}

/**
 * Reads a font with the reader that opens fonts, and holds it against the project that it was cast from: every glyph’s advance, edges
 * and characters at the place of the font, or at the default of one that varies.
 */
export function readBack(
  project: Project,
  thing: CastThing,
  font: { bytes: Uint8Array; glyphIds: readonly GlyphId[] },
): Finding {
  const finding = (reason: string, severity: Finding['severity']): Finding => ({
    kind: 'font.readBack',
    title: 'Held against the project',
    reason,
    severity,
  });
  const read = projectFromFont(font.bytes, 'The font');
  if (!read.ok) return finding(`It cannot be read back: ${read.reason}`, 'error');
  const cast = placeCast(project, thing);
  if (!cast) return finding('What it was cast from is gone.', 'error');
  const back = read.value.project;
  const main = defaultMaster(back).id;
  const [theirs, ours] = [drawingsOf(back, main), drawingsOf(cast.project, cast.master)];
  const off: string[] = [];
  let worst = 0;
  font.glyphIds.forEach((id, i) => {
    const glyph = cast.project.glyphs[id];
    const other = back.glyphs[back.glyphOrder[i]!];
    if (!glyph || !other) return;
    const [own, made] = [drawingOf(glyph, cast.master), drawingOf(other, main)];
    const [a, b] = [drawingBounds(own, ours), drawingBounds(made, theirs)];
    const advance = Math.abs(Math.max(0, Math.round(own.advance)) - made.advance);
    const edges = isEmptyBox(a) || isEmptyBox(b) ? 0 : Math.max(...EDGES.map((k) => Math.abs(a[k] - b[k])));
    // An outline that is lost or comes from nowhere; open contours, and those without any area, are in no font.
    const inked = (box: Box) => box.xMax > box.xMin && box.yMax > box.yMin;
    const lost = inked(a) !== inked(b) && own.contours.every((c) => c.closed && c.points.length > 2);
    worst = Math.max(worst, edges);
    if (lost || advance > 1 || edges > NEAR) off.push(glyph.name);
  });
  if (off.length > 0)
    return finding(
      `${off.length === 1 ? 'One glyph is' : `${off.length} glyphs are`} not as drawn: ${listed(off, 8)}.`,
      'error',
    );
  return finding(`${font.glyphIds.length} glyphs as drawn, their edges within ${worst.toFixed(1)}.`, 'fine');
}
