import { addContour } from '../../../core/drawing/edits';
import { pointKey } from '../../../core/drawing/points';
import { ellipse, rectangle } from '../../../core/drawing/shapes';
import { caughtPlace } from './catching';
import { type Hand, onGrid, shortNumber, type Tool, type Workplace } from './tool';

/** Draws an oval or a box by a drag: Shift keeps it even, Alt grows it from its centre. A click draws one of the typed size. */
export function shapeTool(place: Workplace, name: 'oval' | 'box'): Tool {
  let from: Hand | undefined;
  let to: Hand | undefined;
  const make = name === 'oval' ? ellipse : rectangle;

  const frame = (): [number, number, number, number] | undefined => {
    if (!from || !to) return undefined;
    const { grid } = place.project().settings;
    let dx = to.x - from.x;
    let dy = to.y - from.y;
    if (to.shift) {
      const even = Math.max(Math.abs(dx), Math.abs(dy));
      dx = Math.sign(dx || 1) * even;
      dy = Math.sign(dy || 1) * even;
    }
    const start = to.alt
      ? { x: onGrid(from.x - dx, grid), y: onGrid(from.y - dy, grid) }
      : caughtPlace(place, from.x, from.y, from);
    const end =
      to.shift || to.alt
        ? { x: onGrid(from.x + dx, grid), y: onGrid(from.y + dy, grid) }
        : caughtPlace(place, to.x, to.y, to);
    const [x0, y0, x1, y1] = [start.x, start.y, end.x, end.y];
    if (x0 === x1 || y0 === y1) return undefined;
    return [Math.min(x0, x1), Math.min(y0, y1), Math.max(x0, x1), Math.max(y0, y1)];
  };
  /** A frame of the typed size about a place. */
  const around = (hand: Hand): [number, number, number, number] => {
    const { width, height } = place.typedSize();
    const [left, bottom] = [Math.round(hand.x - width / 2), Math.round(hand.y - height / 2)];
    return [left, bottom, left + width, bottom + height];
  };
  const edit = (box: [number, number, number, number]) => {
    const at = place.at();
    return (p: Parameters<typeof addContour>[0]) =>
      addContour(p, { at, contour: make(...box), what: name === 'oval' ? 'an oval' : 'a box' });
  };

  return {
    name,
    cursor: () => 'crosshair',
    down(hand) {
      from = hand;
      to = hand;
    },
    move(hand) {
      if (!from) return;
      to = hand;
      const box = frame();
      if (box) place.preview(edit(box));
      else place.cancel();
    },
    up(hand) {
      const clicked = from && Math.hypot(hand.x - from.x, hand.y - from.y) < hand.reach * 0.4;
      const box = clicked ? around(from!) : frame();
      from = undefined;
      to = undefined;
      if (!box || !place.commit(edit(box))) return place.cancel();
      const index = place.drawing().contours.length - 1;
      const added = place.drawing().contours[index]!;
      place.select(new Set(added.points.flatMap((p, i) => (p.type === 'off' ? [] : [pointKey(index, i)]))));
    },
    key(key) {
      if (key !== 'Escape' || !from) return false;
      from = undefined;
      place.cancel();
      return true;
    },
    leave() {
      if (from) place.cancel();
      from = undefined;
    },
    paint() {},
    label() {
      const box = frame();
      return box && to
        ? { x: to.x, y: to.y, text: `${shortNumber(box[2] - box[0])} × ${shortNumber(box[3] - box[1])}` }
        : undefined;
    },
    hints: () => HINTS,
  };
}

const HINTS = [
  ['Drag', 'corner to corner'],
  ['Click', 'one of the size in the details'],
  ['Shift', 'as wide as high'],
  ['Alt', 'from the centre'],
] as const;
