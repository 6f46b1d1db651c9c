import { printedBy } from './process';
import { milliseconds, printTable } from './table';

/** All that is wrong with a large family: at first, as a whole, after one edit. */
export function benchPreflight(): void {
  const found = printedBy<{
    glyphs: number;
    masters: number;
    first: number;
    whole: number;
    edit: number;
    count: number;
  }>('bench/preflightCold.ts');
  const row = (what: string, budget: number, measured: number) => ({
    what,
    budget: milliseconds(budget),
    measured: milliseconds(measured),
    met: measured < budget,
  });
  printTable('Preflight', [
    row(`${found.glyphs} glyphs in ${found.masters} masters: the first findings`, 300, found.first),
    row(`all ${found.count} of them, the first work of a process`, 3000, found.whole),
    row('the whole list after one point was moved', 50, found.edit),
  ]);
}
