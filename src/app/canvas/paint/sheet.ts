import { shownNumber } from '../../../core/base/notation';
import { type Contour, curvesOf } from '../../../core/geometry/contour';
import type { Drawing, Master, MasterId, Project } from '../../../core/project/model';
import { drawingsOf, flattened } from '../../../core/project/outline';
import { drawingPath, pathData } from '../../../core/project/pathData';
import { leanOf, zonesOf } from '../../../core/project/queries';
import { path2d } from '../../ui/path2d';
import type { Brush } from '../useCanvas';
import { toPxX, toPxY, type View } from '../view';

const FONT = '12px "Source Sans 3 Variable", sans-serif';

/** Metrics lines with their overshoot bands. */
export function paintZones({ context, view, inks, width }: Brush, master: Master): void {
  for (const zone of zonesOf(master)) {
    const y = toPxY(view, zone.position);
    const edge = toPxY(view, zone.position + zone.overshoot);
    context.fillStyle = inks.zone;
    context.fillRect(0, Math.min(y, edge), width, Math.abs(edge - y));
    context.fillStyle = inks.shade;
    context.fillRect(0, Math.round(y) - 0.5, width, 1);
  }
}

/** The lines' names at the right edge, over the neighbours, each with a halo of paper. */
export function paintZoneNames({ context, view, inks, width }: Brush, master: Master): void {
  context.font = FONT;
  context.textAlign = 'right';
  context.textBaseline = 'alphabetic';
  context.lineJoin = 'round';
  let lastLabel = Number.POSITIVE_INFINITY;
  for (const zone of zonesOf(master)) {
    const label = Math.min(toPxY(view, zone.position) - 4, lastLabel - 14);
    lastLabel = label;
    const text = `${zone.name} ${shownNumber(zone.position)}`;
    context.strokeStyle = inks.paper;
    context.lineWidth = 3.5;
    context.strokeText(text, width - 12, label);
    context.fillStyle = inks.quiet;
    context.fillText(text, width - 12, label);
  }
}

/** The two edges of the glyph with its side bearings at their feet. */
export function paintEdges(
  { context, view, inks, height }: Brush,
  { advance, sides, master }: { advance: number; sides: { left: number; right: number } | undefined; master: Master },
): void {
  const { lean, pivot } = leanOf(master);
  // How far an edge stands out at a height of the sheet.
  const out = (py: number) => lean * ((view.originY - py) / view.scale - pivot) * view.scale;
  context.strokeStyle = inks.kelp;
  context.lineWidth = 1;
  context.setLineDash([2, 3]);
  context.beginPath();
  for (const x of [0, advance]) {
    const px = Math.round(toPxX(view, x)) + 0.5;
    context.moveTo(px + out(0), 0);
    context.lineTo(px + out(height), height);
  }
  context.stroke();
  context.setLineDash([]);
  if (!sides) return;
  context.font = '13px "Source Sans 3 Variable", sans-serif';
  context.fillStyle = inks.kelp;
  context.textBaseline = 'top';
  // Above the line of hints at the foot of the sheet.
  const y = Math.min(height - 46, toPxY(view, master.zones.descender.position) + 10);
  context.textAlign = 'left';
  context.fillText(shownNumber(sides.left, 1), toPxX(view, 0) + out(y) + 5, y);
  context.textAlign = 'right';
  context.fillText(shownNumber(sides.right, 1), toPxX(view, advance) + out(y) - 5, y);
}

/** Fills a drawing's outline at an offset along the line. */
export function paintGlyph({ context, view }: Brush, data: string, dx: number, colour: string): void {
  context.save();
  context.translate(toPxX(view, dx), view.originY);
  context.scale(view.scale, -view.scale);
  context.fillStyle = colour;
  context.fill(path2d(data));
  context.restore();
}

/** The outline being drawn: a light fill, parts with a thin sea line and chosen ones in its tint, a thin ink line around its own. */
export function paintOutline(
  brush: Brush,
  project: Project,
  master: MasterId,
  drawing: Drawing,
  parts: readonly number[],
): void {
  const { context, view, inks } = brush;
  if (drawing.components.length > 0) paintGlyph(brush, drawingPath(project, master, drawing), 0, inks.fill);
  drawing.components.forEach((component, i) => {
    const path = pathData(
      flattened({ ...drawing, contours: [], components: [component] }, drawingsOf(project, master)),
    );
    if (parts.includes(i)) paintGlyph(brush, path, 0, inks.shade);
    context.save();
    context.translate(view.originX, view.originY);
    context.scale(view.scale, -view.scale);
    context.strokeStyle = parts.includes(i) ? inks.kelp : inks.sea;
    context.lineWidth = (parts.includes(i) ? 2 : 1.25) / view.scale;
    context.stroke(path2d(path));
    context.restore();
  });
  // What is drawn changes with every move: it goes to the canvas as it is, without a path kept for later.
  context.beginPath();
  for (const contour of drawing.contours) traceContour(context, view, contour);
  if (drawing.components.length === 0 && drawing.contours.every((c) => c.closed)) {
    context.fillStyle = inks.fill;
    context.fill();
  } else if (drawing.components.length === 0) paintGlyph(brush, drawingPath(project, master, drawing), 0, inks.fill);
  context.strokeStyle = inks.ink;
  context.lineWidth = 1.25;
  context.lineJoin = 'round';
  context.stroke();
}

/** Adds a contour to the canvas's path, in pixels. */
export function traceContour(context: CanvasRenderingContext2D, view: View, contour: Contour): void {
  const curves = curvesOf(contour);
  curves.forEach((c, i) => {
    if (i === 0) context.moveTo(toPxX(view, c[0]!), toPxY(view, c[1]!));
    const [x, y] = [toPxX(view, c[c.length - 2]!), toPxY(view, c[c.length - 1]!)];
    if (c.length === 4) context.lineTo(x, y);
    else if (c.length === 6) context.quadraticCurveTo(toPxX(view, c[2]!), toPxY(view, c[3]!), x, y);
    else context.bezierCurveTo(toPxX(view, c[2]!), toPxY(view, c[3]!), toPxX(view, c[4]!), toPxY(view, c[5]!), x, y);
  });
  if (contour.closed && curves.length > 0) context.closePath();
}
