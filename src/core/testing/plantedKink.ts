import { isOnCurve, neighbour } from '../geometry/contour';
import type { Drawing, Glyph } from '../project/model';

/** Smooth points with a handle at both sides, in a drawing: contour and point. */
export const smoothPoints = (d: Drawing): [number, number][] =>
  d.contours.flatMap((c, k) =>
    c.points.flatMap((p, i): [number, number][] => {
      const sides = [neighbour(c, i, -1), neighbour(c, i, 1)].map((n) => n !== undefined && !isOnCurve(c.points[n]!));
      return isOnCurve(p) && p.smooth && sides.every(Boolean) ? [[k, i]] : [];
    }),
  );

/** A glyph whose point in one master stands farther along its tangent, the handle behind it turned there. */
export function planted(glyph: Glyph, master: string, at: readonly [number, number], by: number): Glyph {
  const d = glyph.drawings[master]!;
  const [k, i] = at;
  const c = d.contours[k]!;
  const [b, n] = [neighbour(c, i, -1)!, neighbour(c, i, 1)!];
  const [before, after] = [c.points[b]!, c.points[n]!];
  const length = Math.hypot(after.x - before.x, after.y - before.y);
  const [dx, dy] = [((after.x - before.x) / length) * by, ((after.y - before.y) / length) * by];
  // The point slides, and the tangent turns a little, so that shares and directions differ from those of the other masters.
  const turn = (p: { x: number; y: number }, sign: number) => ({ x: p.x - dy * 0.9 * sign, y: p.y + dx * 0.9 * sign });
  const points = c.points.map((p, j) => (j === i ? { ...p, x: p.x + dx, y: p.y + dy } : p));
  const lean = (q: typeof before, sign: number) => ({ ...q, ...turn(q, sign) });
  const whole = points.map((p, j) => (j === b ? lean(before, -1) : j === n ? lean(after, 1) : p));
  // The point lies on the line between its handles again.
  const [h0, h1, p] = [whole[b]!, whole[n]!, whole[i]!];
  const share =
    ((p.x - h0.x) * (h1.x - h0.x) + (p.y - h0.y) * (h1.y - h0.y)) / ((h1.x - h0.x) ** 2 + (h1.y - h0.y) ** 2);
  const on = { ...p, x: h0.x + (h1.x - h0.x) * share, y: h0.y + (h1.y - h0.y) * share };
  const contour = { ...c, points: whole.map((q, j) => (j === i ? on : q)) };
  return {
    ...glyph,
    drawings: { ...glyph.drawings, [master]: { ...d, contours: d.contours.map((x, j) => (j === k ? contour : x)) } },
  };
}
