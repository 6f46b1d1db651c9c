import { keyParts, type PointKey } from '../../../core/drawing/points';
import type { Contour } from '../../../core/geometry/contour';
import type { Drawing } from '../../../core/project/model';
import type { Inks } from '../useCanvas';
import { toPxX, toPxY, type View } from '../view';

const DIAMOND = 5.2;
const CAPSULE = 6.2;
const CAPSULE_HALF = 3.1;
const RING = 3.1;

const indices = new WeakMap<ReadonlySet<PointKey>, Map<number, Set<number>>>();
const NONE: ReadonlySet<number> = new Set();

/** Selected point indices by contour, made once per selection. */
function selectedIndices(selection: ReadonlySet<PointKey>): ReadonlyMap<number, ReadonlySet<number>> {
  let map = indices.get(selection);
  if (!map) {
    map = new Map();
    for (const key of selection) {
      const [contour, point] = keyParts(key);
      const set = map.get(contour) ?? new Set<number>();
      map.set(contour, set.add(point));
    }
    indices.set(selection, map);
  }
  return map;
}

/** Draws handles, points, starts and open ends of a drawing. Nothing is allocated per point. */
export function paintPoints(context: CanvasRenderingContext2D, view: View, drawing: Drawing, selection: ReadonlySet<PointKey>, inks: Inks): void {
  const chosen = selectedIndices(selection);
  drawing.contours.forEach((contour, c) => {
    const own = chosen.get(c) ?? NONE;
    paintHandles(context, view, contour, inks);
    paintStart(context, view, contour, c, inks);
    const { points } = contour;
    for (let i = 0; i < points.length; i++) {
      const p = points[i]!;
      const x = toPxX(view, p.x);
      const y = toPxY(view, p.y);
      const selected = own.has(i);
      if (p.type === 'off') paintRing(context, x, y, selected, inks);
      else if (p.smooth) paintCapsule(context, x, y, tangentAngle(contour, i), selected, inks);
      else paintDiamond(context, x, y, selected, inks);
    }
  });
}

function paintHandles(context: CanvasRenderingContext2D, view: View, contour: Contour, inks: Inks): void {
  const { points, closed } = contour;
  const n = points.length;
  context.strokeStyle = inks.quiet;
  context.lineWidth = 1;
  context.beginPath();
  for (let i = 0; i < n; i++) {
    if (!closed && i === n - 1) break;
    const a = points[i]!;
    const b = points[(i + 1) % n]!;
    if (a.type === 'off' && b.type === 'off') continue;
    if (a.type !== 'off' && b.type !== 'off') continue;
    context.moveTo(toPxX(view, a.x), toPxY(view, a.y));
    context.lineTo(toPxX(view, b.x), toPxY(view, b.y));
  }
  context.stroke();
}

/** The angle on screen of the tangent at a smooth point. */
function tangentAngle(contour: Contour, i: number): number {
  const { points, closed } = contour;
  const n = points.length;
  // The ends of an open contour have one side only.
  const before = !closed && i === 0 ? points[0]! : points[(i - 1 + n) % n]!;
  const after = !closed && i === n - 1 ? points[i]! : points[(i + 1) % n]!;
  return Math.atan2(-(after.y - before.y), after.x - before.x);
}

function paintDiamond(context: CanvasRenderingContext2D, x: number, y: number, selected: boolean, inks: Inks): void {
  context.beginPath();
  context.moveTo(x, y - DIAMOND);
  context.lineTo(x + DIAMOND, y);
  context.lineTo(x, y + DIAMOND);
  context.lineTo(x - DIAMOND, y);
  context.closePath();
  fillAndEdge(context, selected, inks);
}

function paintCapsule(context: CanvasRenderingContext2D, x: number, y: number, angle: number, selected: boolean, inks: Inks): void {
  context.beginPath();
  const dx = Math.cos(angle) * (CAPSULE - CAPSULE_HALF);
  const dy = Math.sin(angle) * (CAPSULE - CAPSULE_HALF);
  context.arc(x + dx, y + dy, CAPSULE_HALF, angle - Math.PI / 2, angle + Math.PI / 2);
  context.arc(x - dx, y - dy, CAPSULE_HALF, angle + Math.PI / 2, angle - Math.PI / 2);
  context.closePath();
  fillAndEdge(context, selected, inks);
}

function paintRing(context: CanvasRenderingContext2D, x: number, y: number, selected: boolean, inks: Inks): void {
  context.beginPath();
  context.arc(x, y, RING, 0, Math.PI * 2);
  fillAndEdge(context, selected, inks);
}

function fillAndEdge(context: CanvasRenderingContext2D, selected: boolean, inks: Inks): void {
  context.fillStyle = selected ? inks.kelp : inks.panel;
  context.strokeStyle = selected ? inks.kelp : inks.ink;
  context.lineWidth = 1.3;
  context.fill();
  context.stroke();
}

/** The start: a wedge that points the way the contour goes, with the contour's number; an open end gets a bar. */
function paintStart(context: CanvasRenderingContext2D, view: View, contour: Contour, index: number, inks: Inks): void {
  const { points } = contour;
  const n = points.length;
  const s = points.findIndex((p) => p.type !== 'off');
  if (s < 0) return;
  const p = points[s]!;
  const next = points[(s + 1) % n];
  const x = toPxX(view, p.x);
  const y = toPxY(view, p.y);
  if (next && n > 1) {
    const angle = Math.atan2(-(next.y - p.y), next.x - p.x);
    context.save();
    context.translate(x, y);
    context.rotate(angle);
    context.beginPath();
    context.moveTo(19, 0);
    context.lineTo(8, -5);
    context.lineTo(8, 5);
    context.closePath();
    context.fillStyle = contour.closed ? inks.ink : inks.marigold;
    context.fill();
    context.restore();
  }
  context.fillStyle = inks.ink;
  context.font = '600 11px "Source Sans 3 Variable", sans-serif';
  context.textAlign = 'right';
  context.textBaseline = 'middle';
  context.fillText(String(index + 1), x - 8, y + 10);
}
