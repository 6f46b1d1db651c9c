import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import type { Refusal } from '../../core/base/result';
import { bringBack, useBench } from '../state/bench';
import { everythingOf } from '../state/library';
import { download } from '../state/projectFiles';
import { Button } from '../ui/parts';

/** Saves every record of a project as it lies in storage. */
export async function saveRecords(projectId: string): Promise<void> {
  download(await everythingOf(projectId), `${projectId}-records.json`, 'application/json');
}

/** What could not be read when the project was opened, said once, with the ways on. */
export function Damage({ faults, damaged }: { faults: readonly Refusal[]; damaged: readonly string[] }) {
  const [open, setOpen] = useState(true);
  const [all, setAll] = useState(false);
  const projectId = useBench((s) => s.projectId);
  const readOnly = useBench((s) => s.readOnly);
  const back = useMutation({
    mutationFn: () => bringBack(damaged),
    onSuccess: (n) =>
      toast(
        n === damaged.length
          ? `${n === 1 ? 'The glyph is' : `${n} glyphs are`} as last stored.`
          : `${n} of ${damaged.length} could be brought back; of the others storage has no earlier state.`,
      ),
  });
  if (!open || faults.length === 0) return null;
  const shown = all ? faults : faults.slice(0, 2);
  return (
    <section aria-label="What could not be read" role="alert" className="bg-marigold-tint px-4 py-2 text-marigold">
      <ul aria-label="What could not be read" className="max-h-[30vh] overflow-auto">
        {shown.map((f) => (
          <li key={f.reason}>{f.reason}</li>
        ))}
      </ul>
      <p className="mt-1.5 flex flex-wrap items-center gap-2">
        <span>All else is here, and the bytes that could not be read are kept.</span>
        {faults.length > 2 && !all && <Button onClick={() => setAll(true)}>Show all {faults.length}</Button>}
        {damaged.length > 0 && !readOnly && (
          <Button onClick={() => back.mutate()}>
            {damaged.length === 1
              ? 'Bring its last good state back'
              : `Bring the last good state of ${damaged.length} back`}
          </Button>
        )}
        <Button onClick={() => void saveRecords(projectId)}>Save all records</Button>
        <Button onClick={() => setOpen(false)}>Go on</Button>
      </p>
    </section>
  );
}
