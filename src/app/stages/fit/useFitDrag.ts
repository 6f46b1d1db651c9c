import { useRef } from 'react';
import { addToSides, type SideName } from '../../../core/fitting/sides';
import type { Outcome } from '../../../core/project/edit';
import { changeSettings } from '../../../core/project/edits';
import type { GlyphId, MasterId, Project } from '../../../core/project/model';
import { cancelPreview, preview, run } from '../../state/bench';
import type { Grip } from './fitLines';

/** What the hand has: an edge, and where it was taken; or a starting line, with the ink that it is measured from, in pixels. */
type Drag =
  | { what: 'edge'; edge: SideName; from: number; both: boolean }
  | { what: 'start'; ink: number; counter: number }
  | undefined;
type Edit = (project: Project) => Outcome;

/** Dragging an edge or a starting line of the open glyph, in the masters given, each from its own values. */
export function useFitDrag({
  id,
  masters,
  scale,
}: {
  id: GlyphId | undefined;
  masters: readonly MasterId[];
  scale: number;
}) {
  const drag = useRef<Drag>(undefined);

  /** More room on the sides of the glyph. */
  const sidesBy =
    (left: number, right: number): Edit =>
    (p) =>
      addToSides(p, { glyph: id!, masters, left, right, grid: p.settings.grid });

  const editAt = (px: number): Edit | undefined => {
    const d = drag.current;
    if (!d || !id) return undefined;
    if (d.what === 'start') {
      const startShare = Math.round((100 * Math.abs(px - d.ink)) / d.counter) / 100;
      return (p) => changeSettings(p, { startShare: Math.max(0.05, Math.min(2, startShare)) });
    }
    const outwards = Math.round((px - d.from) / scale);
    // Pulling an edge outwards gives that side more room: the left edge is pulled to the left.
    const by = d.edge === 'left' ? -outwards : outwards;
    if (by === 0) return undefined;
    return sidesBy(d.both || d.edge === 'left' ? by : 0, d.both || d.edge === 'right' ? by : 0);
  };

  return {
    sidesBy,
    isOn: () => drag.current !== undefined,
    begin: (held: Grip, px: number, both: boolean) => {
      drag.current =
        held.what === 'start'
          ? { what: 'start', ink: held.ink, counter: held.counter }
          : { what: 'edge', edge: held.side, from: px, both };
    },
    move: (px: number) => {
      const edit = editAt(px);
      if (edit) preview(edit);
      else if (drag.current) cancelPreview();
    },
    end: (px: number) => {
      const edit = editAt(px);
      const was = drag.current;
      drag.current = undefined;
      if (edit) run(edit);
      else if (was) cancelPreview();
    },
    letGo: (): boolean => {
      if (!drag.current) return false;
      drag.current = undefined;
      cancelPreview();
      return true;
    },
  };
}
