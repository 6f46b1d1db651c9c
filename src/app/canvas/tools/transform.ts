import { byContour } from '../../../core/drawing/points';
import { type Origin, originOn, type TransformBy, transformPoints } from '../../../core/drawing/transform';
import { type Box, emptyBox, isEmptyBox, stretchBox } from '../../../core/geometry/curve';
import type { Project } from '../../../core/project/model';
import { drawingBounds, drawingsOf } from '../../../core/project/outline';
import type { Brush } from '../useCanvas';
import { toPxX, toPxY } from '../view';
import { type Hand, onGrid, shortNumber, type Tool, type Workplace } from './tool';

/** Handles of the box by the place they stand at, with the place that stays when they are dragged. */
const HANDLES: readonly { at: Origin; stays: Origin; x: -1 | 0 | 1; y: -1 | 0 | 1 }[] = [
  { at: 'top left', stays: 'bottom right', x: -1, y: 1 },
  { at: 'top', stays: 'bottom', x: 0, y: 1 },
  { at: 'top right', stays: 'bottom left', x: 1, y: 1 },
  { at: 'left', stays: 'right', x: -1, y: 0 },
  { at: 'right', stays: 'left', x: 1, y: 0 },
  { at: 'bottom left', stays: 'top right', x: -1, y: -1 },
  { at: 'bottom', stays: 'top', x: 0, y: -1 },
  { at: 'bottom right', stays: 'top left', x: 1, y: -1 },
];
/** How far above the box the knob that turns it stands, in pixels. */
const KNOB_PX = 26;

type Grasp = { kind: 'scale'; handle: (typeof HANDLES)[number] } | { kind: 'turn' } | { kind: 'move' };
type State = {
  grasp: Grasp;
  from: Hand;
  box: Box;
  now: { by: TransformBy; origin: Origin; label: string; copy: boolean } | undefined;
  hand: Hand;
};

/** Where the knob stands, in font units. */
const knobOf = (b: Box, scale: number): readonly [number, number] => [(b.xMin + b.xMax) / 2, b.yMax + KNOB_PX / scale];

/** What a press on the box takes hold of. */
function graspAt(hand: Hand, b: Box, scale: number): Grasp | undefined {
  const near = (x: number, y: number) => Math.hypot(hand.x - x, hand.y - y) <= hand.reach;
  if (near(...knobOf(b, scale))) return { kind: 'turn' };
  const handle = HANDLES.find((h) => near(...originOn(b, h.at)));
  if (handle) return { kind: 'scale', handle };
  return hand.x >= b.xMin - hand.reach &&
    hand.x <= b.xMax + hand.reach &&
    hand.y >= b.yMin - hand.reach &&
    hand.y <= b.yMax + hand.reach
    ? { kind: 'move' }
    : undefined;
}

/** The transform that a drag comes to with the hand where it is; undefined where nothing would be left. */
function worked({ hand, grasp, from, box: b }: State, project: Project, copy: boolean): State['now'] {
  const grid = hand.free ? 0 : project.settings.grid;
  const centre = originOn(b, 'centre');
  if (grasp.kind === 'move') {
    const [dx, dy] = [onGrid(hand.x - from.x, grid), onGrid(hand.y - from.y, grid)];
    const [x, y] = hand.shift ? (Math.abs(dx) > Math.abs(dy) ? [dx, 0] : [0, dy]) : [dx, dy];
    return { by: { dx: x, dy: y }, origin: 'centre', label: `${shortNumber(x)}, ${shortNumber(y)}`, copy };
  }
  if (grasp.kind === 'turn') {
    const angle = (p: { x: number; y: number }) => (Math.atan2(p.y - centre[1], p.x - centre[0]) * 180) / Math.PI;
    const turned = ((angle(hand) - angle(from) + 540) % 360) - 180;
    const rotate = hand.shift ? Math.round(turned / 15) * 15 : Math.round(turned * 10) / 10;
    return { by: { rotate }, origin: 'centre', label: `${shortNumber(rotate)}°`, copy };
  }
  const { handle } = grasp;
  const origin: Origin = hand.alt ? 'centre' : handle.stays;
  const [ox, oy] = originOn(b, origin);
  if (hand.mod && handle.x === 0) {
    const slant = Math.round(((Math.atan2(hand.x - from.x, from.y - oy) * 180) / Math.PI) * 10) / 10;
    return { by: { slant }, origin, label: `slant ${shortNumber(slant)}°`, copy };
  }
  const [hx, hy] = originOn(b, handle.at);
  const share = (to: number, at: number, o: number, used: number) => {
    if (used === 0 || Math.abs(at - o) < 1e-6) return 1;
    const landed = onGrid(at + to, grid);
    return (landed - o) / (at - o);
  };
  let scaleX = share(hand.x - from.x, hx, ox, handle.x);
  let scaleY = share(hand.y - from.y, hy, oy, handle.y);
  if (hand.shift) {
    const most =
      handle.x === 0 ? scaleY : handle.y === 0 ? scaleX : Math.abs(scaleX) > Math.abs(scaleY) ? scaleX : scaleY;
    [scaleX, scaleY] = [most, most];
  }
  if (Math.abs(scaleX) < 1e-3 || Math.abs(scaleY) < 1e-3) return undefined;
  const size = `${shortNumber((b.xMax - b.xMin) * Math.abs(scaleX))} × ${shortNumber((b.yMax - b.yMin) * Math.abs(scaleY))}`;
  return {
    by: { scaleX, scaleY },
    origin,
    label: `${size}, ${Math.round(scaleX * 100)} × ${Math.round(scaleY * 100)} %`,
    copy,
  };
}

