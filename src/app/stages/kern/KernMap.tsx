import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, type ReactNode, useMemo, useRef, useState } from 'react';
import { shownNumber } from '../../../core/base/notation';
import { plural } from '../../../core/project/edit';
import type { Group } from '../../../core/project/model';
import { pairKey } from '../../../core/project/pairs';
import { masterOf } from '../../../core/project/queries';
import { useBench } from '../../state/bench';
import { GlyphShape } from '../../ui/GlyphShape';
import { useWidth } from '../../ui/useWidth';
import { choosePair, setMode } from './kernBench';

const ROW = 24;
const HEAD = 60;
/** The room for the names of rows. */
const LEAD = 104;
const NARROWEST = 34;

type At = { row: number; column: number };

/** Groups by groups: how tight or open each pair of them is set. A cell opens its pair; of many groups those in sight are made. */
export function KernMap() {
  const project = useBench((s) => s.settled)!;
  const masterId = useBench((s) => s.master);
  const { rows, columns, kernOf, leadOf } = useMemo(() => {
    const master = masterOf(project, masterId)!;
    const of = (side: 'first' | 'second') =>
      project.groups.filter((g) => g.side === side && g.members.some((m) => project.glyphs[m]));
    const leadOf = (g: Group) => g.members.find((m) => project.glyphs[m])!;
    const side = ({ id }: Group) => ({ kind: 'group', id }) as const;
    const kernOf = (first: Group, second: Group) => master.kerning[pairKey(side(first), side(second))] ?? 0;
    return { rows: of('first'), columns: of('second'), kernOf, leadOf };
  }, [project, masterId]);
  if (rows.length === 0 || columns.length === 0)
    return <p className="p-6 text-quiet">There are no groups yet. Make one of a glyph in the details of a pair.</p>;
  return <Cells {...{ rows, columns, kernOf, leadOf }} />;
}

type CellsProps = {
  rows: readonly Group[];
  columns: readonly Group[];
  kernOf: (first: Group, second: Group) => number;
  leadOf: (group: Group) => string;
};

