import type { Drawing, Glyph, MasterId, Project } from '../../../core/project/model';
import { countedPoints, MOST_POINTS } from '../../../core/reweighting/many';
import { missedWidth, strokesOf } from '../../../core/reweighting/standard';
import { type MeasuredStroke, tellingStrokes } from '../../../core/reweighting/strokes';

type Shown = MeasuredStroke & { missed: boolean };
const known = new WeakMap<Drawing, readonly Shown[]>();

/** The strokes that tell of a drawing, and which of them miss the width of their fellows; kept for the same drawing. */
export function shownStrokes(project: Project, glyph: Glyph, master: MasterId, drawing: Drawing): readonly Shown[] {
  let found = known.get(drawing);
  if (countedPoints(drawing) > MOST_POINTS) return [];
  if (!found) {
    const near = project.unitsPerEm * 0.07;
    found = tellingStrokes(strokesOf(project, glyph, master), near).map((s) => ({
      ...s,
      missed: missedWidth(project, master, s) !== undefined,
    }));
    known.set(drawing, found);
  }
  return found;
}
