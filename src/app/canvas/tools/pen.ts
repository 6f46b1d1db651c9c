import { addContour, replaceContour } from '../../../core/drawing/edits';
import type { Snapped } from '../../../core/drawing/snapping';
import type { Contour, Point } from '../../../core/geometry/contour';
import { reverseContour } from '../../../core/geometry/contour';
import { paintCatches } from '../paint/gestures';
import { toPxX, toPxY } from '../view';
import { caughtPlace, namesOf } from './catching';
import { type Hand, onGrid, shortNumber, straightened, type Tool, type Workplace } from './tool';

/** The contour being grown: which one it is, and the handle that leaves its last point, if that was pulled. */
type Growing = { index: number; out: { x: number; y: number } | undefined };
type Pull = { x: number; y: number; handX: number; handY: number; closes: boolean; base: Contour | undefined };

const on = (x: number, y: number, type: Point['type'], smooth: boolean): Point =>
  smooth ? { x, y, type, smooth } : { x, y, type };
const off = (x: number, y: number): Point => ({ x, y, type: 'off' });

type Place = { x: number; y: number };

/**
 * The two handles of a curve of which one was pulled. The other lies a third of the way towards it: the curve leaves the
 * corner in the same direction as with no handle at all, and no handle has zero length.
 */
function bothHandles(from: Place, out: Place | undefined, into: Place | undefined, to: Place): [Place, Place] {
  const third = (p: Place, q: Place): Place => ({
    x: Math.round(p.x + (q.x - p.x) / 3),
    y: Math.round(p.y + (q.y - p.y) / 3),
  });
  const a = out ?? third(from, into ?? to);
  return [a, into ?? third(to, a)];
}

/** A contour with one more point at its end: a line, or a curve when either side has a handle. */
function grown(
  base: Contour | undefined,
  out: { x: number; y: number } | undefined,
  x: number,
  y: number,
  into: { x: number; y: number } | undefined,
): Contour {
  const smooth = into !== undefined;
  if (!base || base.points.length === 0) return { closed: false, points: [on(x, y, 'line', smooth)] };
  const last = base.points[base.points.length - 1]!;
  if (!out && !into) return { ...base, points: [...base.points, on(x, y, 'line', false)] };
  const [a, b] = bothHandles(last, out, into, { x, y });
  return { ...base, points: [...base.points, off(a.x, a.y), off(b.x, b.y), on(x, y, 'curve', smooth)] };
}

/** The contour closed onto its start, by a line or a curve. */
function closed(
  base: Contour,
  out: { x: number; y: number } | undefined,
  into: { x: number; y: number } | undefined,
): Contour {
  const [start, ...rest] = base.points as [Point, ...Point[]];
  const last = base.points[base.points.length - 1]!;
  if (!out && !into) return { ...base, closed: true, points: [{ ...start, type: 'line' }, ...rest] };
  const [a, b] = bothHandles(last, out, into, start);
  const leaving = rest[0];
  const straightOn = into !== undefined && leaving !== undefined && inLine(into, start, leaving);
  return {
    ...base,
    closed: true,
    points: [on(start.x, start.y, 'curve', straightOn), ...rest, off(a.x, a.y), off(b.x, b.y)],
  };
}

function inLine(a: { x: number; y: number }, p: { x: number; y: number }, b: { x: number; y: number }): boolean {
  const cross = (p.x - a.x) * (b.y - p.y) - (p.y - a.y) * (b.x - p.x);
  const dot = (p.x - a.x) * (b.x - p.x) + (p.y - a.y) * (b.y - p.y);
  return dot > 0 && Math.abs(cross) < 0.02 * dot;
}

/**
 * Draws contours: a click sets a corner, a drag pulls a curve, a click on the start closes. Beginning on the loose end of
 * an open contour goes on with it. Every point is one step of the history.
 */
