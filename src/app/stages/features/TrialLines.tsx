import { useEffect, useState } from 'react';
import type { Result } from '../../../core/base/result';
import type { ShownRule } from '../../../core/features/shown';
import type { Setting } from '../../../core/project/setting';
import type { Explained as ExplainedLine, SetGlyph, SetLine, SetLines } from '../../../workers/compile';
import { useBench } from '../../state/bench';
import { useDrawn } from '../../state/drawn';
import { compiler } from '../../state/followers';
import { requestLines } from '../../state/liveFont';
import { Button } from '../../ui/parts';
import { Explained } from './Explained';

const SIZE = 44;

/** A text in the font as it would be cast now, in a setting. */
function useLine(asker: string, text: string, setting: Setting): { line?: SetLine; fault?: string } {
  const [set, setSet] = useState<Result<SetLines>>();
  const key = JSON.stringify(setting);
  useEffect(() => {
    const ask = () => requestLines(asker, { texts: [text], setting: JSON.parse(key) as Setting, show: setSet });
    ask();
    return useBench.subscribe((now, then) => {
      if (now.project && (now.project !== then.project || now.master !== then.master)) ask();
    });
  }, [asker, text, key]);
  if (!set) return {};
  return set.ok ? (set.value.lines[0] ? { line: set.value.lines[0] } : {}) : { fault: set.reason };
}

const keyOf = (g: SetGlyph): string => `${g.id} ${g.cluster}`;

/** Does a glyph stand otherwise than the same one of another line: at another place beside those before it, or wider? */
function changedFrom(other: SetLine | undefined): (g: SetGlyph, i: number, line: SetLine) => boolean {
  const held = new Map(other?.glyphs.map((g, i) => [keyOf(g), { g, step: stepTo(other, i) }]));
  return (g, i, line) => {
    const was = held.get(keyOf(g));
    return !was || was.g.advance !== g.advance || was.g.y !== g.y || was.step !== stepTo(line, i);
  };
}

/** How far a glyph stands from the place where the one before it ends. */
function stepTo(line: SetLine, i: number): number {
  const before = line.glyphs.slice(0, i).reduce((sum, g) => sum + g.advance, 0);
  return line.glyphs[i]!.x - before;
}

type Way = { name: string; setting: Setting; menu?: React.ReactNode };

/** A text set in two ways, one above the other; what is otherwise in the second is marked. */
export function TwoLines({ id, text, ways }: { id: string; text: string; ways: readonly [Way, Way] }) {
  const first = useLine(`${id} 1`, text, ways[0].setting);
  const second = useLine(`${id} 2`, text, ways[1].setting);
  const changed = changedFrom(first.line);
  return (
    <>
      {(first.fault ?? second.fault) && <p className="text-brick">{first.fault ?? second.fault}</p>}
      {ways.map(({ name, menu }, k) => {
        const { line } = k === 0 ? first : second;
        return (
          <div key={name} className="flex min-w-0 items-center gap-2">
            {menu}
            {line && <Line label={name} line={line} changed={k === 0 || !first.line ? () => false : changed} />}
          </div>
        );
      })}
    </>
  );
}

function Line({
  label,
  line,
  changed,
}: {
  label: string;
  line: SetLine;
  changed: (g: SetGlyph, i: number, line: SetLine) => boolean;
}) {
  const project = useDrawn();
  const em = project.unitsPerEm;
  const scale = SIZE / em;
  const width = Math.max(20, line.width * scale + 4);
  const names = line.glyphs.map((g) => (g.id && project.glyphs[g.id]?.name) || '?').join(' ');
  return (
    <div className="min-w-0 flex-1 overflow-x-auto">
      <svg
        role="img"
        aria-label={`${label}: ${names}`}
        data-testid="trial-line"
        width={width}
        height={SIZE * 1.35}
        viewBox={`0 ${-em} ${width / scale} ${em * 1.35}`}
      >
        {line.glyphs.map((g, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: glyphs of a line keep their places.
          <g key={i} transform={`translate(${g.x} ${-g.y})`} className={changed(g, i, line) ? 'fill-kelp' : 'fill-ink'}>
            <path d={line.paths[g.gid] ?? ''} transform="scale(1 -1)" />
          </g>
        ))}
      </svg>
    </div>
  );
}

/** What every lookup did to a text in a setting, when asked. */
export function Explain({
  text,
  setting,
  expected,
}: {
  text: string;
  setting: Setting;
  /** Rules of sections, to be told why they did nothing. */
  expected: readonly { section: string; rules: readonly ShownRule[] }[];
}) {
  const project = useDrawn();
  const ruled = useBench((s) => s.settled!.features);
  const [explained, setExplained] = useState<Result<ExplainedLine>>();
  const key = JSON.stringify(setting);
  // biome-ignore lint/correctness/useExhaustiveDependencies: an explanation is of what stood there when it was asked for.
  useEffect(() => setExplained(undefined), [project, ruled, text, key]);
  const explain = () =>
    compiler
      .askWith<Result<ExplainedLine>>((service, steps) =>
        service.explain({ text, place: { master: useBench.getState().master }, setting, expected, steps }),
      )
      .then(setExplained);
  return (
    <>
      <Button
        title="What every lookup did to this text, in order, by the shaper’s own trace, and why others did nothing"
        onClick={() => void explain()}
      >
        Explain
      </Button>
      {explained && <Explained result={explained} />}
    </>
  );
}
