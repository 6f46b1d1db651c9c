import { addContours, removeContours } from '../../../core/drawing/edits';
import { pointKey, pointOf } from '../../../core/drawing/points';
import { copiedStretches, cutStretches } from '../../../core/drawing/stretches';
import { copiedOutline, EXACT_TYPE, pastedOutline } from '../../../core/formats/svg/clipboard';
import { readSvg, type SvgPlace } from '../../../core/formats/svg/svgRead';
import type { Contour } from '../../../core/geometry/contour';
import { drawingOf, masterOf } from '../../../core/project/queries';
import { run, say, select, useBench } from '../../state/bench';
import { place } from './details/place';

/** Outlines to and from the clipboard and SVG files, for the glyph on the bench. */

function bench() {
  const { project, glyph, master, selection } = useBench.getState();
  if (!project || !glyph) return undefined;
  const { zones } = masterOf(project, master)!;
  const drawing = drawingOf(project.glyphs[glyph]!, master);
  const svgPlace: SvgPlace = {
    unitsPerEm: project.unitsPerEm,
    top: Math.max(zones.ascender.position, zones.capHeight.position),
    bottom: zones.descender.position,
  };
  const points = [...selection].filter((k) => pointOf(drawing, k));
  return { at: { glyph, master }, drawing, place: svgPlace, points };
}

/**
 * Puts what chosen points hold on the clipboard: whole contours, or the stretch between points that follow each other; all
 * contours when no point is chosen. False when there are none.
 */
export function copyOutlines(clipboard: DataTransfer): boolean {
  const now = bench();
  if (!now) return false;
  const { drawing, place, points } = now;
  const contours = points.length > 0 ? copiedStretches(drawing, points) : drawing.contours;
  if (contours.length === 0) return false;
  const { svg, exact } = copiedOutline(contours, drawing.advance, place);
  clipboard.setData('text/plain', svg);
  clipboard.setData(EXACT_TYPE, exact);
  return true;
}

/** Takes away what was just copied. */
export function cutOutlines(): void {
  const now = bench();
  if (!now) return;
  const { at, drawing, points } = now;
  const whole = place('structure');
  const all = drawing.contours.map((_, i) => i);
  if (
    run((p) => (points.length > 0 ? cutStretches(p, { at: whole, points }) : removeContours(p, { at, contours: all })))
  )
    select(new Set());
}

/** Adds contours to the drawing and selects them. */
function add(contours: readonly Contour[], notes: readonly string[]): void {
  const now = bench();
  if (!now || !run((p) => addContours(p, { at: now.at, contours }))) return;
  const before = now.drawing.contours.length;
  select(
    new Set(
      contours.flatMap((c, i) => c.points.flatMap((p, j) => (p.type === 'off' ? [] : [pointKey(before + i, j)]))),
    ),
  );
  if (notes.length > 0) say(notes.join(' '));
}

/** Pastes outlines, if that is what the clipboard holds. */
export function pasteOutlines(clipboard: DataTransfer): void {
  const now = bench();
  const pasted = now && pastedOutline(clipboard.getData('text/plain'), clipboard.getData(EXACT_TYPE), now.place);
  if (!pasted) return;
  if (pasted.ok) add(pasted.value.contours, pasted.value.notes);
  else say(pasted.reason);
}

/** Adds the outlines of an SVG file to the drawing. */
export async function bringOutlines(file: File): Promise<void> {
  const now = bench();
  if (!now) return;
  const read =
    file.size > 20_000_000
      ? { ok: false as const, reason: `${file.name} is larger than the 20 MB a drawing may have.` }
      : readSvg(await file.text(), file.name, now.place);
  if (!read.ok) say(read.reason);
  else if (read.value.contours.length === 0) say(`${file.name} holds no outlines.`);
  else add(read.value.contours, read.value.notes);
}