export function penTool(place: Workplace): Tool {
  let growing: Growing | undefined;
  let pull: Pull | undefined;
  let hover: Hand | undefined;

  const current = (): Contour | undefined => {
    const contour = growing && place.drawing().contours[growing.index];
    return contour && !contour.closed ? contour : undefined;
  };
  const snapped = (hand: Hand): Snapped => {
    const base = current();
    const last = base?.points[base.points.length - 1];
    const [x, y] = hand.shift && last ? straightened(last.x, last.y, hand.x, hand.y) : [hand.x, hand.y];
    return caughtPlace(place, x, y, hand.shift && last ? { ...hand, free: true } : hand);
  };
  const atStart = (hand: Hand): boolean => {
    const start = current()?.points[0];
    return (
      start !== undefined &&
      (current()?.points.length ?? 0) > 1 &&
      Math.hypot(hand.x - start.x, hand.y - start.y) <= hand.reach
    );
  };
  /** The loose end of an open contour under the hand. */
  const looseEnd = (hand: Hand): { index: number; atStart: boolean } | undefined => {
    const contours = place.drawing().contours;
    for (const [index, c] of contours.entries()) {
      if (c.closed || c.points.length === 0) continue;
      const near = (p: Point) => Math.hypot(p.x - hand.x, p.y - hand.y) <= hand.reach;
      if (near(c.points[c.points.length - 1]!)) return { index, atStart: false };
      if (near(c.points[0]!)) return { index, atStart: true };
    }
    return undefined;
  };

  /** Where the two handles lie for a pull: the one leaving follows the hand, the one arriving mirrors it. */
  const handles = (p: Pull) => {
    const { grid } = place.project().settings;
    const dx = onGrid(p.handX, grid) - p.x;
    const dy = onGrid(p.handY, grid) - p.y;
    if (Math.hypot(dx, dy) < 2) return undefined;
    return { out: { x: p.x + dx, y: p.y + dy }, into: { x: p.x - dx, y: p.y - dy } };
  };

  const result = (p: Pull): Contour => {
    const h = handles(p);
    return p.closes && p.base ? closed(p.base, growing?.out, h?.into) : grown(p.base, growing?.out, p.x, p.y, h?.into);
  };

  const apply = (p: Pull) => (project: Parameters<typeof addContour>[0]) => {
    const at = place.at();
    const contour = result(p);
    if (!p.base || !growing) return addContour(project, { at, contour, what: 'a point' });
    return replaceContour(project, {
      at,
      index: growing.index,
      contour,
      what: p.closes ? 'Closed a contour' : 'Drew a point',
    });
  };

  return {
    name: 'pen',
    cursor: () => 'crosshair',

    down(hand) {
      hover = hand;
      if (!current()) growing = undefined;
      if (!growing) {
        const end = looseEnd(hand);
        if (end) {
          if (end.atStart) {
            const at = place.at();
            const contour = reverseContour(place.drawing().contours[end.index]!);
            place.commit((p) => replaceContour(p, { at, index: end.index, contour, what: 'Reversed a contour' }));
          }
          growing = { index: end.index, out: undefined };
          return;
        }
      }
      const base = current();
      const closes = atStart(hand);
      const { x, y } = closes ? base!.points[0]! : snapped(hand);
      pull = { x, y, handX: x, handY: y, closes, base };
      const now = pull;
      place.preview(apply(now));
    },

    move(hand) {
      hover = hand;
      if (pull) {
        const [x, y] = hand.shift ? straightened(pull.x, pull.y, hand.x, hand.y) : [hand.x, hand.y];
        const far = Math.hypot(x - pull.x, y - pull.y) > hand.reach * 0.4;
        pull = { ...pull, handX: far ? x : pull.x, handY: far ? y : pull.y };
        place.preview(apply(pull));
      }
      place.repaint();
    },

    up() {
      if (!pull) return;
      const done = pull;
      pull = undefined;
      const h = handles(done);
      const index = growing && done.base ? growing.index : place.drawing().contours.length - 1;
      if (!place.commit(apply(done))) {
        growing = undefined;
        return;
      }
      growing = done.closes
        ? undefined
        : { index: done.base ? index : place.drawing().contours.length - 1, out: h?.out };
      place.repaint();
    },

    key(key) {
      if (key === 'Escape' || key === 'Enter') {
        if (pull) place.cancel();
        pull = undefined;
        growing = undefined;
        place.repaint();
        return true;
      }
      return false;
    },

    label() {
      const h = pull && handles(pull);
      if (pull && h)
        return {
          x: pull.handX,
          y: pull.handY,
          text: `${shortNumber(Math.hypot(h.out.x - pull.x, h.out.y - pull.y))} long`,
        };
      if (!hover || !current()) return undefined;
      const at = snapped(hover);
      return { x: hover.x, y: hover.y, text: `${shortNumber(at.x)}, ${shortNumber(at.y)}${namesOf(at)}` };
    },
    hints: () => HINTS,
    leave() {
      if (pull) place.cancel();
      pull = undefined;
      growing = undefined;
    },

    paint(brush) {
      const { context, view, inks } = brush;
      const base = current();
      if (!base) return;
      const last = base.points[base.points.length - 1]!;
      context.strokeStyle = inks.kelp;
      context.lineWidth = 1.25;
      if (pull) {
        const h = handles(pull);
        if (h) {
          context.beginPath();
          context.moveTo(toPxX(view, h.into.x), toPxY(view, h.into.y));
          context.lineTo(toPxX(view, h.out.x), toPxY(view, h.out.y));
          context.stroke();
          context.beginPath();
          context.arc(toPxX(view, h.out.x), toPxY(view, h.out.y), 3.5, 0, Math.PI * 2);
          context.stroke();
        }
        return;
      }
      if (!hover) return;
      paintCatches(brush, snapped(hover));
      context.strokeStyle = inks.kelp;
      context.lineWidth = 1.25;
      const closing = atStart(hover);
      const { x, y } = closing ? base.points[0]! : snapped(hover);
      const out = growing?.out ?? last;
      context.setLineDash([4, 3]);
      context.beginPath();
      context.moveTo(toPxX(view, last.x), toPxY(view, last.y));
      context.bezierCurveTo(
        toPxX(view, out.x),
        toPxY(view, out.y),
        toPxX(view, x),
        toPxY(view, y),
        toPxX(view, x),
        toPxY(view, y),
      );
      context.stroke();
      context.setLineDash([]);
      if (closing) {
        context.beginPath();
        context.arc(toPxX(view, x), toPxY(view, y), 9, 0, Math.PI * 2);
        context.stroke();
      }
    },
  };
}

const HINTS = [
  ['Click', 'a corner; the start closes'],
  ['Drag', 'a curve'],
  ['Shift', 'level, upright, diagonal'],
  ['Esc', 'ends'],
] as const;
