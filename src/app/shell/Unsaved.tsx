import { useMutation, useQuery } from '@tanstack/react-query';
import { type ReactNode, useEffect, useState } from 'react';
import { useBlocker } from 'react-router';
import { askToPersist, bytesOf } from '../../browser/stores';
import { olderTakes, removeOlderTakes } from '../../core/drawing/takes';
import { forgetHistory, runAside, tryToSave, useBench } from '../state/bench';
import { binProject, forgetProject, listBin, listProjects } from '../state/library';
import { saveToFile } from '../state/projectFiles';
import { Modal } from '../ui/Modal';
import { Button } from '../ui/parts';

const megabytes = (bytes: number): string =>
  bytes < 1e5 ? `${Math.max(1, Math.round(bytes / 1000))} KB` : `${(bytes / 1e6).toFixed(1)} MB`;

const steps = (n: number) => (n === 1 ? 'one step is' : `${n} steps are`);

/** Asks before a project is left whose newest steps are not stored yet. */
export function LeavingGuard() {
  const projectId = useBench((s) => s.projectId);
  const save = useBench((s) => s.save);
  const project = useBench((s) => s.settled);
  const blocker = useBlocker(
    ({ nextLocation }) => save.kind === 'failed' && !nextLocation.pathname.startsWith(`/p/${projectId}/`),
  );
  useEffect(() => {
    if (blocker.state === 'blocked' && save.kind === 'saved') blocker.proceed();
  }, [blocker, save]);
  if (blocker.state !== 'blocked' || save.kind !== 'failed') return null;
  return (
    <Modal open onClose={() => blocker.reset()} title="Not everything is stored">
      <p className="mb-4">
        {save.sentence} {steps(save.waiting)[0]!.toUpperCase() + steps(save.waiting).slice(1)} only here; when you
        leave, they are lost. It is tried again by itself as long as you stay.
      </p>
      <div className="flex flex-wrap justify-end gap-2">
        <Button kind="danger" onClick={() => blocker.proceed()}>
          Leave without them
        </Button>
        <Button onClick={() => project && void saveToFile(project)}>Save the project to a file</Button>
        <Button onClick={() => void tryToSave()}>Try again</Button>
        <Button kind="primary" onClick={() => blocker.reset()}>
          Stay
        </Button>
      </div>
    </Modal>
  );
}

/** What is stored in this browser and what takes how much; the way to make room. */
export function StorageDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Modal open={open} onClose={onClose} title="What is stored in this browser">
      {open && <Room />}
    </Modal>
  );
}

function Row({ what, children }: { what: ReactNode; children: ReactNode }) {
  return (
    <li className="flex min-h-9 items-center justify-between gap-3 py-1">
      <span className="min-w-0 truncate">{what}</span>
      <span className="flex shrink-0 items-center gap-2">{children}</span>
    </li>
  );
}

function Room() {
  const projectId = useBench((s) => s.projectId);
  const project = useBench((s) => s.settled)!;
  const history = useBench((s) => s.history);
  const save = useBench((s) => s.save);
  const found = useQuery({ queryKey: ['room', projectId], queryFn: measured });
  const [said, setSaid] = useState<string>();
  const done = async () => {
    await tryToSave();
    await found.refetch();
  };
  const history100 = useMutation({ mutationFn: () => forgetHistory(100), onSettled: done });
  const bin = useMutation({ mutationFn: binProject, onError: (e) => setSaid(e.message), onSettled: done });
  const forget = useMutation({ mutationFn: forgetProject, onSettled: done });
  const kept = history.last - history.first + 1;
  const older = Object.values(project.glyphs).reduce((sum, g) => sum + olderTakes(g).length, 0);
  return (
    <>
      {save.kind === 'failed' && (
        <p role="alert" className="mb-2 text-brick">
          {save.sentence} {steps(save.waiting)[0]!.toUpperCase() + steps(save.waiting).slice(1)} waiting; it is tried
          again by itself, and as soon as there is room.
        </p>
      )}
      <p className="mb-2">{found.data?.use ?? 'Measuring…'}</p>
      <p className="mb-2 text-quiet">{found.data?.promise}</p>
      {said && <p className="mb-2 text-brick">{said}</p>}
      <ul aria-label="What can go" className="mb-4 divide-y divide-line">
        <Row what={`History of this project: ${kept} steps`}>
          <Button disabled={kept <= 100 || history100.isPending} onClick={() => history100.mutate()}>
            Keep the newest 100
          </Button>
        </Row>
        {older > 0 && (
          <Row
            what={
              <>
                Takes that have a newer one: {older}{' '}
                <span className="text-quiet">(their room comes back as the history goes)</span>
              </>
            }
          >
            <Button onClick={() => runAside((p) => removeOlderTakes(p, {}))}>Keep the newest of each</Button>
          </Row>
        )}
        {found.data?.projects.map((p) => (
          <Row
            key={p.id}
            what={p.id === projectId ? `${p.name} (this project)` : p.binned ? `${p.name} (in the bin)` : p.name}
          >
            <span className="text-quiet">{megabytes(p.bytes)}</span>
            {p.id !== projectId &&
              (p.binned ? (
                <Button kind="danger" onClick={() => forget.mutate(p.id)}>
                  Remove for good
                </Button>
              ) : (
                <Button onClick={() => bin.mutate(p.id)}>Into the bin</Button>
              ))}
          </Row>
        ))}
      </ul>
      <div className="flex justify-end gap-2">
        <Button onClick={() => void saveToFile(project)}>Save this project to a file</Button>
        <Button kind="primary" onClick={() => void done()}>
          Try again
        </Button>
      </div>
    </>
  );
}

async function measured() {
  const [projects, bin, estimate, promised] = await Promise.all([
    listProjects(),
    listBin(),
    navigator.storage?.estimate?.(),
    askToPersist(),
  ]);
  const all = [...projects.map((p) => ({ ...p, inBin: false })), ...bin.map((p) => ({ ...p, inBin: true }))];
  const sizes = await Promise.all(
    all.map(async (p) => ({ id: p.id, name: p.name, binned: p.inBin, bytes: await bytesOf(p.id) })),
  );
  return {
    use: estimate?.quota
      ? `${megabytes(estimate.usage ?? 0)} of about ${megabytes(estimate.quota)} are used.`
      : 'The browser does not say how much room there is.',
    promise:
      promised === undefined
        ? 'This browser cannot be asked to keep it for good: save project files now and then.'
        : promised
          ? 'The browser promises to keep it until you remove it.'
          : 'The browser may clear it when the disk is nearly full: save project files now and then.',
    projects: sizes.sort((a, b) => b.bytes - a.bytes),
  };
}
