import { z } from 'zod';
import type { Drawing } from '../project/model';

/** No place lies farther out than this, in design units. */
export const FARTHEST = 16_383;
/** A place as edits take it: values by axis tag. */
export const place = z.record(z.string().max(4), z.number().min(-FARTHEST).max(FARTHEST)).readonly();

/** A number as drawings keep it. */
export const grid = (v: number): number => Math.round(v * 1000) / 1000;

/** A drawing without what belongs to one master only. */
export const plainDrawing = (d: Drawing): Drawing => ({
  ...d,
  advance: grid(d.advance),
  contours: d.contours.map((c) => ({ ...c, points: c.points.map((p) => ({ ...p, x: grid(p.x), y: grid(p.y) })) })),
  anchors: d.anchors.map((n) => ({ ...n, x: grid(n.x), y: grid(n.y) })),
  guides: [],
  backdrops: [],
});
