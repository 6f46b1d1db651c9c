import { useContext } from 'react';
import type { Result } from '../../../core/base/result';
import { lineSpan } from '../../../core/features/sections';
import { glyphNamed } from '../../../core/project/queries';
import type { Explained as ExplainedLine, ExplainedStep, SetGlyph } from '../../../workers/compile';
import { useBench } from '../../state/bench';
import { useDrawn } from '../../state/drawn';
import { GlyphShape } from '../../ui/GlyphShape';
import { NotebookContext } from './SymbolBar';

const SIZE = 30;
/** Longer lines are cut around what changed. */
const AROUND = 2;
/** Rules that did nothing are told up to so many. */
const MOST_UNAPPLIED = 12;
/** So many glyphs are shown moved. */
const MOST_MOVED = 40;

/** What lookups did, one after the other: the glyphs before and after, and where the rule stands. */
export function Explained({ result }: { result: Result<ExplainedLine> }) {
  if (!result.ok)
    return (
      <p role="alert" className="mt-1 text-brick">
        {result.reason}
      </p>
    );
  const { steps, unapplied } = result.value;
  return (
    <>
      {steps.length === 0 && <p className="mt-1 text-quiet">No lookup changed anything in this text.</p>}
      <Steps steps={steps} />
      {unapplied.length > 0 && <Unapplied list={unapplied} />}
    </>
  );
}

/** Rules that did nothing, though their letters stand in the text: why. */
function Unapplied({ list }: { list: ExplainedLine['unapplied'] }) {
  return (
    <section aria-label="Rules that did nothing here" className="mt-2 text-[12.5px]">
      <h4 className="font-semibold">Rules that did nothing here, though their letters stand in the text</h4>
      <ul aria-label="Rules" className="mt-1 grid gap-1">
        {list.slice(0, MOST_UNAPPLIED).map(({ rule, reason, source }) => (
          <li
            key={`${rule.feature} ${rule.language} ${rule.back} ${rule.before} ${rule.ahead} ${rule.after}`}
            className="flex flex-wrap items-center gap-x-2 rounded-lg border border-line bg-panel px-2 py-0.5"
          >
            <Named names={rule.before} />
            <span aria-hidden className="text-quiet">
              →
            </span>
            <Named names={rule.after.slice(0, rule.kind === 'choose' ? 1 : undefined)} />
            <span className="min-w-40 flex-1">
              <b>{rule.feature}</b> · {reason} {source && <Source source={source} />}
            </span>
          </li>
        ))}
      </ul>
      {list.length > MOST_UNAPPLIED && <p className="text-quiet">and {list.length - MOST_UNAPPLIED} more.</p>}
    </section>
  );
}

function Named({ names }: { names: readonly string[] }) {
  const project = useDrawn();
  const glyphs = names.map((n) => ({ id: glyphNamed(project, n)?.id, gid: 0, x: 0, y: 0, advance: 0, cluster: 0 }));
  return <Letters glyphs={glyphs} />;
}

function Steps({ steps }: { steps: readonly ExplainedStep[] }) {
  if (steps.length === 0) return null;
  return (
    <ol aria-label="What each lookup did" className="mt-1.5 grid gap-1.5">
      {steps.map((s, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: steps keep their order.
        <li key={i} className="rounded-lg border border-line bg-panel px-2 py-1">
          <p className="text-[12.5px]">
            <b>{s.feature}</b> · <Source source={s.source} />
          </p>
          {s.table === 'GSUB' ? <Replaced step={s} /> : <Moved step={s} />}
        </li>
      ))}
    </ol>
  );
}

/** Where a lookup stands, as a way there. */
function Source({ source: { title, section, line, name } }: { source: ExplainedStep['source'] }) {
  const { texts, goTo } = useContext(NotebookContext);
  const said = `${title}${line === undefined ? '' : `, line ${line}`}${name ? ` (${name})` : ''}`;
  const text = texts.find((t) => t.id === section)?.text;
  const span = text === undefined || line === undefined ? undefined : lineSpan(text, line);
  if (section === undefined || !span) return said;
  return (
    <button type="button" className="text-kelp underline" onClick={() => goTo(section, span.from, span.to)}>
      {said}
    </button>
  );
}

/** The stretch in which two rows differ, with a little around it. */
function stretch(before: readonly SetGlyph[], after: readonly SetGlyph[]): [from: number, tail: number] {
  let from = 0;
  while (from < before.length && from < after.length && before[from]!.gid === after[from]!.gid) from++;
  let tail = 0;
  while (
    tail < before.length - from &&
    tail < after.length - from &&
    before[before.length - 1 - tail]!.gid === after[after.length - 1 - tail]!.gid
  )
    tail++;
  return [Math.max(0, from - AROUND), Math.max(0, tail - AROUND)];
}

function Replaced({ step: { before, after } }: { step: ExplainedStep }) {
  const [from, tail] = stretch(before, after);
  return (
    <div className="flex flex-wrap items-center gap-1">
      <Letters glyphs={before.slice(from, before.length - tail)} />
      <span aria-hidden className="text-quiet">
        →
      </span>
      <Letters glyphs={after.slice(from, after.length - tail)} />
    </div>
  );
}

/** Glyphs that were moved or given another room, with by how much. */
function Moved({ step: { before, after } }: { step: ExplainedStep }) {
  const moved = after.flatMap((g, i) => {
    const was = before[i];
    if (!was) return [];
    // Places are from the beginning of the line: what an earlier glyph gained is taken off.
    const [advance, up] = [g.advance - was.advance, g.y - was.y];
    const own = g.x - was.x - after.slice(0, i).reduce((sum, a, k) => sum + a.advance - before[k]!.advance, 0);
    return advance !== 0 || up !== 0 || own !== 0 ? [{ g, next: after[i + 1], advance, own, up }] : [];
  });
  const signed = (n: number) => (n > 0 ? `+${n}` : String(n).replace('-', '−'));
  return (
    <ul aria-label="What moves" className="flex flex-wrap gap-2">
      {moved.slice(0, MOST_MOVED).map(({ g, next, advance, own, up }, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: glyphs of a line keep their places.
        <li key={i} className="flex items-center text-[12px] text-quiet">
          <Letters glyphs={next && advance !== 0 ? [g, next] : [g]} />
          {advance !== 0 && <span>{signed(advance)}</span>}
          {(own !== 0 || up !== 0) && (
            <span>
              {' '}
              moved {signed(own)}, {signed(up)}
            </span>
          )}
        </li>
      ))}
      {moved.length > MOST_MOVED && <li className="text-[12px] text-quiet">and {moved.length - MOST_MOVED} more.</li>}
    </ul>
  );
}

function Letters({ glyphs }: { glyphs: readonly SetGlyph[] }) {
  const project = useDrawn();
  const master = useBench((s) => s.master);
  return (
    <span className="flex text-ink">
      {glyphs.map((g, i) => {
        const glyph = g.id === undefined ? undefined : project.glyphs[g.id];
        return glyph ? (
          // biome-ignore lint/suspicious/noArrayIndexKey: glyphs of a line keep their places.
          <span key={i} title={glyph.name}>
            <GlyphShape project={project} glyph={glyph} master={master} size={SIZE} />
            <span className="sr-only">{glyph.name} </span>
          </span>
        ) : null;
      })}
    </span>
  );
}
