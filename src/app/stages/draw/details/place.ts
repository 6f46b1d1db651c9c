import type { DrawingPlace } from '../../../../core/project/edit';
import { useBench } from '../../../state/bench';

/** The drawing on the bench, as edits name it. */
export const place = (): DrawingPlace => {
  const { glyph, master } = useBench.getState();
  return { glyph: glyph!, master };
};