function Cells({ rows, columns, kernOf, leadOf }: CellsProps) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame, 900);
  const [walked, setAt] = useState<At>();
  // Groups may go while one is there.
  const at = walked && rows[walked.row] && columns[walked.column] ? walked : undefined;
  const { most, longest } = useMemo(() => {
    const values = rows.flatMap((r) => columns.map((c) => kernOf(r, c))).filter((v) => v !== 0);
    const most = (of: (v: number) => number, least: number) => values.reduce((m, v) => Math.max(m, of(v)), least);
    return { most: most(Math.abs, 1), longest: most((v) => shownNumber(v).length, 2) };
  }, [rows, columns, kernOf]);
  const cell = Math.max(NARROWEST, 8 + 6.5 * longest, Math.floor((width - LEAD - 20) / columns.length));
  const down = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW,
    scrollMargin: HEAD,
    scrollPaddingStart: HEAD,
    overscan: 4,
  });
  const across = useVirtualizer({
    horizontal: true,
    count: columns.length,
    getScrollElement: () => frame.current,
    estimateSize: () => cell,
    getItemKey: (i) => `${columns[i]!.id} ${cell}`,
    scrollMargin: LEAD,
    scrollPaddingStart: LEAD,
    overscan: 4,
  });
  const open = (r: Group, c: Group) => {
    choosePair({ first: leadOf(r), second: leadOf(c) });
    setMode('pairs');
  };
  const keys = (e: KeyboardEvent) => {
    const by = STEPS[e.key];
    if (by) {
      const within = (v: number, count: number) => Math.max(0, Math.min(count - 1, v));
      const next = at
        ? { row: within(at.row + by.row, rows.length), column: within(at.column + by.column, columns.length) }
        : { row: 0, column: 0 };
      setAt(next);
      down.scrollToIndex(next.row, { align: 'auto' });
      across.scrollToIndex(next.column, { align: 'auto' });
    } else if (e.key === 'Enter' && at) open(rows[at.row]!, columns[at.column]!);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const head = (g: Group, size: number) => (
    <GlyphShape project={project} glyph={project.glyphs[leadOf(g)]!} master={master} size={size} />
  );
  const whole = LEAD + across.getTotalSize();
  return (
    <div className="flex min-h-0 flex-1 flex-col px-5 pb-3">
      {/* biome-ignore lint/a11y/noStaticElementInteractions: arrow keys move among the pairs inside. */}
      <div
        ref={frame}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: the map keeps the keys while pairs come and go.
        tabIndex={0}
        data-testid="kern-map"
        className="min-h-0 flex-1 overflow-auto text-[11px] outline-offset-[-2px]"
        onKeyDown={keys}
      >
        <Heads width={whole}>
          {across.getVirtualItems().map(({ index, key, start }) => (
            <span
              key={key}
              title={titleOf(columns[index]!)}
              className="absolute bottom-0.5 flex flex-col items-center"
              style={{ left: start, width: cell }}
            >
              {head(columns[index]!, 30)}
              <span className="block w-full truncate px-px text-center text-[10.5px] text-quiet">
                {columns[index]!.name}
              </span>
            </span>
          ))}
        </Heads>
        <ul
          aria-label="Kerning of groups with groups"
          className="relative"
          style={{ width: whole, height: down.getTotalSize() }}
        >
          {down.getVirtualItems().map(({ index: row, key, start }) => (
            <li
              key={key}
              aria-label={rows[row]!.name}
              className="absolute left-0 flex w-full"
              style={{ top: start - HEAD, height: ROW }}
            >
              <span
                title={titleOf(rows[row]!)}
                className="sticky left-0 z-[5] flex items-center justify-end gap-1 bg-paper pr-2"
                style={{ width: LEAD }}
              >
                <span className="min-w-0 truncate text-[10.5px] text-quiet">{rows[row]!.name}</span>
                {head(rows[row]!, 22)}
              </span>
              {across.getVirtualItems().map(({ index: column, key: k, start: left }) => (
                <Cell
                  key={k}
                  first={rows[row]!}
                  second={columns[column]!}
                  value={kernOf(rows[row]!, columns[column]!)}
                  most={most}
                  current={at?.row === row && at.column === column}
                  left={left}
                  width={cell}
                  onOpen={() => open(rows[row]!, columns[column]!)}
                />
              ))}
            </li>
          ))}
        </ul>
      </div>
      <p role="status" data-testid="kern-map-at" className="sr-only">
        {at && saidOf(rows[at.row]!, columns[at.column]!, kernOf(rows[at.row]!, columns[at.column]!))}
      </p>
      <p className="mt-2 text-quiet">
        Green is tighter, amber is wider; the darker the more. Rows are first, columns second; arrow keys walk, Enter
        opens the pair.
      </p>
    </div>
  );
}

const STEPS: Readonly<Record<string, At>> = {
  ArrowUp: { row: -1, column: 0 },
  ArrowDown: { row: 1, column: 0 },
  ArrowLeft: { row: 0, column: -1 },
  ArrowRight: { row: 0, column: 1 },
};

const titleOf = (g: Group): string => `${g.name} group, ${plural(g.members.length, 'glyph')}`;

/** The letters of the columns, which stay in sight above. */
const Heads = ({ width, children }: { width: number; children: ReactNode }) => (
  <div aria-hidden className="sticky top-0 z-10 border-b border-line bg-paper" style={{ width, height: HEAD }}>
    {children}
    <span className="sticky left-0 block h-full bg-paper" style={{ width: LEAD }} />
  </div>
);

const saidOf = (first: Group, second: Group, value: number): string => `${first.name} with ${second.name}, ${value}`;

function Cell({
  first,
  second,
  value,
  most,
  current,
  left,
  width,
  onOpen,
}: {
  first: Group;
  second: Group;
  value: number;
  most: number;
  current: boolean;
  left: number;
  width: number;
  onOpen: () => void;
}) {
  const share = Math.abs(value) / most;
  const hue = value < 0 ? 'var(--color-kelp)' : 'var(--color-marigold)';
  return (
    <button
      type="button"
      tabIndex={-1}
      aria-current={current}
      aria-label={saidOf(first, second, value)}
      title={saidOf(first, second, value)}
      className={`absolute top-px rounded-[3px] ${share > 0.55 ? 'text-on-kelp' : 'text-ink'} ${current ? 'outline-2 outline-ink' : ''}`}
      style={{
        left,
        width: width - 1,
        height: ROW - 2,
        background:
          value === 0
            ? 'var(--color-panel)'
            : `color-mix(in srgb, ${hue} ${Math.round(20 + 80 * share)}%, var(--color-panel))`,
      }}
      onClick={onOpen}
    >
      {value !== 0 && shownNumber(value)}
    </button>
  );
}
