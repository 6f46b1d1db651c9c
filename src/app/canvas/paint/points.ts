import { keyParts, type PointKey } from '../../../core/drawing/points';
import type { Contour } from '../../../core/geometry/contour';
import type { Drawing } from '../../../core/project/model';
import type { Brush, Inks } from '../useCanvas';
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

/**
 * Draws handles, points, starts and open ends of a drawing: marks of one kind are one path, however many there are. Marks end
 * with a line back to where they began, since closing each of hundreds of parts of a path costs a millisecond a frame.
 */
export function paintPoints({ context, view, inks }: Brush, drawing: Drawing, selection: ReadonlySet<PointKey>): void {
  const chosen = selectedIndices(selection);
  for (const contour of drawing.contours) paintHandles(context, view, contour, inks);
  paintStarts(context, view, drawing.contours, inks);
  for (const selected of [false, true]) {
    if (selected && chosen.size === 0) break;
    context.beginPath();
    drawing.contours.forEach((contour, c) => {
      const own = chosen.get(c) ?? NONE;
      if (selected && own.size === 0) return;
      const { points } = contour;
      for (let i = 0; i < points.length; i++) {
        if (own.has(i) !== selected) continue;
        const p = points[i]!;
        const x = toPxX(view, p.x);
        const y = toPxY(view, p.y);
        if (p.type === 'off') addRing(context, x, y);
        else if (p.smooth) addCapsule(context, x, y, tangentAngle(contour, i));
        else addDiamond(context, x, y);
      }
    });
    context.fillStyle = selected ? inks.kelp : inks.panel;
    context.strokeStyle = selected ? inks.kelp : inks.ink;
    context.lineWidth = 1.3;
    context.fill();
    context.stroke();
  }
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

function addDiamond(context: CanvasRenderingContext2D, x: number, y: number): void {
  context.moveTo(x, y - DIAMOND);
  context.lineTo(x + DIAMOND, y);
  context.lineTo(x, y + DIAMOND);
  context.lineTo(x - DIAMOND, y);
  context.lineTo(x, y - DIAMOND);
}

function addCapsule(context: CanvasRenderingContext2D, x: number, y: number, angle: number): void {
  const dx = Math.cos(angle) * (CAPSULE - CAPSULE_HALF);
  const dy = Math.sin(angle) * (CAPSULE - CAPSULE_HALF);
  const [startX, startY] = [x + dx + Math.sin(angle) * CAPSULE_HALF, y + dy - Math.cos(angle) * CAPSULE_HALF];
  context.moveTo(startX, startY);
  context.arc(x + dx, y + dy, CAPSULE_HALF, angle - Math.PI / 2, angle + Math.PI / 2);
  context.arc(x - dx, y - dy, CAPSULE_HALF, angle + Math.PI / 2, angle - Math.PI / 2);
  context.lineTo(startX, startY);
}

function addRing(context: CanvasRenderingContext2D, x: number, y: number): void {
  context.moveTo(x + RING, y);
  context.arc(x, y, RING, 0, Math.PI * 2);
}

/** The starts: wedges that point the way the contours go, each with its contour's number; an open contour's in marigold. */
function paintStarts(context: CanvasRenderingContext2D, view: View, contours: readonly Contour[], inks: Inks): void {
  for (const closed of [true, false]) {
    context.beginPath();
    for (const contour of contours) if (contour.closed === closed) addWedge(context, view, contour);
    context.fillStyle = closed ? inks.ink : inks.marigold;
    context.fill();
  }
  context.fillStyle = inks.ink;
  context.font = '600 11px "Source Sans 3 Variable", sans-serif';
  context.textAlign = 'right';
  context.textBaseline = 'middle';
  contours.forEach((contour, i) => {
    const p = contour.points.find((q) => q.type !== 'off');
    if (p) context.fillText(String(i + 1), toPxX(view, p.x) - 8, toPxY(view, p.y) + 10);
  });
}

function addWedge(context: CanvasRenderingContext2D, view: View, { points }: Contour): void {
  const s = points.findIndex((p) => p.type !== 'off');
  const p = points[s];
  const next = points[(s + 1) % points.length];
  if (!p || !next || points.length < 2) return;
  const angle = Math.atan2(-(next.y - p.y), next.x - p.x);
  const [c, d] = [Math.cos(angle), Math.sin(angle)];
  const [x, y] = [toPxX(view, p.x), toPxY(view, p.y)];
  context.moveTo(x + 19 * c, y + 19 * d);
  context.lineTo(x + 8 * c + 5 * d, y + 8 * d - 5 * c);
  context.lineTo(x + 8 * c - 5 * d, y + 8 * d + 5 * c);
}
