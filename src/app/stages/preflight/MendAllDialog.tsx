import { proxy } from 'comlink';
import { useEffect, useState } from 'react';
import type { Result } from '../../../core/base/result';
import { kindOf } from '../../../core/preflight/kinds';
import { plural } from '../../../core/project/edit';
import type { MendTried } from '../../../workers/preflight';
import { useBench } from '../../state/bench';
import { preflighter } from '../../state/followers';
import { takeMend } from '../../state/preflight';
import { Bar } from '../../ui/controls';
import { Modal } from '../../ui/Modal';
import { Button } from '../../ui/parts';
import { BeforeAfterLetter } from './BeforeAfterLetter';
import { setBench, usePreflightBench } from './preflightBench';

/** All findings of a kind mended at once: every letter that changes is shown first; one undo. */
export function MendAllDialog() {
  const kind = usePreflightBench((s) => s.mendAll);
  const close = () => setBench({ mendAll: undefined });
  return (
    <Modal
      open={kind !== undefined}
      onClose={close}
      title={kind ? `Mend all: ${kindOf(kind)!.title.toLowerCase()}` : ''}
      wide
    >
      {kind && <MendAll key={kind} kind={kind} onDone={close} />}
    </Modal>
  );
}

function MendAll({ kind, onDone }: { kind: string; onDone: () => void }) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const [share, setShare] = useState<number | undefined>(0);
  const [result, setResult] = useState<{ of: typeof project; tried: Result<MendTried> }>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: worked out once, for the project as it is when it is asked.
  useEffect(() => {
    let gone = false;
    void (async () => {
      try {
        const service = await preflighter.synced();
        const tried = (await service.tryAll(
          kind,
          master,
          proxy((done: number, total: number) => setShare(total === 0 ? 0 : done / total)),
        )) as Result<MendTried>;
        if (!gone) setResult({ of: project, tried });
      } catch (error) {
        if (!gone)
          setResult({
            of: project,
            tried: { ok: false, severity: 'error', reason: error instanceof Error ? error.message : String(error) },
          });
      } finally {
        if (!gone) setShare(undefined);
      }
    })();
    return () => {
      gone = true;
    };
  }, [kind]);
  const leave = () => {
    // What is still worked out is not wanted any more.
    if (share !== undefined) preflighter.stop();
    onDone();
  };
  if (!result)
    return (
      <div className="flex items-center gap-3">
        <Bar label="Working out the mends" share={share ?? 0} />
        <Button onClick={leave}>Stop</Button>
      </div>
    );
  const { tried, of } = result;
  if (!tried.ok) return <p>{tried.reason}</p>;
  const { letters, left } = tried.value;
  return (
    <>
      <p className="mb-2">
        {plural(letters.length, 'glyph changes', 'glyphs change')}: <span className="text-violet">what was there</span>{' '}
        and <span className="text-kelp">what is new</span> show in their colours.
        {left.length > 0 && <span className="text-quiet"> Some stay as they are: {left.slice(0, 2).join(' ')}</span>}
      </p>
      <ul
        aria-label="Letters as they would be"
        className="mb-3 flex max-h-[46vh] flex-wrap gap-1 overflow-y-auto rounded-lg border border-line bg-paper p-2"
      >
        {letters.map((l) => (
          <li
            key={l.glyph}
            title={project.glyphs[l.glyph]?.name}
            style={{ contentVisibility: 'auto', containIntrinsicSize: '92px 92px' }}
          >
            <BeforeAfterLetter letter={l} size={92} />
          </li>
        ))}
      </ul>
      <div className="flex justify-end gap-2">
        <Button onClick={onDone}>Leave them</Button>
        <Button kind="primary" onClick={() => takeMend(tried.value, of) && onDone()}>
          Mend them
        </Button>
      </div>
    </>
  );
}
