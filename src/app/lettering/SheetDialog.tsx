import { useEffect, useMemo, useState } from 'react';
import { tracingWorker } from '../../workers/clients';
import { Modal } from '../ui/Modal';
import { LettersStep } from './LettersStep';
import type { OpenedSheet } from './putBehind';
import { ScannerStep } from './ScannerStep';

/** Brings a sheet of lettering: from the scanner or a file to pictures, or outlines, in the glyphs that it holds. */
export function SheetDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Modal open={open} onClose={onClose} title="Get a sheet" full>
      {open && <SheetWork onClose={onClose} />}
    </Modal>
  );
}

function SheetWork({ onClose }: { onClose: () => void }) {
  const worker = useMemo(tracingWorker, []);
  const [sheet, setSheet] = useState<OpenedSheet>();
  const [reading, setReading] = useState(false);
  const [problem, setProblem] = useState<string>();
  useEffect(() => () => worker.stop(), [worker]);
  useEffect(() => () => URL.revokeObjectURL(sheet?.url ?? ''), [sheet]);
  if (reading) return <p role="status">Looking for the letters…</p>;
  if (!sheet)
    return (
      <ScannerStep
        problem={problem}
        onSheet={async (bytes, name) => {
          setReading(true);
          setProblem(undefined);
          const found = await worker.service
            .openSheet(bytes, name)
            .catch((e: Error) => ({ reason: `${name} could not be read: ${e.message}` }));
          setReading(false);
          if ('reason' in found) setProblem(found.reason);
          else setSheet({ ...found, name, url: URL.createObjectURL(found.preview) });
        }}
      />
    );
  return <LettersStep sheet={sheet} worker={worker} onBack={() => setSheet(undefined)} onClose={onClose} />;
}
