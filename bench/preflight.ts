import { answeredInWorker } from './inWorker';
import { largeFamily } from './largeFamily';
import type { PreflightTimes } from './preflightWorker';
import { median, milliseconds, printTable } from './table';

/** All that is wrong with a large family, in a worker that begins: at first, as a whole, after one edit. The middle of five browsers. */
export async function benchPreflight(): Promise<void> {
  const family = largeFamily(2000);
  const runs: PreflightTimes[] = [];
  for (let i = 0; i < 5; i++) runs.push(await answeredInWorker('bench/preflightWorker.ts', family));
  const row = (what: string, budget: number, key: 'first' | 'whole' | 'edit') => {
    const measured = median(runs.map((r) => r[key]));
    return { what, budget: milliseconds(budget), measured: milliseconds(measured), met: measured < budget };
  };
  const { glyphs, masters, count } = runs[0]!;
  printTable('Preflight, in a worker of Chromium', [
    row(`${glyphs} glyphs in ${masters} masters: the first findings`, 300, 'first'),
    row(`all ${count} of them, the first work of the worker`, 3000, 'whole'),
    row('the whole list after one point was moved', 50, 'edit'),
  ]);
}
