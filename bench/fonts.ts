import { buildDemo } from '../demo/family';
import { castFont } from '../src/core/casting/font';
import { toWoff2 } from '../src/core/casting/webfont';
import { openAny } from '../src/core/formats/openFile';
import { readSfnt } from '../src/core/opentype/sfnt';
import { toWoff } from '../src/core/opentype/woff';
import { largeProject } from './largeProject';
import { median, milliseconds, printTable, type Row } from './table';

/** Reading fonts, packing them for the web, and what subroutines save. */
export async function benchFonts(): Promise<void> {
  const large = cast(largeProject(3000), 'ttf', true);
  const times: number[] = [];
  for (let i = 0; i < 5; i++) {
    const started = performance.now();
    const read = await openAny(large, 'large.ttf');
    if (!read.ok) throw new Error(read.reason);
    times.push(performance.now() - started);
  }
  const rows: Row[] = [{ what: 'opening a TrueType font of 3,000 glyphs, checked whole', budget: '1,000 ms', measured: milliseconds(median(times)), met: median(times) < 1000 }];
  const demo = buildDemo();
  const started = performance.now();
  const compact = readSfnt(cast(demo, 'otf', true)).tables.get('CFF ')!.length;
  const took = performance.now() - started;
  const plain = readSfnt(cast(demo, 'otf', false)).tables.get('CFF ')!.length;
  rows.push({ what: 'CFF of the demo with subroutines, to without', budget: '–', measured: `${compact} to ${plain} bytes, ${Math.round((100 * compact) / plain)} %`, met: true });
  rows.push({ what: 'casting it so, overlaps kept', budget: '–', measured: milliseconds(took), met: true });
  const ttf = cast(demo, 'ttf', true);
  const packing = performance.now();
  const woff2 = await toWoff2(ttf);
  rows.push({
    what: 'WOFF2 of the demo by the reference encoder, from TrueType',
    budget: '–',
    measured: `${woff2.length} of ${ttf.length} bytes, ${milliseconds(performance.now() - packing)}`,
    met: true,
  });
  rows.push({ what: 'WOFF of the demo', budget: '–', measured: `${toWoff(ttf).length} bytes`, met: true });
  printTable('Fonts', rows);
}

function cast(project: Parameters<typeof castFont>[0], flavour: 'otf' | 'ttf', compact: boolean): Uint8Array {
  const font = castFont(project, { flavour, master: 'm1', keepOverlaps: true, compact });
  if (!font.ok) throw new Error(font.reason);
  return font.value.bytes;
}
