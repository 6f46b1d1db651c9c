import { cutContours } from '../../../core/drawing/shapeEdits';
import { cutAlong } from '../../../core/geometry/cut';
import type { Project } from '../../../core/project/model';
import { toPxX, toPxY } from '../view';
import { type Hand, onGrid, straightened, type Tool, type Workplace } from './tool';

/** Cuts outlines along a line that is drawn by a drag: Shift keeps it level, upright or diagonal. */
export function bladeTool(place: Workplace): Tool {
  let from: Hand | undefined;
  let to: readonly [number, number] | undefined;

  const end = (hand: Hand): readonly [number, number] => {
    const { grid } = place.project().settings;
    const [x, y] = hand.shift ? straightened(from!.x, from!.y, hand.x, hand.y) : [hand.x, hand.y];
    return [onGrid(x, grid), onGrid(y, grid)];
  };
  const start = (): readonly [number, number] => [
    onGrid(from!.x, place.project().settings.grid),
    onGrid(from!.y, place.project().settings.grid),
  ];

  return {
    name: 'blade',
    cursor: () => 'crosshair',
    down(hand) {
      from = hand;
      to = undefined;
    },
    move(hand) {
      if (!from) return;
      to = end(hand);
      place.repaint();
    },
    up(hand) {
      if (!from) return;
      const [a, b] = [start(), end(hand)];
      from = undefined;
      to = undefined;
      if (Math.hypot(b[0] - a[0], b[1] - a[1]) < 1) return;
      const at = place.at();
      if (place.commit((p: Project) => cutContours(p, { at, from: a, to: b }))) place.select(new Set());
    },
    key(key) {
      if (key !== 'Escape' || !from) return false;
      from = undefined;
      to = undefined;
      place.repaint();
      return true;
    },
    leave() {
      from = undefined;
      to = undefined;
    },
    paint({ context, view, inks }) {
      if (!from || !to) return;
      const [a, b] = [start(), to];
      context.strokeStyle = inks.brick;
      context.lineWidth = 1.5;
      context.beginPath();
      context.moveTo(toPxX(view, a[0]), toPxY(view, a[1]));
      context.lineTo(toPxX(view, b[0]), toPxY(view, b[1]));
      context.stroke();
    },
    label() {
      if (!from || !to) return undefined;
      const { places } = cutAlong(place.drawing().contours, start(), to);
      return {
        x: to[0],
        y: to[1],
        text: places === 0 ? 'cuts nothing yet' : places === 1 ? '1 cut' : `${places} cuts`,
      };
    },
    hints: () => HINTS,
  };
}

const HINTS = [
  ['Drag', 'a line across a stroke cuts it'],
  ['Shift', 'level, upright, diagonal'],
  ['Esc', 'lets go'],
] as const;
