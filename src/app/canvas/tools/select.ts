import { insertPoint, setSmooth } from '../../../core/drawing/edits';
import { guidesFor } from '../../../core/drawing/guides';
import { type PointKey, pointOf } from '../../../core/drawing/points';
import { isOnCurve } from '../../../core/geometry/contour';
import { paintCatches, paintSweep, paintTarget } from '../paint/gestures';
import { anchorUnder, guideUnder, partUnder, pointsWithin, pointUnder, segmentUnder } from './hit';
import { type Dragging, dragged, dropped, grasped, graspedAnchor, graspedGuide, wholeContours } from './selectDrag';
import { CHOSEN_HINTS, HANDLE_HINTS, IDLE_HINTS, POINT_HINTS, WHOLE_HINTS } from './selectHints';
import { chosenKey } from './selectKeys';
import type { Hand, Tool, Workplace } from './tool';

type State = { kind: 'idle' } | Dragging | { kind: 'sweeping'; from: Hand; to: Hand; before: ReadonlySet<PointKey> };

/** What a press is the beginning of; it chooses what lies there. */
function pressed(place: Workplace, hand: Hand): State {
  const drawing = place.drawing();
  const mark = place.anchorsShown() ? anchorUnder(drawing, hand.x, hand.y, hand.reach) : undefined;
  if (mark !== undefined && !hand.shift) return graspedAnchor(place, hand, mark);
  const key = pointUnder(drawing, hand.x, hand.y, hand.reach);
  if (key) {
    const before = place.selection();
    place.chooseParts([]);
    if (hand.shift) {
      const next = new Set(before);
      if (!next.delete(key)) next.add(key);
      place.select(next);
    } else if (!before.has(key)) place.select(new Set([key]));
    return grasped(place, hand, key);
  }
  const segment = segmentUnder(drawing, hand.x, hand.y, hand.reach);
  if (segment) {
    const before = place.selection();
    place.chooseParts([]);
    const all = segment.points.every((k) => before.has(k));
    if (!all) place.select(new Set([...(hand.shift ? before : []), ...segment.points]));
    return grasped(place, hand, undefined);
  }
  const part = partUnder(place.project(), place.master().id, drawing, hand.x, hand.y);
  if (part !== undefined) {
    const before = place.parts();
    if (!hand.shift) place.select(new Set());
    place.chooseParts(before.includes(part) ? before : hand.shift ? [...before, part] : [part]);
    return grasped(place, hand, undefined, part);
  }
  const guide = guideUnder(guidesFor(place.master(), drawing), hand.x, hand.y, hand.reach);
  if (guide !== undefined && !hand.shift) return graspedGuide(place, hand, guide);
  const before = hand.shift ? place.selection() : new Set<PointKey>();
  if (!hand.shift) {
    place.select(new Set());
    place.chooseParts([]);
  }
  return { kind: 'sweeping', from: hand, to: hand, before };
}

function doubleClick(place: Workplace, hand: Hand): void {
  const key = pointUnder(place.drawing(), hand.x, hand.y, hand.reach);
  const point = key && pointOf(place.drawing(), key);
  if (key && point && isOnCurve(point)) {
    place.commit((p) => setSmooth(p, { at: place.at('structure'), points: [key], smooth: !point.smooth }));
    return;
  }
  if (
    !key &&
    place.commit((p) =>
      insertPoint(p, { at: place.at('structure'), x: hand.x, y: hand.y, within: hand.reach * 1.5, free: hand.free }),
    )
  ) {
    const added = pointUnder(place.drawing(), hand.x, hand.y, hand.reach * 2);
    place.select(new Set(added ? [added] : []));
  }
}

/** Chooses and moves points, handles and parts. Double click turns a point corner or smooth, or adds one on the outline. */
export function selectTool(place: Workplace): Tool {
  let state: State = { kind: 'idle' };
  let last: Hand | undefined;

  return {
    name: 'select',
    cursor: () => (state.kind === 'dragging' && state.now ? 'grabbing' : 'default'),

    down(hand) {
      last = hand;
      state = pressed(place, hand);
    },

    move(hand) {
      last = hand;
      if (state.kind === 'dragging') {
        const far = Math.hypot(hand.x - state.from.x, hand.y - state.from.y) > hand.reach * 0.35;
        if (!state.now && !far) return;
        const now = dragged(place, hand, state);
        state = { ...state, now, hand };
        if (now) place.preview(now.edit);
      } else if (state.kind === 'sweeping') {
        state = { ...state, to: hand };
        const { from, to, before } = state;
        place.select(new Set([...before, ...pointsWithin(place.drawing(), from.x, from.y, to.x, to.y, hand.alt)]));
        place.repaint();
      }
    },

    up(hand) {
      if (state.kind === 'dragging') {
        const drag = state;
        state = { kind: 'idle' };
        if (drag.second && !drag.now) return doubleClick(place, hand);
        place.cancel();
        dropped(place, drag);
      }
      state = { kind: 'idle' };
      place.repaint();
    },

    key(key, modifiers) {
      if (key !== 'Escape') return chosenKey(place, last, key, modifiers);
      if (state.kind === 'dragging') place.cancel();
      else {
        place.select(new Set());
        place.chooseParts([]);
      }
      state = { kind: 'idle' };
      return true;
    },

    leave() {
      if (state.kind === 'dragging') place.cancel();
      state = { kind: 'idle' };
    },

    paint(brush) {
      if (state.kind === 'sweeping') paintSweep(brush, state.from, state.to);
      if (state.kind !== 'dragging' || !state.now) return;
      if (state.now.caught) paintCatches(brush, state.now.caught);
      if (state.now.join) {
        const p = pointOf(place.drawing(), state.now.join);
        if (p) paintTarget(brush, p);
      }
    },

    label: () =>
      state.kind === 'dragging' && state.now ? { x: state.hand.x, y: state.hand.y, text: state.now.label } : undefined,

    hints() {
      if (state.kind === 'dragging') {
        const { key } = state;
        if (key && pointOf(place.drawing(), key)?.type === 'off') return HANDLE_HINTS;
        return wholeContours(place) ? WHOLE_HINTS : POINT_HINTS;
      }
      return place.selection().size > 0 || place.parts().length > 0 ? CHOSEN_HINTS : IDLE_HINTS;
    },
  };
}
