import { endTrial, keepTrying, useBench } from '../../state/bench';
import { Modal } from '../../ui/Modal';
import { Button } from '../../ui/parts';

/** Asked when something is edited while a take is only tried. */
export function TrialDialog() {
  const trial = useBench((s) => (s.trialAsked ? s.trial : undefined));
  return (
    <Modal open={trial !== undefined} onClose={keepTrying} title={`“${trial?.name}” is only being tried`}>
      <p className="mb-4">
        What you see is a take; the drawing itself is as it was. Make the take the drawing, and what is there now is
        kept as a take too; or go back to the drawing and change that.
      </p>
      <div className="flex flex-wrap justify-end gap-2">
        <Button onClick={keepTrying}>Go on trying</Button>
        <Button onClick={endTrial}>Back to the drawing</Button>
        <Button kind="primary" onClick={() => trial?.adopt()}>
          Make it the drawing
        </Button>
      </div>
    </Modal>
  );
}
