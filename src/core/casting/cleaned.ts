import type { Contour } from '../geometry/contour';
import { removeOverlaps, type ShapeResult } from '../geometry/overlaps';
import type { MasterId, Project } from '../project/model';
import { drawingOf, glyphsInOrder } from '../project/queries';

/** What is drawn of a list of contours. */
export const isDrawn = (c: Contour): boolean => c.closed && c.points.length > 1;

const results = new WeakMap<readonly Contour[], ShapeResult>();

/** The contours of a drawing without overlaps; made once for the same list, whatever is composed of it or cast from it. */
export function cleanedOf(contours: readonly Contour[]): ShapeResult {
  let clean = results.get(contours);
  if (!clean) {
    clean = removeOverlaps(contours.filter(isDrawn));
    results.set(contours, clean);
  }
  return clean;
}

/** Keeps what was found elsewhere for the contours of a drawing. */
export function keepCleaned(contours: readonly Contour[], result: ShapeResult): void {
  results.set(contours, { ...result, contours: result.contours.filter(isDrawn) });
}

/** The drawn outlines of a master that a font without overlaps asks for, as the drawings have them. */
export const outlinesToClean = (project: Project, master: MasterId): (readonly Contour[])[] =>
  glyphsInOrder(project).flatMap((g) => {
    const { contours } = drawingOf(g, master);
    return contours.length > 0 && contours.every(isDrawn) && !results.has(contours) ? [contours] : [];
  });
