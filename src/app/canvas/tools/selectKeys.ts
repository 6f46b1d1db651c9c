import { moveComponents, removeComponents } from '../../../core/drawing/components';
import { deletePoints, movePoints, nearestSegment, setSmooth, toggleSegment } from '../../../core/drawing/edits';
import { type PointKey, pointKey, pointOf } from '../../../core/drawing/points';
import { isOnCurve } from '../../../core/geometry/contour';
import type { Hand, Tool, Workplace } from './tool';

/** All points on the outline. */
const onCurve = (place: Workplace): PointKey[] =>
  place.drawing().contours.flatMap((c, i) => c.points.flatMap((p, j) => (isOnCurve(p) ? [pointKey(i, j)] : [])));

function nextPoint(place: Workplace, key: PointKey, step: number): PointKey {
  const all = onCurve(place);
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
  const at = place.at();
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
    place.select(new Set(onCurve(place)));
    return true;
  }
  if (key === 'Tab' && points.length === 1) {
    place.select(new Set([nextPoint(place, points[0]!, shift ? -1 : 1)]));
    return true;
  }
  return false;
}
