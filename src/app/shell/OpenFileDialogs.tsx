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
        <ul className="mb-4 list-disc space-y-1 pl-5">
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
      <Modal
        open={folder !== undefined}
        onClose={leaveFolder}
        title={`${folder?.handle.name ?? ''} holds ${folder?.sources.length ?? 0} sources`}
      >
        <p className="mb-2">Which one is to be opened?</p>
        <ul className="grid max-h-[50vh] gap-1 overflow-auto">
          {folder?.sources.map((source) => (
            <li key={source}>
              <button
                type="button"
                className="w-full rounded-md border border-line px-3 py-1.5 text-left hover:bg-kelp-tint"
                onClick={() => openSource(source)}
              >
                {source}
              </button>
            </li>
          ))}
        </ul>
      </Modal>
      <Modal
        open={choice !== undefined}
        onClose={leaveChoice}
        title={`${choice?.file.name ?? ''} holds ${choice?.faces.length ?? 0} faces`}
      >
        <p className="mb-2">Which one is to be opened?</p>
        <ul className="grid gap-1">
          {choice?.faces.map((face, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: two faces may bear one name; the place tells them apart.
            <li key={i}>
              <button
                type="button"
                className="w-full rounded-md border border-line px-3 py-1.5 text-left hover:bg-kelp-tint"
                onClick={() => open(choice.file, i)}
              >
                {face}
              </button>
            </li>
          ))}
        </ul>
      </Modal>
    </>
  );
}
