import { type Curve, pointAt } from '../geometry/curve';
import { crossings } from '../geometry/intersect';
import type { Frame } from './frame';

/** Nearer than this to a knot that two sides share, they only meet there. */
const MEETING = 1;

/** Which sides of one solid cross each other, by their numbers, the lower first; `curves` are the sides as they lie. */
export function crossedSides(frame: Frame, curves: readonly Curve[]): [number, number][] {
  const out: [number, number][] = [];
  const boxes = curves.map(hull);
  for (let i = 0; i < curves.length; i++) {
    const [l, b, r, t] = boxes[i]!;
    const side = frame.sides[i]!;
    for (let j = i + 1; j < curves.length; j++) {
      if (frame.solid[frame.sides[j]!.contour] !== frame.solid[side.contour]) continue;
      const [l2, b2, r2, t2] = boxes[j]!;
      if (l2 > r || r2 < l || b2 > t || t2 < b) continue;
      const other = frame.sides[j]!;
      const shared = [side.to === other.from ? side.to : -1, side.from === other.to ? side.from : -1].filter(
        (k) => k >= 0,
      );
      const at = (knot: number) => (knot === side.to ? pointAt(curves[i]!, 1) : pointAt(curves[i]!, 0));
      const apart = crossings(curves[i]!, curves[j]!).some(({ t: place }) => {
        const [x, y] = pointAt(curves[i]!, place);
        return shared.every((k) => Math.hypot(at(k)[0] - x, at(k)[1] - y) > MEETING);
      });
      if (apart) out.push([i, j]);
    }
  }
  return out;
}

/** The box of a curve's points and handles. */
function hull(c: Curve): readonly [number, number, number, number] {
  let [l, b, r, t] = [c[0]!, c[1]!, c[0]!, c[1]!];
  for (let k = 2; k < c.length; k += 2) {
    l = Math.min(l, c[k]!);
    r = Math.max(r, c[k]!);
    b = Math.min(b, c[k + 1]!);
    t = Math.max(t, c[k + 1]!);
  }
  return [l, b, r, t];
}
