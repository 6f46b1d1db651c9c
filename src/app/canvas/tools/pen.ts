import { addContour, removeContours, replaceContour } from '../../../core/drawing/edits';
import type { Snapped } from '../../../core/drawing/snapping';
import type { Contour, Point } from '../../../core/geometry/contour';
import { reverseContour } from '../../../core/geometry/contour';
import { paintCatches } from '../paint/gestures';
import type { Brush } from '../useCanvas';
import { toPxX, toPxY } from '../view';
import { caughtPlace, namesOf } from './catching';
import { closed, grown, type Place, shortened } from './penContour';
import { type Hand, onGrid, shortNumber, straightened, type Tool, type Workplace } from './tool';

/** The contour being grown: which one it is, and the handle that leaves its last point, if that was pulled. */
type Growing = { index: number; out: { x: number; y: number } | undefined };
type Pull = {
  x: number;
  y: number;
  handX: number;
  handY: number;
  closes: boolean;
  base: Contour | undefined;
  /** The handle that arrives, once it is broken off from the one that leaves. */
  broken?: Place | undefined;
};

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
    if (Math.hypot(dx, dy) < 2) return p.broken && { out: undefined, into: p.broken };
    return { out: { x: p.x + dx, y: p.y + dy }, into: p.broken ?? { x: p.x - dx, y: p.y - dy } };
  };

  const result = (p: Pull): Contour => {
    const h = handles(p);
    return p.closes && p.base
      ? closed(p.base, growing?.out, h?.into)
      : grown(p.base, growing?.out, { ...p, smooth: !p.broken }, h?.into);
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

  /** Takes the last point back: the contour ends at the one before, which keeps its handle. */
  const takeBack = (base: Contour): void => {
    const at = place.at();
    const index = growing!.index;
    const { contour, out } = shortened(base);
    const done = contour
      ? place.commit((p) => replaceContour(p, { at, index, contour, what: 'Took a point back' }))
      : place.commit((p) => removeContours(p, { at, contours: [index] }));
    if (done) growing = contour && { index, out };
    place.repaint();
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
        // With Alt the arriving handle stays where it is, and only the leaving one follows.
        const broken = hand.alt ? (pull.broken ?? handles(pull)?.into) : undefined;
        pull = { ...pull, broken, handX: far ? x : pull.x, handY: far ? y : pull.y };
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
      if (key !== 'Backspace' && key !== 'Delete') return false;
      const base = current();
      if (!base || pull) return false;
      takeBack(base);
      return true;
    },

    label() {
      const h = pull && handles(pull);
      if (pull && h?.out)
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
      const base = current();
      if (!base) return;
      if (pull) {
        const h = handles(pull);
        if (h) paintPull(brush, { at: pull, ...h });
        return;
      }
      if (!hover) return;
      const at = snapped(hover);
      paintCatches(brush, at);
      const last = base.points[base.points.length - 1]!;
      const start = atStart(hover) ? base.points[0]! : undefined;
      paintNext(brush, last, growing?.out ?? last, start ?? at, start !== undefined);
    },
  };
}

/** The two handles that a pull makes. */
function paintPull(
  { context, view, inks }: Brush,
  { at, out, into }: { at: Place; out: Place | undefined; into: Place },
): void {
  context.strokeStyle = inks.kelp;
  context.lineWidth = 1.25;
  context.beginPath();
  context.moveTo(toPxX(view, into.x), toPxY(view, into.y));
  context.lineTo(toPxX(view, at.x), toPxY(view, at.y));
  if (out) context.lineTo(toPxX(view, out.x), toPxY(view, out.y));
  context.stroke();
  if (!out) return;
  context.beginPath();
  context.arc(toPxX(view, out.x), toPxY(view, out.y), 3.5, 0, Math.PI * 2);
  context.stroke();
}

/** The stretch that a click would add; a ring where it would close the contour. */
function paintNext({ context, view, inks }: Brush, last: Place, out: Place, to: Place, closing: boolean): void {
  const [x, y] = [toPxX(view, to.x), toPxY(view, to.y)];
  context.strokeStyle = inks.kelp;
  context.lineWidth = 1.25;
  context.setLineDash([4, 3]);
  context.beginPath();
  context.moveTo(toPxX(view, last.x), toPxY(view, last.y));
  context.bezierCurveTo(toPxX(view, out.x), toPxY(view, out.y), x, y, x, y);
  context.stroke();
  context.setLineDash([]);
  if (!closing) return;
  context.beginPath();
  context.arc(x, y, 9, 0, Math.PI * 2);
  context.stroke();
}

const HINTS = [
  ['Click', 'a corner; the start closes'],
  ['Drag', 'a curve'],
  ['Shift', 'level, upright, diagonal'],
  ['Alt', 'while pulling: breaks the handle'],
  ['Backspace', 'takes the last point back'],
  ['Esc', 'ends'],
] as const;
