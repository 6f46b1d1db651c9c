import { proxy } from 'comlink';
import { useRef, useState } from 'react';
import { setPairs } from '../../../core/kerning/edits';
import { type ProposedPair, textGlyphs, USUAL } from '../../../core/kerning/proposal';
import { plural } from '../../../core/project/edit';
import { filesWorker } from '../../../workers/clients';
import { run, say, useBench } from '../../state/bench';
import { Modal } from '../../ui/Modal';
import { Button, NumberField } from '../../ui/parts';

/** Kerning for every pair, worked out beside the pointer, told before it is taken over. */
export function KernProposalDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const [settings, setSettings] = useState(USUAL);
  const [share, setShare] = useState<number>();
  const [found, setFound] = useState<readonly ProposedPair[]>();
  const worker = useRef<ReturnType<typeof filesWorker>>(undefined);
  const stop = () => {
    worker.current?.stop();
    worker.current = undefined;
    setShare(undefined);
  };
  const close = () => {
    stop();
    setFound(undefined);
    onClose();
  };
  const work = async () => {
    stop();
    setFound(undefined);
    setShare(0);
    const own = filesWorker();
    worker.current = own;
    const glyphs = textGlyphs(project);
    const pairs = await own.service.proposeKerning(
      project,
      master,
      glyphs,
      settings,
      proxy((done: number, total: number) => setShare(done / total)),
    );
    if (worker.current !== own) return;
    stop();
    setFound(pairs as readonly ProposedPair[]);
  };
  const covered = found?.reduce((n, p) => n + p.glyphs, 0) ?? 0;
  return (
    <Modal open={open} onClose={close} title="Kerning proposal">
      <p className="mb-3 text-quiet">
        Every pair of letters, figures and punctuation is held against the white that n, o, H and O leave in this master; groups together where their members agree.
      </p>
      <div className="mb-3 grid gap-1.5">
        <NumberField label="Smallest value worth keeping" value={settings.least} onChange={(least) => setSettings({ ...settings, least: Math.max(1, Math.min(100, least)) })} />
        <NumberField label="Step" value={settings.step} onChange={(step) => setSettings({ ...settings, step: Math.max(1, Math.min(50, step)) })} />
        <NumberField label="Pairs at most" value={settings.most} onChange={(most) => setSettings({ ...settings, most: Math.max(1, Math.min(20000, most)) })} />
      </div>
      {share !== undefined && <progress className="mb-3 h-2 w-full accent-kelp" aria-label="Working" max={1} value={share} />}
      {found && (
        <p className="mb-3" data-testid="kern-proposal">
          {found.length === 0
            ? 'Nothing would change.'
            : `${plural(found.length, 'value')} for ${covered.toLocaleString('en')} pairs of glyphs: groups save ${(covered - found.length).toLocaleString('en')}.`}
        </p>
      )}
      <div className="flex justify-end gap-2">
        {share !== undefined ? <Button onClick={stop}>Stop</Button> : <Button onClick={() => void work()}>{found ? 'Work it out again' : 'Work it out'}</Button>}
        <Button
          kind="primary"
          disabled={!found || found.length === 0}
          onClick={() => {
            if (run((p) => setPairs(p, { master, pairs: found! }))) {
              say('The proposal is taken over; the queue shows what still strays.');
              close();
            }
          }}
        >
          Take over
        </Button>
      </div>
    </Modal>
  );
}
