import { setUnitsPerEm } from '../../../core/project/edits';
import { useBench } from '../../state/bench';
import { runFar } from '../../state/far';
import { Modal } from '../../ui/Modal';
import { Button } from '../../ui/parts';

/** Asks what a new em means: everything scaled, or only the number. */
export function EmDialog({ em, onClose }: { em: number | undefined; onClose: () => void }) {
  const now = useBench((s) => s.settled!.unitsPerEm);
  const glyphs = useBench((s) => s.settled!.glyphOrder.length);
  const take = (scale: boolean) => {
    onClose();
    if (em !== undefined) void runFar(setUnitsPerEm, { unitsPerEm: em, scale }, { glyphs: scale ? glyphs : 0 });
  };
  return (
    <Modal open={em !== undefined} onClose={onClose} title={`${em} units per em`}>
      <p className="mb-4">
        Scaled by {Math.round(((em ?? now) / now) * 1000) / 10} %, letters look as they did: outlines, metrics, kerning,
        guides and anchors of all masters go along. With only the number changed they keep their units and look larger
        or smaller in text.
      </p>
      <div className="flex flex-wrap justify-end gap-2">
        <Button onClick={onClose}>Leave {now}</Button>
        <Button onClick={() => take(false)}>Only the number</Button>
        <Button kind="primary" onClick={() => take(true)}>
          Scale everything
        </Button>
      </div>
    </Modal>
  );
}
