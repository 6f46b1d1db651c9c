import { useVirtualizer } from '@tanstack/react-virtual';
import { Toggle } from 'radix-ui';
import { useEffect, useMemo, useRef, useState } from 'react';
import { counted } from '../../../core/base/notation';
import { leavePair, pairsLeft, setPair } from '../../../core/kerning/edits';
import { kerningUnits, stepOf } from '../../../core/kerning/units';
import { isMark } from '../../../core/preflight/letters';
import { plural } from '../../../core/project/edit';
import { changeSettings } from '../../../core/project/edits';
import { kerningOf, sidesToChange, widestSides } from '../../../core/project/kerningLookup';
import { pairKey } from '../../../core/project/pairs';
import { masterOf } from '../../../core/project/queries';
import { layHands } from '../../keys/hands';
import { run, say, useBench } from '../../state/bench';
import { useCalmProject } from '../../state/calm';
import { closeDialog, openDialog, useDialog } from '../../state/dialogs';
import { Check } from '../../ui/controls';
import { KeyHints } from '../../ui/KeyHints';
import { PairLetters } from '../../ui/PairLetters';
import { Button, Choice, NumberField } from '../../ui/parts';
import { KERN_COMMANDS } from './commands';
import { type Entry, lineWithPairs, useEntries, useWrong } from './entries';
import { Faults } from './Faults';
import { GroupsDialog } from './GroupsDialog';
import { InWords } from './InWords';
import { KernDetails } from './KernDetails';
import { KernMap } from './KernMap';
import { AlsoMoved, KernPicture } from './KernPicture';
import { KernProposalDialog } from './KernProposalDialog';
import { KernTable } from './KernTable';
import {
  choosePair,
  MODES,
  type Mode,
  type Pair,
  setLine,
  setMode,
  setShowLeft,
  setWrong,
  useKernBench,
} from './kernBench';
import { askEven, useEven } from './useEven';
import { useKerningSize } from './useKerningSize';
import { WordBar } from './WordBar';

const WRONGS = [
  { value: 'touch', text: 'Touching' },
  { value: 'hole', text: 'Holes' },
] as const;

/** What an empty list says. */
const NOTHING: Record<Mode, string> = {
  queue: 'Nothing strays: every frequent pair is as even as the controls.',
  words: 'Write a text in the galley, or take a list from a file.',
  pairs: '',
  wrong: 'No pair of letters, figures and punctuation does.',
  map: '',
};

/** Changes the kerning of a pair, where it stands now. */
function kern(pair: Pair, value: (now: number) => number, merge?: string): boolean {
  const { settled, master: m } = useBench.getState();
  const current = settled && masterOf(settled, m);
  if (!current || !settled.glyphs[pair.first] || !settled.glyphs[pair.second]) return false;
  const [first, second] = sidesToChange(settled, current, pair.first, pair.second);
  const now = kerningOf(settled, current, pair.first, pair.second)?.value ?? 0;
  return run((p) => setPair(p, { master: m, first, second, value: value(now) }), merge);
}

/** Takes what is even for a pair as soon as that is known, unless another master or project is worked on by then. */
async function takeLater(pair: Pair): Promise<void> {
  const { master, projectId } = useBench.getState();
  try {
    const even = await askEven(master, pair);
    const now = useBench.getState();
    if (now.master === master && now.projectId === projectId) kern(pair, () => even);
  } catch (reason) {
    say(`The pair stays as it is. ${reason instanceof Error ? reason.message : ''}`.trim());
  }
}

