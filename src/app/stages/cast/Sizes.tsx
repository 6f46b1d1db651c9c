import { useState } from 'react';
import { Bar, BarChart, LabelList, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { before, type Casting } from '../../../core/casting/history';
import type { CastFile } from '../../../workers/files';
import { Pick } from '../../ui/controls';
import { sizeText } from './sizes';

const ROW = 26;
/** The smallest tables stand together. */
const MOST_ROWS = 9;

/** How many bytes each table of a font takes, beside the same font of the casting before. */
export function Sizes({ files, castings }: { files: readonly CastFile[]; castings: readonly Casting[] }) {
  const [name, setName] = useState(files[0]!.fileName);
  const file = files.find((f) => f.fileName === name) ?? files[0]!;
  const last = castings[castings.length - 1]?.at ?? 0;
  const old = before(castings, last, file.fileName);
  const tags = [...new Set([...Object.keys(file.tables), ...Object.keys(old?.tables ?? {})])];
  const all = tags
    .map((tag) => ({ tag, now: file.tables[tag] ?? 0, before: old?.tables[tag] ?? 0 }))
    .sort((a, b) => b.now - a.now);
  const small = all.slice(MOST_ROWS);
  const rows = [
    ...all.slice(0, MOST_ROWS),
    ...(small.length > 0
      ? [
          {
            tag: `${small.length} more`,
            now: small.reduce((n, r) => n + r.now, 0),
            before: small.reduce((n, r) => n + r.before, 0),
          },
        ]
      : []),
  ];
  const sum = (tables: Readonly<Record<string, number>>) => Object.values(tables).reduce((a, b) => a + b, 0);
  const difference = old ? sum(file.tables) - sum(old.tables) : undefined;
  return (
    <section aria-label="Sizes of tables" className="mb-6">
      <div className="mb-2 flex flex-wrap items-center gap-3">
        <h2 className="text-[16px] font-semibold">Sizes of tables</h2>
        <Pick
          label="Whose sizes"
          className="w-72"
          value={file.fileName}
          options={files.map((f) => ({ value: f.fileName, text: f.fileName }))}
          onChange={setName}
        />
        <span className="text-quiet">
          {sizeText(sum(file.tables))} unpacked
          {difference === undefined
            ? ''
            : difference === 0
              ? ', as in the casting before'
              : `, ${sizeText(Math.abs(difference))} ${difference > 0 ? 'more' : 'less'} than in the casting before`}
        </span>
      </div>
      <div className="rounded-xl border border-line bg-panel p-3" style={{ height: rows.length * ROW + 30 }}>
        <ResponsiveContainer>
          <BarChart data={rows} layout="vertical" margin={{ left: 4, right: 72 }} barGap={1}>
            <XAxis type="number" hide />
            <YAxis type="category" dataKey="tag" width={64} tickLine={false} axisLine={false} interval={0} />
            <Tooltip formatter={(v) => sizeText(Number(v))} cursor={{ fillOpacity: 0.06 }} />
            <Bar dataKey="now" name="now" fill="var(--color-kelp)" isAnimationActive={false}>
              <LabelList dataKey="now" position="right" formatter={(v) => sizeText(Number(v))} fontSize={11.5} />
            </Bar>
            {old && <Bar dataKey="before" name="before" fill="var(--color-edge)" isAnimationActive={false} />}
          </BarChart>
        </ResponsiveContainer>
      </div>
    </section>
  );
}
