import type { Gauge, Stretch } from '../../../core/drawing/gauge';
import { stretchesAlong } from '../../../core/drawing/gauge';
import { type Contour, curvesOf } from '../../../core/geometry/contour';
import { pointAt } from '../../../core/geometry/curve';
import { curvatureAt, leftNormal } from '../../../core/geometry/offset';
import type { Guide } from '../../../core/project/model';
import type { MeasuredStroke } from '../../../core/reweighting/strokes';
import { path2d } from '../../ui/path2d';
import { shortNumber } from '../tools/tool';
import type { Brush } from '../useCanvas';
import { toPxX, toPxY } from '../view';
import { traceContour } from './sheet';

const FONT = '600 12px "Source Sans 3 Variable", sans-serif';

/** Guides right across the sheet, their names at the left. */
export function paintGuides({ context, view, inks, width, height }: Brush, guides: readonly Guide[]): void {
  const far = width + height;
  context.strokeStyle = inks.sea;
  context.lineWidth = 1;
  context.setLineDash([10, 4]);
  context.beginPath();
  for (const g of guides) {
    const [px, py] = [toPxX(view, g.x), toPxY(view, g.y)];
    const turn = (g.angle * Math.PI) / 180;
    const [dx, dy] = [Math.cos(turn) * far * 3, Math.sin(turn) * far * 3];
    context.moveTo(px - dx, py + dy);
    context.lineTo(px + dx, py - dy);
  }
  context.stroke();
  context.setLineDash([]);
  context.font = FONT;
  context.fillStyle = inks.sea;
  context.textAlign = 'left';
  context.textBaseline = 'bottom';
  for (const g of guides) if (g.name && g.angle % 180 === 0) context.fillText(g.name, 14, toPxY(view, g.y) - 3);
}

/** Gauges with what lies between all their crossings: stems solid, counters dashed, each with its number. */
export function paintGauges(
  { context, view, inks }: Brush,
  contours: readonly Contour[],
  gauges: readonly Gauge[],
): void {
  context.font = FONT;
  context.textAlign = 'center';
  context.textBaseline = 'middle';
  for (const gauge of gauges) {
    context.strokeStyle = inks.violet;
    context.lineWidth = 0.75;
    context.globalAlpha = 0.55;
    context.beginPath();
    context.moveTo(toPxX(view, gauge.x0), toPxY(view, gauge.y0));
    context.lineTo(toPxX(view, gauge.x1), toPxY(view, gauge.y1));
    context.stroke();
    context.globalAlpha = 1;
    for (const stretch of stretchesAlong(contours, gauge)) paintStretch({ context, view, inks }, stretch, inks.violet);
  }
}

/** Strokes of a drawing from edge to edge, each with its width; what misses the width of its fellows by a little in another ink. */
export function paintStrokes(
  brush: Pick<Brush, 'context' | 'view' | 'inks'>,
  strokes: readonly (MeasuredStroke & { missed: boolean })[],
): void {
  brush.context.font = FONT;
  brush.context.textAlign = 'center';
  brush.context.textBaseline = 'middle';
  for (const { from, to, width, missed } of strokes)
    paintStretch(brush, { from, to, length: width, ink: true }, missed ? brush.inks.brick : brush.inks.violet);
}

/** A measured stretch: solid for ink, dashed for white, its ends and its number. */
function paintStretch(
  { context, view, inks }: Pick<Brush, 'context' | 'view' | 'inks'>,
  { from, to, length, ink }: Stretch,
  color: string,
): void {
  const [x0, y0, x1, y1] = [toPxX(view, from[0]), toPxY(view, from[1]), toPxX(view, to[0]), toPxY(view, to[1])];
  const long = Math.hypot(x1 - x0, y1 - y0) || 1;
  const [nx, ny] = [((y1 - y0) / long) * 4, ((x0 - x1) / long) * 4];
  context.strokeStyle = color;
  context.lineWidth = ink ? 2.5 : 1.25;
  context.setLineDash(ink ? [] : [3, 3]);
  context.beginPath();
  context.moveTo(x0, y0);
  context.lineTo(x1, y1);
  context.stroke();
  context.setLineDash([]);
  context.lineWidth = 1.25;
  context.beginPath();
  for (const [x, y] of [
    [x0, y0],
    [x1, y1],
  ] as const) {
    context.moveTo(x - nx, y - ny);
    context.lineTo(x + nx, y + ny);
  }
  context.stroke();
  if (long < 10) return;
  const text = shortNumber(length);
  const wide = context.measureText(text).width + 8;
  const [mx, my] = [
    (x0 + x1) / 2,
    (y0 + y1) / 2 + (Math.abs(x1 - x0) >= Math.abs(y1 - y0) ? (long > wide + 6 ? 0 : -13) : 0),
  ];
  context.fillStyle = ink ? color : inks.panel;
  context.beginPath();
  context.roundRect(mx - wide / 2, my - 8, wide, 16, 4);
  context.fill();
  if (!ink) context.stroke();
  context.fillStyle = ink ? inks.panel : color;
  context.fillText(text, mx, my + 0.5);
}

