import { useEffect, useState } from 'react';
import type { Result } from '../../../core/base/result';
import type { Finding, MendWay } from '../../../core/preflight/finding';
import type { MasterId } from '../../../core/project/model';
import { applySteps } from '../../../core/project/patch';
import { masterOf } from '../../../core/project/queries';
import type { MendTried } from '../../../workers/preflight';
import { say, useBench } from '../../state/bench';
import { preflighter } from '../../state/followers';
import { takeMend } from '../../state/preflight';
import { PairLetters } from '../../ui/PairLetters';
import { Button } from '../../ui/parts';
import { BeforeAfterLetter } from './BeforeAfterLetter';
import { pairOf, spotsIn } from './spots';

const tryWay = async (way: MendWay, shown: readonly string[], master: MasterId): Promise<Result<MendTried>> =>
  (await (await preflighter.synced()).tryMend(way, shown, master)) as Result<MendTried>;

/** Mends at once what is shown, that way. */
export async function takeWay(way: MendWay, master: MasterId): Promise<void> {
  const of = useBench.getState().settled!;
  try {
    const tried = await tryWay(way, [], master);
    if (tried.ok) takeMend(tried.value, of);
    else say(tried.reason);
  } catch (error) {
    say(error instanceof Error ? error.message : String(error));
  }
}

type Tried = { way: MendWay; result: Result<MendTried> };

/** The ways in which a finding can be mended, each with the letter as it would be. */
export function MendWays({ finding, master }: { finding: Finding; master: MasterId }) {
  const project = useBench((s) => s.settled)!;
  const [tried, setTried] = useState<{ of: typeof project; ways: readonly Tried[] }>();
  useEffect(() => {
    let gone = false;
    const shown = finding.glyph ? [finding.glyph] : [];
    void (async () => {
      const ways: Tried[] = [];
      for (const way of finding.mends) {
        try {
          ways.push({ way, result: await tryWay(way, shown, master) });
        } catch (error) {
          ways.push({
            way,
            result: { ok: false, severity: 'error', reason: error instanceof Error ? error.message : String(error) },
          });
        }
        if (gone) return;
      }
      setTried({ of: project, ways });
    })();
    return () => {
      gone = true;
    };
  }, [finding, master, project]);
  if (finding.mends.length === 0) return <p className="text-quiet">A machine cannot mend this; it is for the hand.</p>;
  const possible = tried?.ways.filter((w) => w.result.ok) ?? [];
  const refused = tried?.ways.find((w) => !w.result.ok);
  return (
    <section className="flex flex-wrap content-start gap-3" aria-label="Ways to mend it">
      {possible.map(({ way, result }, i) => (
        <MendCard
          key={way.title}
          way={way}
          tried={(result as { value: MendTried }).value}
          first={i === 0}
          of={tried!.of}
          finding={finding}
          master={master}
        />
      ))}
      {tried && possible.length === 0 && refused && !refused.result.ok && (
        <p className="text-quiet">{refused.result.reason}</p>
      )}
    </section>
  );
}

function MendCard({
  way,
  tried,
  first,
  of,
  finding,
  master,
}: {
  finding: Finding;
  master: MasterId;
  way: MendWay;
  tried: MendTried;
  first: boolean;
  of: ReturnType<typeof useBench.getState>['settled'];
}) {
  const project = useBench((s) => s.settled)!;
  const [letter] = tried.letters;
  // What is not one place of an outline is seen in the whole letter.
  const around =
    letter && finding.contour !== undefined && letter.glyph === finding.glyph
      ? spotsIn(project, finding, letter.master)[0]
      : undefined;
  const more = tried.letters.length - 1;
  const pair = pairOf(finding);
  const after = pair && of ? applySteps(of, tried.steps) : undefined;
  return (
    <div className="flex w-[148px] flex-col items-stretch gap-2 rounded-xl border border-line bg-panel p-2">
      {pair && after && (
        <figure className="flex flex-col items-center text-center">
          <PairLetters project={after} master={master} first={pair[0]} second={pair[1]} size={92} />
        </figure>
      )}
      {letter && !pair && (
        <figure className="flex flex-col items-center text-center">
          <BeforeAfterLetter letter={letter} size={116} around={around} />
          <figcaption className="text-[12px] text-quiet">
            {masterOf(project, letter.master)?.name ?? ''}
            {more > 0 ? `, and ${more} more ${more === 1 ? 'glyph' : 'glyphs'}` : ''}
          </figcaption>
        </figure>
      )}
      <Button
        kind={first ? 'primary' : 'plain'}
        className="h-auto! min-h-7.5 whitespace-normal! py-1 leading-[17px]"
        title={first ? 'Enter' : undefined}
        onClick={() => of && takeMend(tried, of)}
      >
        {way.title}
      </Button>
    </div>
  );
}
