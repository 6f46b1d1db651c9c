import { useEffect, useMemo, useRef, useState } from 'react';
import { kerningSize } from '../../../core/casting/font';
import { leavePair, setPair } from '../../../core/kerning/edits';
import { kerningOf, sidesToChange, widestSides } from '../../../core/kerning/lookup';
import { pairKey } from '../../../core/kerning/pairs';
import { pairFacts } from '../../../core/kerning/proposal';
import { plural } from '../../../core/project/edit';
import { masterOf } from '../../../core/project/queries';
import { isTyping } from '../../shell/commands';
import { run, useBench } from '../../state/bench';
import { Button, Choice } from '../../ui/parts';
import { NEAR, useEntries, useTouching } from './entries';
import { Faults } from './Faults';
import { KernDetails } from './KernDetails';
import { KernMap } from './KernMap';
import { AlsoMoved, KernPicture } from './KernPicture';
import { KernProposalDialog } from './KernProposalDialog';
import { choosePair, MODES, STEP, setMode, useKernBench } from './kernBench';
import { WordBar } from './WordBar';

/** Pairs, worst first, each large with what else it moves. */
export default function Kern() {
  const project = useBench((s) => s.project)!;
  const masterId = useBench((s) => s.master);
  const { mode, pair, line } = useKernBench();
  const [before, setBefore] = useState(false);
  const [proposing, setProposing] = useState(false);
  const [filter, setFilter] = useState('');
  const master = masterOf(project, masterId)!;
  const touching = useTouching(mode === 'touch');
  const entries = useEntries(filter, touching.found);
  const shown = pair && project.glyphs[pair.first] && project.glyphs[pair.second] ? pair : entries[0]?.pair;
  const at = entries.findIndex((e) => e.pair.first === shown?.first && e.pair.second === shown.second);
  const go = (by: number) => {
    const next = entries[Math.max(0, Math.min(entries.length - 1, (at < 0 ? (by > 0 ? -1 : 0) : at) + by))];
    if (next) choosePair(next.pair);
  };

  useEffect(() => {
    const down = (e: KeyboardEvent) => {
      if (isTyping(e.target) || document.querySelector('[role="dialog"]') || e.metaKey || e.ctrlKey || !shown) return;
      const { settled, master: m } = useBench.getState();
      const current = masterOf(settled!, m)!;
      const [first, second] = sidesToChange(settled!, current, shown.first, shown.second);
      const set = (value: number, merge?: string) => run((p) => setPair(p, { master: m, first, second, value }), merge);
      const now = () => kerningOf(settled!, current, shown.first, shown.second)?.value ?? 0;
      const step = e.shiftKey ? 1 : STEP;
      if (e.key === 'ArrowLeft' || e.key === 'ArrowRight') set(now() + (e.key === 'ArrowLeft' ? -step : step), `kern ${shown.first} ${shown.second}`);
      else if (e.key === 'ArrowDown' || e.key.toLowerCase() === 's') go(1);
      else if (e.key === 'ArrowUp') go(-1);
      else if (e.key.toLowerCase() === 'b') setBefore(true);
      else if (e.key.toLowerCase() === 'x') {
        if (run((p) => leavePair(p, { key: pairKey(...widestSides(p, shown.first, shown.second)), leave: true }))) go(1);
      } else if (e.key === 'Enter' && !(e.target instanceof HTMLButtonElement)) {
        set(pairFacts(settled!, current, shown.first, shown.second, STEP).proposed);
        go(1);
      } else return;
      e.preventDefault();
    };
    const up = (e: KeyboardEvent) => {
      if (e.key.toLowerCase() === 'b') setBefore(false);
    };
    window.addEventListener('keydown', down);
    window.addEventListener('keyup', up);
    return () => {
      window.removeEventListener('keydown', down);
      window.removeEventListener('keyup', up);
    };
  });

  const settled = useBench((s) => s.settled)!;
  const { kerning } = masterOf(settled, masterId)!;
  const latest = useRef(settled);
  latest.current = settled;
  // biome-ignore lint/correctness/useExhaustiveDependencies: values and groups decide.
  const size = useMemo(() => kerningSize(latest.current, masterId), [kerning, settled.groups, masterId]);
  return (
    <div className="flex h-full" data-testid="kern">
      <div className="flex min-w-0 flex-1 flex-col">
        <div className="flex flex-wrap items-center gap-3 px-5 pt-3 pb-2">
          <Choice label="Show" value={mode} options={MODES} onChange={setMode} />
          <Button title="Kerning for all pairs at once, looked at before it is taken over" onClick={() => setProposing(true)}>
            Propose…
          </Button>
          <span className="ml-auto text-quiet">
            {plural(size.pairs, 'pair')} in {master.name}, {(size.bytes / 1024).toFixed(1)} KB in the font
          </span>
        </div>
        <Faults />
        {mode === 'map' ? (
          <KernMap />
        ) : (
          <div className="flex min-h-0 flex-1">
            <div className="flex w-[220px] shrink-0 flex-col border-r border-line">
              {mode === 'words' && <WordBar line={line} />}
              {mode === 'touch' && (
                <p className="px-3 pb-1 text-[12.5px] text-quiet">
                  {touching.share === undefined ? `Nearer than ${NEAR} units, kerning counted` : `Looking… ${Math.round(touching.share * 100)} %`}
                </p>
              )}
              {mode === 'pairs' && (
                <input
                  aria-label="Filter the pairs"
                  placeholder="filter by name"
                  value={filter}
                  onChange={(e) => setFilter(e.target.value)}
                  className="mx-3 mb-1 h-7.5 rounded-lg border border-line bg-paper px-2"
                />
              )}
              <ul className="min-h-0 flex-1 overflow-auto px-2 pb-2" aria-label="Pairs">
                {entries.length === 0 && (
                  <li className="p-2 text-quiet">{mode === 'queue' ? 'Nothing strays: every frequent pair is as even as the controls.' : 'Nothing here yet.'}</li>
                )}
                {entries.slice(0, 400).map((e) => (
                  <li key={e.key}>
                    <button
                      type="button"
                      aria-pressed={shown?.first === e.pair.first && shown.second === e.pair.second}
                      onClick={() => choosePair(e.pair)}
                      className={`flex w-full items-baseline gap-2 rounded-md px-2 py-0.5 text-left ${shown?.first === e.pair.first && shown.second === e.pair.second ? 'bg-kelp-tint text-kelp' : 'hover:bg-kelp-tint'}`}
                    >
                      <span className="min-w-0 flex-1 truncate">{e.label}</span>
                      <span className="text-right text-quiet">{e.note}</span>
                    </button>
                  </li>
                ))}
              </ul>
            </div>
            <div className="flex min-w-0 flex-1 flex-col">
              <div className="min-h-0 flex-1">{shown && <KernPicture pair={shown} before={before} />}</div>
              {shown && <AlsoMoved pair={shown} />}
              <p className="px-5 pb-1.5 text-[12.5px] text-quiet">
                <b className="font-semibold text-ink">← →</b> by {STEP}, Shift by 1 · <b className="font-semibold text-ink">Enter</b> takes the even value ·{' '}
                <b className="font-semibold text-ink">S</b> skips · <b className="font-semibold text-ink">X</b> leaves for good · <b className="font-semibold text-ink">B</b> held:
                without kerning
              </p>
            </div>
          </div>
        )}
      </div>
      {shown && <KernDetails pair={shown} next={() => go(1)} />}
      <KernProposalDialog open={proposing} onClose={() => setProposing(false)} />
    </div>
  );
}