/** Teeth along a curve, so many pixels apart, and how long a tooth is in pixels for the curvature of a circle a fifth of the em wide. */
const MOST_TEETH = 14;
const LEAST_TEETH = 4;
const TEETH_PX = 8;
const TOOTH_PX = 26;

/** Curvature combs: teeth as long as the outline bends, on its outside; where they jump, curvature does. */
export function paintCombs({ context, view, inks }: Brush, contours: readonly Contour[], unitsPerEm: number): void {
  const scale = (TOOTH_PX * unitsPerEm) / 10;
  context.strokeStyle = inks.violet;
  context.lineWidth = 0.75;
  context.beginPath();
  // The line over the tips is kept until all teeth are drawn.
  const tips: number[] = [];
  for (const contour of contours) {
    for (const c of curvesOf(contour)) {
      if (c.length === 4) continue;
      const chord = Math.hypot(c[c.length - 2]! - c[0]!, c[c.length - 1]! - c[1]!) * view.scale;
      const teeth = Math.max(LEAST_TEETH, Math.min(MOST_TEETH, Math.round(chord / TEETH_PX)));
      for (let k = 0; k <= teeth; k++) {
        const t = k / teeth;
        const [x, y] = pointAt(c, t);
        const [nx, ny] = leftNormal(c, t);
        const long = Math.max(-160, Math.min(160, -curvatureAt(c, t) * scale));
        const px = toPxX(view, x);
        const py = toPxY(view, y);
        context.moveTo(px, py);
        context.lineTo(px + nx * long, py - ny * long);
        tips.push(k === 0 ? 1 : 0, px + nx * long, py - ny * long);
      }
    }
  }
  context.globalAlpha = 0.5;
  context.stroke();
  context.globalAlpha = 1;
  context.beginPath();
  for (let i = 0; i < tips.length; i += 3) {
    if (tips[i] === 1) context.moveTo(tips[i + 1]!, tips[i + 2]!);
    else context.lineTo(tips[i + 1]!, tips[i + 2]!);
  }
  context.stroke();
}

/** Contours that go the wrong way, set off where they are. */
export function paintWrongWay(
  { context, view, inks }: Brush,
  contours: readonly Contour[],
  wrong: readonly number[],
): void {
  context.strokeStyle = inks.marigold;
  context.lineWidth = 3;
  context.setLineDash([6, 4]);
  for (const i of wrong) {
    context.beginPath();
    traceContour(context, view, contours[i]!);
    context.stroke();
  }
  context.setLineDash([]);
}

/** Where marks sit: a small cross with its name, and a mark that sits there, faint. */
export function paintAnchors(
  brush: Brush,
  anchors: readonly { name: string; x: number; y: number }[],
  ghosts: readonly { path: string; x: number; y: number }[],
): void {
  const { context, view, inks } = brush;
  for (const g of ghosts) {
    context.save();
    context.translate(view.originX, view.originY);
    context.scale(view.scale, -view.scale);
    context.translate(g.x, g.y);
    context.globalAlpha = 0.22;
    context.fillStyle = inks.violet;
    context.fill(path2d(g.path));
    context.restore();
  }
  context.strokeStyle = inks.violet;
  context.fillStyle = inks.violet;
  context.lineWidth = 1.5;
  context.font = '12px "Source Sans 3", sans-serif';
  context.textAlign = 'left';
  for (const { name, x, y } of anchors) {
    const [px, py] = [toPxX(view, x), toPxY(view, y)];
    context.beginPath();
    context.moveTo(px - 6, py);
    context.lineTo(px + 6, py);
    context.moveTo(px, py - 6);
    context.lineTo(px, py + 6);
    context.stroke();
    context.fillText(name, px + 8, py - 6);
  }
}
