import { groundOf } from '../../features/ground';
import type { MasterId, Project } from '../../project/model';
import { drawingOf, glyphsInOrder } from '../../project/queries';

/** What rules that write themselves are made from, in a master. */
export const projectGround = (project: Project, master: MasterId) =>
  groundOf(
    glyphsInOrder(project)
      .filter((g) => g.cast)
      .map((glyph) => ({ glyph, drawing: drawingOf(glyph, master) })),
  );
