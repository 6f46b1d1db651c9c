import type { Finding, Spot } from '../../../core/preflight/finding';
import type { GlyphId, MasterId, Project } from '../../../core/project/model';
import { drawingIn } from '../../../core/project/outline';

/** The places of a finding in a master: its own are those of its worst one, in others its point stands where it stands there. */
export function spotsIn(project: Project, finding: Finding, master: MasterId): readonly Spot[] {
  if (finding.masters[0] === master || finding.masters.length === 0) return finding.spots;
  const glyph = finding.glyph ? project.glyphs[finding.glyph] : undefined;
  const p = glyph && drawingIn(project, glyph, master).contours[finding.contour ?? -1]?.points[finding.point ?? -1];
  return p ? [p] : finding.spots;
}

/** The two glyphs of a finding of kerning, in their order. */
export const pairOf = (finding: Finding): readonly [GlyphId, GlyphId] | undefined =>
  finding.kind.startsWith('kerning/') && finding.glyph !== undefined && finding.others?.[0] !== undefined
    ? [finding.glyph, finding.others[0]]
    : undefined;
