import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { openSource } from '../src/cli/source';
import { CastCache } from '../src/core/casting/cache';
import { castFont } from '../src/core/casting/font';
import { movePoints } from '../src/core/drawing/edits';
import { projectFiles } from '../src/core/formats/project/projectFile';
import { largeProject } from './largeProject';
import { median, milliseconds, printTable, type Row } from './table';

const time = <T>(work: () => T): [number, T] => {
  const started = performance.now();
  const value = work();
  return [performance.now() - started, value];
};

/** Casting from a UFO on disk: ours warm and cold, and the same work by Debian's general Python font library. */
export function benchCasting(): void {
  const folder = mkdtempSync(join(tmpdir(), 'wendril-bench-'));
  const ufo = join(folder, 'VelmarrowSans-Regular.ufo');
  for (const [path, bytes] of projectFiles(largeProject(1500))) {
    if (!path.includes('.ufo/')) continue;
    mkdirSync(dirname(join(folder, path)), { recursive: true });
    writeFileSync(join(folder, path), bytes);
  }
  const source = process.env.BENCH_UFO ?? ufo;
  // Before anything large is in memory: a big parent process makes its children start late.
  const startUp = [0, 1, 2, 3, 4].map(() => time(() => execFileSync('bin/wendril.mjs', ['--help']))[0]);
  const rounds = Array.from({ length: 40 }, () => time(() => cast(source, true))[0]).slice(20);
  const cold = [0, 1, 2].map(
    () =>
      time(() =>
        execFileSync('bin/wendril.mjs', ['cast', source, '--out', folder, '--format', 'ttf', '--keep-overlaps']),
      )[0],
  );

  const project = largeProject(1500);
  const cache = new CastCache();
  const [first] = time(() => castFont(project, { flavour: 'ttf', place: { master: 'm1' }, cache }));
  const moved = movePoints(project, { at: { glyph: 'g40', master: 'm1' }, points: ['0:0'], dx: 3, dy: 0 });
  const [after] = time(() => moved.ok && castFont(moved.project, { flavour: 'ttf', place: { master: 'm1' }, cache }));

  const rows: Row[] = [
    {
      what: '1,500 glyphs to TrueType, overlaps removed, cold caches',
      budget: '2,000 ms',
      measured: milliseconds(first),
      met: first < 2000,
    },
    { what: 'the same after one edit', budget: '200 ms', measured: milliseconds(after), met: after < 200 },
    {
      what: 'command line: start',
      budget: '300 ms',
      measured: milliseconds(median(startUp)),
      met: median(startUp) < 300,
    },
  ];
  const references = Array.from({ length: 5 }, () =>
    time(() =>
      spawnSync('/usr/bin/python3', ['bench/reference.py', source, join(folder, 'reference.ttf')], {
        encoding: 'utf8',
      }),
    ),
  );
  if (references.every(([, run]) => run.status === 0)) {
    const python = median(references.map(([, run]) => Number(run.stdout.trim())));
    const wholePython = median(references.map(([whole]) => whole));
    const compared = (ours: number, theirs: number) =>
      `${milliseconds(ours)} to ${milliseconds(theirs)}, ${(theirs / ours).toFixed(1)}x`;
    const warm = median(rounds);
    rows.push({
      what: 'UFO to TrueType, warm, to the general Python font library after its imports',
      budget: '10x',
      measured: compared(warm, python),
      met: python / warm >= 10,
    });
    rows.push({
      what: 'the same, whole command to whole command',
      budget: '–',
      measured: compared(median(cold), wholePython),
      met: true,
    });
  } else console.log('python3-fonttools is not installed; no comparison is made.');
  printTable('Casting', rows);
}

function cast(source: string, keepOverlaps: boolean): void {
  const project = openSource(source);
  const font = castFont(project, { flavour: 'ttf', place: { master: project.masters[0]!.id }, keepOverlaps });
  if (!font.ok) throw new Error(font.reason);
}
