import { type Contour, segmentsOf } from '../geometry/contour';
import type { Drawing, MasterId, Project } from './model';
import { drawingsOf, flattened } from './outline';

const n = (v: number) => Math.round(v * 100) / 100;

/** Contours as SVG path data in font units, y up. */
export function pathData(contours: readonly Contour[]): string {
  const out: string[] = [];
  for (const contour of contours) {
    const segments = segmentsOf(contour);
    const first = segments[0]?.curves[0];
    if (!first) continue;
    out.push(`M${n(first[0]!)} ${n(first[1]!)}`);
    for (const { curves } of segments) {
      for (const c of curves) {
        if (c.length === 4) out.push(`L${n(c[2]!)} ${n(c[3]!)}`);
        else if (c.length === 6) out.push(`Q${n(c[2]!)} ${n(c[3]!)} ${n(c[4]!)} ${n(c[5]!)}`);
        else out.push(`C${n(c[2]!)} ${n(c[3]!)} ${n(c[4]!)} ${n(c[5]!)} ${n(c[6]!)} ${n(c[7]!)}`);
      }
    }
    if (contour.closed) out.push('Z');
  }
  return out.join('');
}

const closedPaths = new WeakMap<readonly Contour[], string>();

/** The closed ones of some contours as path data; cached by the list's identity. */
export function closedPath(contours: readonly Contour[]): string {
  let path = closedPaths.get(contours);
  if (path === undefined) {
    path = pathData(contours.filter((c) => c.closed));
    closedPaths.set(contours, path);
  }
  return path;
}

const simple = new WeakMap<Drawing, string>();
const composite = new WeakMap<Project['glyphs'], WeakMap<Drawing, string>>();

/** A drawing's closed outline as path data, components drawn out; cached by identity. */
export function drawingPath(project: Project, master: MasterId, drawing: Drawing): string {
  let cache: WeakMap<Drawing, string> | undefined = simple;
  if (drawing.components.length > 0) {
    cache = composite.get(project.glyphs);
    if (!cache) {
      cache = new WeakMap();
      composite.set(project.glyphs, cache);
    }
  }
  let path = cache.get(drawing);
  if (path === undefined) {
    path = pathData(flattened(drawing, drawingsOf(project, master)).filter((c) => c.closed));
    cache.set(drawing, path);
  }
  return path;
}
