import { addTo } from '../../../core/base/grouping';
import type { ComposedCell } from '../../../core/composing/view';

/** A cell’s own key: its character, or the name of a glyph without one. */
export const keyOf = (c: ComposedCell): string => (c.code >= 0 ? String(c.code) : c.name);

/** A row: all that is put together of one base; in a table with a place for each column, else one after the other. */
export type Row = { base: number; title: string; cells: readonly (ComposedCell | undefined)[] };
export type Grid = { rows: readonly Row[]; columns?: readonly (readonly number[])[] };

const baseTitle = (base: number): string => (base < 0 ? 'of your own' : String.fromCodePoint(base));

/** Cells by their base, in the order of the characters. */
export function byBase(cells: readonly ComposedCell[]): Grid {
  const by = new Map<number, ComposedCell[]>();
  for (const c of cells) addTo(by, c.base, c);
  const rows = [...by].sort(([a], [b]) => a - b).map(([base, own]) => ({ base, title: baseTitle(base), cells: own }));
  return { rows };
}

/** Bases by marks: a column for each mark, or marks together, that any recipe asks for, those that most letters take first. */
export function table(cells: readonly ComposedCell[]): Grid {
  const column = (c: ComposedCell) => c.marks.join(' ');
  const counts = new Map<string, number>();
  for (const c of cells) counts.set(column(c), (counts.get(column(c)) ?? 0) + 1);
  const keys = [...counts].sort(([a, m], [b, n]) => n - m || (a < b ? -1 : 1)).map(([k]) => k);
  const rows = byBase(cells).rows.map(({ base, title, cells: own }) => {
    const of = new Map(own.map((c) => [column(c!), c]));
    return { base, title, cells: keys.map((k) => of.get(k)) };
  });
  return { rows, columns: keys.map((k) => k.split(' ').map(Number)) };
}

/** Every cell of a grid in reading order. */
export const flat = ({ rows }: Grid): ComposedCell[] =>
  rows.flatMap((r) => r.cells.filter((c): c is ComposedCell => c !== undefined));

type Arrow = 'ArrowLeft' | 'ArrowRight' | 'ArrowUp' | 'ArrowDown';
export const isArrow = (key: string): key is Arrow => /^Arrow(Left|Right|Up|Down)$/.test(key);

/**
 * Where an arrow leads from a cell: left and right through all cells in reading order, up and down in the column, to the nearest
 * place there that has a cell.
 */
export function next(grid: Grid, from: string | undefined, arrow: Arrow): ComposedCell | undefined {
  const all = flat(grid);
  const at = all.findIndex((c) => keyOf(c) === from);
  if (at < 0) return all[0];
  if (arrow === 'ArrowLeft') return all[at - 1];
  if (arrow === 'ArrowRight') return all[at + 1];
  const row = grid.rows.findIndex((r) => r.cells.includes(all[at]));
  const column = grid.rows[row]!.cells.indexOf(all[at]);
  const step = arrow === 'ArrowUp' ? -1 : 1;
  for (let k = row + step; k >= 0 && k < grid.rows.length; k += step) {
    const { cells } = grid.rows[k]!;
    const found = grid.columns ? cells[column] : (cells[column] ?? cells[cells.length - 1]);
    if (found) return found;
  }
  return undefined;
}
