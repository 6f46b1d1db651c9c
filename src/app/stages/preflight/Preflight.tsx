import { useEffect, useRef } from 'react';
import { useSearchParams } from 'react-router';
import { FAMILIES, type Family } from '../../../core/preflight/finding';
import { plural } from '../../../core/project/edit';
import { layHands } from '../../keys/hands';
import { useBench } from '../../state/bench';
import { checkNow, countsOf, stopCheck, usePreflight } from '../../state/preflight';
import { Bar, Pick } from '../../ui/controls';
import { Button, Choice } from '../../ui/parts';
import { ByGlyph } from './ByGlyph';
import { FindingList } from './FindingList';
import { FindingView } from './FindingView';
import { JudgeDialog } from './JudgeDialog';
import { MendAllDialog } from './MendAllDialog';
import { choose, sameFinding, setBench, useGroups, usePreflightBench } from './preflightBench';

/** All that is wrong with the project, the worst first, each on its letter with its mend. */
export default function Preflight() {
  const { standing, accepted, share, whole, fault, stopped } = usePreflight();
  const { view, family, glyph, showAccepted, chosen } = usePreflightBench();
  const project = useBench((s) => s.settled)!;
  const { groups, count } = useGroups();
  const list = groups.flatMap((g) => g.findings);
  const index = list.findIndex((f) => sameFinding(f, chosen));
  const lastIndex = useRef(0);
  if (index >= 0) lastIndex.current = index;
  // What was mended gives its place to the next.
  const current = list[index >= 0 ? index : Math.min(lastIndex.current, list.length - 1)];
  useEffect(() => {
    if (current !== chosen && (whole || index >= 0)) setBench({ chosen: current });
  }, [current, chosen, whole, index]);

  // Where nothing is accepted any more, those that stand are shown.
  useEffect(() => {
    if (showAccepted && whole && accepted.length === 0) setBench({ showAccepted: false });
  }, [showAccepted, whole, accepted]);

  // Who comes from elsewhere with a kind in the address sees the first of it.
  const [search] = useSearchParams();
  const asked = useRef(search.get('kind'));
  useEffect(() => {
    const first = asked.current && standing.find((f) => f.kind === asked.current);
    if (!first) return;
    asked.current = null;
    setBench({ view: 'findings', family: 'all', glyph: undefined, showAccepted: false });
    choose(first);
  }, [standing]);

  const walk = (by: 1 | -1): boolean => {
    const next = list[Math.max(0, Math.min(list.length - 1, list.indexOf(current!) + by))];
    if (!next) return false;
    setBench({ view: 'findings' });
    choose(next);
    return true;
  };
  useEffect(() => layHands('preflight', { walk }));
  const counts = countsOf(standing);
  const families = ['all', ...(Object.keys(FAMILIES) as Family[])] as const;
  const shownGlyph = glyph && project.glyphs[glyph];
  return (
    <div className="flex h-full min-h-0 flex-col">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1.5 border-b border-line px-4 py-2">
        <Choice
          label="View of the findings"
          value={view}
          options={[
            { value: 'findings' as const, text: 'Findings' },
            { value: 'glyphs' as const, text: 'By glyph' },
          ]}
          onChange={(v) => setBench({ view: v })}
        />
        <p role="status" className="min-w-40 flex-1" data-testid="preflight-status">
          {fault ??
            (stopped
              ? 'The check was stopped; what was found so far is shown.'
              : !whole && standing.length === 0
                ? 'Looking through the project…'
                : `${sentenceOf(counts, project.glyphOrder.length)}${whole ? '' : ' so far'}.`)}
          {accepted.length > 0 && whole && (
            <>
              {' '}
              <button
                type="button"
                aria-pressed={showAccepted}
                className="text-kelp underline"
                onClick={() => setBench({ showAccepted: !showAccepted, chosen: undefined })}
              >
                {showAccepted ? 'Back to those that stand' : `${accepted.length} accepted`}
              </button>
            </>
          )}
        </p>
        {share !== undefined && (
          <>
            <Bar label="Looking through the project" share={share} />
            <Button onClick={stopCheck}>Stop</Button>
          </>
        )}
        {(stopped || fault) && <Button onClick={checkNow}>Look again</Button>}
        {view === 'findings' && (
          <Pick
            label="What is shown"
            value={family}
            options={families.map((f) => ({ value: f, text: f === 'all' ? 'Everything' : FAMILIES[f] }))}
            onChange={(f) => setBench({ family: f })}
            className="w-44"
          />
        )}
        <Button title="What is looked for, and how strictly" onClick={() => setBench({ judging: true })}>
          Measures
        </Button>
      </div>
      {view === 'glyphs' ? (
        <ByGlyph />
      ) : (
        <div className="flex min-h-0 flex-1 max-[760px]:flex-col max-[760px]:overflow-y-auto">
          <section
            aria-label="Findings"
            className="flex w-[44%] max-w-[560px] min-w-[300px] flex-col border-r border-line max-[760px]:h-60 max-[760px]:w-full max-[760px]:max-w-none max-[760px]:shrink-0 max-[760px]:border-r-0 max-[760px]:border-b"
          >
            {shownGlyph && (
              <p className="flex items-center gap-2 border-b border-line px-4 py-1.5">
                Only those of {shownGlyph.name}
                <button type="button" className="text-kelp underline" onClick={() => setBench({ glyph: undefined })}>
                  Show all
                </button>
              </p>
            )}
            {count === 0 ? (
              <p className="p-5 text-quiet">
                {!whole
                  ? 'What is found appears here as it is found.'
                  : showAccepted
                    ? 'Nothing is accepted here.'
                    : standing.length === 0
                      ? 'Nothing is wrong that a machine could see.'
                      : 'Nothing of this kind.'}
              </p>
            ) : (
              <FindingList groups={groups} current={current} />
            )}
          </section>
          {current && <FindingView key={`${current.kind} ${current.glyph ?? ''}`} finding={current} />}
        </div>
      )}
      <MendAllDialog />
      <JudgeDialog />
    </div>
  );
}

/** What was found, in a sentence. */
function sentenceOf({ error, attention, note }: ReturnType<typeof countsOf>, glyphs: number): string {
  const parts = [
    ...(error > 0 ? [plural(error, 'error')] : []),
    ...(attention > 0 ? [`${attention} to look at`] : []),
    ...(note > 0 ? [plural(note, 'note')] : []),
  ];
  return parts.length === 0
    ? `Nothing found in ${plural(glyphs, 'glyph')}`
    : `${parts.join(', ')} in ${plural(glyphs, 'glyph')}`;
}
