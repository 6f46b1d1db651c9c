import { moveHandle, movePointsAlone, ownerOf } from '../../../core/drawing/arrange';
import { moveComponents, removeComponents } from '../../../core/drawing/components';
import {
  deletePoints,
  insertPoint,
  movePoints,
  nearestSegment,
  setSmooth,
  toggleSegment,
} from '../../../core/drawing/edits';
import { joinEnds, looseEnd, looseEndNear } from '../../../core/drawing/ends';
import { between } from '../../../core/drawing/gauge';
import { glidePoint } from '../../../core/drawing/glide';
import { byContour, type PointKey, pointKey, pointOf } from '../../../core/drawing/points';
import { type Catch, catchesFor, type Snapped, snapped } from '../../../core/drawing/snapping';
import { transformPoints } from '../../../core/drawing/transform';
import { isOnCurve } from '../../../core/geometry/contour';
import type { Outcome } from '../../../core/project/edit';
import type { Project } from '../../../core/project/model';
import { paintCatches, paintSweep, paintTarget } from '../paint/gestures';
import { namesOf, SNAP_REACH } from './catching';
import { partUnder, pointsWithin, pointUnder, segmentUnder } from './hit';
import { type Hand, onGrid, shortNumber, straightened, type Tool, type Workplace } from './tool';

type Edit = (project: Project) => Outcome;
type Dragging = {
  kind: 'dragging';
  /** The second press of a double click, until it is known not to be a drag. */
  second: boolean;
  from: Hand;
  /** What was grasped: a point, or a place on an outline or a part. */
  key: PointKey | undefined;
  part: number | undefined;
  anchor: { x: number; y: number };
  catches: readonly Catch[];
  /** The edit that the drag has come to, with what it caught on. */
  now: { edit: Edit; caught: Snapped | undefined; label: string; join?: PointKey; copies?: boolean } | undefined;
  hand: Hand;
};
type State = { kind: 'idle' } | Dragging | { kind: 'sweeping'; from: Hand; to: Hand; before: ReadonlySet<PointKey> };

