import { byContour } from '../../../core/drawing/points';
import { cutContours } from '../../../core/drawing/shapeEdits';
import { cutAlong } from '../../../core/geometry/cut';
import type { Project } from '../../../core/project/model';
import { paintCatches } from '../paint/gestures';
import { toPxX, toPxY } from '../view';
import { caughtPlace, namesOf } from './catching';
import { type Hand, straightened, type Tool, type Workplace } from './tool';

/**
 * Cuts outlines along a line that is drawn by a drag: Shift keeps it level, upright or diagonal. Both ends catch on points
 * and lines; only chosen contours are cut where some are chosen.
 */
export function bladeTool(place: Workplace): Tool {
  let from: Hand | undefined;
  let to: Hand | undefined;
  let hover: Hand | undefined;

  const start = () => caughtPlace(place, from!.x, from!.y, from!);
  const end = (hand: Hand) => {
    const held = start();
    if (!hand.shift) return caughtPlace(place, hand.x, hand.y, hand);
    const [x, y] = straightened(held.x, held.y, hand.x, hand.y);
    return caughtPlace(place, x, y, { ...hand, free: true });
  };
  const line = (hand: Hand) => {
    const [a, b] = [start(), end(hand)];
    return { from: [a.x, a.y] as const, to: [b.x, b.y] as const };
  };
  const chosen = () => [...byContour(place.drawing(), place.selection()).keys()];
  const forget = () => {
    from = undefined;
    to = undefined;
  };

  return {
    name: 'blade',
    cursor: () => 'crosshair',
    down(hand) {
      from = hand;
      to = undefined;
    },
    move(hand) {
      hover = hand;
      if (from) to = hand;
      place.repaint();
    },
    up(hand) {
      if (!from) return;
      const drawn = line(hand);
      forget();
      if (Math.hypot(drawn.to[0] - drawn.from[0], drawn.to[1] - drawn.from[1]) < 1) return place.repaint();
      const at = place.at('structure');
      const contours = chosen();
      if (place.commit((p: Project) => cutContours(p, { at, ...drawn, contours }))) place.select(new Set());
      place.repaint();
    },
    key(key) {
      if (key !== 'Escape' || !from) return false;
      forget();
      place.repaint();
      return true;
    },
    leave() {
      forget();
      hover = undefined;
    },
    paint(brush) {
      if (!from || !to) {
        if (hover) paintCatches(brush, caughtPlace(place, hover.x, hover.y, hover));
        return;
      }
      const { context, view, inks } = brush;
      const drawn = line(to);
      paintCatches(brush, end(to));
      context.strokeStyle = inks.brick;
      context.lineWidth = 1.5;
      context.beginPath();
      context.moveTo(toPxX(view, drawn.from[0]), toPxY(view, drawn.from[1]));
      context.lineTo(toPxX(view, drawn.to[0]), toPxY(view, drawn.to[1]));
      context.stroke();
    },
    label() {
      if (!from || !to) return undefined;
      const drawn = line(to);
      const own = chosen();
      const { contours } = place.drawing();
      const { places } = cutAlong(
        contours.filter((_, i) => own.length === 0 || own.includes(i)),
        drawn.from,
        drawn.to,
      );
      const text = places === 0 ? 'cuts nothing yet' : places === 1 ? '1 cut' : `${places} cuts`;
      return { x: drawn.to[0], y: drawn.to[1], text: text + namesOf(end(to)) };
    },
    hints: () => HINTS,
  };
}

const HINTS = [
  ['Drag', 'a line across a stroke cuts it; only chosen contours where some are'],
  ['Shift', 'level, upright, diagonal'],
  ['F', 'held: catches on nothing'],
  ['Esc', 'lets go'],
] as const;