/** Pairs, worst first, each large with what else it moves. */
export default function Kern() {
  const project = useBench((s) => s.project)!;
  const masterId = useBench((s) => s.master);
  const { mode, pair, line, wrong, fromGalley } = useKernBench();
  const projectId = useBench((s) => s.projectId);
  const [before, setBefore] = useState(false);
  const proposing = useDialog('kern-proposal');
  const grouping = useDialog('kern-groups');
  const master = masterOf(project, masterId)!;
  const { found, share, unlooked } = useWrong(mode === 'wrong', wrong);
  const { entries, looking } = useEntries(found);
  const shown = pair && project.glyphs[pair.first] && project.glyphs[pair.second] ? pair : entries[0]?.pair;
  const at = entries.findIndex((e) => e.pair.first === shown?.first && e.pair.second === shown.second);
  const even = useEven(shown, entries[at]?.even);
  /** The next line of the word list, from its first pair. */
  const goLine = (by: number) => {
    if (fromGalley) return;
    const to = lineWithPairs(project, masterId, line + by, by);
    if (to === undefined) return;
    setLine(to, projectId);
    choosePair(undefined);
  };
  const go = (by: number) => {
    if (mode === 'words' && by > 0 && (at === entries.length - 1 || entries.length === 0)) return goLine(1);
    const next = entries[Math.max(0, Math.min(entries.length - 1, (at < 0 ? (by > 0 ? -1 : 0) : at) + by))];
    if (next) choosePair(next.pair);
  };

  /** Changes the kerning of the pair that is shown, where it stands now. */
  const kernShown = (value: (now: number) => number, merge?: string): boolean =>
    shown !== undefined && kern(shown, value, merge);
  useEffect(() =>
    layHands('kern', {
      change: (by) => shown !== undefined && kernShown((now) => now + by, `kern ${shown.first} ${shown.second}`),
      go: (by) => {
        go(by);
        return true;
      },
      line: (by) => {
        goLine(by);
        return true;
      },
      takeEven: () => {
        if (!shown) return false;
        const { value } = even;
        if (value !== undefined) kernShown(() => value);
        else void takeLater(shown);
        go(1);
        return true;
      },
      leave: () => {
        if (!shown) return false;
        if (run((p) => leavePair(p, { key: pairKey(...widestSides(p, shown.first, shown.second)), leave: true })))
          go(1);
        return true;
      },
      before: setBefore,
      show: (wanted) => {
        const pair = { first: shown?.first, second: shown?.second, ...wanted };
        const [first, second] = [pair.first ?? pair.second, pair.second ?? pair.first];
        if (!first || !second) return false;
        if (mode === 'map') setMode('queue');
        choosePair({ first, second });
        return true;
      },
    }),
  );

  return (
    <div className="flex h-full" data-testid="kern">
      <div className="flex min-w-0 flex-1 flex-col">
        <KernBar master={master.name} />
        <Faults />
        {mode === 'map' ? (
          <KernMap />
        ) : (
          <div className="flex min-h-0 flex-1">
            <div
              className={`flex shrink-0 flex-col border-r border-line ${mode === 'pairs' ? 'w-[360px]' : 'w-[220px]'}`}
            >
              {mode === 'words' && <WordBar line={line} />}
              {mode === 'wrong' && <WrongBar share={share} />}
              {mode === 'pairs' ? (
                <KernTable shown={shown} />
              ) : (
                <PairList
                  entries={entries}
                  shown={shown}
                  nothing={looking || share !== undefined || unlooked ? 'Looking…' : NOTHING[mode]}
                />
              )}
              {mode === 'queue' && <LeftForGood />}
            </div>
            <div className="flex min-w-0 flex-1 flex-col">
              <div className="min-h-0 flex-1">{shown && <KernPicture pair={shown} before={before} />}</div>
              {shown && <InWords pair={shown} before={before} />}
              {shown && <AlsoMoved pair={shown} />}
              <KeyHints commands={KERN_COMMANDS} />
            </div>
          </div>
        )}
      </div>
      {shown && <KernDetails pair={shown} even={even} next={() => go(1)} />}
      <GroupsDialog open={grouping} onClose={closeDialog} />
      <KernProposalDialog open={proposing} onClose={closeDialog} />
    </div>
  );
}

/** Which pairs are shown, proposals for all of them, the step, and what the kerning weighs. */
function KernBar({ master }: { master: string }) {
  const project = useBench((s) => s.project)!;
  const mode = useKernBench((s) => s.mode);
  const size = useKerningSize();
  const { glyphs } = project;
  const hasMarks = useMemo(() => Object.values(glyphs).some(isMark), [glyphs]);
  return (
    <div className="flex flex-wrap items-center gap-2.5 px-5 pt-3 pb-2">
      <Choice label="Show" value={mode} options={MODES} onChange={setMode} />
      <Button
        title="Kerning for all pairs at once, looked at before it is taken over"
        onClick={() => openDialog('kern-proposal')}
      >
        Propose…
      </Button>
      <Button title="Glyphs that look alike on a side, found by their shapes" onClick={() => openDialog('kern-groups')}>
        Groups…
      </Button>
      <span className="w-28" title="What keys step a value by, and proposals are rounded to">
        <NumberField
          label="Step"
          value={stepOf(project)}
          onChange={(kerningStep) => run((p) => changeSettings(p, { kerningStep }))}
        />
      </span>
      {hasMarks && (
        <span title="Pairs hold for two letters also where combining marks stand between them">
          <Check
            label="Across marks"
            checked={!project.settings.kerningStopsAtMarks}
            onChange={(across) => run((p) => changeSettings(p, { kerningStopsAtMarks: !across }))}
          />
        </span>
      )}
      <span
        className="ml-auto whitespace-nowrap text-quiet"
        title={
          size
            ? `Kerning of ${master}: the values it has, for ${counted(size.served)} pairs of glyphs, and what they take in the font`
            : undefined
        }
      >
        {size ? `${plural(size.pairs, 'value')}, ${(size.bytes / 1024).toFixed(1)} KB` : ''}
      </span>
    </div>
  );
}

