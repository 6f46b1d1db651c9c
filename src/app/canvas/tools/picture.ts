import { setBackdrop } from '../../../core/drawing/backdrops';
import type { Affine } from '../../../core/geometry/affine';
import type { Backdrop } from '../../../core/project/model';
import { cornersOf } from '../paint/pictures';
import { toPxX, toPxY } from '../view';
import { type Hand, onGrid, type Tool, type Workplace } from './tool';

type State =
  | { kind: 'idle' }
  | { kind: 'moving'; id: string; from: Hand; start: Affine }
  | { kind: 'scaling'; id: string; fixed: readonly [number, number]; reach: number; start: Affine };

/** Places pictures behind the drawing: drag one to move it, a corner to scale it in proportion. Locked ones stay. */
export function pictureTool(place: Workplace): Tool {
  let state: State = { kind: 'idle' };

  const loose = (): Backdrop[] => place.drawing().backdrops.filter((b) => b.visible && !b.locked);
  const corners = (b: Backdrop) => {
    const picture = place.project().pictures[b.picture];
    return picture ? cornersOf(b, picture.width, picture.height) : [];
  };
  const inside = (b: Backdrop, hand: Hand): boolean => {
    const c = corners(b);
    return (
      c.length === 4 &&
      c.every(([x, y], i) => {
        const [nx, ny] = c[(i + 1) % 4]!;
        return (nx - x) * (hand.y - y) - (ny - y) * (hand.x - x) <= 0;
      })
    );
  };

  const edit = (hand: Hand) => {
    const at = place.at();
    if (state.kind === 'moving') {
      const { id, from, start } = state;
      const dx = onGrid(hand.x - from.x, 1);
      const dy = onGrid(hand.y - from.y, 1);
      const transform = [start[0], start[1], start[2], start[3], start[4] + dx, start[5] + dy] as const;
      return (p: Parameters<typeof setBackdrop>[0]) => setBackdrop(p, { at, id, change: { transform } });
    }
    if (state.kind === 'scaling') {
      const { id, fixed, reach, start } = state;
      const factor = Math.max(0.02, Math.hypot(hand.x - fixed[0], hand.y - fixed[1]) / reach);
      const [a, b, c, d, e, f] = start;
      const transform = [
        a * factor,
        b * factor,
        c * factor,
        d * factor,
        fixed[0] + (e - fixed[0]) * factor,
        fixed[1] + (f - fixed[1]) * factor,
      ] as const;
      return (p: Parameters<typeof setBackdrop>[0]) => setBackdrop(p, { at, id, change: { transform } });
    }
    return undefined;
  };

  return {
    name: 'picture',
    cursor: () => (state.kind === 'idle' ? 'grab' : 'grabbing'),
    down(hand) {
      for (const b of loose().reverse()) {
        const c = corners(b);
        const corner = c.findIndex(([x, y]) => Math.hypot(x - hand.x, y - hand.y) <= hand.reach * 1.6);
        if (corner >= 0) {
          const fixed = c[(corner + 2) % 4]!;
          const [x, y] = c[corner]!;
          state = {
            kind: 'scaling',
            id: b.id,
            fixed,
            reach: Math.hypot(x - fixed[0], y - fixed[1]),
            start: b.transform,
          };
          return;
        }
        if (inside(b, hand)) {
          state = { kind: 'moving', id: b.id, from: hand, start: b.transform };
          return;
        }
      }
    },
    move(hand) {
      const change = edit(hand);
      if (change) place.preview(change);
    },
    up(hand) {
      const change = edit(hand);
      state = { kind: 'idle' };
      if (change) place.commit(change);
    },
    key(key) {
      if (key !== 'Escape' || state.kind === 'idle') return false;
      state = { kind: 'idle' };
      place.cancel();
      return true;
    },
    hints: () => HINTS,
    leave() {
      if (state.kind !== 'idle') place.cancel();
      state = { kind: 'idle' };
    },
    paint({ context, view, inks }) {
      for (const b of loose()) {
        const c = corners(b);
        if (c.length < 4) continue;
        context.strokeStyle = inks.sea;
        context.lineWidth = 1.25;
        context.beginPath();
        c.forEach(([x, y], i) => {
          if (i === 0) context.moveTo(toPxX(view, x), toPxY(view, y));
          else context.lineTo(toPxX(view, x), toPxY(view, y));
        });
        context.closePath();
        context.stroke();
        for (const [x, y] of c) {
          context.beginPath();
          context.arc(toPxX(view, x), toPxY(view, y), 6, 0, Math.PI * 2);
          context.fillStyle = inks.panel;
          context.fill();
          context.stroke();
        }
      }
    },
  };
}

const HINTS = [
  ['Drag', 'moves the picture'],
  ['Drag a corner', 'scales it in proportion'],
  ['Esc', 'lets go'],
] as const;
