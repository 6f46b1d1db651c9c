import { between, type Gauge } from '../../../core/drawing/gauge';
import { type Hand, shortNumber, straightened, type Tool, type Workplace } from './tool';

/** How far a gauge laid by a click reaches, in font units. */
const FAR = 4000;

type State =
  | { kind: 'idle' }
  | { kind: 'laying'; from: Hand; to: Hand }
  | { kind: 'moving'; index: number; from: Hand; start: Gauge };

/** Measures between outlines: a drag lays a gauge, a click one right across the glyph; they stay, and follow what is drawn. */
export function gaugeTool(place: Workplace): Tool {
  let state: State = { kind: 'idle' };
  let chosen: number | undefined;

  const near = (hand: Hand): number => {
    const distance = ({ x0, y0, x1, y1 }: Gauge) => {
      const [dx, dy] = [x1 - x0, y1 - y0];
      const t = Math.max(0, Math.min(1, ((hand.x - x0) * dx + (hand.y - y0) * dy) / (dx * dx + dy * dy || 1)));
      return Math.hypot(x0 + dx * t - hand.x, y0 + dy * t - hand.y);
    };
    return place.gauges().findIndex((g) => distance(g) <= hand.reach * 0.8);
  };
  const laid = (): Gauge | undefined => {
    if (state.kind !== 'laying') return undefined;
    const { from, to } = state;
    if (Math.hypot(to.x - from.x, to.y - from.y) < to.reach * 0.6) {
      return to.alt
        ? { x0: from.x, y0: from.y - FAR, x1: from.x, y1: from.y + FAR }
        : { x0: from.x - FAR, y0: from.y, x1: from.x + FAR, y1: from.y };
    }
    const [x1, y1] = to.shift ? straightened(from.x, from.y, to.x, to.y) : [to.x, to.y];
    return { x0: from.x, y0: from.y, x1, y1 };
  };
  const shown = (g: Gauge) => place.layGauges([...place.gauges().filter((_, i) => i !== chosen), g]);

  return {
    name: 'gauge',
    cursor: () => (state.kind === 'moving' ? 'grabbing' : 'crosshair'),
    down(hand) {
      const index = near(hand);
      if (index >= 0) {
        chosen = index;
        state = { kind: 'moving', index, from: hand, start: place.gauges()[index]! };
        return;
      }
      chosen = place.gauges().length;
      state = { kind: 'laying', from: hand, to: hand };
      shown(laid()!);
    },
    move(hand) {
      if (state.kind === 'laying') {
        state = { ...state, to: hand };
        shown(laid()!);
      } else if (state.kind === 'moving') {
        const { start, from, index } = state;
        const [dx, dy] = [hand.x - from.x, hand.y - from.y];
        place.layGauges(
          place
            .gauges()
            .map((g, i) =>
              i === index ? { x0: start.x0 + dx, y0: start.y0 + dy, x1: start.x1 + dx, y1: start.y1 + dy } : g,
            ),
        );
      }
    },
    up() {
      state = { kind: 'idle' };
      place.repaint();
    },
    key(key) {
      const gauges = place.gauges();
      if ((key === 'Delete' || key === 'Backspace') && gauges.length > 0) {
        const gone = chosen !== undefined && gauges[chosen] ? chosen : gauges.length - 1;
        place.layGauges(gauges.filter((_, i) => i !== gone));
        chosen = undefined;
        return true;
      }
      if (key !== 'Escape' || gauges.length === 0) return false;
      if (state.kind === 'laying') place.layGauges(gauges.slice(0, -1));
      else if (state.kind === 'moving') {
        const { index, start } = state;
        place.layGauges(gauges.map((g, i) => (i === index ? start : g)));
      } else place.layGauges([]);
      state = { kind: 'idle' };
      return true;
    },
    leave() {
      state = { kind: 'idle' };
    },
    paint() {},
    label() {
      if (state.kind !== 'laying') return undefined;
      const g = laid()!;
      const { distance, angle } = between({ x: g.x0, y: g.y0 }, { x: g.x1, y: g.y1 });
      return distance >= FAR
        ? undefined
        : { x: state.to.x, y: state.to.y, text: `${shortNumber(distance)}, ${shortNumber(angle)}°` };
    },
    hints: () => HINTS,
  };
}

const HINTS = [
  ['Click', 'a level gauge right across'],
  ['Alt click', 'an upright one'],
  ['Drag', 'one between two places; Shift level, upright, diagonal'],
  ['Delete', 'takes it away'],
  ['Esc', 'all of them'],
] as const;
