import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { forgetProject, listBin, restoreProject } from '../state/library';
import { Modal } from '../ui/Modal';
import { Button } from '../ui/parts';

/** Removed projects: brought back by one press, or let go before their thirty days are over. */
export function Bin() {
  const queries = useQueryClient();
  const bin = useQuery({ queryKey: ['library', 'bin'], queryFn: listBin });
  const [doomed, setDoomed] = useState<{ id: string; name: string }>();
  const onSettled = () => {
    setDoomed(undefined);
    void queries.invalidateQueries({ queryKey: ['library'] });
  };
  const restore = useMutation({ mutationFn: restoreProject, onSettled });
  const forget = useMutation({ mutationFn: forgetProject, onSettled });
  if (!bin.data || bin.data.length === 0) return null;
  return (
    <section aria-label="Bin" className="mt-8">
      <h2 className="mb-2 text-[15px] font-semibold">In the bin</h2>
      <ul aria-label="Removed projects" className="divide-y divide-line rounded-xl border border-line">
        {bin.data.map((p) => (
          <li key={p.id} className="flex items-center gap-3 px-4 py-2">
            <span className="min-w-0 flex-1 truncate">{p.name}</span>
            <span className="text-quiet">
              {p.glyphs} glyphs · kept for {p.daysLeft === 1 ? 'one more day' : `${p.daysLeft} days`}
            </span>
            <Button onClick={() => restore.mutate(p.id)}>Bring back</Button>
            <Button kind="danger" onClick={() => setDoomed(p)}>
              Remove for good
            </Button>
          </li>
        ))}
      </ul>
      <Modal
        open={doomed !== undefined}
        onClose={() => setDoomed(undefined)}
        title={`Remove ${doomed?.name ?? ''} for good?`}
      >
        <p className="mb-4">Nothing of it stays in this browser. A project file you saved elsewhere stays.</p>
        <div className="flex justify-end gap-2">
          <Button onClick={() => setDoomed(undefined)}>Keep it</Button>
          <Button kind="danger" onClick={() => doomed && forget.mutate(doomed.id)}>
            Remove for good
          </Button>
        </div>
      </Modal>
    </section>
  );
}
