import type { Glyph, MasterId, Project } from '../../core/project/model';
import { drawingIn, drawingsOf, heightsOf } from '../../core/project/outline';
import { masterOf } from '../../core/project/queries';

/** The heights shown of glyphs, in font units. */
export type Reach = { top: number; bottom: number };

/** From descender to ascender, and as far beyond as ink goes; one for all glyphs given, so that they stand in one scale. */
export function reachOf(project: Project, master: MasterId, glyphs: readonly Glyph[]): Reach {
  const source = drawingsOf(project, master);
  const reach = plainReach(project, master);
  const air = project.unitsPerEm * 0.03;
  for (const g of glyphs) {
    const heights = heightsOf(drawingIn(project, g, master), source);
    if (!heights) continue;
    reach.top = Math.max(reach.top, heights[1] + air);
    reach.bottom = Math.min(reach.bottom, heights[0] - air);
  }
  return reach;
}

/** What a glyph is shown in by itself: a little more than from descender to ascender. */
function plainReach(project: Project, master: MasterId): Reach {
  const zones = masterOf(project, master)?.zones;
  const em = project.unitsPerEm;
  return {
    top: (zones?.ascender.position ?? em * 0.75) + em * 0.08,
    bottom: (zones?.descender.position ?? -em * 0.22) - em * 0.04,
  };
}