/** What is looked for among the pairs that stand wrong, and how far the search is. */
function WrongBar({ share }: { share: number | undefined }) {
  const project = useBench((s) => s.project)!;
  const wrong = useKernBench((s) => s.wrong);
  return (
    <div className="px-3 pb-1.5">
      <Choice label="Look for" value={wrong} options={WRONGS} onChange={setWrong} />
      <p className="mt-1 text-[12.5px] text-quiet">
        {share !== undefined
          ? `Looking… ${Math.round(share * 100)} %`
          : wrong === 'touch'
            ? `Nearer than ${kerningUnits(project, 'near')} units, kerning counted`
            : `More than ${kerningUnits(project, 'open')} units too open`}
      </p>
    </div>
  );
}

/** Height of a row of the list, in pixels. */
const ROW = 34;

/** Pairs one below the other as letters, each with what is said of it; only those in sight are drawn. */
function PairList({
  entries,
  shown,
  nothing,
}: {
  entries: readonly Entry[];
  shown: Pair | undefined;
  nothing: string;
}) {
  const isShown = (e: Entry) => shown?.first === e.pair.first && shown.second === e.pair.second;
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: entries.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 10,
  });
  const at = entries.findIndex(isShown);
  const project = useCalmProject();
  const master = useBench((s) => s.master);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only another pair moves the list.
  useEffect(() => {
    if (at >= 0) virtual.scrollToIndex(at, { align: 'auto' });
  }, [at]);
  return (
    <div ref={scroller} className="min-h-0 flex-1 overflow-auto px-2 pb-2">
      <ul aria-label="Pairs" className="relative" style={{ minHeight: virtual.getTotalSize() }}>
        {entries.length === 0 && <li className="p-2 text-quiet">{nothing}</li>}
        {virtual.getVirtualItems().map((v) => {
          const e = entries[v.index]!;
          return (
            <li key={e.key} className="absolute inset-x-0" style={{ transform: `translateY(${v.start}px)` }}>
              <button
                type="button"
                aria-pressed={isShown(e)}
                onClick={() => choosePair(e.pair)}
                aria-label={`${e.label}, ${e.note}`}
                style={{ height: ROW - 2 }}
                className={`flex w-full items-center gap-2 rounded-md px-2 text-left ${isShown(e) ? 'bg-kelp-tint' : 'hover:bg-kelp-tint'}`}
              >
                <PairLetters project={project} master={master} first={e.pair.first} second={e.pair.second} />
                <span className="min-w-0 flex-1 truncate text-[11.5px] text-quiet">{e.label}</span>
                <span className="shrink-0 text-right text-quiet">{e.note}</span>
              </button>
            </li>
          );
        })}
      </ul>
    </div>
  );
}

/** How many pairs were left for good, and a way to see them: one is taken up again in its details. */
function LeftForGood() {
  const lib = useBench((s) => s.settled!.lib);
  const showLeft = useKernBench((s) => s.showLeft);
  const left = pairsLeft({ lib }).size;
  useEffect(() => {
    if (left === 0) setShowLeft(false);
  }, [left]);
  if (left === 0) return null;
  return (
    <Toggle.Root
      pressed={showLeft}
      className="border-t border-line px-4 py-1.5 text-left text-[13px] text-kelp"
      onPressedChange={setShowLeft}
    >
      {showLeft ? 'Back to the queue' : `${left} left for good`}
    </Toggle.Root>
  );
}
