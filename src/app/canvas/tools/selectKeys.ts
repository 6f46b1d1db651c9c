import { moveComponents, removeComponents } from '../../../core/drawing/components';
import { deletePoints, movePoints, nearestSegment, setSmooth, toggleSegment } from '../../../core/drawing/edits';
import { outlinePoints, type PointKey, pointKey, pointOf } from '../../../core/drawing/points';
import type { Hand, Tool, Workplace } from './tool';

/** All points, handles too, in the order of the contours. */
const allPoints = (place: Workplace): PointKey[] =>
  place.drawing().contours.flatMap((c, i) => c.points.map((_, j) => pointKey(i, j)));

/** The point or handle before or after one. */
function nextPoint(place: Workplace, key: PointKey, step: number): PointKey {
  const all = allPoints(place);
  const at = all.indexOf(key);
  return all[(Math.max(0, at) + step + all.length) % all.length] ?? key;
}

/** What keys do with the points and parts that are chosen; `last` is where the hand was last. False: the key is none of ours. */
export function chosenKey(
  place: Workplace,
  last: Hand | undefined,
  key: string,
  { shift, mod }: Parameters<Tool['key']>[1],
): boolean {
  const at = place.at('places');
  const whole = place.at('structure');
  const points = [...place.selection()];
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
        ? place.commit((p) => deletePoints(p, { at: whole, points }))
        : place.commit((p) => removeComponents(p, { at: whole, indices: parts }));
    if (done) {
      place.select(new Set());
      place.chooseParts([]);
    }
    return true;
  }
  if (key.toLowerCase() === 'c' && !mod && points.length > 0) {
    const anySmooth = points.some((k) => pointOf(place.drawing(), k)?.smooth);
    place.commit((p) => setSmooth(p, { at: whole, points, smooth: !anySmooth }));
    return true;
  }
  if (key.toLowerCase() === 'l' && !mod && last) {
    const hand = last;
    const near = nearestSegment(place.drawing(), hand.x, hand.y);
    if (near && near.distance <= hand.reach * 2) {
      place.select(new Set());
      place.commit((p) => toggleSegment(p, { at: whole, x: hand.x, y: hand.y, within: hand.reach * 2 }));
    }
    return true;
  }
  if (key.toLowerCase() === 'a' && mod) {
    place.select(new Set(outlinePoints(place.drawing())));
    return true;
  }
  if (key === 'Tab' && points.length > 0) {
    place.select(new Set([nextPoint(place, points[shift ? 0 : points.length - 1]!, shift ? -1 : 1)]));
    return true;
  }
  if (key === 'Home' || key === 'End') {
    const all = allPoints(place);
    const goal = key === 'Home' ? all[0] : all[all.length - 1];
    if (goal) place.select(new Set([goal]));
    return goal !== undefined;
  }
  return false;
}
