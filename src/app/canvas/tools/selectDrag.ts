import { placesByShape } from '../../../core/composing/anchorCatches';
import { moveAnchor } from '../../../core/composing/anchorEdits';
import { moveHandle, movePointsAlone, ownerOf } from '../../../core/drawing/arrange';
import { moveComponents } from '../../../core/drawing/components';
import { movePoints } from '../../../core/drawing/edits';
import { joinEnds, looseEnd, looseEndNear } from '../../../core/drawing/ends';
import { between } from '../../../core/drawing/gauge';
import { glidePoint } from '../../../core/drawing/glide';
import { guidesFor, setGuide } from '../../../core/drawing/guides';
import { byContour, type PointKey, pointKey, pointOf } from '../../../core/drawing/points';
import { type Catch, catchesFor, type Snapped, snapped } from '../../../core/drawing/snapping';
import { transformPoints } from '../../../core/drawing/transform';
import type { Outcome } from '../../../core/project/edit';
import type { Project } from '../../../core/project/model';
import { namesOf, SNAP_REACH } from './catching';
import { type Hand, onGrid, shortNumber, straightened, type Workplace } from './tool';

type Edit = (project: Project) => Outcome;
export type Dragging = {
  kind: 'dragging';
  /** The second press of a double click, until it is known not to be a drag. */
  second: boolean;
  from: Hand;
  /** What was grasped: a point, or a place on an outline or a part. */
  key: PointKey | undefined;
  part: number | undefined;
  /** A guide, by its place among those that hold for the drawing. */
  guide?: number;
  /** An anchor of the glyph, by its name. */
  mark?: string;
  anchor: { x: number; y: number };
  catches: readonly Catch[];
  /** The edit that the drag has come to, with what it caught on. */
  now: { edit: Edit; caught: Snapped | undefined; label: string; join?: PointKey; copies?: boolean } | undefined;
  hand: Hand;
};

/** What stands for all that is moved where no point was grasped, so that it comes to lie on the grid: a part's place, a chosen point. */
function anchorOf(place: Workplace, part: number | undefined): { x: number; y: number } | undefined {
  const drawing = place.drawing();
  if (part === undefined) {
    const [first] = place.selection();
    return first && pointOf(drawing, first);
  }
  const transform = drawing.components[part]?.transform;
  return transform && { x: transform[4], y: transform[5] };
}

/** A drag begins at a point, on an outline, or on a part. */
export function grasped(place: Workplace, hand: Hand, key: PointKey | undefined, part?: number): Dragging {
  const drawing = place.drawing();
  const p = key && pointOf(drawing, key);
  const moving = part === undefined ? new Set(place.selection()) : new Set<PointKey>();
  const catches = catchesFor(place.master(), drawing, moving);
  const second = hand.clicks === 2;
  const anchor = p ?? anchorOf(place, part) ?? hand;
  return { kind: 'dragging', second, from: hand, key, part, anchor, catches, now: undefined, hand };
}

/** Where the grasped place goes: held to an axis with Shift, caught by lines and points, else on the grid. */
function goal(
  place: Workplace,
  hand: Hand,
  { from, anchor, catches, key }: Dragging,
): { x: number; y: number; caught: Snapped | undefined } {
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
}

/** A drag of something that is no point or part: what it is, where it lies, what it catches on. */
const graspedThing = (
  hand: Hand,
  what: { guide: number } | { mark: string },
  { x, y }: { x: number; y: number },
  catches: readonly Catch[],
): Dragging => ({
  kind: 'dragging',
  second: false,
  from: hand,
  key: undefined,
  part: undefined,
  ...what,
  anchor: { x, y },
  catches,
  now: undefined,
  hand,
});

/** A drag begins on a guide. */
export const graspedGuide = (place: Workplace, hand: Hand, guide: number): Dragging =>
  graspedThing(hand, { guide }, guidesFor(place.master(), place.drawing())[guide]!, []);

/** A drag begins on an anchor; it catches on the lines and points of the drawing. */
export function graspedAnchor(place: Workplace, hand: Hand, mark: string): Dragging {
  const drawing = place.drawing();
  const catches = [
    ...catchesFor(place.master(), { ...drawing, anchors: [] }, new Set()),
    ...placesByShape(place.project(), place.at(), mark),
  ];
  return graspedThing(hand, { mark }, drawing.anchors.find((a) => a.name === mark)!, catches);
}

