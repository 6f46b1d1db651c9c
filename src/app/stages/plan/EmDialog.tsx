import { setUnitsPerEm } from '../../../core/project/edits';
import { run, useBench } from '../../state/bench';
import { Modal } from '../../ui/Modal';
import { Button } from '../../ui/parts';

/** Asks what a new em means: everything scaled, or only the number. */
export function EmDialog({ em, onClose }: { em: number | undefined; onClose: () => void }) {
  const now = useBench((s) => s.settled!.unitsPerEm);
  const take = (scale: boolean) => {
    onClose();
    if (em !== undefined) run((p) => setUnitsPerEm(p, { unitsPerEm: em, scale }));
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
