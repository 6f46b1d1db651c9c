import { type Contour, contourBounds, curvesOf } from '../geometry/contour';
import { coordinateAt, extremes, solveRising } from '../geometry/curve';
import type { GlyphId, MasterId, Project } from '../project/model';
import { drawingsOf, flattened } from '../project/outline';
import { drawingOf } from '../project/queries';

/** The lowest line of a profile, and how many there are: from −0.5 em up to 1.2 em, a hundredth of the em apart. */
const LOWEST = -50;
const LINES = 171;

/**
 * The outermost ink of a glyph line by line: the leftmost and rightmost x at heights a step apart, NaN where there is no ink.
 * Line i lies at (i + {@link LOWEST}) steps of a hundredth of the em.
 */
export type Profile = { readonly left: Float64Array; readonly right: Float64Array; readonly step: number; readonly advance: number };

const cache = new WeakMap<readonly Contour[], { left: Float64Array; right: Float64Array; step: number }>();

/** Height of a profile's line, in font units. */
export const lineHeight = (profile: { step: number }, i: number): number => (i + LOWEST) * profile.step;
/** The first line at or above a height. */
export const lineAt = (profile: { step: number }, y: number): number => Math.max(0, Math.min(LINES - 1, Math.ceil(y / profile.step) - LOWEST));

/** The profile of a glyph with its parts; cached by the outline's identity while it has no parts. */
export function profileOf(project: Project, glyph: GlyphId, master: MasterId): Profile {
  const drawing = drawingOf(project.glyphs[glyph]!, master);
  const contours = flattened(drawing, drawingsOf(project, master));
  let found = cache.get(contours);
  const step = project.unitsPerEm / 100;
  if (!found || found.step !== step) {
    found = measured(contours, step);
    cache.set(contours, found);
  }
  return { ...found, advance: drawing.advance };
}

function measured(contours: readonly Contour[], step: number): { left: Float64Array; right: Float64Array; step: number } {
  const left = new Float64Array(LINES).fill(Number.NaN);
  const right = new Float64Array(LINES).fill(Number.NaN);
  const note = (i: number, x: number) => {
    if (!(left[i]! <= x)) left[i] = x;
    if (!(right[i]! >= x)) right[i] = x;
  };
  for (const contour of contours) {
    const box = contourBounds(contour);
    if (box.xMin > box.xMax) continue;
    for (const c of curvesOf(contour)) {
      // Pieces that only rise or only fall cross each line once.
      const turns = [0, ...extremes(c, 1), 1].sort((a, b) => a - b);
      for (let k = 1; k < turns.length; k++) {
        const [t0, t1] = [turns[k - 1]!, turns[k]!];
        const [y0, y1] = [coordinateAt(c, 1, t0), coordinateAt(c, 1, t1)];
        const from = Math.max(0, Math.ceil(Math.min(y0, y1) / step) - LOWEST);
        const to = Math.min(LINES - 1, Math.floor(Math.max(y0, y1) / step) - LOWEST);
        for (let i = from; i <= to; i++) note(i, coordinateAt(c, 0, solveRising(c, 1, (i + LOWEST) * step, t0, t1)));
      }
    }
  }
  return { left, right, step };
}

/** Holds depths of neighbouring lines to a difference, so that what is shallow fills what lies deeper beside it. In place. */
export function limitRise(depths: Float64Array, rise: number): void {
  for (let i = 1; i < depths.length; i++) if (!(depths[i]! <= depths[i - 1]! + rise)) depths[i] = depths[i - 1]! + rise;
  for (let i = depths.length - 2; i >= 0; i--) if (!(depths[i]! <= depths[i + 1]! + rise)) depths[i] = depths[i + 1]! + rise;
}