/** The edit that moves an anchor in this master. */
function anchorDragged(place: Workplace, hand: Hand, drag: Dragging & { mark: string }): Dragging['now'] {
  const { anchor, from, mark, catches } = drag;
  const [hx, hy] = hand.shift ? straightened(from.x, from.y, hand.x, hand.y) : [hand.x, hand.y];
  const [fx, fy] = [anchor.x + hx - from.x, anchor.y + hy - from.y];
  const grid = hand.free ? 0 : place.project().settings.grid;
  const caught = hand.free || hand.shift ? undefined : snapped(catches, fx, fy, hand.reach * SNAP_REACH);
  const x = caught && caught.x !== fx ? caught.x : onGrid(fx, grid);
  const y = caught && caught.y !== fy ? caught.y : onGrid(fy, grid);
  const { glyph, master } = place.at();
  return {
    edit: (p) => moveAnchor(p, { at: { glyph, master }, name: mark, x, y }),
    caught,
    label: `${mark} ${shortNumber(x)}, ${shortNumber(y)}${caught ? namesOf(caught) : ''}`,
  };
}

/** The edit that moves a guide by what the hand moved: across its own direction only. */
function guideDragged(place: Workplace, hand: Hand, { guide, anchor, from }: Dragging): Dragging['now'] {
  const master = place.master();
  const own = guide! - master.guides.length;
  const { angle } = guidesFor(master, place.settled())[guide!]!;
  const grid = hand.free ? 0 : place.project().settings.grid;
  const x = angle % 180 === 0 ? anchor.x : onGrid(anchor.x + hand.x - from.x, grid);
  const y = angle % 180 === 90 ? anchor.y : onGrid(anchor.y + hand.y - from.y, grid);
  const at = place.at();
  const where = { at, whole: own < 0, index: own < 0 ? guide! : own, change: { x, y } };
  const label =
    angle % 180 === 0 ? shortNumber(y) : angle % 180 === 90 ? shortNumber(x) : `${shortNumber(x)}, ${shortNumber(y)}`;
  return {
    edit: (p) => setGuide(p, where),
    caught: undefined,
    label: own < 0 ? `${label}, in all of ${master.name}` : label,
  };
}

/** All contours that have chosen points are chosen as a whole. */
export function wholeContours(place: Workplace): boolean {
  const drawing = place.settled();
  const selected = byContour(drawing, place.selection());
  return (
    selected.size > 0 &&
    [...selected].every(([c, own]) => drawing.contours[c]!.points.every((p, i) => p.type === 'off' || own.has(i)))
  );
}

/** The edit that a drag comes to with the hand where it is. */
export function dragged(place: Workplace, hand: Hand, drag: Dragging): Dragging['now'] {
  if (drag.guide !== undefined) return guideDragged(place, hand, drag);
  if (drag.mark !== undefined) return anchorDragged(place, hand, { ...drag, mark: drag.mark });
  const at = place.at('places');
  const { free } = hand;
  const drawing = place.settled();
  const { x, y, caught } = goal(place, hand, drag);
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
      return plain((p) => moveHandle(p, { at, handle: key, x, y, how: hand.mod ? 'free' : 'equal', free }), label);
    return plain((p) => movePoints(p, { at, points: [key], dx, dy, free }), label);
  }
  if (key && hand.mod && place.selection().size === 1)
    return plain((p) => glidePoint(p, { at, point: key, x: hand.x, y: hand.y }), 'gliding, the shape stays');
  const points = [...place.selection()];
  if (hand.alt && wholeContours(place))
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
  if (key && join)
    return { ...plain((p) => joinEnds(p, { at: place.at('structure'), from: key, to: join }), 'join the ends'), join };
  return plain(
    (p) => movePoints(p, { at, points, dx, dy, free }),
    points.length === 1 ? `${shortNumber(x)}, ${shortNumber(y)}` : by,
  );
}

/** Takes over what a drag has come to. */
export function dropped(place: Workplace, drag: Dragging): void {
  const { now } = drag;
  if (!now) return;
  const before = place.settled().contours.length;
  const same = drag.part === undefined && drag.hand.x === drag.from.x && drag.hand.y === drag.from.y;
  if (same || !place.commit(now.edit)) {
    place.cancel();
    return;
  }
  if (now.join) place.select(new Set());
  if (now.copies) {
    // What was just made is what goes on being moved.
    const added = place.drawing().contours.slice(before);
    place.select(
      new Set(added.flatMap((c, i) => c.points.flatMap((p, k) => (p.type === 'off' ? [] : [pointKey(before + i, k)])))),
    );
  }
}
