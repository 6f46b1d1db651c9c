import { referencesSentence, removeGlyphs } from '../../../core/project/glyphEdits';
import { chooseGlyph, run, useBench } from '../../state/bench';
import { closeDialog } from '../../state/dialogs';
import { Modal } from '../../ui/Modal';
import { Button } from '../../ui/parts';

/** Asks before glyphs are taken out of the project, and says what refers to them. */
export function RemoveGlyphs({
  ids,
  open,
  onRemoved,
}: {
  ids: readonly string[];
  open: boolean;
  onRemoved: () => void;
}) {
  const project = useBench((s) => s.project)!;
  return (
    <Modal
      open={open}
      onClose={() => closeDialog()}
      title={ids.length === 1 ? `Remove ${project.glyphs[ids[0]!]?.name ?? ''}?` : `Remove ${ids.length} glyphs?`}
    >
      <p className="mb-4">
        {referencesSentence(project, ids) ?? 'Nothing else in the project refers to it.'} Undo brings everything back.
      </p>
      <div className="flex justify-end gap-2">
        <Button onClick={() => closeDialog()}>Keep</Button>
        <Button
          kind="danger"
          onClick={() => {
            closeDialog();
            if (run((p) => removeGlyphs(p, { ids }))) {
              onRemoved();
              chooseGlyph(undefined);
            }
          }}
        >
          Remove
        </Button>
      </div>
    </Modal>
  );
}
