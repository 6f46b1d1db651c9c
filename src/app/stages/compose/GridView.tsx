import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, useEffect, useMemo, useRef } from 'react';
import type { ComposedCell } from '../../../core/composing/view';
import type { Glyph } from '../../../core/project/model';
import { glyphForCodePoint, glyphNamed, masterOf } from '../../../core/project/queries';
import { useBench } from '../../state/bench';
import { GlyphShape } from '../../ui/GlyphShape';
import { Cell } from './Cell';
import { type Grid, isArrow, keyOf, next } from './grid';

export type Picking = 'only' | 'also' | 'range';

const ROW = { rows: 60, table: 46 };
/** Of the rows of a table only columns in sight are drawn. */
const LEAD = 64;

/** Letters by base, or bases by marks; arrow keys walk, Shift with them chooses all between. */
export function GridView({
  grid,
  chosen,
  current,
  onPick,
  onOpen,
}: {
  grid: Grid;
  chosen: ReadonlySet<string>;
  current: string | undefined;
  onPick: (cell: ComposedCell, how: Picking) => void;
  onOpen: (cell: ComposedCell) => void;
}) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const box = useRef<HTMLDivElement>(null);
  const size = grid.columns ? ROW.table : ROW.rows;
  const rows = useVirtualizer({
    count: grid.rows.length,
    getScrollElement: () => box.current,
    estimateSize: () => size + 12,
    getItemKey: (i) => grid.rows[i]!.base,
    overscan: 3,
  });
  const columns = useVirtualizer({
    horizontal: true,
    count: grid.columns?.length ?? 0,
    getScrollElement: () => box.current,
    estimateSize: () => size + 4,
    scrollMargin: LEAD,
    overscan: 3,
  });
  const reach = useMemo(() => {
    const { zones } = masterOf(project, master)!;
    return {
      top: zones.capHeight.position + project.unitsPerEm * 0.4,
      bottom: zones.descender.position - project.unitsPerEm * 0.06,
    };
  }, [project, master]);
  // What is walked to comes into sight.
  // biome-ignore lint/correctness/useExhaustiveDependencies: only a new place moves the list.
  useEffect(() => {
    const row = grid.rows.findIndex((r) => r.cells.some((c) => c && keyOf(c) === current));
    if (row < 0) return;
    rows.scrollToIndex(row, { align: 'auto' });
    const column = grid.columns ? grid.rows[row]!.cells.findIndex((c) => c && keyOf(c) === current) : -1;
    if (column >= 0) columns.scrollToIndex(column, { align: 'auto' });
  }, [current]);
  const keys = (e: KeyboardEvent) => {
    if (!isArrow(e.key)) return;
    const to = next(grid, current, e.key);
    if (!to) return;
    e.preventDefault();
    onPick(to, e.shiftKey ? 'range' : 'only');
  };
  const glyphOf = (c: ComposedCell): Glyph | undefined =>
    c.code >= 0 ? glyphForCodePoint(project, c.code) : glyphNamed(project, c.name);
  const cell = (c: ComposedCell) => (
    <Cell
      key={keyOf(c)}
      cell={c}
      project={project}
      master={master}
      glyph={glyphOf(c)}
      reach={reach}
      size={size}
      chosen={chosen.has(keyOf(c))}
      onPick={(picked, how) => {
        box.current?.focus({ preventScroll: true });
        onPick(picked, how);
      }}
      onOpen={onOpen}
    />
  );
  const width = grid.columns ? LEAD + columns.getTotalSize() : undefined;
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: arrow keys move among the letters inside.
    <div
      ref={box}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: the list keeps the keys while letters come and go.
      tabIndex={0}
      data-testid="letters"
      className="min-h-0 flex-1 overflow-auto px-5 pb-4 outline-offset-[-2px]"
      onKeyDown={keys}
    >
      {grid.columns && (
        <div aria-hidden className="sticky top-0 z-10 h-8 border-b border-line bg-paper" style={{ width }}>
          {columns.getVirtualItems().map((item) => (
            <span
              key={item.key}
              className="absolute flex h-8 items-center justify-center whitespace-nowrap text-[19px]"
              style={{ left: item.start, width: size }}
            >
              {columnTitle(grid.columns![item.index]!)}
            </span>
          ))}
        </div>
      )}
      <ul
        aria-label={grid.columns ? 'Bases by marks' : 'Letters by base'}
        className="relative"
        style={{ height: rows.getTotalSize(), width }}
      >
        {rows.getVirtualItems().map((item) => {
          const row = grid.rows[item.index]!;
          const glyph = row.base >= 0 ? glyphForCodePoint(project, row.base) : undefined;
          return (
            <li
              key={item.key}
              ref={rows.measureElement}
              data-index={item.index}
              aria-label={row.title}
              className="absolute right-0 left-0 flex items-start border-b border-line py-1.5"
              style={{ top: item.start }}
            >
              <span className="sticky left-0 z-[5] flex w-16 shrink-0 justify-center bg-paper" title={row.title}>
                {glyph ? (
                  <GlyphShape project={project} glyph={glyph} master={master} size={size - 4} reach={reach} />
                ) : (
                  <span className={row.base < 0 ? 'py-2 text-[12px] text-quiet' : 'text-[26px] text-quiet'}>
                    {row.title}
                  </span>
                )}
              </span>
              {grid.columns ? (
                <div className="relative" style={{ height: size }}>
                  {columns.getVirtualItems().map((c) => {
                    const own = row.cells[c.index];
                    return own ? (
                      <div key={c.key} className="absolute" style={{ left: c.start - LEAD }}>
                        {cell(own)}
                      </div>
                    ) : null;
                  })}
                </div>
              ) : (
                <div className="flex flex-wrap gap-1">{row.cells.map((c) => c && cell(c))}</div>
              )}
            </li>
          );
        })}
      </ul>
    </div>
  );
}

/** A mark over a ring; letters that stand beside as they are. */
const columnTitle = (marks: readonly number[]): string =>
  marks
    .map((m) =>
      m < 0 ? '·' : /\p{M}/u.test(String.fromCodePoint(m)) ? `◌${String.fromCodePoint(m)}` : String.fromCodePoint(m),
    )
    .join('');
