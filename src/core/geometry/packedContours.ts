import type { Contour, Point, PointType } from './contour';

/** Lists of closed contours as plain numbers, to go from one thread to another in one piece. */
export type PackedContours = {
  /** Contours of each list, points of each contour. */
  counts: Uint32Array;
  sizes: Uint32Array;
  /** x and y of each point. */
  places: Float64Array;
  types: Uint8Array;
};

const TYPES: readonly PointType[] = ['line', 'curve', 'qcurve', 'off'];

/** Packs what is drawn: places and types of points; names and smoothness stay behind. */
export function packContours(lists: readonly (readonly Contour[])[]): PackedContours {
  const contours = lists.flat();
  const points = contours.reduce((sum, c) => sum + c.points.length, 0);
  const places = new Float64Array(points * 2);
  const types = new Uint8Array(points);
  let at = 0;
  for (const c of contours)
    for (const p of c.points) {
      places[2 * at] = p.x;
      places[2 * at + 1] = p.y;
      types[at++] = TYPES.indexOf(p.type);
    }
  return {
    counts: Uint32Array.from(lists, (l) => l.length),
    sizes: Uint32Array.from(contours, (c) => c.points.length),
    places,
    types,
  };
}

export function unpackContours({ counts, sizes, places, types }: PackedContours): Contour[][] {
  let [contour, at] = [0, 0];
  return Array.from(counts, (count) =>
    Array.from({ length: count }, (): Contour => {
      const points = Array.from({ length: sizes[contour++]! }, (): Point => {
        const point = { x: places[2 * at]!, y: places[2 * at + 1]!, type: TYPES[types[at]!]! };
        at++;
        return point;
      });
      return { closed: true, points };
    }),
  );
}
