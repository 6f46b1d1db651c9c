import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { copiesOf } from '../../browser/stores';
import type { Copy } from '../../core/storage/copies';
import { useBench } from '../state/bench';
import { bringBack, keepCopy } from '../state/copies';
import { download } from '../state/projectFiles';
import { Modal } from '../ui/Modal';
import { Button } from '../ui/parts';

/** States of the project that were kept by themselves: what changed from each to the next, and the way back to it. */
export function CopiesDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Modal open={open} onClose={onClose} title="Dated copies">
      {open && <List onClose={onClose} />}
    </Modal>
  );
}

const when = (at: number): string =>
  new Date(at).toLocaleString('en-GB', {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  });

function List({ onClose }: { onClose: () => void }) {
  const projectId = useBench((s) => s.projectId);
  const family = useBench((s) => s.settled!.family.name);
  const readOnly = useBench((s) => s.readOnly);
  const navigate = useNavigate();
  const [said, setSaid] = useState<string>();
  const found = useQuery({ queryKey: ['copies', projectId], queryFn: () => copiesOf(projectId).list() });
  const onError = (e: Error) => setSaid(e.message);
  const keep = useMutation({
    mutationFn: () => keepCopy(true),
    onSuccess: (copy) => setSaid(copy ? undefined : 'Nothing was changed since the last one.'),
    onError,
    onSettled: () => found.refetch(),
  });
  const back = useMutation({
    mutationFn: (copy: Copy) => bringBack(projectId, copy, `${family}, ${when(copy.at)}`),
    onSuccess: (id) => {
      onClose();
      void navigate(`/p/${id}/case`);
    },
    onError,
  });
  const save = async (copy: Copy) => {
    const bytes = await copiesOf(projectId).file(copy.at);
    if (bytes)
      download(
        bytes,
        `${family} ${new Date(copy.at).toISOString().slice(0, 16).replace(':', '.')}.wendril`,
        'application/zip',
      );
    else setSaid('The file of this copy is gone.');
  };
  const remove = useMutation({
    mutationFn: (copy: Copy) => copiesOf(projectId).remove(copy.at),
    onError,
    onSettled: () => found.refetch(),
  });
  const copies = found.data ?? [];
  return (
    <>
      <p className="mb-2 text-quiet">
        While you work, a copy is kept every hour; of each day before, the last one stays for thirty days. Each is a
        whole project file in this browser.
      </p>
      {said && (
        <p role="alert" className="mb-2 text-brick">
          {said}
        </p>
      )}
      <ul className="mb-4 max-h-[46vh] divide-y divide-line overflow-auto" data-testid="copies">
        {copies.map((copy) => (
          <li key={copy.at} className="flex items-center gap-3 py-1.5">
            <span className="min-w-0 flex-1">
              <span className="block">{when(copy.at)}</span>
              <span className="block text-[13px] text-quiet">
                {copy.said} {copy.glyphs} glyphs, {(copy.bytes / 1e6).toFixed(1)} MB
              </span>
            </span>
            <Button disabled={back.isPending} onClick={() => back.mutate(copy)}>
              Open as a new project
            </Button>
            <Button onClick={() => void save(copy)}>Save to a file</Button>
            <Button onClick={() => remove.mutate(copy)}>Remove</Button>
          </li>
        ))}
        {found.data && copies.length === 0 && <li className="py-2 text-quiet">There is none yet.</li>}
      </ul>
      <div className="flex justify-end">
        <Button kind="primary" disabled={readOnly || keep.isPending} onClick={() => keep.mutate()}>
          Keep one now
        </Button>
      </div>
    </>
  );
}
