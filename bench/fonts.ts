import { spawnSync } from 'node:child_process';
import { mkdtempSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readyDemo } from '../demo/ready';
import { castFont } from '../src/core/casting/font';
import { toWoff2 } from '../src/core/fontfacts/webfont';
import { openAny } from '../src/core/formats/openFile';
import type { Contour } from '../src/core/geometry/contour';
import { removeOverlaps } from '../src/core/geometry/overlaps';
import { readSfnt } from '../src/core/opentype/sfnt';
import { toWoff } from '../src/core/opentype/woff';
import type { Project } from '../src/core/project/model';
import { drawingsOf, flattened } from '../src/core/project/outline';
import { drawingOf } from '../src/core/project/queries';
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
  const rows: Row[] = [
    {
      what: 'opening a TrueType font of 3,000 glyphs, checked whole',
      budget: '1,000 ms',
      measured: milliseconds(median(times)),
      met: median(times) < 1000,
    },
  ];
  const folder = mkdtempSync(join(tmpdir(), 'wendril-fonts-'));
  const file = join(folder, 'large.ttf');
  writeFileSync(file, large);
  const reads = [0, 1, 2].map(() =>
    spawnSync('/usr/bin/python3', ['bench/referenceRead.py', file], { encoding: 'utf8' }),
  );
  if (reads.every((r) => r.status === 0)) {
    const python = median(reads.map((r) => Number(r.stdout.trim())));
    rows.push({
      what: 'the same by the general Python font library, outlines drawn',
      budget: '–',
      measured: `${milliseconds(python)}, ${(python / median(times)).toFixed(1)}x as long`,
      met: true,
    });
  }
  rows.push(...overlapRows());
  const demo = readyDemo();
  const started = performance.now();
  const compact = readSfnt(cast(demo, 'otf', true)).tables.get('CFF ')!.length;
  const took = performance.now() - started;
  const plain = readSfnt(cast(demo, 'otf', false)).tables.get('CFF ')!.length;
  rows.push({
    what: 'CFF of the demo with subroutines, to without',
    budget: '–',
    measured: `${compact} to ${plain} bytes, ${Math.round((100 * compact) / plain)} %`,
    met: true,
  });
  rows.push({ what: 'casting it so, overlaps kept', budget: '–', measured: milliseconds(took), met: true });
  const ttf = cast(demo, 'ttf', true);
  const packing = performance.now();
  const woff2 = await toWoff2(ttf);
  rows.push({
    what: 'WOFF2 of the demo, from TrueType',
    budget: '–',
    measured: `${woff2.length} of ${ttf.length} bytes, ${milliseconds(performance.now() - packing)}`,
    met: true,
  });
  const plainFile = join(folder, 'demo.ttf');
  writeFileSync(plainFile, ttf);
  const reference = performance.now();
  if (spawnSync('woff2_compress', [plainFile]).status === 0) {
    const theirs = statSync(join(folder, 'demo.woff2')).size;
    const share = woff2.length / theirs;
    rows.push({
      what: 'the same by the reference encoder',
      budget: 'within 1 %',
      measured: `${theirs} bytes, ${milliseconds(performance.now() - reference)}`,
      met: share < 1.01,
    });
  }
  rows.push({ what: 'WOFF of the demo', budget: '–', measured: `${toWoff(ttf).length} bytes`, met: true });
  printTable('Fonts', rows);
}

function cast(project: Parameters<typeof castFont>[0], flavour: 'otf' | 'ttf', compact: boolean): Uint8Array {
  const font = castFont(project, { flavour, place: { master: 'm1' }, keepOverlaps: true, compact });
  if (!font.ok) throw new Error(font.reason);
  return font.value.bytes;
}

/** Overlaps of ordinary glyphs, and of the demo's, which are drawn of overlapping strokes; components drawn out. */
function overlapRows(): Row[] {
  const outlines = (project: Project) => {
    const master = project.masters[0]!.id;
    return project.glyphOrder.map((id) =>
      flattened(drawingOf(project.glyphs[id]!, master), drawingsOf(project, master)).map((c) => ({ ...c })),
    );
  };
  const timed = (glyphs: readonly (readonly Contour[])[]) => {
    const started = performance.now();
    const changed = glyphs.filter((contours) => removeOverlaps(contours).changed).length;
    return [performance.now() - started, changed] as const;
  };
  const [many, some] = timed(outlines(largeProject(1500)));
  const [own, crossed] = timed(outlines(readyDemo()));
  return [
    {
      what: `overlaps of 1,500 glyphs, ${some} of them with any`,
      budget: '1,500 ms',
      measured: milliseconds(many),
      met: many < 1500,
    },
    {
      what: `overlaps of the demo's 543 glyphs, ${crossed} of them with any`,
      budget: '–',
      measured: milliseconds(own),
      met: true,
    },
  ];
}
