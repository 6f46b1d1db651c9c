import { transformContour } from '../geometry/contour';
import { drawingsAt, isStuck } from '../project/drawingsAt';
import { kerningOf } from '../project/kerningLookup';
import type { GlyphId, Project } from '../project/model';
import { flattened } from '../project/outline';
import { type Place, weightsAt } from '../project/places';
import { glyphForCodePoint } from '../project/queries';
import type { GlyphAt } from './glyphAt';
import { standsFor } from './handovers';

/** A word as it is spaced and kerned at a place, as one outline; characters that the project lacks are passed over. */
export function wordAt(project: Project, word: string, place: Place): GlyphAt {
  const ids = [...word].flatMap((c) => glyphForCodePoint(project, c.codePointAt(0)!)?.id ?? []);
  const standing = ids.map((id) => standsFor(project, id, place));
  const source = drawingsAt(project, place);
  const weights = weightsAt(
    project.axes,
    project.masters.map((m) => m.place),
    place,
  );
  const kerned = (first: GlyphId, second: GlyphId): number =>
    project.masters.reduce(
      (sum, m, i) => sum + (weights[i] ? weights[i]! * (kerningOf(project, m, first, second)?.value ?? 0) : 0),
      0,
    );
  let x = 0;
  const contours = standing.flatMap((id, i) => {
    if (i > 0) x += kerned(standing[i - 1]!, id);
    const drawing = source(id)!;
    const placed = flattened(drawing, source).map((c) => transformContour(c, [1, 0, 0, 1, x, 0]));
    x += drawing.advance;
    return placed;
  });
  return { contours, advance: x, stuck: standing.some((id) => isStuck(project.glyphs[id]!)) };
}
