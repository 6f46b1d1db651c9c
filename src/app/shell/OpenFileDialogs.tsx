import { Modal } from '../ui/Modal';
import { Button } from '../ui/parts';
import type { useOpenFile } from './useOpenFile';

/** What came in otherwise than it stands in the file; and which face of several is to be opened. */
export function OpenFileDialogs({
  opened,
  toCase,
  choice,
  leaveChoice,
  open,
  folder,
  leaveFolder,
  openSource,
}: ReturnType<typeof useOpenFile>) {
  return (
    <>
      <Modal open={opened !== undefined} onClose={toCase} title={`${opened?.name ?? ''} is opened`}>
        <p className="mb-2">What came in otherwise than it stands in the file:</p>
        <ul aria-label="What came in otherwise" className="mb-4 list-disc space-y-1 pl-5">
          {opened?.notes.map((note) => (
            <li key={note}>{note}</li>
          ))}
        </ul>
        <div className="flex justify-end">
          <Button kind="primary" onClick={toCase}>
            To its case
          </Button>
        </div>
      </Modal>
      <Which
        title={folder && `${folder.handle.name} holds ${folder.sources.length} sources`}
        options={folder?.sources ?? []}
        onChoose={(i) => openSource(folder!.sources[i]!)}
        onClose={leaveFolder}
      />
      <Which
        title={choice && `${choice.file.name} holds ${choice.faces.length} faces`}
        options={choice?.faces ?? []}
        onChoose={(i) => open(choice!.file, i)}
        onClose={leaveChoice}
      />
    </>
  );
}

/** Asks which of several is to be opened; shown while there is a title. */
function Which({
  title,
  options,
  onChoose,
  onClose,
}: {
  title: string | undefined;
  options: readonly string[];
  onChoose: (index: number) => void;
  onClose: () => void;
}) {
  return (
    <Modal open={title !== undefined} onClose={onClose} title={title ?? ''}>
      <p className="mb-2">Which one is to be opened?</p>
      <ul aria-label="Choices" className="grid gap-1">
        {options.map((option, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: two may bear one name; the place tells them apart.
          <li key={i}>
            <button
              type="button"
              className="w-full rounded-md border border-line px-3 py-1.5 text-left hover:bg-kelp-tint"
              onClick={() => onChoose(i)}
            >
              {option}
            </button>
          </li>
        ))}
      </ul>
    </Modal>
  );
}
