import { execFileSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildSync } from 'esbuild';
import { milliseconds, printTable } from './table';

/** Masters compared and looked at between, as it is shipped: bundled, in a process of its own. */
export function benchVariation(): void {
  const script = join(mkdtempSync(join(tmpdir(), 'wendril-masters-')), 'masters.mjs');
  buildSync({
    entryPoints: ['bench/variationCold.ts'],
    outfile: script,
    bundle: true,
    platform: 'node',
    format: 'esm',
  });
  const found = JSON.parse(execFileSync(process.execPath, [script], { encoding: 'utf8' })) as {
    glyphs: number;
    first: number;
    cold: number;
    edited: number;
    kinks: number;
    line: number;
  };
  const row = (what: string, budget: number, measured: number) => ({
    what,
    budget: milliseconds(budget),
    measured: milliseconds(measured),
    met: measured < budget,
  });
  printTable('Masters', [
    {
      what: `agreement of ${found.glyphs} glyphs in 6 masters, the first work of a process`,
      budget: 'none',
      measured: milliseconds(found.first),
      met: true,
    },
    row('the same of drawings that were never compared', 150, found.cold),
    row('the same after one edit', 1, found.edited),
    row('kinks, crossings and lumps of the same, at many places', 3000, found.kinks),
    row('30 letters at another place, as on the plane', 16, found.line),
  ]);
}
