import { proxy } from 'comlink';
import { useEffect, useMemo, useRef, useState } from 'react';
import { kerningSize } from '../../../core/casting/font';
import { glyphsOfLine } from '../../../core/fitting/lines';
import { type Collision, linesOfWordList } from '../../../core/kerning/collisions';
import { leavePair, pairsLeft, removePairs, setPair, setPairs, setWordList } from '../../../core/kerning/edits';
import { kerningOf, membersOf, sideName, widestSides } from '../../../core/kerning/lookup';
import { modelKerning, whitesOf } from '../../../core/kerning/optical';
import { pairKey, pairSides } from '../../../core/kerning/pairs';
import { kerningFaults, kerningQueue, type ProposedPair, textGlyphs, USUAL } from '../../../core/kerning/proposal';
import { plural } from '../../../core/project/edit';
import { masterOf } from '../../../core/project/queries';
import { filesWorker } from '../../../workers/clients';
import { isTyping } from '../../shell/commands';
import { run, say, useBench } from '../../state/bench';
import { Modal } from '../../ui/Modal';
import { Button, Choice, NumberField } from '../../ui/parts';
import { KernDetails } from './KernDetails';
import { KernMap } from './KernMap';
import { AlsoMoved, KernPicture } from './KernPicture';
import { choosePair, MODES, type Pair, recallLine, STEP, setLine, setMode, useKernBench } from './kernBench';

type Entry = { key: string; label: string; value: number; note?: string | undefined; pair: Pair };
/** A pair that strays less than this, in units, is not worth a look. */
const WORTH = 8;
const signed = (v: number) => String(v).replace('-', '−');

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
      const found = kerningOf(settled!, masterOf(settled!, m)!, shown.first, shown.second);
      const [first, second] = found ? [found.first, found.second] : widestSides(settled!, shown.first, shown.second);
      const set = (value: number, merge?: string) => run((p) => setPair(p, { master: m, first, second, value }), merge);
      const step = e.shiftKey ? 1 : STEP;
      if (e.key === 'ArrowLeft' || e.key === 'ArrowRight') set((found?.value ?? 0) + (e.key === 'ArrowLeft' ? -step : step), `kern ${shown.first} ${shown.second}`);
      else if (e.key === 'ArrowDown' || e.key.toLowerCase() === 's') go(1);
      else if (e.key === 'ArrowUp') go(-1);
      else if (e.key.toLowerCase() === 'b') setBefore(true);
      else if (e.key.toLowerCase() === 'x') {
        if (run((p) => leavePair(p, { key: pairKey(...widestSides(p, shown.first, shown.second)), leave: true }))) go(1);
      } else if (e.key === 'Enter' && !(e.target instanceof HTMLButtonElement)) {
        const current = masterOf(settled!, m)!;
        set(Math.round(modelKerning(settled!, current, shown.first, shown.second, whitesOf(settled!, current)) / STEP) * STEP);
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
                      <span className="text-right text-quiet">{e.note ?? signed(e.value)}</span>
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
      <ProposalDialog open={proposing} onClose={() => setProposing(false)} />
    </div>
  );
}

/** What the list holds in the present mode. */
function useEntries(filter: string, touching: readonly Collision[]): readonly Entry[] {
  const project = useBench((s) => s.settled)!;
  const masterId = useBench((s) => s.master);
  const { mode, line } = useKernBench();
  const { glyphs, groups, texts } = project;
  const { lib } = project;
  const left = useMemo(() => pairsLeft({ lib }), [lib]);
  // The queue's order is that of the shapes; a value that has become even takes its pair out, wherever it stands.
  const latest = useRef(project);
  latest.current = project;
  // biome-ignore lint/correctness/useExhaustiveDependencies: a queue is made of shapes and groups, not of the values it changes.
  const queue = useMemo(() => (mode === 'queue' ? kerningQueue(latest.current, masterId, left, STEP, WORTH) : []), [mode, masterId, glyphs, groups, left]);
  return useMemo(() => {
    const master = masterOf(project, masterId)!;
    const name = (id: string) => project.glyphs[id]?.name ?? 'missing';
    const valueNow = (p: Pair) => kerningOf(project, master, p.first, p.second)?.value ?? 0;
    if (mode === 'queue')
      return queue
        .map((q) => ({ q, now: valueNow(q) }))
        .filter(({ q, now }) => Math.abs(q.proposed - now) >= WORTH)
        .map(
          ({ q, now }): Entry => ({
            key: pairKey(...q.sides),
            label: `${name(q.first)} ${name(q.second)}`,
            value: now,
            note: `${signed(now)} → ${signed(q.proposed)}`,
            pair: { first: q.first, second: q.second },
          }),
        );
    if (mode === 'touch')
      return touching.map(
        (c): Entry => ({
          key: `${c.first} ${c.second}`,
          label: `${name(c.first)} ${name(c.second)}`,
          value: c.distance,
          note: c.distance <= 0 ? 'touch' : `${c.distance} apart`,
          pair: { first: c.first, second: c.second },
        }),
      );
    if (mode === 'words') {
      const ids = glyphsOfLine(project, texts.pairs[line] ?? texts.galley).glyphs;
      return ids.slice(1).map((second, i): Entry => {
        const pair = { first: ids[i]!, second };
        return { key: `${i}`, label: `${name(pair.first)} ${name(second)}`, value: valueNow(pair), pair };
      });
    }
    return Object.entries(master.kerning)
      .flatMap(([key, value]): Entry[] => {
        const sides = pairSides(key);
        const [a, b] = sides ? [membersOf(project, sides[0])[0], membersOf(project, sides[1])[0]] : [];
        return sides && a && b ? [{ key, label: `${sideName(project, sides[0])} · ${sideName(project, sides[1])}`, value, pair: { first: a, second: b } }] : [];
      })
      .filter((e) => filter === '' || e.label.toLowerCase().includes(filter.toLowerCase()))
      .sort((p, q) => Math.abs(q.value) - Math.abs(p.value));
  }, [project, masterId, mode, line, queue, texts, filter, touching]);
}

