import { Bar, BarChart, CartesianGrid, Legend, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { shownNumber } from '../../../core/base/notation';
import type { GlyphId, MasterId } from '../../../core/project/model';
import type { ScriptOutput } from '../../../core/scripting/session';
import { useBench } from '../../state/bench';
import { download } from '../../state/projectFiles';
import { GlyphShape } from '../../ui/GlyphShape';
import { Button } from '../../ui/parts';

const COLOURS = ['var(--color-kelp)', 'var(--color-marigold)', 'var(--color-brick)', 'var(--color-quiet)'];
const MOST_ROWS = 400;

/** What a script reported: text, tables, charts, glyphs, findings that lead to their glyphs. */
export function Reports({
  outputs,
  onOpen,
}: {
  outputs: readonly ScriptOutput[];
  onOpen: (glyph: GlyphId, master?: MasterId) => void;
}) {
  const project = useBench((s) => s.settled)!;
  const shown = outputs.slice(0, MOST_ROWS);
  return (
    <div data-testid="reports" className="grid gap-2.5 text-[13.5px]">
      {shown.map((o, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: reports stand in the order in which they came and are never moved.
        <Report key={i} output={o} project={project} onOpen={onOpen} />
      ))}
      {outputs.length > shown.length && <p className="text-quiet">and {outputs.length - shown.length} reports more.</p>}
    </div>
  );
}

type Props = {
  output: ScriptOutput;
  project: NonNullable<ReturnType<typeof useBench.getState>['settled']>;
  onOpen: (glyph: GlyphId, master?: MasterId) => void;
};

function Report({ output: o, project, onOpen }: Props) {
  if (o.kind === 'text') return <p className="break-words whitespace-pre-wrap">{o.text}</p>;
  if (o.kind === 'finding')
    return (
      <button
        type="button"
        className="text-left text-brick hover:underline disabled:no-underline"
        disabled={o.glyph === undefined || !project.glyphs[o.glyph]}
        onClick={() => o.glyph !== undefined && onOpen(o.glyph, o.master)}
      >
        {o.glyph !== undefined && project.glyphs[o.glyph] && <b>{project.glyphs[o.glyph]!.name}: </b>}
        {o.sentence}
      </button>
    );
  if (o.kind === 'file')
    return (
      <p>
        <Button onClick={() => download(o.bytes, o.name, o.name.endsWith('.pdf') ? 'application/pdf' : 'font/sfnt')}>
          Save {o.name}
        </Button>
        <span className="ml-2 text-quiet">{Math.round(o.bytes.length / 1024)} KB</span>
      </p>
    );
  if (o.kind === 'glyphs')
    return (
      <div>
        {o.caption && <p className="mb-1 text-quiet">{o.caption}</p>}
        <div className="flex flex-wrap gap-1">
          {o.glyphs.slice(0, MOST_ROWS).map((id) => {
            const glyph = project.glyphs[id];
            return (
              glyph && (
                <button
                  type="button"
                  key={id}
                  title={glyph.name}
                  aria-label={glyph.name}
                  onClick={() => onOpen(id)}
                  className="rounded-md border border-line bg-panel text-ink hover:border-kelp"
                >
                  <GlyphShape project={project} glyph={glyph} master={o.master} size={46} />
                </button>
              )
            );
          })}
          {o.glyphs.length > MOST_ROWS && (
            <p className="self-center text-quiet">and {o.glyphs.length - MOST_ROWS} glyphs more.</p>
          )}
          {o.glyphs.some((id) => !project.glyphs[id]) && (
            <p className="self-center text-quiet">Glyphs that the script makes are shown once it has run.</p>
          )}
        </div>
      </div>
    );
  if (o.kind === 'chart') {
    const rows = o.labels.map((label, i) => ({
      label,
      ...Object.fromEntries(o.series.map((s) => [s.name, s.values[i] ?? 0])),
    }));
    return (
      <figure>
        <figcaption className="mb-1 text-quiet">{o.title}</figcaption>
        <ResponsiveContainer width="100%" height={190}>
          <BarChart data={rows} margin={{ top: 4, right: 8, bottom: 0, left: 0 }}>
            <CartesianGrid vertical={false} stroke="var(--color-line)" />
            <XAxis dataKey="label" tick={{ fontSize: 12, fill: 'var(--color-quiet)' }} interval="preserveStartEnd" />
            <YAxis width={42} tick={{ fontSize: 12, fill: 'var(--color-quiet)' }} />
            <Tooltip contentStyle={{ background: 'var(--color-panel)', border: '1px solid var(--color-line)' }} />
            {o.series.length > 1 && <Legend />}
            {o.series.map((s, i) => (
              <Bar key={s.name} dataKey={s.name} fill={COLOURS[i % COLOURS.length]!} isAnimationActive={false} />
            ))}
          </BarChart>
        </ResponsiveContainer>
      </figure>
    );
  }
  return (
    <div className="max-w-full overflow-x-auto">
      <table aria-label="Report" className="border-collapse text-[13px] tabular-nums">
        <thead>
          <tr>
            {o.head.map((h, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: columns stay where they are.
              <th key={i} className="border-b border-line px-2 py-0.5 text-left font-semibold">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {o.rows.slice(0, MOST_ROWS).map((row, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: rows stay where they are.
            <tr key={i}>
              {row.map((c, k) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: columns stay where they are.
                <td key={k} className={`px-2 py-0.5 ${typeof c === 'number' ? 'text-right' : ''}`}>
                  {c === null ? '' : typeof c === 'number' ? shownNumber(c, 4) : String(c)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {o.rows.length > MOST_ROWS && <p className="text-quiet">and {o.rows.length - MOST_ROWS} rows more.</p>}
    </div>
  );
}
