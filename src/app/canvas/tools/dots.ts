import { addContour, replaceContour } from '../../../core/drawing/edits';
import type { Snapped } from '../../../core/drawing/snapping';
import type { Contour, Point } from '../../../core/geometry/contour';
import { curveThrough, type Dot } from '../../../core/geometry/through';
import type { Project } from '../../../core/project/model';
import { paintCatches, paintTarget } from '../paint/gestures';
import { toPxX, toPxY } from '../view';
import { caughtPlace, namesOf } from './catching';
import { type Hand, shortNumber, straightened, type Tool, type Workplace } from './tool';

/** Handles on the grid where they are level or upright, else on tenths. */
function settled(contour: Contour): Contour {
  const n = contour.points.length;
  return {
    ...contour,
    points: contour.points.map((p, i): Point => {
      if (p.type !== 'off') return p;
      const owner = [contour.points[(i - 1 + n) % n]!, contour.points[(i + 1) % n]!].find((q) => q.type !== 'off')!;
      const level = Math.abs(p.y - owner.y) < 0.05;
      const upright = Math.abs(p.x - owner.x) < 0.05;
      const tenth = (v: number) => Math.round(v * 10) / 10;
      return {
        ...p,
        x: upright ? owner.x : level ? Math.round(p.x) : tenth(p.x),
        y: level ? owner.y : upright ? Math.round(p.y) : tenth(p.y),
      };
    }),
  };
}

/**
 * Places points only; a smooth curve goes through them. A click on a placed dot turns it corner or smooth, a drag moves it, a
 * click on the first one closes the shape. The result is plain cubics; every dot is one step of the history.
 */
export function dotsTool(place: Workplace): Tool {
  let dots: Dot[] = [];
  let index: number | undefined;
  let held: { dot: number; from: Hand; moved: boolean; fresh: boolean } | undefined;
  let hover: Hand | undefined;

  /** The growing contour is gone when something else was undone or edited meanwhile. */
  const isThere = () => index !== undefined && place.drawing().contours[index] !== undefined && dots.length > 0;
  const forget = () => {
    dots = [];
    index = undefined;
    held = undefined;
  };
  const at = (hand: Hand): Snapped => {
    const before = dots[(held?.dot ?? dots.length) - 1];
    const [x, y] = hand.shift && before ? straightened(before.x, before.y, hand.x, hand.y) : [hand.x, hand.y];
    return caughtPlace(place, x, y, hand.shift && before ? { ...hand, free: true } : hand);
  };
  const edit = (next: readonly Dot[], closed: boolean, what: string) => {
    const where = place.at();
    const contour = settled(curveThrough(next, closed));
    const old = index;
    return (p: Project) =>
      old === undefined
        ? addContour(p, { at: where, contour, what })
        : replaceContour(p, { at: where, index: old, contour, what: `Drew ${what}` });
  };
  const under = (hand: Hand): number => dots.findIndex((d) => Math.hypot(d.x - hand.x, d.y - hand.y) <= hand.reach);

  return {
    name: 'dots',
    cursor: () => 'crosshair',
    down(hand) {
      hover = hand;
      if (!isThere()) forget();
      const on = under(hand);
      if (on >= 0) {
        held = { dot: on, from: hand, moved: false, fresh: false };
        return;
      }
      const { x, y } = at(hand);
      const dot = { x, y, corner: hand.alt };
      dots = [...dots, dot];
      held = { dot: dots.length - 1, from: hand, moved: false, fresh: true };
      place.preview(edit(dots, false, 'a dot'));
    },
    move(hand) {
      hover = hand;
      if (held) {
        if (Math.hypot(hand.x - held.from.x, hand.y - held.from.y) > hand.reach * 0.4) held.moved = true;
        if (held.moved) {
          const own = held.dot;
          const { x, y } = at(hand);
          dots = dots.map((d, i) => (i === own ? { x, y, corner: d.corner } : d));
          place.preview(edit(dots, false, 'a dot'));
        }
      }
      place.repaint();
    },
    up(hand) {
      if (!held) return;
      const { dot, moved, fresh } = held;
      held = undefined;
      if (!fresh && !moved && dot === 0 && dots.length > 2 && !hand.alt) {
        place.commit(edit(dots, true, 'a shape through dots'));
        forget();
        return;
      }
      if (!fresh && !moved) dots = dots.map((d, i) => (i === dot ? { ...d, corner: !d.corner } : d));
      const old = index;
      if (!place.commit(edit(dots, false, moved && !fresh ? 'a moved dot' : 'a dot'))) forget();
      else if (old === undefined) index = place.drawing().contours.length - 1;
      place.repaint();
    },
    key(key) {
      if ((key === 'Backspace' || key === 'Delete') && isThere() && dots.length > 1) {
        dots = dots.slice(0, -1);
        place.commit(edit(dots, false, 'one dot less'));
        return true;
      }
      if (key.toLowerCase() === 'c' && isThere()) {
        dots = dots.map((d, i) => (i === dots.length - 1 ? { ...d, corner: !d.corner } : d));
        place.commit(edit(dots, false, 'a dot'));
        return true;
      }
      if (key === 'Escape' || key === 'Enter') {
        if (held) {
          if (held.fresh) dots = dots.slice(0, -1);
          place.cancel();
        } else forget();
        held = undefined;
        place.repaint();
        return true;
      }
      return false;
    },
    leave() {
      if (held) place.cancel();
      forget();
    },
    paint(brush) {
      const { context, view, inks } = brush;
      if (dots.length === 0) return;
      context.lineWidth = 1.5;
      dots.forEach((d, i) => {
        context.beginPath();
        if (d.corner) context.rect(toPxX(view, d.x) - 7, toPxY(view, d.y) - 7, 14, 14);
        else context.arc(toPxX(view, d.x), toPxY(view, d.y), 8, 0, Math.PI * 2);
        context.strokeStyle = i === 0 && dots.length > 2 ? inks.kelp : inks.sea;
        context.stroke();
      });
      if (hover && !held && dots.length > 2 && under(hover) === 0) paintTarget(brush, dots[0]!);
      if (hover && !held && under(hover) < 0) {
        paintCatches(brush, at(hover));
        const next = settled(curveThrough([...dots, { ...at(hover), corner: hover.alt }], false));
        context.setLineDash([4, 3]);
        context.strokeStyle = inks.kelp;
        context.lineWidth = 1.25;
        context.beginPath();
        const px = next.points.map((p) => [toPxX(view, p.x), toPxY(view, p.y)] as const);
        context.moveTo(...px[0]!);
        for (let i = 1; i < px.length; ) {
          if (next.points[i]!.type === 'off') {
            context.bezierCurveTo(...px[i]!, ...px[i + 1]!, ...px[i + 2]!);
            i += 3;
          } else context.lineTo(...px[i++]!);
        }
        context.stroke();
        context.setLineDash([]);
      }
    },
    label() {
      const dot = held && dots[held.dot];
      return dot && hover
        ? { x: hover.x, y: hover.y, text: `${shortNumber(dot.x)}, ${shortNumber(dot.y)}${namesOf(at(hover))}` }
        : undefined;
    },
    hints: () => (dots.length === 0 ? START_HINTS : DOT_HINTS),
  };
}

const START_HINTS = [
  ['Click', 'where a point belongs'],
  ['Alt click', 'a corner'],
] as const;
const DOT_HINTS = [
  ['Alt click', 'a corner'],
  ['Click a dot', 'corner or smooth; the first closes'],
  ['Drag a dot', 'moves it'],
  ['Delete', 'takes the last back'],
  ['Enter', 'ends'],
] as const;