/** Distance, in units, below which a pair is shown as touching. */
const NEAR = 12;

/** Pairs of letters, figures and punctuation that come too near, looked for beside the pointer while the list is open. */
function useTouching(open: boolean): { found: readonly Collision[]; share: number | undefined } {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const [state, setState] = useState<{ found: readonly Collision[]; share: number | undefined }>({ found: [], share: undefined });
  useEffect(() => {
    if (!open) return;
    const { service, stop } = filesWorker();
    setState((s) => ({ ...s, share: 0 }));
    const progress = proxy((done: number, total: number) => setState((s) => (s.share === undefined ? s : { ...s, share: done / total })));
    void service.collisions(project, master, textGlyphs(project), NEAR, progress).then((found) => {
      setState({ found: found as readonly Collision[], share: undefined });
      stop();
    });
    return stop;
  }, [open, project, master]);
  return state;
}

/** The word that is stepped through, and where the list comes from. */
function WordBar({ line }: { line: number }) {
  const pairs = useBench((s) => s.settled!.texts.pairs);
  const projectId = useBench((s) => s.projectId);
  useEffect(() => recallLine(projectId, pairs.length), [projectId, pairs.length]);
  const go = (to: number) => setLine(to, projectId);
  const [error, setError] = useState('');
  return (
    <div className="px-3 pb-2">
      <p className="truncate font-semibold">{pairs[line] ?? 'the galley’s text'}</p>
      <div className="mt-1 flex items-center gap-1.5">
        <Button disabled={line === 0} onClick={() => go(line - 1)} aria-label="The line before">
          ↑
        </Button>
        <Button disabled={line >= pairs.length - 1} onClick={() => go(line + 1)} aria-label="The next line">
          ↓
        </Button>
        <span className="text-[12.5px] text-quiet">{pairs.length > 0 ? `${line + 1} of ${pairs.length}` : ''}</span>
      </div>
      <label className="mt-1.5 inline-block text-kelp">
        A list from a file…
        <input
          type="file"
          accept=".txt,text/plain"
          className="sr-only"
          data-testid="word-list"
          onChange={async (e) => {
            const file = e.target.files?.[0];
            if (!file) return;
            const lines = file.size > 2_000_000 ? [] : linesOfWordList(await file.text());
            if (lines.length === 0) setError(`${file.name} holds no words, or is larger than 2 MB.`);
            else if (run((p) => setWordList(p, { lines }))) go(0);
          }}
        />
      </label>
      {error && (
        <p role="alert" className="text-brick">
          {error}
        </p>
      )}
    </div>
  );
}

/** What contradicts itself or is needless, with its mend. */
function Faults() {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const faults = useMemo(() => kerningFaults(project, masterOf(project, master)!), [project, master]);
  return faults.map((f) => (
    <p key={f.what} className="mx-5 mb-2 rounded-lg bg-marigold-tint px-3 py-1">
      ▲ {f.what}.{' '}
      <button type="button" className="font-semibold text-kelp" onClick={() => run((p) => removePairs(p, { master, keys: f.keys }))}>
        Take {f.keys.length === 1 ? 'it' : 'them'} away
      </button>
    </p>
  ));
}

/** Kerning for every pair, worked out beside the pointer, told before it is taken over. */
function ProposalDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
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
