import { useEffect, useMemo, useState } from 'react';
import type { Result } from '../../../core/base/result';
import { isUsual } from '../../../core/features/known';
import type { ShownRule } from '../../../core/features/shown';
import type { Project } from '../../../core/project/model';
import { glyphNamed } from '../../../core/project/queries';
import type { ExplainedStep, SetLine, SetLines } from '../../../workers/compile';
import { useBench } from '../../state/bench';
import { useDrawn } from '../../state/drawn';
import { compiler } from '../../state/followers';
import { requestLines } from '../../state/liveFont';
import { Pick } from '../../ui/controls';
import { Button } from '../../ui/parts';
import { Explained } from './Explained';

const SIZE = 44;
/** Rules that a trial’s text is made from. */
const FIRST = 10;
/** A trial in no language in particular. */
const ANY = 'any';

/** A text in which rules occur: the letters that they replace, with what stands around them. */
function proposedText(project: Project, rules: readonly ShownRule[]): string {
  const words = rules.slice(0, FIRST).map((r) =>
    [...r.back, ...r.before, ...r.ahead]
      .map((n) => {
        const code = glyphNamed(project, n)?.unicodes[0];
        return code === undefined ? '' : String.fromCodePoint(code);
      })
      .join(''),
  );
  const single = rules.every((r) => r.before.length === 1 && r.back.length + r.ahead.length === 0);
  return words.filter(Boolean).join(single ? '' : ' ');
}

/** A language of the font’s tables as a shaper takes it. */
const asked = (tag: string): string | undefined => (tag === ANY ? undefined : `x-hbot${tag}`);

/** Lines of text in the font as it would be cast now, with some features, in a language. */
function useLine(
  asker: string,
  text: string,
  features: readonly string[],
  language: string | undefined,
): {
  line?: SetLine;
  fault?: string;
} {
  const [set, setSet] = useState<Result<SetLines>>();
  const key = features.join(' ');
  useEffect(() => {
    const ask = () =>
      requestLines(asker, { texts: [text], features: key === '' ? [] : key.split(' '), language, show: setSet });
    ask();
    return useBench.subscribe((now, then) => {
      if (now.project && (now.project !== then.project || now.master !== then.master)) ask();
    });
  }, [asker, text, key, language]);
  if (!set) return {};
  return set.ok ? (set.value.lines[0] ? { line: set.value.lines[0] } : {}) : { fault: set.reason };
}

/** Asks what every lookup does to a text in the font as it would be cast now. */
const explain = (text: string, features: string[], language: string | undefined): Promise<Result<ExplainedStep[]>> =>
  compiler.askWith<Result<ExplainedStep[]>>((service, steps) =>
    service.explain({ text, place: { master: useBench.getState().master }, features, language, steps }),
  );

/** A section tried out: a text with its features off, and on, one above the other; what changed is marked. */
export function Trial({ id, tags, rules }: { id: string; tags: readonly string[]; rules: readonly ShownRule[] }) {
  const project = useDrawn();
  const languages = useMemo(() => [...new Set(rules.flatMap((r) => r.language ?? []))], [rules]);
  const [chosen, setChosen] = useState<string>();
  // Rules of single languages only are tried in the first of them.
  const first = rules.length > 0 && rules.every((r) => r.language) ? languages[0]! : ANY;
  const tag = chosen !== undefined && (chosen === ANY || languages.includes(chosen)) ? chosen : first;
  const language = asked(tag);
  const proposed = useMemo(() => {
    const own = rules.filter((r) => !r.language || r.language === tag);
    return proposedText(project, own.length > 0 ? own : rules);
  }, [project, rules, tag]);
  const [typed, setTyped] = useState<string>();
  const text = typed ?? proposed;
  const off = useLine(
    `trial ${id} off`,
    text,
    tags.map((t) => `${t}=0`),
    language,
  );
  const on = useLine(
    `trial ${id} on`,
    text,
    tags.map((t) => `${t}=1`),
    language,
  );
  const before = new Set(off.line?.glyphs.map((g) => `${g.id} ${g.cluster}`));
  const ruled = useBench((s) => s.settled!.features);
  const [explained, setExplained] = useState<Result<ExplainedStep[]>>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: an explanation is of what stood there when it was asked for.
  useEffect(() => setExplained(undefined), [project, ruled, text, language]);
  if (tags.length === 0) return null;
  return (
    <div className="mt-2 rounded-lg border border-line bg-paper p-2">
      <input
        aria-label="Text of the trial"
        className="mb-1 h-7 w-full rounded-md border border-line bg-panel px-2"
        value={text}
        spellCheck={false}
        onChange={(e) => setTyped(e.target.value)}
      />
      <div className="flex items-center gap-2">
        <p className="flex-1 text-[12px] text-quiet">
          Above without {tags.join(', ')}, below with
          {tags.every(isUsual) ? '; text uses it without being asked' : '; text uses it when asked'}
        </p>
        {languages.length > 0 && (
          <Pick
            label="Language of the trial"
            className="w-52"
            value={tag}
            options={[
              { value: ANY, text: 'No language in particular' },
              ...languages.map((l) => ({ value: l, text: `Language ${l}` })),
            ]}
            onChange={setChosen}
          />
        )}
      </div>
      {off.fault && <p className="text-brick">{off.fault}</p>}
      {off.line && <Line label="Without" line={off.line} em={project.unitsPerEm} changed={() => false} />}
      {on.line && (
        <Line
          label="With"
          line={on.line}
          em={project.unitsPerEm}
          changed={(g) => !before.has(`${g.id} ${g.cluster}`)}
        />
      )}
      <Button
        title="What every lookup did to this text, in order, by the shaper’s own trace"
        onClick={() =>
          void explain(
            text,
            tags.map((t) => `${t}=1`),
            language,
          ).then(setExplained)
        }
      >
        Explain
      </Button>
      {explained && <Explained result={explained} />}
    </div>
  );
}

function Line({
  label,
  line,
  em,
  changed,
}: {
  label: string;
  line: SetLine;
  em: number;
  changed: (g: SetLine['glyphs'][number]) => boolean;
}) {
  const scale = SIZE / em;
  const width = Math.max(20, line.width * scale + 4);
  const project = useDrawn();
  const names = line.glyphs.map((g) => (g.id && project.glyphs[g.id]?.name) || '?').join(' ');
  return (
    <div className="overflow-x-auto">
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
          <g key={i} transform={`translate(${g.x} ${-g.y})`} className={changed(g) ? 'fill-kelp' : 'fill-ink'}>
            <path d={line.paths[g.gid] ?? ''} transform="scale(1 -1)" />
          </g>
        ))}
      </svg>
    </div>
  );
}