function paintBox({ context, view: v, inks }: Brush, b: Box): void {
  context.strokeStyle = inks.kelp;
  context.lineWidth = 1;
  const [x0, y0, x1, y1] = [toPxX(v, b.xMin), toPxY(v, b.yMax), toPxX(v, b.xMax), toPxY(v, b.yMin)];
  context.strokeRect(x0, y0, x1 - x0, y1 - y0);
  const [kx, ky] = knobOf(b, v.scale);
  context.beginPath();
  context.moveTo(toPxX(v, kx), y0);
  context.lineTo(toPxX(v, kx), toPxY(v, ky));
  context.stroke();
  context.fillStyle = inks.panel;
  context.lineWidth = 1.5;
  for (const [x, y, round] of [
    ...HANDLES.map((h) => [...originOn(b, h.at), false] as const),
    [kx, ky, true] as const,
  ]) {
    context.beginPath();
    if (round) context.arc(toPxX(v, x), toPxY(v, y), 5.5, 0, Math.PI * 2);
    else context.rect(toPxX(v, x) - 4, toPxY(v, y) - 4, 8, 8);
    context.fill();
    context.stroke();
  }
}

/**
 * Scales, slants, turns and moves what is chosen, or all, by a box: sides and corners scale, Ctrl on a side slants, the knob
 * turns, inside moves; Shift keeps proportions or steps of 15°, Alt works from the centre, D leaves a copy.
 */
export function transformTool(place: Workplace): Tool {
  let state: State | undefined;
  let copying = false;
  /** Pixels to the unit, as the box was last painted. */
  let scale = 1;

  const box = (): Box => {
    const drawing = place.settled();
    const selected = byContour(drawing, place.selection());
    if (selected.size === 0) return drawingBounds(drawing, drawingsOf(place.project(), place.master().id));
    const own = emptyBox();
    for (const [c, points] of selected)
      for (const i of points) stretchBox(own, drawing.contours[c]!.points[i]!.x, drawing.contours[c]!.points[i]!.y);
    return own;
  };
  const edit = ({ by, origin, copy }: NonNullable<State['now']>) => {
    const at = place.at('places');
    const points = [...place.selection()];
    const grid = state?.hand.free ? 0 : place.project().settings.grid;
    return (p: Project) => transformPoints(p, { at, points, by, origin, copy, grid });
  };
  const show = () => {
    if (!state) return;
    const now = worked(state, place.project(), copying);
    state = { ...state, now };
    if (now) place.preview(edit(now));
  };

  return {
    name: 'transform',
    cursor: () => (state ? 'grabbing' : 'default'),
    down(hand) {
      const b = box();
      const grasp = isEmptyBox(b) ? undefined : graspAt(hand, b, scale);
      if (grasp) state = { grasp, from: hand, box: b, now: undefined, hand };
      else place.select(new Set());
    },
    move(hand) {
      if (!state) return;
      state = { ...state, hand };
      show();
    },
    up(hand) {
      if (!state) return;
      const { now, from } = state;
      const change = now && edit(now);
      state = undefined;
      if (!now || !change || Math.hypot(hand.x - from.x, hand.y - from.y) < hand.reach * 0.2) place.cancel();
      else if (place.commit(change)) place.remember(now);
      else place.cancel();
      place.repaint();
    },
    key(key) {
      if (key.toLowerCase() === 'd') {
        copying = !copying;
        show();
        place.repaint();
        return true;
      }
      if (key !== 'Escape') return false;
      if (state) place.cancel();
      else place.select(new Set());
      state = undefined;
      return true;
    },
    leave() {
      if (state) place.cancel();
      state = undefined;
      copying = false;
    },
    paint(brush) {
      scale = brush.view.scale;
      const b = state ? state.box : box();
      if (!isEmptyBox(b)) paintBox(brush, b);
    },
    label: () =>
      state?.now
        ? { x: state.hand.x, y: state.hand.y, text: state.now.copy ? `a copy, ${state.now.label}` : state.now.label }
        : undefined,
    hints: () => (copying ? COPY_HINTS : HINTS),
  };
}

const HINTS = [
  ['Sides, corners', 'scale'],
  ['Knob', 'turns'],
  ['Ctrl', 'slants by a side'],
  ['Shift', 'in proportion, 15°'],
  ['Alt', 'from the centre'],
  ['D', 'leave a copy'],
  ['R', 'again'],
] as const;
const COPY_HINTS = [
  ['D', 'no copy any more: just now each drag leaves what was there and adds another'],
  ...HINTS.slice(3, 5),
] as const;
