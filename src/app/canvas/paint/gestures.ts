import type { Snapped } from '../../../core/drawing/snapping';
import type { Label } from '../tools/tool';
import type { Brush } from '../useCanvas';
import { toPxX, toPxY } from '../view';

type Place = { x: number; y: number };

/** The rectangle that a hand sweeps. */
export function paintSweep({ context, view, inks }: Brush, from: Place, to: Place): void {
  const x = toPxX(view, Math.min(from.x, to.x));
  const y = toPxY(view, Math.max(from.y, to.y));
  const w = Math.abs(to.x - from.x) * view.scale;
  const h = Math.abs(to.y - from.y) * view.scale;
  context.fillStyle = inks.kelp;
  context.globalAlpha = 0.1;
  context.fillRect(x, y, w, h);
  context.globalAlpha = 1;
  context.strokeStyle = inks.kelp;
  context.lineWidth = 1;
  context.strokeRect(x, y, w, h);
}

/** The lines that a moved place has caught on. */
export function paintCatches({ context, view, inks }: Brush, { catches, x, y }: Snapped): void {
  context.strokeStyle = inks.sea;
  context.lineWidth = 1;
  context.setLineDash([5, 3]);
  context.beginPath();
  for (const c of catches) {
    const [px, py] = [toPxX(view, x), toPxY(view, y)];
    if (c.kind === 'level') {
      context.moveTo(px - 600, Math.round(toPxY(view, c.y)) + 0.5);
      context.lineTo(px + 600, Math.round(toPxY(view, c.y)) + 0.5);
    } else if (c.kind === 'upright') {
      context.moveTo(Math.round(toPxX(view, c.x)) + 0.5, py - 600);
      context.lineTo(Math.round(toPxX(view, c.x)) + 0.5, py + 600);
    } else {
      const [dx, dy] = [Math.cos(c.angle) * 900, Math.sin(c.angle) * 900];
      context.moveTo(px - dx, py + dy);
      context.lineTo(px + dx, py - dy);
    }
  }
  context.stroke();
  context.setLineDash([]);
}

/** A ring around the place that something will be joined to. */
export function paintTarget({ context, view, inks }: Brush, { x, y }: Place): void {
  context.strokeStyle = inks.kelp;
  context.lineWidth = 2;
  context.beginPath();
  context.arc(toPxX(view, x), toPxY(view, y), 10, 0, Math.PI * 2);
  context.stroke();
}

/** A number beside the hand, on a small tag. */
export function paintLabel({ context, view, inks, width }: Brush, { x, y, text }: Label): void {
  context.font = '600 12px "Source Sans 3 Variable", sans-serif';
  context.textAlign = 'left';
  context.textBaseline = 'middle';
  const wide = context.measureText(text).width + 12;
  const px = Math.min(toPxX(view, x) + 16, width - wide - 6);
  const py = toPxY(view, y) + 22;
  context.fillStyle = inks.ink;
  context.beginPath();
  context.roundRect(px, py - 10, wide, 20, 5);
  context.fill();
  context.fillStyle = inks.paper;
  context.fillText(text, px + 6, py + 0.5);
}
