import { type Contour, contourBounds, curvesOf } from '../geometry/contour';
import { coordinateAt, extremes, solveRising } from '../geometry/curve';
import type { GlyphId, MasterId, Project } from '../project/model';
import { drawingIn, drawingsOf, flattened } from '../project/outline';
import { leanOf, masterOf } from '../project/queries';

/** The lowest line of a profile, and how many there are: from −0.5 em up to 1.2 em, a hundredth of the em apart. */
const LOWEST = -50;
const LINES = 171;

/** Edges of outlines; each line was moved left by `lean` times its height over the `pivot`, which sets slanted letters upright. */
type Edges = {
  readonly left: Float64Array;
  readonly right: Float64Array;
  readonly step: number;
  readonly lean: number;
  readonly pivot: number;
};

/**
 * The outermost ink of a glyph line by line: the leftmost and rightmost x at heights a step apart, NaN where there is no ink.
 * Line i lies at (i + {@link LOWEST}) steps of a hundredth of the em.
 */
export type Profile = Edges & { readonly advance: number };

const cache = new WeakMap<readonly Contour[], Edges>();

/** Height of a profile's line, in font units. */
export const lineHeight = (profile: { step: number }, i: number): number => (i + LOWEST) * profile.step;
/** The first line at or above a height. */
export const lineAt = (profile: { step: number }, y: number): number =>
  Math.max(0, Math.min(LINES - 1, Math.ceil(y / profile.step) - LOWEST));

/** How far a line of a profile was moved to the left to set slanted letters upright, in font units. */
export const leanAt = (profile: Pick<Edges, 'step' | 'lean' | 'pivot'>, i: number): number =>
  profile.lean * ((i + LOWEST) * profile.step - profile.pivot);

/**
 * The profile of a glyph with its parts, cached by the outline's identity while it has no parts. Letters of a slanted master are set
 * upright by its italic angle about half the x-height, as spacing is judged along their slant; `asDrawn` leaves them.
 */
export function profileOf(project: Project, glyph: GlyphId, masterId: MasterId, asDrawn = false): Profile {
  const drawing = drawingIn(project, project.glyphs[glyph]!, masterId);
  const contours = flattened(drawing, drawingsOf(project, masterId));
  const master = masterOf(project, masterId);
  const { lean, pivot } = !master ? { lean: 0, pivot: 0 } : asDrawn ? { ...leanOf(master), lean: 0 } : leanOf(master);
  const step = project.unitsPerEm / 100;
  let found = cache.get(contours);
  if (!found || found.step !== step || found.lean !== lean || (lean !== 0 && found.pivot !== pivot)) {
    found = measured(contours, step, lean, pivot);
    cache.set(contours, found);
  }
  return { ...found, advance: drawing.advance };
}

function measured(contours: readonly Contour[], step: number, lean: number, pivot: number): Edges {
  const frame = { step, lean, pivot };
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
        for (let i = from; i <= to; i++)
          note(i, coordinateAt(c, 0, solveRising(c, 1, (i + LOWEST) * step, t0, t1)) - leanAt(frame, i));
      }
    }
  }
  return { left, right, ...frame };
}

/** Holds depths of neighbouring lines to a difference, so that what is shallow fills what lies deeper beside it. In place. */
export function limitRise(depths: Float64Array, rise: number): void {
  for (let i = 1; i < depths.length; i++) if (!(depths[i]! <= depths[i - 1]! + rise)) depths[i] = depths[i - 1]! + rise;
  for (let i = depths.length - 2; i >= 0; i--)
    if (!(depths[i]! <= depths[i + 1]! + rise)) depths[i] = depths[i + 1]! + rise;
}