/** Chooses and moves points, handles and parts. Double click turns a point corner or smooth, or adds one on the outline. */
export function selectTool(place: Workplace): Tool {
  let state: State = { kind: 'idle' };
  let last: Hand | undefined;

  const chosen = () => [...place.selection()];

  const startDrag = (hand: Hand, key: PointKey | undefined, part?: number) => {
    const drawing = place.drawing();
    const p = key && pointOf(drawing, key);
    const moving = part === undefined ? new Set(place.selection()) : new Set<PointKey>();
    const catches = catchesFor(place.master(), drawing, moving);
    state = {
      kind: 'dragging',
      second: hand.clicks === 2,
      from: hand,
      key,
      part,
      anchor: p ?? hand,
      catches,
      now: undefined,
      hand,
    };
  };

  /** Where the grasped place goes: held to an axis with Shift, caught by lines and points, else on the grid. */
  const goal = (
    hand: Hand,
    { from, anchor, catches, key }: Dragging,
  ): { x: number; y: number; caught: Snapped | undefined } => {
    const [hx, hy] = hand.shift ? straightened(from.x, from.y, hand.x, hand.y) : [hand.x, hand.y];
    const [x, y] = [anchor.x + hx - from.x, anchor.y + hy - from.y];
    const { grid } = place.project().settings;
    const point = key && pointOf(place.settled(), key);
    const caught =
      hand.free || hand.shift || !point || point.type === 'off'
        ? undefined
        : snapped(catches, x, y, hand.reach * SNAP_REACH);
    const at = (v: number, from0: number, caughtAt: number | undefined, moved: boolean) =>
      caughtAt !== undefined && caughtAt !== v ? caughtAt : moved ? onGrid(v, hand.free ? 0 : grid) : from0;
    return { x: at(x, anchor.x, caught?.x, hx !== from.x), y: at(y, anchor.y, caught?.y, hy !== from.y), caught };
  };

  /** All contours that have chosen points are chosen as a whole. */
  const wholeContours = (): boolean => {
    const drawing = place.settled();
    const selected = byContour(drawing, place.selection());
    return (
      selected.size > 0 &&
      [...selected].every(([c, own]) => drawing.contours[c]!.points.every((p, i) => p.type === 'off' || own.has(i)))
    );
  };

  const dragged = (hand: Hand, drag: Dragging): Dragging['now'] => {
    const at = place.at();
    const drawing = place.settled();
    const { x, y, caught } = goal(hand, drag);
    const [dx, dy] = [x - drag.anchor.x, y - drag.anchor.y];
    const by = `${shortNumber(dx)}, ${shortNumber(dy)}`;
    const named = caught ? namesOf(caught) : '';
    const plain = (edit: Edit, label: string) => ({ edit, caught, label: label + named });
    if (drag.part !== undefined) {
      const indices = place.parts();
      return plain((p) => moveComponents(p, { at, indices, dx, dy }), by);
    }
    const { key } = drag;
    const owner = key && ownerOf(drawing, key);
    if (key && owner && place.selection().size === 1) {
      const { distance, angle } = between(pointOf(drawing, owner)!, { x, y });
      const label = `${shortNumber(distance)} long, ${shortNumber(angle)}°`;
      if (hand.alt || hand.mod)
        return plain((p) => moveHandle(p, { at, handle: key, x, y, how: hand.mod ? 'free' : 'equal' }), label);
      return plain((p) => movePoints(p, { at, points: [key], dx, dy }), label);
    }
    if (key && hand.mod && place.selection().size === 1)
      return plain((p) => glidePoint(p, { at, point: key, x: hand.x, y: hand.y }), 'gliding, the shape stays');
    const points = chosen();
    if (hand.alt && wholeContours())
      return {
        ...plain(
          (p) => transformPoints(p, { at, points, by: { dx, dy }, origin: 'centre', copy: true }),
          `a copy, ${by}`,
        ),
        copies: true,
      };
    if (hand.alt) return plain((p) => movePointsAlone(p, { at, points, dx, dy }), `${by}, handles left`);
    const join =
      key && points.length === 1 && looseEnd(drawing, key)
        ? looseEndNear(drawing, hand.x, hand.y, hand.reach, key)
        : undefined;
    if (key && join) return { ...plain((p) => joinEnds(p, { at, from: key, to: join }), 'join the ends'), join };
    return plain(
      (p) => movePoints(p, { at, points, dx, dy }),
      points.length === 1 ? `${shortNumber(x)}, ${shortNumber(y)}` : by,
    );
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

  const finish = (drag: Dragging) => {
    const { now } = drag;
    state = { kind: 'idle' };
    if (!now) return;
    const before = place.settled().contours.length;
    const same = drag.part === undefined && drag.hand.x === drag.from.x && drag.hand.y === drag.from.y;
    if (same || !place.commit(now.edit)) return place.cancel();
    if (now.join) place.select(new Set());
    if (now.copies) {
      // What was just made is what goes on being moved.
      const added = place.drawing().contours.slice(before);
      place.select(
        new Set(
          added.flatMap((c, i) => c.points.flatMap((p, k) => (p.type === 'off' ? [] : [pointKey(before + i, k)]))),
        ),
      );
    }
  };

  return {
    name: 'select',
    cursor: () => (state.kind === 'dragging' && state.now ? 'grabbing' : 'default'),

    down(hand) {
      last = hand;
      const drawing = place.drawing();
      const key = pointUnder(drawing, hand.x, hand.y, hand.reach);
      if (key) {
        const before = place.selection();
        place.chooseParts([]);
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
        place.chooseParts([]);
        const all = segment.points.every((k) => before.has(k));
        if (!all) place.select(new Set([...(hand.shift ? before : []), ...segment.points]));
        startDrag(hand, undefined);
        return;
      }
      const part = partUnder(place.project(), place.master().id, drawing, hand.x, hand.y);
      if (part !== undefined) {
        const before = place.parts();
        if (!hand.shift) place.select(new Set());
        place.chooseParts(before.includes(part) ? before : hand.shift ? [...before, part] : [part]);
        startDrag(hand, undefined, part);
        return;
      }
      state = { kind: 'sweeping', from: hand, to: hand, before: hand.shift ? place.selection() : new Set() };
      if (!hand.shift) {
        place.select(new Set());
        place.chooseParts([]);
      }
    },

    move(hand) {
      last = hand;
      if (state.kind === 'dragging') {
        const far = Math.hypot(hand.x - state.from.x, hand.y - state.from.y) > hand.reach * 0.35;
        if (!state.now && !far) return;
        const now = dragged(hand, state);
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
        if (drag.second && !drag.now) {
          state = { kind: 'idle' };
          doubleClick(hand);
          return;
        }
        place.cancel();
        finish(drag);
      }
      state = { kind: 'idle' };
      place.repaint();
    },

    key(key, { shift, mod }) {
      const at = place.at();
      const points = chosen();
      const parts = place.parts();
      const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[key];
      if (step && points.length + parts.length > 0) {
        const [one, ten, hundred] = place.project().settings.nudge;
        const by = mod ? hundred : shift ? ten : one;
        const [dx, dy] = [step[0]! * by, step[1]! * by];
        if (points.length > 0) place.commit((p) => movePoints(p, { at, points, dx, dy }), `nudge ${points.join()}`);
        else place.commit((p) => moveComponents(p, { at, indices: parts, dx, dy }), `nudge part ${parts.join()}`);
        return true;
      }
      if ((key === 'Delete' || key === 'Backspace') && points.length + parts.length > 0) {
        const done =
          points.length > 0
            ? place.commit((p) => deletePoints(p, { at, points }))
            : place.commit((p) => removeComponents(p, { at, indices: parts }));
        if (done) {
          place.select(new Set());
          place.chooseParts([]);
        }
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
        place.select(
          new Set(
            place
              .drawing()
              .contours.flatMap((c, i) => c.points.flatMap((p, j) => (isOnCurve(p) ? [pointKey(i, j)] : []))),
          ),
        );
        return true;
      }
      if (key === 'Tab' && points.length === 1) {
        place.select(new Set([nextPoint(points[0]!, shift ? -1 : 1)]));
        return true;
      }
      if (key === 'Escape') {
        if (state.kind === 'dragging') {
          place.cancel();
          state = { kind: 'idle' };
          return true;
        }
        state = { kind: 'idle' };
        place.select(new Set());
        place.chooseParts([]);
        return true;
      }
      return false;
    },

    leave() {
      if (state.kind === 'dragging') place.cancel();
      state = { kind: 'idle' };
    },

    paint(context, view, inks) {
      if (state.kind === 'sweeping') paintSweep(context, view, state.from, state.to, inks);
      if (state.kind !== 'dragging' || !state.now) return;
      if (state.now.caught) paintCatches(context, view, state.now.caught, inks);
      if (state.now.join) {
        const p = pointOf(place.drawing(), state.now.join);
        if (p) paintTarget(context, view, p, inks);
      }
    },

    label: () =>
      state.kind === 'dragging' && state.now ? { x: state.hand.x, y: state.hand.y, text: state.now.label } : undefined,

    hints() {
      if (state.kind === 'dragging') {
        const { key } = state;
        if (key && pointOf(place.drawing(), key)?.type === 'off') return HANDLE_HINTS;
        return wholeContours() ? WHOLE_HINTS : POINT_HINTS;
      }
      return place.selection().size > 0 || place.parts().length > 0 ? CHOSEN_HINTS : IDLE_HINTS;
    },
  };

  function nextPoint(key: PointKey, step: number): PointKey {
    const all = place
      .drawing()
      .contours.flatMap((c, i) => c.points.flatMap((p, j) => (isOnCurve(p) ? [pointKey(i, j)] : [])));
    const at = all.indexOf(key);
    return all[(Math.max(0, at) + step + all.length) % all.length] ?? key;
  }
}

const IDLE_HINTS = [
  ['Double click', 'turns a point, or adds one on the outline'],
  ['L', 'line or curve'],
  ['Alt drag', 'sweeps handles too'],
] as const;
const CHOSEN_HINTS = [
  ['C', 'corner or smooth'],
  ['Arrows', 'nudge'],
  ['Delete', 'keeps the shape'],
  ['Tab', 'next point'],
] as const;
const POINT_HINTS = [
  ['Shift', 'level, upright, diagonal'],
  ['Alt', 'leaves the handles'],
  ['Ctrl', 'glides, the shape stays'],
  ['F', 'no snapping'],
  ['Esc', 'lets go'],
] as const;
const WHOLE_HINTS = [
  ['Shift', 'level, upright, diagonal'],
  ['Alt', 'drags a copy'],
  ['F', 'no snapping'],
  ['Esc', 'lets go'],
] as const;
const HANDLE_HINTS = [
  ['Shift', 'level, upright, diagonal'],
  ['Alt', 'both handles alike'],
  ['Ctrl', 'parts the handles'],
  ['Esc', 'lets go'],
] as const;
