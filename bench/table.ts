export type Row = { what: string; budget: string; measured: string; met: boolean };

/** Prints rows as a table for the terminal. */
export function printTable(title: string, rows: readonly Row[]): void {
  const width = Math.max(...rows.map((r) => r.what.length));
  console.log(`\n${title}`);
  for (const r of rows)
    console.log(
      `  ${r.what.padEnd(width)}  ${r.measured.padStart(22)}  (budget ${r.budget})  ${r.met ? 'met' : 'NOT MET'}`,
    );
}

/** Middle value of some timings. */
export const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
export const milliseconds = (v: number): string => `${v.toFixed(v < 10 ? 1 : 0)} ms`;
