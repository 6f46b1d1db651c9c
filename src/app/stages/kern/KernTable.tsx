import {
  createColumnHelper,
  flexRender,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  type SortingState,
  useReactTable,
} from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp, X } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { removePairs, setPair } from '../../../core/kerning/edits';
import { membersOf, sideName } from '../../../core/project/kerningLookup';
import { type PairSide, pairSides } from '../../../core/project/pairs';
import { masterOf } from '../../../core/project/queries';
import { run, useBench } from '../../state/bench';
import { Pick } from '../../ui/controls';
import { NumberField } from '../../ui/parts';
import { choosePair, type Pair, setOrder } from './kernBench';

type Kind = 'groups' | 'exception';
type Row = {
  key: string;
  first: PairSide;
  second: PairSide;
  firstName: string;
  secondName: string;
  value: number;
  moves: number;
  kind: Kind;
  pair: Pair;
};

const column = createColumnHelper<Row>();
const COLUMNS = [
  column.accessor('firstName', { header: 'First' }),
  column.accessor('secondName', { header: 'Second' }),
  column.accessor('value', {
    header: 'Value',
    sortingFn: (a, b) => Math.abs(a.original.value) - Math.abs(b.original.value),
    sortDescFirst: true,
  }),
  column.accessor('moves', { header: 'Pairs', sortDescFirst: true }),
];
const WIDTHS = ['minmax(0,1fr)', 'minmax(0,1fr)', '74px', '52px', '24px'].join(' ');
const KINDS = [
  { value: 'all', text: 'all of them' },
  { value: 'groups', text: 'of groups' },
  { value: 'exception', text: 'exceptions' },
] as const;

/** Every value of a master as a table: filtered, sorted, changed and taken away where it stands. */
export function KernTable({ shown }: { shown: Pair | undefined }) {
  const project = useBench((s) => s.settled)!;
  const masterId = useBench((s) => s.master);
  const [sorting, setSorting] = useState<SortingState>([{ id: 'value', desc: true }]);
  const [filter, setFilter] = useState('');
  const [kind, setKind] = useState<(typeof KINDS)[number]['value']>('all');
  const { kerning } = masterOf(project, masterId)!;
  const rows = useMemo(
    () =>
      Object.entries(kerning).flatMap(([key, value]): Row[] => {
        const [first, second] = pairSides(key) ?? [];
        const [as, bs] = [first ? membersOf(project, first) : [], second ? membersOf(project, second) : []];
        if (!first || !second || !as[0] || !bs[0]) return [];
        const names = { firstName: sideName(project, first), secondName: sideName(project, second) };
        const own: Kind = first.kind === 'group' && second.kind === 'group' ? 'groups' : 'exception';
        return [
          {
            key,
            first,
            second,
            ...names,
            value,
            moves: as.length * bs.length,
            kind: own,
            pair: { first: as[0], second: bs[0] },
          },
        ];
      }),
    [project, kerning],
  );
  const data = useMemo(() => (kind === 'all' ? rows : rows.filter((r) => r.kind === kind)), [rows, kind]);
  const table = useReactTable({
    data,
    columns: COLUMNS,
    state: { sorting, globalFilter: filter },
    onSortingChange: setSorting,
    globalFilterFn: (row, _, wanted: string) => {
      const name = `${row.original.firstName} · ${row.original.secondName}`;
      // A and a are not the same glyph: a capital that is typed is meant.
      return (wanted === wanted.toLowerCase() ? name.toLowerCase() : name).includes(wanted);
    },
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
    getRowId: (r) => r.key,
  });
  const visible = table.getRowModel().rows;
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: visible.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 34,
    overscan: 8,
  });
  useEffect(() => setOrder(visible.map((r) => r.original.pair)), [visible]);
  const isShown = (r: Row) => shown?.first === r.pair.first && shown.second === r.pair.second;
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="flex items-center gap-2 px-3 pb-1.5">
        <input
          aria-label="Filter the pairs"
          placeholder="filter by name"
          value={filter}
          onChange={(e) => setFilter(e.target.value)}
          className="h-7.5 min-w-0 flex-1 rounded-lg border border-line bg-paper px-2"
        />
        <Pick label="Which values" value={kind} onChange={setKind} options={KINDS} className="w-[104px]" />
      </div>
      <div className="grid gap-2 border-b border-line px-3 text-quiet" style={{ gridTemplateColumns: WIDTHS }}>
        {table.getFlatHeaders().map((h) => (
          <button
            key={h.id}
            type="button"
            className={`flex items-center gap-0.5 py-0.5 hover:text-ink ${h.column.id === 'value' || h.column.id === 'moves' ? 'justify-end' : ''}`}
            title={`Sort by ${String(h.column.columnDef.header).toLowerCase()}`}
            onClick={h.column.getToggleSortingHandler()}
          >
            {flexRender(h.column.columnDef.header, h.getContext())}
            {h.column.getIsSorted() === 'asc' && <ArrowUp size={12} />}
            {h.column.getIsSorted() === 'desc' && <ArrowDown size={12} />}
          </button>
        ))}
      </div>
      <div ref={scroller} className="min-h-0 flex-1 overflow-auto px-1 pb-2">
        <ul aria-label="Pairs" className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map((v) => {
            const r = visible[v.index]!.original;
            return (
              <li
                key={r.key}
                className={`absolute inset-x-0 grid items-center gap-2 rounded-md px-2 ${isShown(r) ? 'bg-kelp-tint' : ''}`}
                style={{ gridTemplateColumns: WIDTHS, height: v.size, transform: `translateY(${v.start}px)` }}
              >
                <button
                  type="button"
                  className="col-span-2 grid grid-cols-subgrid text-left"
                  aria-label={`${r.firstName} · ${r.secondName}`}
                  aria-pressed={isShown(r)}
                  onClick={() => choosePair(r.pair)}
                >
                  <Name name={r.firstName} side={r.first} />
                  <Name name={r.secondName} side={r.second} />
                </button>
                <NumberField
                  label={`Value of ${r.firstName} with ${r.secondName}`}
                  hideLabel
                  value={r.value}
                  onChange={(value) =>
                    run((p) => setPair(p, { master: masterId, first: r.first, second: r.second, value }))
                  }
                />
                <span className="text-right text-quiet">{r.moves}</span>
                <button
                  type="button"
                  aria-label={`Take ${r.firstName} with ${r.secondName} away`}
                  className="rounded p-1 text-quiet hover:bg-marigold-tint hover:text-brick"
                  onClick={() => run((p) => removePairs(p, { master: masterId, keys: [r.key] }))}
                >
                  <X size={13} />
                </button>
              </li>
            );
          })}
        </ul>
        {visible.length === 0 && (
          <p className="p-2 text-quiet">
            {rows.length === 0 ? 'Nothing is kerned in this master yet.' : 'No pair has such a name.'}
          </p>
        )}
      </div>
    </div>
  );
}

/** A side by its name; a group wears a frame. */
function Name({ name, side }: { name: string; side: PairSide }) {
  const isGroup = side.kind === 'group';
  return (
    <span className="min-w-0">
      <span
        className={`inline-block max-w-full truncate align-middle ${isGroup ? 'rounded border border-line bg-panel px-1' : 'px-1'}`}
        title={isGroup ? 'a group' : 'a glyph'}
      >
        {isGroup ? name.replace(/ group$/, '') : name}
      </span>
    </span>
  );
}
