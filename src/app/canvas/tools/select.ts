import { deletePoints, insertPoint, movePoints, nearestSegment, setSmooth, toggleSegment } from '../../../core/drawing/edits';
import { type PointKey, pointKey, pointOf } from '../../../core/drawing/points';
import { isOnCurve } from '../../../core/geometry/contour';
import { toPxX, toPxY } from '../view';
import { pointsWithin, pointUnder, segmentUnder } from './hit';
import { type Hand, onGrid, straightened, type Tool, type Workplace } from './tool';

type State =
  | { kind: 'idle' }
  /** The second press of a double click, until it is known not to be a drag. */
  | { kind: 'dragging'; second: boolean; from: Hand; anchor: { x: number; y: number }; moved: boolean; dx: number; dy: number }
  | { kind: 'sweeping'; from: Hand; to: Hand; before: ReadonlySet<PointKey> };

/** Chooses and moves points. Double click turns a point corner or smooth, or adds one on the outline. */
export function selectTool(place: Workplace): Tool {
  let state: State = { kind: 'idle' };
  let last: Hand | undefined;

  const chosen = () => [...place.selection()];

  const startDrag = (hand: Hand, key: PointKey | undefined) => {
    const p = key && pointOf(place.drawing(), key);
    state = { kind: 'dragging', second: hand.clicks === 2, from: hand, anchor: p ?? hand, moved: false, dx: 0, dy: 0 };
  };

  /** The distance dragged: held to an axis with Shift, the grasped point landing on the grid. */
  const dragDistance = (hand: Hand, from: Hand, anchor: { x: number; y: number }): [number, number] => {
    const [x, y] = hand.shift ? straightened(from.x, from.y, hand.x, hand.y) : [hand.x, hand.y];
    const { grid } = place.project().settings;
    const snap = (v: number, start: number) => (v === 0 ? 0 : onGrid(start + v, grid) - start);
    return [snap(x - from.x, anchor.x), snap(y - from.y, anchor.y)];
  };

  const doubleClick = (hand: Hand) => {
    const at = place.at();
    const key = pointUnder(place.drawing(), hand.x, hand.y, hand.reach);
    const point = key && pointOf(place.drawing(), key);
    if (key && point && isOnCurve(point)) {
      place.commit((p) => setSmooth(p, { at, points: [key], smooth: !point.smooth }));
      return;
    }
    if (!key && place.commit((p) => insertPoint(p, { at, x: hand.x, y: hand.y, within: hand.reach * 1.5 }))) {
      const added = pointUnder(place.drawing(), hand.x, hand.y, hand.reach * 2);
      place.select(new Set(added ? [added] : []));
    }
  };

  return {
    name: 'select',
    cursor: () => (state.kind === 'dragging' && state.moved ? 'grabbing' : 'default'),

    down(hand) {
      last = hand;
      const drawing = place.drawing();
      const key = pointUnder(drawing, hand.x, hand.y, hand.reach);
      if (key) {
        const before = place.selection();
        if (hand.shift) {
          const next = new Set(before);
          if (!next.delete(key)) next.add(key);
          place.select(next);
        } else if (!before.has(key)) place.select(new Set([key]));
        startDrag(hand, key);
        return;
      }
      const segment = segmentUnder(drawing, hand.x, hand.y, hand.reach);
      if (segment) {
        const before = place.selection();
        const all = segment.points.every((k) => before.has(k));
        if (!all) place.select(new Set([...(hand.shift ? before : []), ...segment.points]));
        startDrag(hand, undefined);
        return;
      }
      state = { kind: 'sweeping', from: hand, to: hand, before: hand.shift ? place.selection() : new Set() };
      if (!hand.shift) place.select(new Set());
    },

    move(hand) {
      last = hand;
      if (state.kind === 'dragging') {
        const far = Math.hypot(hand.x - state.from.x, hand.y - state.from.y) > hand.reach * 0.35;
        if (!state.moved && !far) return;
        const [dx, dy] = dragDistance(hand, state.from, state.anchor);
        state = { ...state, moved: true, dx, dy };
        const at = place.at();
        place.preview((p) => movePoints(p, { at, points: chosen(), dx, dy }));
      } else if (state.kind === 'sweeping') {
        state = { ...state, to: hand };
        const { from, to, before } = state;
        place.select(new Set([...before, ...pointsWithin(place.drawing(), from.x, from.y, to.x, to.y, hand.alt)]));
        place.repaint();
      }
    },

    up(hand) {
      if (state.kind === 'dragging' && state.second && !state.moved) {
        state = { kind: 'idle' };
        doubleClick(hand);
        return;
      }
      if (state.kind === 'dragging' && state.moved) {
        const { dx, dy } = state;
        const at = place.at();
        if (dx === 0 && dy === 0) place.cancel();
        else place.commit((p) => movePoints(p, { at, points: chosen(), dx, dy }));
      }
      state = { kind: 'idle' };
      place.repaint();
    },

    key(key, { shift, mod }) {
      const at = place.at();
      const points = chosen();
      const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[key];
      if (step && points.length > 0) {
        const [one, ten, hundred] = place.project().settings.nudge;
        const by = mod ? hundred : shift ? ten : one;
        place.commit((p) => movePoints(p, { at, points, dx: step[0]! * by, dy: step[1]! * by }), `nudge ${points.join()}`);
        return true;
      }
      if ((key === 'Delete' || key === 'Backspace') && points.length > 0) {
        if (place.commit((p) => deletePoints(p, { at, points }))) place.select(new Set());
        return true;
      }
      if (key.toLowerCase() === 'c' && !mod && points.length > 0) {
        const anySmooth = points.some((k) => pointOf(place.drawing(), k)?.smooth);
        place.commit((p) => setSmooth(p, { at, points, smooth: !anySmooth }));
        return true;
      }
      if (key.toLowerCase() === 'l' && !mod && last) {
        const hand = last;
        const near = nearestSegment(place.drawing(), hand.x, hand.y);
        if (near && near.distance <= hand.reach * 2) {
          place.select(new Set());
          place.commit((p) => toggleSegment(p, { at, x: hand.x, y: hand.y, within: hand.reach * 2 }));
        }
        return true;
      }
      if (key.toLowerCase() === 'a' && mod) {
        place.select(new Set(place.drawing().contours.flatMap((c, i) => c.points.flatMap((p, j) => (isOnCurve(p) ? [pointKey(i, j)] : [])))));
        return true;
      }
      if (key === 'Tab' && points.length === 1) {
        place.select(new Set([nextPoint(points[0]!, shift ? -1 : 1)]));
        return true;
      }
      if (key === 'Escape') {
        if (state.kind !== 'idle') place.cancel();
        state = { kind: 'idle' };
        place.select(new Set());
        return true;
      }
      return false;
    },

    leave() {
      if (state.kind === 'dragging') place.cancel();
      state = { kind: 'idle' };
    },

    paint(context, view, inks) {
      if (state.kind !== 'sweeping') return;
      const { from, to } = state;
      const x = toPxX(view, Math.min(from.x, to.x));
      const y = toPxY(view, Math.max(from.y, to.y));
      const w = Math.abs(to.x - from.x) * view.scale;
      const h = Math.abs(to.y - from.y) * view.scale;
      context.fillStyle = inks.kelp;
      context.globalAlpha = 0.1;
      context.fillRect(x, y, w, h);
      context.globalAlpha = 1;
      context.strokeStyle = inks.kelp;
      context.lineWidth = 1;
      context.strokeRect(x, y, w, h);
    },
  };

  function nextPoint(key: PointKey, step: number): PointKey {
    const all = place.drawing().contours.flatMap((c, i) => c.points.flatMap((p, j) => (isOnCurve(p) ? [pointKey(i, j)] : [])));
    const at = all.indexOf(key);
    return all[(Math.max(0, at) + step + all.length) % all.length] ?? key;
  }
}
