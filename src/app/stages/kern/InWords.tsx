import { useEffect, useMemo, useState } from 'react';
import { controlsFor, spellingOf, wordsWithPair } from '../../../core/fitting/lines';
import { placeInWords } from '../../../core/project/places';
import { masterOf } from '../../../core/project/queries';
import type { SetLine } from '../../../workers/compile';
import { useBench } from '../../state/bench';
import { requestLines } from '../../state/liveFont';
import type { Pair } from './kernBench';

type Place = Readonly<Record<string, number>>;

/** Words that hold the pair, set by the shaper with the font as it would be cast now; at the place that is kept in sight too. */
export function InWords({ pair, before }: { pair: Pair; before: boolean }) {
  const watched = useBench((s) => s.watched);
  return (
    <>
      <Words asker="words" pair={pair} before={before} />
      {watched && <Words asker="words in sight" pair={pair} before={before} place={watched} />}
    </>
  );
}

function Words({ asker, pair, before, place }: { asker: string; pair: Pair; before: boolean; place?: Place }) {
  const project = useBench((s) => s.project)!;
  const masterId = useBench((s) => s.master);
  const [line, setLine] = useState<SetLine>();
  const [a, b] = [project.glyphs[pair.first]!, project.glyphs[pair.second]!];
  const encoded = a.unicodes.length > 0 && b.unicodes.length > 0;
  const { texts } = project;
  const text = useMemo(() => {
    if (!encoded) return '';
    const words = wordsWithPair(spellingOf(a), spellingOf(b), [texts.galley, ...texts.pairs].join(' '));
    // No word has it: it stands between straights and rounds.
    const [left, right] = [controlsFor(a), controlsFor(b)];
    return (words.length > 0 ? words : [0, 1].map((k) => left[k]! + spellingOf(a) + spellingOf(b) + right[k]!)).join(
      '  ',
    );
  }, [a, b, encoded, texts]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the project and the master are what the font is made of.
  useEffect(() => {
    if (text !== '')
      requestLines(asker, {
        texts: [text],
        place,
        setting: { features: before ? { kern: 0 } : {} },
        show: (set) => setLine(set.ok ? set.value.lines[0] : undefined),
      });
  }, [asker, place, text, before, project, masterId]);
  if (!line || text === '') return null;
  const { zones } = masterOf(project, masterId)!;
  const [top, bottom] = [zones.ascender.position + 160, zones.descender.position - 20];
  return (
    <section
      aria-label={place ? 'In words, in sight' : 'In words'}
      className="flex items-center gap-3 border-t border-line px-5 py-1.5"
    >
      <svg
        role="img"
        aria-label={`${text}, as cast`}
        data-testid={place ? 'kern-words-in-sight' : 'kern-words'}
        data-width={line.width}
        className="block h-11 min-w-0 flex-1"
        viewBox={`0 ${-top} ${Math.max(1, line.width)} ${top - bottom}`}
        preserveAspectRatio="xMinYMid meet"
      >
        <g transform="scale(1 -1)" className="fill-ink">
          {line.glyphs.map((g, i) =>
            line.paths[g.gid] ? (
              <path
                // biome-ignore lint/suspicious/noArrayIndexKey: a glyph is its place in the line.
                key={i}
                transform={`translate(${g.x} ${g.y})`}
                d={line.paths[g.gid]}
              />
            ) : null,
          )}
        </g>
      </svg>
      {place && <span className="text-[12px] text-quiet">{placeInWords(project.axes, place)}</span>}
    </section>
  );
}
