import { printedBy } from './process';
import { milliseconds, printTable } from './table';

/** Masters compared and looked at between, and cast as one font. */
export function benchVariation(): void {
  const found = printedBy<{
    glyphs: number;
    first: number;
    cold: number;
    edited: number;
    kinks: number;
    line: number;
  }>('bench/variationCold.ts');
  const font = printedBy<{ cold: number; warm: number; bytes: number; glyphs: number }>('bench/variableCold.ts');
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
    row(`the demo (${font.glyphs} glyphs, 6 masters) as a variable font, ${font.bytes} bytes, cold`, 2000, font.cold),
    row('the same again', 1000, font.warm),
  ]);
}
