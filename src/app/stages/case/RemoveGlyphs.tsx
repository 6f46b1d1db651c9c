import { useMemo, useState } from 'react';
import { plural } from '../../../core/project/edit';
import { hasPartOf, removalConsequences, removeGlyphs } from '../../../core/project/removal';
import { chooseGlyph, useBench } from '../../state/bench';
import { closeDialog } from '../../state/dialogs';
import { runFar } from '../../state/far';
import { Modal } from '../../ui/Modal';
import { Button, CheckRow } from '../../ui/parts';

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
  const [drawOut, setDrawOut] = useState(true);
  const told = useMemo(() => (open ? removalConsequences(project, ids, drawOut) : []), [open, project, ids, drawOut]);
  const isPart = useMemo(() => {
    const doomed = new Set(ids);
    return open && Object.values(project.glyphs).some((g) => !doomed.has(g.id) && hasPartOf(g, doomed));
  }, [open, project, ids]);
  return (
    <Modal
      open={open}
      onClose={() => closeDialog()}
      title={
        ids.length === 1 ? `Remove ${project.glyphs[ids[0]!]?.name ?? ''}?` : `Remove ${plural(ids.length, 'glyph')}?`
      }
    >
      {told.length === 0 ? (
        <p className="mb-3">Nothing else in the project refers to {ids.length === 1 ? 'it' : 'them'}.</p>
      ) : (
        <ul aria-label="What becomes of what refers to it" className="mb-3 list-disc pl-5">
          {told.map((t) => (
            <li key={t}>{t}</li>
          ))}
        </ul>
      )}
      {isPart && (
        <CheckRow
          label="Draw the part out first, so that those letters look as before"
          checked={drawOut}
          onChange={setDrawOut}
        />
      )}
      <p className="mt-2 mb-4 text-quiet">Undo brings everything back.</p>
      <div className="flex justify-end gap-2">
        <Button onClick={() => closeDialog()}>Keep</Button>
        <Button
          kind="danger"
          onClick={() => {
            closeDialog();
            void runFar(removeGlyphs, { ids, drawOut }, { glyphs: ids.length }).then((done) => {
              if (!done) return;
              onRemoved();
              chooseGlyph(undefined);
            });
          }}
        >
          Remove
        </Button>
      </div>
    </Modal>
  );
}
