import { readFileSync } from 'node:fs';
import { basename } from 'node:path';
import { measureFor, proposedSides } from '../src/core/fitting/optical';
import { sidesOf } from '../src/core/fitting/sides';
import { openAny } from '../src/core/formats/openFile';
import { glyphForCodePoint } from '../src/core/project/queries';
import { median, printTable, type Row } from './table';

const LETTERS = 'abcdefghijklmpqrstuvwxyzABCDEFGIJKLMNPQRSTUVWXYZ';

/**
 * How near fit proposals come to the sides that the makers of some fonts chose, n, o, H and O kept as they are: the middle difference
 * and what 90 of 100 stay under, in thousandths of the em. The fonts are files named on the command line; none is shipped.
 */
export async function benchFitting(files: readonly string[]): Promise<void> {
  const rows: Row[] = [];
  const every: number[] = [];
  const row = (what: string, off: number[]) => {
    const [middle, most] = [median(off), off.sort((a, b) => a - b)[Math.floor(off.length * 0.9)]!];
    rows.push({
      what,
      budget: '10, 25',
      measured: `${middle.toFixed(1)}, ${most.toFixed(1)}`,
      met: middle < 10 && most < 25,
    });
  };
  for (const file of files) {
    const read = await openAny(new Uint8Array(readFileSync(file)), basename(file));
    if (!read.ok) throw new Error(read.reason);
    const { project } = read.value;
    const master = project.masters[0]!;
    const off = [...LETTERS].flatMap((letter) => {
      const glyph = glyphForCodePoint(project, letter.codePointAt(0)!);
      const measure = glyph && measureFor(project, glyph, master);
      const wanted = measure && proposedSides(project, glyph, master.id, measure);
      const now = glyph && sidesOf(project, glyph, master.id);
      if (!wanted || !now || !('left' in now)) return [];
      return [wanted.left - now.left, wanted.right - now.right].map((d) => (Math.abs(d) * 1000) / project.unitsPerEm);
    });
    if (off.length === 0) continue;
    every.push(...off);
    row(basename(file), off);
  }
  if (every.length > 0) row('all of them', every);
  printTable('Sides proposed, against those of the fonts: middle difference, and 90 of 100 under', rows);
}
