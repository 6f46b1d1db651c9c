import type { DrawingPlace } from '../../../../core/project/edit';
import type { MasterId, Project } from '../../../../core/project/model';
import { agreeingMasters } from '../../../../core/project/structure';
import type { ChangeKind } from '../../../canvas/tools/tool';
import { useBench } from '../../../state/bench';
import { type Reaching, useDrawBench } from '../drawBench';

/** The other masters that a change reaches as it is set. */
const reachedBy = (
  project: Project,
  { glyph, master }: { glyph: string; master: MasterId },
  reaching: Reaching,
  kind: ChangeKind,
): readonly MasterId[] => {
  const g = project.glyphs[glyph];
  const meant = reaching === 'all' || (reaching === 'structure' && kind === 'structure');
  return g && meant && project.masters.length > 1 ? agreeingMasters(project, g, master) : [];
};

/** The drawing on the bench, as edits name it; for a kind of change with the masters that it is set to reach too. */
export const place = (kind?: ChangeKind): DrawingPlace => {
  const { glyph, master, settled } = useBench.getState();
  const at = { glyph: glyph!, master };
  const also = settled && kind ? reachedBy(settled, at, useDrawBench.getState().reaching, kind) : [];
  return also.length > 0 ? { ...at, also } : at;
};
