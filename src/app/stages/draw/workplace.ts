import { drawingOf, masterOf } from '../../../core/project/queries';
import type { Workplace } from '../../canvas/tools/tool';
import { cancelPreview, preview, run, select, useBench } from '../../state/bench';
import { rememberTransform } from './again';
import { place } from './details/place';
import { chooseParts, gaugesOf, layGauges, setLevelling, useDrawBench } from './drawBench';

/** What tools work on: the open glyph in the current master, as it stands now. */
export const workplace = (repaint: () => void): Workplace => ({
  project: () => useBench.getState().project!,
  master: () => masterOf(useBench.getState().project!, useBench.getState().master)!,
  at: place,
  drawing: () => {
    const { project, glyph, master } = useBench.getState();
    return drawingOf(project!.glyphs[glyph!]!, master);
  },
  settled: () => {
    const { settled, glyph, master } = useBench.getState();
    return drawingOf(settled!.glyphs[glyph!]!, master);
  },
  selection: () => useBench.getState().selection,
  select,
  preview,
  commit: run,
  cancel: cancelPreview,
  repaint,
  parts: () => useDrawBench.getState().parts,
  chooseParts,
  anchorsShown: () => useDrawBench.getState().tab === 'parts',
  levelling: () => useDrawBench.getState().levelling,
  setLevelling,
  gauges: () => gaugesOf(useBench.getState().glyph!),
  layGauges: (gauges) => layGauges(useBench.getState().glyph!, gauges),
  typedSize: () => useDrawBench.getState().typedSize,
  remember: rememberTransform,
});
