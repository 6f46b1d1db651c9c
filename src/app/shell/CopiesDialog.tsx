import { useMutation, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { copiesOf } from '../../browser/stores';
import { differencesByName } from '../../core/project/differences';
import type { Project } from '../../core/project/model';
import type { Copy } from '../../core/storage/copies';
import { useBench } from '../state/bench';
import { bringBack, keepCopy, projectOf } from '../state/copies';
import { download } from '../state/projectFiles';
import { GlyphShape } from '../ui/GlyphShape';
import { Modal } from '../ui/Modal';
import { Button } from '../ui/parts';

/** States of the project that were kept by themselves: what changed from each to the next, and the way back to it. */
export function CopiesDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Modal open={open} onClose={onClose} title="Dated copies" wide>
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
  const look = useMutation({
    mutationFn: async (copy: Copy) => ({ copy, project: await projectOf(projectId, copy) }),
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
      {look.data && <Look copy={look.data.copy} then={look.data.project} onClose={() => look.reset()} />}
      <ul aria-label="Copies" className="mb-4 max-h-[46vh] divide-y divide-line overflow-auto" data-testid="copies">
        {copies.map((copy) => (
          <li key={copy.at} className="flex items-center gap-3 py-1.5">
            <span className="min-w-0 flex-1">
              <span className="block">{when(copy.at)}</span>
              <span className="block text-[13px] text-quiet">
                {copy.said} {copy.glyphs} glyphs, {(copy.bytes / 1e6).toFixed(1)} MB
              </span>
            </span>
            <Button disabled={look.isPending} onClick={() => look.mutate(copy)}>
              Look
            </Button>
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

/** How many glyphs are shown at first, and how many more each time. */
const AT_ONCE = 60;

/** What is other now than in a copy: each glyph then and now, and what else. */
function Look({ copy, then, onClose }: { copy: Copy; then: Project; onClose: () => void }) {
  const now = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const [count, setCount] = useState(AT_ONCE);
  const { glyphs, pairs, others } = useMemo(() => differencesByName(then, now), [then, now]);
  const shown = now.masters.find((m) => m.id === master)?.name ?? '';
  const named = (p: Project, name: string) => (p.masters.find((m) => m.name === name) ?? p.masters[0]!).id;
  const more = [...(pairs > 0 ? [`the kerning of ${pairs === 1 ? 'one pair' : `${pairs} pairs`}`] : []), ...others];
  return (
    <section aria-label="Then and now" className="mb-3 rounded-lg border border-line bg-paper p-3">
      <div className="mb-2 flex items-baseline gap-3">
        <h3 className="font-semibold">{when(copy.at)}, and now</h3>
        <span className="text-quiet">
          {glyphs.length === 0 && more.length === 0
            ? 'Nothing differs.'
            : `${glyphs.length === 1 ? 'One glyph differs' : `${glyphs.length} glyphs differ`}${more.length > 0 ? `; so do ${more.join(', ')}` : ''}.`}
        </span>
        <Button className="ml-auto" onClick={onClose}>
          Enough
        </Button>
      </div>
      <ul
        aria-label="Glyphs that differ"
        className="grid max-h-[30vh] grid-cols-[repeat(auto-fill,minmax(118px,1fr))] gap-1.5 overflow-auto"
      >
        {glyphs.slice(0, count).map((g) => {
          // What is the same in the master at hand is shown where it differs.
          const at = g.masters?.length && !g.masters.includes(shown) ? g.masters[0]! : shown;
          return (
            <li key={g.name} className="flex flex-col items-center rounded-lg border border-line bg-panel px-1 pt-1">
              <span className="flex h-[50px] items-center gap-1">
                {g.was !== undefined && (
                  <span className="text-quiet">
                    <GlyphShape project={then} glyph={then.glyphs[g.was]!} master={named(then, at)} size={48} />
                  </span>
                )}
                {g.was !== undefined && g.is !== undefined && (
                  <span aria-hidden className="text-quiet">
                    →
                  </span>
                )}
                {g.is !== undefined && (
                  <GlyphShape project={now} glyph={now.glyphs[g.is]!} master={named(now, at)} size={48} />
                )}
              </span>
              <span className="max-w-full truncate text-[12px] text-quiet">
                {g.name}
                {g.was === undefined ? ', new since' : g.is === undefined ? ', gone since' : ''}
                {at !== shown && `, ${at}`}
              </span>
            </li>
          );
        })}
      </ul>
      {glyphs.length > count && (
        <button type="button" className="mt-1.5 text-kelp" onClick={() => setCount(count + AT_ONCE)}>
          {glyphs.length - count} glyphs more
        </button>
      )}
    </section>
  );
}
