import { useEffect, useMemo, useState } from 'react';
import { controlsFor, spellingOf, wordsWithPair } from '../../../core/fitting/lines';
import { masterOf } from '../../../core/project/queries';
import type { SetLine } from '../../../workers/compile';
import { useBench } from '../../state/bench';
import { requestLines } from '../../state/liveFont';
import type { Pair } from './kernBench';

/** Words that hold the pair, set by the shaper with the font as it would be cast now. */
export function InWords({ pair, before }: { pair: Pair; before: boolean }) {
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
      requestLines('words', {
        texts: [text],
        setting: { features: before ? { kern: 0 } : {} },
        show: (set) => setLine(set.ok ? set.value.lines[0] : undefined),
      });
  }, [text, before, project, masterId]);
  if (!line || text === '') return null;
  const { zones } = masterOf(project, masterId)!;
  const [top, bottom] = [zones.ascender.position + 160, zones.descender.position - 20];
  return (
    <section aria-label="In words" className="border-t border-line px-5 py-1.5">
      <svg
        role="img"
        aria-label={`${text}, as cast`}
        data-testid="kern-words"
        data-width={line.width}
        className="block h-11 w-full"
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
    </section>
  );
}
